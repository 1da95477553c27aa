// Distances along card. A region is sampled by a grid and along its outlines; from a point, the shortest way within the card is found
// over the samples, straightened wherever nothing but card lies between (a Dijkstra search that looks back to its last bend, as lazy Theta* does).
// Every way it finds lies in the card: no distance is told too small.
import Flatbush from 'flatbush'
import { regionBox, regionContains, regionRings, type Region } from '../../../base/geometry'

/** At most so many samples of the grid. */
const MOST_SAMPLES = 7000
/** An outline is sampled at every corner that turns by more (radians), and by steps between. */
const SHARP = 0.35
/** Ends of a sight line are drawn in by so much, so that it may start on an outline (mm). */
const HAIR_MM = 1e-3

/** Samples by their rising distance from somewhere, and how far each is (mm). */
export interface Ways {
  samples: Int32Array
  mm: Float64Array
}

/** From a cell to those that come after it: beside, below, and aslant. */
const AHEAD = [
  [1, 0],
  [0, 1],
  [1, 1],
  [-1, 1],
] as const

/** Pairs of samples and how far apart they are, mm. */
class Links {
  readonly from: number[] = []
  readonly to: number[] = []
  readonly mm: number[] = []

  get count(): number {
    return this.from.length
  }

  add(from: number, to: number, mm: number): void {
    this.from.push(from)
    this.to.push(to)
    this.mm.push(mm)
  }
}

/** Samples of a region and the ways between neighbours. All lengths in mm. */
export class CardField {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly count: number
  /** From sample to sample of the grid. */
  readonly pitch: number
  private readonly cols: number
  private readonly rows: number
  private readonly minX: number
  private readonly minY: number
  /** By cell of the grid: its sample, −1 where its middle is no card. */
  private readonly sampleOf: Int32Array
  /** By cell: no outline passes through it, and it is card. */
  private readonly whole: Uint8Array
  /** By cell: so many cells off, in rows, columns and diagonals, is the nearest that is not whole; 0 where it is that itself. */
  private readonly clear: Uint16Array
  private readonly edges: Float64Array
  private readonly index: Flatbush
  /** Neighbours of each sample, and how far they are: those of k from start[k] to start[k + 1]. */
  private readonly start: Int32Array
  private readonly next: Int32Array
  private readonly length: Float64Array
  private readonly outline: Flatbush

