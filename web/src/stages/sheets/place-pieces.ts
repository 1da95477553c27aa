// The maker's hand on a sheet: pieces moved, turned, sent elsewhere or settled, and pinned where they then lie. The planner,
// which has their shapes, says whether they may.
import { compose, joinBoxes, mapPoint, rotation, translation } from '@feuillet/core/base/geometry'
import type { Said } from '@feuillet/core/base/units'
import { dropPin, setPlan, type Project } from '@feuillet/core/project'
import {
  pinAll,
  splitPartId,
  type LoadView,
  type PieceView,
  type Placement,
} from '@feuillet/core/stages/sheets'
import { pieceKey } from '../../drawing/sheet'
import { planner } from '../../plan'
import { keepLayouts } from '../../session/layouts'
import { edited } from '../../state/document'
import type { AppDispatch, RootState } from '../../state/store'
import { WorkerGone } from '../../workers'

/** Gives the reason where it could not be done, null where it was. */
type Placing = (dispatch: AppDispatch, getState: () => RootState) => Promise<Said | null>

/** Middle of the box round some pieces, mm from the sheet's corner. */
export function middleOf(pieces: readonly Pick<PieceView, 'box'>[]): { x: number; y: number } {
  const b = joinBoxes(pieces.map((piece) => piece.box))
  return { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }
}

/** By how much pieces are moved (mm) and turned about their common middle (degrees clockwise). */
export interface Move {
  dx: number
  dy: number
  turnDeg: number
}

/** Moves pieces and turns them about their common middle. */
export const placePieces =
  (load: LoadView, pieces: readonly PieceView[], { dx, dy, turnDeg }: Move): Placing =>
  (dispatch, getState) => {
    if (turnDeg !== 0 && load.paper.oneWay) return Promise.resolve('has a one-way pattern and may not turn')
    const { x, y } = middleOf(pieces)
    const map = compose(translation(x + dx, y + dy), compose(rotation(turnDeg), translation(-x, -y)))
    const places = pieces.map(({ placement: p }): Placement => {
      const [px, py] = mapPoint(map, p.x, p.y)
      return { ...p, x: px, y: py, rotation: (((p.rotation + turnDeg) % 360) + 360) % 360 }
    })
    const label = pieces.length > 1 ? `move ${pieces.length} pieces` : 'move a piece'
    return tryPlaces(load, label, () => Promise.resolve(places))(dispatch, getState)
  }

/** Sends pieces to another sheet or off-cut of the run, to the first place that is free. */
export const sendPieces = (load: LoadView, pieces: readonly PieceView[], sheet: number): Placing =>
  tryPlaces(load, 'send to another sheet', async () => {
    // What is laid as one is sent as one.
    const placements = [...new Map(pieces.map((piece) => [pieceKey(piece), piece.placement])).values()]
    return (await planner.host.ask((api) => api.sendTo(load.id, placements, sheet))) ?? 'finds no room there'
  })

/** Slides pieces towards the corner as far as they may. */
export const settlePieces = (load: LoadView, pieces: readonly PieceView[]): Placing =>
  tryPlaces(load, 'settle pieces', () => {
    const keys = pieces.map(({ placement }) => `${placement.id}#${placement.copy}`)
    return planner.host.ask((api) => api.settle(load.id, keys))
  })

/** Lets go of pieces: the next layout lays them as it will. */
export const unpinPieces = (project: Project, pieces: readonly PieceView[]): Project =>
  pieces.reduce((p, { placement: { id, copy } }) => dropPin(p, { ...splitPartId(id), copy }), project)

/** Lays everything of a paper anew that is not pinned: from another seed, so that undo comes back to the layout before. */
export const fillTheRest = (project: Project, { runId }: Pick<LoadView, 'runId'>): Project =>
  setPlan(project, {
    layoutSeeds: { ...project.plan.layoutSeeds, [runId]: (project.plan.layoutSeeds[runId] ?? 1) + 1 },
  })

/** Pins pieces at places where all of them are legal; the others stay where they lie. */
const tryPlaces =
  (load: LoadView, label: string, find: () => Promise<readonly Placement[] | string>): Placing =>
  async (dispatch, getState) => {
    const { project } = getState().document
    if (!project) return null
    try {
      const places = await find()
      if (typeof places === 'string') return places
      const placed = await planner.host.ask((api) => api.place(load.id, places))
      if (!placed) return null
      if (!placed.ok) return placed.why
      if (getState().document.project !== project) return 'was changed meanwhile: try once more'
      // The pinned run has a new fingerprint: hand it the layout as it lies, so that nothing else moves.
      await keepLayouts([placed.found])
      planner.takeLayouts([placed.found])
      dispatch(edited({ label, project: pinAll(project, placed.pins) }))
      return null
    } catch (error) {
      // That the planner broke off was said where it was started anew.
      if (error instanceof WorkerGone) return 'could not be tried: try once more'
      throw error
    }
  }
