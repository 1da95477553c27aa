import { bedOf, changeCutter, cutWithTool, setPlan, type Project } from '@feuillet/core/project'
import { changesOf, isStandIn, type LoadView } from '@feuillet/core/stages/sheets'
import { formatLength, formatMinutes, formatKept, formatShare, formatSize } from '@feuillet/core/base/units'
import { change, changeSupplies } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Choice, Figure, Figures, Heading, LengthField, Select, Switch } from '../../ui'
import { CutAlready } from './cut-already'
import { LoadPanel } from './load-panel'
import { WhatIsCut } from './what-is-cut'

/** The picked load, or all of them; what is cut, and how pieces are laid. */
export function SheetsPanel({ load, loads }: { load: LoadView | undefined; loads: readonly LoadView[] }) {
  const dispatch = useAppDispatch()
  const { plan, drawer, cut } = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const cost = usePlan('cost')
  const bed = bedOf(drawer.cutter)
  const unpriced = loads.some((l) => isStandIn(l.paper))
  const set = (label: string, patch: Partial<typeof plan>) =>
    dispatch(change(label, (p) => setPlan(p, patch)))
  return (
    <>
      {load ? (
        <LoadPanel load={load} />
      ) : (
        <Heading title="All sheets">
          <Figures>
            {loads.length === 0 && cut.length > 0 ? (
              <CutFigures cut={cut} />
            ) : (
              <ToCutFigures loads={loads} drawer={drawer} />
            )}
            <Figure
              name="Paper"
              value={`${(cost?.paper ?? 0).toFixed(2)} ${drawer.currency}${unpriced ? ' or more' : ''}`}
              basis={`Whole sheets at the drawer's prices${unpriced ? '; layers without a paper have none yet' : ''}`}
            />
          </Figures>
        </Heading>
      )}
      <CutAlready />
      <WhatIsCut />
      <Heading title="Cut with">
        <Select
          label="Cut with"
          className="w-full"
          value={drawer.cutter.id}
          options={[
            ...(drawer.cutters.some(({ id }) => id === drawer.cutter.id) ? [] : [drawer.cutter]),
            ...drawer.cutters,
          ].map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(id) => dispatch(change('what it is cut with', (p) => cutWithTool(p, id)))}
        />
        <p className="mt-1 text-[13px] text-soft">
          {drawer.cutter.tool === 'knife'
            ? `By hand: narrowest strips ${formatLength(0.8, unit)} wider, no passes, board in several light cuts, templates in place of cut files.`
            : `Cuts ${formatSize(bed.bedWidthMm, bed.bedHeightMm, unit)} at the most, by its bed and the mats at hand.`}
        </p>
      </Heading>
      <Heading title="How pieces are laid">
        <div className="grid gap-2">
          <Choice
            label="Turns"
            captioned
            value={plan.turns}
            options={[
              { value: 'free', label: 'any turn' },
              { value: 'quarter', label: 'quarter' },
              { value: 'fixed', label: 'fixed' },
            ]}
            onChange={(turns) => set('turns', { turns })}
          />
          <LengthField
            label="Between pieces"
            valueMm={plan.gapMm}
            unit={unit}
            max={50}
            onChange={(gapMm) => set('gap between pieces', { gapMm })}
          />
          <LengthField
            label="Rim of the sheet"
            valueMm={drawer.cutter.rimMm}
            unit={unit}
            max={60}
            onChange={(rimMm) =>
              dispatch(
                changeSupplies('rim', (held) =>
                  changeCutter(held, drawer.cutter.id, (one) => ({ ...one, rimMm })),
                ),
              )
            }
          />
          <Switch
            label="Use off-cuts of the drawer first"
            checked={plan.useOffCuts}
            onChange={(useOffCuts) => set('off-cuts', { useOffCuts })}
          />
          <Choice
            label="Folio numbers"
            captioned
            value={plan.numbers}
            options={[
              { value: 'drawn', label: 'drawn' },
              { value: 'cut', label: 'cut' },
              { value: 'none', label: 'none' },
            ]}
            onChange={(numbers) => set('folio numbers', { numbers })}
          />
          <Switch
            label="Crosses where pieces go, hidden by them"
            checked={plan.placeMarks}
            onChange={(placeMarks) => set('place marks', { placeMarks })}
          />
          <Choice
            label="Order of loads"
            captioned
            hint="drag the tabs below to make your own"
            value={plan.cutOrder}
            options={[
              {
                value: 'changes',
                label: 'fewest changes',
                title: 'One setting after the other, hard papers last',
              },
              { value: 'build', label: 'as built', title: 'Back to front' },
              ...(plan.cutOrder === 'hand' ? [{ value: 'hand' as const, label: 'by hand' }] : []),
            ]}
            onChange={(cutOrder) => set('order of loads', { cutOrder })}
          />
        </div>
      </Heading>
    </>
  )
}

/** Of the sheets that are left to cut. */
function ToCutFigures({
  loads,
  drawer: { cutter },
}: {
  loads: readonly LoadView[]
  drawer: Project['drawer']
}) {
  const unit = useAppSelector(selectUnit)
  const area = loads.reduce((sum, l) => sum + l.areaMm2, 0)
  const used = loads.reduce((sum, l) => sum + l.utilisation * l.areaMm2, 0)
  return (
    <>
      <Figure
        name="Card used"
        value={area ? formatShare(used / area) : '–'}
        basis="Area of the pieces against whole sheets"
      />
      <Figure
        name="Cutting"
        value={formatMinutes(loads.reduce((sum, l) => sum + l.minutes, 0))}
        basis={`The tool’s way at up to ${formatKept(cutter.speedMmPerS, 'mm/s', unit)}, slower for fine cuts and lace, with ${formatKept(cutter.accelMmPerS2, 'mm/s²', unit)} to gather speed, ${cutter.cornerS} s a point, ${cutter.liftS} s a lift, times passes; ${cutter.loadMin} min a load to put in`}
      />
      <Figure name="Changes of setting or mat" value={changesOf(loads)} />
      <Figure
        name="Off-cuts to keep"
        value={loads.filter((l) => l.offCut).length}
        basis={`Clean strips of ${formatLength(30, unit)} or more that one straight cut keeps whole`}
      />
    </>
  )
}

/** Where nothing is left to cut: of the sheets that are cut. */
function CutFigures({ cut }: { cut: Project['cut'] }) {
  const pieces = cut.flatMap((sheet) => sheet.pieces)
  const spoilt = pieces.filter((piece) => piece.spoilt !== null).length
  return (
    <>
      <Figure name="Sheets cut" value={cut.length} />
      <Figure name="Pieces" value={spoilt ? `${pieces.length}, ${spoilt} not whole` : pieces.length} />
      <Figure
        name="Cutting"
        value={formatMinutes(cut.reduce((sum, { minutes }) => sum + minutes, 0))}
        basis="As it was planned when they were cut; what it took is in the journal"
      />
    </>
  )
}
