// The maker's hand on a layout: may pieces lie where they are put, where do they slide to, where is there room on another sheet.
import { setPin, type Pin, type Project } from '../../project'
import { fresh, type Memo } from '../../base'
import type { Said } from '../../base/units'
import { whyIllegal } from './nest/exact/legal'
import { firstFree, settle } from './nest/exact/settle'
import type { Placement } from './nest/instance'
import { summarise } from './nest/summary'
import { keptLayout, type KeptLayout } from './runs/kept-layouts'
import { binName, withPins, type NestedRun } from './runs/paper-runs'
import { splitPartId } from './runs/parts'

/** Where pieces were put, with the layout that comes of it by the name that its run then has; or why they cannot lie there. */
export type Placed = { ok: true; pins: readonly Pin[]; found: KeptLayout } | { ok: false; why: Said }

const same = (a: Pick<Placement, 'id' | 'copy'>, b: Pick<Placement, 'id' | 'copy'>): boolean =>
  a.id === b.id && a.copy === b.copy

/** Fixes pieces where they were put. */
export const pinAll = (project: Project, pins: readonly Pin[]): Project => pins.reduce(setPin, project)

/** Puts pieces of a run at places where all of them are legal; the others stay where they lie. Needs the geometry loaded. */
export function putPieces(
  project: Project,
  { nested: { run, layout }, places }: { nested: NestedRun; places: readonly Placement[] },
  memo: Memo = fresh,
): Placed {
  const placements = layout.placements.map((p) => places.find((place) => same(place, p)) ?? p)
  for (const place of places) {
    const why = whyIllegal(run.instance, place, placements)
    if (why) return { ok: false, why }
  }
  const pins = places.map(({ id, copy, sheet, x, y, rotation }): Pin => {
    const on = sheet < 0 ? binName(run.bins, -1 - sheet) : ''
    return { ...splitPartId(id), copy, sheet, on, x, y, rotation }
  })
  const pinned = withPins(run, pinAll(project, pins), memo)
  const found = keptLayout({ run: pinned, layout: summarise(pinned.instance, placements) }, memo)
  return { ok: true, pins, found }
}

/** Where pieces (`id#copy`) come to lie that slide towards the corner of their sheet. */
export const slidePieces = ({ run, layout }: NestedRun, keys: readonly string[]): Placement[] =>
  settle(run.instance, layout.placements, new Set(keys)).filter((p) => keys.includes(`${p.id}#${p.copy}`))

/** The first free places for pieces on another sheet, one after the other; null where there is no room for one of them. */
export function roomFor(
  { run, layout }: NestedRun,
  pieces: readonly Placement[],
  sheet: number,
): Placement[] | null {
  const placed: Placement[] = []
  for (const piece of pieces) {
    const others = [...layout.placements.filter((p) => !pieces.some((moved) => same(moved, p))), ...placed]
    const place = firstFree(run.instance, { ...piece, sheet }, others)
    if (!place) return null
    placed.push(place)
  }
  return placed
}
