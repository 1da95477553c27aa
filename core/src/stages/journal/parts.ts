// What a work takes beside paper, foam and glue: what carries it, and what the maker adds.
import { shownAs, type Unit } from '../../base/units'
import { packsInWords, thingOf, type Part, type Project } from '../../project'
import { ownPart } from '../measure'

/** Whether a part is what works of the kind take: what is typed for its price is the drawer's, for all projects. */
export const isOurs = ({ mount }: Project, partId: string): boolean => thingOf(mount)?.kind === partId

/** What the work takes beside paper, foam and glue, for one of it: what its kind takes, and what was added. */
export function partsOf(project: Project): Part[] {
  const own = ownPart(project)
  return [...(own ? [own] : []), ...project.plan.parts.filter(({ id }) => id !== own?.id)]
}

/** So many of a thing, or so much of what is measured, in the maker's unit. */
export function countWords(count: number, by: '' | 'm', unit: Unit): string {
  if (by === '') return `${Number(count.toFixed(2))}`
  const { unit: name, one } = shownAs('m', unit)
  return `${Number((count * one).toFixed(2))} ${name}`
}

/** What is to be bought: by the piece, in packs, or so much of what is measured. */
export function packWords(
  packs: number,
  { perPack, by }: { perPack: number; by: '' | 'm' },
  unit: Unit,
): string {
  return by === '' ? packsInWords(packs, perPack) : countWords(packs * perPack, by, unit)
}
