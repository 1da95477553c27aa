import {
  basisWords,
  bedWords,
  laidKey,
  matWords,
  measureWords,
  type LoadView,
} from '@feuillet/core/stages/sheets'
import { formatLength, formatMinutes, formatKept, formatShare, formatSize } from '@feuillet/core/base/units'
import { useWords } from '../../state/use-words'
import { selectUnit, selectView } from '../../state/selectors'
import { useOlderFile } from '../../state/use-older-file'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked } from '../../state/view'
import { pieceKey } from '../../drawing/sheet'
import { Button, Figure, Figures, FolioTab, Heading, momentOf } from '../../ui'
import { SettingNote } from './setting-note'
import { noteCut } from '../../state/note-cut'
import { HandPanel } from './hand-panel'

/** What to know before this sheet goes in, and about the piece that is picked on it. */
export function LoadPanel({ load }: { load: LoadView }) {
  const { words } = useWords()
  const unit = useAppSelector(selectUnit)
  const loose = load.pieces.filter((piece) => piece.loose)
  const { mat, mind } = matWords(load)
  const byHand = load.setting.basis.from === 'hand'
  return (
    <>
      <Heading title={`Load ${load.number}`}>
        <div className="mb-2 flex flex-wrap gap-1.5">
          {load.folios.map((folio) => (
            <FolioTab key={folio} folio={folio} colour={load.paper.colour} size={30} />
          ))}
        </div>
        <p className="mb-2">
          {byHand ? 'On ' : ''}
          <strong className="font-semibold">{mat}</strong>, {load.setting.name}
          {load.setting.passes > 1 && `, ${load.setting.passes} ${byHand ? 'light cuts' : 'passes'}`}
          {load.setting.hardOnBlade && ', clean or change the blade after it'}
        </p>
        {bedWords(load).map((said, i) => (
          <p key={i} className="mb-2 text-[13px] text-ochre">
            ▲ {words(said)}
          </p>
        ))}
        {mind.map((one) => (
          <p key={one} className="mb-2 text-[13px] text-ochre">
            ▲ {one}.
          </p>
        ))}
        <p className="mb-2 text-[13px] text-soft">
          {byHand
            ? 'The template goes onto the back, mirrored: it is under Cut files.'
            : `Blade ${formatLength(load.setting.depthMm, unit)} out, ${load.setting.forceG} g, ${formatKept(load.setting.speedMmPerS, 'mm/s', unit)}: ${basisWords(load.setting)}.`}
        </p>
        {load.bladeCareM !== null && (
          <p className="mb-2 text-[13px] text-ochre">
            ▲ Look at the blade first, clean or change it: {formatKept(load.bladeCareM, 'm', unit)} cut since.
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
      <ByMeasure load={load} />
      <NoteCut load={load} />
      {!byHand && <SettingNote load={load} />}
      <HandPanel load={load} />
    </>
  )
}

/** What of a load a trimmer or a punch cuts as well. */
function ByMeasure({ load }: { load: LoadView }) {
  const unit = useAppSelector(selectUnit)
  const parts = new Map<string, { name: string; words: string[]; count: number }>()
  for (const { layerId, pieceId, layerName, folio, measure } of load.pieces) {
    if (!measure) continue
    const key = `${layerId}/${pieceId}`
    const count = (parts.get(key)?.count ?? 0) + 1
    parts.set(key, { name: `Layer ${folio}, ${layerName}`, words: measureWords(measure, unit), count })
  }
  if (parts.size === 0) return null
  return (
    <Heading title="By trimmer or punch">
      <ul className="grid max-h-48 gap-2 overflow-y-auto text-[13px]" data-testid="by-measure">
        {[...parts].map(([key, { name, words, count }]) => (
          <li key={key}>
            <p className="font-semibold">
              {name}
              {count > 1 && ` × ${count}`}
            </p>
            {words.map((line) => (
              <p key={line} className="measure">
                {line}
              </p>
            ))}
          </li>
        ))}
      </ul>
    </Heading>
  )
}

/** That this sheet is cut: all of it, or the pieces that are picked. */
function NoteCut({ load }: { load: LoadView }) {
  const dispatch = useAppDispatch()
  const { partKeys } = useAppSelector(selectView)
  const picked = load.pieces.filter((piece) => partKeys.includes(pieceKey(piece)))
  const olderAt = useOlderFile(load)
  const note = (how: { whole?: string[]; asItLies?: boolean } = {}) =>
    void dispatch(noteCut({ loadIds: [load.id], ...how }, `load ${load.number} is cut`)).then(
      (done) => done && dispatch(looked({ loadId: null, partKeys: [] })),
    )
  return (
    <Heading title="Is it cut?">
      <p className="mb-2 text-[13px] text-soft">
        What is cut stays as it is, whatever is changed afterwards; its sheet leaves the drawer, its clean
        off-cut goes in. A ticked step and the cutter note it too.
      </p>
      {olderAt !== null && (
        <p className="mb-2 border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13.5px]">
          <span aria-hidden>▲ </span>The plan has changed since the cut file of this load was saved on{' '}
          {momentOf(olderAt)}. Save it again before you cut, or say which you cut.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button small onClick={() => note()}>
          {olderAt === null ? 'All of it is cut' : 'Cut from that file'}
        </Button>
        {olderAt !== null && (
          <Button small onClick={() => note({ asItLies: true })}>
            Cut as planned now
          </Button>
        )}
        {picked.length > 0 && picked.length < load.pieces.length && (
          <Button
            small
            onClick={() => note({ whole: picked.map(laidKey) })}
            title="The other pieces are laid again on another sheet"
          >
            Only the {picked.length} picked came out whole
          </Button>
        )}
      </div>
    </Heading>
  )
}
