import type { Point } from '../../base/geometry'
import type { Size } from '../measure'
import {
  coverWithPrint,
  findLayer,
  layOnEachOther,
  removeLayer,
  setLayer,
  takeOffPrint,
  type MendTable,
} from '../../project'
import { addBacking, addBackingRound } from './backing'
import { withEdge, type Edge } from './edges'
import { fillUnder } from './fill-under'
import { cutInParts } from './in-parts'
import {
  cutOff,
  cutOut,
  drawStrip,
  fillHoles,
  fillOpening,
  movePieces,
  offsetCopy,
  splitOff,
  widenAt,
} from './shape-tools'
import { bridgeLayer, thickenLayer } from './soundness'
import { toOpenings, type Through } from './to-openings'
import { moveTie, type DrawnStrip } from './ties'
import { gatherLayers } from './visibility/merge'

declare module '../../project/snag' {
  interface Mends {
    'drop-specks': { layerId: string; pieceIds: string[] }
    'thicken-layer': { layerId: string; safeMm: number }
    'bridge-layer': { layerId: string; safeMm: number }
    'gather-layers': { layerIds: string[] }
    'add-backing': object
    'back-round': object
    'lay-on-each-other': object
    'leave-out': { layerId: string }
    'offset-copy': { layerId: string; mm: number; corners: 'round' | 'sharp' }
    'cut-out': { layerId: string; byId: string; roomMm: number }
    'cut-off': { layerId: string }
    'fill-holes': { layerId: string; underMm2: number }
    'fill-under': { layerIds: string[] }
    'to-openings': { byId: string; through: Through }
    'cut-in-parts': { layerId: string } & Size
    'split-off': { layerId: string; pieceIds: string[] }
    'move-pieces': { layerId: string; pieceIds: string[]; toId: string }
    'fill-opening': { layerId: string; at: Point }
    'draw-strip': { layerId: string; cut: boolean } & DrawnStrip
    'move-tie': { layerId: string; at: number; to: DrawnStrip | null }
    'widen-at': { layerId: string; at: Point; safeMm: number }
    edge: { layerId: string; edge: Edge }
    'cover-with-print': { layerId: string }
    'take-off-print': { layerId: string }
  }
}

/** Those that cut and join shapes need the geometry loaded. */
export const layersMends: MendTable<
  | 'drop-specks'
  | 'thicken-layer'
  | 'bridge-layer'
  | 'gather-layers'
  | 'add-backing'
  | 'back-round'
  | 'lay-on-each-other'
  | 'leave-out'
  | 'offset-copy'
  | 'cut-out'
  | 'cut-off'
  | 'fill-holes'
  | 'fill-under'
  | 'to-openings'
  | 'cut-in-parts'
  | 'split-off'
  | 'move-pieces'
  | 'fill-opening'
  | 'draw-strip'
  | 'move-tie'
  | 'widen-at'
  | 'edge'
  | 'cover-with-print'
  | 'take-off-print'
> = {
  'drop-specks': (project, { layerId, pieceIds }) => {
    const layer = findLayer(project, layerId)
    if (!layer) return project
    const pieces = layer.pieces.filter((piece) => !pieceIds.includes(piece.id))
    return pieces.length > 0 ? setLayer(project, layer.id, { pieces }) : removeLayer(project, layer.id)
  },
  'thicken-layer': (project, { layerId, safeMm }) => thickenLayer(project, layerId, safeMm),
  'bridge-layer': (project, { layerId, safeMm }) => bridgeLayer(project, layerId, safeMm),
  'gather-layers': (project, { layerIds }) => gatherLayers(project, layerIds),
  'add-backing': (project) => addBacking(project),
  'back-round': (project) => addBackingRound(project),
  'lay-on-each-other': (project) => layOnEachOther(project),
  'leave-out': (project, { layerId }) => setLayer(project, layerId, { optional: true, leftOut: true }),
  'offset-copy': (project, { layerId, mm, corners }) => offsetCopy(project, layerId, { mm, corners }),
  'cut-out': (project, { layerId, byId, roomMm }) => cutOut(project, layerId, { byId, roomMm }),
  'cut-off': (project, { layerId }) => cutOff(project, layerId),
  'fill-holes': (project, { layerId, underMm2 }) => fillHoles(project, layerId, underMm2),
  'fill-under': (project, { layerIds }) => fillUnder(project, layerIds),
  'to-openings': (project, { byId, through }) => toOpenings(project, { byId, through }),
  'cut-in-parts': (project, { layerId, ...reach }) => cutInParts(project, layerId, reach),
  'split-off': (project, { layerId, pieceIds }) => splitOff(project, layerId, pieceIds),
  'move-pieces': (project, { layerId, pieceIds, toId }) => movePieces(project, layerId, { pieceIds, toId }),
  'fill-opening': (project, { layerId, at }) => fillOpening(project, layerId, at),
  'draw-strip': (project, { layerId, ...strip }) => drawStrip(project, layerId, strip),
  'move-tie': (project, { layerId, at, to }) => moveTie(project, layerId, { at, to }),
  'widen-at': (project, { layerId, at, safeMm }) => widenAt(project, layerId, { at, safeMm }),
  edge: (project, { layerId, edge }) => withEdge(project, layerId, edge),
  'cover-with-print': (project, { layerId }) => coverWithPrint(project, layerId),
  'take-off-print': (project, { layerId }) => takeOffPrint(project, layerId),
}
