import { compose, mapPolygon, polygonBox, rotation, translation } from '@feuillet/core/geometry'
import { setPin } from '@feuillet/core/project'
import { paperRuns, summarise, type LaidPiece, type Load, type Placement } from '@feuillet/core/sheets'
import { keepLayout } from '../../app/layouts'
import type { AppDispatch, RootState } from '../../app/store'
import { edited } from '../../app/work'
import { compute } from '../../workers/compute'

/**
 * Moves and turns (about its middle) a piece and pins it there, the others staying where they are. Gives the reason
 * where it may not lie there, null where it does.
 */
export const placePiece =
  (load: Load, piece: LaidPiece, dx: number, dy: number, turnDeg: number) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<string | null> => {
    const { project } = getState().work
    const nested = getState().results.derived?.runs.find(({ run }) => run.paper.id === load.paper.id)
    if (!project || !nested) return null
    const { run, layout } = nested
    if (turnDeg !== 0 && load.paper.oneWay) return 'has a one-way pattern and may not turn'
    const place = moved(piece, dx, dy, turnDeg)
    const why = await compute.tryPlace(run.instance, place, layout.placements)
    if (why || getState().work.project !== project) return why
    const { x, y, rotation: turned, sheet, copy } = place
    const next = setPin(project, { layerId: piece.layerId, pieceId: piece.pieceId, copy, sheet, x, y, rotation: turned })
    // The pinned run has a new fingerprint: hand it the layout as it lies, so that nothing else moves.
    const nextRun = paperRuns(next).find((r) => r.paper.id === load.paper.id)!
    const placements = layout.placements.map((p) => (p.id === place.id && p.copy === place.copy ? place : p))
    await keepLayout(nextRun.fingerprint, summarise(nextRun.instance, placements))
    dispatch(edited({ label: 'move a piece', project: next }))
    return null
  }

function moved(piece: LaidPiece, dx: number, dy: number, turnDeg: number): Placement {
  const { placement } = piece
  const b = polygonBox(piece.shape)
  const [cx, cy] = [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2]
  // Turning about the middle of the piece is turning about the origin and moving back.
  const about = compose(translation(cx + dx, cy + dy), compose(rotation(turnDeg), translation(-cx, -cy)))
  const origin = mapPolygon(about, { outer: Float64Array.of(placement.x, placement.y), holes: [] }).outer
  return { ...placement, x: origin[0]!, y: origin[1]!, rotation: (placement.rotation + turnDeg) % 360 }
}
