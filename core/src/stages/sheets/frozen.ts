// Sheets that are cut: kept as they were, out of every later layout. What was to be cut with them stays where it lay.
import {
  mapPolygon,
  pathToRegion,
  polygonBox,
  polygonToPath,
  rotation,
  translation,
  compose,
} from '../../base/geometry'
import { fresh, groupBy, type Memo } from '../../base'
import {
  cutLayers,
  fromOffCuts,
  refreshPapers,
  setPlan,
  tickStep,
  type CutSheet,
  type Paper,
  type Project,
} from '../../project'
import { noMarks } from '../layers'
import { withAgain } from './again'
import { settingFor } from './loads/settings'
import { cutOfPaper, cutOfRun, nthFree, nthOfCut, type LaidPiece, type Load } from './loads/loads'
import type { NestLayout, Placement } from './nest/instance'
import { stockAfter } from './off-cuts/off-cuts'
import { keptLayout, type KeptLayout } from './runs/kept-layouts'
import { binName, mixesAsked, paperRuns, withPins, type NestedRun, type PaperRun } from './runs/paper-runs'
import { partId, splitPartId } from './runs/parts'

/** A left-over that goes into the drawer. */
interface Kept {
  loadId: string
  paperId: string
  label: string
  path: string
}

/** What was cut, and when. */
export interface ToFreeze {
  /** Sheets as they were when they were cut. */
  sheets: readonly CutSheet[]
  /** Layouts of all runs as they lie now. */
  runs: readonly NestedRun[]
  /** What of them is kept; each names its sheet as the load that it was. */
  kept: readonly Kept[]
  /** When, ms since 1970. */
  at: number
}

/** What cutting leaves of project, drawer and layouts. */
export interface Frozen {
  project: Project
  stock: Paper[]
  /** Layouts of what is left to be cut, by the fingerprints of their runs: as it lay before. */
  found: KeptLayout[]
  /** Mats that they lay on, one a load. */
  matIds: string[]
}

/** Names a piece on a sheet. */
export const laidKey = ({
  layerId,
  pieceId,
  placement,
}: Pick<LaidPiece, 'layerId' | 'pieceId' | 'placement'>): string =>
  `${partId(layerId, pieceId)}#${placement.copy}`

/**
 * Notes sheets as cut: their pieces are kept with outline and paper and leave all later layouts, the sheets and off-cuts leave the
 * drawer, what is kept of them comes in, and their steps are ticked. Needs the geometry loaded.
 */
export function freezeSheets(
  { project, stock }: { project: Project; stock: readonly Paper[] },
  { sheets, runs, kept, at }: ToFreeze,
  memo: Memo = fresh,
): Frozen {
  const before = new Set(stock.flatMap(({ offCuts }) => offCuts.map(({ id }) => id)))
  let nextStock: Paper[] = [...stock]
  let next = project
  for (const [k, sheet] of sheets.entries()) {
    const own = kept.filter(({ loadId }) => loadId === sheet.id)
    const held = [...nextStock, ...next.drawer.papers].find(({ id }) => id === sheet.paper.id)
    nextStock = stockAfter(nextStock, { loads: [sheet], kept: own, stamp: `${at.toString(36)}-${k}` })
    const keptIds = nextStock
      .flatMap(({ offCuts }) => offCuts)
      .filter(({ id }) => !before.has(id))
      .map(({ id }) => id)
    for (const id of keptIds) before.add(id)
    // A sheet that the drawer did not know of leaves nothing there, and is not given back.
    const sheets = Math.min(sheet.took.sheets, held?.count ?? 0)
    // A number that was given meanwhile is no longer free for what was sent under it.
    const taken = next.cut.map((one) => one.number)
    const number = taken.includes(sheet.number) ? nthFree(1, taken) : sheet.number
    const tags = cutOfRun(next, sheet.paper, sheet.onOffCut !== null)
    const nthOfRun = tags.includes(sheet.nthOfRun) ? nthFree(1, tags) : sheet.nthOfRun
    next = withSheet(fromOwn(next, stock, sheet), {
      ...sheet,
      number,
      nthOfRun,
      at,
      took: { ...sheet.took, sheets, keptIds },
    })
    next = tickStep(next, `cut-${sheet.id}`, true)
  }
  next = withoutUsed(next, sheets)
  next = fromOffCuts(project, refreshPapers(next, nextStock), nextStock)
  const held = mixesAfter(next, { runs, sheets }, memo)
  next = setPlan(next, { mixes: held })
  let moved = movedTo(paperRuns(next, memo), { runs, sheets, before: project })
  // Where other things are asked for than lay there, sizes are chosen anew.
  const fitting = moved
    .filter(({ now, moves }) => now && held[now.id] && layoutAfter(now, moves))
    .map(({ now }) => now!.id)
  const mixes = Object.fromEntries(Object.entries(held).filter(([id]) => fitting.includes(id)))
  if (Object.keys(mixes).length < Object.keys(held).length) {
    next = setPlan(next, { mixes })
    moved = movedTo(paperRuns(next, memo), { runs, sheets, before: project })
  }
  const moves = moved.flatMap((one) => one.moves)
  next = setPlan(next, { pins: pinsAfter(next, runs, moves) })
  const found = moved.flatMap(({ now: run, moves }): KeptLayout[] => {
    const pinned = run && withPins(run, next, memo)
    const layout = pinned && layoutAfter(pinned, moves)
    return layout ? [keptLayout({ run: pinned!, layout }, memo)] : []
  })
  return { project: next, stock: nextStock, found, matIds: sheets.flatMap(({ mat }) => mat?.matId ?? []) }
}

