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
  /** Pieces that are small beside the layer's largest and must be kept when weeding. */
  looseBits: string[]
  /** Pieces too small to hold on to at all. */
  specks: string[]
  openings: number
}

/** A piece under this share of the layer's largest counts as a loose bit. */
export const LOOSE_SHARE = 0.25
/** A piece that fits into a square of this side (mm) is a speck: weeding loses it. */
export const SPECK_MM = 2

/** Counts and measures a layer. Needs the geometry loaded. */
export function layerFigures(layer: Layer): LayerFigures {
  const region = layerRegion(layer)
  const areas = layer.pieces.map((piece) => regionArea(pieceRegion(piece)))
  const largest = Math.max(0, ...areas)
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
    looseBits: layer.pieces.filter((_, i) => areas[i]! < largest * LOOSE_SHARE).map((piece) => piece.id),
    specks: layer.pieces.filter(isSpeck).map((piece) => piece.id),
    openings: region.reduce((sum, face) => sum + face.holes.length, 0),
  }
}
