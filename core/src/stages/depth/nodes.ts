// What holds each layer and how high, as nodes: one a layer, each standing on the one below.
import { regionToPath } from '../../base/geometry'
import { node, type Ref } from '../../planner'
import { builtLayers, findLayer } from '../../project'
import { each } from '../layers'
import { holdLayer, sumUpDepth, type DepthPlan, type LayerDepth } from './depth'
import { standOn, type Standing } from './heights'
import { depthSnags } from './snags'

/** Where the pieces of one layer come to lie. */
const standing = node('standing', {
  stage: 'depth',
  reads: { mount: true, layer: ['pieces', 'joint', 'paperId'], papers: ['thicknessMm'], foams: true },
  needs: (project, layerId): { below: Ref<Standing> | null } => {
    const layers = builtLayers(project)
    const below = layers[layers.findIndex((layer) => layer.id === layerId) - 1]
    return { below: below ? (standing(below.id) as Ref<Standing>) : null }
  },
  compute: ({ project, memo }, { below }): Standing => standOn(project, project.layers[0]!, below, memo),
})

/** The pads of one layer. */
const held = node('held', {
  stage: 'depth',
  reads: {
    layers: ['pieces', 'joint', 'paperId'],
    papers: ['finish', 'gsm'],
    plan: ['thrift', 'viewingDeg', 'padMarginMm', 'padSpanMm', 'litFromBehind'],
    foams: true,
  },
  needs: (_, layerId) => ({ own: standing(layerId) }),
  compute: ({ project, arg, memo }, { own }) =>
    holdLayer(project, findLayer(project, arg)!, own.pieces, memo),
})

/** Heights, pads, foam and what is left of the whole stack. */
export const depth = node('depth', {
  stage: 'depth',
  reads: { mount: true, plan: ['batch'], foams: true },
  needs: (project) => ({ layers: each(held, project) }),
  compute: ({ project }, { layers }) => sumUpDepth(project, layers),
  view: ({ layers, pads, stackMm, roomMm, foamUse, shim }: DepthPlan): DepthView => ({
    layers: layers.map(numbersOf),
    pads: pads.length,
    stackMm,
    roomMm,
    foamUse,
    shim,
  }),
})

const numbersOf = (layer: LayerDepth): Omit<LayerDepth, 'allowed'> => {
  const { allowed, ...numbers } = layer
  void allowed
  return numbers
}

/** The depth plan as the page has it: numbers only. */
export interface DepthView extends Pick<DepthPlan, 'stackMm' | 'roomMm' | 'foamUse' | 'shim'> {
  layers: Omit<LayerDepth, 'allowed'>[]
  pads: number
}

/** One layer's height, before its pads are planned. */
export const level = node('level', {
  stage: 'depth',
  reads: {},
  needs: (_, layerId) => ({ own: standing(layerId) }),
  compute: ({ arg }, { own: { pieces } }) => ({
    layerId: arg,
    bottomMm: pieces.reduce((least, p) => Math.min(least, p.bottomMm), Infinity),
    topMm: pieces.reduce((most, p) => Math.max(most, p.topMm), 0),
  }),
})

/** How high every layer stands: what the section draws. */
export const levels = node('levels', {
  stage: 'depth',
  reads: {},
  needs: (project) => ({ layers: each(level, project) }),
  compute: (_, { layers }) => layers,
  view: (layers) => layers,
})

/** The pads of one layer as they are drawn, and where pads may lie (path data). */
export const padMap = node('pad map', {
  stage: 'depth',
  reads: {},
  needs: (_, layerId) => ({ own: held(layerId) }),
  compute: (_, { own }) => ({
    pads: own.pads,
    allowedPath: regionToPath(own.layer.allowed),
    layer: numbersOf(own.layer),
  }),
  view: (map) => map,
})

/** Findings of the depth stage. */
export const depthSnagsNode = node('snags of depth', {
  stage: 'depth',
  reads: { layers: ['name'], plan: ['thrift', 'padSpanMm'] },
  needs: () => ({ whole: depth() }),
  compute: ({ project }, { whole }) => depthSnags(project, whole),
  view: (snags) => snags,
})
