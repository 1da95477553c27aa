import type { Step } from '@feuillet/core/stages/assembly'

/** Steps about one thing: a load, a layer, or what comes before and after them. */
export interface StepGroup {
  key: string
  loadId: string | null
  layerId: string | null
  /** The layers of the part that is taken up as one. */
  layerIds: readonly string[]
  /** Layers that it comes onto. */
  onto: readonly string[]
  /** With their numbers in the whole list, from 1. */
  steps: { step: Step; number: number }[]
}

/** Steps gathered by what they are about, in the order in which work on each begins. */
export function groupSteps(steps: readonly Step[]): StepGroup[] {
  const groups = new Map<string, StepGroup>()
  let lone = ''
  steps.forEach((step, i) => {
    const { loadId } = step
    // Single flags go onto the twine in their order, whatever layer each is of.
    const layerId = step.pieceId ? null : step.layerId
    // What is about no one thing stands with its like, as long as nothing comes between.
    if (loadId || layerId) lone = ''
    else lone ||= `step ${step.id}`
    // A part is laid long after the layer that it was begun with.
    const of = step.asOne ? `part ${step.asOne.partId}` : `layer ${layerId}`
    const key = loadId ? `load ${loadId}` : layerId ? of : lone
    const layerIds = step.asOne?.layerIds ?? (layerId ? [layerId] : [])
    const group = groups.get(key) ?? { key, loadId, layerId, layerIds, onto: [], steps: [] }
    if (step.onto && group.onto.length === 0) group.onto = step.onto
    group.steps.push({ step, number: i + 1 })
    groups.set(key, group)
  })
  return [...groups.values()]
}

/** Groups of which all is done, and those with something left. */
export function partDone(groups: readonly StepGroup[], done: readonly string[]): [StepGroup[], StepGroup[]] {
  const ticked = new Set(done)
  const isDone = ({ steps }: StepGroup) => steps.every(({ step }) => ticked.has(step.id))
  return [groups.filter(isDone), groups.filter((group) => !isDone(group))]
}
