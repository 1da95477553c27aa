import { dropPin, findLayer } from '@feuillet/core/project'
import type { Load } from '@feuillet/core/sheets'
import { formatLength, formatMinutes, formatShare, formatSize } from '@feuillet/core/units'
import { change } from '../../app/edits'
import { selectProject, selectUnit, selectView } from '../../app/selectors'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { Button, Figure, Figures, FolioTab, Heading } from '../../ui'
import { pieceKey } from './sheet-drawing'

/** What to know before this sheet goes in, and about the piece that is picked on it. */
export function LoadPanel({ load }: { load: Load }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { partKey } = useAppSelector(selectView)
  const loose = load.pieces.filter((piece) => piece.loose)
  const picked = load.pieces.find((piece) => pieceKey(piece) === partKey)
  const pin = picked && project.plan.pins.find((p) => p.layerId === picked.layerId && p.pieceId === picked.pieceId && p.copy === picked.placement.copy)
  return (
    <>
      <Heading title={`Load ${load.number}`}>
        <div className="mb-2 flex flex-wrap gap-1.5">
          {load.folios.map((folio) => (
            <FolioTab key={folio} folio={folio} colour={load.paper.colour} size={30} />
          ))}
        </div>
        <p className="mb-2">
          <strong className="font-semibold">{load.setting.tack} tack</strong> mat, setting “{load.setting.name}”,{' '}
          {load.setting.passes === 1 ? '1 pass' : `${load.setting.passes} passes`}
          {load.setting.hardOnBlade && ', clean the blade after it'}
        </p>
        {load.change && load.number > 1 && <p className="mb-2 text-[13px] text-ochre">▲ Change first: {load.change}</p>}
        <Figures>
          <Figure name="Pieces" value={load.pieces.length} />
          <Figure name="Loose bits to keep" value={loose.length} basis={loose.map((p) => findLayer(project, p.layerId)?.name).join(', ') || undefined} />
          <Figure name="Path" value={formatLength(load.outlineMm, unit)} />
          <Figure name="Time" value={formatMinutes(load.minutes)} basis="Path, corners, lifts, passes, loading; starting values of the cutter" />
          <Figure
            name="Blade lifted"
            value={formatLength(load.path.travelMm, unit)}
            basis={`Travel between cuts, small and inner ones first; ${formatShare(Math.max(0, 1 - load.path.travelMm / (load.path.plainTravelMm || 1)))} less than piece by piece as they lie in the list`}
          />
          <Figure name="Card used" value={formatShare(load.utilisation)} />
          <Figure
            name="Off-cut"
            value={load.offCut ? formatSize(load.offCut.widthMm, load.offCut.heightMm, unit) : 'none'}
            basis="What one straight cut keeps whole"
          />
        </Figures>
      </Heading>
      <Heading title="Piece">
        {picked ? (
          <>
            <p className="mb-1 font-semibold">
              Layer {picked.folio}, {findLayer(project, picked.layerId)?.name}
            </p>
            <Figures>
              <Figure name="Turn" value={`${((picked.placement.rotation % 360) + 360) % 360}°`} />
              <Figure name="Place" value={pin ? 'pinned by hand' : 'as nested'} />
            </Figures>
            {pin && (
              <Button small className="mt-2" onClick={() => dispatch(change('take a pin out', (p) => dropPin(p, pin)))}>
                Take the pin out
              </Button>
            )}
          </>
        ) : (
          <p className="text-[13px] text-soft">Press a piece to pick it; drag it, or use the arrows and R. It stays where you put it.</p>
        )}
      </Heading>
    </>
  )
}
