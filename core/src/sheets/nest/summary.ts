// The figures of a layout.
import { mapPolygon, polygonArea, polygonBox, rotation } from '../../geometry'
import type { NestInstance, NestLayout, Placement } from './instance'

/** Counts sheets, score and utilisation of placements. */
export function summarise(instance: NestInstance, placements: Placement[], areas = instance.pieces.map((p) => polygonArea(p.shape))): NestLayout {
  const { w, h, margin } = instance.sheet
  const byId = new Map(instance.pieces.map((piece, k) => [piece.id, k]))
  const sheets = Math.max(0, ...placements.map((p) => p.sheet + 1))
  let reachX = margin
  let reachY = margin
  let area = 0
  for (const p of placements) {
    const k = byId.get(p.id)
    if (k === undefined) continue
    area += areas[k]!
    if (p.sheet !== sheets - 1) continue
    const b = polygonBox(mapPolygon(rotation(p.rotation), instance.pieces[k]!.shape))
    reachX = Math.max(reachX, b.maxX + p.x)
    reachY = Math.max(reachY, b.maxY + p.y)
  }
  const share = Math.min((reachX - margin) / (w - 2 * margin), (reachY - margin) / (h - 2 * margin))
  return { placements, sheets, score: sheets === 0 ? 0 : sheets - 1 + Math.max(0, share), utilisation: sheets === 0 ? 0 : area / (sheets * w * h) }
}
