import { useState } from 'react'
import {
  colourOf,
  folioOf,
  paperOf,
  refreshPapers,
  ASSUMED_PAPER,
  type Layer,
  type Paper,
  safeStripMm,
} from '@feuillet/core/project'
import { SHEET_SIZES, soldAs, weightWords } from '@feuillet/core/stages/paper'
import { formatLength } from '@feuillet/core/base/units'
import { changeStock } from '../../state/edits'
import { PressFields } from './press-fields'
import { TintPanel } from './tint-panel'
import { SpoilsNote } from '../../shell/spoils-note'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Figure, Figures, FolioTab, Heading, NumberField, LengthField, SelectField } from '../../ui'

/** The paper of the picked layer, with what the maker may know better than the starting values. */
export function PickedPaper({ layer }: { layer: Layer }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const paper = paperOf(project, layer)
  const set = (patch: Partial<Paper>) =>
    dispatch(
      changeStock(
        `${paper!.name} in the drawer`,
        (stock) => stock.map((p) => (p.id === paper!.id ? { ...p, ...patch } : p)),
        { refresh: refreshPapers },
      ),
    )
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={42} />
        <div className="min-w-0">
          <p className="line-clamp-2 text-[15px] font-semibold wrap-anywhere">{layer.name}</p>
          <p className="text-[13px] text-soft">
            {paper
              ? `${paper.name} · ${paper.finish} ${weightWords(paper, unit)}`
              : `no paper yet; ${ASSUMED_PAPER.finish} ${weightWords(ASSUMED_PAPER, unit)} assumed`}
          </p>
        </div>
      </div>
      <SpoilsNote what="paper" of={[layer.id]} className="mb-3" />
      {paper && (
        <Heading title={paper.name}>
          <div className="grid gap-1.5">
            <LengthField
              label="Thickness"
              unit={unit}
              valueMm={paper.thicknessMm}
              min={0.05}
              max={4}
              onChange={(thicknessMm) => set({ thicknessMm })}
            />
            <NumberField
              label="Sheets at hand"
              value={paper.count}
              min={0}
              max={999}
              whole
              onChange={(count) => set({ count })}
            />
            <NumberField
              label="Price a sheet"
              unitHint={project.drawer.currency}
              value={paper.price}
              min={0}
              max={99}
              onChange={(price) => set({ price })}
            />
            <SheetSize key={paper.id} paper={paper} onChange={set} />
            <Figures>
              <Figure
                name="Safe strip"
                value={formatLength(safeStripMm(paper, project.drawer.cutter.tool), unit)}
                basis={`By finish and weight${project.drawer.cutter.tool === 'knife' ? `, and ${formatLength(0.8, unit)} more by knife` : ''}; narrower strips tear when weeded`}
              />
              <Figure name="Cut edge" value={paper.core === 'white' ? 'shows white' : 'coloured through'} />
            </Figures>
          </div>
        </Heading>
      )}
      {paper && <PressFields paper={paper} onChange={(press) => set({ press })} />}
      <TintPanel layer={layer} />
    </>
  )
}

/** In what size its sheets are sold; another than those is typed, its width and height. */
function SheetSize({
  paper,
  onChange,
}: {
  paper: Paper
  onChange: (patch: Pick<Paper, 'widthMm' | 'heightMm'>) => void
}) {
  const unit = useAppSelector(selectUnit)
  const { widthMm, heightMm } = paper
  const sold = soldAs(paper)
  const [isOwn, setOwn] = useState(sold === null)
  const shown = isOwn || sold === null ? OWN : sold
  return (
    <>
      <SelectField
        label="Sheet"
        value={shown}
        options={[
          ...SHEET_SIZES.map(({ name }) => ({ value: name, label: name })),
          { value: OWN, label: 'another size' },
        ]}
        onChange={(name) => {
          setOwn(name === OWN)
          const size = SHEET_SIZES.find((one) => one.name === name)
          if (size) onChange({ widthMm: size.widthMm, heightMm: size.heightMm })
        }}
      />
      {shown === OWN &&
        SIDES.map(({ side, label }) => (
          <LengthField
            key={side}
            label={label}
            unit={unit}
            valueMm={paper[side]}
            min={20}
            max={2000}
            onChange={(mm) => onChange({ widthMm, heightMm, [side]: mm })}
          />
        ))}
    </>
  )
}

const OWN = 'own'

const SIDES = [
  { side: 'widthMm', label: 'Sheet, wide' },
  { side: 'heightMm', label: 'Sheet, high' },
] as const
