// The faces of pieces and layers: their path data, read. The one thing that is kept outside of a cache that is handed in: what a text
// says follows from the text alone, and is gone with the piece that has it.
import { pathToRegion, regionBox, type Box, type Polygon, type Region } from '../base/geometry'
import type { Layer, Piece } from './schema'

const facesOf = new WeakMap<Piece, readonly Polygon[]>()

/** The faces of a piece, in mm in the project's frame. */
export function pieceRegion(piece: Piece): readonly Polygon[] {
  let faces = facesOf.get(piece)
  if (!faces) facesOf.set(piece, (faces = pathToRegion(piece.path)))
  return faces
}

const shapes = new WeakMap<Layer['pieces'], { region: Region; box: Box }>()

function shapeOf({ pieces }: Pick<Layer, 'pieces'>): { region: Region; box: Box } {
  let shape = shapes.get(pieces)
  if (!shape) {
    const region = pieces.flatMap(pieceRegion)
    shapes.set(pieces, (shape = { region, box: regionBox(region) }))
  }
  return shape
}

/** All faces of a layer. */
export const layerRegion = (layer: Pick<Layer, 'pieces'>): Region => shapeOf(layer).region

/** The box round a layer; empty (minX > maxX) where it has no pieces. */
export const layerBox = (layer: Pick<Layer, 'pieces'>): Box => shapeOf(layer).box
