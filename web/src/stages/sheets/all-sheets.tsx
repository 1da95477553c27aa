import { useMemo } from 'react'
import { formatMinutes } from '@feuillet/core/base/units'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { usePlan, usePlans } from '../../plan'
import { SheetGrid, useDrawnOf, type NoteOf } from './sheet-grid'

/** Sheets that are drawn so wide have room for passes. */
const PASSES_PX = 250

const timeOf: NoteOf = ({ minutes, setting }, cellPx) =>
  formatMinutes(minutes) + (setting.passes > 1 && cellPx >= PASSES_PX ? ` · ${setting.passes} passes` : '')

/** All sheets side by side, once they are laid. */
export function AllSheets({
  loads,
  onPick,
}: {
  loads: readonly LoadView[]
  onPick: (loadId: string) => void
}) {
  const drawnOf = useDrawnOf(usePlan('sketches'))
  return <SheetGrid kind="Load" loads={loads} drawnOf={drawnOf} noteOf={timeOf} onPick={onPick} />
}

const nothing = (): void => undefined
const NONE: readonly string[] = []

/** The sheets of those papers that are laid already, while the others are. */
export function SheetsSoFar() {
  const ids = usePlan('runNames') ?? NONE
  const drafts = usePlans('draft', ids)
  const sheets = useMemo(() => drafts.flat(), [drafts])
  const drawnOf = useMemo(() => new Map(sheets.map(({ load, drawn }) => [load.id, drawn])), [sheets])
  const loads = useMemo(() => sheets.map(({ load }, i) => ({ ...load, number: i + 1 })), [sheets])
  return (
    <>
      <p role="status" className="px-5 pt-3 text-[13.5px] text-soft">
        {drafts.length} of {ids.length} papers laid; numbers and order of loads follow.
      </p>
      <SheetGrid kind="Load" loads={loads} drawnOf={drawnOf} noteOf={timeOf} onPick={nothing} />
    </>
  )
}
