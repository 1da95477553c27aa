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
import { createElement, lazy, Suspense, useEffect, useState, type ReactNode } from 'react'
import { Link, Navigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { assignPaper, moveLayer, STAGES, type Stage } from '@feuillet/core/project'
import { SNAG_NODES } from '@feuillet/core/stages'
import { FindBox } from '../commands/find-box'
import { KeyList } from '../commands/key-list'
import { StageCommands } from '../commands/everywhere'
import { SectionPanel } from '../drawing/section'
import { planner, usePlan } from '../plan'
import { session, type OpenAnswer } from '../session'
import { useUnseenRuns } from '../stages/sheets/cutter/use-noted-runs'
import { change } from '../state/edits'
import { selectSaved, selectSettled } from '../state/selectors'
import { useAppDispatch, useAppSelector } from '../state/store'
import { resetView } from '../state/view'
import { DryingTimers } from './drying-timers'
import { Notices } from './notices'
import { pathOf } from './stage-names'
import { fitPrints } from './print-page'
import { TopBar } from './top-bar'
import { Contained } from './trouble'
import { Unreadable } from './unreadable'
import { Versions } from './versions'

const screens: Record<Stage | 'bench', () => Promise<{ default: React.ComponentType }>> = {
  measure: () => import('../stages/measure/screen'),
  layers: () => import('../stages/layers/screen'),
  paper: () => import('../stages/paper/screen'),
  sheets: () => import('../stages/sheets/screen'),
  depth: () => import('../stages/depth/screen'),
  assembly: () => import('../stages/assembly/screen'),
  journal: () => import('../stages/journal/screen'),
  bench: () => import('../stages/assembly/bench'),
}

const isStage = (name: string): name is Stage => STAGES.includes(name as Stage)

export function Workbench() {
  const { projectId = '', stage = '' } = useParams()
  const [attempt, setAttempt] = useState(0)
  const answer = useSession(projectId, attempt)
  const open = useAppSelector((state) => state.document.project?.id === projectId)
  if (answer?.kind === 'missing')
    return (
      <main className="grid h-full place-content-center gap-3 text-center">
        <p>This project is not kept in this browser.</p>
        <Link to="/" className="text-plum underline">
          Back to the shelf
        </Link>
      </main>
    )
  if (answer?.kind === 'unreadable')
    return <Unreadable id={projectId} answer={answer} onOpen={() => setAttempt(attempt + 1)} />
  if (!open) return <p className="p-6 text-soft">Opening…</p>
  if (stage === 'bench')
    return (
      <>
        <Watches />
        <DryingTimers dark />
        <Screen name="bench" />
      </>
    )
  return isStage(stage) ? <Frame stage={stage} /> : <Navigate to={pathOf(projectId, 'measure')} replace />
}

/** Opens the project of the address, and leaves it with the page. */
function useSession(projectId: string, attempt: number): OpenAnswer | null {
  const dispatch = useAppDispatch()
  const [answer, setAnswer] = useState<OpenAnswer | null>(null)
  useEffect(() => {
    let gone = false
    void session
      .open(projectId)
      .catch((error: unknown): OpenAnswer => ({
        kind: 'unreadable',
        sentence: `The browser’s store could not be read: ${error instanceof Error ? error.message : String(error)}.`,
        text: null,
        versions: [],
      }))
      .then((found) => {
        if (gone) return
        setAnswer(found)
        if (found.kind === 'open')
          for (const sentence of found.healed) toast(`Mended on opening: ${sentence}`, { duration: 15_000 })
      })
    return () => {
      gone = true
      setAnswer(null)
      session.close()
      dispatch(resetView())
    }
  }, [projectId, attempt, dispatch])
  return answer
}

/** What every screen needs: findings for the tabs, heights for the section, loads and steps for the finder. */
function Watches() {
  for (const name of SNAG_NODES)
    // A fixed list: the hooks come in the same order each time.
    // eslint-disable-next-line react-hooks/rules-of-hooks
    usePlan(name)
  usePlan('loads')
  usePlan('assembly')
  useUnseenRuns()
  return null
}

const loaded = new Map<string, React.LazyExoticComponent<React.ComponentType>>()

/** A screen as it is loaded; a new attempt loads it anew. */
function screenOf(name: Stage | 'bench', attempt: number) {
  const key = `${name} ${attempt}`
  let screen = loaded.get(key)
  if (!screen) loaded.set(key, (screen = lazy(screens[name])))
  return screen
}

/** A screen that is loaded when it is first shown, and again where that failed. */
function Screen({ name }: { name: Stage | 'bench' }) {
  const [attempt, setAttempt] = useState(0)
  const Loaded = screenOf(name, attempt)
  return (
    <Contained resetKey={name} onAgain={() => setAttempt(attempt + 1)}>
      <Suspense
        fallback={
          <main className="p-6 text-soft" aria-busy>
            <h1 className="font-text text-[14px]">Opening…</h1>
          </main>
        }
      >
        {createElement(Loaded)}
      </Suspense>
    </Contained>
  )
}

function Frame({ stage }: { stage: Stage }) {
  const dispatch = useAppDispatch()
  useEffect(() => planner.look(stage), [stage])
  useEffect(() => fitPrints(), [])
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
          return paper ? assignPaper(p, [target], { paper, stock }) : p
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
      <Watches />
      <StageCommands stage={stage} />
      <Standing>
        <TopBar stage={stage} />
        <div className="col-span-2">
          <Notices />
        </div>
        <Contained resetKey="section">
          <SectionPanel />
        </Contained>
        <Screen name={stage} />
      </Standing>
      <DryingTimers />
      <FindBox />
      <KeyList />
      <Versions />
    </DndContext>
  )
}

/** The grid of the page, marked with how things stand; what lies in it is not drawn anew for a mark. */
function Standing({ children }: { children: ReactNode }) {
  const settled = useAppSelector(selectSettled)
  const saved = useAppSelector(selectSaved)
  return (
    <div
      className="grid h-full min-h-[560px] min-w-[980px] grid-cols-[266px_minmax(0,1fr)] grid-rows-[56px_auto_minmax(0,1fr)]"
      data-plan={settled ? 'settled' : 'busy'}
      data-kept={saved}
    >
      {children}
    </div>
  )
}
