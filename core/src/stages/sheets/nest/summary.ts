// The figures of a layout.
import { mapPolygon, polygonArea, polygonBox, rotation } from '../../../base/geometry'
import type { NestInstance, NestLayout, Placement } from './instance'

/** What an off-cut counts against a whole sheet: next to nothing, but fewer are better. */
const OFF_CUT_SCORE = 0.0005

/** Counts sheets, score and utilisation of placements. */
export function summarise(
  instance: NestInstance,
  placements: Placement[],
  areas = instance.pieces.map((p) => polygonArea(p.shape)),
): NestLayout {
  const { w, h, margin } = instance.sheet
  const byId = new Map(instance.pieces.map((piece, k) => [piece.id, k]))
  const sheets = placements.reduce((most, p) => Math.max(most, p.sheet + 1), 0)
  const offCuts = [...new Set(placements.filter((p) => p.sheet < 0).map((p) => p.sheet))]
  let reachX = margin
  let reachY = margin
  let area = 0
  for (const p of placements) {
    const k = byId.get(p.id)
    if (k === undefined) continue
    area += areas[k]!
    if (p.sheet < 0 || p.sheet !== sheets - 1) continue
    const b = polygonBox(mapPolygon(rotation(p.rotation), instance.pieces[k]!.shape))
    reachX = Math.max(reachX, b.maxX + p.x)
    reachY = Math.max(reachY, b.maxY + p.y)
  }
  const share = Math.min((reachX - margin) / (w - 2 * margin), (reachY - margin) / (h - 2 * margin))
  const card =
    sheets * w * h + offCuts.reduce((sum, s) => sum + polygonArea(instance.offCuts![-1 - s]!.outline), 0)
  return {
    placements,
    sheets,
    score: (sheets === 0 ? 0 : sheets - 1 + Math.max(0, share)) + offCuts.length * OFF_CUT_SCORE,
    utilisation: card === 0 ? 0 : area / card,
  }
}
