// The fewest one-colour layers that stack to what a drawing shows. Shapes that overlap must keep their paint order;
// shapes of one label that nothing forces apart share a layer. Finding the least number of such batches is hard in
// general (it holds the shortest common supersequence: Maier 1978), so a beam of partial stacks is kept, best bound first.
import Flatbush from 'flatbush'
import { seededRandom } from '../../../base'
import {
  discTouchesRing,
  growBox,
  intersect,
  regionArea,
  regionRings,
  ringBox,
  ringContains,
  type Box,
  type Region,
  type Ring,
} from '../../../base/geometry'

/** A thing to be put into an order, with what must come before it. */
export interface SequenceItem {
  region: Region
  box: Box
  /** Items may share a layer only with items of the same label. */
  label: string
}

/** Overlaps smaller than this (mm²) do not count: shapes that only touch. */
const TOUCH_MM2 = 0.02
const BEAM = 48
/** Items times beam that a level of the search may hold: large drawings get a narrower beam. */
const BEAM_WORK = 16_000

/**
 * Batches of item indices, back to front, every batch of one label.
 * @param onProgress takes the share done, 0 to 1
 */
export function sequenceLayers(
  items: readonly SequenceItem[],
  onProgress: (share: number) => void = () => undefined,
): number[][] {
  if (items.length === 0) return []
  const above = overlapsAbove(items, (share) => onProgress(share * 0.7))
  const width = Math.max(2, Math.min(BEAM, Math.floor(BEAM_WORK / items.length)))
  return beamSearch(items, above, { width, onProgress: (share) => onProgress(0.7 + share * 0.3) })
}

/** For each item, the later items of another label that lie over it. */
function overlapsAbove(items: readonly SequenceItem[], onProgress: (share: number) => void): number[][] {
  const index = new Flatbush(items.length)
  for (const { box: b } of items) index.add(b.minX, b.minY, b.maxX, b.maxY)
  index.finish()
  const outlines = items.map(outlinesOf)
  return items.map((item, i) => {
    const { box: b } = item
    if (i % 50 === 0) onProgress(i / items.length)
    return index
      .search(b.minX, b.minY, b.maxX, b.maxY, (j) => j > i && items[j]!.label !== item.label)
      .filter(
        (j) =>
          shareAPlace(outlines[i]!, outlines[j]!) ||
          regionArea(intersect(item.region, items[j]!.region)) > TOUCH_MM2,
      )
  })
}

/** How many places are looked at before two shapes are intersected. */
const LOOKS = 12
/** A disc this large round a place, mm, is more than shapes have in common that only touch. */
const WELL_MM = 0.1

/** A shape's box, and its outlines with boxes round them that are a little larger. */
interface Outlines {
  box: Box
  rings: { ring: Ring; box: Box }[]
}

const outlinesOf = ({ region, box }: SequenceItem): Outlines => ({
  box,
  rings: regionRings(region).map((ring) => ({ ring, box: growBox(ringBox(ring), WELL_MM) })),
})

/** Whether a place is found that lies well inside two shapes: mostly at once, which spares the clipper's work on large outlines. */
function shareAPlace(a: Outlines, b: Outlines): boolean {
  const [x0, y0] = [Math.max(a.box.minX, b.box.minX), Math.max(a.box.minY, b.box.minY)]
  const [x1, y1] = [Math.min(a.box.maxX, b.box.maxX), Math.min(a.box.maxY, b.box.maxY)]
  for (let k = 0; k < LOOKS; k++) {
    // Spread evenly, whatever their number (Roberts' sequence).
    const x = x0 + (x1 - x0) * ((0.5 + k * 0.7548776662466927) % 1)
    const y = y0 + (y1 - y0) * ((0.5 + k * 0.5698402909980532) % 1)
    if (isWellInside(a, x, y) && isWellInside(b, x, y)) return true
  }
  return false
}

/** Whether a place lies in a shape, a little away from all its outlines. */
function isWellInside({ rings }: Outlines, x: number, y: number): boolean {
  let inside = false
  for (const { ring, box } of rings) {
    if (x < box.minX || x > box.maxX || y < box.minY || y > box.maxY) continue
    if (ringContains(ring, x, y)) inside = !inside
    if (discTouchesRing(ring, [x, y], WELL_MM)) return false
  }
  return inside
}

