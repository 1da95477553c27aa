// A project's life in the page: open, change, keep, leave. One owner of all four, so that nothing is kept twice, late or by
// two tabs at once, and so that “saved” is said only of what is.
import { BadInput, share } from '@feuillet/core/base'
import {
  besideItself,
  openProject,
  peekNewer,
  refreshPapers,
  schemaVersionOf,
  SCHEMA_VERSION,
  refreshSupplies,
  starterSupplies,
  stockChanges,
  supplyChanges,
  toldBy,
  wentBack,
  writeProject,
  type Paper,
  type Project,
  type Supplies,
} from '@feuillet/core/project'
import {
  becameRole,
  booksCame,
  closed,
  drawerCame,
  followed,
  keptTo,
  notKept,
  opened,
  type DocumentState,
} from '../state/document'
import { entryOf } from './entry'
import { booksOn, concerns, toldOf } from './books'
import type { Claim, Tabs } from './tabs'
import {
  VERSION_EVERY_MS,
  type Draft,
  type KeptProject,
  type PastVersion,
  type SaveAnswer,
  type ShelfEntry,
  type ToSave,
  type Vault,
} from './vault'

type SessionAction = ReturnType<
  | typeof opened
  | typeof closed
  | typeof keptTo
  | typeof notKept
  | typeof drawerCame
  | typeof becameRole
  | typeof followed
  | typeof booksCame
>

/** What a session works with; handed in, so that it can be tried with stores that fail and pages that die. */
export interface SessionEnv {
  document: () => DocumentState
  dispatch: (action: SessionAction) => unknown
  vault: () => Promise<Vault>
  readKept: (id: string) => Promise<KeptProject | undefined>
  hold: (what: ToSave) => Promise<SaveAnswer>
  letGo: (id: string) => Promise<void>
  loadStock: () => Promise<Paper[]>
  loadSupplies: () => Promise<Supplies>
  loadShelf: () => Promise<ShelfEntry[]>
  tabs: Tabs
  /** Names this page among others. */
  page: string
  now: () => number
  newId: () => string
  /** Tells the maker something, in a sentence. */
  tell: (sentence: string, kind?: 'trouble') => void
}

/** How a project was opened, or why not. */
export type OpenAnswer =
  | { kind: 'open'; healed: string[] }
  | { kind: 'missing' }
  | { kind: 'unreadable'; sentence: string; text: string | null; versions: PastVersion[] }

/** Between the starts of two saves (ms): a change is kept within half a second. */
const SAVE_EVERY_MS = 200

/** A state to be kept, as it was when it was asked for. */
interface Snapshot {
  project: Project
  stock: readonly Paper[]
  supplies: Supplies
  revision: number
  label: string
}

export class Session {
  private id: string | null = null
  private base = 0
  private keptStock: readonly Paper[] = []
  private keptSupplies: Supplies = starterSupplies()
  private versionAt = -Infinity
  private savedAt = -Infinity
  private timer: ReturnType<typeof setTimeout> | undefined
  private saving: Promise<void> = Promise.resolve()
  private reading: Promise<void> = Promise.resolve()
  private busy = false
  private toHear = false
  private claim: Claim | null = null
  private saidTrouble = false
  /** The state of the draft that was written last; null where none is left. */
  private draftSeq: number | null = null
  private opening = 0
  /** The vault once it is there: what a page in haste can write to without waiting. */
  private ready: Vault | null = null
  private readonly listeners = new Set<() => void>()

  constructor(private readonly env: SessionEnv) {
    env.tabs.listen({
      kept: (id, about) => {
        void this.follow(id)
        void this.hearOf(id, about)
        for (const listener of this.listeners) listener()
      },
      drawer: () => void this.freshenDrawer(),
      wanted: (id) => void this.handOver(id),
    })
  }

