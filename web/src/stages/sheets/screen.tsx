import { useState } from 'react'
import { polygonArea } from '@feuillet/core/geometry'
import { sheetsNeeded, changesOf, type Load } from '@feuillet/core/sheets'
import { formatMinutes, formatShare, formatSize, formatLength } from '@feuillet/core/units'
import { change } from '../../app/edits'
import { selectDerived, selectProject, selectStageSnags, selectUnit, selectView } from '../../app/selectors'
import { StageFrame } from '../../app/stage-frame'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { looked } from '../../app/view'
import { setPlan } from '@feuillet/core/project'
import { Button, Choice, Figure, Figures, Heading, LengthField, Switch } from '../../ui'
import { CutterScreen } from './cutter/cutter-screen'
import { FilesButton } from './files-button'
import { LoadPanel } from './load-panel'
import { LoadStrip } from './load-strip'
import { SearchButton } from './search-button'
import { SheetBoard } from './sheet-board'
import { SheetGrid } from './sheet-grid'
import { CutElsewhere, WhatIsCut } from './what-is-cut'

const Caption = ({ children }: { children: string }) => <p className="mt-1 -mb-1 text-[13px] text-soft">{children}</p>

const sheetArea = (load: Load): number => polygonArea(load.outline)

export default function SheetsScreen() {
  const dispatch = useAppDispatch()
  const [onCutter, setOnCutter] = useState(false)
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const derived = useAppSelector(selectDerived)
  const view = useAppSelector(selectView)
  const snags = useAppSelector((state) => selectStageSnags(state, 'sheets'))
  const loads = derived?.loads ?? []
  const load = loads.find((l) => l.id === view.loadId)
  const area = loads.reduce((sum, l) => sum + sheetArea(l), 0)
  const used = loads.reduce((sum, l) => sum + l.utilisation * sheetArea(l), 0)
  const { plan, drawer } = project
  const set = (label: string, patch: Partial<typeof plan>) => dispatch(change(label, (p) => setPlan(p, patch)))
  if (onCutter) return <CutterScreen onClose={() => setOnCutter(false)} />
  return (
    <StageFrame
      title={plan.cutWith ? 'No sheets of its own' : derived ? `${loads.length} ${loads.length === 1 ? 'load' : 'loads'}` : 'Sheets'}
      lead={`${formatLength(drawer.cutter.rimMm, unit)} rim, ${formatLength(plan.gapMm, unit)} between pieces.`}
      snags={{
        list: snags,
        none: plan.cutWith
          ? `Cut along with “${plan.cutWith.name}”.`
          : loads.length
            ? 'Everything fits on the sheets at hand.'
            : derived
              ? 'No layers to cut yet.'
              : 'Computing…',
      }}
      panel={
        <>
          {load ? (
            <LoadPanel load={load} />
          ) : (
            <Heading title="All sheets">
              <Figures>
                <Figure name="Card used" value={area ? formatShare(used / area) : '–'} basis="Area of the pieces against whole sheets" />
                <Figure
                  name="Cutting"
                  value={formatMinutes(loads.reduce((sum, l) => sum + l.minutes, 0))}
                  basis={`Outline at ${drawer.cutter.speedMmPerS} mm/s, ${drawer.cutter.cornerS} s a corner, ${drawer.cutter.liftS} s a lift, ${drawer.cutter.loadMin} min to load, times passes`}
                />
                <Figure name="Changes of setting or mat" value={changesOf(loads)} />
                <Figure
                  name="Off-cuts to keep"
                  value={loads.filter((l) => l.offCut).length}
                  basis="Clean strips of 30 mm or more that one straight cut keeps whole"
                />
                <Figure
                  name="Paper"
                  value={`${sheetsNeeded(loads)
                    .reduce((sum, n) => sum + n.cost, 0)
                    .toFixed(2)} ${drawer.currency}`}
                  basis="Whole sheets at the drawer's prices"
                />
              </Figures>
            </Heading>
          )}
          {!plan.cutWith && <WhatIsCut />}
          <Heading title="How pieces are laid">
            <div className="grid gap-2">
              <Caption>Turns</Caption>
              <Choice
                label="Turns"
                value={plan.turns}
                options={[
                  { value: 'free', label: 'any turn' },
                  { value: 'quarter', label: 'quarter' },
                  { value: 'fixed', label: 'fixed' },
                ]}
                onChange={(turns) => set('turns', { turns })}
              />
              <LengthField label="Between pieces" valueMm={plan.gapMm} unit={unit} max={50} onChange={(gapMm) => set('gap between pieces', { gapMm })} />
              <LengthField
                label="Rim of the sheet"
                valueMm={drawer.cutter.rimMm}
                unit={unit}
                max={60}
                onChange={(rimMm) => dispatch(change('rim', (p) => ({ ...p, drawer: { ...p.drawer, cutter: { ...p.drawer.cutter, rimMm } } })))}
              />
              <Switch label="Use off-cuts of the drawer first" checked={plan.useOffCuts} onChange={(useOffCuts) => set('off-cuts', { useOffCuts })} />
              <Caption>Folio numbers</Caption>
              <Choice
                label="Folio numbers"
                value={plan.numbers}
                options={[
                  { value: 'drawn', label: 'drawn' },
                  { value: 'cut', label: 'cut' },
                  { value: 'none', label: 'none' },
                ]}
                onChange={(numbers) => set('folio numbers', { numbers })}
              />
              <Switch label="Crosses where pieces go, hidden by them" checked={plan.placeMarks} onChange={(placeMarks) => set('place marks', { placeMarks })} />
              <Caption>Order of loads (drag the tabs below to make your own)</Caption>
              <Choice
                label="Order of loads"
                value={plan.cutOrder}
                options={[
                  { value: 'changes', label: 'fewest changes', title: 'One setting after the other, hard papers last' },
                  { value: 'build', label: 'as built', title: 'Back to front' },
                  ...(plan.cutOrder === 'hand' ? [{ value: 'hand' as const, label: 'by hand' }] : []),
                ]}
                onChange={(cutOrder) => set('order of loads', { cutOrder })}
              />
            </div>
          </Heading>
        </>
      }
      actions={
        <>
          <FilesButton />
          <Button disabled={loads.length === 0} onClick={() => setOnCutter(true)}>
            Cutter
          </Button>
          <SearchButton />
        </>
      }
    >
      {load ? (
        <>
          <div className="flex items-baseline gap-3 px-5 pt-3">
            <h2 className="text-[16px]">
              Load {load.number}: {load.paper.name}
            </h2>
            <span className="measure flex-1 text-[13px] text-soft">{`${load.onOffCut ? 'off-cut, ' : ''}${formatSize(load.widthMm, load.heightMm, unit)}`}</span>
            <button type="button" className="text-plum underline" onClick={() => dispatch(looked({ loadId: null, partKeys: [] }))}>
              All sheets
            </button>
          </div>
          <div className="min-h-0 flex-1 p-4 pt-1">
            <SheetBoard key={load.id} load={load} />
          </div>
        </>
      ) : plan.cutWith ? (
        <CutElsewhere host={plan.cutWith} />
      ) : (
        <SheetGrid loads={loads} unit={unit} onPick={(l: Load) => dispatch(looked({ loadId: l.id, partKeys: [] }))} />
      )}
      {loads.length > 0 && <LoadStrip loads={loads} picked={view.loadId} onPick={(loadId) => dispatch(looked({ loadId, partKeys: [] }))} />}
    </StageFrame>
  )
}
