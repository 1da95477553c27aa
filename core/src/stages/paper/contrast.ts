// Papers that set layers off against each other, out of few: whatever lies on what is clear of it.
import { assignPaper, colourOf, setPlan, type Layer, type Paper, type Project } from '../../project'
import { colouredLayers, fitting, usable } from './assign'
import { colourDifference } from './colour'

/** What is asked for: layers that take part, papers to choose from, and how many may be taken. */
export interface ContrastWish {
  layerIds: readonly string[]
  stock: readonly Paper[]
  /** At most so many papers over the layers that take part. */
  most: number
}

/** Papers over layers, and their smallest step to a neighbour, CIEDE2000; Infinity where none has a neighbour. */
export interface Contrast {
  papers: { layerId: string; paper: Paper }[]
  leastStep: number
}

/** Steps beyond this are as good as each other: colours then stay nearer to what they were (CIEDE2000). */
const CLEAR = 25
/** So many sets of papers are looked at, and so many papers at the most. */
const SETS = 3_000
const PAPERS = 60
/** Steps that differ by less are one. */
const SAME = 1e-9

/**
 * Papers of the stock for some layers, so that the smallest step between neighbours in the stack is as large as it can be, up to a clear one;
 * of such choices the one that changes colours least. Layers that do not take part stay as they are and count as neighbours. The best of all
 * sets of so many of the papers that are looked at: all of a small drawer, of a large one those near to the colours in use and the most varied.
 */
export function contrastPapers(project: Project, { layerIds, stock, most }: ContrastWish): Contrast {
  const layers = colouredLayers(project)
  const chosen = layers.filter(({ id }) => layerIds.includes(id))
  const size = Math.min(Math.max(1, most), chosen.length)
  const papers = looked(
    usable(stock, fitting(project, chosen)),
    chosen.map((layer) => colourOf(project, layer)),
    size,
  )
  if (chosen.length === 0 || papers.length === 0) return { papers: [], leastStep: Infinity }
  const chain = chainOf(project, layers, { taking: new Set(chosen.map(({ id }) => id)), papers })
  let best: Choice | null = null
  const isFree = size >= chosen.length
  for (const set of isFree
    ? [papers.map((_, k) => k)]
    : subsets(papers.length, Math.min(size, papers.length))) {
    const choice = choose(chain, set, best)
    if (choice) best = choice
  }
  return {
    papers: chosen.map(({ id }) => ({
      layerId: id,
      paper: papers[best!.taken[layers.findIndex((one) => one.id === id)]!]!,
    })),
    leastStep: best!.real,
  }
}

/** Gives layers papers that set them off against each other; they are no ramp from then on. */
export const assignContrast = (project: Project, wish: ContrastWish): Project =>
  contrastPapers(project, wish).papers.reduce(
    (p, { layerId, paper }) => assignPaper(p, [layerId], { paper, stock: wish.stock }),
    setPlan(project, {
      ramps: project.plan.ramps.filter((ids) => !ids.some((id) => wish.layerIds.includes(id))),
    }),
  )

/** Layers one on the other: what each may be of, and what that costs. */
interface Chain {
  /** Colours by number: papers first, then the colours of layers that stay. */
  steps: readonly Float64Array[]
  /** The colour of each layer that stays; null where it takes part. */
  kept: readonly (number | null)[]
  /** How far each colour is from what a layer is now. */
  changes: readonly Float64Array[]
}

function chainOf(
  project: Project,
  layers: readonly Layer[],
  { taking, papers }: { taking: ReadonlySet<string>; papers: readonly Paper[] },
): Chain {
  const own = layers.map((layer) => colourOf(project, layer))
  const colours = [...papers.map(({ colour }) => colour), ...own]
  const from = (colour: string) => Float64Array.from(colours, (other) => colourDifference(colour, other))
  const stays = (k: number) => k >= papers.length
  return {
    // Between two layers that stay nothing can be bettered: such a step binds no other.
    steps: colours.map((colour, i) =>
      from(colour).map((step, k) => (stays(i) && stays(k) ? Infinity : step)),
    ),
    kept: layers.map(({ id }, i) => (taking.has(id) ? null : papers.length + i)),
    changes: own.map(from),
  }
}

interface Choice {
  /** The colour of each layer by number. */
  taken: number[]
  /** The smallest step, no more than a clear one; and as it is. */
  least: number
  real: number
  change: number
}

