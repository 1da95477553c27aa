// How an attempt at parting what overlaps goes, sweep by sweep, and when it is over.
import type { Separator } from './separator'

/** Sweeps without a new low after which an attempt is given up, and sweeps that it may last at most. */
const PATIENCE = 60
const LONGEST = 300
/** In that time it goes back to its lowest and on from there so often, with what overlaps weighed anew: else it strays ever farther. */
const STRIKES = 3
/** Of many pieces every sweep takes longer: patience is shorter then, by so many moves. */
const PATIENT_MOVES = 2000
/** What is no new low by so much is hardly one. */
const LOWER = 0.98
/**
 * An attempt whose overlaps add up to more than so many sides of a middling piece after so many sweeps hardly ever comes to anything: of 270 that
 * did none had more, of 2,800 that did not two thirds.
 */
const HOPELESS = [
  { sweeps: 3, sides: 4 },
  { sweeps: 6, sides: 3.3 },
  { sweeps: 10, sides: 2.3 },
  { sweeps: 15, sides: 1.5 },
] as const
/** By then what was thrown anywhere has settled. */
const SETTLED = 15
/** More pieces than this take longer to settle, and add up to more. */
const SOME_PIECES = 60

/** What attempts at an instance are measured by. */
export interface Measures {
  count: number
  /** Of a square as large as a middling piece, mm. */
  side: number
}

/** One attempt at parting what overlaps. */
export class Attempt {
  /** Least sum of overlaps so far, mm. */
  lowest = Infinity
  private sweeps = 0
  private since = 0
  private strikes = 0
  /** Sweeps without a new low until it goes back to the lowest. */
  private readonly strike: number
  private readonly limits: readonly { sweeps: number; most: number }[]

  /** @param settles whether a sheet was given up, all that lay on which has to find a place first */
  constructor({ count, side }: Measures, settles = false) {
    const patience = Math.max(15, Math.min(PATIENCE, Math.round(PATIENT_MOVES / count)))
    this.strike = Math.round(patience / STRIKES)
    const many = Math.max(1, count / SOME_PIECES)
    this.limits = HOPELESS.filter(({ sweeps }) => !settles || sweeps >= SETTLED).map(({ sweeps, sides }) => ({
      sweeps,
      most: sides * side * (sweeps >= SETTLED ? 1 : many),
    }))
  }

  /** Notes how a sweep went, and goes back to the lowest where nothing comes of the last ones. False where it is over. */
  goesOn(separator: Separator): boolean {
    this.sweeps++
    const { total } = separator
    if (total < this.lowest) {
      separator.note()
      if (total < this.lowest * LOWER) this.since = this.strikes = 0
      this.lowest = total
    } else this.since++
    if (this.since > this.strike) {
      this.strikes++
      this.since = 0
      if (this.strikes < STRIKES) separator.putBack()
    }
    return this.strikes < STRIKES && this.sweeps <= LONGEST && !this.isHopeless()
  }

  private isHopeless(): boolean {
    return this.limits.some(({ sweeps, most }) => this.sweeps >= sweeps && this.lowest > most)
  }
}
