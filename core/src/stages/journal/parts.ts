// What a work takes beside paper, foam and glue: a frame, sticks, twine, and what the maker adds. What of it is at hand, and what to buy.
import { longLength, type Unit } from '../../base/units'
import { thingFor, thingOf, type Part, type Project, type Thing, type ThingCount } from '../../project'
import { measure } from '../measure'

/** What a kind of work takes, for one of it; null where it takes nothing. Starts of ours. */
function startingPart(project: Project): Part | null {
  const { mount } = project
  switch (mount.kind) {
    case 'frame':
      return { id: 'frame', what: 'frame', amount: 1, unit: '', price: 9 }
    case 'topper':
      return mount.sticks > 0
        ? { id: 'sticks', what: 'sticks', amount: mount.sticks, unit: '', price: 0.15 }
        : null
    case 'card':
      return { id: 'envelope', what: 'card and envelope', amount: 1, unit: '', price: 0.6 }
    case 'panel':
      return {
        id: 'panel',
        what: mount.surface === 'canvas' ? 'canvas' : 'wooden panel',
        amount: 1,
        unit: '',
        price: 7,
      }
    case 'garland': {
      const twine = measure(project).stringMm
      return twine
        ? { id: 'twine', what: 'twine', amount: Math.round(twine / 10) / 100, unit: 'm', price: 0.25 }
        : null
    }
    default:
      return null
  }
}

/** Whether a part is what works of the kind take: what is typed for its price is the drawer's, for all projects. */
export const isOurs = ({ mount }: Project, partId: string): boolean => thingOf(mount)?.kind === partId

/** What the kind of work takes, by the name and the price of the drawer's, as the maker corrected it here. */
function ownPart(project: Project): Part | null {
  const part = startingPart(project)
  if (!part) return null
  const thing = thingFor(project.drawer.things, project.mount)
  const set = project.plan.parts.find(({ id }) => id === part.id)
  return set ?? { ...part, what: thing?.name || part.what, price: thing?.price ?? part.price }
}

/** What the work takes beside paper, foam and glue, for one of it: what its kind takes, and what was added. */
export function partsOf(project: Project): Part[] {
  const own = ownPart(project)
  return [...(own ? [own] : []), ...project.plan.parts.filter(({ id }) => id !== own?.id)]
}

/** What the work takes of a thing that is counted in the drawer. */
export interface ThingNeeded {
  thing: Thing
  /** For the whole batch; twine in m. */
  needed: number
  /** So many of them were taken out of the drawer. */
  taken: number
  /** Whole packs to buy, and what they cost. */
  packs: number
  cost: number
}

/** The thing of the drawer that the work takes; null where it takes none, or none that is counted. */
export function thingNeeded(project: Project): ThingNeeded | null {
  const thing = thingFor(project.drawer.things, project.mount)
  const part = ownPart(project)
  if (!part || !thing || thing.count === null || part.amount === 0) return null
  const needed = part.amount * project.plan.batch
  const taken = project.progress.took
    .flatMap(({ things }) => things)
    .reduce((sum, { thingId, count }) => sum + (thingId === thing.id ? count : 0), 0)
  const packs = Math.ceil(Math.max(0, needed - taken - thing.count) / thing.perPack)
  return { thing, needed, taken, packs, cost: packs * thing.perPack * thing.price }
}

/** What laying everything ready takes out of the drawer, for the whole batch. */
export function thingsTaken(project: Project): ThingCount[] {
  const need = thingNeeded(project)
  return need ? [{ thingId: need.thing.id, count: need.needed }] : []
}

/** So many of a thing, or so much of what is measured, in the maker's unit. */
export function countWords(count: number, by: '' | 'm', unit: Unit): string {
  if (by === '') return `${Number(count.toFixed(2))}`
  const { amount, unit: name } = longLength(count, unit)
  return `${Number(amount.toFixed(2))} ${name}`
}

/** What is to be bought: by the piece, in packs, or so much of what is measured. */
export function packWords(
  packs: number,
  { perPack, by }: { perPack: number; by: '' | 'm' },
  unit: Unit,
): string {
  if (by !== '') return countWords(packs * perPack, by, unit)
  return perPack === 1 ? `${packs}` : `${packs} ${packs === 1 ? 'pack' : 'packs'} of ${perPack}`
}
