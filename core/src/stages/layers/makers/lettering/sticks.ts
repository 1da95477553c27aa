// What holds words up: where sticks go, and how far what is not held sinks.
import {
  boxWidth,
  regionBox,
  regionCentroid,
  regionContains,
  type Box,
  type Region,
} from '../../../../base/geometry'
import type { LetteringRecipe } from '../../../../project'

/** Where sticks go: evenly about the centre of mass, where card reaches the lower edge (mm from the left). */
export function stickPlaces(region: Region, recipe: LetteringRecipe): { at: number[]; remarks: string[] } {
  const remarks: string[] = []
  if (recipe.sticks === 0) return { at: [], remarks }
  const b = regionBox(region)
  const centre = regionCentroid(region)
  const wanted =
    recipe.sticks === 1 ? [centre.x] : [centre.x - boxWidth(b) * 0.22, centre.x + boxWidth(b) * 0.22]
  const at: number[] = []
  for (const x of wanted) {
    // The nearest place at which card as wide as the stick, and twice as high, reaches down past the centre of mass.
    const solid = (px: number) =>
      [-0.5, 0, 0.5].every((k) =>
        columnSolid(region, px + k * recipe.stickMm, { belowY: centre.y, box: b, runMm: recipe.stickMm * 2 }),
      )
    const shifts = Array.from(
      { length: 120 },
      (_, k) => ((k % 2 ? 1 : -1) * Math.ceil(k / 2) * boxWidth(b)) / 240,
    )
    const found = shifts.map((s) => x + s).find(solid)
    if (found === undefined)
      remarks.push(
        'No column of card below the centre of mass is wide enough for a stick: widen the backing.',
      )
    else at.push(found)
  }
  return { at, remarks }
}

/** Whether card stands at least `runMm` high at the lower edge of a column, and reaches below a height. */
function columnSolid(
  region: Region,
  x: number,
  { belowY, box, runMm }: { belowY: number; box: Box; runMm: number },
): boolean {
  const step = 0.5
  let y = box.maxY
  while (y > box.minY && !regionContains(region, x, y)) y -= step
  if (y <= belowY) return false
  const foot = y
  while (y > box.minY && regionContains(region, x, y)) y -= step
  return foot - y >= runMm
}

/** Longest way from what holds the words to their farthest end. */
export function droop(words: Region, sticks: readonly number[]): number {
  const b = regionBox(words)
  const holds = sticks.length > 0 ? sticks : [regionCentroid(words).x]
  return Math.max(...[b.minX, b.maxX].map((end) => Math.min(...holds.map((x) => Math.abs(x - end)))))
}

/** Of card: kg/m³ and Pa. The stiffness is a middle value; damp card is softer. */
const DENSITY = 745
const STIFFNESS = 2.5e9

/** How far the end of a level strip of card sinks under its own weight: 3/2 · ρ g L⁴ / (E t²), mm. */
export function sagMm(reachMm: number, thicknessMm: number): number {
  const [l, t] = [reachMm / 1000, thicknessMm / 1000]
  return (1000 * 1.5 * DENSITY * 9.81 * l ** 4) / (STIFFNESS * t ** 2)
}