/** The runs that are left, and where in them lies what lay on the sheets. */
function movedTo(
  left: readonly PaperRun[],
  { runs, sheets, before }: Pick<ToFreeze, 'runs' | 'sheets'> & { before: Project },
): { now: PaperRun | undefined; moves: Move[] }[] {
  const now = new Map(left.map((run) => [run.id, run]))
  return runs.map((was) => ({
    now: now.get(was.run.id),
    moves: movesOf(was, now.get(was.run.id), sheetsCut(was, sheets, before)),
  }))
}

/** Of papers in several sizes the mix of before, without the sheets that are cut. */
function mixesAfter(
  project: Project,
  { runs, sheets }: Pick<ToFreeze, 'runs' | 'sheets'>,
  memo: Memo,
): Project['plan']['mixes'] {
  const asked = mixesAsked(project, memo)
  return Object.fromEntries(
    runs.flatMap((was) => {
      const name = asked.get(was.run.id)
      if (name === undefined) return []
      const cut = sheetsCut(was, sheets, project)
      const others = was.run.bins.flatMap(({ paper, offCut }, k) =>
        offCut === null && !cut.has(-1 - k) ? [paper.id] : [],
      )
      return [[was.run.id, { asked: name, main: was.run.paper.id, others }]]
    }),
  )
}

const withSheet = (project: Project, sheet: CutSheet): Project => ({
  ...project,
  cut: [...project.cut, sheet],
  journal: {
    ...project.journal,
    sheetsUsed: [
      ...project.journal.sheetsUsed,
      { paperId: sheet.paper.id, count: sheet.onOffCut ? 0 : 1, at: sheet.at },
    ],
  },
})

/** Takes a sheet of a paper that only the project has. */
function fromOwn(project: Project, stock: readonly Paper[], sheet: CutSheet): Project {
  if (stock.some(({ id }) => id === sheet.paper.id)) return project
  const papers = stockAfter(project.drawer.papers, { loads: [sheet], kept: [], stamp: '' })
  return { ...project, drawer: { ...project.drawer, papers } }
}

/** Off-cuts that were cut into are no longer to be planned with, whoever else holds papers. */
function withoutUsed(project: Project, sheets: readonly CutSheet[]): Project {
  const gone = new Set(sheets.flatMap(({ onOffCut }) => (onOffCut ? [onOffCut.id] : [])))
  if (gone.size === 0) return project
  const papers = project.drawer.papers.map((paper) =>
    paper.offCuts.some(({ id }) => gone.has(id))
      ? { ...paper, offCuts: paper.offCuts.filter(({ id }) => !gone.has(id)) }
      : paper,
  )
  return { ...project, drawer: { ...project.drawer, papers } }
}

/**
 * A load as it will stay once it is cut, whatever is changed meanwhile. When that was and what was kept of it is noted then.
 * @param whole pieces (`layer/piece#copy`) that came out whole, where not all did
 */
