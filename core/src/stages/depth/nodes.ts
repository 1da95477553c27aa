// What holds each layer and how high, as nodes: one a layer, each standing on the one below.
import { groupBy, type Memo } from '../../base'
import { regionArea, regionToPath } from '../../base/geometry'
import { later, node, type Ref } from '../../planner'
import { baseOf, buildOrder, findLayer, unitsOfStack, type BuildOrder, type Project } from '../../project'
import { each, isSeeThrough } from '../layers'
import { bodyOf, seatOf, settledSeat, standInBody, type Body, type Seat } from './bodies'
import { sumUpDepth, type DepthPlan } from './depth'
import { asBuilt, asLaid, gluedAtOnce, gluedPieces, holdLayer, type LayerDepth } from './held'
import { Lifts } from './lifts'
import { levelOf, liftOnto, standOn, type Level, type Lifted, type PieceHeight } from './heights'
import { amountOf, glueUnder, type LayerGlue } from './glue'
import { heatSnags } from './heat'
import { hidingRegion } from './pads/hiding'
import { pinSnags } from './pins'
import { whyNotUnder } from './pads/why-not'
import { depthSnags } from './snags'
import { spaceOf, type Space } from './space'
import { topperSnags } from './topper-snags'
import { topperHold, type TopperHold } from './topper'

/** The node of the layer that is laid right before another; null where none is. */
function below({ before }: BuildOrder, layerId: string): Ref<Level> | null {
  const under = before.get(layerId)
  return under ? (built(under.id) as Ref<Level>) : null
}

/** The part that a layer is built with on the bench; none where it is laid by itself. */
const partOf = ({ apart: parts }: BuildOrder, layerId: string) => {
  const unit = parts.get(layerId)
  return unit ? { id: unit.part!.id, baseId: baseOf(unit).id } : null
}

/** A part by its id, with what it is built of. */
const unitOf = ({ units }: Pick<BuildOrder, 'units'>, partId: string) =>
  units.find(({ part }) => part?.id === partId)!

const OWN = ['pieces', 'role', 'blanks', 'lives', 'folds', 'slits', 'shaping', 'joint', 'paperId'] as const

const HEIGHTS = {
  mount: true,
  layer: OWN,
  papers: ['thicknessMm'],
  foams: true,
  adhesives: true,
  plan: ['adhesiveId'],
} as const

const PADS = {
  mount: true,
  layers: ['pieces', 'role', 'joint', 'lives', 'paperId', 'colour', 'tint', 'copies'],
  papers: ['finish', 'gsm', 'colour', 'thicknessMm'],
  plan: [
    'thrift',
    'viewingDeg',
    'padMarginMm',
    'padSpanMm',
    'litFromBehind',
    'adhesiveId',
    'handPads',
    'padFree',
    'fill',
  ],
  foams: true,
  adhesives: true,
} as const

/** Of every layer what heights and pads follow from, and which of them are one part. */
const BODIES = {
  ...PADS,
  layers: [...OWN, 'colour', 'tint', 'copies', 'assemblyId'],
  parts: 'shape',
} as const

/** A part as it is built on the bench; null where its layers do not hold each other. */
const body = node('body', {
  stage: 'depth',
  reads: BODIES,
  compute: ({ project, arg, memo }): Body | null =>
    bodyOf(project, unitOf({ units: unitsOfStack(project) }, arg), memo),
})

/** Where a part comes to rest by its joint. */
const seat = node('seat', {
  stage: 'depth',
  reads: { ...HEIGHTS, layer: undefined, layers: [...OWN, 'assemblyId'], parts: 'shape' },
  byValue: true,
  needs: (project, partId, memo) => {
    const order = buildOrder(project, memo)
    return { own: body(partId), under: below(order, baseOf(unitOf(order, partId)).id) }
  },
  compute: ({ project, memo }, { own, under }): Seat | null =>
    own && seatOf({ project, base: findLayer(project, own.baseId)!, body: own, below: under, memo }),
})

/** The pieces of a part's hindmost layer at its seat, and those that no pad fits. */
function baseAt(order: BuildOrder, partId: string): { base: Ref<PieceHeight[]>; low: Ref<string[]> } {
  const baseId = baseOf(unitOf(order, partId)).id
  return { base: standing(baseId) as Ref<PieceHeight[]>, low: glued(baseId) as Ref<string[]> }
}

