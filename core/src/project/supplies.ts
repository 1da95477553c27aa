// What of the shared drawer is no paper: foams, glues, the settings book, frames that were measured. All projects use it up together; what one of them
// changed is put into what is there now, record by record, and pads taken count against those that are left.
import { type z } from 'zod'
import { fingerprint } from '../base'
import { starterAdhesives, starterCutters, starterFoams, starterInks } from './defaults'
import {
  adhesiveSchema,
  cutterSchema,
  inkSchema,
  measuredSchema,
  mountSchema,
  observationSchema,
  foamSchema,
  settingSchema,
  thingSchema,
  type Adhesive,
  type Cutter,
  type Ink,
  type Measured,
  type Mount,
  type Observation,
  type Foam,
  type Joint,
  type Project,
  type Setting,
  type Thing,
} from './schema'

/** What of the shared drawer is no paper. */
export interface Supplies {
  foams: readonly Foam[]
  adhesives: readonly Adhesive[]
  /** The settings book. */
  settings: readonly Setting[]
  /** All that cuts, with its mats. */
  cutters: readonly Cutter[]
  /** What steps took, in all projects. */
  observed: readonly Observation[]
  inks: readonly Ink[]
  /** Frames, sticks, twine: what they cost, and how many are left. */
  things: readonly Thing[]
  /** Frames and their kin that were measured once. No project has a copy: what it took is its mount. */
  measured: readonly Measured[]
}

/** What a drawer holds before anything is known of it: starting values of ours. */
export const starterSupplies = (): Supplies => ({
  foams: starterFoams,
  adhesives: starterAdhesives,
  settings: [],
  cutters: starterCutters,
  observed: [],
  inks: starterInks,
  things: [],
  measured: [],
})

/** A record of some list of the drawer, as far as merging goes. */
interface Item {
  id: string
  /** Null where it is not counted. */
  count?: number | null
}

/** What was done to one list. */
export interface ListChanges<T extends Item> {
  added: T[]
  removed: string[]
  /** Fields set anew; pads put in, or taken out where it is negative. */
  changed: { id: string; fields: Partial<T>; count: number }[]
}

/** What was done to the supplies, list by list. */
export interface SupplyChanges {
  foams: ListChanges<Foam> | null
  adhesives: ListChanges<Adhesive> | null
  settings: ListChanges<Setting> | null
  cutters?: ListChanges<Cutter> | null
  observed?: ListChanges<Observation> | null
  inks?: ListChanges<Ink> | null
  things?: ListChanges<Thing> | null
  measured?: ListChanges<Measured> | null
}

/** What leads from one state of the supplies to another; null where nothing does. */
export function supplyChanges(before: Supplies, after: Supplies): SupplyChanges | null {
  if (before === after) return null
  const changes = {
    foams: listChanges(before.foams, after.foams),
    adhesives: listChanges(before.adhesives, after.adhesives),
    settings: listChanges(before.settings, after.settings),
    cutters: listChanges(before.cutters, after.cutters),
    observed: listChanges(before.observed, after.observed),
    inks: listChanges(before.inks, after.inks),
    things: listChanges(before.things, after.things),
    measured: listChanges(before.measured, after.measured),
  }
  return Object.values(changes).some((list) => list !== null) ? changes : null
}

/** Puts changes into the supplies as they are now. What is gone stays gone; counts never fall below nought. */
export const applySupplyChanges = (supplies: Supplies, changes: SupplyChanges): Supplies => ({
  foams: changes.foams ? applyTo(supplies.foams, changes.foams) : supplies.foams,
  adhesives: changes.adhesives ? applyTo(supplies.adhesives, changes.adhesives) : supplies.adhesives,
  settings: changes.settings ? applyTo(supplies.settings, changes.settings) : supplies.settings,
  inks: changes.inks ? applyTo(supplies.inks, changes.inks) : supplies.inks,
  things: changes.things ? applyTo(supplies.things, changes.things) : supplies.things,
  measured: changes.measured ? applyTo(supplies.measured, changes.measured) : supplies.measured,
  observed: changes.observed ? applyTo(supplies.observed, changes.observed) : supplies.observed,
  cutters: changes.cutters ? applyTo(supplies.cutters, changes.cutters) : supplies.cutters,
})

