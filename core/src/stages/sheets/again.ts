// What is to be cut again: a load of its own, off-cuts first, while all that is left to cut stays where it lies.
import { BadInput, fingerprint, fresh, groupBy, type Memo } from '../../base'
import type { Project } from '../../project'
import type { NestInstance, NestLayout, NestPiece, Placement } from './nest/instance'
import { Nester } from './nest/nester'
import { summarise } from './nest/summary'
import { binName, paperRuns, type NestedRun, type PaperRun } from './runs/paper-runs'

/** So long is a place looked for, in whole steps. */
const STEPS = 6

/**
 * A layout in which some pieces lie as they lay, and what is asked for beside them lies on off-cuts that are whole yet, then on sheets of its own.
 * Null where less is asked for than lies there, or where it would part a layer that is to lie on one sheet. Needs the geometry loaded.
 * @param lying copies of each piece numbered from 0
 */
export function withAgain(
  { instance, bins, seed }: PaperRun,
  lying: readonly Placement[],
): NestLayout | null {
  const there = groupBy(lying, ({ id }) => id)
  const countOf = (id: string) => there.get(id)?.length ?? 0
  const asked = new Map(instance.pieces.map(({ id, qty }) => [id, qty]))
  if ([...there].some(([id, list]) => list.length > (asked.get(id) ?? 0))) return null
  const pieces = instance.pieces.flatMap((piece): NestPiece[] =>
    piece.qty > countOf(piece.id) ? [{ ...piece, qty: piece.qty - countOf(piece.id) }] : [],
  )
  if (pieces.length === 0) return summarise(instance, [...lying])
  // A layer that is to lie on one sheet is laid anew with it.
  const together = new Set(pieces.flatMap(({ group, sharing }) => (sharing === 'one-sheet' ? [group] : [])))
  if (instance.pieces.some(({ id, group }) => together.has(group) && countOf(id) > 0)) return null
  const taken = new Set(lying.map(({ sheet }) => sheet))
  const free = bins.flatMap(({ offCut }, k) => (offCut && !taken.has(-1 - k) ? [k] : []))
  const { sheet, gap, offCuts = [] } = instance
  const laid = layOut({ sheet, gap, pieces, offCuts: free.map((k) => offCuts[k]!) }, seed)
  if (!laid) return null
  const whole = Math.max(0, ...lying.map((one) => one.sheet + 1))
  const again = laid.placements.map((one): Placement => ({
    ...one,
    copy: countOf(one.id) + one.copy,
    sheet: one.sheet < 0 ? -1 - free[-1 - one.sheet]! : whole + one.sheet,
  }))
  return summarise(instance, [...lying, ...again])
}

/** Null where a piece goes on no sheet. */
function layOut(instance: NestInstance, seed: number): NestLayout | null {
  try {
    const nester = new Nester(instance, seed)
    for (let k = 0; k < STEPS && !nester.done; k++) nester.step()
    return nester.best
  } catch (error) {
    if (error instanceof BadInput) return null
    throw error
  }
}

/**
 * Runs of a project of which some pieces are to be cut again, or no longer, as it is otherwise: what is left lies as it lay. Of runs that
 * want anything else there is none.
 * @param runs as they lay before
 */
export function laidAgain(project: Project, runs: readonly NestedRun[], memo: Memo = fresh): NestedRun[] {
  const before = new Map(runs.map((one) => [one.run.id, one]))
  return paperRuns(project, memo).flatMap((now): NestedRun[] => {
    const was = before.get(now.id)
    if (!was || was.run.fingerprint === now.fingerprint || !isSameBut(was.run, now)) return []
    const lying = stayIn(now, was)
    const layout = lying && withAgain(now, lying)
    return layout ? [{ run: now, layout }] : []
  })
}

/** What lies as it lay of all that is asked for now; null where an off-cut that something lies on is gone. */
function stayIn({ instance, bins }: PaperRun, { run: was, layout }: NestedRun): Placement[] | null {
  const asked = new Map(instance.pieces.map(({ id, qty }) => [id, qty]))
  const binAt = new Map(bins.map((_, k) => [binName(bins, k), -1 - k]))
  const stay = layout.placements.filter(({ id, copy }) => copy < (asked.get(id) ?? 0))
  const lying = stay.flatMap((place): Placement[] => {
    const sheet = place.sheet < 0 ? binAt.get(binName(was.bins, -1 - place.sheet)) : place.sheet
    return sheet === undefined ? [] : [{ ...place, sheet }]
  })
  return lying.length === stay.length ? lying : null
}

/** Whether two runs differ in nothing but which pieces are asked for, how often, and what there is to lay them on beside whole sheets. */
function isSameBut(was: PaperRun, now: PaperRun): boolean {
  const pieces = new Map(was.instance.pieces.map((piece) => [piece.id, piece]))
  const named = ({ paper, instance: { sheet, gap, pinned = [] } }: PaperRun) =>
    fingerprint([paper.id, sheet, gap, pinned.length])
  const isSame = (piece: NestPiece) => {
    const before = pieces.get(piece.id)
    if (!before) return true
    const { shape, turns, sharing } = piece
    const isShape = before.shape === shape || fingerprint(before.shape) === fingerprint(shape)
    return isShape && before.turns === turns && before.sharing === sharing
  }
  return named(was) === named(now) && now.instance.pieces.every(isSame)
}
