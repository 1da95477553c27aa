// The fewest sets that cover all rows. What must be covered anyway is left out first; then greedy, then a search that takes one set out and
// mends what is bare by exchanges whose weights grow where rows stay bare (row-weighting local search, after Gao et al. 2015). The same
// input gives the same cover.

/** Sets over rows from 0. */
export interface CoverTask {
  rows: number
  /** Rows of each set. */
  sets: readonly Int32Array[]
  /** Of several covers with as few sets the one of the least cost is sought: what each set costs, in parts of one set; 0 to 1. */
  cost?: Float64Array
  /** Part of the tries that a cover gets which is not the last word; all of them unless said. */
  effort?: number
}

/** So many exchanges are tried for each set of the greedy cover, within bounds. */
const TRIES_PER_SET = 50
const TRIES: readonly [number, number] = [200, 2500]
/** Entries of the table that may be touched in all: bounds the time of large tasks. */
const MOST_TOUCHED = 4e7

/** Places of the chosen sets, rising. Rows that no set has stay bare. */
export function fewestSets(task: CoverTask): number[] {
  const { names, ...hard } = wideSets(hardRows(task))
  return new CoverSearch(hard).run(task.effort ?? 1).map((k) => names[k]!)
}

/** A table of bits: one line for each of some things, a bit for each of some others. */
class Bits {
  private readonly words: number
  private readonly bits: Uint32Array

  constructor(lines: number, columns: number) {
    this.words = (columns + 31) >> 5
    this.bits = new Uint32Array(lines * this.words)
  }

  set(line: number, column: number): void {
    this.bits[line * this.words + (column >> 5)]! |= 1 << (column & 31)
  }

  /** Whether all bits of one line are in another. */
  isWithin(a: number, b: number): boolean {
    const { words, bits } = this
    for (let w = 0, i = a * words, k = b * words; w < words; w++)
      if (bits[i + w]! & ~bits[k + w]!) return false
    return true
  }
}

/** Which sets have each row: those of r from start[r] to start[r + 1]. */
interface Holders {
  start: Int32Array
  set: Int32Array
}

function holders(rows: number, sets: readonly Int32Array[]): Holders {
  const start = new Int32Array(rows + 1)
  for (const set of sets) for (let i = 0; i < set.length; i++) start[set[i]! + 1]!++
  for (let r = 0; r < rows; r++) start[r + 1]! += start[r]!
  const fill = start.slice()
  const set = new Int32Array(start[rows]!)
  for (let k = 0; k < sets.length; k++) {
    const own = sets[k]!
    for (let i = 0; i < own.length; i++) set[fill[own[i]!]!++] = k
  }
  return { start, set }
}

/**
 * The same task with its hard rows alone: whoever covers one that few sets have covers every row that those sets and others have (row
 * dominance), and of rows with the same sets one is enough.
 */
function hardRows({ rows, sets, cost }: CoverTask): CoverTask {
  const having = holders(rows, sets)
  const hard = new HardRows(having, sets.length)
  const place = new Int32Array(rows).fill(-1)
  let kept = 0
  for (const r of byDegree(having, rows, sets.length)) if (hard.keep(r)) place[r] = kept++
  const scratch = new Int32Array(kept)
  const own = sets.map((set) => {
    let n = 0
    for (let i = 0; i < set.length; i++) if (place[set[i]!]! >= 0) scratch[n++] = place[set[i]!]!
    return scratch.slice(0, n)
  })
  return { rows: kept, sets: own, ...(cost ? { cost } : {}) }
}

/** Rows that any set has, those that few have first (counting sort). */
function byDegree({ start }: Holders, rows: number, sets: number): Int32Array {
  const before = new Int32Array(sets + 2)
  for (let r = 0; r < rows; r++) before[start[r + 1]! - start[r]! + 1]!++
  const none = before[1]!
  for (let d = 0; d <= sets; d++) before[d + 1]! += before[d]!
  const out = new Int32Array(rows)
  for (let r = 0; r < rows; r++) out[before[start[r + 1]! - start[r]!]!++] = r
  return out.subarray(none)
}

/** Rows that are kept, each under one of the sets that have it: the one under which fewest stand. */
class HardRows {
  private readonly bits: Bits
  private readonly under: number[][]

