// Makes a good layout better: it takes a little card away from the last sheet, or the last sheet altogether, and lets the
// separator look for a way to lie in what is left.
import { polygonArea } from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { Attempt, type Measures } from './attempt'
import { InParts, type Parts } from '../parts'
import type { Way } from '../way'
import { offCutRoom, type Room } from './room'
import { Separator } from './separator'
import { summarise } from '../summary'
import { Tries, type Cut } from './tries'

/** More pieces than this are left to the search over orders. */
const MOST_PIECES = 600
/** An attempt that failed by no more than so many sides of a middling piece is led back to where there is room for it. */
const NEAR_SIDES = 0.7
/** Where every bite has failed, every other attempt begins with so many pieces beside each other thrown anywhere. */
const THROWN = { every: 2, least: 2, most: 3 }
/** By how much a layout may come out larger than the room that it was led back to. */
const SAME = 0.001

/** A sweep, and where nothing overlaps any longer, placements that are proved; null where there are none. */
function* sweepAndProve(separator: Separator): Parts<Placement[] | null> {
  yield* separator.sweep()
  return separator.total === 0 ? yield* separator.proved() : null
}

/**
 * Betters a layout in bites, by the separator. Where every bite has failed, an attempt that came near is given its room back: in one of four
 * that leads to another layout just as good, and the next bites are tried on it. They succeed twice as often as more of them on the same.
 */
export class Improver implements Way {
  /** Made in the first steps. */
  private separator: Separator | null = null
  private readonly making: InParts<Separator>
  private sweep: InParts<Placement[] | null> | null = null
  /** Of all pieces, mm². */
  private readonly area: number
  private readonly offCuts: Room[]
  private readonly offCutArea: number
  private readonly measures: Measures

  private readonly tries = new Tries()
  private attempt: Attempt | null = null
  /** What the attempt under way must come out better than. */
  private best: NestLayout | null = null
  /** Where attempts begin: the best layout, or another that is as good. */
  private base: NestLayout | null = null
  /** How the attempt that failed last took card away, where it came near. */
  private near: Cut | null = null
  /** The attempt under way leads one back that came near. */
  private leadsBack = false
  /** Attempts that were begun where every bite had failed. */
  private begun = 0

  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
  ) {
    this.making = new InParts(Separator.of(instance, random))
    const count = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
    this.offCuts = (instance.offCuts ?? []).map(offCutRoom).filter((room) => room !== null)
    this.offCutArea = (instance.offCuts ?? []).reduce((sum, { outline }) => sum + polygonArea(outline), 0)
    this.area = instance.pieces.reduce((sum, piece) => sum + piece.qty * polygonArea(piece.shape), 0)
    this.measures = { count, side: Math.sqrt(this.area / count) }
  }

  static suits(instance: NestInstance): boolean {
    const count = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
    return count > 1 && count <= MOST_PIECES
  }

  /** Between two attempts. */
  get rests(): boolean {
    return this.attempt === null
  }

  /** Every bite has failed on what it goes on from. */
  get isStuck(): boolean {
    return this.tries.isStuck
  }

  get underWay(): boolean {
    return !this.separator || this.sweep !== null
  }

  /** One sweep, or a part of it. Gives a legal layout where one was found that is better than `best`. */
  step(best: NestLayout): NestLayout | null {
    this.separator ??= this.making.step()?.value ?? null
    const { separator } = this
    if (!separator) return null
    if (best !== this.best) this.turnTo(best)
    this.attempt ??= this.near ? this.leadBack(separator, best, this.near) : this.begin(separator, best)
    if (!this.attempt) return null
    this.sweep ??= new InParts(sweepAndProve(separator))
    const swept = this.sweep.step()
    if (!swept) return null
    this.sweep = null
    const layout = swept.value && summarise(this.instance, swept.value)
    if (layout && layout.score < best.score) {
      this.attempt = null
      this.tries.succeeded()
      return layout
    }
    if (layout && this.leadsBack && layout.score < best.score + SAME) {
      this.attempt = null
      this.base = layout
    } else if (!this.attempt.goesOn(separator)) this.giveUp(this.attempt.lowest)
    return null
  }

  /** Leaves all that was begun for another layout that is the best now. */
  private turnTo(best: NestLayout): void {
    this.best = this.base = best
    this.tries.onAnother()
    this.attempt = this.sweep = this.near = null
  }

  /** The next attempt from the layout that is built on; null where there is no room for it. */
  private begin(separator: Separator, { score }: NestLayout): Attempt | null {
    const { way, bite } = this.tries
    const rooms = this.roomsFor(score, way, bite)
    this.leadsBack = false
    const settles = way === 'fewer'
    if (rooms && separator.start(this.base!.placements, rooms, { settles, thrown: this.thrown() }))
      return new Attempt(this.measures, settles)
    this.giveUp(Infinity)
    return null
  }

  /** How many pieces the next attempt throws. */
  private thrown(): number {
    const { way, isStuck } = this.tries
    if (!isStuck || way === 'fewer' || this.begun++ % THROWN.every > 0) return 0
    return THROWN.least + Math.floor(this.random() * (THROWN.most - THROWN.least + 1))
  }

  /** Goes on from the lowest of an attempt that came near, with the card that it had taken away. */
  private leadBack(separator: Separator, { score }: NestLayout, way: Cut): Attempt {
    separator.widen(this.roomsFor(score, way, 0)!)
    this.near = null
    this.leadsBack = true
    return new Attempt(this.measures)
  }

  private giveUp(lowest: number): void {
    this.attempt = null
    if (this.leadsBack) return
    const { way, isStuck } = this.tries
    if (isStuck && way !== 'fewer' && lowest < NEAR_SIDES * this.measures.side) this.near = way
    this.tries.failed()
  }

  /** Rooms in which any layout is better than `score` by the bite; null where there are none, or what is pinned does not let them be. */
  private roomsFor(score: number, way: Cut, bite: number): Room[] | null {
    const { w, h, margin } = this.instance.sheet
    const fewer = Math.ceil(score - 1e-9) - 1
    const least = this.offCuts.length > 0 ? 0 : 1
    if (
      way === 'fewer' &&
      (fewer < least || this.area > fewer * (w - 2 * margin) * (h - 2 * margin) + this.offCutArea)
    )
      return null
    const goal = way === 'fewer' ? fewer : score - Math.min(bite, score / 3)
    const sheets = way === 'fewer' ? fewer : Math.max(1, Math.ceil(goal - 1e-9))
    const share = goal - (sheets - 1)
    const whole = Array.from({ length: sheets }, (_, sheet): Room => ({
      sheet,
      minX: margin,
      minY: margin,
      maxX: w - margin,
      maxY: h - margin,
      walls: [],
    }))
    const last = whole.at(-1)
    if (last && way === 'columns') last.maxX = margin + (w - 2 * margin) * share
    else if (last) last.maxY = margin + (h - 2 * margin) * share
    const pinned = this.instance.pinned ?? []
    if (pinned.some((pin) => pin.sheet >= sheets)) return null
    return [...this.offCuts, ...whole]
  }
}
