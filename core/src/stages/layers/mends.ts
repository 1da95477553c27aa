import { findLayer, removeLayer, setLayer, type MendTable } from '../../project'
import { addBacking } from './backing'
import { bridgeLayer, thickenLayer } from './soundness'
import { gatherLayers } from './visibility/merge'

declare module '../../project/snag' {
  interface Mends {
    'drop-specks': { layerId: string; pieceIds: string[] }
    'thicken-layer': { layerId: string; safeMm: number }
    'bridge-layer': { layerId: string; safeMm: number }
    'gather-layers': { layerIds: string[] }
    'add-backing': object
  }
}

/** Those that cut and join shapes need the geometry loaded. */
export const layersMends: MendTable<
  'drop-specks' | 'thicken-layer' | 'bridge-layer' | 'gather-layers' | 'add-backing'
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
}
