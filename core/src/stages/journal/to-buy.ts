// What of a work is to be bought: packs that run short, and what they come to.
import type { Bought } from '../../project'
import type { FoamUse } from '../depth'
import type { ThingNeeded } from '../measure'
import { toPay, type SheetsNeeded } from '../sheets'

/** The packs to buy, as far as what runs short is known: how many, what they cost in the drawer's currency, and what is in them. */
export function toBuy({
  needed = [],
  foamUse = [],
  thing,
}: {
  needed?: readonly SheetsNeeded[] | undefined
  foamUse?: readonly FoamUse[]
  thing?: ThingNeeded | null | undefined
}): { packs: number; cost: number; bought: Bought } {
  const costs = [
    ...needed.map(toPay),
    ...foamUse.map(({ foam, packs }) => packs * foam.pricePerPack),
    thing?.cost ?? 0,
  ]
  const packs = [...needed, ...foamUse, ...(thing ? [thing] : [])]
  return {
    packs: packs.reduce((sum, one) => sum + one.packs, 0),
    cost: costs.reduce((sum, cost) => sum + cost, 0),
    bought: {
      sheets: Object.fromEntries(needed.map((need) => [need.paper.id, need.packs * need.paper.perPack])),
      pads: Object.fromEntries(foamUse.map((use) => [use.foam.id, use.packs * use.foam.perPack])),
      things: thing ? { [thing.thing.id]: thing.packs * thing.thing.perPack } : {},
    },
  }
}
