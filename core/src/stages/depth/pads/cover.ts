// The fewest sets that cover all rows: greedy first, then a search that takes one set out, and mends what is bare by exchanges whose
// weights grow where rows stay bare (row-weighting local search, after Gao et al. 2015). The same input gives the same cover.

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

/** So many rows are looked at to begin with; what a cover of them leaves bare comes in, until it leaves none. */
const FIRST_ROWS = 500

/** Places of the chosen sets, rising. Rows that no set has stay bare. */
export function fewestSets({ rows, sets, cost }: CoverTask): number[] {
  const { start, set: having } = holders(rows, sets)
  /** Rows of each set that are looked at. */
  const own: number[][] = sets.map(() => [])
  const looked = new Uint8Array(rows)
  const chosen = new Uint8Array(sets.length)
  const covered = new Int32Array(rows)
  const weight = new Float64Array(rows).fill(1)
  /** What a set would newly cover, or what only it covers, by weight. */
  const score = new Float64Array(sets.length)
  /** Rows that are looked at and that no chosen set has, and where each stands in the list. */
  const bare: number[] = []
  const bareAt = new Int32Array(rows).fill(-1)
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
  /** Looks at a row that no chosen set has from now on. */
  const lookAt = (r: number) => {
    if (looked[r] || start[r + 1] === start[r]) return
    looked[r] = 1
    becomesBare(r)
    for (let i = start[r]!; i < start[r + 1]!; i++) {
      own[having[i]!]!.push(r)
      score[having[i]!]! += weight[r]!
    }
  }
  const step = Math.max(1, Math.floor(rows / FIRST_ROWS))
  for (let r = 0; r < rows; r += step) lookAt(r)
  let touched = 0

  const flip = (k: number) => {
    const adds = chosen[k] === 0
    chosen[k] = adds ? 1 : 0
    const list = own[k]!
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
  /** Rows that the chosen sets leave bare and that are not looked at yet come in; whether there were none. */
  const isWhole = () => {
    const has = new Uint8Array(rows)
    for (let k = 0; k < sets.length; k++) if (chosen[k]) for (const r of sets[k]!) has[r] = 1
    for (let r = 0; r < rows; r++) if (!has[r]) lookAt(r)
    return bare.length === 0
  }
  const coverGreedily = () => {
    while (bare.length > 0 || !isWhole()) {
      let best = -1
      for (let k = 0; k < sets.length; k++)
        if (!chosen[k] && score[k]! > 0 && (best < 0 || worth(k) > worth(best))) best = k
      flip(best)
    }
  }
  coverGreedily()
  dropIdle()
  if (!isWhole()) coverGreedily()
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
    if (bare.length === 0 && isWhole()) {
      dropIdle()
      if (!isWhole()) continue
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
  for (const set of sets) for (const r of set) start[r + 1]!++
  for (let r = 0; r < rows; r++) start[r + 1]! += start[r]!
  const fill = start.slice()
  const set = new Int32Array(start[rows]!)
  sets.forEach((own, k) => {
    for (const r of own) set[fill[r]!++] = k
  })
  return { start, set }
}

const listOf = (chosen: Uint8Array): number[] => [...chosen.keys()].filter((k) => chosen[k])
