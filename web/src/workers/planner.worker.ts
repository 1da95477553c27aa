// The planner in its worker: takes revisions as deltas, computes what is watched in the order in which it is asked for,
// listens between any two nodes, and posts each node's view as it is ready. Shapes stay here.
import { expose } from 'comlink'
import wasmUrl from 'clipper2-wasm/wasm?url'
import { applyDelta, Cache, type Delta } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import type { FileSet } from '@feuillet/core/io/exports'
import { Failure, Planner, refName, type Inputs, type Ref } from '@feuillet/core/planner'
import type { Paper, Project } from '@feuillet/core/project'
import { nodes, type NodeName } from '@feuillet/core/stages'
import { cardsAt } from '@feuillet/core/stages/depth'
import { shows, type Slant, type Visible } from '@feuillet/core/stages/layers'
import {
  freezeSheets,
  keptLayout,
  laidAgain,
  lieAlike,
  noteLying,
  putPieces,
  roomFor,
  sheetOf,
  slidePieces,
  takeDown,
  toNote,
  toSearch,
  toSend,
  type Frozen,
  type KeptLayout,
  type Load,
  type NestedRun,
  type NestLayout,
  type Placed,
  type Placement,
  type Sent,
  type TakenDown,
  type WhatIsCut,
} from '@feuillet/core/stages/sheets'
import { candidateOf, type Counted } from '@feuillet/core/stages/journal'
import { answering } from './answering'
import { fetchFaces } from './faces'
import { Search, type SearchProgress } from './search'

/** What is watched: a node, and of which layer or load. */
export interface Watched {
  node: NodeName
  arg?: string
}

/** What was cut, and when (ms since 1970). */
export interface Cut extends WhatIsCut {
  at: number
}

/** What cutting leaves, and which loads were noted as in their file and not as they lie now. */
export interface Noted extends Frozen {
  asSaved: string[]
}

/** What the worker tells the page. */
export interface Report {
  revision: number
  /** Views that changed, by name of the ref. */
  views: [name: string, value: unknown][]
  /** Refs whose view is that of this revision. */
  fresh: string[]
  /** Refs that could not be computed, and why. */
  failed: [name: string, sentence: string][]
  /** The node that is being computed; null once nothing is. */
  doing: string | null
  /** Layouts that were carried over, to be kept. */
  kept?: KeptLayout[]
}

const ready = loadGeometry(wasmUrl)
const cache = new Cache()
const planner = new Planner(cache)

/** What comes with a revision. */
type Revised = Omit<Inputs, 'found'>

let inputs: Revised | null = null
/** Layouts that were kept, and what is noted among them. */
let found = new Map<string, unknown>()
let revision = -1
let watched: Ref<unknown>[] = []
/** The key under which each ref was posted last. */
let posted = new Map<string, string>()
/** Refs that hung before this worker was started: the others go on without them. */
let skipped = new Set<string>()
let report: (message: Report) => void = () => undefined
let running = false
let changed = false

/** So long it computes before it listens (ms). */
const LISTEN_MS = 12

const breathe = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = () => {
      port1.close()
      resolve()
    }
    port2.postMessage(null)
  })

function take(): void {
  if (inputs) planner.update({ ...inputs, found })
  changed = true
  void run()
}

/** Works through what is watched until all is posted; begins anew whenever something changed. */
async function run(): Promise<void> {
  if (running) return
  running = true
  await ready
  while (changed) {
    changed = false
    await pass()
  }
  running = false
}

async function pass(): Promise<void> {
  if (!inputs) return
  // A change in between makes it outdated, and it says of what it is.
  const mail = new Mail(revision)
  for (const ref of watched) {
    const name = refName(ref)
    if (skipped.has(name)) {
      mail.failed.push([name, 'it took too long'])
      continue
    }
    if (posted.get(name) === planner.keyOf(ref)) {
      mail.fresh.push(name)
      continue
    }
    const steps = planner.work(ref)
    for (;;) {
      mail.flushWhenDue(name)
      const step = steps.next()
      if (step.done) {
        mail.post(ref, step.value)
        break
      }
      if (await listened()) {
        mail.flush(name)
        return
      }
    }
  }
  mail.flush(null, laidNow())
}

/** Notes how all lies, as far as it is laid; gives what was carried over from the revision before. */
function laidNow(): KeptLayout[] {
  const nested = planner.peek(nodes.nested())
  return nested && !(nested instanceof Failure) ? noteLying(found, nested, cache.memo) : []
}

let heardAt = 0

