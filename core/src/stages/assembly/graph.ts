// The graph of the work: which jobs there are, what each waits for and how long it takes. Loads are cut and weeded, folds
// scored, everything tried on dry; then layers are stuck from one side of the stack to the other; then it dries and is mounted.
import { regionPerimeter } from '../../base/geometry'
import {
  isOnPane,
  adhesiveOf,
  builtLayers,
  cutPieces,
  layerBox,
  layerRegion,
  stickGlueOf,
  type Layer,
  type Project,
} from '../../project'
import { coverOf, topperHold, type DepthPlan } from '../depth'
import type { Load } from '../sheets'
import type { About, Job, PadCount, StepKind, Untold } from './task'
import { BENCH, UNNAMED_GLUE } from './times'

/** What the graph follows from. */
export interface Known {
  project: Project
  loads: readonly Load[]
  /** Null before the pads are planned: every joint on foam is taken to hold, and times of pads are left out. */
  depth: Pick<DepthPlan, 'layers' | 'pads' | 'stackMm' | 'roomMm' | 'shim'> | null
}

/** All jobs of a project; of the hands as often as the work is made, drying goes on for all at once. */
export function jobsOf(known: Known): Untold[] {
  const layers = builtLayers(known.project)
  if (layers.length === 0) return []
  const pads = padCounts(known)
  const stuck = sticking(known, layers, pads)
  const rest = [
    ...scoring(known, layers),
    ...shapings(known, layers),
    ...stuck,
    ...finishing(known, layers, stuck, pads),
  ]
  return [...cutting(known), ...rest.map((one) => timesBatch(one, known.project.plan.batch))]
}

const timesBatch = (job: Untold, batch: number): Untold =>
  job.needs.includes('hands') ? { ...job, minutes: job.minutes * batch } : job

/** A job of the hands unless it says otherwise. */
function job(
  id: string,
  kind: StepKind,
  about: About,
  more: Pick<Job, 'after' | 'minutes'> & Partial<Job>,
): Untold {
  return { id, kind, about, needs: ['hands'], layerId: null, loadId: null, ...more }
}

/** Pads of each layer by their height, the most frequent first. */
function padCounts({ depth }: Known): Map<string, PadCount[]> {
  const byLayer = new Map<string, Map<number, number>>()
  for (const { layerId, thicknessMm } of depth?.pads ?? []) {
    const counts = byLayer.get(layerId) ?? new Map<number, number>()
    counts.set(thicknessMm, (counts.get(thicknessMm) ?? 0) + 1)
    byLayer.set(layerId, counts)
  }
  return new Map(
    [...byLayer].map(([layerId, counts]) => [
      layerId,
      [...counts].map(([mm, count]) => ({ mm, count })).toSorted((a, b) => b.count - a.count),
    ]),
  )
}

const sum = (pads: readonly PadCount[]): number => pads.reduce((total, { count }) => total + count, 0)

function cutting({ project, loads, depth }: Known): Untold[] {
  const pads = (depth?.pads.length ?? 0) * project.plan.batch
  const jobs = [
    job(
      'prepare',
      'prepare',
      { step: 'prepare', sheets: loads.length, pads },
      { after: [], minutes: BENCH.prepareMinutes },
    ),
  ]
  loads.forEach((load, i) => {
    const loose = load.pieces.filter((piece) => piece.loose).length
    const holes = load.pieces.reduce((total, piece) => total + piece.shape.holes.length, 0)
    const printed = load.pieces.filter((piece) => piece.printed).length
    if (printed > 0)
      jobs.push(
        job(
          `print-${load.id}`,
          'print',
          { step: 'print', load, pieces: printed },
          { after: ['prepare'], minutes: BENCH.printMinutes, loadId: load.id },
        ),
        job(
          `ink-${load.id}`,
          'dry',
          { step: 'ink', load },
          { after: [`print-${load.id}`], needs: [], minutes: BENCH.inkMinutes, loadId: load.id },
        ),
      )
    jobs.push(
      job(
        `cut-${load.id}`,
        'cut',
        { step: 'cut', load, first: i === 0 },
        {
          after: [
            i === 0 ? 'prepare' : `cut-${loads[i - 1]!.id}`,
            ...(printed > 0 ? [`ink-${load.id}`] : []),
          ],
          needs: ['cutter'],
          minutes: load.minutes,
          loadId: load.id,
        },
      ),
      job(
        `weed-${load.id}`,
        'weed',
        { step: 'weed', load, pieces: load.pieces.length, holes, loose },
        {
          after: [`cut-${load.id}`],
          minutes: BENCH.peelMinutes + (holes * BENCH.weedSeconds + loose * BENCH.looseSeconds) / 60,
          loadId: load.id,
        },
      ),
    )
  })
  return jobs
}

