// Sheets of each paper against what is at hand.
import { groupBy } from '../../../base'
import { packsInWords, type Paper } from '../../../project'
import type { Load } from './loads'

/** Sheets of one paper: needed, to buy, and what they cost. */
export interface SheetsNeeded {
  paper: Paper
  /** Whole sheets, and off-cuts beside them. */
  sheets: number
  offCuts: number
  /** Sheets that are short, and the packs they come in. */
  buy: number
  packs: number
  /** Of all whole sheets used, bought or not. */
  cost: number
}

/** Sheets of each paper against what is at hand. */
export function sheetsNeeded(list: readonly Load[]): SheetsNeeded[] {
  const byPaper = groupBy(list, (load) => load.paper.id)
  return [...byPaper.values()].map((group) => {
    const { paper } = group[0]!
    const sheets = group.filter((load) => !load.onOffCut).length
    const buy = Math.max(0, sheets - paper.count)
    return {
      paper,
      sheets,
      offCuts: group.length - sheets,
      buy,
      packs: Math.ceil(buy / paper.perPack),
      cost: sheets * paper.price,
    }
  })
}

/** What the packs to buy cost, in the drawer's currency. */
export const toPay = ({ packs, paper }: Pick<SheetsNeeded, 'packs' | 'paper'>): number =>
  packs * paper.perPack * paper.price

/** “3”, or “1 pack of 10” where it is sold so. */
export const buyWords = ({ packs, paper }: SheetsNeeded): string => packsInWords(packs, paper.perPack)
