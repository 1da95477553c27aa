// Distances along card. A region is sampled by a grid and along its outlines; from a place, what is seen is as far as a straight line, and
// the shortest way to the rest is found over the samples, straightened wherever nothing but card lies between (a Dijkstra search that looks
// back to its last bend, as lazy Theta* does: Nash, Koenig and Tovey 2010). Every way it finds lies in the card: no distance is told too small.
import FlatQueue from 'flatqueue'
import type { Region } from '../../../base/geometry'
import { CardGrid } from './card-grid'
import { linkCard, samplesRound, type CardLinks } from './card-links'
import { Edges } from './edges'

/** Samples in no order, and how far each is from somewhere along the card (mm). */
export interface Ways {
  samples: Int32Array
  mm: Float64Array
}

/** Samples of outlines so near to a place are looked at one by one, in parts of the pitch. */
const NEAR = 2.2
/** A way counts as shorter by more than this, mm. */
const SHORTER_MM = 1e-9

/** Samples of a region and the ways between neighbours. All lengths in mm. */
export class CardField {
  readonly count: number
  private readonly grid: CardGrid
  private readonly edges: Edges
  private readonly links: CardLinks
  private readonly ways: WaySearch

  constructor(region: Region, wishedPitch: number) {
    this.edges = new Edges(region)
    this.grid = new CardGrid(region, wishedPitch)
    this.links = linkCard(region, this.grid, this.edges)
    this.count = this.links.x.length
    this.ways = new WaySearch(this.grid, this.links)
  }

  get x(): Float64Array {
    return this.links.x
  }

  get y(): Float64Array {
    return this.links.y
  }

  /** From sample to sample of the grid. */
  get pitch(): number {
    return this.grid.pitch
  }

  /** Samples within a reach (mm along the card) of places in the card, and how far each is from the nearest of them. */
  around(places: readonly (readonly [number, number])[], reachMm: number): Ways {
    const { ways } = this
    ways.begin(places, reachMm)
    if (places.length === 1) ways.look()
    places.forEach(([x, y], k) => {
      for (const near of this.near(x, y)) ways.offerStraight(near, k)
    })
    return ways.finish()
  }

  /** Samples next to a place in the card that are seen from it. */
  private near(x: number, y: number): number[] {
    const { grid, edges, links } = this
    const isSeen = (sample: number) =>
      edges.letsThrough({ x, y }, { x: links.x[sample]!, y: links.y[sample]! })
    const out = samplesRound(grid, links.sampleOf, [x, y]).filter(isSeen)
    const reach = grid.pitch * NEAR
    // Where room is all round no outline is near.
    if (grid.roomAt(x, y) > NEAR + 1) return out
    for (const near of links.outline.search(x - reach, y - reach, x + reach, y + reach)) {
      const sample = near + links.ofCells
      if (sample < this.count && isSeen(sample)) out.push(sample)
    }
    return out
  }
}

/** The search for the shortest ways over samples; what it works with is kept from search to search. */
class WaySearch {
  /** By sample: it lies in a whole cell. The others are seen from nowhere, and see nothing, over whole cells. */
  private readonly isOpen: Uint8Array
  /** Length of the best way to each sample so far, and where it bends last: a sample, or ~k for place k. */
  private readonly best: Float64Array
  private readonly bend: Int32Array
  /** The search in which a sample was last reached; in which its way was settled; in which its way is straight by hope alone. */
  private readonly reached: Int32Array
  private readonly settled: Int32Array
  private readonly hoped: Int32Array
  private readonly told: Int32Array
  private readonly rim: Int32Array
  private toldCount = 0
  private readonly queue = new FlatQueue()
  private search = 0
  private places: readonly (readonly [number, number])[] = []
  private reachMm = 0

  constructor(
    private readonly grid: CardGrid,
    private readonly links: CardLinks,
  ) {
    const count = links.x.length
    this.isOpen = links.isOpen
    this.best = new Float64Array(count)
    this.bend = new Int32Array(count)
    this.reached = new Int32Array(count)
    this.settled = new Int32Array(count)
    this.hoped = new Int32Array(count)
    this.told = new Int32Array(count)
    this.rim = new Int32Array(count)
  }

  begin(places: readonly (readonly [number, number])[], reachMm: number): void {
    this.search++
    this.places = places
    this.reachMm = reachMm
    this.toldCount = 0
    this.queue.clear()
  }