/** Where it comes to lie, glued where no pad fits. */
const settled = node('settled seat', {
  stage: 'depth',
  reads: { foams: true, adhesives: true, plan: ['adhesiveId'] },
  byValue: true,
  needs: (project, partId, memo) => ({ own: seat(partId), ...baseAt(buildOrder(project, memo), partId) }),
  compute: ({ project, memo }, { own, base, low }): Seat | null =>
    own && settledSeat(new Lifts(project, memo), { seat: own, base, glued: low }),
})

/** Where the part of a layer lies, for that layer; null where it is laid by itself. */
function seatUnder(order: BuildOrder, layerId: string): Ref<Seat | null> | null {
  const part = partOf(order, layerId)
  return part && ((part.baseId === layerId ? seat(part.id) : settled(part.id)) as Ref<Seat | null>)
}

/** The part that a layer is built with; null where it is laid by itself. */
function bodyWith(order: BuildOrder, layerId: string): Ref<Body | null> | null {
  const part = partOf(order, layerId)
  return part && (body(part.id) as Ref<Body | null>)
}

/** The pieces of one layer, lifted by its gap; none where they lie as their part does. */
const lifted = node('lifted', {
  stage: 'depth',
  reads: HEIGHTS,
  needs: (project, layerId, memo) => {
    const order = buildOrder(project, memo)
    return { under: below(order, layerId), part: bodyWith(order, layerId) }
  },
  compute: ({ project, memo }, { under, part }): Lifted[] =>
    part ? [] : liftOnto({ project, layer: project.layers[0]!, below: under, memo }),
})

/** What carries the pieces of one layer. */
const standing = node('standing', {
  stage: 'depth',
  reads: HEIGHTS,
  needs: (project, layerId, memo) => {
    const order = buildOrder(project, memo)
    return {
      own: lifted(layerId),
      under: below(order, layerId),
      part: bodyWith(order, layerId),
      at: seatUnder(order, layerId),
    }
  },
  compute: ({ project, memo }, { own, under, part, at }): PieceHeight[] => {
    const on = { project, layer: project.layers[0]!, below: under, memo }
    return part && at ? standInBody(on, part, at) : standOn(on, own)
  },
})

/** The pads of one layer, and its pieces where they come to lie. */
const held = node('held', {
  stage: 'depth',
  reads: PADS,
  needs: (_, layerId) => ({ own: standing(layerId) }),
  compute: ({ project, arg, memo }, { own }) =>
    holdLayer(project, { layer: findLayer(project, arg)!, lifted: own }, memo),
})

/** Pieces of one layer that no pad fits, told without planning the pads where that can be; it seldom changes. */
const glued = node('glued', {
  stage: 'depth',
  reads: PADS,
  byValue: true,
  needs: (project, layerId, memo) => {
    const order = buildOrder(project, memo)
    return {
      alone: partOf(order, layerId) ? null : lifted(layerId),
      under: below(order, layerId),
      own: later(standing(layerId)),
    }
  },
  *compute({ project, arg, memo }, { alone, under, own }) {
    const layer = findLayer(project, arg)!
    return (
      (alone && gluedAtOnce(project, { layer, lifted: alone }, under)) ??
      gluedPieces(project, { layer, lifted: yield* own() }, memo)
    )
  },
})

/** The pieces of one layer at their heights, before any of them is lowered to be glued: of what is laid by itself, as it is lifted. */
const laid = (order: BuildOrder, layerId: string) =>
  (partOf(order, layerId) ? standing(layerId) : lifted(layerId)) as Ref<Lifted[]>

/** One layer as the steps build it, with all card beneath. */
const built = node('built', {
  stage: 'depth',
  reads: { layer: ['joint', 'lives'], foams: true, adhesives: true, plan: ['adhesiveId'] },
  needs: (project, layerId, memo) => {
    const order = buildOrder(project, memo)
    return { own: laid(order, layerId), low: glued(layerId), under: below(order, layerId) }
  },
  compute: ({ project, memo }, { own, low, under }) => {
    const layer = project.layers[0]!
    return levelOf(layer, asLaid(new Lifts(project, memo), { layer, lifted: own }, low), under)
  },
})

