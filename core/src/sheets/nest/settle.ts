// Closing gaps by hand: pieces slide towards the sheet's corner as far as they may.
import { polygonBox } from '../../geometry'
import { placedShape, whyIllegal } from './legal'
import type { NestInstance, Placement } from './instance'

const STRIDE_MM = 2
const FINEST_MM = 0.01
const ROUNDS = 3

const keyOf = (p: Placement) => `${p.id}#${p.copy}`

/**
 * Placements with the chosen pieces (`id#copy`) slid up and to the left until something stops them, the foremost first;
 * the others stay. Pieces that may not lie where they are stay too. Needs the geometry loaded.
 */
export function settle(instance: NestInstance, placements: readonly Placement[], chosen: ReadonlySet<string>): Placement[] {
  const all = new Map(placements.map((p) => [keyOf(p), p]))
  const order = placements.filter((p) => chosen.has(keyOf(p))).toSorted((a, b) => a.y + a.x - b.y - b.x)
  for (let round = 0; round < ROUNDS; round++)
    for (const { id, copy } of order) {
      const key = `${id}#${copy}`
      const others = [...all.values()].filter((p) => keyOf(p) !== key)
      const start = all.get(key)!
      if (whyIllegal(instance, start, others)) continue
      all.set(key, slide(instance, slide(instance, start, others, 0, -1), others, -1, 0))
    }
  return placements.map((p) => all.get(keyOf(p))!)
}

function slide(instance: NestInstance, from: Placement, others: readonly Placement[], dx: number, dy: number): Placement {
  let at = from
  for (let step = STRIDE_MM; step >= FINEST_MM;) {
    const next = { ...at, x: at.x + dx * step, y: at.y + dy * step }
    if (whyIllegal(instance, next, others)) step /= 2
    else at = next
  }
  return at
}

/** The first legal place for a piece on the whole sheet its placement names, row by row of a net; null where there is none. */
export function firstFree(instance: NestInstance, placement: Placement, others: readonly Placement[]): Placement | null {
  const shape = placedShape(instance, { ...placement, x: 0, y: 0 })
  if (!shape) return null
  const { sheet, gap } = instance
  const b = polygonBox(shape)
  const step = Math.max(STRIDE_MM, gap * 2)
  for (let y = sheet.margin - b.minY; y <= sheet.h - sheet.margin - b.maxY + 1e-9; y += step)
    for (let x = sheet.margin - b.minX; x <= sheet.w - sheet.margin - b.maxX + 1e-9; x += step) {
      const at = { ...placement, x, y }
      if (!whyIllegal(instance, at, others)) return at
    }
  return null
}