  /** Settles all that is seen from the only place over whole cells, straight; offers what is next to that. */
  look(): void {
    const { grid, links, reachMm } = this
    const { cols, rows, pitch, room } = grid
    const [x, y] = this.places[0]!
    const here = grid.roomAt(x, y)
    if (here === 0) return
    const [c, r] = [grid.colAt(x), grid.rowAt(y)]
    const far = Math.min(cols + rows, Math.ceil(reachMm / pitch))
    const { sampleOf } = links
    let rimCount = 0
    for (let tr = Math.max(0, r - far); tr <= Math.min(rows - 1, r + far); tr++)
      for (let tc = Math.max(0, c - far); tc <= Math.min(cols - 1, c + far); tc++) {
        const there = room[tr * cols + tc]!
        if (there === 0) continue
        const sample = sampleOf[tr * cols + tc]!
        const dx = links.x[sample]! - x
        const dy = links.y[sample]! - y
        const mm = Math.sqrt(dx * dx + dy * dy)
        if (mm > reachMm) continue
        const off = Math.max(Math.abs(tc - c), Math.abs(tr - r))
        if (off >= here + there - 1 && !grid.sees({ x, y }, { x: links.x[sample]!, y: links.y[sample]! }))
          continue
        this.best[sample] = mm
        this.settle(sample)
        // What is next to those that stand well within the room is seen too.
        if (off > here - 2) this.rim[rimCount++] = sample
      }
    for (let k = 0; k < rimCount; k++) this.offerNeighbours(this.rim[k]!)
  }

  /** Neighbours of a sample that are not settled are reached by way of it. */
  private offerNeighbours(from: number): void {
    const { settled, search } = this
    const { start, next, mm } = this.links
    const far = this.best[from]!
    const end = start[from + 1]!
    for (let k = start[from]!; k < end; k++)
      if (settled[next[k]!] !== search) this.offer(next[k]!, far + mm[k]!, from)
  }

  /** A sample that is seen from a place itself. */
  offerStraight(sample: number, place: number): void {
    if (this.settled[sample] === this.search) return
    const [x, y] = this.places[place]!
    this.offer(sample, Math.hypot(this.links.x[sample]! - x, this.links.y[sample]! - y), ~place)
  }

  private settle(sample: number): void {
    this.settled[sample] = this.search
    this.told[this.toldCount++] = sample
  }

  private offer(to: number, mm: number, bend: number): boolean {
    if (mm > this.reachMm) return false
    if (this.reached[to] === this.search && this.best[to]! <= mm + SHORTER_MM) return false
    this.reached[to] = this.search
    this.best[to] = mm
    this.bend[to] = bend
    this.hoped[to] = 0
    this.queue.push(to, mm)
    return true
  }

  /** All ways, the shortest first, until none is left within reach. */
  finish(): Ways {
    const { queue, search, best, bend, settled, hoped, isOpen, places, grid } = this
    const { x, y, start, next, mm } = this.links
    while (queue.length > 0) {
      const key = queue.peekValue()!
      const at = queue.pop()!
      if (settled[at] === search || key > best[at]! + SHORTER_MM) continue
      const from = bend[at]!
      const fromX = from < 0 ? places[~from]![0] : x[from]!
      const fromY = from < 0 ? places[~from]![1] : y[from]!
      // It was hoped to be seen from the last bend of the way. Where it is not, the way bends at the neighbour it came by.
      if (hoped[at] === search && !grid.sees({ x: fromX, y: fromY }, { x: x[at]!, y: y[at]! })) {
        this.offerByNeighbour(at)
        continue
      }
      this.settle(at)
      const fromMm = from < 0 ? 0 : best[from]!
      const seesOn = from < 0 || isOpen[from]
      for (let k = start[at]!; k < start[at + 1]!; k++) {
        const to = next[k]!
        if (settled[to] === search) continue
        if (!seesOn || !isOpen[to]) {
          this.offer(to, best[at]! + mm[k]!, at)
          continue
        }
        const dx = x[to]! - fromX
        const dy = y[to]! - fromY
        if (this.offer(to, fromMm + Math.sqrt(dx * dx + dy * dy), from)) hoped[to] = search
      }
    }
    const samples = this.told.slice(0, this.toldCount)
    const far = new Float64Array(samples.length)
    for (let k = 0; k < samples.length; k++) far[k] = best[samples[k]!]!
    return { samples, mm: far }
  }

  /** Offers a sample anew by the settled neighbour that it is nearest by. */
  private offerByNeighbour(at: number): void {
    const { start, next, mm } = this.links
    let by = -1
    let least = Infinity
    for (let k = start[at]!; k < start[at + 1]!; k++) {
      const from = next[k]!
      if (this.settled[from] !== this.search) continue
      const way = this.best[from]! + mm[k]!
      if (way < least) {
        least = way
        by = from
      }
    }
    this.reached[at] = 0
    this.hoped[at] = 0
    if (by >= 0) this.offer(at, least, by)
  }
}
