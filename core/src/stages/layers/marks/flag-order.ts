// Flags of a garland in their order along the twine, and where each bears its number: on the flap, which comes to lie at its back.
import { boxHeight, boxWidth, mapRing, regionBox, type Point } from '../../../base/geometry'
import { builtLayers, pieceRegion, type Layer, type Piece, type Project } from '../../../project'
import { numberStrokes } from './digits'
import { NUMBER_MM } from './number-place'

/** A flag of a garland. */
export interface Flag {
  layer: Layer
  piece: Piece
  /** From the left, from 1. */
  nth: number
}

/** A flap is so much higher than the number on it, at the least. */
const ROOM = 1.3

/** Flags from the left to the right; what lies on them, as letters, is none. Empty for other work. */
export function flagsOf(project: Project): Flag[] {
  if (project.mount.kind !== 'garland') return []
  return builtLayers(project)
    .filter(({ role }) => role !== 'overlay')
    .flatMap((layer) =>
      layer.pieces.map((piece) => ({ layer, piece, x: regionBox(pieceRegion(piece)).minX })),
    )
    .toSorted((a, b) => a.x - b.x)
    .map(({ layer, piece }, i) => ({ layer, piece, nth: i + 1 }))
}

/** The number of a flag on its flap, so that it is read upright from behind once the flap is folded; nothing without a flap. */
export function flagNumber({ layer, piece, nth }: Flag): Float64Array[] {
  const box = regionBox(pieceRegion(piece))
  const fold = layer.folds.find(
    ({ line: [x1, y1, x2, y2], deg }) =>
      deg > 90 &&
      Math.abs(y1 - y2) < 1e-3 &&
      Math.min(x1, x2) <= box.maxX &&
      Math.max(x1, x2) >= box.minX &&
      y1 > box.minY,
  )
  if (!fold) return []
  const flapMm = fold.line[1] - box.minY
  const at: Point = { x: (box.minX + box.maxX) / 2, y: box.minY + flapMm / 2 }
  const radiusMm = Math.min(NUMBER_MM, flapMm / ROOM) / 2
  if (radiusMm < 0.75 || flapMm > boxHeight(box) / 2 || boxWidth(box) < 4 * radiusMm) return []
  return numberStrokes(String(nth), at, { radiusMm }).map((line) =>
    mapRing([-1, 0, 0, -1, 2 * at.x, 2 * at.y], line),
  )
}
