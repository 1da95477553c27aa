// The graph of the work: which jobs there are, what each waits for and how long it takes. Loads are cut and weeded, folds
// scored, everything tried on dry; then layers are stuck from one side of the stack to the other; then it dries and is mounted.
import { boxesMeet, intersect, regionArea, regionPerimeter, union, type Box } from '../../base/geometry'
import {
  adhesiveOf,
  isOnPane,
  isPressed,
  isStandOff,
  thicknessOf,
  builtLayers,
  cutPieces,
  glueOf,
  isGluedFlat,
  pieceJoint,
  standsInFrame,
  type Adhesive,
  layerBox,
  layerRegion,
  paperOf,
  stickGlueOf,
  type FoamCount,
  type Layer,
  type Project,
} from '../../project'
import { batchTimes, groupBy } from '../../base'
import { flagsOf } from '../layers'
import {
  carriersOf,
  coverOf,
  pressesOf,
  topperHold,
  wholeOf,
  type DepthPlan,
  type GlueAmount,
  type Shim,
} from '../depth'
import type { Load } from '../sheets'
import type { About, GlueCount, Ground, Job, PadCount, StepKind, Untold } from './task'
import { BENCH, UNNAMED_GLUE } from './times'

/** What the graph follows from. */
export interface Known {
  project: Project
  loads: readonly Load[]
  /** Null before the pads are planned: every joint on foam is taken to hold, and times of pads are left out. */
  depth: Pick<DepthPlan, 'layers' | 'pads' | 'pieces' | 'stackMm' | 'roomMm' | 'pins' | 'shim'> | null
  /** Glue of the layers that take some. */
  glue?: readonly GlueAmount[] | undefined
}

/** All jobs of a project; of the hands as often as the work is made, a little quicker each time; drying goes on for all at once. */
export function jobsOf(known: Known): Untold[] {
  const layers = builtLayers(known.project)
  if (layers.length === 0) return []
  const pads = padCounts(known)
  const stuck = sticking(known, layers, pads)
  const rest = [
    ...scoring(known, layers),
    ...colouring(known, layers),
    ...shapings(known, layers),
    ...pressings(known, layers),
    ...stuck,
    ...finishing(known, layers, stuck, pads),
  ]
  const { batch, batchWay } = known.project.plan
  if (batch > 1 && batchWay === 'one by one') return [...cutting(known), ...oneByOne(rest, batch)]
  return [...cutting(known), ...rest.map((one) => timesBatch(one, batch))]
}

/** The same jobs for each piece of a batch, one piece after the other, each a little quicker; what dries does not hold up the next. */
function oneByOne(jobs: readonly Untold[], batch: number): Untold[] {
  const own = new Set(jobs.map(({ id }) => id))
  const idOf = (id: string, k: number) => (k > 0 && own.has(id) ? `${id}-of-${k + 1}` : id)
  const last = jobs.findLast(({ needs }) => needs.includes('hands'))?.id
  return Array.from({ length: batch }, (_, k) =>
    jobs.map((one, i): Untold => ({
      ...one,
      id: idOf(one.id, k),
      nth: k + 1,
      minutes: one.needs.includes('hands') ? one.minutes * (batchTimes(k + 1) - batchTimes(k)) : one.minutes,
      // The next piece is begun when the hands have finished the one before.
      after: [
        ...one.after.map((id) => idOf(id, k)),
        ...(i === 0 && k > 0 && last ? [idOf(last, k - 1)] : []),
      ],
    })),
  ).flat()
}

const timesBatch = (job: Untold, batch: number): Untold =>
  job.needs.includes('hands') ? { ...job, minutes: job.minutes * batchTimes(batch) } : job

/** A job of the hands unless it says otherwise. */
function job(
  id: string,
  kind: StepKind,
  about: About,
  more: Pick<Job, 'after' | 'minutes'> & Partial<Job>,
): Untold {
  return { id, kind, about, needs: ['hands'], layerId: null, loadId: null, ...more }
}