const isFolded = (layer: Layer): boolean => layer.folds.length > 0
const isShaped = ({ shaping }: Layer): boolean => shaping.how !== 'flat'

/** Folds are scored while a piece lies flat, before anything is tried on. */
const scoring = ({ loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isFolded).map((layer) =>
    job(
      `score-${layer.id}`,
      'score',
      { step: 'score', layer },
      {
        after: loads
          .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
          .map((load) => `weed-${load.id}`),
        minutes: BENCH.takeUpMinutes + layer.folds.length * BENCH.scoreMinutes,
        layerId: layer.id,
      },
    ),
  )

/** What hands form is formed when it is cut, and folded where it is. */
const shapings = ({ loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isShaped).map((layer) =>
    job(
      `shape-${layer.id}`,
      'shape',
      { step: 'shape', layer },
      {
        after: isFolded(layer)
          ? [`score-${layer.id}`]
          : loads
              .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
              .map((load) => `weed-${load.id}`),
        minutes:
          BENCH.takeUpMinutes +
          cutPieces(layer).length *
            layer.copies *
            (layer.shaping.how === 'roll' ? BENCH.rollMinutes : BENCH.curlMinutes),
        layerId: layer.id,
      },
    ),
  )

/** Whether a layer goes on with glue: by choice, or because no pad fits. */
const isGlued = ({ depth }: Known, { joint }: Layer, pads: number): boolean =>
  joint.kind === 'glue' || (joint.kind === 'foam' && depth !== null && pads === 0)

/** What is stuck to the stack; what the frame holds by tabs comes after. */
const isStacked = (layer: Layer): boolean =>
  layer.joint.kind !== 'tab' && !isOnPane(layer) && layer.role !== 'cover'

function sticking(known: Known, layers: readonly Layer[], padsOf: ReadonlyMap<string, PadCount[]>): Untold[] {
  const { project, loads } = known
  const faceDown = project.plan.direction === 'face-down'
  // Flags are not stuck to each other: they go onto the twine.
  const isGarland = project.mount.kind === 'garland'
  const stacked = layers.filter((layer) => isStacked(layer) && !(isGarland && layer.joint.kind === 'none'))
  const order = faceDown ? stacked.toReversed() : stacked
  const waitMin = (adhesiveOf(project) ?? UNNAMED_GLUE).handleMin
  const jobs = [
    job(
      'dry-fit',
      'dry-fit',
      { step: 'dry-fit', layers: layers.length },
      {
        after: [
          'prepare',
          ...loads.map((load) => `weed-${load.id}`),
          ...layers.filter(isFolded).map((layer) => `score-${layer.id}`),
          ...layers.filter(isShaped).map((layer) => `shape-${layer.id}`),
        ],
        minutes: BENCH.dryFitMinutes + layers.length * BENCH.dryFitLayerMinutes,
      },
    ),
  ]
  const add = (next: Untold) => jobs.push(next)
  order.forEach((layer, i) => {
    const before = jobs.at(-1)!.id
    const own = { layerId: layer.id }
    if (i === 0 && !isGarland) {
      const pads = faceDown ? [] : (padsOf.get(layer.id) ?? [])
      const minutes = BENCH.layMinutes + (sum(pads) * BENCH.padSeconds) / 60
      add(
        job(
          `lay-${layer.id}`,
          'lay',
          { step: 'start', layer, faceDown, pads },
          { after: [before], minutes, ...own },
        ),
      )
      return
    }
    // Face down, a layer is stuck to by the foam on the back of the layer in front of it.
    const held = faceDown ? order[i - 1]! : layer
    const counts = padsOf.get(held.id) ?? []
    const pads = sum(counts)
    const after = [before]
    if (pads > 0) {
      const padding = job(
        `pad-${held.id}`,
        'pad',
        { step: 'pad', layer: held, pads: counts },
        {
          after: faceDown ? [before] : ['dry-fit'],
          minutes: (pads * BENCH.padSeconds) / 60,
          layerId: held.id,
        },
      )
      add(padding)
      after.push(padding.id)
    }
    // Of a padded layer, pieces that no pad fits.
    const glued = known.depth?.layers.find((one) => one.layerId === held.id)?.glued.length ?? 0
    if (!isGlued(known, held, pads)) {
      add(
        job(
          `lay-${layer.id}`,
          'lay',
          { step: 'lay', layer, faceDown, pads, glued },
          { after, minutes: BENCH.layMinutes + (glued * BENCH.gluePartSeconds) / 60, ...own },
        ),
      )
      return
    }
    add(
      job(
        `glue-${layer.id}`,
        'glue',
        { step: 'glue', layer, faceDown, pads, glued: 0 },
        { after, minutes: glueMinutes(layer), ...own },
      ),
    )
    if (waitMin > 0)
      add(
        job(
          `hold-${layer.id}`,
          'dry',
          { step: 'hold', layer },
          { after: [`glue-${layer.id}`], needs: [], minutes: waitMin, ...own },
        ),
      )
  })
  return jobs
}

/** Pieces that the frame holds by folded bars, the hindmost first. */
function standing(
  layers: readonly Layer[],
  add: (id: string, kind: StepKind, about: About, minutes: number) => void,
) {
  layers
    .filter((layer) => layer.joint.kind === 'tab' && !isOnPane(layer))
    .toSorted((a, b) => a.joint.gapMm - b.joint.gapMm)
    .forEach((layer) => add(`stand-${layer.id}`, 'mount', { step: 'stand', layer }, BENCH.standMinutes))
}

/** By the part and by the length of its outline. */
function glueMinutes(layer: Layer): number {
  const outlineCm = Math.min(BENCH.glueCmMost, regionPerimeter(layerRegion(layer)) / 10)
  return (layer.pieces.length * BENCH.gluePartSeconds + outlineCm * BENCH.glueCmSeconds) / 60
}

/** Dry, then onto the board, the card or the sticks; each after the last. */
function finishing(
  known: Known,
  layers: readonly Layer[],
  stuck: readonly Untold[],
  padsOf: ReadonlyMap<string, PadCount[]>,
): Untold[] {
  const { project, depth } = known
  const { mount } = project
  const { dryMin } = adhesiveOf(project) ?? UNNAMED_GLUE
  const jobs: Untold[] = []
  const add = (id: string, kind: StepKind, about: About, minutes: number) =>
    jobs.push(
      job(id, kind, about, {
        after: [(jobs.at(-1) ?? stuck.at(-1)!).id],
        needs: kind === 'dry' ? [] : ['hands'],
        minutes,
      }),
    )
  const anyGlue = layers
    .filter(isStacked)
    .slice(mount.kind === 'garland' ? 0 : 1)
    .some((layer) => isGlued(known, layer, sum(padsOf.get(layer.id) ?? [])))
  if (anyGlue && dryMin > 0) add('dry', 'dry', { step: 'dry' }, dryMin)
  if (mount.kind === 'frame') {
    const leftMm = depth && depth.roomMm !== null ? depth.roomMm - depth.stackMm : 0
    const shim = depth?.shim && leftMm > 1 ? depth.shim : null
    add('mount', 'mount', { step: 'mount-frame', shim }, BENCH.frameMinutes)
    standing(layers, add)
    for (const layer of layers.filter(isOnPane))
      add(`pane-${layer.id}`, 'mount', { step: 'on-pane', layer }, BENCH.paneMinutes)
    if (mount.pane.kind !== 'none') add('glaze', 'glaze', { step: 'glaze' }, BENCH.frameMinutes)
    const inside = { ring: mount.ring.kept, mat: mount.mat !== null, hanger: mount.hanger !== 'none' }
    add('close', 'close', { step: 'close', airMm: mount.clearanceMm, ...inside }, BENCH.frameMinutes)
  } else if (mount.kind === 'card') {
    add('mount', 'mount', { step: 'mount-card', stackMm: depth?.stackMm ?? 0 }, BENCH.cardMinutes)
  } else if (mount.kind === 'garland') {
    const flags = layers
      .filter(({ role }) => role !== 'overlay')
      .reduce((n, layer) => n + layer.pieces.length * layer.copies, 0)
    add(
      'mount',
      'mount',
      { step: 'string', flags, gapMm: mount.gapMm, isFolded: layers.some(isFolded) },
      BENCH.flagMinutes * flags,
    )
  } else if (mount.kind === 'panel') {
    add('mount', 'mount', { step: 'mount-panel', surface: mount.surface }, BENCH.cardMinutes)
  } else if (mount.kind === 'topper' && mount.sticks > 0) {
    const { sticks } = mount
    const held = topperHold(project)
    const left = held ? Math.min(...layers.map((layer) => layerBox(layer).minX)) : 0
    const places = held ? held.sticks.map(({ x }) => x - left) : []
    add('mount', 'mount', { step: 'mount-sticks', sticks, places }, BENCH.stickMinutes * sticks)
    const own = (stickGlueOf(project) ?? UNNAMED_GLUE).dryMin
    if (own > 0) add('dry-sticks', 'dry', { step: 'dry-sticks' }, own)
    const cover = coverOf(project)
    if (cover) add(`cover-${cover.id}`, 'glue', { step: 'cover', layer: cover }, glueMinutes(cover))
  }
  return jobs
}