  constructor(
    private readonly having: Holders,
    sets: number,
  ) {
    const { start, set } = having
    const rows = start.length - 1
    this.under = Array.from({ length: sets }, () => [])
    this.bits = new Bits(rows, sets)
    for (let r = 0; r < rows; r++) for (let i = start[r]!; i < start[r + 1]!; i++) this.bits.set(r, set[i]!)
  }

  /** Keeps a row unless one that is kept already is covered by no more sets than cover it. */
  keep(row: number): boolean {
    const { start, set } = this.having
    const { under, bits } = this
    let least = set[start[row]!]!
    for (let i = start[row]!; i < start[row + 1]!; i++) {
      const own = under[set[i]!]!
      for (let n = 0; n < own.length; n++) if (bits.isWithin(own[n]!, row)) return false
      if (own.length < under[least]!.length) least = set[i]!
    }
    under[least]!.push(row)
    return true
  }
}

/** The same task with its wide sets alone: one whose rows another has as well, for no more, is never needed (column dominance). */
function wideSets({ rows, sets, cost }: CoverTask): CoverTask & { names: number[] } {
  const bits = new Bits(sets.length, rows)
  for (let k = 0; k < sets.length; k++) for (let i = 0; i < sets[k]!.length; i++) bits.set(k, sets[k]![i]!)
  const costs = cost ?? new Float64Array(sets.length)
  const order = [...sets.keys()]
    .filter((k) => sets[k]!.length > 0)
    .sort((a, b) => sets[b]!.length - sets[a]!.length || costs[a]! - costs[b]! || a - b)
  const { start, set } = holders(rows, sets)
  const isWide = new Uint8Array(sets.length)
  for (const k of order) {
    // Who has all its rows has the one that fewest have.
    const rarest = sets[k]!.reduce((a, b) => (start[b + 1]! - start[b]! < start[a + 1]! - start[a]! ? b : a))
    let isNeeded = true
    for (let i = start[rarest]!; i < start[rarest + 1]! && isNeeded; i++)
      isNeeded = !isWide[set[i]!] || costs[set[i]!]! > costs[k]! || !bits.isWithin(k, set[i]!)
    if (isNeeded) isWide[k] = 1
  }
  const names = [...sets.keys()].filter((k) => isWide[k])
  return {
    rows,
    sets: names.map((k) => sets[k]!),
    cost: Float64Array.from(names, (k) => costs[k]!),
    names,
  }
}

/** A cost takes at most so much of what a set is worth. */
const COST_SHARE = 0.02

/** The search: which sets are chosen, what they cover, and what each would add or would leave bare. */
class CoverSearch {
  private readonly sets: readonly Int32Array[]
  private readonly having: Holders
  private readonly chosen: Uint8Array
  /** The chosen sets, in no order. */
  private readonly inUse: number[] = []
  /** By row: so many chosen sets have it. */
  private readonly covered: Int32Array
  private readonly weight: Float64Array
  /** What a set would newly cover, or what only it covers, by weight. */
  private readonly score: Float64Array
  /** What a set's score counts for, by its cost. */
  private readonly share: Float64Array
  /** The turn in which a set was last put in or taken out. */
  private readonly since: Int32Array
  /** Rows that no chosen set has, and where each stands in the list. */
  private readonly bare: Int32Array
  private readonly bareAt: Int32Array
  private bareCount: number
  private touched = 0

  constructor({ rows, sets, cost }: CoverTask) {
    this.sets = sets
    this.having = holders(rows, sets)
    this.chosen = new Uint8Array(sets.length)
    this.covered = new Int32Array(rows)
    this.weight = new Float64Array(rows).fill(1)
    this.score = Float64Array.from(sets, (set) => set.length)
    this.share = Float64Array.from(sets, (_, k) => 1 - COST_SHARE * (cost?.[k] ?? 0))
    this.since = new Int32Array(sets.length)
    this.bare = Int32Array.from({ length: rows }, (_, r) => r)
    this.bareAt = this.bare.slice()
    this.bareCount = rows
  }