/** Pads of each layer by their kind, the most frequent first. */
function padCounts({ depth, project }: Known): Map<string, PadCount[]> {
  const foams = new Map(project.drawer.foams.map((foam) => [foam.id, foam]))
  const secondsOf = (id: string) => foams.get(wholeOf(id).foamId)?.peelS ?? BENCH.padSeconds
  const nameOf = (id: string) => {
    const { foamId, share } = wholeOf(id)
    const name = foams.get(foamId)?.name ?? foamId
    return share < 1 ? `${name} cut in two` : name
  }
  const byLayer = groupBy(depth?.pads ?? [], ({ layerId }) => layerId)
  return new Map(
    [...byLayer].map(([layerId, pads]) => {
      const kinds = groupBy(pads, (pad) => `${pad.widthMm} ${pad.heightMm} ${pad.foamIds.join(' ')}`)
      const counts = [...kinds.values()].map((same): PadCount => {
        const { thicknessMm, widthMm, heightMm, foamIds } = same[0]!
        const own = { mm: thicknessMm, size: [widthMm, heightMm], foams: foamIds.map(nameOf) } as const
        const seconds = foamIds.reduce((total, id) => total + secondsOf(id), 0)
        return { ...own, count: same.length, seconds }
      })
      return [layerId, counts.toSorted((a, b) => b.count - a.count)]
    }),
  )
}

/** To peel and set pads. */
const settingMinutes = (pads: readonly PadCount[]): number =>
  pads.reduce((total, { count, seconds }) => total + count * seconds, 0) / 60

/** The foam that a layer's pads use up. */
const foamOf = ({ depth }: Known, layerId: string) => ({
  takes: depth?.layers.find((one) => one.layerId === layerId)?.foams ?? [],
})

/** Foam of the pads behind the backmost sheet. */
function foamsOfShim({ foamIds, at }: Shim): FoamCount[] {
  const counts = groupBy(foamIds, (id) => wholeOf(id).foamId)
  return [...counts].map(([foamId, ids]) => ({
    foamId,
    count: Math.ceil(at.length * ids.reduce((n, id) => n + wholeOf(id).share, 0)),
  }))
}

/** To set them. */
const shimMinutes = ({ depth }: Known): number => ((depth?.shim?.at.length ?? 0) * BENCH.padSeconds) / 60

const sum = (counts: readonly { count: number }[]): number =>
  counts.reduce((total, { count }) => total + count, 0)

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
          // A knife is in the hand: nothing else goes on meanwhile.
          needs: [project.drawer.cutter.tool === 'knife' ? 'hands' : 'cutter'],
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

