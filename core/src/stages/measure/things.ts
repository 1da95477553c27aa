// What carries the work: a frame, a panel, a card, sticks or twine. What of it is at hand, and what to buy.
import { metres, say, type Said } from '../../base/units'
import {
  kindOf,
  packsInWords,
  thingFor,
  thingUnit,
  type Part,
  type Project,
  type Snag,
  type Thing,
  type ThingCount,
} from '../../project'
import { measure } from './measure'

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

/** What the kind of work takes, by the name and the price of the drawer's, as the maker corrected it here. */
export function ownPart(project: Project): Part | null {
  const part = startingPart(project)
  if (!part) return null
  const thing = thingFor(project.drawer.things, project)
  const set = project.plan.parts.find(({ id }) => id === part.id)
  return set ?? { ...part, what: thing?.name || part.what, price: thing?.price ?? part.price }
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
  const thing = thingFor(project.drawer.things, project)
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

/** That the thing runs short. */
export function shortSnags(need: ThingNeeded | null): Snag[] {
  if (!need || need.packs === 0) return []
  const { thing, needed, taken, packs } = need
  const by = thingUnit(kindOf(thing))
  const told = (count: number): Said => (by === 'm' ? say`${metres(count)}` : `${Number(count.toFixed(2))}`)
  const bought = by === 'm' ? told(packs * thing.perPack) : packsInWords(packs, thing.perPack)
  return [
    {
      code: 'short-of-thing',
      stage: 'measure',
      severity: 'caution',
      layer: null,
      at: null,
      message: say`“${thing.name || kindOf(thing) || thing.id}”: ${told(needed - taken)} needed, ${told(thing.count ?? 0)} at hand: buy ${bought}.`,
    },
  ]
}
