import { describe, expect, it } from 'vitest'
import { demo, demoNames } from '@feuillet/core/demo'
import { results } from '../../../../core/test/results'
import { groupSteps, partDone } from './step-groups'

describe.each(demoNames)('the steps of %s in groups', (name) => {
  const { steps } = results(demo(name)).assembly
  const groups = groupSteps(steps)

  it('hold every step once, with the number that it has in the whole', () => {
    const all = groups.flatMap((group) => group.steps)
    expect(all.toSorted((a, b) => a.number - b.number).map(({ step }) => step.id)).toEqual(
      steps.map((step) => step.id),
    )
    for (const { step, number } of all) expect(steps[number - 1]).toBe(step)
  })

  it('are about one load, one layer, or neither', () => {
    for (const { loadId, layerId, steps: own } of groups)
      for (const { step } of own)
        // Single flags of several layers follow each other.
        expect([step.loadId, step.pieceId ? null : step.layerId]).toEqual([loadId, layerId])
    expect(new Set(groups.map((group) => group.key)).size).toBe(groups.length)
  })

  it('fold once all of them is ticked, and not before', () => {
    const [first, second] = groups
    const ids = first!.steps.map(({ step }) => step.id)
    const [none] = partDone(
      groups,
      second!.steps.slice(0, -1).map(({ step }) => step.id),
    )
    expect(none).toEqual(second!.steps.length === 1 ? none : [])
    expect(partDone(groups, ids)).toEqual([[first], groups.slice(1)])
  })
})
