// The shared drawer is used by several projects and pages at once: what one of them changed is put into what is there now,
// paper by paper, and sheets taken count against those that are left.
import type { Paper } from './schema'

type OffCut = Paper['offCuts'][number]

/** What was done to the drawer's papers. */
export interface StockChanges {
  added: Paper[]
  removed: string[]
  changed: {
    id: string
    /** Fields set anew. */
    fields: Partial<Paper>
    /** Sheets put in, or taken out where it is negative. */
    count: number
    offCutsAdded: OffCut[]
    offCutsRemoved: string[]
  }[]
}

/** What leads from one state of the drawer to another; null where nothing does. */
export function stockChanges(before: readonly Paper[], after: readonly Paper[]): StockChanges | null {
  if (before === after) return null
  const old = new Map(before.map((paper) => [paper.id, paper]))
  const now = new Set(after.map((paper) => paper.id))
  const changes: StockChanges = {
    added: after.filter((paper) => !old.has(paper.id)),
    removed: before.filter((paper) => !now.has(paper.id)).map((paper) => paper.id),
    changed: after.flatMap((paper) => {
      const was = old.get(paper.id)
      if (!was || was === paper) return []
      const { offCuts, count, ...rest } = paper
      const fields = Object.fromEntries(
        Object.entries(rest).filter(([key, value]) => !Object.is(value, was[key as keyof Paper])),
      ) as Partial<Paper>
      const had = new Set(was.offCuts.map((offCut) => offCut.id))
      const has = new Set(offCuts.map((offCut) => offCut.id))
      const change = {
        id: paper.id,
        fields,
        count: count - was.count,
        offCutsAdded: offCuts.filter((offCut) => !had.has(offCut.id)),
        offCutsRemoved: was.offCuts.filter((offCut) => !has.has(offCut.id)).map((offCut) => offCut.id),
      }
      const some =
        Object.keys(fields).length +
        Math.abs(change.count) +
        change.offCutsAdded.length +
        change.offCutsRemoved.length
      return some > 0 ? [change] : []
    }),
  }
  return changes.added.length + changes.removed.length + changes.changed.length > 0 ? changes : null
}

/** Puts changes into the drawer as it is now. Papers that are gone stay gone; counts never fall below nought. */
export function applyStockChanges(stock: readonly Paper[], changes: StockChanges): Paper[] {
  const removed = new Set(changes.removed)
  const changed = new Map(changes.changed.map((change) => [change.id, change]))
  const there = new Set(stock.map((paper) => paper.id))
  const kept = stock
    .filter((paper) => !removed.has(paper.id))
    .map((paper) => {
      const change = changed.get(paper.id)
      if (!change) return paper
      const gone = new Set(change.offCutsRemoved)
      const known = new Set(paper.offCuts.map((offCut) => offCut.id))
      return {
        ...paper,
        ...change.fields,
        count: Math.max(0, paper.count + change.count),
        offCuts: [
          ...paper.offCuts.filter((offCut) => !gone.has(offCut.id)),
          ...change.offCutsAdded.filter((offCut) => !known.has(offCut.id)),
        ],
      }
    })
  return [...kept, ...changes.added.filter((paper) => !there.has(paper.id))]
}
