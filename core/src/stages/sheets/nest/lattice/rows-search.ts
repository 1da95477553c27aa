// The rows that take most copies of a shape on a sheet: turns and designs are looked at roughly, the best of them ever finer.
import {
  boxHeight,
  boxWidth,
  cornersOf,
  offset,
  polygonArea,
  polygonBox,
  simplify,
  type Box,
  type Polygon,
} from '../../../../base/geometry'
import type { NestPiece } from '../instance'
import { turnsOf } from '../orientations'
import type { Parts } from '../parts'
import { filled, leastOf } from './fill'
import { closed, Turned, type Design, type Rows } from './rows'

/** Turns of a piece that may be turned at will are looked at this far apart, degrees. */
const TURN_STEP = 3.75
/** By how much the other of two lies lower: so many steps of the shape's height up and down. */
const LOWER_STEPS = 12
/** Strips across a shape, at first and when designs are refined. */
const STRIPS = { rough: 48, fine: 240 }
/** A shape grown by half the gap has no more corners than it needs for a precision of so many parts of its size. */
const PLAIN_PARTS = 400
/** Of all designs the densest so many, none more than so much less dense than the best, are filled into the sheet; so many of these are refined. */
const FILLED = { most: 200, least: 0.92 }
const REFINED = 24
/** A design is refined in so many rounds, by half as much in each. */
const ROUNDS = 5
/** Density counts a little where designs come to the same. */
const DENSITY_WORTH = 0.03
/** What profiles come to for each corner, rows for each strip, places for each copy, and exact distances for each corner, in parts of work. */
const WORK = { corner: 0.15, strip: 0.5, copy: 0.5, exact: 30 }

/** What is laid in rows: a shape, the same with no more corners than it needs, and how far copies of that keep from each other (mm). */
export interface Copied extends Pick<NestPiece, 'shape' | 'turns'> {
  plain: Polygon
  apart: number
}

/** What is sought: room for so many copies on sheets of which a rectangle is free. */
export interface Wanted {
  many: number
  within: Box
}

/** A design, its rows as profiles have them, and how much of the card is used there. */
interface Designed {
  design: Design
  rows: Rows
  density: number
}

/** The same with what it comes to: sheets, less a little for dense ones. */
interface Judged extends Designed {
  value: number
}

/** Rows of copies, exactly as far apart as they must be, that take many on little of sheets: the best first. Needs the geometry loaded. */
export function* rowsOf(copied: Copied, wanted: Wanted): Parts<Rows[]> {
  const { plain, apart } = copied
  const grown = offset([plain], apart / 2, 'round')[0]
  const rough = grown && simplify([grown], sizeOf(grown) / PLAIN_PARTS)[0]
  if (!rough) return []
  const designs = new Designs(copied, rough)
  const judged: Judged[] = []
  for (const one of yield* designs.densest()) judged.push(yield* judge(one, wanted))
  judged.sort((a, b) => a.value - b.value)
  const exact: { rows: Rows; value: number }[] = []
  for (const one of judged.slice(0, REFINED)) {
    const { rows } = yield* refined(one, designs, wanted)
    yield WORK.exact * cornersOf(plain)
    const close = closed(rows, plain, apart)
    exact.push({ rows: close, value: yield* sheetsFor(close, wanted) })
  }
  return exact.sort((a, b) => a.value - b.value).map(({ rows }) => rows)
}

/** The designs of a shape. */
class Designs {
  readonly isTurnable: boolean
  private readonly size: number
  private readonly area: number

  constructor(
    private readonly copied: Copied,
    private readonly grown: Polygon,
  ) {
    this.isTurnable = copied.turns === 'free'
    this.size = sizeOf(grown)
    this.area = polygonArea({ outer: copied.shape.outer, holes: [] })
  }

  /** How finely `lower` is looked at first, mm. */
  lowerStep({ turn }: Design): number {
    return this.turned(turn, STRIPS.rough).height / LOWER_STEPS
  }