/** What is coloured by hand is coloured flat, and dries, before it is formed or tried on. */
const colouring = ({ project, loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isColoured).flatMap((layer): Untold[] => {
    const { inks } = project.drawer
    const ink = inks.find(({ id }) => id === layer.tint!.inkId) ?? null
    const edge = inks.find(({ id }) => id === layer.tint!.edgeInkId) ?? null
    const minutes = Math.max(ink?.dryMin ?? 0, edge?.dryMin ?? 0)
    const one = job(
      `colour-${layer.id}`,
      'colour',
      { step: 'colour', layer, ink, edge },
      {
        after: loads
          .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
          .map((load) => `weed-${load.id}`),
        minutes: (BENCH.colourMinutes + (edge ? BENCH.colourEdgeMinutes : 0)) * layer.copies,
        layerId: layer.id,
      },
    )
    return minutes > 0
      ? [
          one,
          job(
            `coloured-${layer.id}`,
            'dry',
            { step: 'colour-dries', layer, minutes },
            { after: [one.id], needs: [], minutes, layerId: layer.id },
          ),
        ]
      : [one]
  })

const isColoured = ({ tint }: Layer): boolean => tint !== null

/** What must be done with a layer before it is formed: it is coloured, and dry. */
const afterColour = (layer: Layer): string[] =>
  isColoured(layer) ? [`colour-${layer.id}`, `coloured-${layer.id}`] : []

/** What hands form is formed when it is cut, and folded where it is. */
const shapings = ({ loads }: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isShaped).map((layer) =>
    job(
      `shape-${layer.id}`,
      'shape',
      { step: 'shape', layer },
      {
        after: isColoured(layer)
          ? [...afterColour(layer), ...(isFolded(layer) ? [`score-${layer.id}`] : [])]
          : isFolded(layer)
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

/** Film is pressed onto its card while that is flat and on no foam; both are weeded, and what is coloured is dry. */
const pressings = (known: Known, layers: readonly Layer[]): Untold[] =>
  layers.filter(isPressed).map((layer) => {
    const { project, loads, depth } = known
    const under = depth
      ? carriersOf(project, depth.pieces, layer)
      : layers.slice(0, layers.indexOf(layer)).slice(-1)
    const ids = [layer, ...under].map(({ id }) => id)
    const press = paperOf(project, layer)?.press ?? null
    const presses = pressesOf(project, layer)
    return job(
      `press-${layer.id}`,
      'press',
      { step: 'press', layer, onto: under, press, presses },
      {
        after: [
          ...loads
            .filter((load) => load.pieces.some((piece) => ids.includes(piece.layerId)))
            .map((load) => `weed-${load.id}`),
          ...under.flatMap(afterColour),
          // A film that lies on a film comes after it.
          ...under.filter(isPressed).map(({ id }) => `press-${id}`),
        ],
        minutes:
          BENCH.plateMinutes +
          layer.copies *
            (presses * (BENCH.pressMinutes + (press?.seconds ?? BENCH.pressSeconds) / 60) +
              (press?.peel === 'hot' ? 0 : BENCH.coolMinutes)),
        layerId: layer.id,
      },
    )
  })

/** Whether a layer goes on with glue: by choice, or because no pad fits. */
const isGlued = ({ depth }: Known, { joint }: Layer, pads: number): boolean =>
  joint.kind === 'glue' || (joint.kind === 'foam' && depth !== null && pads === 0)

/** What is stuck to the stack; what the frame holds by tabs comes after. */
const isStacked = (layer: Layer): boolean =>
  layer.joint.kind !== 'tab' &&
  !isPressed(layer) &&
  !isOnPane(layer) &&
  layer.role !== 'cover' &&
  !isStandOff(layer)

/** What is laid on each other when all is tried on dry. */
const isInStack = (layer: Layer): boolean => isStacked(layer) || isPressed(layer)

/** So much of the other layers lies over a sheet that carries them. */
const CARRIED = 0.97

/** What the backmost layer is laid on: the bench where it carries all the others, else what the work lives on. */
function groundOf({ mount }: Project, layers: readonly Layer[]): Ground {
  const [back, ...others] = layers.filter(isStacked).filter(({ pieces }) => pieces.length > 0)
  if (!back || mount.kind === 'topper' || mount.kind === 'garland') return 'bench'
  // Pins go in before what hides them lies on them.
  if (mount.kind === 'frame' && mount.back === 'fabric' && back.joint.kind === 'pins') return 'fabric'
  const all = union(others.flatMap(layerRegion))
  const carried =
    all.length === 0 || regionArea(intersect(all, outlinesOf(back))) >= CARRIED * regionArea(all)
  if (carried && back.pieces.length === 1) return 'bench'
  if (mount.kind === 'frame') return 'board'
  if (mount.kind === 'panel') return mount.surface
  return mount.kind === 'card' ? 'card' : 'bench in its place'
}

/** A layer without its openings: what lies over one is carried by the rim. */
const outlinesOf = (layer: Layer) => union(layerRegion(layer).map(({ outer }) => ({ outer, holes: [] })))

function sticking(known: Known, layers: readonly Layer[], padsOf: ReadonlyMap<string, PadCount[]>): Untold[] {
  const { project, loads } = known
  const ground = groundOf(project, layers)
  // Only a stack of sheets can be turned over: what lies in bits is built where it stays.
  const faceDown = project.plan.direction === 'face-down' && ground === 'bench'
  // Flags are not stuck to each other: they go onto the twine.
  const isGarland = project.mount.kind === 'garland'
  const stacked = layers.filter((layer) => isStacked(layer) && !(isGarland && layer.joint.kind === 'none'))
  const order = faceDown ? stacked.toReversed() : stacked
  const jobs = [
    job(
      'dry-fit',
      'dry-fit',
      {
        step: 'dry-fit',
        layers: layers.filter(isInStack).length,
        aside: layers.filter((layer) => !isInStack(layer) && !isStandOff(layer)).length,
      },
      {
        after: [
          'prepare',
          ...loads.map((load) => `weed-${load.id}`),
          ...layers.flatMap(afterColour),
          ...layers.filter(isFolded).map((layer) => `score-${layer.id}`),
          ...layers.filter(isShaped).map((layer) => `shape-${layer.id}`),
          ...layers.filter(isPressed).map((layer) => `press-${layer.id}`),
        ],
        minutes: BENCH.dryFitMinutes + layers.length * BENCH.dryFitLayerMinutes,
      },
    ),
  ]
  const add = (next: Untold) => jobs.push(next)
  /** What was laid last: the order of the stack. */
  let before = 'dry-fit'
  /** Wet joints, and where they are: what lies beside one need not wait for it, unless the maker would rather. */
  const wet: { id: string; box: Box }[] = []
  const { glueWait } = project.plan
  order.forEach((layer, i) => {
    const own = { layerId: layer.id }
    if (i === 0 && !isGarland) {
      const pads = faceDown ? [] : (padsOf.get(layer.id) ?? [])
      const pins = ground === 'fabric' ? (known.depth?.pins?.at.length ?? 0) : 0
      const minutes = BENCH.layMinutes + settingMinutes(pads) + pins * BENCH.pinMinutes
      add(
        job(
          `lay-${layer.id}`,
          'lay',
          { step: 'start', layer, faceDown, pads, ground, pins },
          { after: [before], minutes, ...own, ...(pads.length > 0 ? foamOf(known, layer.id) : {}) },
        ),
      )
      before = `lay-${layer.id}`
      return
    }
    // Face down, a layer is stuck to by the foam on the back of the layer in front of it.
    const held = faceDown ? order[i - 1]! : layer
    const counts = padsOf.get(held.id) ?? []
    const pads = sum(counts)
    const box = layerBox(layer)
    const touched = wet.filter((joint) => boxesMeet(joint.box, box))
    const awaited = { 'go on': [], touching: touched, each: wet }[glueWait]
    const after = [before, ...awaited.map(({ id }) => id)]
    const onWet = glueWait === 'go on' && touched.length > 0
    if (pads > 0) {
      const padding = job(
        `pad-${held.id}`,
        'pad',
        { step: 'pad', layer: held, pads: counts },
        {
          after: faceDown ? [...after] : ['dry-fit'],
          minutes: settingMinutes(counts),
          layerId: held.id,
          ...foamOf(known, held.id),
        },
      )
      add(padding)
      after.push(padding.id)
    }
    // Of a padded layer, pieces that no pad fits, and those that are to be glued.
    const depth = known.depth?.layers.find((one) => one.layerId === held.id)
    const glued = depth?.glued.length ?? 0
    const flat = byGlue(project, held, depth?.gluedFlat ?? [])
    const hold = () => {
      const used = slowestOf(gluesOf(project, held), 'handleMin')
      if ((used ?? UNNAMED_GLUE).handleMin === 0) return
      wet.push({ id: `hold-${layer.id}`, box })
      add(
        job(
          `hold-${layer.id}`,
          'dry',
          { step: 'hold', layer, glue: used },
          { after: [before], needs: [], minutes: (used ?? UNNAMED_GLUE).handleMin, ...own },
        ),
      )
    }
    if (!isGlued(known, held, pads)) {
      add(
        job(
          `lay-${layer.id}`,
          'lay',
          { step: 'lay', layer, faceDown, pads, glued, flat, onWet },
          {
            after,
            minutes: BENCH.layMinutes + ((glued + sum(flat)) * BENCH.gluePartSeconds) / 60,
            ...own,
          },
        ),
      )
      before = `lay-${layer.id}`
      if (flat.length > 0) hold()
      return
    }
    add(
      job(
        `glue-${layer.id}`,
        'glue',
        {
          step: 'glue',
          layer,
          glue: glueOf(project, held) ?? null,
          amount: known.glue?.find(({ layerId }) => layerId === held.id) ?? null,
          faceDown,
          others: othersOf(project, held),
          pads,
          onWet,
        },
        { after, minutes: glueMinutes(layer), ...own },
      ),
    )
    before = `glue-${layer.id}`
    hold()
  })
  return jobs
}

/** So many pieces of a layer with each glue. */
function byGlue(project: Project, layer: Layer, pieceIds: readonly string[]): GlueCount[] {
  const counts = new Map<Adhesive | null, number>()
  for (const pieceId of pieceIds) {
    const used = glueOf(project, layer, pieceId) ?? null
    counts.set(used, (counts.get(used) ?? 0) + 1)
  }
  return [...counts].map(([glue, count]) => ({ glue, count }))
}

/** Pieces of a glued layer that take another glue than the layer. */
const othersOf = (project: Project, layer: Layer): GlueCount[] =>
  byGlue(
    project,
    layer,
    layer.pieces.flatMap(({ id }) => (pieceJoint(layer.joint, id)?.adhesiveId ? [id] : [])),
  ).filter(({ glue }) => glue?.id !== glueOf(project, layer)?.id)

/** All glues that hold pieces of a layer: its own, and those of single pieces. */
const gluesOf = (project: Project, layer: Layer): Adhesive[] => [
  ...new Set(
    layer.pieces.flatMap(({ id }) =>
      layer.joint.kind === 'foam' && !isGluedFlat(layer, id) ? [] : (glueOf(project, layer, id) ?? []),
    ),
  ),
]

/** Of several glues the one that takes longest; null where none is named. */
const slowestOf = (glues: readonly Adhesive[], by: 'handleMin' | 'dryMin'): Adhesive | null =>
  glues.toSorted((a, b) => b[by] - a[by])[0] ?? null

/** Pieces that the frame holds by folded bars, the hindmost first. */
function standing(
  layers: readonly Layer[],
  add: (id: string, kind: StepKind, about: About, minutes: number) => void,
) {
  layers
    .filter(standsInFrame)
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
  const ground = groundOf(project, layers)
  const jobs: Untold[] = []
  const idsOf = (of: (one: Untold) => boolean) => stuck.filter(of).map(({ id }) => id)
  const laid = idsOf(({ kind }) => kind !== 'dry').at(-1)!
  const holds = idsOf(({ about }) => about.step === 'hold')
  // Nothing is taken up before all of it holds; drying begins with the glue, not once it holds.
  const afterLast = (kind: StepKind): string[] => {
    if (jobs.length === 0)
      return [laid, ...(kind === 'dry' ? idsOf(({ about }) => about.step === 'glue') : holds)]
    return jobs.length === 1 && jobs[0]!.kind === 'dry' ? [jobs[0]!.id, ...holds] : [jobs.at(-1)!.id]
  }
  const add = (id: string, kind: StepKind, about: About, minutes: number) =>
    jobs.push(
      job(id, kind, about, {
        after: [...new Set(afterLast(kind))],
        needs: kind === 'dry' ? [] : ['hands'],
        minutes,
        layerId: 'layer' in about ? about.layer.id : null,
      }),
    )
  // Of several glues the one that takes longest.
  const wet = layers
    .filter(isStacked)
    // The backmost is stuck to nothing yet, unless it was begun where it stays.
    .slice(mount.kind === 'garland' || ground !== 'bench' ? 0 : 1)
    .filter(
      (layer) =>
        isGlued(known, layer, sum(padsOf.get(layer.id) ?? [])) ||
        layer.pieces.some(({ id }) => isGluedFlat(layer, id)),
    )
  const glue = slowestOf(
    wet.flatMap((layer) => {
      const named = gluesOf(project, layer)
      // One that goes on with glue since no pad fits takes the layer's.
      return named.length > 0 ? named : (glueOf(project, layer) ?? [])
    }),
    'dryMin',
  )
  const { dryMin: longest } = glue ?? UNNAMED_GLUE
  if (wet.length > 0 && longest > 0) add('dry', 'dry', { step: 'dry', glue }, longest)
  /** What holds the stack to what it lives on dries before the work is stood up. */
  const dryMount = () => {
    const own = layers[0] ? glueOf(project, layers[0]) : adhesiveOf(project)
    const { dryMin } = own ?? UNNAMED_GLUE
    if (dryMin > 0) add('dry-mount', 'dry', { step: 'dry', glue: own ?? null }, dryMin)
  }
  if (mount.kind === 'frame') {
    const shim = depth?.shim ?? null
    // What was built on the board is fixed to it already.
    if (ground === 'bench') {
      add('mount', 'mount', { step: 'mount-frame', shim }, BENCH.frameMinutes + shimMinutes(known))
      if (shim) jobs.at(-1)!.takes = foamsOfShim(shim)
      else dryMount()
    }
    standing(layers, add)
    for (const layer of layers.filter(isOnPane))
      add(`pane-${layer.id}`, 'mount', { step: 'on-pane', layer }, BENCH.paneMinutes)
    const ring = layers.filter(isStandOff)
    if (ring.length > 0)
      add(
        'stand-off',
        'mount',
        {
          step: 'stand-off',
          sheets: ring.length,
          thicknessMm: thicknessOf(project, ring[0]!),
          mat: mount.mat !== null,
        },
        BENCH.paneMinutes,
      )
    if (mount.pane.kind !== 'none') add('glaze', 'glaze', { step: 'glaze' }, BENCH.frameMinutes)
    const inside = { ring: mount.ring.kept, mat: mount.mat !== null, hanger: mount.hanger !== 'none' }
    add('close', 'close', { step: 'close', airMm: mount.clearanceMm, ...inside }, BENCH.frameMinutes)
  } else if (mount.kind === 'card') {
    if (ground === 'bench') {
      add('mount', 'mount', { step: 'mount-card', stackMm: depth?.stackMm ?? 0 }, BENCH.cardMinutes)
      dryMount()
    }
  } else if (mount.kind === 'garland') {
    const flags = flagsOf(project)
    flags.forEach(({ layer, piece, nth }) => {
      const { gapMm, endsMm } = mount
      const about = { nth, of: flags.length, gapMm, endsMm, isFolded: isFolded(layer) }
      add(`flag-${nth}`, 'mount', { step: 'flag', layer, ...about }, BENCH.flagMinutes * layer.copies)
      jobs.at(-1)!.pieceId = piece.id
    })
  } else if (mount.kind === 'panel') {
    if (ground === 'bench') {
      add('mount', 'mount', { step: 'mount-panel', surface: mount.surface }, BENCH.cardMinutes)
      dryMount()
    }
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
