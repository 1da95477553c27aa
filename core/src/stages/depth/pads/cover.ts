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
}

/** So many exchanges are tried for each set of the greedy cover, within bounds. */
const TRIES_PER_SET = 50
const TRIES: readonly [number, number] = [200, 2500]
/** Entries of the table that may be touched in all: bounds the time of large tasks. */
const MOST_TOUCHED = 4e7

/** Places of the chosen sets, rising. Rows that no set has stay bare. */
export function fewestSets(task: CoverTask): number[] {
  const { rows, sets, names } = wideSets(hardRows(task))
  const cost = task.cost && Float64Array.from(names, (k) => task.cost![k]!)
  return search({ rows, sets, ...(cost ? { cost } : {}) }).map((k) => names[k]!)
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

/**
 * The same task with its hard rows alone: whoever covers one that few sets have covers every row that those sets and others have (row
 * dominance), and of rows with the same sets one is enough.
 */
function hardRows({ rows, sets, cost }: CoverTask): CoverTask {
  const { start, set: having } = holders(rows, sets)
  const bits = new Bits(rows, sets.length)
  for (let r = 0; r < rows; r++) for (let i = start[r]!; i < start[r + 1]!; i++) bits.set(r, having[i]!)
  const degree = (r: number) => start[r + 1]! - start[r]!
  const order = Array.from({ length: rows }, (_, r) => r)
    .filter((r) => degree(r) > 0)
    .sort((a, b) => degree(a) - degree(b) || a - b)
  /** Rows that are kept, each under one of the sets that have it: the one under which fewest stand. */
  const under: number[][] = sets.map(() => [])
  const isEasy = (r: number): boolean => {
    for (let i = start[r]!; i < start[r + 1]!; i++)
      for (const other of under[having[i]!]!) if (bits.isWithin(other, r)) return true
    return false
  }
  const place = new Int32Array(rows).fill(-1)
  let kept = 0
  for (const r of order) {
    if (isEasy(r)) continue
    place[r] = kept++
    let least = having[start[r]!]!
    for (let i = start[r]!; i < start[r + 1]!; i++)
      if (under[having[i]!]!.length < under[least]!.length) least = having[i]!
    under[least]!.push(r)
  }
  const scratch = new Int32Array(kept)
  const own = sets.map((set) => {
    let n = 0
    for (let i = 0; i < set.length; i++) if (place[set[i]!]! >= 0) scratch[n++] = place[set[i]!]!
    return scratch.slice(0, n)
  })
  return { rows: kept, sets: own, ...(cost ? { cost } : {}) }
}

/** The same task with its wide sets alone: one whose rows another has as well, for no more, is never needed (column dominance). */
function wideSets({ rows, sets, cost }: CoverTask): CoverTask & { names: number[] } {
  const bits = new Bits(sets.length, rows)
  for (let k = 0; k < sets.length; k++) for (let i = 0; i < sets[k]!.length; i++) bits.set(k, sets[k]![i]!)
  const costOf = (k: number) => cost?.[k] ?? 0
  const order = [...sets.keys()]
    .filter((k) => sets[k]!.length > 0)
    .sort((a, b) => sets[b]!.length - sets[a]!.length || costOf(a) - costOf(b) || a - b)
  const names: number[] = []
  for (const k of order)
    if (!names.some((wide) => costOf(wide) <= costOf(k) && bits.isWithin(k, wide))) names.push(k)
  names.sort((a, b) => a - b)
  return { rows, sets: names.map((k) => sets[k]!), names }
}

function search({ rows, sets, cost }: CoverTask): number[] {
  const { start, set: having } = holders(rows, sets)
  const chosen = new Uint8Array(sets.length)
  const covered = new Int32Array(rows)
  const weight = new Float64Array(rows).fill(1)
  /** What a set would newly cover, or what only it covers, by weight. */
  const score = Float64Array.from(sets, (set) => set.length)
  /** Rows that no chosen set has, and where each stands in the list. */
  const bare = Array.from({ length: rows }, (_, r) => r)
  const bareAt = Int32Array.from(bare)
  const becomesBare = (r: number) => {
    bareAt[r] = bare.length
    bare.push(r)
  }
  const becomesCovered = (r: number) => {
    const at = bareAt[r]!
    const last = bare.pop()!
    if (last !== r) {
      bare[at] = last
      bareAt[last] = at
    }
    bareAt[r] = -1
  }
  let touched = 0

  const flip = (k: number) => {
    const adds = chosen[k] === 0
    chosen[k] = adds ? 1 : 0
    const list = sets[k]!
    let alone = 0
    for (let n = 0; n < list.length; n++) {
      const r = list[n]!
      const before = covered[r]!
      const after = adds ? before + 1 : before - 1
      covered[r] = after
      const w = weight[r]!
      if (after === (adds ? 1 : 0)) alone += w
      if (before + after === 1) {
        // It was bare, or becomes so: whoever else could cover it gains by it, or no longer does.
        if (adds) becomesCovered(r)
        else becomesBare(r)
        const by = adds ? -w : w
        const end = start[r + 1]!
        for (let i = start[r]!; i < end; i++) score[having[i]!]! += by
        touched += end - start[r]!
      } else if (before + after === 3) {
        // Whoever alone covered it is no longer alone, or becomes so.
        const by = adds ? -w : w
        for (let i = start[r]!; i < start[r + 1]!; i++) {
          const other = having[i]!
          if (chosen[other] && other !== k) {
            score[other]! += by
            break
          }
        }
        touched++
      }
    }
    score[k] = alone
  }
  const worth = (k: number) => (cost ? score[k]! * (1 - 0.02 * cost[k]!) : score[k]!)
  const dropIdle = () => {
    for (let k = 0; k < sets.length; k++) if (chosen[k] && score[k]! <= 0) flip(k)
  }
  while (bare.length > 0) {
    let best = -1
    for (let k = 0; k < sets.length; k++)
      if (!chosen[k] && score[k]! > 0 && (best < 0 || worth(k) > worth(best))) best = k
    flip(best)
  }
  dropIdle()
  let found = listOf(chosen)
  const tries = Math.min(TRIES[1], Math.max(TRIES[0], found.length * TRIES_PER_SET))
  const since = new Int32Array(sets.length)
  let barred = -1
  const leastOf = (not: number) => {
    let least = -1
    for (let k = 0; k < sets.length; k++)
      if (
        chosen[k] &&
        k !== not &&
        (least < 0 || score[k]! < score[least]! || (score[k] === score[least] && since[k]! < since[least]!))
      )
        least = k
    return least
  }
  for (let turn = 1; turn <= tries && found.length > 1 && touched < MOST_TOUCHED; turn++) {
    if (bare.length === 0) {
      dropIdle()
      found = listOf(chosen)
      if (found.length <= 1) break
      flip(leastOf(-1))
      continue
    }
    const out = leastOf(barred)
    if (out < 0) break
    flip(out)
    since[out] = turn
    if (bare.length === 0) continue
    // Another bare row from turn to turn.
    const row = bare[(Math.imul(turn, 2654435761) >>> 0) % bare.length]!
    let best = -1
    for (let i = start[row]!; i < start[row + 1]!; i++) {
      const k = having[i]!
      if (chosen[k] || k === out) continue
      if (best < 0 || worth(k) > worth(best) || (worth(k) === worth(best) && since[k]! < since[best]!))
        best = k
    }
    if (best < 0) best = out
    flip(best)
    since[best] = turn
    barred = best
    // What is still bare weighs more from now on.
    for (let n = 0; n < bare.length; n++) {
      const r = bare[n]!
      weight[r]!++
      for (let i = start[r]!; i < start[r + 1]!; i++) score[having[i]!]!++
      touched += start[r + 1]! - start[r]!
    }
  }
  return found
}

/** Which sets have each row: those of r from start[r] to start[r + 1]. */
function holders(rows: number, sets: readonly Int32Array[]): { start: Int32Array; set: Int32Array } {
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

const listOf = (chosen: Uint8Array): number[] => [...chosen.keys()].filter((k) => chosen[k])