/** The best choice out of a set of papers; null where it is no better than another. */
function choose(
  { steps, kept, changes }: Chain,
  set: readonly number[],
  other: Choice | null,
): Choice | null {
  const options = kept.map((colour) => (colour === null ? set : [colour]))
  const least = widest(options, steps)
  if (other && least < other.least - SAME) return null
  const { taken, change } = nearest(options, { steps, changes, least })
  if (other && least < other.least + SAME && change >= other.change - SAME) return null
  const real = taken.slice(1).reduce((min, colour, i) => Math.min(min, steps[taken[i]!]![colour]!), Infinity)
  return { taken, least, real, change }
}

/** The largest smallest step that layers can have, no more than a clear one: the widest path. */
function widest(options: readonly (readonly number[])[], steps: readonly Float64Array[]): number {
  let reached = options[0]!.map(() => CLEAR)
  for (let i = 1; i < options.length; i++)
    reached = options[i]!.map((colour) =>
      options[i - 1]!.reduce(
        (most, before, k) => Math.max(most, Math.min(reached[k]!, steps[before]![colour]!)),
        0,
      ),
    )
  return Math.max(...reached)
}

/** The choice that changes colours least with no step under one that can be had: the shortest path. */
function nearest(
  options: readonly (readonly number[])[],
  {
    steps,
    changes,
    least,
  }: { steps: readonly Float64Array[]; changes: readonly Float64Array[]; least: number },
): { taken: number[]; change: number } {
  let costs = options[0]!.map((colour) => changes[0]![colour]!)
  const ways: number[][] = [[]]
  for (let i = 1; i < options.length; i++) {
    const way: number[] = []
    costs = options[i]!.map((colour, c) => {
      let [best, at] = [Infinity, 0]
      options[i - 1]!.forEach((before, k) => {
        if (steps[before]![colour]! < least - SAME || costs[k]! >= best) return
        best = costs[k]!
        at = k
      })
      way[c] = at
      return best + changes[i]![colour]!
    })
    ways.push(way)
  }
  let at = costs.indexOf(Math.min(...costs))
  const change = costs[at]!
  const taken: number[] = []
  for (let i = options.length - 1; i >= 0; i--) {
    taken[i] = options[i]![at]!
    at = ways[i]![at] ?? 0
  }
  return { taken, change }
}

/** The papers that sets are made of: those at hand, and of many those nearest to colours in use and the most varied, in turns. */
function looked(stock: readonly Paper[], colours: readonly string[], size: number): Paper[] {
  const atHand = stock.filter(({ count }) => count > 0)
  const from = atHand.length >= Math.min(2, stock.length) ? atHand : stock
  const room = size >= colours.length ? PAPERS : roomFor(size)
  if (from.length <= room) return [...from]
  const taken: Paper[] = []
  /** How far each paper is from the nearest that is taken. */
  const away = new Float64Array(from.length).fill(Infinity)
  const near = [...new Set(colours)].map((colour) =>
    Float64Array.from(from, (paper) => colourDifference(paper.colour, colour)),
  )
  const take = (rank: (k: number) => number) => {
    let best = -1
    for (let k = 0; k < from.length; k++) if (away[k]! > 0 && (best < 0 || rank(k) < rank(best))) best = k
    if (best < 0) return false
    taken.push(from[best]!)
    from.forEach(
      ({ colour }, k) => (away[k] = Math.min(away[k]!, colourDifference(colour, from[best]!.colour))),
    )
    return true
  }
  for (let k = 0; taken.length < room; k++) {
    const turn = near[(k >> 1) % near.length]!
    if (!take(k % 2 === 0 ? (one) => turn[one]! : (one) => -away[one]!)) break
  }
  return taken
}

/** Of so many papers all sets of a size can be looked at. */
function roomFor(size: number): number {
  let n = size
  for (let sets = 1; n < PAPERS; n++) {
    sets = (sets * (n + 1)) / (n + 1 - size)
    if (sets > SETS) break
  }
  return n
}

/** All sets of k of the numbers under n, in order. */
function* subsets(n: number, k: number, from = 0): Generator<number[]> {
  if (k === 0) yield []
  else
    for (let first = from; first <= n - k; first++)
      for (const rest of subsets(n, k - 1, first + 1)) yield [first, ...rest]
}