/** Parts that are built on the bench and laid on as one, by their ids. */
export const apart = node('apart', {
  stage: 'depth',
  reads: {},
  byValue: true,
  needs: (project, _, memo) => ({
    bodies: buildOrder(project, memo).units.flatMap(({ part }) => (part ? body(part.id) : [])),
  }),
  compute: (_, { bodies }) => bodies.flatMap((own) => (own ? [own.partId, ...own.inner] : [])),
  view: (ids: string[]) => ids,
})

/** Heights, pads, foam and what is left of the whole stack. */
export const depth = node('depth', {
  stage: 'depth',
  reads: { ...PADS, plan: [...PADS.plan, 'batch'], took: true },
  needs: (project) => ({ layers: each(held, project), parts: apart() }),
  compute: ({ project, memo }, { layers, parts }) =>
    sumUpDepth(project, { held: layers, apart: parts }, memo),
  view: ({
    layers,
    pads,
    stackMm,
    pressedMm,
    standOffMm,
    roomMm,
    foamUse,
    pins,
    shim,
    lip,
    apart,
  }: DepthPlan): DepthView => ({
    layers: layers.map(numbersOf),
    pads: pads.length,
    stackMm,
    pressedMm,
    standOffMm,
    roomMm,
    foamUse,
    pins,
    shim,
    lip,
    apart,
  }),
})

const numbersOf = (layer: LayerDepth): Omit<LayerDepth, 'allowed'> => {
  const { allowed, ...numbers } = layer
  void allowed
  return numbers
}

/** The depth plan as the page has it: numbers only. */
export interface DepthView extends Pick<
  DepthPlan,
  'stackMm' | 'pressedMm' | 'standOffMm' | 'roomMm' | 'foamUse' | 'pins' | 'shim' | 'lip' | 'apart'
> {
  layers: Omit<LayerDepth, 'allowed'>[]
  pads: number
}

/** Pieces whose undersides differ by less lie at one height, mm. */
const SAME_MM = 0.05

/** How high a layer stands, and each height at which pieces of it lie, the lowest first, with its share of the layer's card. */
function levelAt(layerId: string, pieces: readonly Lifted[]) {
  const parts: { bottomMm: number; topMm: number; share: number }[] = []
  const whole = pieces.reduce((sum, { region }) => sum + regionArea(region), 0)
  for (const { bottomMm, topMm, region } of pieces.toSorted((a, b) => a.bottomMm - b.bottomMm)) {
    const last = parts.at(-1)
    const share = whole > 0 ? regionArea(region) / whole : 1 / pieces.length
    if (last && bottomMm - last.bottomMm < SAME_MM) {
      last.share += share
      last.topMm = Math.max(last.topMm, topMm)
    } else parts.push({ bottomMm, topMm, share })
  }
  return {
    layerId,
    bottomMm: parts[0]?.bottomMm ?? Infinity,
    topMm: parts.reduce((most, part) => Math.max(most, part.topMm), 0),
    parts,
  }
}

/** One layer's height. */
export const level = node('level', {
  stage: 'depth',
  reads: { layer: ['joint'], foams: true, adhesives: true, plan: ['adhesiveId'] },
  needs: (project, layerId, memo) => ({ own: laid(buildOrder(project, memo), layerId), low: glued(layerId) }),
  compute: ({ project, arg, memo }, { own, low }) =>
    levelAt(arg, asLaid(new Lifts(project, memo), { layer: project.layers[0]!, lifted: own }, low)),
})

/** How high every layer stands: what the section draws. */
export const levels = node('levels', {
  stage: 'depth',
  reads: {},
  needs: (project) => ({ layers: each(level, project) }),
  compute: (_, { layers }) => layers,
  view: (layers) => layers,
})

/** Where no pad may lie under a layer, a path for each reason. */
function notAllowed(
  project: Project,
  { layerId, pieces }: { layerId: string; pieces: readonly PieceHeight[] },
  memo: Memo,
) {
  const hidden = hidingRegion(project, layerId, memo)
  const parts = pieces.flatMap((piece) => whyNotUnder(project, { piece, hidden }, memo))
  return [...groupBy(parts, ({ why }) => why)].map(([why, own]) => ({
    why,
    path: regionToPath(own.flatMap(({ region }) => region)),
  }))
}

