// The colours of all layers in one list: one is dragged onto another, and its layers are cut of that paper too.
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core'
import { useEffect, useRef } from 'react'
import { toast } from 'sonner'
import { coloursInUse, giveColour, type ColourInUse } from '@feuillet/core/stages/paper'
import type { SheetsNeeded } from '@feuillet/core/stages/sheets'
import { change } from '../../state/edits'
import { selectProject, selectSettled } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { usePlan } from '../../plan'
import { Heading } from '../../ui'

const sheetsOf = (needed: readonly SheetsNeeded[]): number =>
  needed.reduce((sum, { sheets, offCuts }) => sum + sheets + offCuts, 0)

const HOW_TO = {
  draggable: 'Space lifts a colour, arrows move it, Space lets it go, Escape puts it back.',
}

/** What is read out while a colour is moved. */
function spokenOf(colours: readonly ColourInUse[]): Announcements {
  const nameOf = (id: unknown) => `“${colours.find(({ key }) => key === id)?.name ?? ''}”`
  return {
    onDragStart: ({ active }) => `${nameOf(active.id)} is lifted.`,
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id
        ? `${nameOf(active.id)} lies over ${nameOf(over.id)}: let go, and they are one.`
        : `${nameOf(active.id)} lies in its place.`,
    onDragEnd: ({ active }) => `${nameOf(active.id)} is let go.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} is put back.`,
  }
}

export function ColoursInUse() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const settled = useAppSelector(selectSettled)
  const needed = usePlan('needed')
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  )
  /** What was merged last, and how many sheets it all took before. */
  const merged = useRef<{ words: string; before: number } | null>(null)
  useEffect(() => {
    if (!merged.current || !settled || !needed) return
    const { words, before } = merged.current
    merged.current = null
    const saved = before - sheetsOf(needed)
    toast(
      `${words}: ${
        saved > 0
          ? `${saved} ${saved === 1 ? 'sheet' : 'sheets'} fewer, ${sheetsOf(needed)} in all.`
          : `no sheet fewer, ${sheetsOf(needed)} in all.`
      } Ctrl+Z undoes it.`,
    )
  }, [settled, needed])
  const colours = coloursInUse(project)
  if (colours.length < 2) return null
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const from = colours.find(({ key }) => key === active.id)
    const to = colours.find(({ key }) => key === over?.id)
    if (!from || !to || from === to) return
    const words = `“${from.name}” merged into “${to.name}”`
    if (needed) merged.current = { words, before: sheetsOf(needed) }
    dispatch(
      change(`merge ${from.name} into ${to.name}`, (p, stock) => giveColour(p, from.layerIds, { to, stock })),
    )
  }
  return (
    <Heading title="Colours in use">
      <p className="mb-1.5 text-[13px] text-soft">
        Drag one onto another (or lift it by Space and move it by arrows): its layers are cut of that paper
        too.
      </p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={{ announcements: spokenOf(colours), screenReaderInstructions: HOW_TO }}
      >
        <ul className="grid gap-1">
          {colours.map((colour) => (
            <Row
              key={colour.key}
              colour={colour}
              sheets={needed ? sheetsOf(needed.filter(({ paper }) => paper.id === colour.paperId)) : null}
            />
          ))}
        </ul>
      </DndContext>
    </Heading>
  )
}

function Row({ colour, sheets }: { colour: ColourInUse; sheets: number | null }) {
  const drag = useDraggable({ id: colour.key })
  const drop = useDroppable({ id: colour.key })
  const { x = 0, y = 0 } = drag.transform ?? {}
  const n = colour.layerIds.length
  return (
    <li
      ref={drop.setNodeRef}
      className={`border ${drop.isOver && !drag.isDragging ? 'border-plum' : 'border-line'} ${drag.isDragging ? 'relative z-20' : ''}`}
    >
      <button
        ref={drag.setNodeRef}
        type="button"
        {...drag.attributes}
        {...drag.listeners}
        aria-label={`${colour.name}, ${n} ${n === 1 ? 'layer' : 'layers'}`}
        className="flex w-full cursor-grab items-center gap-2 bg-panel px-1.5 py-0.5 text-left text-[13px]"
        style={{ transform: drag.transform ? `translate(${x}px, ${y}px)` : undefined }}
      >
        <span
          aria-hidden
          className="size-4 shrink-0 border border-line"
          style={{ background: colour.colour }}
        />
        <span className="min-w-0 flex-1 truncate">{colour.name}</span>
        <span className="measure shrink-0 text-[12px] text-soft">
          {n} {n === 1 ? 'layer' : 'layers'}
          {sheets ? `, ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}` : ''}
        </span>
      </button>
    </li>
  )
}
