// What was bought goes into the shared drawer.
import { LIMITS } from './limits'
import type { Paper, Project } from './schema'
import type { Supplies } from './supplies'

/** What came in, by the ids of the drawer: sheets of papers, single pads of foams, things by the piece or the metre. */
export interface Bought {
  sheets?: Readonly<Record<string, number>>
  pads?: Readonly<Record<string, number>>
  things?: Readonly<Record<string, number>>
}

/** Puts what was bought to what is there, in the drawer and in the project's copies of it. What is not counted stays so. */
export function putIn<T extends { project: Project; stock: readonly Paper[]; supplies: Supplies }>(
  held: T,
  { sheets = {}, pads = {}, things = {} }: Bought,
): T {
  const { project, stock, supplies } = held
  const { drawer } = project
  return {
    ...held,
    stock: more(stock, sheets),
    supplies: { ...supplies, foams: more(supplies.foams, pads), things: more(supplies.things, things) },
    project: {
      ...project,
      drawer: {
        ...drawer,
        papers: more(drawer.papers, sheets),
        foams: more(drawer.foams, pads),
        things: more(drawer.things, things),
      },
    },
  }
}

const more = <T extends { id: string; count: number | null }>(
  list: readonly T[],
  amounts: Readonly<Record<string, number>>,
): T[] =>
  list.map((one) => {
    const amount = amounts[one.id] ?? 0
    return one.count === null || amount === 0
      ? one
      : { ...one, count: Math.min(LIMITS.count[1], one.count + amount) }
  })

/** “3”, or “1 pack of 10” where it is sold so. */
export const packsInWords = (packs: number, perPack: number): string =>
  perPack === 1 ? `${packs}` : `${packs} ${packs === 1 ? 'pack' : 'packs'} of ${perPack}`