function listChanges<T extends Item>(before: readonly T[], after: readonly T[]): ListChanges<T> | null {
  if (before === after) return null
  const old = new Map(before.map((one) => [one.id, one]))
  const now = new Set(after.map(({ id }) => id))
  const changes: ListChanges<T> = {
    added: after.filter(({ id }) => !old.has(id)),
    removed: before.filter(({ id }) => !now.has(id)).map(({ id }) => id),
    changed: after.flatMap((one) => {
      const was = old.get(one.id)
      if (!was || was === one) return []
      const isCounted = typeof one.count === 'number' && typeof was.count === 'number'
      const fields = Object.fromEntries(
        Object.entries(one).filter(
          ([key, value]) => !(key === 'count' && isCounted) && !Object.is(value, was[key as keyof T]),
        ),
      ) as Partial<T>
      const count = isCounted ? one.count! - was.count! : 0
      return Object.keys(fields).length > 0 || count !== 0 ? [{ id: one.id, fields, count }] : []
    }),
  }
  return changes.added.length + changes.removed.length + changes.changed.length > 0 ? changes : null
}

function applyTo<T extends Item>(list: readonly T[], changes: ListChanges<T>): T[] {
  const removed = new Set(changes.removed)
  const changed = new Map(changes.changed.map((change) => [change.id, change]))
  const there = new Set(list.map(({ id }) => id))
  return [
    ...list
      .filter(({ id }) => !removed.has(id))
      .map((one) => {
        const change = changed.get(one.id)
        if (!change) return one
        const next = { ...one, ...change.fields }
        return change.count === 0 || typeof one.count !== 'number'
          ? next
          : { ...next, count: Math.max(0, one.count + change.count) }
      }),
    ...changes.added.filter(({ id }) => !there.has(id)),
  ]
}

/** The supplies of a kept record or a file: what cannot be read of it is left out, record by record; what is not there at all is ours. */
export function soundSupplies(kept: unknown): Supplies {
  const starter = starterSupplies()
  if (typeof kept !== 'object' || kept === null) return starter
  const list = <T>(key: string, schema: z.ZodType<T>, fallback: readonly T[]): readonly T[] => {
    const value = (kept as Record<string, unknown>)[key]
    return Array.isArray(value) ? value.flatMap((one) => schema.safeParse(one).data ?? []) : fallback
  }
  return {
    foams: list<Foam>('foams', foamSchema, starter.foams),
    adhesives: list<Adhesive>('adhesives', adhesiveSchema, starter.adhesives),
    settings: list<Setting>('settings', settingSchema, starter.settings),
    cutters: list<Cutter>('cutters', cutterSchema, starter.cutters),
    observed: list<Observation>('observed', observationSchema, starter.observed),
    inks: list<Ink>('inks', inkSchema, starter.inks),
    things: list<Thing>('things', thingSchema, starter.things),
    measured: list<Measured>('measured', measuredSchema, starter.measured),
  }
}

/**
 * Brings the project's copies of foams, glues and cutters up to the shared drawer's, in the drawer's order. What only the project has, as of a
 * file that came from elsewhere, stays with it.
 */
export function refreshSupplies(project: Project, supplies: Supplies): Project {
  const { foams, adhesives, settings, cutters, cutter, observed, inks, things } = project.drawer
  const next = {
    foams: joined(foams, supplies.foams),
    adhesives: joined(adhesives, supplies.adhesives),
    settings: joined(settings, supplies.settings),
    cutters: joined(cutters, supplies.cutters),
    observed: joined(observed, supplies.observed),
    inks: joined(inks, supplies.inks),
    things: joined(things, supplies.things),
    cutter: sameOr(
      cutter,
      supplies.cutters.find(({ id }) => id === cutter.id),
    ),
  }
  if ((Object.keys(next) as (keyof typeof next)[]).every((key) => next[key] === project.drawer[key]))
    return project
  return { ...project, drawer: { ...project.drawer, ...next } }
}

