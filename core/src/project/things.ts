// Frames, sticks, twine and their kin in the shared drawer: which of them a work takes, what it costs, how many are left.
import { STICK_MOST_MM } from './limits'
import { STICKS_MM } from './mounts'
import { THING_KINDS, type Measured, type Mount, type Project, type Thing, type ThingKind } from './schema'
import type { Supplies } from './supplies'

/** So many of a thing of the drawer. */
export interface ThingCount {
  thingId: string
  count: number
}

/** Sizes that differ by less are the same, mm. */
const SAME_MM = 1

/** Of which kind a thing is; null where it is of none that we know. */
export const kindOf = ({ kind, id }: Thing): ThingKind | null =>
  kind ?? THING_KINDS.find((known) => known === id) ?? null

/** What one of a kind is counted by. */
export const thingUnit = (kind: ThingKind | null): '' | 'm' => (kind === 'twine' ? 'm' : '')

/** The kind of thing that works of a kind take, and its size (mm, null where it has none); null where they take none. */
export function thingOf(
  mount: Mount,
): { kind: ThingKind; widthMm: number | null; heightMm: number | null } | null {
  switch (mount.kind) {
    case 'frame':
      return { kind: 'frame', ...sizeOf(mount.spacer) }
    case 'panel':
      return { kind: 'panel', ...sizeOf(mount.panel) }
    case 'card':
      return { kind: 'envelope', ...sizeOf(mount.panel) }
    case 'topper':
      return mount.sticks > 0 ? { kind: 'sticks', widthMm: mount.stick.widthMm, heightMm: null } : null
    case 'garland':
      return { kind: 'twine', widthMm: null, heightMm: null }
    case 'free':
      return null
  }
}

const sizeOf = ({ widthMm, heightMm }: { widthMm: number; heightMm: number }) => ({ widthMm, heightMm })

/**
 * The thing of the drawer that a work takes: what was taken for it already; of its size before one for any; of two alike the one of which there
 * are some.
 */
export function thingFor(
  things: readonly Thing[],
  { mount, progress }: Pick<Project, 'mount' | 'progress'>,
): Thing | null {
  const wanted = thingOf(mount)
  if (!wanted) return null
  const taken = new Set(progress.took.flatMap((step) => step.things.map(({ thingId }) => thingId)))
  const rank = ({ id, widthMm, heightMm, count }: Thing): number =>
    8 * Number(taken.has(id)) +
    2 * (Number(widthMm !== null) + Number(heightMm !== null)) +
    Number((count ?? 0) > 0)
  const suiting = things.filter((thing) => kindOf(thing) === wanted.kind && fits(thing, wanted))
  return suiting.toSorted((a, b) => rank(b) - rank(a))[0] ?? null
}

/** Whether all that is said of a thing's size holds, one way round or the other. */
function fits(thing: Thing, wanted: { widthMm: number | null; heightMm: number | null }): boolean {
  const same = (a: number | null, b: number | null) => a === null || b === null || Math.abs(a - b) <= SAME_MM
  const { widthMm, heightMm } = thing
  return (
    (same(widthMm, wanted.widthMm) && same(heightMm, wanted.heightMm)) ||
    (wanted.heightMm !== null && same(widthMm, wanted.heightMm) && same(heightMm, wanted.widthMm))
  )
}

/** Things of the drawer that tell the size of a work such as this. */
export function sizedThings(things: readonly Thing[], mount: Mount): readonly Thing[] {
  const wanted = thingOf(mount)
  return things.filter(
    (thing) =>
      wanted !== null &&
      kindOf(thing) === wanted.kind &&
      ((wanted.widthMm !== null && thing.widthMm !== null) ||
        (wanted.heightMm !== null && thing.heightMm !== null)),
  )
}

/**
 * The mount of a work that takes a thing: as one of its size was measured before, the one of its name first; else the work's own with the size of
 * the thing, upright or across as it was. What a lip or a mat hides stays as wide: only the size is known.
 */
export function mountWith(
  thing: Thing,
  { mount, measured }: { mount: Mount; measured: readonly Measured[] },
): { mount: Mount; isMeasured: boolean } {
  // Of a topper a stick tells nothing but itself.
  if (mount.kind === 'topper') {
    const widthMm = Math.min(STICK_MOST_MM, thing.widthMm ?? mount.stick.widthMm)
    const kinds = Object.keys(STICKS_MM) as (keyof typeof STICKS_MM)[]
    const kind = kinds.find((one) => STICKS_MM[one] === widthMm) ?? 'own'
    return { mount: { ...mount, stick: { ...mount.stick, kind, widthMm } }, isMeasured: false }
  }
  const suiting = measured.filter((one) => {
    const wanted = one.mount.kind === mount.kind ? thingOf(one.mount) : null
    return wanted !== null && fits(thing, wanted)
  })
  const known = suiting.find(({ name }) => name === thing.name) ?? suiting[0]
  if (known) return { mount: known.mount, isMeasured: true }
  if (mount.kind === 'free' || mount.kind === 'garland') return { mount, isMeasured: false }
  const now = mount.kind === 'frame' ? mount.spacer : mount.panel
  const given = { widthMm: thing.widthMm ?? now.widthMm, heightMm: thing.heightMm ?? now.heightMm }
  const isAcross = (size: { widthMm: number; heightMm: number }) => Math.sign(size.widthMm - size.heightMm)
  const size =
    isAcross(given) * isAcross(now) < 0 ? { widthMm: given.heightMm, heightMm: given.widthMm } : given
  if (mount.kind !== 'frame') return { mount: { ...mount, panel: size }, isMeasured: false }
  const along = <T extends { widthMm: number; heightMm: number }>(opening: T): T => ({
    ...opening,
    widthMm: Math.max(size.widthMm / 2, opening.widthMm + size.widthMm - now.widthMm),
    heightMm: Math.max(size.heightMm / 2, opening.heightMm + size.heightMm - now.heightMm),
  })
  return {
    mount: {
      ...mount,
      spacer: size,
      opening: along(mount.opening),
      mat: mount.mat && { ...mount.mat, opening: along(mount.mat.opening) },
    },
    isMeasured: false,
  }
}

/**
 * Prices what works as this one take, for all projects: the thing of the drawer that suits, else one that is not counted, of any size.
 * @param id of the thing where it is new and another has the id of its kind
 */
export function priceThing(
  { project, supplies }: { project: Project; supplies: Supplies },
  { what, price, id }: { what: string; price: number; id: string },
): Supplies {
  const { things } = supplies
  const wanted = thingOf(project.mount)
  if (!wanted) return supplies
  const known = thingFor(things, project)
  if (known) return { ...supplies, things: things.map((one) => (one === known ? { ...one, price } : one)) }
  const { kind } = wanted
  // The same in two tabs comes to one.
  const free = things.some((one) => one.id === kind) ? id : kind
  return { ...supplies, things: [...things, { ...newThing(kind, free), name: what, price }] }
}

/** A thing of a kind and of any size, which is not counted. */
export const newThing = (kind: ThingKind, id: string): Thing => ({
  id,
  kind,
  name: '',
  widthMm: null,
  heightMm: null,
  price: 0,
  count: null,
  perPack: 1,
  shop: '',
})