  constructor(
    private readonly region: Region,
    wishedPitch: number,
  ) {
    const b = regionBox(region)
    const area = (b.maxX - b.minX) * (b.maxY - b.minY)
    this.pitch = Math.max(wishedPitch, Math.sqrt(area / MOST_SAMPLES))
    const p = this.pitch
    this.minX = b.minX
    this.minY = b.minY
    this.cols = Math.max(1, Math.ceil((b.maxX - b.minX) / p))
    this.rows = Math.max(1, Math.ceil((b.maxY - b.minY) / p))
    const rings = regionRings(region)
    const corners = rings.reduce((sum, ring) => sum + ring.length / 2, 0)
    this.edges = new Float64Array(corners * 4)
    this.index = new Flatbush(Math.max(1, corners))
    let k = 0
    for (const ring of rings)
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
        this.edges.set([ax, ay, bx, by], k)
        k += 4
        this.index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))
      }
    if (corners === 0) this.index.add(0, 0, 0, 0)
    this.index.finish()

    const { inside, touched } = this.raster(rings)
    this.whole = Uint8Array.from(inside, (is, cell) => (is && !touched[cell] ? 1 : 0))
    this.clear = clearances(this.whole, this.cols, this.rows)
    const xs: number[] = []
    const ys: number[] = []
    this.sampleOf = new Int32Array(inside.length).fill(-1)
    for (let cell = 0; cell < inside.length; cell++)
      if (inside[cell]) {
        this.sampleOf[cell] = xs.length
        xs.push(this.minX + ((cell % this.cols) + 0.5) * p)
        ys.push(this.minY + (Math.floor(cell / this.cols) + 0.5) * p)
      }
    const grid = xs.length
    const links = new Links()
    for (const ring of rings) this.walk(ring, xs, ys, links)
    this.x = Float64Array.from(xs)
    this.y = Float64Array.from(ys)
    this.count = xs.length
    this.outline = new Flatbush(Math.max(1, this.count - grid))
    for (let i = grid; i < this.count; i++) this.outline.add(xs[i]!, ys[i]!, xs[i]!, ys[i]!)
    if (this.count === grid) this.outline.add(Infinity, Infinity, Infinity, Infinity)
    this.outline.finish()
    this.linkGrid(links)
    this.linkOutline(grid, links)
    const degree = new Int32Array(this.count + 1)
    for (let i = 0; i < links.count; i++) {
      degree[links.from[i]! + 1]!++
      degree[links.to[i]! + 1]!++
    }
    for (let i = 0; i < this.count; i++) degree[i + 1]! += degree[i]!
    this.start = degree
    const fill = degree.slice()
    this.next = new Int32Array(links.count * 2)
    this.length = new Float64Array(links.count * 2)
    for (let i = 0; i < links.count; i++) {
      const [a, c, mm] = [links.from[i]!, links.to[i]!, links.mm[i]!]
      this.next[fill[a]!] = c
      this.length[fill[a]!++] = mm
      this.next[fill[c]!] = a
      this.length[fill[c]!++] = mm
    }
    this.best = new Float64Array(this.count)
    this.bendX = new Float64Array(this.count)
    this.bendY = new Float64Array(this.count)
    this.bendMm = new Float64Array(this.count)
    this.seen = new Int32Array(this.count)
    this.done = new Int32Array(this.count)
    this.hoped = new Int32Array(this.count)
    this.told = new Int32Array(this.count)
    this.heap = new Heap(this.best)
  }

  /** Cells whose middle is card, by scan lines; and cells that an outline passes through. */
  private raster(rings: readonly Float64Array[]): { inside: Uint8Array; touched: Uint8Array } {
    const { cols, rows, pitch: p } = this
    const inside = new Uint8Array(cols * rows)
    const touched = new Uint8Array(cols * rows)
    const crossings: number[][] = Array.from({ length: rows }, () => [])
    const mark = (x: number, y: number) => {
      const [c, r] = [Math.floor((x - this.minX) / p), Math.floor((y - this.minY) / p)]
      if (c >= 0 && r >= 0 && c < cols && r < rows) touched[r * cols + c] = 1
    }
    for (const ring of rings)
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!]
        const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / (p / 4)))
        for (let s = 0; s <= steps; s++) mark(ax + ((bx - ax) * s) / steps, ay + ((by - ay) * s) / steps)
        const [low, high] = ay < by ? [ay, by] : [by, ay]
        const first = Math.max(0, Math.ceil((low - this.minY) / p - 0.5))
        for (let r = first; r < rows; r++) {
          const y = this.minY + (r + 0.5) * p
          if (y >= high) break
          if (y >= low) crossings[r]!.push(ax + ((y - ay) / (by - ay)) * (bx - ax))
        }
      }
    crossings.forEach((at, r) => {
      at.sort((a, c) => a - c)
      for (let n = 0; n + 1 < at.length; n += 2) {
        const from = Math.max(0, Math.ceil((at[n]! - this.minX) / p - 0.5))
        const to = Math.min(cols - 1, Math.floor((at[n + 1]! - this.minX) / p - 0.5))
        for (let c = from; c <= to; c++) inside[r * cols + c] = 1
      }
    })
    return { inside, touched }
  }

  /** Samples along an outline, each linked to the next: at its corners, and no farther apart than the pitch. */
  private walk(ring: Float64Array, xs: number[], ys: number[], links: Links): void {
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
      if (since >= this.pitch || Math.abs(turn) > SHARP) {
        xs.push(x)
        ys.push(y)
        since = 0
      }
      const parts = Math.ceil((since + length) / this.pitch) - 1
      for (let s = 1; s <= parts; s++) {
        const t = (s * this.pitch - since) / length
        if (t <= 0 || t >= 1) continue
        xs.push(x + (qx - x) * t)
        ys.push(y + (qy - y) * t)
      }
      since = parts > 0 ? since + length - parts * this.pitch : since + length
    }
    const count = xs.length - first
    // Along a bend the outline is a little longer than its chord; so little that the chord counts as card.
    for (let i = 0; i < count; i++) {
      const [a, c] = [first + i, first + ((i + 1) % count)]
      if (a !== c) links.add(a, c, Math.hypot(xs[a]! - xs[c]!, ys[a]! - ys[c]!))
    }
  }

  private linkGrid(links: Links): void {
    const { cols, rows, sampleOf, whole } = this
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < cols; c++) {
        const a = sampleOf[r * cols + c]!
        if (a < 0) continue
        for (const [dc, dr] of AHEAD) {
          const mm = dc === 0 || dr === 0 ? this.pitch : Math.SQRT2 * this.pitch
          const [tc, tr] = [c + dc, r + dr]
          if (tc < 0 || tc >= cols || tr >= rows) continue
          const to = sampleOf[tr * cols + tc]!
          if (to < 0) continue
          const clear =
            whole[r * cols + c] && whole[tr * cols + tc] && whole[r * cols + tc] && whole[tr * cols + c]
          if (clear || this.isClear(this.x[a]!, this.y[a]!, this.x[to]!, this.y[to]!)) links.add(a, to, mm)
        }
      }
  }

  private linkOutline(grid: number, links: Links): void {
    const reach = this.pitch * 1.5
    for (let i = grid; i < this.count; i++) {
      const [x, y] = [this.x[i]!, this.y[i]!]
      const [c, r] = [Math.floor((x - this.minX) / this.pitch), Math.floor((y - this.minY) / this.pitch)]
      for (let tr = Math.max(0, r - 1); tr <= Math.min(this.rows - 1, r + 1); tr++)
        for (let tc = Math.max(0, c - 1); tc <= Math.min(this.cols - 1, c + 1); tc++) {
          const to = this.sampleOf[tr * this.cols + tc]!
          if (to >= 0 && this.isClear(x, y, this.x[to]!, this.y[to]!))
            links.add(i, to, Math.hypot(x - this.x[to]!, y - this.y[to]!))
        }
      for (const near of this.outline.search(x - reach, y - reach, x + reach, y + reach)) {
        const to = near + grid
        if (to <= i + 1) continue
        const mm = Math.hypot(x - this.x[to]!, y - this.y[to]!)
        if (mm > HAIR_MM * 3 && mm <= reach && this.isClear(x, y, this.x[to]!, this.y[to]!, true))
          links.add(i, to, mm)
      }
    }
  }

  /** Whether a straight line lies in the card, by its outlines; `chord` where both ends lie on outlines. */
  private isClear(ax: number, ay: number, bx: number, by: number, chord = false): boolean {
    const mm = Math.hypot(bx - ax, by - ay)
    if (mm < HAIR_MM * 3) return true
    const [ux, uy] = [((bx - ax) / mm) * HAIR_MM, ((by - ay) / mm) * HAIR_MM]
    const [px, py, qx, qy] = [ax + ux, ay + uy, bx - ux, by - uy]
    for (const id of this.index.search(
      Math.min(px, qx),
      Math.min(py, qy),
      Math.max(px, qx),
      Math.max(py, qy),
    )) {
      const k = id * 4
      const [ex, ey, fx, fy] = [this.edges[k]!, this.edges[k + 1]!, this.edges[k + 2]!, this.edges[k + 3]!]
      const d1 = (qx - px) * (ey - py) - (qy - py) * (ex - px)
      const d2 = (qx - px) * (fy - py) - (qy - py) * (fx - px)
      const d3 = (fx - ex) * (py - ey) - (fy - ey) * (px - ex)
      const d4 = (fx - ex) * (qy - ey) - (fy - ey) * (qx - ex)
      if (d1 * d2 < 0 && d3 * d4 < 0) return false
    }
    return !chord || regionContains(this.region, (ax + bx) / 2, (ay + by) / 2)
  }

  /** Whether nothing but whole cells lies between two places: seen at once, and never wrongly. */
  private sees(ax: number, ay: number, bx: number, by: number): boolean {
    const { cols, rows, pitch: p, clear } = this
    const steps = Math.max(1, Math.ceil(Math.max(Math.abs(bx - ax), Math.abs(by - ay)) / (p * 0.5)))
    for (let s = 0; ;) {
      const c = Math.floor((ax + ((bx - ax) * s) / steps - this.minX) / p)
      const r = Math.floor((ay + ((by - ay) * s) / steps - this.minY) / p)
      if (c < 0 || r < 0 || c >= cols || r >= rows) return false
      const room = clear[r * cols + c]!
      if (room === 0) return false
      if (s === steps) return true
      // A step is half a cell: within the room around a cell nothing need be looked at.
      s = Math.min(steps, s + Math.max(1, 2 * (room - 1)))
    }
  }

  private readonly best: Float64Array
  private readonly bendX: Float64Array
  private readonly bendY: Float64Array
  private readonly bendMm: Float64Array
  private readonly seen: Int32Array
  private readonly done: Int32Array
  /** Whether a way to a sample is straight by hope alone. */
  private readonly hoped: Int32Array
  private readonly told: Int32Array
  private readonly heap: Heap
  private run = 0

  /** Samples within a reach (mm along the card) of places in the card, by their rising distance from the nearest of them. */
  around(places: readonly (readonly [number, number])[], reachMm: number): Ways {
    const run = ++this.run
    const { heap, told } = this
    heap.clear()
    let count = 0
    const offer = (to: number, mm: number, bx: number, by: number, bendMm: number) => {
      if (mm > reachMm || (this.seen[to] === run && this.best[to]! <= mm + 1e-9)) return
      this.seen[to] = run
      this.best[to] = mm
      this.bendX[to] = bx
      this.bendY[to] = by
      this.bendMm[to] = bendMm
      heap.push(to, mm)
    }
    for (const [x, y] of places)
      for (const near of this.near(x, y))
        offer(near, Math.hypot(this.x[near]! - x, this.y[near]! - y), x, y, 0)
    for (let at = heap.pop(); at >= 0; at = heap.pop()) {
      if (this.done[at] === run) continue
      // It was hoped to be seen from the last bend of the way. Where it is not, the way bends at the neighbour it came by.
      if (this.hoped[at] === run) {
        this.hoped[at] = 0
        if (!this.sees(this.bendX[at]!, this.bendY[at]!, this.x[at]!, this.y[at]!)) {
          let by = -1
          let least = Infinity
          for (let k = this.start[at]!; k < this.start[at + 1]!; k++) {
            const from = this.next[k]!
            if (this.done[from] !== run) continue
            const mm = this.best[from]! + this.length[k]!
            if (mm < least) {
              least = mm
              by = from
            }
          }
          this.seen[at] = 0
          if (by >= 0) offer(at, least, this.x[by]!, this.y[by]!, this.best[by]!)
          continue
        }
      }
      this.done[at] = run
      told[count++] = at
      const [bx, by, bendMm] = [this.bendX[at]!, this.bendY[at]!, this.bendMm[at]!]
      for (let k = this.start[at]!; k < this.start[at + 1]!; k++) {
        const to = this.next[k]!
        if (this.done[to] === run) continue
        const dx = this.x[to]! - bx
        const dy = this.y[to]! - by
        const mm = bendMm + Math.sqrt(dx * dx + dy * dy)
        if (mm > reachMm || (this.seen[to] === run && this.best[to]! <= mm + 1e-9)) continue
        offer(to, mm, bx, by, bendMm)
        this.hoped[to] = run
      }
    }
    const mm = new Float64Array(count)
    for (let k = 0; k < count; k++) mm[k] = this.best[told[k]!]!
    return { samples: told.slice(0, count), mm }
  }

  /** Samples next to a place in the card that are seen from it. */
  private near(x: number, y: number): number[] {
    const { cols, rows, pitch: p } = this
    const [c, r] = [Math.floor((x - this.minX) / p), Math.floor((y - this.minY) / p)]
    const out: number[] = []
    for (let tr = Math.max(0, r - 1); tr <= Math.min(rows - 1, r + 1); tr++)
      for (let tc = Math.max(0, c - 1); tc <= Math.min(cols - 1, c + 1); tc++) {
        const to = this.sampleOf[tr * cols + tc]!
        if (to >= 0 && this.isClear(x, y, this.x[to]!, this.y[to]!)) out.push(to)
      }
    const reach = p * 2.2
    const grid = this.count - this.outline.numItems
    for (const near of this.outline.search(x - reach, y - reach, x + reach, y + reach)) {
      const to = near + Math.max(0, grid)
      if (to < this.count && this.isClear(x, y, this.x[to]!, this.y[to]!)) out.push(to)
    }
    return out
  }
}

