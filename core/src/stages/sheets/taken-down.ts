// A load that leaves the application, in a file or to the machine: what is cut from it is as it lay then, whatever is changed since.
import { compose, mapRing, pathToRings, rotation, translation, type Ring } from '../../base/geometry'
import type { CutSheet, Paper, Project } from '../../project'
import { sheetOf } from './frozen'
import type { Load } from './loads/loads'
import { leftOvers, type LeftOver } from './off-cuts/off-cuts'
import { leftView, type LeftView } from './views'

export interface TakenDown {
  /** What is noted once it is cut. */
  sheet: CutSheet
  /** Clean off-cuts that it leaves. */
  kept: LeftView[]
}

/** Takes down a load as it lies. Needs the geometry loaded. */
export const takeDown = (project: Project, load: Load, stock: readonly Paper[]): TakenDown => ({
  sheet: sheetOf(project, load, { stock }),
  kept: leftOvers(load)
    .filter(({ kind }) => kind === 'clean')
    .map(leftView),
})

/** Outlines that stray by no more lie alike, mm. */
const STRAY_MM = 0.05

/** Whether two sheets bear the same pieces in the same places: a file of one cuts the other. */
export function lieAlike(a: CutSheet, b: CutSheet): boolean {
  if (a.outline !== b.outline || a.onOffCut?.id !== b.onOffCut?.id || a.pieces.length !== b.pieces.length)
    return false
  const left = new Set(b.pieces)
  return a.pieces.every((piece) => {
    for (const other of left)
      if (other.layerId === piece.layerId && other.pieceId === piece.pieceId && coincide(piece, other))
        return left.delete(other)
    return false
  })
}

type CutPiece = CutSheet['pieces'][number]

function coincide(a: CutPiece, b: CutPiece): boolean {
  if (a.path === b.path && a.x === b.x && a.y === b.y && a.rotation === b.rotation) return true
  const left = new Set(ringsOf(b))
  const rings = ringsOf(a)
  return (
    rings.length === left.size &&
    rings.every((ring) => {
      for (const other of left) if (isOn(ring, other)) return left.delete(other)
      return false
    })
  )
}

/** Outlines of a piece where they lie on its sheet. */
const ringsOf = ({ path, x, y, rotation: turn }: CutPiece): Ring[] => {
  const place = compose(translation(x, y), rotation(turn))
  return pathToRings(path).map((ring) => mapRing(place, ring))
}

const isOn = (ring: Ring, on: Ring): boolean =>
  ring.length === on.length && ring.every((value, i) => Math.abs(value - on[i]!) <= STRAY_MM)

/** Which loads are cut, and how that is known. */
export interface WhatIsCut {
  loadIds: readonly string[]
  /** Names of left-overs (`load left-over`) that go into the drawer; clean ones where nothing is said. */
  kept?: readonly string[]
  /** Pieces (`layer/piece#copy`) that came out whole, where not all did: of the load as it lies now. */
  whole?: readonly string[]
  /** What the machine cut, however its load lies now. */
  sent?: TakenDown
  /** Loads as they are in files that were saved: cut as they are there where they lie otherwise now. */
  saved?: readonly TakenDown[]
}

/** Sheets to note as cut, what of them goes into the drawer, and which of them are as in their file and not as they lie now. */
export interface ToNote {
  sheets: CutSheet[]
  kept: LeftView[]
  asSaved: string[]
}

/**
 * What is to be noted of loads that are cut. Needs the geometry loaded.
 * @param now loads and left-overs as they lie now
 */
export function toNote(
  { project, stock }: { project: Project; stock: readonly Paper[] },
  now: { loads: readonly Load[]; left: readonly LeftOver[] },
  what: WhatIsCut,
): ToNote {
  if (what.sent) {
    const { sheet, kept } = what.sent
    const isNoted = project.cut.some(({ id }) => id === sheet.id)
    return { sheets: isNoted ? [] : [sheet], kept, asSaved: [] }
  }
  const whole = what.whole && new Set(what.whole)
  const saved = new Map(what.saved?.map((one) => [one.sheet.id, one]))
  const kept = now.left
    .filter(({ loadId, id, kind }) => (what.kept ? what.kept.includes(`${loadId} ${id}`) : kind === 'clean'))
    .map(leftView)
  const held = [...stock, ...project.drawer.papers].flatMap(({ offCuts }) => offCuts.map(({ id }) => id))
  /** Nothing is cut from an off-cut that is gone. */
  const isThere = ({ onOffCut }: CutSheet) => onOffCut === null || held.includes(onOffCut.id)
  const noted = now.loads
    .filter(({ id }) => what.loadIds.includes(id))
    .map((load) => {
      const sheet = sheetOf(project, load, { stock, whole })
      const file = whole ? undefined : saved.get(load.id)
      return file && isThere(file.sheet) && !lieAlike(file.sheet, sheet)
        ? { ...file, isAsSaved: true }
        : { sheet, kept: kept.filter(({ loadId }) => loadId === load.id), isAsSaved: false }
    })
  return {
    sheets: noted.map(({ sheet }) => sheet),
    kept: noted.flatMap((one) => one.kept),
    asSaved: noted.filter(({ isAsSaved }) => isAsSaved).map(({ sheet }) => sheet.id),
  }
}
