// The samples of a region, in the middles of cells and along its outlines, and which of them are neighbours within the card.
import Flatbush from 'flatbush'
import { regionRings, type Region } from '../../../base/geometry'
import type { CardGrid } from './card-grid'
import { HAIR_MM, type Edges } from './edges'

/** An outline is sampled at every corner that turns by more (radians), and by steps between. */
const SHARP = 0.35
/** Samples of outlines no farther apart than this are neighbours, in parts of the pitch. */
const BESIDE = 1.5

/** From a cell to those that come after it: beside, below, and aslant. */
const AHEAD = [
  [1, 0],
  [0, 1],
  [1, 1],
  [-1, 1],
] as const

/** Samples of a region, and the neighbours of each. All lengths in mm. */
export interface CardLinks {
  x: Float64Array
  y: Float64Array
  /** By cell of the grid: its sample, −1 where its middle is no card. Samples of outlines come after these. */
  sampleOf: Int32Array
  /** So many samples lie in the middles of cells. */
  ofCells: number
  /** By sample: it lies in a whole cell; 0 for those of outlines. */
  isOpen: Uint8Array
  /** Samples of outlines by place; numbered from the first of them. */
  outline: Flatbush
  /** Neighbours of sample k, and how far off they are: from start[k] to start[k + 1]. */
  start: Int32Array
  next: Int32Array
  mm: Float64Array
}

/** Samples a region on its grid and links what lies next to each other. */
export function linkCard(region: Region, grid: CardGrid, edges: Edges): CardLinks {
  const xs: number[] = []
  const ys: number[] = []
  const pairs = new Pairs()
  const sampleOf = new Int32Array(grid.inside.length).fill(-1)
  for (let cell = 0; cell < sampleOf.length; cell++)
    if (grid.inside[cell]) {
      sampleOf[cell] = xs.length
      xs.push(grid.minX + ((cell % grid.cols) + 0.5) * grid.pitch)
      ys.push(grid.minY + (Math.floor(cell / grid.cols) + 0.5) * grid.pitch)
    }
  const ofCells = xs.length
  for (const ring of regionRings(region)) sampleRing(ring, { pitch: grid.pitch, xs, ys, pairs })
  const x = Float64Array.from(xs)
  const y = Float64Array.from(ys)
  const outline = new Flatbush(Math.max(1, x.length - ofCells))
  for (let i = ofCells; i < x.length; i++) outline.add(x[i]!, y[i]!, x[i]!, y[i]!)
  if (x.length === ofCells) outline.add(Infinity, Infinity, Infinity, Infinity)
  outline.finish()
  const isOpen = new Uint8Array(x.length)
  sampleOf.forEach((sample, cell) => {
    if (sample >= 0) isOpen[sample] = grid.whole[cell]!
  })
  const samples = { x, y, sampleOf, ofCells, isOpen, outline }
  linkCells(samples, grid, { edges, pairs })
  linkOutlines({ grid, edges, pairs, ...samples })
  return { ...samples, ...pairs.byFirst(x.length) }
}

type Samples = Pick<CardLinks, 'x' | 'y' | 'sampleOf' | 'ofCells' | 'isOpen' | 'outline'>

/** Pairs of samples and how far apart they are, mm. */
class Pairs {
  private readonly from: number[] = []
  private readonly to: number[] = []
  private readonly mm: number[] = []

  add(from: number, to: number, mm: number): void {
    this.from.push(from)
    this.to.push(to)
    this.mm.push(mm)
  }

  /** The neighbours of each of so many samples. */
  byFirst(count: number): Pick<CardLinks, 'start' | 'next' | 'mm'> {
    const { from, to } = this
    const start = new Int32Array(count + 1)
    for (let i = 0; i < from.length; i++) {
      start[from[i]! + 1]!++
      start[to[i]! + 1]!++
    }
    for (let i = 0; i < count; i++) start[i + 1]! += start[i]!
    const fill = start.slice()
    const next = new Int32Array(from.length * 2)
    const mm = new Float64Array(from.length * 2)
    for (let i = 0; i < from.length; i++) {
      const [a, b, far] = [from[i]!, to[i]!, this.mm[i]!]
      next[fill[a]!] = b
      mm[fill[a]!++] = far
      next[fill[b]!] = a
      mm[fill[b]!++] = far
    }
    return { start, next, mm }
  }
}