  /** Places of the chosen sets of the smallest cover found. */
  run(effort: number): number[] {
    while (this.bareCount > 0) this.flip(this.mostWorth())
    this.dropIdle()
    let found = this.listed()
    const tries = effort * Math.min(TRIES[1], Math.max(TRIES[0], found.length * TRIES_PER_SET))
    let barred = -1
    for (let turn = 1; turn <= tries && found.length > 1 && this.touched < MOST_TOUCHED; turn++) {
      if (this.bareCount === 0) {
        this.dropIdle()
        found = this.listed()
        if (found.length <= 1) break
        this.flip(this.leastOf(-1))
        continue
      }
      const out = this.leastOf(barred)
      if (out < 0) break
      this.flip(out)
      this.since[out] = turn
      if (this.bareCount === 0) continue
      // Another bare row from turn to turn.
      const row = this.bare[(Math.imul(turn, 2654435761) >>> 0) % this.bareCount]!
      const into = this.bestFor(row, out)
      this.flip(into)
      this.since[into] = turn
      barred = into
      this.weighBare()
    }
    return found
  }

  private listed(): number[] {
    return this.inUse.toSorted((a, b) => a - b)
  }

  private worth(k: number): number {
    return this.score[k]! * this.share[k]!
  }

  /** The set that is worth most among those not chosen. */
  private mostWorth(): number {
    let best = -1
    for (let k = 0; k < this.sets.length; k++)
      if (!this.chosen[k] && this.score[k]! > 0 && (best < 0 || this.worth(k) > this.worth(best))) best = k
    return best
  }

  /** The chosen set that would leave least bare, not the barred one; of equals the one that stands longest. */
  private leastOf(barred: number): number {
    const { inUse, score, since } = this
    let least = -1
    for (let n = 0; n < inUse.length; n++) {
      const k = inUse[n]!
      if (k === barred) continue
      const less = least < 0 ? -1 : score[k]! - score[least]! || since[k]! - since[least]! || k - least
      if (less < 0) least = k
    }
    return least
  }

  /** The set with a row that is worth most, not the one that was just taken out unless there is no other. */
  private bestFor(row: number, out: number): number {
    const { start, set } = this.having
    let best = -1
    for (let i = start[row]!; i < start[row + 1]!; i++) {
      const k = set[i]!
      if (this.chosen[k] || k === out) continue
      const more = best < 0 ? 1 : this.worth(k) - this.worth(best)
      if (more > 0 || (more === 0 && this.since[k]! < this.since[best]!)) best = k
    }
    return best < 0 ? out : best
  }

  private dropIdle(): void {
    for (const k of this.listed()) if (this.score[k]! <= 0) this.flip(k)
  }

  /** What is still bare weighs more from now on. */
  private weighBare(): void {
    for (let n = 0; n < this.bareCount; n++) {
      const row = this.bare[n]!
      this.weight[row]!++
      this.addToHolders(row, 1)
    }
  }

  private addToHolders(row: number, by: number): void {
    const { start, set } = this.having
    const { score } = this
    const end = start[row + 1]!
    for (let i = start[row]!; i < end; i++) score[set[i]!]! += by
    this.touched += end - start[row]!
  }

  /** Puts a set in, or takes it out. */
  private flip(k: number): void {
    const { covered, weight } = this
    const adds = this.chosen[k] === 0
    this.chosen[k] = adds ? 1 : 0
    if (adds) this.inUse.push(k)
    else this.inUse.splice(this.inUse.indexOf(k), 1)
    const rows = this.sets[k]!
    let alone = 0
    for (let n = 0; n < rows.length; n++) {
      const row = rows[n]!
      const before = covered[row]!
      const after = adds ? before + 1 : before - 1
      covered[row] = after
      const own = weight[row]!
      if (after === (adds ? 1 : 0)) alone += own
      if (before + after === 1) {
        // It was bare, or becomes so: whoever else could cover it gains by it, or no longer does.
        if (adds) this.becomesCovered(row)
        else this.becomesBare(row)
        this.addToHolders(row, adds ? -own : own)
      } else if (before + after === 3) {
        // Whoever alone covered it is no longer alone, or becomes so.
        this.addToLone(row, k, adds ? -own : own)
      }
    }
    this.score[k] = alone
  }

  private addToLone(row: number, not: number, by: number): void {
    const { start, set } = this.having
    this.touched++
    for (let i = start[row]!; i < start[row + 1]!; i++) {
      const other = set[i]!
      if (!this.chosen[other] || other === not) continue
      this.score[other]! += by
      return
    }
  }

  private becomesBare(row: number): void {
    this.bareAt[row] = this.bareCount
    this.bare[this.bareCount++] = row
  }

  private becomesCovered(row: number): void {
    const at = this.bareAt[row]!
    const last = this.bare[--this.bareCount]!
    this.bare[at] = last
    this.bareAt[last] = at
    this.bareAt[row] = -1
  }
}
