// Shopping lists, of one work and of all: what is wanted, what of it is at hand, and what is to be bought.
import { formatLength, formatSize, type Unit } from '../../base/units'
import { kindOf, thingUnit } from '../../project'
import type { FoamUse } from '../../stages/depth'
import { amountIn, countWords, packsOf, shoppingOf, type CostLine, type Want } from '../../stages/journal'
import type { ThingNeeded } from '../../stages/measure'
import { toPay, type SheetsNeeded } from '../../stages/sheets'

/** What stands on a shopping list. */
export interface Shopped {
  needed: readonly SheetsNeeded[]
  foamUse: readonly FoamUse[]
  /** The thing that the work takes, where it is counted. */
  thing: ThingNeeded | null
  /** Planned cost, line by line; glue and single things are taken from it. */
  lines: readonly CostLine[]
}

type Row = Record<string, string | number>

/**
 * A row for each paper, foam, glue and thing. `cost` is that of whole packs to buy, in the drawer's currency, and `used` what
 * is used is worth; of what no drawer counts neither what is at hand nor what is to be bought is known.
 */
export function shoppingRows({ needed, foamUse, thing, lines }: Shopped, unit: Unit): Row[] {
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
      const what = OTHERS[line.kind]
      if (!what || line.amount === 0) return []
      const taken = amountIn(line, unit)
      const counted = thing && line.partId === kindOf(thing.thing) ? countedIn(thing, unit) : UNCOUNTED
      return [
        {
          what,
          name: line.what,
          size: '',
          needed: Number(taken.amount.toFixed(2)),
          'at hand': counted.atHand,
          buy: counted.buy,
          unit: counted.unit || taken.unit,
          cost: counted.cost,
          used: line.cost.toFixed(2),
          shop: counted.shop,
        },
      ]
    }),
  ]
}

/** What the work takes beside paper and foam. */
const OTHERS: Partial<Record<CostLine['kind'], string>> = { glue: 'glue', part: 'other' }

/** Of what no drawer counts. */
const UNCOUNTED = { atHand: '', buy: '', unit: '', cost: '', shop: '' } as const

/** What is at hand of a thing, and what is to be bought of it. */
function countedIn({ thing, packs, cost }: ThingNeeded, unit: Unit) {
  const { count, perPack, shop } = thing
  const by = thingUnit(kindOf(thing))
  const told = amountsIn(by, unit)
  return {
    atHand: told(count ?? 0),
    buy: by ? told(packs * perPack) : packs,
    unit: by || perPack === 1 ? '' : `packs of ${perPack}`,
    cost: cost.toFixed(2),
    shop,
  }
}

/** Amounts of what is counted by the piece or measured, in the maker's unit. */
const amountsIn = (by: '' | 'm', unit: Unit) => (amount: number) =>
  Number(amountIn({ amount, unit: by }, unit).amount.toFixed(2))

/** One list for all projects: what is to be bought, shop by shop; money in the currency. */
export const wantRows = (wants: readonly Want[], unit: Unit, currency: string): Row[] =>
  shoppingOf(wants)
    .flatMap((shop) => shop.wants)
    .map((want): Row => {
      const { kind, name, unit: by, perPack, shop } = want
      const packs = packsOf(want)
      const told = amountsIn(by, unit)
      return {
        shop,
        what: kind,
        name,
        'at hand': told(want.atHand),
        'spoken for': told(want.wanted),
        buy: by ? told(packs * perPack) : packs,
        unit: by
          ? amountIn({ amount: 0, unit: by }, unit).unit
          : perPack === 1
            ? 'one'
            : `packs of ${perPack}`,
        [`cost ${currency}`]: (packs * want.price).toFixed(2),
        by: want.by.map((one) => `${one.name} ${countWords(one.count, by, unit)}`).join('; '),
      }
    })
