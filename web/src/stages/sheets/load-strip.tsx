import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable'
import { memo, useMemo } from 'react'
import { setPlan } from '@feuillet/core/project'
import { loadTag, type LoadView } from '@feuillet/core/stages/sheets'
import { change } from '../../state/edits'
import { useAppDispatch } from '../../state/store'
import { inkOn } from '../../ui/folio-tab'

interface Props {
  loads: readonly LoadView[]
  picked: string | null
  onPick: (loadId: string) => void
}

/** Loads in cutting order as a row of tabs to drag; a mark where setting or mat change. */
export const LoadStrip = memo(function LoadStrip({ loads, picked, onPick }: Props) {
  const dispatch = useAppDispatch()
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const ids = useMemo(() => loads.map((load) => load.id), [loads])
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const loadOrder = arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
    dispatch(change('order of loads', (p) => setPlan(p, { cutOrder: 'hand', loadOrder })))
  }
  return (
    <section aria-label="Order of loads" className="border-t border-line bg-panel px-5 py-2">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
          <ol className="flex items-end gap-1.5 overflow-x-auto pb-1">
            {loads.map((load, i) => (
              <Tab key={load.id} load={load} first={i === 0} picked={picked === load.id} onPick={onPick} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </section>
  )
})

const Tab = memo(function Tab({
  load,
  first,
  picked,
  onPick,
}: {
  load: LoadView
  first: boolean
  picked: boolean
  onPick: (loadId: string) => void
}) {
  const { setNodeRef, attributes, listeners, transform, isDragging } = useSortable({ id: load.id })
  return (
    <li
      ref={setNodeRef}
      className={`flex shrink-0 items-end gap-1.5 ${isDragging ? 'relative z-10' : ''}`}
      style={transform ? { transform: `translateX(${transform.x}px)` } : undefined}
    >
      {load.change && !first && (
        <span className="max-w-30 border-l-2 border-dashed border-ochre pl-1.5 text-[11.5px] leading-tight text-ochre">
          ▲ {load.change}
        </span>
      )}
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-pressed={picked}
        aria-label={`Load ${load.number}: ${load.paper.name}, layers ${load.folios.join(', ')}`}
        onClick={() => onPick(load.id)}
        className={`clip-tab grid h-12 max-w-32 min-w-14 content-between px-1.5 py-1 text-left ${picked ? 'outline-2 -outline-offset-3 outline-current' : ''}`}
        style={{ background: load.paper.colour, color: inkOn(load.paper.colour) }}
      >
        <span className="truncate leading-none font-semibold">{loadTag(load)}</span>
        <span className="text-[11px] leading-none">load {load.number}</span>
      </button>
    </li>
  )
})
