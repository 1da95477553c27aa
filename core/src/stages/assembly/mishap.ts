// Something went wrong at a step: what can be saved and how, what must come off first, which pieces are cut again, and the plan that
// goes on from there.
import {
  glueOf,
  paperOf,
  findLayer,
  markSpoilt,
  spendFoam,
  servedCuts,
  spoilElsewhere,
  tickStep,
  type Layer,
  type Project,
  type Spoilt,
  type Supplies,
} from '../../project'
import type { Step, StepKind } from './task'

/** What goes wrong at a bench. */
export const MISHAPS = [
  'torn',
  'wrong colour',
  'stuck askew',
  'lost a bit',
  'foam ran out',
  'buckled',
  'glue shows',
] as const
/** One of MISHAPS. */
export type Mishap = (typeof MISHAPS)[number]

/** What to do about it. */
export interface Rescue {
  /** What can be saved and how, the gentlest first. */
  save: string[]
  /** Ticked steps that must be taken back first, the last one first. */
  undo: Step[]
  /** Whether a new piece helps; then of these pieces of the layer one each is cut again. */
  mayRecut: boolean
}

const LAYING: readonly StepKind[] = ['lay', 'glue']
/** What is done to a piece itself, and anew to one that is cut again. */
const OWN_WORK: readonly StepKind[] = ['score', 'shape', 'press', 'pad', 'lay', 'glue', 'dry', 'mount']

/** What goes wrong can be of a step: of a sheet, a layer, or the whole. */
export const mishapsOf = (step: Pick<Step, 'kind' | 'layerId'>): Mishap[] => {
  if (step.layerId === null)
    return step.kind === 'cut' || step.kind === 'weed'
      ? ['torn', 'lost a bit']
      : ['torn', 'lost a bit', 'stuck askew']
  if (step.kind === 'pad') return ['foam ran out', 'torn', 'lost a bit', 'wrong colour']
  return MISHAPS.filter((one) => one !== 'foam ran out')
}

/** What can be saved of a step that went wrong. `done` are the steps that are ticked. */
export function rescueFor(
  project: Project,
  steps: readonly Step[],
  { step, mishap }: { step: Step; mishap: Mishap },
): Rescue {
  const layer = findLayer(project, step.layerId)
  const off = comingOff(project, steps, { step, mishap })
  const done = new Set(project.progress.done)
  return {
    save: savings(project, layer, { step, mishap }),
    undo: steps.filter(({ id }) => off.has(id) && done.has(id)).toReversed(),
    mayRecut: isMadeAnew(mishap) && layer !== undefined,
  }
}

/** Whether a new piece helps. */
const isMadeAnew = (mishap: Mishap): boolean => mishap !== 'foam ran out' && mishap !== 'stuck askew'

/** Ids of the steps of a layer that are done anew after a mishap, and of all that is built on them. */
function comingOff(
  project: Project,
  steps: readonly Step[],
  { step: { layerId }, mishap }: { step: Step; mishap: Mishap },
): ReadonlySet<string> {
  if (!findLayer(project, layerId) || mishap === 'foam ran out' || mishap === 'glue shows') return new Set()
  const isOwn = (step: Step) =>
    step.layerId === layerId &&
    (isMadeAnew(mishap) ? OWN_WORK.includes(step.kind) : LAYING.includes(step.kind))
  const off = new Set(steps.filter(isOwn).map(({ id }) => id))
  const laid = new Set(
    steps.filter((step) => step.layerId === layerId && LAYING.includes(step.kind)).map(({ id }) => id),
  )
  // Only what was stuck on it comes off: what merely follows in time, or waited for its glue, stays.
  const onIt = new Set(laid)
  const stuck = new Set(laid)
  for (const step of steps) {
    const isLaid = LAYING.includes(step.kind)
    if (!step.after.some((id) => (isLaid ? stuck : onIt).has(id))) continue
    if (isLaid) stuck.add(step.id)
    if (isLaid || step.kind === 'dry' || isLast(step)) onIt.add(step.id)
  }
  // A part that is taken up as one is not stuck on its own upper layers: they come off it where it lies.
  const takesUp = ({ asOne, layerId: base }: Step) => base !== layerId && asOne?.layerIds.includes(layerId!)
  for (const step of steps) if (onIt.has(step.id) && !takesUp(step)) off.add(step.id)
  return off
}

/** What comes off dries no longer. */
function withoutClocks(project: Project, off: ReadonlySet<string>): Project {
  const drying = project.progress.drying.filter(({ stepId }) => !off.has(stepId))
  return drying.length === project.progress.drying.length
    ? project
    : { ...project, progress: { ...project.progress, drying } }
}

const isLast = ({ kind }: Step): boolean => kind === 'mount' || kind === 'glaze' || kind === 'close'

