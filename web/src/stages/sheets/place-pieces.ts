// The maker's hand on a sheet: pieces moved, turned, sent elsewhere or settled, and pinned where they then lie.
import { compose, joinBoxes, mapPoint, polygonBox, rotation, translation } from '@feuillet/core/base/geometry'
import { dropPin, setPin, setPlan, type Project } from '@feuillet/core/project'
import {
  splitPartId,
  summarise,
  withPins,
  type LaidPiece,
  type Load,
  type NestedRun,
  type Placement,
} from '@feuillet/core/stages/sheets'
import { keepLayout } from '../../session/layouts'
import type { AppDispatch, RootState } from '../../state/store'
import { edited } from '../../state/document'
import { compute } from '../../workers/compute'

type Thunk<T> = (dispatch: AppDispatch, getState: () => RootState) => Promise<T>

const same = (a: Placement, b: Placement) => a.id === b.id && a.copy === b.copy

/** Middle of the box round some pieces, mm from the sheet's corner. */
export function middleOf(pieces: readonly LaidPiece[]): { x: number; y: number } {
  const b = joinBoxes(pieces.map((piece) => polygonBox(piece.shape)))
  return { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }
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
    return tryPlaces(
      load,
      places,
      pieces.length > 1 ? `move ${pieces.length} pieces` : 'move a piece',
    )(dispatch, getState)
  }

/** Sends pieces to another sheet or off-cut of the run, to the first place that is free. */
export const sendPieces =
  (load: Load, pieces: readonly LaidPiece[], sheet: number): Thunk<string | null> =>
  async (dispatch, getState) => {
    const nested = runOf(getState(), load)
    if (!nested) return null
    // One after the other, so that they keep clear of each other too.
    const placed: Placement[] = []
    for (const piece of pieces) {
      const others = [
        ...nested.layout.placements.filter((p) => !pieces.some((moved) => same(moved.placement, p))),
        ...placed,
      ]
      const found = await compute.firstFree(nested.run.instance, { ...piece.placement, sheet }, others)
      if (!found) return 'finds no room there'
      placed.push(found)
    }
    return tryPlaces(load, placed, 'send to another sheet')(dispatch, getState)
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
  pieces.reduce(
    (p, { layerId, pieceId, placement }) => dropPin(p, { layerId, pieceId, copy: placement.copy }),
    project,
  )

/** Lays everything of a paper anew that is not pinned: from another seed, so that undo comes back to the layout before. */
export const fillTheRest = (project: Project, { runId }: Load): Project =>
  setPlan(project, {
    layoutSeeds: { ...project.plan.layoutSeeds, [runId]: (project.plan.layoutSeeds[runId] ?? 1) + 1 },
  })

function runOf(state: RootState, load: Load): NestedRun | undefined {
  return state.results.derived?.runs.find(({ run }) => run.id === load.runId)
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
    const nextRun = withPins(nested.run, next)
    await keepLayout(nextRun.fingerprint, summarise(nextRun.instance, placements))
    dispatch(edited({ label, project: next }))
    return null
  }
