// The shopping list: what the work takes, what of it is at hand, and what is to be bought.
import { formatLength, formatSize, type Unit } from '../../base/units'
import type { FoamUse } from '../../stages/depth'
import { amountIn, type CostLine } from '../../stages/journal'
import { toPay, type SheetsNeeded } from '../../stages/sheets'

/** What stands on a shopping list. */
export interface Shopped {
  needed: readonly SheetsNeeded[]
  foamUse: readonly FoamUse[]
  /** Planned cost, line by line; glue and single things are taken from it. */
  lines: readonly CostLine[]
}

type Row = Record<string, string | number>

/**
 * A row for each paper, foam, glue and thing. `cost` is that of whole packs to buy, in the drawer's currency, and `used` what
 * is used is worth; of what no drawer counts neither what is at hand nor what is to be bought is known.
 */
export function shoppingRows({ needed, foamUse, lines }: Shopped, unit: Unit): Row[] {
  return [
    ...needed.map((need): Row => {
      const { paper, sheets, buy, packs, cost } = need
      const single = paper.perPack === 1
      return {
        what: 'paper',
        name: paper.name,
        size: formatSize(paper.widthMm, paper.heightMm, unit),
        needed: sheets,
        'at hand': paper.count,
        buy: single ? buy : packs,
        unit: single ? 'sheets' : `packs of ${paper.perPack}`,
        cost: toPay(need).toFixed(2),
        used: cost.toFixed(2),
        shop: paper.shop,
      }
    }),
    ...foamUse.map(({ foam, needed: pads, packs, cost }): Row => ({
      what: 'foam',
      name: foam.name,
      size: `${formatSize(foam.widthMm, foam.heightMm, unit)}, ${formatLength(foam.thicknessMm, unit)} thick`,
      needed: pads,
      'at hand': foam.count,
      buy: packs,
      unit: packs === 1 ? 'pack' : 'packs',
      cost: (packs * foam.pricePerPack).toFixed(2),
      used: cost.toFixed(2),
      shop: foam.shop,
    })),
    ...lines.flatMap((line): Row[] => {
      const what = UNCOUNTED[line.kind]
      if (!what || line.amount === 0) return []
      const taken = amountIn(line, unit)
      return [
        {
          what,
          name: line.what,
          size: '',
          needed: Number(taken.amount.toFixed(2)),
          'at hand': '',
          buy: '',
          unit: taken.unit,
          cost: '',
          used: line.cost.toFixed(2),
          shop: '',
        },
      ]
    }),
  ]
}

/** What the work takes that no drawer counts. */
const UNCOUNTED: Partial<Record<CostLine['kind'], string>> = { glue: 'glue', part: 'other' }