function joined<T extends Item>(own: T[], shared: readonly T[]): T[] {
  const ids = new Set(shared.map(({ id }) => id))
  const next = [...shared, ...own.filter(({ id }) => !ids.has(id))]
  return next.length === own.length && next.every((one, i) => isSame(one, own[i])) ? own : next
}

const isSame = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b)

/** The other where there is one that differs. */
const sameOr = <T>(own: T, other: T | undefined): T =>
  other === undefined || isSame(own, other) ? own : other

/** Takes a cutter out of a project; where it is cut with that one, the first that is left takes its place. */
export function withoutCutter(project: Project, id: string): Project {
  const { drawer } = project
  const cutters = drawer.cutters.filter((one) => one.id !== id)
  const cutter = drawer.cutter.id === id ? (cutters[0] ?? drawer.cutter) : drawer.cutter
  return { ...project, drawer: { ...drawer, cutters, cutter } }
}

/** A project that is cut with one of the cutters at hand. */
export function cutWithTool(project: Project, id: string): Project {
  const cutter = project.drawer.cutters.find((one) => one.id === id)
  return cutter && cutter.id !== project.drawer.cutter.id
    ? { ...project, drawer: { ...project.drawer, cutter } }
    : project
}

/** Changes one cutter, in the shared drawer or, where it is not there, in the project alone. */
export function changeCutter(
  { project, supplies }: { project: Project; supplies: Supplies },
  id: string,
  edit: (cutter: Cutter) => Cutter,
): { project: Project; supplies: Supplies } {
  const isShared = supplies.cutters.some((one) => one.id === id)
  return isShared
    ? {
        project,
        supplies: { ...supplies, cutters: supplies.cutters.map((one) => (one.id === id ? edit(one) : one)) },
      }
    : {
        project: { ...project, drawer: { ...project.drawer, cutter: edit(project.drawer.cutter) } },
        supplies,
      }
}

/** A joint that no longer names a glue. */
function withoutGlue(joint: Joint, id: string): Joint {
  const own = joint.adhesiveId === id ? { ...joint, adhesiveId: null } : joint
  if (!own.pieces?.some(({ adhesiveId }) => adhesiveId === id)) return own
  return {
    ...own,
    pieces: own.pieces.map((one) => (one.adhesiveId === id ? { ...one, adhesiveId: null } : one)),
  }
}

/** Takes a foam or a glue out of the drawer and of the project. Joints that named a glue go back to the project's. */
export function withoutSupply(
  { project, supplies }: { project: Project; supplies: Supplies },
  id: string,
): { project: Project; supplies: Supplies } {
  const less = <T extends Item>(list: readonly T[]) => list.filter((one) => one.id !== id)
  const { drawer, plan } = project
  return {
    project: {
      ...project,
      layers: project.layers.map((layer) => ({ ...layer, joint: withoutGlue(layer.joint, id) })),
      drawer: { ...drawer, foams: less(drawer.foams), adhesives: less(drawer.adhesives) },
      plan: plan.adhesiveId === id ? { ...plan, adhesiveId: null } : plan,
    },
    supplies: { ...supplies, foams: less(supplies.foams), adhesives: less(supplies.adhesives) },
  }
}

/** Keeps a mount under a name: in place of what had the name, else as another. One that no document could hold is not kept. */
export function keepMeasured(supplies: Supplies, kept: Measured): Supplies {
  const read = measuredSchema.safeParse(kept)
  if (!read.success) return supplies
  const { id, name, mount } = read.data
  const { measured } = supplies
  const at = measured.findIndex((one) => one.name === name && one.mount.kind === mount.kind)
  return {
    ...supplies,
    measured: at < 0 ? [...measured, { id, name, mount }] : measured.with(at, { ...measured[at]!, mount }),
  }
}

/** Those that were measured before of a kind, and which of them a mount is, to the last measure. */
export function measuredAs(
  { measured }: Supplies,
  mount: Mount,
): { alike: readonly Measured[]; same: Measured | null } {
  // As the schema writes it, whatever the order of its measures.
  const now = fingerprint(mountSchema.safeParse(mount).data ?? mount)
  const alike = measured.filter((one) => one.mount.kind === mount.kind)
  return { alike, same: alike.find((one) => fingerprint(one.mount) === now) ?? null }
}
