// What of a drawing lies together, and what by itself.
import Flatbush from 'flatbush'
import { boxesMeet, growBox, joinBoxes, regionBox, type Box } from '../base/geometry'
import { pieceRegion } from './faces'
import type { Layer } from './schema'

/** Pieces whose boxes come as near as this lie together, mm. */
const NEAR_MM = 1

/** What stays together at any rate. */
export interface Part {
  layerId: string
  pieceIds: string[]
  box: Box
}

/** A layer's parts: a piece each, or all of a layer that is cut otherwise than it is seen. */
export function partsOf(layer: Layer): Part[] {
  const boxes = layer.pieces.map((piece) => ({ id: piece.id, box: regionBox(pieceRegion(piece)) }))
  if (layer.blanks.length > 0 || layer.print !== null)
    return boxes.length === 0
      ? []
      : [
          {
            layerId: layer.id,
            pieceIds: boxes.map(({ id }) => id),
            box: joinBoxes(boxes.map(({ box }) => box)),
          },
        ]
  return boxes.map(({ id, box }) => ({ layerId: layer.id, pieceIds: [id], box }))
}

/** Parts whose boxes touch, in one group each. */
export function clusters(parts: readonly Part[]): Part[][] {
  const index = new Flatbush(parts.length)
  for (const { box } of parts) index.add(box.minX, box.minY, box.maxX, box.maxY)
  index.finish()
  const groupOf = new Int32Array(parts.length).fill(-1)
  const groups: Part[][] = []
  parts.forEach((_, first) => {
    if (groupOf[first]! >= 0) return
    const group: Part[] = []
    const open = [first]
    groupOf[first] = groups.length
    while (open.length > 0) {
      const part = parts[open.pop()!]!
      group.push(part)
      const { minX, minY, maxX, maxY } = growBox(part.box, NEAR_MM)
      for (const k of index.search(minX, minY, maxX, maxY))
        if (groupOf[k]! < 0) {
          groupOf[k] = groups.length
          open.push(k)
        }
    }
    groups.push(group)
  })
  return groups
}

/** How far two boxes are apart, mm; 0 where they meet. */
export const apartMm = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, a.minX - b.maxX, b.minX - a.maxX), Math.max(0, a.minY - b.maxY, b.minY - a.maxY))

/** Whether a place lies in a box, or right beside it. */
export const isIn = (box: Box, x: number, y: number): boolean =>
  boxesMeet(growBox(box, NEAR_MM), { minX: x, minY: y, maxX: x, maxY: y })

/** A layer with some of its pieces, and what is drawn on them; `box` is round them. */
export const partOf = (
  layer: Layer,
  { pieceIds, box }: { pieceIds: ReadonlySet<string>; box: Box },
): Layer => ({
  ...layer,
  pieces: layer.pieces.filter(({ id }) => pieceIds.has(id)),
  folds: layer.folds.filter(({ line: [x1, y1, x2, y2] }) => isIn(box, (x1 + x2) / 2, (y1 + y2) / 2)),
  ties: layer.ties.filter(({ line: [x1, y1, x2, y2] }) => isIn(box, (x1 + x2) / 2, (y1 + y2) / 2)),
  slits: layer.slits.filter(([x, y]) => isIn(box, x!, y!)),
})

/** Whether most of what comes later has more card than what comes before it: then it lies behind. */
export const isFrontFirst = (card: readonly number[]): boolean =>
  card.reduce((sum, a, i) => sum + card.slice(i + 1).reduce((own, b) => own + Math.sign(b - a), 0), 0) > 0
