import type { LoadView } from '@feuillet/core/stages/sheets'
import { formatLength, formatMinutes, formatShare, formatSize } from '@feuillet/core/base/units'
import { selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Figure, Figures, FolioTab, Heading } from '../../ui'
import { HandPanel } from './hand-panel'

/** What to know before this sheet goes in, and about the piece that is picked on it. */
export function LoadPanel({ load }: { load: LoadView }) {
  const unit = useAppSelector(selectUnit)
  const loose = load.pieces.filter((piece) => piece.loose)
  return (
    <>
      <Heading title={`Load ${load.number}`}>
        <div className="mb-2 flex flex-wrap gap-1.5">
          {load.folios.map((folio) => (
            <FolioTab key={folio} folio={folio} colour={load.paper.colour} size={30} />
          ))}
        </div>
        <p className="mb-2">
          <strong className="font-semibold">{load.setting.tack} tack</strong> mat, setting “
          {load.setting.name}”, {load.setting.passes === 1 ? '1 pass' : `${load.setting.passes} passes`}
          {load.setting.hardOnBlade && ', clean the blade after it'}
        </p>
        {load.bladeCareM !== null && (
          <p className="mb-2 text-[13px] text-ochre">
            ▲ Look at the blade first, clean or change it: {load.bladeCareM} m cut since.
          </p>
        )}
        {load.change && load.number > 1 && (
          <p className="mb-2 text-[13px] text-ochre">▲ Change first: {load.change}</p>
        )}
        <Figures>
          <Figure name="Pieces" value={load.pieces.length} />
          <Figure
            name="Loose bits to keep"
            value={loose.length}
            basis={[...new Set(loose.map((p) => p.layerName))].join(', ') || undefined}
          />
          <Figure name="Path" value={formatLength(load.outlineMm, unit)} />
          <Figure
            name="Time"
            value={formatMinutes(load.minutes)}
            basis="Path, corners, lifts, passes, loading; starting values of the cutter"
          />
          <Figure
            name="Blade lifted"
            value={formatLength(load.travelMm, unit)}
            basis={`Travel between cuts, small and inner ones first; ${formatShare(Math.max(0, 1 - load.travelMm / (load.plainTravelMm || 1)))} less than piece by piece as they lie in the list`}
          />
          <Figure name="Card used" value={formatShare(load.utilisation)} />
          <Figure
            name="Off-cut"
            value={load.offCut ? formatSize(load.offCut.widthMm, load.offCut.heightMm, unit) : 'none'}
            basis="What one straight cut keeps whole"
          />
        </Figures>
      </Heading>
      <HandPanel load={load} />
    </>
  )
}
