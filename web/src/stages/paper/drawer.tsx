import { Select, Tip } from '../../ui'
import { useDraggable } from '@dnd-kit/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, useState } from 'react'
import { assignPaper, FINISHES, folioOf, type Finish, type Paper } from '@feuillet/core/project'
import { weightWords } from '@feuillet/core/stages/paper'
import { formatLength, formatSize } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { selectLayer, selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { inkOn } from '../../ui/folio-tab'

/** The shared drawer: press a paper to give it to the picked layer, or drag it onto one in the section. */
export function Drawer() {
  const dispatch = useAppDispatch()
  const { stock } = useAppSelector((state) => state.document)
  const project = useAppSelector(selectProject)
  const layer = useAppSelector(selectLayer)
  const [finish, setFinish] = useState<Finish | 'all'>('all')
  const [text, setText] = useState('')
  const shown = stock.filter(
    (paper) =>
      (finish === 'all' || paper.finish === finish) && paper.name.toLowerCase().includes(text.toLowerCase()),
  )
  const { scroller, inSight, room } = useInSight(shown)
  const finishes = FINISHES.filter((f) => stock.some((paper) => paper.finish === f))
  return (
    <section aria-label="Drawer" className="flex min-h-0 flex-col border-t border-line bg-panel px-4 py-2">
      <header className="mb-2 flex items-center gap-3">
        <h2 className="text-[16px]">Drawer</h2>
        <span className="min-w-0 flex-1 text-[13px] leading-tight text-soft">
          {layer
            ? `Press for layer ${folioOf(project, layer.id) ?? '–'}, “${layer.name}”, or drag onto a layer`
            : 'No layer to choose for yet'}
        </span>
        <input
          aria-label="Search the drawer"
          placeholder="name"
          className="w-24"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <Select
          label="Finish"
          className="w-28"
          value={finish}
          options={[
            { value: 'all', label: 'all finishes' },
            ...finishes.map((one) => ({ value: one, label: one })),
          ]}
          onChange={setFinish}
        />
      </header>
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto pb-2">
        <ul
          className="grid auto-rows-[62px] grid-cols-[repeat(auto-fill,minmax(128px,1fr))] gap-2"
          style={room}
        >
          {inSight.map((paper) => (
            <Swatch
              key={paper.id}
              paper={paper}
              inUse={layer?.paperId === paper.id}
              onPick={() =>
                layer &&
                dispatch(
                  change(`${paper.name} for ${layer.name}`, (p, stock) =>
                    assignPaper(p, [layer.id], { paper, stock }),
                  ),
                )
              }
            />
          ))}
          {shown.length === 0 && (
            <li className="col-span-full text-soft">No paper of that name and finish in the drawer.</li>
          )}
        </ul>
      </div>
    </section>
  )
}

/** From so many papers on only those in sight are drawn. */
const MANY = 150
/** A swatch with the gap to the next, as the grid below lays them, px. */
const SWATCH_PX = { wide: 128 + 8, high: 62 + 8 }

/** Those of a long list of papers that are in sight, and the room that the others take. */
function useInSight(papers: readonly Paper[]) {
  const scroller = useRef<HTMLDivElement>(null)
  const [across, setAcross] = useState(1)
  useEffect(() => {
    const list = scroller.current
    if (!list) return
    const watch = new ResizeObserver(() =>
      setAcross(Math.max(1, Math.floor((list.clientWidth + 8) / SWATCH_PX.wide))),
    )
    watch.observe(list)
    return () => watch.disconnect()
  }, [])
  const many = papers.length > MANY
  const count = many ? Math.ceil(papers.length / across) : 0
  // What it gives is read while rendering and handed to nobody.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count,
    enabled: many,
    getScrollElement: () => scroller.current,
    estimateSize: () => SWATCH_PX.high,
    overscan: 3,
  }).getVirtualItems()
  if (!many) return { scroller, inSight: papers, room: {} }
  const [first, last] = [rows[0]?.index ?? 0, rows.at(-1)?.index ?? 0]
  return {
    scroller,
    inSight: papers.slice(first * across, (last + 1) * across),
    room: { paddingTop: first * SWATCH_PX.high, paddingBottom: (count - 1 - last) * SWATCH_PX.high },
  }
}

function Swatch({ paper, inUse, onPick }: { paper: Paper; inUse: boolean; onPick: () => void }) {
  const unit = useAppSelector(selectUnit)
  const drag = useDraggable({ id: `paper:${paper.id}`, data: { kind: 'paper' } })
  const { x = 0, y = 0 } = drag.transform ?? {}
  return (
    <li className={drag.isDragging ? 'relative z-20' : ''}>
      <Tip
        text={`${paper.finish}, ${weightWords(paper, unit)}, ${formatLength(paper.thicknessMm, unit)}, ${paper.core === 'white' ? 'white core' : 'solid core'}, ${formatSize(paper.widthMm, paper.heightMm, unit)}${paper.oneWay ? ', one-way pattern' : ''}`}
      >
        <button
          ref={drag.setNodeRef}
          type="button"
          {...drag.attributes}
          {...drag.listeners}
          aria-pressed={inUse}
          aria-label={`${paper.name}, ${paper.finish} ${weightWords(paper, unit)}, ${paper.count} at hand`}
          onClick={onPick}
          className={`clip-corner flex h-full w-full flex-col justify-end px-2 py-1 text-left ${inUse ? 'outline-2 -outline-offset-4 outline-current' : ''}`}
          style={{
            background: paper.colour,
            color: inkOn(paper.colour),
            transform: drag.transform ? `translate(${x}px, ${y}px)` : undefined,
          }}
        >
          <span className="truncate text-[13.5px] leading-tight font-semibold">
            {inUse && '✓ '}
            {paper.name}
          </span>
          <span className="truncate text-[12px] leading-tight">{paper.finish}</span>
          <span className="flex w-full justify-between gap-2 text-[12px] leading-tight whitespace-nowrap">
            <span>{paper.gsm} gsm</span>
            <span className="measure">× {paper.count}</span>
          </span>
        </button>
      </Tip>
    </li>
  )
}
