import type { LoadView, SheetDrawing as Drawn } from '@feuillet/core/stages/sheets'
import { memo } from 'react'
import { formatMinutes } from '@feuillet/core/base/units'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useSize } from '../../drawing/use-size'
import { SheetDrawing } from '../../drawing/sheet'

/** No sheet is drawn smaller than the first; times are written from the second on, passes from the third. */
const LEAST_PX = 120
const TIMES_PX = 170
const PASSES_PX = 250

/** All loads side by side, as large as the room allows. */
export const SheetGrid = memo(function SheetGrid({
  loads,
  drawnOf,
  onPick,
}: {
  loads: readonly LoadView[]
  /** Their outlines, by load, as far as they are there. */
  drawnOf: ReadonlyMap<string, Drawn>
  onPick: (loadId: string) => void
}) {
  const { drawer } = useAppSelector(selectProject)
  const [ref, { width, height }] = useSize()
  // The number of columns that makes the sheets largest; where they would be tiny, as many as fill the width.
  const many = Math.max(1, Math.floor((width - 20) / (LEAST_PX + 20)))
  const cell = Math.max(
    // Until the room is measured there is none.
    Math.max(LEAST_PX, (width - 40 - (many - 1) * 20) / many),
    ...Array.from({ length: Math.max(1, loads.length) }, (_, k) => k + 1).map((columns) => {
      const rows = Math.ceil(loads.length / columns)
      return Math.min((width - 40 - (columns - 1) * 20) / columns, (height - 24 - rows * 34) / rows)
    }),
  )
  return (
    <div ref={ref} className="min-h-0 flex-1 overflow-y-auto px-5 pt-3">
      <ul className="flex flex-wrap content-start gap-x-5 gap-y-2">
        {loads.map((load) => {
          const { widthMm: w, heightMm: h } = load
          const scale = cell / Math.max(w, h)
          return (
            <li key={load.id} style={{ width: cell }}>
              <button
                type="button"
                className="block w-full text-left"
                onClick={() => onPick(load.id)}
                aria-label={`Load ${load.number}: ${load.paper.name}, layers ${load.folios.join(', ')}`}
              >
                <span className="flex items-baseline justify-between gap-2 pb-1">
                  <span className="truncate text-[13.5px] font-semibold">
                    {load.number}. {load.paper.name}
                  </span>
                  {cell >= TIMES_PX && (
                    <span className="measure text-[12px] whitespace-nowrap text-soft">
                      {formatMinutes(load.minutes)}
                      {load.setting.passes > 1 && cell >= PASSES_PX && ` · ${load.setting.passes} passes`}
                    </span>
                  )}
                </span>
                <svg
                  width={w * scale}
                  height={h * scale}
                  viewBox={`0 0 ${w} ${h}`}
                  overflow="visible"
                  aria-hidden
                >
                  <SheetDrawing
                    load={load}
                    drawn={drawnOf.get(load.id) ?? null}
                    rimMm={drawer.cutter.rimMm}
                    px={1 / scale}
                  />
                </svg>
              </button>
            </li>
          )
        })}
      </ul>
    </div>
  )
})