  /** Calls back whenever another tab has kept a project, until it is ended. */
  whenKeptElsewhere(listener: () => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** Opens a kept project: to change it, or to watch where another tab has it open. */
  async open(id: string): Promise<OpenAnswer> {
    const turn = ++this.opening
    this.ready = await this.env.vault()
    await this.idle()
    const claim = await this.env.tabs.claim(id, () => this.lost(id))
    const given = () => {
      claim.release()
      return { kind: 'missing' } as const
    }
    // Where no other page has it open, what one left in haste belongs to it.
    const kept = await (claim.held ? this.recovered(id) : this.env.readKept(id))
    if (turn !== this.opening || !kept) return given()
    const read = this.read(kept)
    if (read.kind !== 'read') {
      given()
      const versions = await this.ready.versions(id).catch(() => [])
      const text = typeof kept.text === 'string' ? kept.text : null
      return { kind: 'unreadable', sentence: read.sentence, text, versions }
    }
    const [stock, supplies] = await Promise.all([this.env.loadStock(), this.env.loadSupplies()])
    const shelf = await this.env.loadShelf().catch(() => [])
    const books = await booksOn(id, shelf, this.env.readKept)
    if (turn !== this.opening) return given()
    if (read.readOnly) claim.release()
    this.claim = claim
    this.id = id
    this.base = kept.revision
    this.keptStock = stock
    this.keptSupplies = supplies
    this.versionAt = -Infinity
    this.saidTrouble = false
    const role = read.readOnly ? 'reading' : !claim.held ? 'following' : 'writing'
    const known = { ...read.project, id }
    // What others tell is kept by who may keep it: they may be off the shelf the next time.
    const told = role === 'writing' ? known : toldBy(known, books)
    const fresh = refreshSupplies(refreshPapers(told, stock), supplies)
    this.env.dispatch(opened({ project: fresh, stock, supplies, role }))
    if (role === 'writing') this.env.dispatch(booksCame(books))
    if (role === 'following') void this.waitForTurn(id)
    return { kind: 'open', healed: read.healed }
  }

  /** To be called after every change of the document. */
  changed(): void {
    if (this.id === null || this.env.document().role !== 'writing' || !this.dirty()) return
    if (this.timer !== undefined || this.busy) return
    const wait = Math.max(0, this.savedAt + SAVE_EVERY_MS - this.env.now())
    this.timer = setTimeout(() => {
      this.timer = undefined
      this.start()
    }, wait)
  }

  /** Keeps what is not kept yet; done once it is, or could not be. */
  async flush(): Promise<void> {
    clearTimeout(this.timer)
    this.timer = undefined
    // One save at a time: what came while one was under way goes with the next.
    for (let tries = 0; tries < 3; tries++) {
      await this.saving
      if (!this.dirty() || this.env.document().role !== 'writing') return
      this.start()
      await this.saving
      if (this.env.document().trouble !== null) return
    }
  }

  /** The page may be gone in a moment: begins to write what is not kept, and waits for nothing. */
  leaveInHaste(): void {
    const { role } = this.env.document()
    if (this.id === null || role !== 'writing' || !this.dirty() || !this.ready) return
    const { project, stock, supplies, revision, label } = this.snapshot()
    this.draftSeq = revision
    this.ready.putDraft({
      key: this.draftKey(this.id),
      id: this.id,
      base: this.base,
      page: this.env.page,
      seq: revision,
      text: writeProject(project),
      savedAt: this.env.now(),
      label,
      stock: stockChanges(this.keptStock, stock),
      supplies: supplyChanges(this.keptSupplies, supplies),
    })
    // Where the page stays after all, this keeps it in the ordinary way.
    void this.flush()
  }

  /** Leaves the project. What is not kept yet is kept as it is now, whatever is opened next. */
  close(): void {
    this.opening++
    clearTimeout(this.timer)
    this.timer = undefined
    const { claim } = this
    const last = this.dirty() && this.env.document().role === 'writing' ? this.snapshot() : null
    if (last)
      this.saving = this.saving.then(() => this.save(last)).catch((error: unknown) => this.failed(error))
    void this.saving.finally(() => claim?.release())
    this.claim = null
    this.id = null
    this.env.dispatch(closed())
  }

  /** Done once nothing is being kept any more. */
  async idle(): Promise<void> {
    await this.saving
  }

  /** Makes this page the one that changes the project. */
  async takeOver(): Promise<void> {
    const { id, claim } = this
    if (id === null || !claim) return
    await this.env.tabs.takeOver(id, claim, () => this.lost(id))
    await this.becomeWriter(id)
  }

  /** The project gone back to a past version, null where that is damaged; what it was before becomes a past version itself. */
  restore(version: PastVersion): Project | null {
    const { project, stock, supplies } = this.env.document()
    try {
      const past = { ...openProject(version.text).project, id: version.projectId }
      this.versionAt = -Infinity
      return refreshSupplies(refreshPapers(project ? wentBack(past, project) : past, stock), supplies)
    } catch {
      return null
    }
  }

  private dirty(): boolean {
    const { project, revision, kept } = this.env.document()
    return project !== null && project.id === this.id && revision > kept
  }

  private snapshot(): Snapshot {
    const { project, stock, supplies, revision, past } = this.env.document()
    return { project: project!, stock, supplies, revision, label: past.at(-1)?.label ?? '' }
  }

  private draftKey = (id: string): string => `${id} ${this.env.page}`

  private start(): void {
    if (this.busy || !this.dirty()) return
    this.busy = true
    this.savedAt = this.env.now()
    const snapshot = this.snapshot()
    this.saving = this.save(snapshot)
      .catch((error: unknown) => this.failed(error))
      .finally(() => {
        this.busy = false
        if (this.id === snapshot.project.id && this.env.document().trouble === null) this.changed()
      })
  }

  /** What goes into the store of a state, as the next after what is there. */
  private toSave({ project, stock, supplies, revision, label }: Snapshot): ToSave {
    const { page, now } = this.env
    const { id } = project
    const savedAt = now()
    const next = this.base + 1
    return {
      kept: { id, revision: next, text: writeProject(project), savedAt, label, page, seq: revision },
      entry: entryOf(project, next, savedAt),
      base: this.base,
      keepVersion: savedAt - this.versionAt >= VERSION_EVERY_MS,
      stock: stockChanges(this.keptStock, stock),
      supplies: supplyChanges(this.keptSupplies, supplies),
    }
  }

  private async save(snapshot: Snapshot): Promise<void> {
    const { env } = this
    const { project, stock, supplies, revision } = snapshot
    const { id } = project
    const what = this.toSave(snapshot)
    const next = what.kept.revision
    const vault = await env.vault()
    let answer: SaveAnswer
    try {
      answer = await vault.save(what)
    } catch (error) {
      // Held as what goes on from the state that the store has.
      await env.hold({ ...what, kept: { ...what.kept, revision: this.base } })
      throw error
    }
    // Where the claim was taken by force meanwhile, all that was not kept stands beside already.
    if (!answer.ok && this.id === id && env.document().role === 'following') return
    if (!answer.ok) return this.overtaken(what)
    await env.letGo(id)
    // A draft of a later state than this is still wanted.
    if (this.draftSeq !== null && this.draftSeq <= revision) {
      this.draftSeq = null
      await vault.dropDraft(this.draftKey(id)).catch(() => undefined)
    }
    this.base = next
    this.keptStock = stock
    this.keptSupplies = supplies
    if (what.keepVersion) this.versionAt = what.kept.savedAt
    if (this.id === id) {
      env.dispatch(keptTo(revision))
      this.saidTrouble = false
      if (answer.stock && env.document().stock === stock) this.drawerCame({ stock: answer.stock })
      if (answer.supplies && env.document().supplies === supplies)
        this.drawerCame({ supplies: answer.supplies })
    }
    env.tabs.say({ kind: 'kept', id, about: toldOf(what.entry) })
    if (what.stock || what.supplies) env.tabs.say({ kind: 'drawer' })
  }

  /** The store would not take it: said once, and the work goes on. */
  private failed(error: unknown): void {
    const full = error instanceof Error && error.name === 'QuotaExceededError'
    this.env.dispatch(notKept(full ? 'the browser’s storage is full' : 'the browser would not keep it'))
    if (this.saidTrouble) return
    this.saidTrouble = true
    this.env.tell(
      full
        ? 'The browser’s storage is full: this project is not kept. Save it as a file; take old projects off the shelf.'
        : 'The browser would not keep this project. Save it as a file before you close the page.',
      'trouble',
    )
  }

  /** Another page has kept a later state: ours goes onto the shelf beside it, and this page follows the other. */
  private async overtaken(refused: ToSave): Promise<void> {
    const { env } = this
    const { id } = refused.kept
    // What was done while the store was asked goes with it; nothing more is done from here on.
    const here = this.id === id && env.document().role === 'writing'
    const what = here ? this.toSave(this.snapshot()) : refused
    if (here) env.dispatch(becameRole('following'))
    const mine = openProject(what.kept.text).project
    const copy = this.fromAnotherTab(mine, await env.readKept(id))
    const vault = await env.vault()
    await vault.save({
      ...what,
      kept: { ...what.kept, id: copy.id, revision: 1, text: writeProject(copy) },
      entry: entryOf(copy, 1, env.now()),
      base: null,
      keepVersion: false,
    })
    env.tell(
      `Another tab has changed “${mine.name}” as well. What was done here stands on the shelf as “${copy.name}”.`,
      'trouble',
    )
    await this.follow(id)
  }

  /** What was done in one tab, to stand beside what another has kept. */
  private fromAnotherTab(mine: Project, kept: KeptProject | undefined): Project {
    const read = kept && this.read(kept)
    const book = read?.kind === 'read' ? read.project : undefined
    return {
      ...besideItself(mine, this.env.newId(), book),
      name: `${mine.name}, from another tab`.slice(0, 200),
    }
  }

  /** The kept state of a project, or the later one of a page that was closed before it could keep it. */
  private async recovered(id: string): Promise<KeptProject | undefined> {
    const { env } = this
    const vault = await env.vault()
    const kept = await env.readKept(id)
    const drafts = await vault.drafts(id).catch((): Draft[] => [])
    let last = kept
    for (const draft of drafts.toSorted((a, b) => a.savedAt - b.savedAt)) {
      last = (await this.takeDraft(draft, last).catch(() => undefined)) ?? last
      await vault.dropDraft(draft.key).catch(() => undefined)
    }
    return last
  }

  private async takeDraft(draft: Draft, kept: KeptProject | undefined): Promise<KeptProject | undefined> {
    const { env } = this
    const vault = await env.vault()
    const sameHand = kept?.page === draft.page
    // What that page kept itself afterwards is later than its draft.
    if (kept && sameHand && kept.seq >= draft.seq) return undefined
    const { project } = openProject(draft.text)
    const follows = !kept || sameHand || kept.revision === draft.base
    const next: KeptProject = {
      id: draft.id,
      revision: (kept?.revision ?? 0) + 1,
      text: draft.text,
      savedAt: draft.savedAt,
      label: draft.label,
      page: draft.page,
      seq: draft.seq,
    }
    if (follows) {
      const entry = entryOf({ ...project, id: draft.id }, next.revision, draft.savedAt)
      const base = kept?.revision ?? null
      const answer = await vault.save({
        kept: next,
        entry,
        base,
        keepVersion: true,
        stock: draft.stock,
        supplies: draft.supplies,
      })
      return answer.ok ? next : undefined
    }
    const copy = this.fromAnotherTab(project, kept)
    const record = { ...next, id: copy.id, revision: 1, text: writeProject(copy) }
    const entry = entryOf(copy, 1, draft.savedAt)
    await vault.save({
      kept: record,
      entry,
      base: null,
      keepVersion: false,
      stock: draft.stock,
      supplies: draft.supplies,
    })
    env.tell(`The last change of a tab that was closed stands on the shelf as “${copy.name}”.`)
    return undefined
  }

  private read(
    kept: KeptProject,
  ):
    | { kind: 'read'; project: Project; readOnly: boolean; healed: string[] }
    | { kind: 'unreadable'; sentence: string } {
    const { text } = kept
    if (typeof text !== 'string')
      return { kind: 'unreadable', sentence: 'What the browser kept of this project cannot be read.' }
    try {
      const { project, healed } = openProject(text)
      return { kind: 'read', project, readOnly: false, healed }
    } catch (error) {
      const version = schemaVersionOf(text)
      if (version !== null && version > SCHEMA_VERSION) {
        const project = peekNewer(text)
        if (project) return { kind: 'read', project, readOnly: true, healed: [] }
        return {
          kind: 'unreadable',
          sentence: 'This project was written by a newer Feuillet, which this one cannot show.',
        }
      }
      const why = error instanceof BadInput ? error.message : 'it cannot be read'
      return { kind: 'unreadable', sentence: `This project is damaged: ${why}.` }
    }
  }

  /** Reads anew what another tab has kept, for as long as this one follows. One reading at a time: none overtakes a later one. */
  private follow(id: string): Promise<void> {
    const reading = this.reading.then(() => this.readAnew(id))
    this.reading = reading.catch(() => undefined)
    return reading
  }

  private async readAnew(id: string): Promise<void> {
    const { opening } = this
    const follows = () =>
      this.id === id && this.opening === opening && this.env.document().role === 'following'
    if (!follows()) return
    const kept = await this.env.readKept(id)
    if (!kept) return
    const read = this.read(kept)
    if (read.kind !== 'read') return
    const [stock, supplies] = await Promise.all([this.env.loadStock(), this.env.loadSupplies()])
    // The page may have become the one that writes, or gone to another project, while the store was read.
    if (!follows()) return
    this.base = kept.revision
    this.keptStock = stock
    this.keptSupplies = supplies
    this.env.dispatch(followed({ project: { ...read.project, id }, stock, supplies }))
  }

  /** Another project was kept by another tab: what its book tells of this one counts from now on. */
  private async hearOf(other: string, about: readonly string[]): Promise<void> {
    const { project, role } = this.env.document()
    if (!project || project.id === other || role !== 'writing' || !concerns(project, other, about)) return
    // One that is waited for reads what came meanwhile as well.
    if (this.toHear) return
    this.toHear = true
    const hearing = this.reading.then(() => this.readBooks())
    this.reading = hearing.catch(() => undefined)
    await this.reading
  }

  private async readBooks(): Promise<void> {
    this.toHear = false
    const { id, opening, env } = this
    if (id === null) return
    const books = await booksOn(id, await env.loadShelf(), env.readKept)
    if (this.opening === opening && env.document().role === 'writing') env.dispatch(booksCame(books))
  }

  private async freshenDrawer(): Promise<void> {
    if (this.id === null) return
    const [stock, supplies] = await Promise.all([this.env.loadStock(), this.env.loadSupplies()])
    const { stock: mine, supplies: ours, role } = this.env.document()
    // Changes of ours that are not kept yet are put into it when they are.
    if (role !== 'writing' || mine === this.keptStock) this.drawerCame({ stock })
    if (role !== 'writing' || ours === this.keptSupplies) this.drawerCame({ supplies })
  }

  /** What the store has of the drawer. What is equal stays the same, so that only what another tab did counts as done. */
  private drawerCame(came: { stock?: readonly Paper[]; supplies?: Supplies }): void {
    const { stock, supplies } = this.env.document()
    if (came.stock) {
      this.keptStock = share(stock, came.stock)
      this.env.dispatch(drawerCame({ stock: this.keptStock }))
    }
    if (came.supplies) {
      this.keptSupplies = share(supplies, came.supplies)
      this.env.dispatch(drawerCame({ supplies: this.keptSupplies }))
    }
  }

  /** Another tab wants to go on with the project: it gets all that was done here. */
  private async handOver(id: string): Promise<void> {
    if (this.id !== id || this.env.document().role !== 'writing') return
    await this.flush()
    // It may have been taken by force in the meantime.
    if (this.id !== id || this.env.document().role !== 'writing') return
    this.env.dispatch(becameRole('following'))
    this.claim?.release()
    this.claim = this.env.tabs.waiting()
    this.env.tell('Another tab goes on with this project; this one follows it.')
    void this.waitForTurn(id)
  }

  /** The claim was taken by force, since this page did not answer in time. What it had not kept yet stands beside. */
  private lost(id: string): void {
    if (this.id !== id || this.env.document().role !== 'writing') return
    const unkept = this.dirty() ? this.toSave(this.snapshot()) : null
    this.env.dispatch(becameRole('following'))
    if (unkept) void this.overtaken(unkept)
    this.claim = this.env.tabs.waiting()
    this.env.tell('Another tab goes on with this project; this one follows it.')
    void this.follow(id)
    void this.waitForTurn(id)
  }

  /** Once the other tab is closed, this one may go on. */
  private async waitForTurn(id: string): Promise<void> {
    const claim = await this.env.tabs.whenFree(id, () => this.lost(id))
    if (this.id !== id || this.env.document().role !== 'following' || !claim) {
      claim?.release()
      return
    }
    this.claim = claim
    await this.becomeWriter(id)
  }

  private async becomeWriter(id: string): Promise<void> {
    // The page before may have been closed in haste.
    await this.recovered(id)
    await this.follow(id)
    if (this.id !== id) return
    this.env.dispatch(becameRole('writing'))
    // Who only watches leaves it to the other tab to hear of other books.
    this.reading = this.reading.then(() => this.readBooks()).catch(() => undefined)
    this.env.tell('The other tab no longer changes this project: it can be changed here.')
  }
}
