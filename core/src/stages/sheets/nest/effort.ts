// Where the time of a longer search goes, over the layouts of several papers: to where it saves most card.
import { polygonArea } from '../../../base/geometry'
import type { NestInstance, NestLayout } from './instance'

/** Before anything is known a layout is taken to save this share of what it could at most, in so many ms. */
const HOPE = { share: 0.1, ms: 3000 }
/** What was spent and saved counts for half after so many ms spent on it. */
const HALF_MS = 4000
/** Of all turns one in so many goes to the layouts one after the other, whatever they promise. */
const IN_TURN = 4

interface Record {
  /** The least that it can come to: the card in the pieces, in sheets. */
  leastScore: number
  /** mm² of a sheet. */
  sheetMm2: number
  score: number
  spentMs: number
  savedMm2: number
}

/** Shares out the time of a search over layouts of several papers. */
export class Effort {
  private readonly records: Record[]
  private turns = 0

  /** @param layouts what is to be bettered, with where each stands */
  constructor(layouts: readonly { instance: NestInstance; layout: Pick<NestLayout, 'score'> }[]) {
    this.records = layouts.map(({ instance, layout }) => {
      const { w, h, margin } = instance.sheet
      const card = instance.pieces.reduce((sum, { shape, qty }) => sum + qty * polygonArea(shape), 0)
      const offCuts = (instance.offCuts ?? []).reduce((sum, { outline }) => sum + polygonArea(outline), 0)
      return {
        leastScore: Math.max(0, card - offCuts) / ((w - 2 * margin) * (h - 2 * margin)),
        sheetMm2: w * h,
        score: layout.score,
        spentMs: 0,
        savedMm2: 0,
      }
    })
  }

  /** Index of the layout that the next step goes to: the one that is likely to save most card in the time. */
  next(): number {
    this.turns++
    const n = this.records.length
    if (this.turns % IN_TURN === 0) return (this.turns / IN_TURN) % n
    let best = 0
    for (let k = 1; k < n; k++) if (this.promise(k) > this.promise(best)) best = k
    return best
  }

  /** Notes what a step took (ms) and what the layout came to. */
  note(k: number, ms: number, score: number): void {
    const record = this.records[k]!
    const kept = 0.5 ** (ms / HALF_MS)
    record.spentMs = record.spentMs * kept + ms
    record.savedMm2 = record.savedMm2 * kept + Math.max(0, record.score - score) * record.sheetMm2
    record.score = Math.min(record.score, score)
  }

  /** mm² that a layout is likely to save in a ms; nothing where it is as small as its pieces. */
  private promise(k: number): number {
    const { leastScore, sheetMm2, score, spentMs, savedMm2 } = this.records[k]!
    const possible = Math.max(0, score - leastScore) * sheetMm2
    if (possible === 0) return 0
    return (savedMm2 + HOPE.share * possible) / (spentMs + HOPE.ms)
  }
}
