// Lines that meet end to end are chained to rings.
import { ringBox, type Ring } from '../../base/geometry'

/** A line of points x0, y0, x1, y1, …, in any unit. */
export interface Outline {
  points: number[]
  closed: boolean
}

/** Ends nearer than this (mm) are one point. */
const JOIN_MM = 0.02

const meets = ([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): boolean =>
  Math.hypot(ax - bx, ay - by) <= JOIN_MM

/** Closed rings of lines (mm); open ones are joined where their ends meet. `open` is how many stay open. */
export function chain(lines: readonly Outline[]): { rings: Ring[]; open: number } {
  const rings: Ring[] = []
  const loose: number[][] = []
  for (const { points, closed } of lines) {
    const n = points.length
    if (n >= 6 && (closed || endsMeet(points))) rings.push(Float64Array.from(points))
    else if (n >= 4) loose.push(points)
  }
  const ends = new Ends(loose)
  let open = 0
  for (let i = 0; i < loose.length; i++) {
    if (!ends.take(i)) continue
    const line = [...loose[i]!]
    while (!isRing(line)) {
      const next = ends.takeAt(line.at(-2)!, line.at(-1)!)
      if (!next) break
      append(line, next.points, next.backwards)
    }
    const b = ringBox(Float64Array.from(line))
    if (isRing(line) && b.maxX > b.minX && b.maxY > b.minY) rings.push(Float64Array.from(line))
    else open++
  }
  return { rings, open }
}

const endsMeet = (points: readonly number[]): boolean =>
  meets([points[0]!, points[1]!], [points.at(-2)!, points.at(-1)!])

const isRing = (line: readonly number[]): boolean => line.length >= 8 && endsMeet(line)

/** Goes on along another line, without the point that both share. */
function append(line: number[], points: readonly number[], backwards: boolean): void {
  if (backwards) for (let k = points.length - 4; k >= 0; k -= 2) line.push(points[k]!, points[k + 1]!)
  else for (let k = 2; k < points.length; k++) line.push(points[k]!)
}

/** The ends of lines by the cells of a grid, so that large drawings chain in time. */
class Ends {
  private readonly cells = new Map<string, number[]>()
  private readonly used: Uint8Array

  constructor(private readonly lines: readonly number[][]) {
    this.used = new Uint8Array(lines.length)
    lines.forEach((points, i) => {
      for (const key of [keyAt(points[0]!, points[1]!), keyAt(points.at(-2)!, points.at(-1)!)])
        (this.cells.get(key) ?? this.newCell(key)).push(i)
    })
  }

  private newCell(key: string): number[] {
    const cell: number[] = []
    this.cells.set(key, cell)
    return cell
  }

  /** Takes a line out; false where it is out already. */
  take(i: number): boolean {
    if (this.used[i]) return false
    this.used[i] = 1
    return true
  }

  /** Takes out the line that has an end at a point; null where none is left. */
  takeAt(x: number, y: number): { points: number[]; backwards: boolean } | null {
    for (const dx of [0, -CELL_MM, CELL_MM])
      for (const dy of [0, -CELL_MM, CELL_MM])
        for (const i of this.cells.get(keyAt(x + dx, y + dy)) ?? []) {
          if (this.used[i]) continue
          const points = this.lines[i]!
          const forwards = meets([points[0]!, points[1]!], [x, y])
          if (!forwards && !meets([points.at(-2)!, points.at(-1)!], [x, y])) continue
          this.used[i] = 1
          return { points, backwards: !forwards }
        }
    return null
  }
}

/** A point within the joining distance lies in the same cell or in one beside it. */
const CELL_MM = JOIN_MM * 4
const keyAt = (x: number, y: number): string => `${Math.round(x / CELL_MM)} ${Math.round(y / CELL_MM)}`
