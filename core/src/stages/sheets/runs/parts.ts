// What of a layer is laid on the sheets, and what it is called there.
import { polygonToPath, rectangle } from '../../../base/geometry'
import { isLaidAsOne, layerBox, type Layer, type Piece } from '../../../project'

const SEPARATOR = '/'

/** Name of a part in an instance: layer and piece. */
export const partId = (layerId: string, pieceId: string): string => `${layerId}${SEPARATOR}${pieceId}`

/** The layer and the piece of a part's name. */
export function splitPartId(id: string): { layerId: string; pieceId: string } {
  const cut = id.lastIndexOf(SEPARATOR)
  return { layerId: id.slice(0, cut), pieceId: id.slice(cut + 1) }
}

/** The piece's place in the name of a part that is a whole layer. */
export const WHOLE = 'whole'

/** Pieces in one: the box round them. */
function blockOf(layer: Layer): Piece {
  const { minX, minY, maxX, maxY } = layerBox(layer)
  return { id: WHOLE, path: polygonToPath(rectangle([minX, minY], maxX - minX, maxY - minY)) }
}

/** What of a layer is laid on the sheets: its pieces, or all of them as one. */
export const laidPieces = (layer: Layer): readonly Piece[] =>
  isLaidAsOne(layer) ? [blockOf(layer)] : layer.pieces
