// Filling one sheet with boxes by a beam: at each lowest segment several boxes are tried in every one of some layouts under
// way, each is judged by what a plain filling would make of it, and the best go on. Comes far closer than orders alone
// where sheets are to be filled to the last corner.
import type { Parts } from '../parts'
import { BestFit, Niche, type BoxSizes } from './best-fit'
import { HAIR, Skyline } from './skyline'

/** Layouts that go on from a segment to the next, and boxes that are tried in each. */
const BEAM = 24
const TRIED = 9
/** What is left counts as a strip while it is less than this share of a sheet. */
const STRIP_SHARE = 0.25

/** A box by its place in the rest, and its side. */
interface Pick {
  index: number
  side: number
}

/** A layout under way. */
class State {
  readonly skyline: Skyline
  /** What is not laid yet: the first `left` of them. */
  readonly rest: Int32Array
  left = 0
  area = 0
  /** Sides in the order in which they were laid. */
  readonly trail: Int32Array
  laid = 0

  constructor(boxes: number) {
    this.skyline = new Skyline(boxes)
    this.rest = new Int32Array(boxes)
    this.trail = new Int32Array(boxes)
  }

  copy(other: State): void {
    this.skyline.copy(other.skyline)
    this.left = other.left
    for (let i = 0; i < other.left; i++) this.rest[i] = other.rest[i]!
    this.area = other.area
    this.laid = other.laid
    for (let i = 0; i < other.laid; i++) this.trail[i] = other.trail[i]!
  }

  /** Lays a side of the box at an index of the rest into a segment. */
  put(
    { index, side }: Pick,
    { segment, atRight }: { segment: number; atRight: boolean },
    { widths, heights, areas }: BoxSizes,
  ): void {
    const { rest, skyline } = this
    const box = rest[index]!
    this.left--
    for (let i = index; i < this.left; i++) rest[i] = rest[i + 1]!
    this.area += areas[box]!
    this.trail[this.laid++] = side
    skyline.raise(segment, { w: widths[side]!, top: skyline.ys[segment]! + heights[side]!, atRight })
  }
}

interface Candidate {
  from: State
  index: number
  side: number
  segment: number
  atRight: boolean
  value: number
}

/** Where a box came to lie. */
export interface BoxSpot {
  side: number
  x: number
  y: number
}

/** Fills one sheet, segment by segment, several layouts at a time (beam search). */
export class SheetFill {
  /** Least of any filling: what is left by area, and as a strip, in shares of the sheet. */
  value = Infinity
  private best: State | null = null
  private readonly allArea: number
  private beam: State[]
  private readonly scratch: State
  private readonly spare: State[] = []
  private readonly niche = new Niche()
  private readonly bestFit: BestFit
  /** Of each kind of sides the last niche for which one was an option. */
  private readonly seenFor: Int32Array
  private niches = 0
  private readonly w: number
  private readonly h: number
  private readonly random: () => number

  /** @param boxes boxes to choose from; @param w sheet in mm with one gap more than its cuttable width, as the boxes have */
  constructor(
    private readonly sizes: BoxSizes,
    private readonly boxes: readonly number[],
    { w, h, random }: { w: number; h: number; random: () => number },
  ) {
    this.w = w
    this.h = h
    this.random = random
    this.allArea = boxes.reduce((sum, box) => sum + sizes.areas[box]!, 0)
    // Large ones first, roughly: another order in every run leads to other fillings.
    const weight = new Map(boxes.map((box) => [box, sizes.areas[box]! * (0.6 + 0.8 * random())]))
    const start = new State(this.boxes.length)
    start.skyline.clear(w)
    start.rest.set([...boxes].sort((a, b) => weight.get(b)! - weight.get(a)!))
    start.left = boxes.length
    this.beam = [start]
    this.scratch = new State(this.boxes.length)
    this.bestFit = new BestFit(sizes)
    this.seenFor = new Int32Array(sizes.kinds.length)
  }

  /** Goes on to the next segment in all layouts under way; false once there is nothing to go on with. */
  *level(): Parts<boolean> {
    if (this.value === 0) return false
    const candidates: Candidate[] = []
    for (const from of this.beam) yield* this.tryBoxes(from, candidates)
    candidates.sort((a, b) => a.value - b.value)
    const next: State[] = []
    const seen = new Set<string>()
    for (const { from, index, side, segment, atRight } of candidates) {
      const area = from.area + this.sizes.areas[side >> 1]!
      // Layouts of the same boxes are mostly the same layout in another order.
      const key = `${area.toFixed(3)} ${from.skyline.count}`
      if (seen.has(key)) continue
      seen.add(key)
      const state = this.spare.pop() ?? new State(this.boxes.length)
      state.copy(from)
      state.put({ index, side }, { segment, atRight }, this.sizes)
      next.push(state)
      if (next.length >= BEAM) break
    }
    this.spare.push(...this.beam)
    this.beam = next
    return next.length > 0
  }

