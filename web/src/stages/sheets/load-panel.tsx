import { basisWords, laidKey, type LoadView } from '@feuillet/core/stages/sheets'
import { formatLength, formatMinutes, formatShare, formatSize } from '@feuillet/core/base/units'
import { selectUnit, selectView } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked } from '../../state/view'
import { pieceKey } from '../../drawing/sheet'
import { Button, Figure, Figures, FolioTab, Heading } from '../../ui'
import { SettingNote } from './setting-note'
import { noteCut } from '../../state/note-cut'
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
        <p className="mb-2 text-[13px] text-soft">
          Blade {formatLength(load.setting.depthMm, unit)} out, {load.setting.forceG} g,{' '}
          {Math.round(load.setting.speedMmPerS)} mm/s: {basisWords(load.setting)}.
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
      <NoteCut load={load} />
      <SettingNote load={load} />
      <HandPanel load={load} />
    </>
  )
}

/** That this sheet is cut: all of it, or the pieces that are picked. */
function NoteCut({ load }: { load: LoadView }) {
  const dispatch = useAppDispatch()
  const { partKeys } = useAppSelector(selectView)
  const picked = load.pieces.filter((piece) => partKeys.includes(pieceKey(piece)))
  const note = (whole?: string[]) =>
    void dispatch(
      noteCut({ loadIds: [load.id], ...(whole && { whole }) }, `load ${load.number} is cut`),
    ).then((done) => done && dispatch(looked({ loadId: null, partKeys: [] })))
  return (
    <Heading title="Is it cut?">
      <p className="mb-2 text-[13px] text-soft">
        What is cut stays as it is, whatever is changed afterwards; its sheet leaves the drawer, its clean
        off-cut goes in. A ticked step and the cutter note it too.
      </p>
      <div className="flex flex-wrap gap-2">
        <Button small onClick={() => note()}>
          All of it is cut
        </Button>
        {picked.length > 0 && picked.length < load.pieces.length && (
          <Button
            small
            onClick={() => note(picked.map(laidKey))}
            title="The other pieces are laid again on another sheet"
          >
            Only the {picked.length} picked came out whole
          </Button>
        )}
      </div>
    </Heading>
  )
}
