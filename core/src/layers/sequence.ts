// The fewest one-colour layers that stack to what a drawing shows. Shapes that overlap must keep their paint order;
// shapes of one label that nothing forces apart share a layer. Finding the least number of such batches is hard in
// general (it holds shortest common supersequence), so a beam of partial stacks is kept, best bound first.
import Flatbush from 'flatbush'
import { groupBy } from '../project'
import { intersect, regionArea, type Box, type Region } from '../geometry'

export interface SequenceItem {
  region: Region
  box: Box
  /** Items may share a layer only with items of the same label. */
  label: string
}

/** Overlaps smaller than this (mm²) do not count: shapes that only touch. */
const TOUCH_MM2 = 0.02
const BEAM = 48
const BEAM_ITEM_LIMIT = 1500

/** Batches of item indices, back to front, every batch of one label. */
export function sequenceLayers(items: readonly SequenceItem[]): number[][] {
  if (items.length === 0) return []
  const above = overlapsAbove(items)
  const width = items.length > BEAM_ITEM_LIMIT ? 2 : BEAM
  return beamSearch(items, above, width)
}

/** For each item, the later items of another label that lie over it. */
function overlapsAbove(items: readonly SequenceItem[]): number[][] {
  const index = new Flatbush(items.length)
  for (const { box: b } of items) index.add(b.minX, b.minY, b.maxX, b.maxY)
  index.finish()
  return items.map((item, i) => {
    const { box: b } = item
    return index
      .search(b.minX, b.minY, b.maxX, b.maxY, (j) => j > i && items[j]!.label !== item.label)
      .filter((j) => regionArea(intersect(item.region, items[j]!.region)) > TOUCH_MM2)
  })
}

interface Stack {
  batches: number[][]
  /** How many unplaced items lie under each item; −1 once it is placed. */
  waiting: Int32Array
  left: number
  bound: number
}

function beamSearch(items: readonly SequenceItem[], above: number[][], width: number): number[][] {
  const waiting = new Int32Array(items.length)
  for (const list of above) for (const j of list) waiting[j]!++
  const byLabel = groupBy(items.keys(), (i) => items[i]!.label)
  // Longest chain of overlaps that starts at an item: at least so many layers are still to come.
  const chain = new Int32Array(items.length)
  for (let i = items.length - 1; i >= 0; i--) for (const j of above[i]!) chain[i] = Math.max(chain[i]!, chain[j]! + 1)

  /** Lays one more layer of a label: everything of it that is free, and what that frees of the same label. */
  const lay = (stack: Stack, label: string): Stack | null => {
    const next = stack.waiting.slice()
    const queue = byLabel.get(label)!.filter((i) => next[i] === 0)
    if (queue.length === 0) return null
    const batch: number[] = []
    for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
      batch.push(i)
      next[i] = -1
      for (const j of above[i]!) next[j]!--
    }
    // Items of this label never lie over each other in the sense above, so one round frees all it can.
    const labels = new Set<string>()
    let longest = 0
    for (let i = 0; i < next.length; i++)
      if (next[i]! >= 0) {
        labels.add(items[i]!.label)
        if (next[i] === 0) longest = Math.max(longest, chain[i]! + 1)
      }
    return { batches: [...stack.batches, batch.sort((a, b) => a - b)], waiting: next, left: stack.left - batch.length, bound: Math.max(labels.size, longest) }
  }

  let beam: Stack[] = [{ batches: [], waiting, left: items.length, bound: 0 }]
  for (;;) {
    const grown = new Map<string, Stack>()
    for (const stack of beam) {
      const free = new Set<string>()
      for (let i = 0; i < items.length; i++) if (stack.waiting[i] === 0) free.add(items[i]!.label)
      for (const label of free) {
        const next = lay(stack, label)
        if (!next) continue
        if (next.left === 0) return next.batches
        const key = width > 2 ? next.waiting.join() : String(grown.size)
        if (!grown.has(key)) grown.set(key, next)
      }
    }
    beam = [...grown.values()].sort((a, b) => a.bound - b.bound || a.left - b.left).slice(0, width)
  }
}