/** Distances of cells to the nearest that is not whole, or to the rim, by two sweeps (chessboard distance transform). */
function clearances(whole: Uint8Array, cols: number, rows: number): Uint16Array {
  const out = new Uint16Array(whole.length)
  const at = (c: number, r: number) => (c < 0 || r < 0 || c >= cols || r >= rows ? 0 : out[r * cols + c]!)
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++)
      if (whole[r * cols + c])
        out[r * cols + c] = 1 + Math.min(at(c - 1, r), at(c - 1, r - 1), at(c, r - 1), at(c + 1, r - 1))
  for (let r = rows - 1; r >= 0; r--)
    for (let c = cols - 1; c >= 0; c--) {
      const k = r * cols + c
      if (whole[k])
        out[k] = Math.min(
          out[k]!,
          1 + Math.min(at(c + 1, r), at(c + 1, r + 1), at(c, r + 1), at(c - 1, r + 1)),
        )
    }
  return out
}

/** Samples by rising distance; one may be in it several times, its last distance counts. */
class Heap {
  private items = new Int32Array(1024)
  private keys = new Float64Array(1024)
  private size = 0

  constructor(private readonly best: Float64Array) {}

  clear(): void {
    this.size = 0
  }

  push(item: number, key: number): void {
    if (this.size === this.items.length) this.grow()
    const { items, keys } = this
    let i = this.size++
    while (i > 0) {
      const up = (i - 1) >> 1
      if (keys[up]! <= key) break
      items[i] = items[up]!
      keys[i] = keys[up]!
      i = up
    }
    items[i] = item
    keys[i] = key
  }

  private grow(): void {
    const items = new Int32Array(this.size * 2)
    const keys = new Float64Array(this.size * 2)
    items.set(this.items)
    keys.set(this.keys)
    this.items = items
    this.keys = keys
  }

  /** The nearest; −1 where none is left. */
  pop(): number {
    const { items, keys } = this
    while (this.size > 0) {
      const item = items[0]!
      const key = keys[0]!
      const n = --this.size
      if (n > 0) {
        const last = items[n]!
        const lastKey = keys[n]!
        let i = 0
        for (;;) {
          let down = 2 * i + 1
          if (down >= n) break
          if (down + 1 < n && keys[down + 1]! < keys[down]!) down++
          if (keys[down]! >= lastKey) break
          items[i] = items[down]!
          keys[i] = keys[down]!
          i = down
        }
        items[i] = last
        keys[i] = lastKey
      }
      if (key <= this.best[item]! + 1e-9) return item
    }
    return -1
  }
}
