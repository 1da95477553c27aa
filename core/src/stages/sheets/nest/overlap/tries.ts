// What is tried next on a layout: how much card is taken away, and from where.

/** Share of a sheet that is taken away at first, and at most. */
const FIRST_BITE = 0.06
const MOST_BITE = 0.1
/** A success asks for more the next time, a failure for less, down to where all has been tried once. */
const MORE = 1.4
const LESS = 0.5
const LEAST_BITE = 0.004
/**
 * Then one after the other, for as long as the layout stays the best: of 300 attempts with 2 % one came to something, of 100 with 1 % one,
 * of 30 with 0.5 % one, and each that does leads to more. A sheet less saves more than all of them.
 */
const THEN: readonly (readonly [Cut, readonly number[]])[] = [
  ['rows', [0.02, 0.01, 0.01]],
  ['columns', [0.02, 0.01, 0.01]],
  ['fewer', [0.02]],
  ['rows', [0.005]],
  ['columns', [0.005]],
  ['rows', [0.005]],
  ['columns', [0.005]],
  ['fewer', [0.02]],
]

/** Card is taken from the end of the last sheet, from its side, or the last sheet is given up. */
export type Cut = 'rows' | 'columns' | 'fewer'

/** The way and the bite of the next attempt. */
export class Tries {
  way: Cut = 'rows'
  bite = FIRST_BITE
  /** How often an attempt failed since all was tried once; null before. */
  private turn: number | null = null

  /** All has been tried once on this layout. */
  get isStuck(): boolean {
    return this.turn !== null
  }

  /** Another layout is the best now. */
  onAnother(): void {
    this.turn = null
  }

  succeeded(): void {
    this.bite = Math.min(MOST_BITE, this.bite * MORE)
  }

  failed(): void {
    this.bite *= LESS
    if (this.turn === null && this.way !== 'fewer' && this.bite >= LEAST_BITE) return
    this.turn = (this.turn ?? -1) + 1
    const [way, bites] = THEN[this.turn % THEN.length]!
    this.way = way
    this.bite = bites[Math.floor(this.turn / THEN.length) % bites.length]!
  }
}
