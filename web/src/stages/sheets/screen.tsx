import { useCallback, useState, type ReactNode } from 'react'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { isSomeCut } from '@feuillet/core/project'
import { formatLength, formatSize } from '@feuillet/core/base/units'
import { selectProject, selectStageSnags, selectUnit, selectView } from '../../state/selectors'
import { usePlan } from '../../plan'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked } from '../../state/view'
import { Button, dayOf } from '../../ui'
import { AllCut, CutBoard } from './cut-sheets'
import { CutterScreen } from './cutter/cutter-screen'
import { FilesButton } from './files-button'
import { LoadStrip } from './load-strip'
import { SearchButton } from './search-button'
import { SheetBoard } from './sheet-board'
import { AllSheets, SheetsSoFar } from './all-sheets'
import { SheetsPanel } from './sheets-panel'
import { CutElsewhere } from './what-is-cut'

const NO_LOADS: LoadView[] = []

export default function SheetsScreen() {
  const dispatch = useAppDispatch()
  const [onCutter, setOnCutter] = useState(false)
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const known = usePlan('loads')
  const view = useAppSelector(selectView)
  const snags = useAppSelector((state) => selectStageSnags(state, 'sheets'))
  const loads = known ?? NO_LOADS
  const load = loads.find((l) => l.id === view.loadId)
  const sheet = project.cut.find(({ id }) => id === view.loadId)
  const cutLoad = usePlan('cutLoads')?.find(({ id }) => id === sheet?.id)
  const { plan, drawer } = project
  const allIsCut = known?.length === 0 && isSomeCut(project)
  const pick = useCallback((loadId: string) => dispatch(looked({ loadId, partKeys: [] })), [dispatch])
  if (onCutter) return <CutterScreen onClose={() => setOnCutter(false)} />
  return (
    <StageFrame
      title={
        plan.cutWith
          ? 'No sheets of its own'
          : allIsCut
            ? 'All of it is cut'
            : known
              ? `${loads.length} ${loads.length === 1 ? 'load' : 'loads'}`
              : 'Sheets'
      }
      lead={`${formatLength(drawer.cutter.rimMm, unit)} rim, ${formatLength(plan.gapMm, unit)} between pieces.`}
      snags={{
        list: snags,
        none: plan.cutWith
          ? `Cut along with “${plan.cutWith.name}”.`
          : loads.length
            ? 'Everything fits on the sheets at hand.'
            : allIsCut
              ? 'Nothing is left to cut.'
              : 'No layers to cut yet.',
      }}
      panel={plan.cutWith ? null : <SheetsPanel load={load} loads={loads} />}
      actions={
        <>
          <FilesButton />
          {drawer.cutter.tool === 'machine' && (
            <Button disabled={loads.length === 0} onClick={() => setOnCutter(true)}>
              Cutter
            </Button>
          )}
          <SearchButton />
        </>
      }
    >
      {cutLoad && sheet ? (
        <OneSheet title={`Cut sheet ${sheet.number}`} load={cutLoad} note={`cut ${dayOf(sheet.at)}`}>
          <CutBoard key={sheet.id} load={cutLoad} sheet={sheet} />
        </OneSheet>
      ) : load ? (
        <OneSheet title={`Load ${load.number}`} load={load}>
          <SheetBoard key={load.id} load={load} />
        </OneSheet>
      ) : plan.cutWith ? (
        <CutElsewhere host={plan.cutWith} />
      ) : !known && project.layers.length > 0 ? (
        <SheetsSoFar />
      ) : allIsCut && project.cut.length > 0 ? (
        <AllCut onPick={pick} />
      ) : (
        <AllSheets loads={loads} onPick={pick} />
      )}
      {loads.length > 0 && <LoadStrip loads={loads} picked={view.loadId} onPick={pick} />}
    </StageFrame>
  )
}

/** A sheet drawn large, under its name; the way back to all of them beside it. */
function OneSheet({
  title,
  load,
  note,
  children,
}: {
  title: string
  load: LoadView
  note?: string
  children: ReactNode
}) {
  const dispatch = useAppDispatch()
  const unit = useAppSelector(selectUnit)
  const { widthMm, heightMm } = load
  const about = [load.onOffCut && 'off-cut', formatSize(widthMm, heightMm, unit), note].filter(Boolean)
  return (
    <>
      <div className="flex items-baseline gap-3 px-5 pt-3">
        <h2 className="text-[16px]">
          {title}: {load.paper.name}
        </h2>
        <span className="measure flex-1 text-[13px] text-soft">{about.join(', ')}</span>
        <button
          type="button"
          className="text-plum underline"
          onClick={() => dispatch(looked({ loadId: null, partKeys: [] }))}
        >
          All sheets
        </button>
      </div>
      <div className="min-h-0 flex-1 p-4 pt-1">{children}</div>
    </>
  )
}