export function sheetOf(
  project: Project,
  load: Load,
  { stock, whole }: { stock: readonly Paper[]; whole?: ReadonlySet<string> | undefined },
): CutSheet {
  const paths = new Map(
    cutLayers(project).flatMap(({ id, layer }) =>
      layer.pieces.map((piece) => [partId(id, piece.id), piece.path] as const),
    ),
  )
  const shared = stock.find(({ id }) => id === load.paper.id)
  const own = project.drawer.papers.find(({ id }) => id === load.paper.id)
  const offCut = [...(shared?.offCuts ?? []), ...(own?.offCuts ?? [])].find(
    ({ id }) => id === load.onOffCut?.id,
  )
  return {
    id: load.id,
    number: load.number,
    nthOfRun: load.nthOfRun,
    at: 0,
    paper: { ...load.paper, offCuts: [] },
    onOffCut: load.onOffCut && { ...load.onOffCut },
    outline: polygonToPath(load.outline),
    minutes: load.minutes,
    outlineMm: load.outlineMm,
    mat: load.mat && { matId: load.mat.matId, name: load.mat.name },
    pieces: load.pieces.map((piece) => {
      const { layerId, pieceId, folio, layerName, guestId, loose, numbered, printed, placement } = piece
      const { x, y, rotation: turn } = placement
      return {
        layerId,
        pieceId,
        folio,
        layerName,
        guestId,
        loose,
        numbered,
        printed,
        path: paths.get(partId(layerId, pieceId)) ?? polygonToPath(piece.shape),
        x,
        y,
        rotation: turn,
        spoilt: whole === undefined || whole.has(laidKey(piece)) ? null : ('not cut through' as const),
      }
    }),
    took: { sheets: load.onOffCut ? 0 : 1, offCut: offCut ?? null, keptIds: [] },
  }
}

/** Where something lay, and where it lies once sheets are cut; null where it is cut, or its sheet is no longer there. */
interface Move {
  was: Placement
  now: Placement | null
  isCut: boolean
  /** What it lies on then, as pins name it: empty on sheets of the main size. */
  on: string
}

/** All that lay on the sheets of a run: sheets and copies that are left move up, nothing else does. */
function movesOf(was: NestedRun, run: PaperRun | undefined, cut: ReadonlySet<number>): Move[] {
  const binAt = new Map(run?.bins.map((_, k) => [binName(run.bins, k), -1 - k]))
  const cutUnder = (sheet: number) =>
    Array.from({ length: sheet }, (_, s) => s).filter((s) => cut.has(s)).length
  // Any number of sheets is there of one size only, and that may be another by now.
  // Whole sheets of other sizes are counted: those after one that is cut move up.
  const left = was.run.bins.filter(({ offCut }, k) => offCut !== null || !cut.has(-1 - k))
  const nameNow = (sheet: number) => binName(left, left.indexOf(was.run.bins[-1 - sheet]!))
  const sheetNow = (sheet: number) =>
    sheet < 0
      ? binAt.get(nameNow(sheet))
      : run?.paper.id === was.run.paper.id
        ? sheet - cutUnder(sheet)
        : undefined
  const copies = new Map<string, number>()
  return was.layout.placements.map((place) => {
    const isCut = cut.has(place.sheet)
    const sheet = isCut ? undefined : sheetNow(place.sheet)
    if (sheet === undefined) return { was: place, now: null, isCut, on: '' }
    const copy = copies.get(place.id) ?? 0
    copies.set(place.id, copy + 1)
    return { was: place, now: { ...place, sheet, copy }, isCut, on: sheet < 0 ? nameNow(place.sheet) : '' }
  })
}

/** Pins of what is left, where it lies now. Those that held nothing stay, for when they do. */
function pinsAfter(
  project: Project,
  runs: readonly NestedRun[],
  moves: readonly Move[],
): Project['plan']['pins'] {
  const held = new Set(runs.flatMap(({ run }) => run.instance.pinned ?? []).map(keyOf))
  const moved = new Map(moves.map((move) => [keyOf(move.was), move]))
  return project.plan.pins.flatMap((pin) => {
    const key = keyOf({ id: partId(pin.layerId, pin.pieceId), copy: pin.copy })
    const move = moved.get(key)
    if (!held.has(key) || move === undefined) return [pin]
    const { now, on } = move
    return now ? [{ ...pin, sheet: now.sheet, copy: now.copy, on }] : []
  })
}

const keyOf = ({ id, copy }: Pick<Placement, 'id' | 'copy'>): string => `${id}#${copy}`

