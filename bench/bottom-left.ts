// The baseline for true shapes: a plain bottom-left placer on a grid of cells that anneals the order of the pieces and their
// turns. It shares nothing with the engine but the reading of shapes: each row of a piece is a few runs of cells, each row of
// the sheet a few taken runs, and a piece goes to the first row and column at which none of them meet. Openings are filled.
import {
  mapPolygon,
  offset,
  polygonArea,
  polygonRings,
  rotation,
  type Polygon,
} from '@feuillet/core/base/geometry'
import { seededRandom } from '@feuillet/core/base'
import type { NestInstance } from '@feuillet/core/stages/sheets'

const CELL_MM = 0.5
/** Turns tried where any is allowed. */
const FREE_TURNS = 16
/** Annealing from this change of score, taken half the time, down to that. */
const [HOT, COLD] = [0.02, 0.0005]

/** Rows of a piece from its top: from, to, from, to, … in cells, ends outside. */
interface Mask {
  rows: Int32Array[]
  width: number
}

/** Every cell that a shape touches: those its edges cross, and those between. */
function maskOf(shape: Polygon): Mask {
  const rings = polygonRings(shape)
  const [x0, y0] = [0, 1].map((axis) => Math.min(...shape.outer.filter((_, i) => i % 2 === axis)))
  const height = Math.ceil((Math.max(...shape.outer.filter((_, i) => i % 2 === 1)) - y0!) / CELL_MM)
  const width = Math.ceil((Math.max(...shape.outer.filter((_, i) => i % 2 === 0)) - x0!) / CELL_MM)
  const cells = Array.from({ length: height }, () => new Uint8Array(width))
  const crossings: number[][] = cells.map(() => [])
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [
        (ring[j]! - x0!) / CELL_MM,
        (ring[j + 1]! - y0!) / CELL_MM,
        (ring[i]! - x0!) / CELL_MM,
        (ring[i + 1]! - y0!) / CELL_MM,
      ]
      const at = (y: number) => (by === ay ? ax : ax + ((bx - ax) * (y - ay)) / (by - ay))
      for (
        let r = Math.max(0, Math.floor(Math.min(ay, by)));
        r <= Math.min(height - 1, Math.floor(Math.max(ay, by)));
        r++
      ) {
        const [top, foot] = [Math.max(r, Math.min(ay, by)), Math.min(r + 1, Math.max(ay, by))]
        const ends = by === ay ? [ax, bx] : [at(top), at(foot)]
        cells[r]!.fill(
          1,
          Math.max(0, Math.floor(Math.min(...ends))),
          Math.min(width, Math.floor(Math.max(...ends)) + 1),
        )
        if (ay > r + 0.5 !== by > r + 0.5) crossings[r]!.push(at(r + 0.5))
      }
    }
  crossings.forEach((xs, r) => {
    xs.sort((a, b) => a - b)
    for (let k = 0; k + 1 < xs.length; k += 2)
      cells[r]!.fill(1, Math.max(0, Math.floor(xs[k]!)), Math.min(width, Math.ceil(xs[k + 1]!)))
  })
  return { rows: cells.map(runsOf), width }
}

function runsOf(cells: Uint8Array): Int32Array {
  const runs: number[] = []
  cells.forEach((cell, x) => {
    if (cell !== (x > 0 ? cells[x - 1] : 0)) runs.push(x)
  })
  if (cells.at(-1)) runs.push(cells.length)
  return Int32Array.from(runs)
}

/** One sheet: taken runs by row. */
class Ground {
  private readonly rows: Int32Array[]
  right = 0
  foot = 0
  private readonly barred: Int32Array

  constructor(
    private readonly columns: number,
    private readonly height: number,
  ) {
    this.rows = Array.from({ length: height }, () => new Int32Array(0))
    this.barred = new Int32Array(columns + 1)
  }

  /** Lays a piece at the first free place; false where there is none. */
  lay(mask: Mask): boolean {
    const last = this.columns - mask.width
    for (let y = 0; y + mask.rows.length <= this.height && last >= 0; y++) {
      const x = this.firstFree(mask, y, last)
      if (x < 0) continue
      this.take(mask, x, y)
      return true
    }
    return false
  }

