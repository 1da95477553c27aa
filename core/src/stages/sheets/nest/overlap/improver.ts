// Makes a good layout better: it takes a little card away from the last sheet, or the last sheet altogether, and lets the
// separator look for a way to lie in what is left.
import { polygonArea } from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { InParts, type Parts } from '../parts'
import type { Way } from '../way'
import { offCutRoom, type Room } from './room'
import { Separator } from './separator'
import { summarise } from '../summary'

/** Share of a sheet that is taken away at first and at least. */
const FIRST_BITE = 0.06
/** The same once every way has been given up: large bites are hopeless by then. */
const LATER_BITE = 0.02
const MOST_BITE = 0.1
const LEAST_BITE = 0.004
/** Sweeps without a new low after which an attempt is given up, and sweeps that it may last at most. */
const PATIENCE = 60
const LONGEST = 300
/** In that time it goes back to its lowest and on from there so often, with what overlaps weighed anew: else it strays ever farther. */
const STRIKES = 3
/** An attempt whose overlaps add up to more than so many sides of a middling piece after so many sweeps hardly ever comes to anything. */
const HOPELESS = { sides: 1.5, sweeps: 15 }
/** Of many pieces every sweep takes longer: patience is shorter then, by so many moves. */
const PATIENT_MOVES = 2000
/** Card is taken from the end of the last sheet, from its side, or the last sheet is given up. */
const WAYS = ['rows', 'columns', 'fewer'] as const
/** More pieces than this are left to the search over orders. */
const MOST_PIECES = 600

/** A sweep, and where nothing overlaps any longer, placements that are proved; null where there are none. */
function* sweepAndProve(separator: Separator): Parts<Placement[] | null> {
  yield* separator.sweep()
  return separator.total === 0 ? yield* separator.proved() : null
}

/** Betters a layout in bites, by the separator. */
export class Improver implements Way {
  /** Made in the first steps. */
  private separator: Separator | null = null
  private readonly making: InParts<Separator>
  private sweep: InParts<Placement[] | null> | null = null
  /** Of all pieces, mm². */
  private readonly area: number
  private bite = FIRST_BITE
  private way: (typeof WAYS)[number] = 'rows'
  private readonly offCuts: Room[]
  private readonly offCutArea: number
  private running = false

  /** Between two attempts. */
  get rests(): boolean {
    return !this.running
  }

  /** Sweeps without a new low until it goes back to the lowest. */
  private readonly strike: number
  /** Of a square as large as a middling piece, mm. */
  private readonly side: number
  private lowest = Infinity
  private since = 0
  private strikes = 0
  private sweeps = 0
  /** The layout that the attempt under way started from. */
  private from: NestLayout | null = null

  constructor(
    private readonly instance: NestInstance,
    random: () => number,
  ) {
    this.making = new InParts(Separator.of(instance, random))
    const count = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
    const patience = Math.max(15, Math.min(PATIENCE, Math.round(PATIENT_MOVES / count)))
    this.strike = Math.round(patience / STRIKES)
    this.offCuts = (instance.offCuts ?? []).map(offCutRoom).filter((room) => room !== null)
    this.offCutArea = (instance.offCuts ?? []).reduce((sum, { outline }) => sum + polygonArea(outline), 0)
    this.area = instance.pieces.reduce((sum, piece) => sum + piece.qty * polygonArea(piece.shape), 0)
    this.side = Math.sqrt(this.area / count)
  }

  static suits(instance: NestInstance): boolean {
    const count = instance.pieces.reduce((sum, piece) => sum + piece.qty, 0)
    return count > 1 && count <= MOST_PIECES
  }

  get underWay(): boolean {
    return !this.separator || this.sweep !== null
  }

  /** One sweep, or a part of it. Gives a legal layout where one was found that is better than `best`. */
  step(best: NestLayout): NestLayout | null {
    this.separator ??= this.making.step()?.value ?? null
    const { separator } = this
    if (!separator) return null
    if (!this.running || this.from !== best) this.begin(separator, best)
    if (!this.running) return null
    this.sweep ??= new InParts(sweepAndProve(separator))
    const swept = this.sweep.step()
    if (!swept) return null
    this.sweep = null
    this.sweeps++
    if (swept.value) {
      const layout = summarise(this.instance, swept.value)
      if (layout.score < best.score) {
        this.running = false
        this.bite = Math.min(MOST_BITE, this.bite * 1.4)
        return layout
      }
    }
    this.weigh(separator)
    return null
  }

  /** Notes how a sweep went; goes back to the lowest, or gives up, where nothing comes of them. */
  private weigh(separator: Separator): void {
    if (separator.total < this.lowest) {
      separator.note()
      if (separator.total < this.lowest * 0.98) {
        this.since = 0
        this.strikes = 0
      }
      this.lowest = separator.total
    } else this.since++
    if (this.since > this.strike) {
      this.strikes++
      this.since = 0
      if (this.strikes < STRIKES) separator.putBack()
    }
    if (this.strikes >= STRIKES || this.sweeps > LONGEST || this.isHopeless()) this.giveUp()
  }

  private isHopeless(): boolean {
    return this.sweeps >= HOPELESS.sweeps && this.lowest > HOPELESS.sides * this.side
  }

  private giveUp(): void {
    this.running = false
    this.bite *= 0.5
    if (this.bite >= LEAST_BITE && this.way !== 'fewer') return
    this.bite = LATER_BITE
    this.way = WAYS[(WAYS.indexOf(this.way) + 1) % WAYS.length]!
  }

  private begin(separator: Separator, best: NestLayout): void {
    this.sweep = null
    const rooms = this.roomsFor(best.score)
    this.from = best
    this.lowest = Infinity
    this.since = 0
    this.strikes = 0
    this.sweeps = 0
    this.running = rooms !== null && separator.start(best.placements, rooms)
    if (!this.running) this.giveUp()
  }

  /** Rooms in which any layout is better than `score` by the bite; null where what is pinned does not let them be. */
  private roomsFor(score: number): Room[] | null {
    const { w, h, margin } = this.instance.sheet
    const fewer = Math.ceil(score - 1e-9) - 1
    const least = this.offCuts.length > 0 ? 0 : 1
    if (
      this.way === 'fewer' &&
      (fewer < least || this.area > fewer * (w - 2 * margin) * (h - 2 * margin) + this.offCutArea)
    )
      return null
    const goal = this.way === 'fewer' ? fewer : score - Math.min(this.bite, score / 3)
    const sheets = this.way === 'fewer' ? fewer : Math.max(1, Math.ceil(goal - 1e-9))
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
    if (last && this.way === 'columns') last.maxX = margin + (w - 2 * margin) * share
    else if (last) last.maxY = margin + (h - 2 * margin) * share
    const pinned = this.instance.pinned ?? []
    if (pinned.some((pin) => pin.sheet >= sheets)) return null
    return [...this.offCuts, ...whole]
  }
}
