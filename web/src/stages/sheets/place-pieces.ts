// The maker's hand on a sheet: pieces moved, turned, sent elsewhere or settled, and pinned where they then lie.
import { compose, mapPoint, mapPolygon, polygonBox, rotation, translation } from '@feuillet/core/geometry'
import { dropPin, setPin, type Project } from '@feuillet/core/project'
import { paperRuns, splitPartId, summarise, type LaidPiece, type Load, type NestedRun, type Placement } from '@feuillet/core/sheets'
import { foundLayouts, forgetLayout, keepLayout } from '../../app/layouts'
import type { AppDispatch, RootState } from '../../app/store'
import { edited } from '../../app/work'
import { compute } from '../../workers/compute'

type Thunk<T> = (dispatch: AppDispatch, getState: () => RootState) => Promise<T>

const same = (a: Placement, b: Placement) => a.id === b.id && a.copy === b.copy

/** Middle of the box round some pieces, mm from the sheet's corner. */
export function middleOf(pieces: readonly LaidPiece[]): { x: number; y: number } {
  const boxes = pieces.map((piece) => polygonBox(piece.shape))
  const mean = (low: number, high: number) => (low + high) / 2
  return {
    x: mean(Math.min(...boxes.map((b) => b.minX)), Math.max(...boxes.map((b) => b.maxX))),
    y: mean(Math.min(...boxes.map((b) => b.minY)), Math.max(...boxes.map((b) => b.maxY))),
  }
}

/** Moves pieces and turns them about their common middle. Gives the reason where they may not lie there, null where they do. */
export const placePieces =
  (load: Load, pieces: readonly LaidPiece[], dx: number, dy: number, turnDeg: number): Thunk<string | null> =>
  (dispatch, getState) => {
    if (turnDeg !== 0 && load.paper.oneWay) return Promise.resolve('has a one-way pattern and may not turn')
    const { x, y } = middleOf(pieces)
    const map = compose(translation(x + dx, y + dy), compose(rotation(turnDeg), translation(-x, -y)))
    const places = pieces.map(({ placement: p }): Placement => {
      const [px, py] = mapPoint(map, p.x, p.y)
      return { ...p, x: px, y: py, rotation: (((p.rotation + turnDeg) % 360) + 360) % 360 }
    })
    return tryPlaces(load, places, pieces.length > 1 ? `move ${pieces.length} pieces` : 'move a piece')(dispatch, getState)
  }

/** Sends pieces to another whole sheet of the paper, to the corner where they then settle. */
export const sendPieces =
  (load: Load, pieces: readonly LaidPiece[], sheet: number): Thunk<string | null> =>
  async (dispatch, getState) => {
    const nested = runOf(getState(), load)
    if (!nested) return null
    const { sheet: size, gap } = nested.run.instance
    // One after the other, at the first place of a coarse net that is free.
    const placed: Placement[] = []
    for (const piece of pieces) {
      const b = polygonBox(mapPolygon(translation(-piece.placement.x, -piece.placement.y), piece.shape))
      const others = [...nested.layout.placements.filter((p) => !pieces.some((moved) => same(moved.placement, p))), ...placed]
      const found = await compute.firstFree(nested.run.instance, { ...piece.placement, sheet }, others, {
        minX: size.margin - b.minX,
        minY: size.margin - b.minY,
        maxX: size.w - size.margin - b.maxX,
        maxY: size.h - size.margin - b.maxY,
        step: Math.max(2, gap * 2),
      })
      if (!found) return `finds no room on sheet ${sheet + 1}`
      placed.push(found)
    }
    return tryPlaces(load, placed, `send to sheet ${sheet + 1}`)(dispatch, getState)
  }

/** Slides pieces towards the corner as far as they may. */
export const settlePieces =
  (load: Load, pieces: readonly LaidPiece[]): Thunk<string | null> =>
  async (dispatch, getState) => {
    const nested = runOf(getState(), load)
    if (!nested) return null
    const keys = pieces.map(({ placement }) => `${placement.id}#${placement.copy}`)
    const settled = await compute.settle(nested.run.instance, nested.layout.placements, keys)
    const moved = settled.filter((p) => pieces.some((piece) => same(piece.placement, p)))
    return tryPlaces(load, moved, 'settle pieces')(dispatch, getState)
  }

/** Lets go of pieces: the next layout lays them as it will. */
export const unpinPieces = (project: Project, pieces: readonly LaidPiece[]): Project =>
  pieces.reduce((p, { layerId, pieceId, placement }) => dropPin(p, { layerId, pieceId, copy: placement.copy }), project)

/** Lays everything of a paper anew that is not pinned. */
export const fillTheRest =
  (load: Load): Thunk<void> =>
  async (dispatch, getState) => {
    const nested = runOf(getState(), load)
    const { project } = getState().work
    if (!nested || !project) return
    await forgetLayout(nested.run.fingerprint)
    await compute.forget(nested.run.fingerprint)
    // One more step of the history, so that undo brings the layout back.
    await keepLayout(nested.run.fingerprint, await compute.nestAnew(nested.run))
    dispatch(edited({ label: 'fill the rest', project: { ...project, plan: { ...project.plan } } }))
  }

function runOf(state: RootState, load: Load): NestedRun | undefined {
  return state.results.derived?.runs.find(({ run }) => run.paper.id === load.paper.id)
}

/** Pins pieces at places where all of them are legal; the others stay where they lie. */
const tryPlaces =
  (load: Load, places: readonly Placement[], label: string): Thunk<string | null> =>
  async (dispatch, getState) => {
    const { project } = getState().work
    const nested = runOf(getState(), load)
    if (!project || !nested) return null
    const placements = nested.layout.placements.map((p) => places.find((place) => same(place, p)) ?? p)
    for (const place of places) {
      const why = await compute.tryPlace(nested.run.instance, place, placements)
      if (why) return why
    }
    if (getState().work.project !== project) return null
    const next = places.reduce((p, { id, copy, sheet, x, y, rotation: turned }) => {
      const { layerId, pieceId } = splitPartId(id)
      return setPin(p, { layerId, pieceId, copy, sheet, x, y, rotation: turned })
    }, project)
    // The pinned run has a new fingerprint: hand it the layout as it lies, so that nothing else moves.
    const nextRun = paperRuns(next).find((r) => r.paper.id === load.paper.id)!
    await foundLayouts()
    await keepLayout(nextRun.fingerprint, summarise(nextRun.instance, placements))
    dispatch(edited({ label, project: next }))
    return null
  }