interface Stack {
  batches: number[][]
  /** How many unplaced items lie under each item; −1 once it is placed. */
  waiting: Int32Array
  left: number
  bound: number
  /** Which items are placed, as two sums of random numbers: equal sets have equal keys. */
  key: [number, number]
}

function beamSearch(
  items: readonly SequenceItem[],
  above: number[][],
  { width, onProgress }: { width: number; onProgress: (share: number) => void },
): number[][] {
  const waiting = new Int32Array(items.length)
  for (const list of above) for (const j of list) waiting[j]!++
  const names = [...new Set(items.map((item) => item.label))]
  const labelOf = Int32Array.from(items, (item) => names.indexOf(item.label))
  const byLabel = names.map((name) => [...items.keys()].filter((i) => items[i]!.label === name))
  const random = seededRandom(1)
  const marks = items.map(() => [random() * 2 ** 32, random() * 2 ** 32] as const)
  // Longest chain of overlaps that starts at an item: at least so many layers are still to come.
  const chain = new Int32Array(items.length)
  for (let i = items.length - 1; i >= 0; i--)
    for (const j of above[i]!) chain[i] = Math.max(chain[i]!, chain[j]! + 1)

  /** Lays one more layer of a label: everything of it that is free, and what that frees of the same label. */
  const lay = (stack: Stack, label: number): Stack => {
    const next = stack.waiting.slice()
    const queue = byLabel[label]!.filter((i) => next[i] === 0)
    const batch: number[] = []
    const key: [number, number] = [...stack.key]
    for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
      batch.push(i)
      next[i] = -1
      key[0] = (key[0] + marks[i]![0]) >>> 0
      key[1] = (key[1] + marks[i]![1]) >>> 0
      for (const j of above[i]!) next[j]!--
    }
    // Items of this label never lie over each other in the sense above, so one round frees all it can.
    return {
      batches: [...stack.batches, batch.sort((a, b) => a - b)],
      waiting: next,
      left: stack.left - batch.length,
      bound: 0,
      key,
    }
  }

  /** Layers that are still to come at the least. */
  const boundOf = ({ waiting: w }: Stack): number => {
    const seen = new Uint8Array(names.length)
    let labels = 0
    let longest = 0
    for (let i = 0; i < w.length; i++) {
      if (w[i]! < 0) continue
      if (!seen[labelOf[i]!]) labels++
      seen[labelOf[i]!] = 1
      if (w[i] === 0) longest = Math.max(longest, chain[i]! + 1)
    }
    return Math.max(labels, longest)
  }

  /**
   * Labels worth laying next. One whose every remaining item is free can be laid at once: it needs one more layer in any
   * case, and laying it now only frees others. Branching is left for true conflicts.
   */
  const choices = ({ waiting: w }: Stack): number[] => {
    const free = new Uint8Array(names.length)
    const blocked = new Uint8Array(names.length)
    for (let i = 0; i < w.length; i++)
      if (w[i] === 0) free[labelOf[i]!] = 1
      else if (w[i]! > 0) blocked[labelOf[i]!] = 1
    const all: number[] = []
    for (let k = 0; k < names.length; k++) {
      if (free[k] && !blocked[k]) return [k]
      if (free[k]) all.push(k)
    }
    return all
  }

  let beam: Stack[] = [{ batches: [], waiting, left: items.length, bound: 0, key: [0, 0] }]
  for (;;) {
    const grown = new Map<string, Stack>()
    for (const stack of beam)
      for (const label of choices(stack)) {
        const next = lay(stack, label)
        if (next.left === 0) return next.batches
        const key = next.key.join()
        if (grown.has(key)) continue
        next.bound = boundOf(next)
        grown.set(key, next)
      }
    beam = [...grown.values()].sort((a, b) => a.bound - b.bound || a.left - b.left).slice(0, width)
    onProgress(1 - beam[0]!.left / items.length)
  }
}