  /** The best filling, and the boxes that it leaves. */
  result(): { spots: BoxSpot[]; left: number[] } {
    const { best } = this
    if (!best) return { spots: [], left: [...this.boxes] }
    const spots: BoxSpot[] = []
    const { niche } = this
    const skyline = new Skyline(this.boxes.length)
    skyline.clear(this.w)
    for (let i = 0; i < best.laid; i++) {
      const side = best.trail[i]!
      const [w, h] = [this.sizes.widths[side]!, this.sizes.heights[side]!]
      let segment = skyline.lowest()
      // Niches that were passed over are those that this box does not fit: every one that was left was left for all.
      while (w > skyline.ws[segment]! + HAIR || h > this.h - skyline.ys[segment]! + HAIR) {
        skyline.fill(segment)
        segment = skyline.lowest()
      }
      niche.read(skyline, segment, this.h)
      const { x, y, wide, atRight } = niche
      spots.push({ side, x: atRight ? x + wide - w : x, y })
      skyline.raise(segment, { w, top: y + h, atRight })
    }
    return { spots, left: [...best.rest.subarray(0, best.left)] }
  }

  /** The boxes that go best into the next segment of a layout, each judged. */
  private *tryBoxes(from: State, out: Candidate[]): Parts<void> {
    const { skyline } = from
    let segment = skyline.lowest()
    let options = this.optionsFor(from, segment)
    while (options.length === 0 && skyline.fill(segment)) {
      segment = skyline.lowest()
      options = this.optionsFor(from, segment)
    }
    options.sort((a, b) => b.rank - a.rank)
    // Read where the options were looked for.
    const { atRight } = this.niche
    for (const { index, side } of options.slice(0, TRIED)) {
      this.scratch.copy(from)
      this.scratch.put({ index, side }, { segment, atRight }, this.sizes)
      const value = this.judge(this.scratch)
      out.push({ from, index, side, segment, atRight, value })
      if (value < this.value) {
        this.value = value
        this.best ??= new State(this.boxes.length)
        this.best.copy(this.scratch)
      }
      yield this.bestFit.takeCost()
    }
  }

  /** The sides that go into a segment, one of each kind, and how promising each is. */
  private optionsFor(
    { skyline, rest, left }: State,
    segment: number,
  ): { index: number; side: number; rank: number }[] {
    const { niche, sizes, seenFor } = this
    niche.read(skyline, segment, this.h)
    this.niches++
    const options: { index: number; side: number; rank: number }[] = []
    for (let index = 0; index < left; index++)
      for (let u = 0; u < 2; u++) {
        const side = rest[index]! * 2 + u
        const kind = sizes.kinds[side]!
        if (seenFor[kind] === this.niches) continue
        seenFor[kind] = this.niches
        const fit = niche.fit(sizes.widths[side]!, sizes.heights[side]!)
        if (fit < 0) continue
        const share = sizes.areas[rest[index]!]! / (this.w * this.h)
        options.push({ index, side, rank: fit + 4 * share + 0.5 * this.random() })
      }
    return options
  }

  /** Fills a layout up, the best fit first, and tells what is left. */
  private judge(state: State): number {
    const { skyline, rest } = state
    const { niche, bestFit } = this
    while (state.left > 0) {
      const segment = skyline.lowest()
      niche.read(skyline, segment, this.h)
      bestFit.find(niche, { rest, left: state.left })
      if (bestFit.index >= 0) state.put(bestFit, { segment, atRight: niche.atRight }, this.sizes)
      else if (!skyline.fill(segment)) break
    }
    let thick = 0
    for (let i = 0; i < state.left; i++)
      thick = Math.max(thick, Math.min(this.sizes.widths[rest[i]! * 2]!, this.sizes.heights[rest[i]! * 2]!))
    const share = (this.allArea - state.area) / (this.w * this.h)
    // Little that is left is best as thin as may be.
    return share + (thick / this.h) * Math.max(0, 1 - share / STRIP_SHARE)
  }
}