  /** Of the designs at all turns, roughly, the densest. */
  *densest(): Parts<Designed[]> {
    const out: Designed[] = []
    let most = 0
    for (const turn of turnsToTry(this.copied)) {
      const at = this.turned(turn, STRIPS.rough)
      for (const lower of this.copied.turns === 'fixed' ? [null] : [null, ...lowers(at.height)]) {
        yield this.work(STRIPS.rough)
        const found = this.designed({ turn, lower }, at, this.area / (FILLED.least * most))
        if (!found) continue
        out.push(found)
        most = Math.max(most, found.density)
      }
    }
    return out
      .filter(({ density }) => density >= FILLED.least * most)
      .sort((a, b) => b.density - a.density)
      .slice(0, FILLED.most)
  }

  /** A design looked at finely; null where its copies would pass each other. */
  *finely(design: Design): Parts<Designed | null> {
    yield this.work(STRIPS.fine)
    return this.designed(design, this.turned(design.turn, STRIPS.fine), Infinity)
  }

  private designed(design: Design, at: Turned, mostArea: number): Designed | null {
    const rows = at.rows(design.lower, mostArea)
    if (!rows) return null
    return { design, rows, density: (rows.members.length * this.area) / (rows.period * rows.pitch) }
  }

  private turned(turn: number, strips: number): Turned {
    return new Turned({ shape: this.copied.shape, grown: this.grown }, turn, this.size / strips)
  }

  private work(strips: number): number {
    return WORK.corner * cornersOf(this.grown) + WORK.strip * strips
  }
}

/** The best design near one: turned and lowered a little, ever less. */
function* refined(one: Designed, designs: Designs, wanted: Wanted): Parts<Judged> {
  const first = yield* designs.finely(one.design)
  let best = yield* judge(first ?? one, wanted)
  let [turnBy, lowerBy] = [TURN_STEP / 2, designs.lowerStep(one.design) / 2]
  for (let round = 0; round < ROUNDS; round++) {
    const { turn, lower } = best.design
    const near: Design[] = []
    for (const sign of [-1, 1]) {
      if (designs.isTurnable) near.push({ turn: turn + sign * turnBy, lower })
      if (lower !== null) near.push({ turn, lower: lower + sign * lowerBy })
    }
    for (const design of near) {
      const found = yield* designs.finely(design)
      const judged = found && (yield* judge(found, wanted))
      if (judged && judged.value < best.value - 1e-9) best = judged
    }
    ;[turnBy, lowerBy] = [turnBy / 2, lowerBy / 2]
  }
  return best
}

function* judge(one: Designed, wanted: Wanted): Parts<Judged> {
  return { ...one, value: (yield* sheetsFor(one.rows, wanted)) - DENSITY_WORTH * one.density }
}

/** Sheets that so many copies in these rows take; Infinity where none lies in a sheet. */
function* sheetsFor(rows: Rows, { many, within }: Wanted): Parts<number> {
  const spots = filled(rows, within)
  yield WORK.copy * spots.length
  if (spots.length === 0) return Infinity
  const full = Math.ceil(many / spots.length) - 1
  return full + leastOf(spots, { many: many - full * spots.length, within, ways: 'both' }).share
}

function sizeOf(shape: Polygon): number {
  const box = polygonBox(shape)
  return Math.max(boxWidth(box), boxHeight(box))
}

/** Turns of a piece that are not the same by half a turn, degrees. */
function turnsToTry(copied: Copied): number[] {
  if (copied.turns === 'fixed') return [0]
  if (copied.turns === 'quarter') return [0, 90]
  const even = Array.from({ length: 180 / TURN_STEP }, (_, k) => k * TURN_STEP)
  return [...new Set([...even, ...turnsOf(copied).map((turn) => turn % 180)])]
}

const lowers = (height: number): number[] =>
  Array.from({ length: 2 * LOWER_STEPS - 1 }, (_, k) => ((k + 1 - LOWER_STEPS) / LOWER_STEPS) * height)
