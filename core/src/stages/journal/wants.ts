// What all projects together want of the drawer: what is spoken for, what runs short, and what to buy where.
import { kindOf, thingUnit, type Bought, type Foam, type Paper, type Thing } from '../../project'
import type { Counted } from './candidate'

/** A paper, a foam or another thing of the drawer that projects want. */
export interface Want {
  /** What the drawer has it under. */
  id: string
  name: string
  kind: 'paper' | 'foam' | 'thing'
  /** What it is counted by where that is a measure, as twine is by the metre. */
  unit: '' | 'm'
  /** Sheets, single pads, or pieces. */
  atHand: number
  wanted: number
  perPack: number
  /** Of a pack. */
  price: number
  /** Where it is bought; empty where that is not noted. */
  shop: string
  /** By whom, and how many. */
  by: { name: string; count: number }[]
}

/** How many whole packs to buy of what is wanted beyond what is at hand. */
export const packsOf = ({ atHand, wanted, perPack }: Pick<Want, 'atHand' | 'wanted' | 'perPack'>): number =>
  Math.ceil(Math.max(0, wanted - atHand) / perPack)

/** What the packs to buy cost, in the drawer's currency. */
export const billOf = (wants: readonly Want[]): number =>
  wants.reduce((sum, want) => sum + packsOf(want) * want.price, 0)

/** What the packs to buy come to. */
export function boughtOf(wants: readonly Want[]): Bought {
  const of = (kind: Want['kind']) =>
    Object.fromEntries(
      wants.filter((want) => want.kind === kind).map((want) => [want.id, packsOf(want) * want.perPack]),
    )
  return { sheets: of('paper'), pads: of('foam'), things: of('thing') }
}

/** What all projects want, what runs out first before the rest. What neither drawer has is passed over. */
export function wantsOf(
  counted: readonly Pick<Counted, 'name' | 'wants'>[],
  { papers, foams, things }: { papers: readonly Paper[]; foams: readonly Foam[]; things: readonly Thing[] },
): Want[] {
  const wants = new Map<string, Want>()
  const add = (own: Omit<Want, 'wanted' | 'by'>, name: string, count: number) => {
    if (count <= 0) return
    const key = `${own.kind} ${own.id}`
    const want = wants.get(key) ?? { ...own, wanted: 0, by: [] }
    want.wanted += count
    want.by.push({ name, count })
    wants.set(key, want)
  }
  for (const { name, wants: own } of counted) {
    for (const [id, count] of Object.entries(own.sheets)) {
      const paper = papers.find((one) => one.id === id)
      if (!paper) continue
      const { count: atHand, perPack, shop } = paper
      add({ id, name: paper.name, kind: 'paper', unit: '', atHand, perPack, price: paper.price * perPack, shop }, name, count) // prettier-ignore
    }
    for (const [id, count] of Object.entries(own.pads)) {
      const foam = foams.find((one) => one.id === id)
      if (!foam) continue
      const { count: atHand, perPack, shop } = foam
      add({ id, name: foam.name, kind: 'foam', unit: '', atHand, perPack, price: foam.pricePerPack, shop }, name, count) // prettier-ignore
    }
    for (const [id, count] of Object.entries(own.things)) {
      const thing = things.find((one) => one.id === id)
      if (!thing || thing.count === null) continue
      const { count: atHand, perPack, shop } = thing
      const kind = kindOf(thing)
      add({ id, name: thing.name || kind || id, kind: 'thing', unit: thingUnit(kind), atHand, perPack, price: thing.price * perPack, shop }, name, count) // prettier-ignore
    }
  }
  return [...wants.values()].toSorted((a, b) => a.atHand / a.wanted - b.atHand / b.wanted)
}

/** What is to be bought, shop by shop by their names; what has none noted comes last. */
export function shoppingOf(wants: readonly Want[]): { shop: string; wants: Want[]; bill: number }[] {
  const shops = [...new Set(wants.filter((want) => packsOf(want) > 0).map(({ shop }) => shop))]
  return shops
    .toSorted((a, b) => Number(a === '') - Number(b === '') || a.localeCompare(b))
    .map((shop) => {
      const own = wants.filter((want) => want.shop === shop && packsOf(want) > 0)
      return { shop, wants: own, bill: billOf(own) }
    })
}