/** Samples along an outline, each linked to the next: at its corners, and no farther apart than the pitch. */
function sampleRing(
  ring: Float64Array,
  { pitch, xs, ys, pairs }: { pitch: number; xs: number[]; ys: number[]; pairs: Pairs },
): void {
  const n = ring.length / 2
  const first = xs.length
  let since = Infinity
  for (let i = 0; i < n; i++) {
    const [px, py] = [ring[((i + n - 1) % n) * 2]!, ring[((i + n - 1) % n) * 2 + 1]!]
    const [x, y] = [ring[i * 2]!, ring[i * 2 + 1]!]
    const [qx, qy] = [ring[((i + 1) % n) * 2]!, ring[((i + 1) % n) * 2 + 1]!]
    const turn = Math.atan2(
      (x - px) * (qy - y) - (y - py) * (qx - x),
      (x - px) * (qx - x) + (y - py) * (qy - y),
    )
    const length = Math.hypot(qx - x, qy - y)
    if (since >= pitch || Math.abs(turn) > SHARP) {
      xs.push(x)
      ys.push(y)
      since = 0
    }
    const parts = Math.ceil((since + length) / pitch) - 1
    for (let s = 1; s <= parts; s++) {
      const t = (s * pitch - since) / length
      if (t <= 0 || t >= 1) continue
      xs.push(x + (qx - x) * t)
      ys.push(y + (qy - y) * t)
    }
    since = parts > 0 ? since + length - parts * pitch : since + length
  }
  const count = xs.length - first
  // Along a bend the outline is a little longer than its chord; so little that the chord counts as card.
  for (let i = 0; i < count; i++) {
    const [a, b] = [first + i, first + ((i + 1) % count)]
    if (a !== b) pairs.add(a, b, Math.hypot(xs[a]! - xs[b]!, ys[a]! - ys[b]!))
  }
}

/**
 * Whether the straight line between two samples lies in the card. One that does not lie in a whole cell may lie on an outline, or by a hair
 * beside one: between two such a line can cross none and lie beside the card all the same.
 */
function isJoined({ x, y, isOpen }: Samples, edges: Edges, [a, b]: readonly [number, number]): boolean {
  const [from, to] = [
    { x: x[a]!, y: y[a]! },
    { x: x[b]!, y: y[b]! },
  ]
  return isOpen[a] || isOpen[b] ? edges.letsThrough(from, to) : edges.joins(from, to)
}

/** Middles of cells to those beside and aslant. */
function linkCells(samples: Samples, grid: CardGrid, { edges, pairs }: { edges: Edges; pairs: Pairs }): void {
  const { cols, rows, whole, pitch } = grid
  const { sampleOf } = samples
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const from = sampleOf[r * cols + c]!
      if (from < 0) continue
      for (const [dc, dr] of AHEAD) {
        const [tc, tr] = [c + dc, r + dr]
        if (tc < 0 || tc >= cols || tr >= rows) continue
        const to = sampleOf[tr * cols + tc]!
        if (to < 0) continue
        const isWhole =
          whole[r * cols + c] && whole[tr * cols + tc] && whole[r * cols + tc] && whole[tr * cols + c]
        if (isWhole || isJoined(samples, edges, [from, to]))
          pairs.add(from, to, dc === 0 || dr === 0 ? pitch : Math.SQRT2 * pitch)
      }
    }
}

/** Samples of outlines to cells round them, and to each other across narrow card. */
function linkOutlines({
  grid,
  edges,
  pairs,
  ...samples
}: Samples & { grid: CardGrid; edges: Edges; pairs: Pairs }): void {
  const { x, y, sampleOf, ofCells, outline } = samples
  const reach = grid.pitch * BESIDE
  for (let i = ofCells; i < x.length; i++) {
    const [ax, ay] = [x[i]!, y[i]!]
    for (const to of samplesRound(grid, sampleOf, [ax, ay]))
      if (isJoined(samples, edges, [i, to])) pairs.add(i, to, Math.hypot(ax - x[to]!, ay - y[to]!))
    for (const near of outline.search(ax - reach, ay - reach, ax + reach, ay + reach)) {
      const to = near + ofCells
      if (to <= i + 1) continue
      const mm = Math.hypot(ax - x[to]!, ay - y[to]!)
      if (mm > HAIR_MM * 3 && mm <= reach && isJoined(samples, edges, [i, to])) pairs.add(i, to, mm)
    }
  }
}

/** Samples of the cell that a place lies in, and of the eight round it. */
export function samplesRound(
  grid: CardGrid,
  sampleOf: Int32Array,
  [x, y]: readonly [number, number],
): number[] {
  const [c, r] = [grid.colAt(x), grid.rowAt(y)]
  const out: number[] = []
  for (let tr = Math.max(0, r - 1); tr <= Math.min(grid.rows - 1, r + 1); tr++)
    for (let tc = Math.max(0, c - 1); tc <= Math.min(grid.cols - 1, c + 1); tc++) {
      const sample = sampleOf[tr * grid.cols + tc]!
      if (sample >= 0) out.push(sample)
    }
  return out
}