/** The layout of a run as all that is left of one lies, and what is to be cut again beside it; null where its sheet is gone, or other things are asked for. */
function layoutAfter(run: PaperRun, moves: readonly Move[]): NestLayout | null {
  if (moves.some(({ now, isCut }) => now === null && !isCut)) return null
  return withAgain(
    run,
    moves.flatMap(({ now }) => now ?? []),
  )
}

/**
 * The sheets of a layout that are cut: those on which just the same lies in the same places, of the same paper or off-cut.
 * @param before as the sheets had their names
 */
function sheetsCut({ run, layout }: NestedRun, sheets: readonly CutSheet[], before: Project): Set<number> {
  const taken = cutOfPaper(before, run.paper.id)
  const idOf = (sheet: number) => (sheet < 0 ? null : `${run.paper.id}-${nthFree(sheet + 1, taken)}`)
  const cut = new Set<number>()
  const pinned = new Set((run.instance.pinned ?? []).map(({ sheet }) => sheet))
  // Of sheets that are the same it is the one of that name; else one with a pin on it is left.
  const bySheet = [...groupBy(layout.placements, ({ sheet }) => sheet)].toSorted(
    ([a], [b]) => Number(pinned.has(a)) - Number(pinned.has(b)),
  )
  const placeOf = (layerId: string, { x, y, rotation: turn }: Pick<Placement, 'x' | 'y' | 'rotation'>) =>
    `${layerId} ${x.toFixed(6)} ${y.toFixed(6)} ${turn.toFixed(6)}`
  for (const { id, paper, onOffCut, pieces } of sheets) {
    // What is laid as one has one place for all its pieces.
    const places = new Set(pieces.map((piece) => placeOf(piece.layerId, piece)))
    const alike = bySheet.filter(([sheet, list]) => {
      const bin = sheet < 0 ? run.bins[-1 - sheet]! : { paper: run.paper, offCut: null }
      return (
        !cut.has(sheet) &&
        bin.paper.id === paper.id &&
        bin.offCut?.id === onOffCut?.id &&
        list.length === places.size &&
        list.every((place) => places.has(placeOf(splitPartId(place.id).layerId, place)))
      )
    })
    const same = alike.find(([sheet]) => idOf(sheet) === id) ?? alike[0]
    if (same) cut.add(same[0])
  }
  return cut
}

/** The sheets that are cut as loads: with nothing to lay or to drive any more. */
export const loadsThatAreCut = (project: Project, memo: Memo = fresh): Load[] =>
  project.cut.map((sheet, i) => memo('cut sheet', [sheet, i], () => loadOfRecord(sheet, project.cut, i)))

function loadOfRecord(sheet: CutSheet, all: readonly CutSheet[], at: number): Load {
  const outline = pathToRegion(sheet.outline)[0]!
  const box = polygonBox(outline)
  const nth = nthOfCut(all, at)
  return {
    id: sheet.id,
    runId: sheet.paper.id,
    number: sheet.number,
    paper: sheet.paper,
    sheet: 0,
    nth: sheet.onOffCut ? 0 : nth,
    nthOfRun: nth,
    onOffCut: sheet.onOffCut,
    outline,
    widthMm: box.maxX,
    heightMm: box.maxY,
    folios: [...new Set(sheet.pieces.map(({ folio }) => folio))],
    pieces: sheet.pieces.flatMap((piece, k): LaidPiece[] => {
      const face = pathToRegion(piece.path)[0]
      const { x, y, rotation: turn } = piece
      return face
        ? [
            {
              ...piece,
              placement: {
                id: partId(piece.layerId, piece.pieceId),
                copy: k,
                sheet: 0,
                x,
                y,
                rotation: turn,
              },
              shape: mapPolygon(compose(translation(x, y), rotation(turn)), face),
              marks: noMarks(),
            },
          ]
        : []
    }),
    setting: settingFor(sheet.paper, { name: '', speedMmPerS: 60 }),
    lies: null,
    mat: sheet.mat && { matId: sheet.mat.matId, name: sheet.mat.name, mind: [] },
    path: { strokes: [], travelMm: 0, plainTravelMm: 0 },
    outlineMm: sheet.outlineMm,
    minutes: sheet.minutes,
    offCut: null,
    change: null,
    bladeCareM: null,
    utilisation: 0,
  }
}