/** Lets messages in from time to time; true where one of them changed what is to be computed. */
async function listened(): Promise<boolean> {
  if (performance.now() - heardAt > LISTEN_MS) {
    await breathe()
    heardAt = performance.now()
  }
  return changed
}

/** Views on their way to the page, a few at a time. */
class Mail {
  views: Report['views'] = []
  fresh: Report['fresh'] = []
  failed: Report['failed'] = []
  private sentAt = performance.now()

  constructor(private readonly revision: number) {}

  post(ref: Ref<unknown>, value: unknown): void {
    const name = refName(ref)
    if (value instanceof Failure) {
      posted.delete(name)
      this.failed.push([name, value.sentence])
      return
    }
    const key = planner.keyOf(ref)
    if (key === null || posted.get(name) !== key)
      this.views.push([name, (ref.node.view as (value: unknown) => unknown)(value)])
    if (key !== null) posted.set(name, key)
    this.fresh.push(name)
  }

  flushWhenDue(doing: string): void {
    if (this.views.length > 0 || performance.now() - this.sentAt > 120) this.flush(doing)
  }

  flush(doing: string | null, kept: KeptLayout[] = []): void {
    const { revision, views, fresh, failed } = this
    report({ revision, views, fresh, failed, doing, kept })
    this.views = []
    this.fresh = []
    this.failed = []
    this.sentAt = performance.now()
  }
}

const refOf = ({ node, arg }: Watched): Ref<unknown> => nodes[node](arg)

const loadOf = (id: string): Load => {
  const load = planner.get(nodes.loads()).find((one) => one.id === id)
  if (!load) throw new Error('this load is no longer there')
  return load
}

const runOf = (id: string): NestedRun | undefined =>
  planner.get(nodes.nested()).find(({ run: one }) => one.id === id)

const search = new Search()

