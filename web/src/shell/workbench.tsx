// The frame round every stage: top bar, section, the stage's own screen; keys, dragging, the find box.
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable'
import { lazy, Suspense, useEffect, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import {
  assignPaper,
  moveLayer,
  refreshHost,
  refreshPapers,
  STAGES,
  type Stage,
} from '@feuillet/core/project'
import { SectionPanel } from '../drawing/section'
import { change } from '../state/edits'
import { FindBox } from '../commands/find-box'
import { KeyList } from '../commands/key-list'
import { forgotten } from '../plan/results'
import { loadProject, loadShelf, loadStock } from '../session/storage'
import { useAppDispatch, useAppSelector } from '../state/store'
import { TopBar } from './top-bar'
import { useKeys } from '../commands/use-keys'
import { resetView } from '../state/view'
import { closed, opened } from '../state/document'

const screens: Record<Stage, React.LazyExoticComponent<React.ComponentType>> = {
  measure: lazy(() => import('../stages/measure/screen')),
  layers: lazy(() => import('../stages/layers/screen')),
  paper: lazy(() => import('../stages/paper/screen')),
  sheets: lazy(() => import('../stages/sheets/screen')),
  depth: lazy(() => import('../stages/depth/screen')),
  assembly: lazy(() => import('../stages/assembly/screen')),
  journal: lazy(() => import('../stages/journal/screen')),
}
const Bench = lazy(() => import('../stages/assembly/bench'))

export function Workbench() {
  const { projectId = '', stage = 'measure' } = useParams()
  const dispatch = useAppDispatch()
  const open = useAppSelector((state) => state.work.project?.id === projectId)
  const [missing, setMissing] = useState(false)
  useEffect(() => {
    let gone = false
    const shelf = loadShelf().catch(() => [])
    void Promise.all([loadProject(projectId), loadStock(), shelf]).then(([project, stock, entries]) => {
      if (gone) return
      if (project)
        dispatch(
          opened({
            project: refreshHost(
              refreshPapers(project, stock),
              entries.map((entry) => entry.project),
            ),
            stock,
          }),
        )
      else setMissing(true)
    })
    return () => {
      gone = true
      dispatch(closed())
      dispatch(resetView())
      dispatch(forgotten())
    }
  }, [projectId, dispatch])
  if (missing)
    return (
      <main className="grid h-full place-content-center gap-3 text-center">
        <p>This project is not kept in this browser.</p>
        <Link to="/" className="text-plum underline">
          Back to the shelf
        </Link>
      </main>
    )
  if (!open) return <p className="p-6 text-soft">Opening…</p>
  if (stage === 'bench')
    return (
      <Suspense>
        <Bench />
      </Suspense>
    )
  return <Frame stage={STAGES.includes(stage as Stage) ? (stage as Stage) : 'measure'} />
}

function Frame({ stage }: { stage: Stage }) {
  const Screen = screens[stage]
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const trouble = useAppSelector((state) => state.results.trouble)
  useKeys((next) => void navigate(`../${next}`, { relative: 'path' }))
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  )
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const target = String(over.id)
    if (active.data.current?.['kind'] === 'paper')
      dispatch(
        change('choose a paper', (p, stock) => {
          const paper = stock.find((candidate) => `paper:${candidate.id}` === active.id)
          return paper ? assignPaper(p, [target], paper, stock) : p
        }),
      )
    else
      dispatch(
        change('move a layer', (p) =>
          moveLayer(
            p,
            String(active.id),
            p.layers.findIndex((layer) => layer.id === target),
          ),
        ),
      )
  }
  return (
    <DndContext sensors={sensors} onDragEnd={onDragEnd}>
      <div className="grid h-full grid-cols-[266px_minmax(0,1fr)] grid-rows-[56px_minmax(0,1fr)]">
        <TopBar stage={stage} />
        <SectionPanel />
        <Suspense fallback={<p className="p-6 text-soft">Opening {stage}…</p>}>
          <Screen />
        </Suspense>
      </div>
      {trouble && (
        <p
          role="alert"
          className="fixed bottom-4 left-1/2 -translate-x-1/2 border border-crimson bg-crimson-pale px-4 py-2"
        >
          ■ A figure could not be computed: {trouble}
        </p>
      )}
      <FindBox />
      <KeyList />
    </DndContext>
  )
}
