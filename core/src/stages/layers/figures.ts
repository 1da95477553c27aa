// What a maker asks of a layer at first sight: how large, how many pieces, what will fall out as loose bits.
import { boxHeight, boxWidth, regionArea, regionBox, regionPerimeter, type Box } from '../../base/geometry'
import { layerRegion, pieceRegion, type Layer, type Piece } from '../../project'

/** Figures of a layer by its shape. Lengths in mm, areas in mm². */
export interface LayerFigures {
  id: string
  areaMm2: number
  outlineMm: number
  box: Box
  pieces: number
  /** Pieces that come free of the sheet beside the layer's body and must be kept when weeding; all of them where none is a body. */
  looseBits: string[]
  /** Pieces too small to hold on to at all. */
  specks: string[]
  openings: number
}

/** A piece over this share of the layer's card is its body; where there is one, all else is loose. */
export const BODY_SHARE = 0.5
/** A piece that fits into a square of this side (mm) is a speck: weeding loses it. */
export const SPECK_MM = 2

/** Four equal petals are four bits as much as an eye beside a head is one. */
function looseOf(pieces: readonly Piece[], areas: readonly number[]): Piece[] {
  if (pieces.length < 2) return []
  const all = areas.reduce((sum, area) => sum + area, 0)
  return pieces.filter((_, i) => areas[i]! < all * BODY_SHARE)
}

/** Counts and measures a layer. Needs the geometry loaded. */
export function layerFigures(layer: Layer): LayerFigures {
  const region = layerRegion(layer)
  const areas = layer.pieces.map((piece) => regionArea(pieceRegion(piece)))
  const isSpeck = (piece: Piece) => {
    const b = regionBox(pieceRegion(piece))
    return boxWidth(b) < SPECK_MM && boxHeight(b) < SPECK_MM
  }
  return {
    id: layer.id,
    areaMm2: regionArea(region),
    outlineMm: regionPerimeter(region),
    box: regionBox(region),
    pieces: layer.pieces.length,
    looseBits: looseOf(layer.pieces, areas).map((piece) => piece.id),
    specks: layer.pieces.filter(isSpeck).map((piece) => piece.id),
    openings: region.reduce((sum, face) => sum + face.holes.length, 0),
  }
}