function savings(
  project: Project,
  layer: Layer | undefined,
  { step, mishap }: { step: Step; mishap: Mishap },
): string[] {
  const paper = layer && paperOf(project, layer)
  const onFoam = layer?.joint.kind === 'foam'
  const glue = layer ? glueOf(project, layer) : undefined
  const off = onFoam
    ? 'Draw a thread or a thin blade through the foam, away from fingers; rub what stays off with a finger.'
    : glue && glue.handleMin <= 2
      ? 'It has taken hold: lift it from a corner with a thin blade, flat, away from fingers; hot glue gives way when it is warmed from aside.'
      : 'While it is still wet slide it, or lift it from a corner and wipe the glue off; once it holds, it comes off only with a thin blade.'
  switch (mishap) {
    case 'torn':
      return [
        'A tear that does not reach across: glue behind it, edges pressed together, a strip of the same paper behind.',
        ...(layer && step.kind !== 'cut' && step.kind !== 'weed'
          ? ['A place that a layer above hides, or a bit laid over it, needs no new piece.']
          : ['Peel the rest with the mat turned over, the mat bent away and the card kept flat.']),
        'Else cut that piece again: off-cuts of the paper come first.',
      ]
    case 'wrong colour':
      return [
        `Ink along the edges and a wash over what shows may bring it near enough${paper ? `: it was to be ${paper.name}` : ''}.`,
        'Where it stays, choose its paper anew under Paper, so that what is cut later follows.',
        'Else cut it again in the right one.',
      ]
    case 'stuck askew':
      return [
        off,
        'Less than a millimetre is not seen from arm’s length: look from there before you pull.',
        'A border or bit over the edge hides more than a new start would mend.',
      ]
    case 'lost a bit':
      return [
        'Look on the mat, in the sheet it came out of, and under your sleeve.',
        'A spare of the same shape, or one of another colour as if it were meant.',
        'Else cut that bit again: it goes onto an off-cut.',
      ]
    case 'foam ran out':
      return [
        'Thinner pads on each other make the same height; two halves of a larger one hold as well.',
        'Strips of card in several layers stand in where nobody looks.',
        'Middle pads can wait; corners and tips cannot. What is missing goes onto the shopping list.',
      ]
    case 'buckled':
      return [
        'Under a flat weight overnight, between baking paper, while the glue is still soft.',
        'A border laid over it, or pads under the wave, hold it down.',
        `Next time dots in place of lines${glue && glue.bucklesBelowGsm > 0 ? `: ${glue.name} buckles card under ${glue.bucklesBelowGsm} gsm` : ''}.`,
      ]
    case 'glue shows':
      return [
        `Wet: a damp cotton bud, rolled, not rubbed. Dry: ${glue?.driesClear ? 'it dries clear; wait before you judge' : 'lift it with the tip of a blade'}.`,
        'A glue eraser, or a ball of the same glue half dry, takes off what is on a smooth face.',
        'Glitter or a small bit over the place, or the piece cut again.',
      ]
  }
}

/** What a mishap makes of a project. */
export interface Mended {
  project: Project
  supplies: Supplies
  /** Pieces that are to be cut again. */
  recut: number
}

const SPOILS: Partial<Record<Mishap, Spoilt>> = {
  torn: 'torn',
  'lost a bit': 'lost',
  'wrong colour': 'wrong colour',
}

/**
 * Goes on after a mishap: steps are taken back, foam that came off with them is spent, pieces are marked to be cut again, and a foam
 * that ran out is at hand no more.
 * @param pieceIds pieces of the step's layer that are cut again; none where what is there is saved
 * @param foamIds foams that ran out
 */
export function afterMishap(
  { project, supplies }: { project: Project; supplies: Supplies },
  steps: readonly Step[],
  {
    step,
    mishap,
    pieceIds,
    foamIds = [],
  }: { step: Step; mishap: Mishap; pieceIds: readonly string[]; foamIds?: readonly string[] },
): Mended {
  const { undo } = rescueFor(project, steps, { step, mishap })
  let next = undo.reduce((now, { id }) => spendFoam(tickStep(now, id, false), id), project)
  next = withoutClocks(next, comingOff(next, steps, { step, mishap }))
  let recut = 0
  for (const pieceId of pieceIds) {
    const spoiled = spoilOne(next, step.layerId, { pieceId, why: SPOILS[mishap] ?? 'torn' })
    if (spoiled) recut++
    next = spoiled ?? next
  }
  const out = new Set(foamIds)
  const emptied = <T extends { id: string; count: number }>(list: readonly T[]) =>
    list.map((one) => (out.has(one.id) && one.count > 0 ? { ...one, count: 0 } : one))
  if (out.size === 0) return { project: next, supplies, recut }
  return {
    project: { ...next, drawer: { ...next.drawer, foams: emptied(next.drawer.foams) } },
    supplies: { ...supplies, foams: emptied(supplies.foams) },
    recut,
  }
}

/** One whole piece that is cut, here or elsewhere, marked as spoilt; null where none is noted as cut. */
function spoilOne(
  project: Project,
  layerId: string | null,
  { pieceId, why }: { pieceId: string; why: Spoilt },
): Project | null {
  if (layerId === null) return null
  const cuts = servedCuts(project)
  const named = cuts.filter(({ piece }) => piece.layerId === layerId && piece.pieceId === pieceId)
  const serving = cuts.filter(({ serves }) => serves?.layer.id === layerId && serves.piece.id === pieceId)
  const mine = serving.length > 0 ? serving : named
  const here = mine.find(({ at }) => at !== null)?.at
  if (here) return markSpoilt(project, here, why)
  return spoilElsewhere(project, { layerId, pieceId, ...mine[0]?.piece, why })
}