/** The pads of one layer as they are drawn, and where pads may lie (path data). */
export const padMap = node('pad map', {
  stage: 'depth',
  reads: PADS,
  needs: (_, layerId) => ({ own: held(layerId), pieces: standing(layerId) }),
  compute: ({ project, arg, memo }, { own, pieces }) => ({
    pads: own.pads,
    allowedPath: regionToPath(own.layer.allowed),
    notAllowed: own.layer.farthestMm === null ? [] : notAllowed(project, { layerId: arg, pieces }, memo),
    layer: numbersOf(own.layer),
  }),
  view: (map) => map,
})

/** Where glue of a clear sheet is not seen; null for card, which hides its own. */
const glueHidden = node('glue hidden', {
  stage: 'depth',
  reads: PADS,
  byValue: true,
  compute: ({ project, arg, memo }) => {
    const layer = findLayer(project, arg)!
    return isSeeThrough(project, layer) ? hidingRegion(project, arg, memo) : null
  },
})

/** The glue under one layer; null where none is glued. */
const glueOn = node('glue', {
  stage: 'depth',
  reads: {
    layer: [...OWN, 'copies'],
    papers: ['gsm'],
    foams: true,
    adhesives: true,
    plan: ['adhesiveId'],
  },
  needs: (_, layerId) => ({ own: standing(layerId), noPad: glued(layerId), hidden: glueHidden(layerId) }),
  compute: ({ project, memo }, { own, noPad, hidden }): LayerGlue | null =>
    glueUnder(project, project.layers[0]!, {
      pieces: asBuilt(new Lifts(project, memo), own, noPad),
      noPad,
      hidden,
      memo,
    }),
})

/** Where the glue of one layer goes, as it is drawn (path data). */
export const glueMap = node('glue map', {
  stage: 'depth',
  reads: {},
  needs: (_, layerId) => ({ own: glueOn(layerId) }),
  compute: (_, { own }) =>
    own && {
      ...amountOf(own),
      zonePath: regionToPath(own.zone),
      coatPath: regionToPath(own.coat),
      beadPaths: own.beads.map((outer) => regionToPath([{ outer, holes: [] }])),
      dotsAt: own.dots,
      bare: own.bare.length,
    },
  view: (map) => map,
})

/** Glue of every layer that takes some. */
export const glues = node('glues', {
  stage: 'depth',
  reads: {},
  needs: (project) => ({ layers: each(glueOn, project) }),
  compute: (_, { layers }) => layers.filter((one) => one !== null),
  view: (list) => list.map(amountOf),
})

/** The stack as it stands in space: what the light box shows. */
export const space = node('space', {
  stage: 'depth',
  reads: {
    layers: ['folds', 'shaping', 'paperId', 'joint'],
    papers: ['thicknessMm'],
    foams: true,
  },
  needs: () => ({ whole: depth() }),
  compute: ({ project }, { whole }) => spaceOf(project, whole),
  view: (value: Space) => value,
})

/** How a topper is held by its sticks; null where there is none. */
export const hold = node('hold of a topper', {
  stage: 'depth',
  reads: {
    mount: true,
    layers: ['pieces', 'joint', 'paperId', 'role'],
    papers: ['gsm', 'thicknessMm', 'finish'],
    adhesives: true,
  },
  compute: ({ project }) => topperHold(project),
  view: (held: TopperHold | null) => held,
})

/** Findings of the depth stage. */
export const depthSnagsNode = node('snags of depth', {
  stage: 'depth',
  reads: {
    grown: true,
    mount: true,
    layers: ['name', ...OWN, 'cutMirrored', 'assemblyId'],
    parts: 'named',
    papers: ['name', 'finish', 'press', 'thicknessMm'],
    foams: true,
    adhesives: true,
    plan: ['thrift', 'padSpanMm', 'fill', 'adhesiveId'],
  },
  needs: () => ({ whole: depth(), held: hold() }),
  compute: ({ project }, { whole, held }) => [
    ...depthSnags(project, whole),
    ...pinSnags(project, whole.pins),
    ...heatSnags(project, whole.pieces),
    ...topperSnags(held),
  ],
  view: (snags) => snags,
})
