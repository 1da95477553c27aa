// The store with an open project and its results, where the workers' answers are the core's own, given at once.
import { configureStore } from '@reduxjs/toolkit'
import { vi } from 'vitest'
import { Cache } from '@feuillet/core/base'
import { Planner, refName, type Ref } from '@feuillet/core/planner'
import type { Mend, Paper, Project } from '@feuillet/core/project'
import { mendAll, nodes, SNAG_NODES } from '@feuillet/core/stages'
import { starterStock } from '@feuillet/core/stages/paper'
import {
  freezeSheets,
  putPieces,
  roomFor,
  slidePieces,
  takeDown,
  toNote,
  toSend,
  type NestLayout,
  type Placement,
  type Sent,
  type TakenDown,
} from '@feuillet/core/stages/sheets'
import plan, { reported } from '../src/plan/plan'
import document, { opened } from '../src/state/document'
import { guard } from '../src/state/guard'
import view from '../src/state/view'
import type { Cut } from '../src/workers/planner.worker'

/** Stands in for the editor's worker. */
export const mendHere = vi.fn((project: Project, actions: readonly Mend[], stock: readonly Paper[]) =>
  Promise.resolve(mendAll(project, actions, stock)),
)
export class WorkerGone extends Error {}
export const workersHere = {
  WorkerGone,
  editor: { ask: <T>(work: (api: { mend: typeof mendHere }) => T) => work({ mend: mendHere }) },
}

/** One for a file of tests: what a test computed serves the next. */
const cache = new Cache()
let core = new Planner(cache)
let inputs: { project: Project; stock: readonly Paper[] } | null = null
let layouts = new Map<string, NestLayout>()

const runOfLoad = (loadId: string) => {
  const { runId } = core.get(nodes.loads()).find(({ id }) => id === loadId)!
  return core.get(nodes.nested()).find(({ run }) => run.id === runId)!
}
const apiHere = {
  freeze: (project: Project, stock: readonly Paper[], { at, ...what }: Cut) => {
    const runs = core.get(nodes.nested())
    const now = { loads: core.get(nodes.loads()), left: core.get(nodes.left()) }
    const { sheets, kept, asSaved } = toNote({ project, stock }, now, what)
    return { ...freezeSheets({ project, stock }, { sheets, runs, kept, at }), asSaved }
  },
  place: (loadId: string, places: readonly Placement[]) =>
    putPieces(inputs!.project, { nested: runOfLoad(loadId), places }),
  settle: (loadId: string, keys: readonly string[]) => slidePieces(runOfLoad(loadId), keys),
  sendTo: (loadId: string, pieces: readonly Placement[], sheet: number) =>
    roomFor(runOfLoad(loadId), pieces, sheet),
}

/** Stands in for the planner's worker. */
export const planHere = {
  planner: {
    host: { ask: <T>(work: (api: typeof apiHere) => T) => Promise.resolve(work(apiHere)) },
    takeLayouts: (list: [string, NestLayout][]) => (layouts = new Map([...layouts, ...list])),
  },
}

/** Stands in for the browser's store of small things. */
export function memoryStore() {
  const kept = new Map<string, unknown>()
  return {
    kept,
    getItem: <T>(key: string) => Promise.resolve((kept.get(key) as T | undefined) ?? null),
    setItem: <T>(key: string, value: T) => {
      kept.set(key, value)
      return Promise.resolve(value)
    },
  }
}

/** A store with the project open and its results there; `again` computes them anew. */
export function deskWith(project: Project, stock: Paper[] = starterStock()) {
  const store = configureStore({
    reducer: { document, view, plan },
    middleware: (base) => base({ serializableCheck: false, immutableCheck: false }).prepend(guard),
  })
  core = new Planner(cache)
  layouts = new Map()
  const again = () => {
    const open = store.getState().document
    inputs = { project: open.project!, stock: open.stock }
    core.update({ ...inputs, found: layouts })
    const refs = [...SNAG_NODES, 'loads' as const, 'assembly' as const].map(
      (name) => nodes[name]() as Ref<unknown>,
    )
    const views = refs.map((ref): [string, unknown] => [
      refName(ref),
      (ref.node.view as (value: unknown) => unknown)(core.get(ref)),
    ])
    store.dispatch(
      reported({
        revision: open.revision,
        views,
        fresh: views.map(([name]) => name),
        failed: [],
        doing: null,
      }),
    )
  }
  store.dispatch(opened({ project, stock }))
  again()
  /** What the page gets of a node. */
  const viewOf = <T, V>(ref: Ref<T>): V => (ref.node.view as (value: T) => V)(core.get(ref))
  /** What goes to the machine of a load. */
  const send = (loadId: string): Sent =>
    toSend(
      inputs!.project,
      core.get(nodes.loads()).find(({ id }) => id === loadId)!,
      inputs!.stock,
    )
  /** All loads as they are in files that are saved now. */
  const save = (): TakenDown[] =>
    core.get(nodes.loads()).map((load) => takeDown(inputs!.project, load, inputs!.stock))
  return { store, again, viewOf, send, save, project: () => store.getState().document.project! }
}
