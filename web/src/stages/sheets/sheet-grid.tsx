import type { LoadView, SheetDrawing as Drawn } from '@feuillet/core/stages/sheets'
import { memo, useMemo, type ReactNode } from 'react'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useSize } from '../../drawing/use-size'
import { SheetDrawing } from '../../drawing/sheet'

/** No sheet is drawn smaller than the first; what is noted of it is written from the second on. */
const LEAST_PX = 120
const NOTES_PX = 170

/** What is written over a sheet that is drawn so wide (px). */
export type NoteOf = (load: LoadView, cellPx: number) => string

interface Props {
  loads: readonly LoadView[]
  /** Their outlines, by load, as far as they are there. */
  drawnOf: ReadonlyMap<string, Drawn>
  /** What they are called. */
  kind: 'Load' | 'Cut sheet'
  noteOf: NoteOf
  onPick: (loadId: string) => void
  /** What is drawn on a sheet in place of its pieces; `px` is the size of a CSS pixel in mm. */
  children?: (load: LoadView, drawn: Drawn | null, px: number) => ReactNode
}

type Sketches = readonly { loadId: string; drawn: Drawn }[]

/** Outlines by load, of sketches once they are there. */
export const useDrawnOf = (sketches: Sketches | undefined): ReadonlyMap<string, Drawn> =>
  useMemo(() => new Map((sketches ?? []).map(({ loadId, drawn }) => [loadId, drawn])), [sketches])

/** All sheets side by side, as large as the room allows. */
export const SheetGrid = memo(function SheetGrid({ loads, drawnOf, kind, noteOf, onPick, children }: Props) {
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
          const drawn = drawnOf.get(load.id) ?? null
          return (
            <li key={load.id} style={{ width: cell }}>
              <button
                type="button"
                className="block w-full text-left"
                onClick={() => onPick(load.id)}
                aria-label={`${kind} ${load.number}: ${load.paper.name}, layers ${load.folios.join(', ')}`}
              >
                <span className="flex items-baseline justify-between gap-2 pb-1">
                  <span className="truncate text-[13.5px] font-semibold">
                    {load.number}. {load.paper.name}
                  </span>
                  {cell >= NOTES_PX && (
                    <span className="measure text-[12px] whitespace-nowrap text-soft">
                      {noteOf(load, cell)}
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
                  <SheetDrawing load={load} drawn={drawn} rimMm={drawer.cutter.rimMm} px={1 / scale}>
                    {children?.(load, drawn, 1 / scale)}
                  </SheetDrawing>
                </svg>
              </button>
            </li>
          )
        })}
      </ul>
    </div>
  )
})