  /** The first column at which a piece may begin with its top in a row, up to the last given; −1 where there is none. */
  private firstFree({ rows }: Mask, y: number, last: number): number {
    const { barred, columns } = this
    barred.fill(0)
    for (let r = 0; r < rows.length; r++) {
      const own = rows[r]!
      const taken = this.rows[y + r]!
      for (let i = 0; i < own.length; i += 2)
        for (let k = 0; k < taken.length; k += 2) {
          const from = Math.max(0, taken[k]! - own[i + 1]! + 1)
          const to = taken[k + 1]! - own[i]!
          if (to <= from || from > last) continue
          // The whole row is barred.
          if (from === 0 && to > last) return -1
          barred[from]!++
          barred[Math.min(to, columns)]!--
        }
    }
    for (let x = 0, sum = 0; x <= last; x++) {
      sum += barred[x]!
      if (sum === 0) return x
    }
    return -1
  }

  private take(mask: Mask, x: number, y: number): void {
    mask.rows.forEach((own, r) => {
      const runs: [number, number][] = []
      for (const [list, shift] of [[this.rows[y + r]!, 0] as const, [own, x] as const])
        for (let i = 0; i < list.length; i += 2) runs.push([list[i]! + shift, list[i + 1]! + shift])
      runs.sort((a, b) => a[0] - b[0])
      const joined: number[] = []
      for (const [from, to] of runs)
        if (joined.length > 0 && from <= joined.at(-1)!)
          joined[joined.length - 1] = Math.max(joined.at(-1)!, to)
        else joined.push(from, to)
      this.rows[y + r] = Int32Array.from(joined)
    })
    this.right = Math.max(this.right, x + mask.width)
    this.foot = Math.max(this.foot, y + mask.rows.length)
  }
}

/** Score of the best layout found in so many seconds, and how many were laid. Infinite where a piece fits nowhere. */
export function annealedBottomLeft(
  { sheet, gap, pieces }: NestInstance,
  seconds: number,
  seed = 1,
): { score: number; layouts: number } {
  const end = performance.now() + seconds * 1000
  const random = seededRandom(seed)
  const [w, h] = [sheet.w - 2 * sheet.margin, sheet.h - 2 * sheet.margin]
  const [columns, rows] = [w, h].map((side) => Math.floor((side + gap) / CELL_MM + 1e-6)) as [number, number]
  const masks = pieces.map(({ shape, turns }) => {
    const count = { free: FREE_TURNS, quarter: 4, fixed: 1 }[turns]
    return Array.from({ length: count }, (_, k) =>
      maskOf(offset([mapPolygon(rotation((k * 360) / count), shape)], gap / 2, 'miter')[0]!),
    )
  })
  const items = pieces.flatMap((piece, kind) =>
    Array.from({ length: piece.qty }, () => ({ kind, turn: 0, area: polygonArea(piece.shape) })),
  )
  items.sort((a, b) => b.area - a.area)
  // Each piece begins at its flattest.
  for (const item of items)
    item.turn = masks[item.kind]!.map((mask, k) => ({ k, height: mask.rows.length })).reduce((a, b) =>
      b.height < a.height ? b : a,
    ).k
  const layAll = (): number => {
    const grounds: Ground[] = []
    for (const { kind, turn } of items) {
      const mask = masks[kind]![turn]!
      if (grounds.some((ground) => ground.lay(mask))) continue
      const fresh = new Ground(columns, rows)
      if (!fresh.lay(mask)) return Infinity
      grounds.push(fresh)
    }
    const { right, foot } = grounds.at(-1)!
    return grounds.length - 1 + Math.min((right * CELL_MM - gap) / w, (foot * CELL_MM - gap) / h)
  }
  let now = layAll()
  let best = now
  let layouts = 1
  const begun = performance.now()
  while (performance.now() < end) {
    const heat = HOT * (COLD / HOT) ** ((performance.now() - begun) / (end - begun))
    const [a, b] = [Math.floor(random() * items.length), Math.floor(random() * items.length)]
    const { turn } = items[a]!
    const turns = random() < 0.5
    if (turns) items[a]!.turn = Math.floor(random() * masks[items[a]!.kind]!.length)
    else [items[a], items[b]] = [items[b]!, items[a]!]
    const score = layAll()
    layouts++
    if (score <= now || random() < Math.exp((now - score) / heat)) now = score
    else if (turns) items[a]!.turn = turn
    else [items[a], items[b]] = [items[b]!, items[a]!]
    best = Math.min(best, now)
  }
  return { score: best, layouts }
}