const api = {
  ...answering,
  /** Where reports go, and what to leave out. */
  listen(to: (message: Report) => void, without: string[]): void {
    report = to
    skipped = new Set(without)
  },
  /** A project with the drawer, whole: what was there before is forgotten. */
  open(number: number, now: Revised, layouts: [string, NestLayout][]): void {
    revision = number
    inputs = now
    found = new Map(layouts)
    posted = new Map()
    take()
  },
  /** The next revision, as what changed since the last that was sent. */
  revise(number: number, delta: Delta): void {
    if (!inputs) throw new Error('no project is open')
    revision = number
    inputs = applyDelta(inputs, delta) as Revised
    take()
  },
  close(): void {
    search.stop()
    inputs = null
    watched = []
    posted = new Map()
    changed = true
  },
  /** What the page shows, the most wanted first. */
  watch(list: Watched[]): void {
    watched = list.map(refOf)
    const names = new Set(watched.map(refName))
    for (const name of posted.keys()) if (!names.has(name)) posted.delete(name)
    changed = true
    void run()
  },
  /** Layouts found by a search or by the maker's hand. */
  takeLayouts(layouts: [string, NestLayout][]): void {
    found = new Map([...found, ...layouts])
    take()
  },
  /** What shows of each layer from a slant. */
  async shows(slant: Omit<Slant, 'cards'>): Promise<Visible[]> {
    await ready
    if (!inputs) return []
    const cards = cardsAt({ pieces: planner.get(nodes.depth()).pieces })
    return shows(inputs.project, { ...slant, cards })
  },
  /** A load for the cutter: its plot text, and what it is as it is sent. */
  async send(loadId: string, stock: readonly Paper[]): Promise<{ plot: string; sent: Sent }> {
    const { plotOf } = await import('@feuillet/core/io/exports')
    const load = loadOf(loadId)
    const { project } = inputs!
    return { plot: plotOf(project, load), sent: toSend(project, load, stock) }
  },
  /** A load as a picture (SVG). */
  async picture(loadId: string): Promise<string> {
    const { loadPicture } = await import('@feuillet/core/io/exports')
    return loadPicture(inputs!.project, loadOf(loadId))
  },
  /** The card that goes with a piece (PDF). */
  async card(): Promise<Uint8Array> {
    await ready
    const { catalogueCard } = await import('@feuillet/core/io/exports')
    return catalogueCard(inputs!.project, planner.get(nodes.cost()).priced, await fetchFaces())
  },
  /** What one of another project takes and brings; null where it cannot be cut as it is. */
  async candidate(project: Project, stock: readonly Paper[]): Promise<Counted | null> {
    await ready
    const own = new Planner(cache)
    own.update({ project, stock, found: new Map() })
    const loads = own.get(nodes.loads())
    if (loads.length === 0 || own.get(nodes.nested()).some(({ run }) => run.tooLarge)) return null
    return candidateOf(project, {
      loads,
      depth: own.get(nodes.depth()),
      priced: own.get(nodes.cost()).priced,
    })
  },
  /** Cut files and lists, and the loads as they are in them. */
  async files(stock: readonly Paper[]): Promise<{ files: FileSet; loads: TakenDown[] }> {
    await ready
    const { cutFiles, listFiles, testSquareFiles } = await import('@feuillet/core/io/exports')
    const { project } = inputs!
    const loads = planner.get(nodes.loads())
    const planned = {
      loads,
      assembly: planner.get(nodes.assembly()),
      needed: planner.get(nodes.needed()),
      depth: planner.get(nodes.depth()),
      glue: planner.get(nodes.glues()),
      colourings: planner.get(nodes.colourings()),
      cost: planner.get(nodes.cost()),
    }
    const files = new Map([
      ...testSquareFiles(project),
      ...cutFiles(project, loads),
      ...(await listFiles(project, planned, await fetchFaces())),
    ])
    return { files, loads: loads.map((load) => takeDown(project, load, stock)) }
  },
  /** Layouts of all runs as they lie, which are held to from now on as if they had been searched for: files of them were saved. */
  hold(): KeptLayout[] {
    const lying = planner.get(nodes.nested()).map((one) => keptLayout(one, cache.memo))
    // In place: nothing lies otherwise for it, so that nothing is computed anew.
    for (const one of lying) found.set(...one)
    laidNow()
    return lying
  },
  /** Puts pieces of a load at places, or says why they may not lie there. */
  place(loadId: string, places: readonly Placement[]): Placed | null {
    const nested = runOf(loadOf(loadId).runId)
    return nested && inputs ? putPieces(inputs.project, { nested, places }, cache.memo) : null
  },
  /** Notes loads as cut, by their ids; clean off-cuts are kept where nothing else is said. Null where the project has changed meanwhile. */
  async freeze(project: Project, stock: readonly Paper[], { at, ...what }: Cut): Promise<Noted | null> {
    await ready
    if (!inputs || inputs.project.id !== project.id) return null
    const runs = planner.get(nodes.nested())
    const now = { loads: planner.get(nodes.loads()), left: planner.get(nodes.left()) }
    const { sheets, kept, asSaved } = toNote({ project, stock }, now, what)
    if (sheets.length === 0) return null
    return { ...freezeSheets({ project, stock }, { sheets, runs, kept, at }, cache.memo), asSaved }
  },
  /** Layouts of a project of which other pieces are to be cut again than now: what is left lies as it lies. */
  async layAgain(project: Project): Promise<[string, NestLayout][]> {
    await ready
    if (!inputs || inputs.project.id !== project.id) return []
    return laidAgain(project, planner.get(nodes.nested()), cache.memo).map((one) =>
      keptLayout(one, cache.memo),
    )
  },
  /** Whether a load lies as it was taken down; null where there is no such load any more. */
  async liesAs({ sheet }: TakenDown, stock: readonly Paper[]): Promise<boolean | null> {
    await ready
    const load = planner.get(nodes.loads()).find(({ id }) => id === sheet.id)
    return load && inputs ? lieAlike(sheet, sheetOf(inputs.project, load, { stock })) : null
  },
  /** Where pieces (`id#copy`) come to lie that slide towards the corner of their sheet. */
  settle(loadId: string, keys: readonly string[]): Placement[] {
    const nested = runOf(loadOf(loadId).runId)
    return nested ? slidePieces(nested, keys) : []
  },
  /** The first free places for pieces on another sheet; null where there is no room. */
  sendTo(loadId: string, pieces: readonly Placement[], sheet: number): Placement[] | null {
    const nested = runOf(loadOf(loadId).runId)
    return nested ? roomFor(nested, pieces, sheet) : null
  },
  /** Searches for closer layouts of all runs; gives what was found, by the run's fingerprint. */
  async search(
    seconds: number,
    onProgress: (progress: SearchProgress) => void,
  ): Promise<[string, NestLayout][]> {
    await ready
    return search.start(
      planner.get(nodes.nested()).map((one) => toSearch(one, cache.memo)),
      seconds,
      onProgress,
    )
  },
  searchStop: (): void => search.stop(),
  searchPause: (on: boolean): void => search.pause(on),
  searchRest: (ms: number): void => search.rest(ms),
}

export type PlannerApi = typeof api

expose(api)
