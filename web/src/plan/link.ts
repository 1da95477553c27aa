// Between the store and the planner's worker: revisions go there as deltas, what is watched as a list, and views come back.
// A worker that is lost is started anew with the revision of now; a node that made it hang twice is left out.
import { proxy } from 'comlink'
import { toast } from 'sonner'
import { deltaOf } from '@feuillet/core/base'
import { STAGES, type Paper, type Project, type Stage } from '@feuillet/core/project'
import { nodes } from '@feuillet/core/stages'
import type { NestLayout } from '@feuillet/core/stages/sheets'
import { Host } from '../workers'
import type { PlannerApi, Report, Watched } from '../workers/planner.worker'
import { asked, forgotten, reported, type troubled } from './plan'

interface Inputs {
  project: Project
  stock: readonly Paper[]
}

/** What of the store the link needs; handed in, so that it can be tested without one. */
export interface LinkStore {
  dispatch: (
    action: ReturnType<typeof reported | typeof asked | typeof troubled | typeof forgotten>,
  ) => unknown
  layouts: () => Promise<[string, NestLayout][]>
  /** Keeps layouts that were carried over an edit. */
  keep: (layouts: readonly [string, NestLayout][]) => void
}

export const nameOf = ({ node, arg }: Watched): string => {
  const { name } = nodes[node].node
  return arg ? `${name} ${arg}` : name
}

export class PlannerLink {
  readonly host: Host<PlannerApi>
  private sent: Inputs | null = null
  private now: Inputs | null = null
  private revision = 0
  /** The revision with which the project was opened, or the worker begun anew: what is older is of another. */
  private openedAt = 0
  private watching = new Map<string, { item: Watched; users: number }>()
  private stage: Stage = 'measure'
  private telling = false
  private doing: string | null = null
  private hung = new Map<string, number>()

  constructor(
    private readonly store: LinkStore,
    start: () => Worker,
  ) {
    this.host = new Host<PlannerApi>({ name: 'planner', start, onLost: (why) => this.replay(why) })
  }

  /** Opens a project; results of the one before never come again. */
  async open(inputs: Inputs): Promise<void> {
    this.now = inputs
    this.sent = null
    this.openedAt = ++this.revision
    this.store.dispatch(forgotten())
    await this.begin()
  }

  /** Takes the next revision of the open project. */
  change(inputs: Inputs): void {
    this.now = inputs
    if (!this.sent) return
    this.revision++
    this.store.dispatch(asked())
    const delta = deltaOf(this.sent, inputs)
    this.sent = inputs
    void this.host.ask((api) => api.revise(this.revision, delta)).catch(() => undefined)
  }

  close(): void {
    this.now = null
    this.sent = null
    this.openedAt = ++this.revision
    this.hung.clear()
    this.store.dispatch(forgotten())
    void this.host.ask((api) => api.close()).catch(() => undefined)
  }

  /** Asks for a node's view for as long as the function that it gives is not called. */
  watch(item: Watched): () => void {
    const name = nameOf(item)
    const known = this.watching.get(name)
    if (known) known.users++
    else {
      this.watching.set(name, { item, users: 1 })
      this.tellWatched()
    }
    return () => {
      const entry = this.watching.get(name)
      if (!entry || --entry.users > 0) return
      this.watching.delete(name)
      this.tellWatched()
    }
  }

  /** The stage that is open: what it shows comes first. */
  look(stage: Stage): void {
    if (stage === this.stage) return
    this.stage = stage
    this.tellWatched()
  }

  /** Whether a stage is what is looked at. */
  isAt(stage: Stage): boolean {
    return this.stage === stage
  }

  /** Hands over layouts that were found. */
  takeLayouts(layouts: [string, NestLayout][]): void {
    this.store.dispatch(asked())
    void this.host.ask((api) => api.takeLayouts(layouts)).catch(() => undefined)
  }

  private async begin(): Promise<void> {
    const { revision } = this
    const layouts = await this.store.layouts()
    if (revision !== this.revision || !this.now) return
    const { now } = this
    const without = [...this.hung].flatMap(([name, times]) => (times > 1 ? [name] : []))
    const open = async () => {
      await this.host.ask((api) =>
        api.listen(
          proxy((report: Report) => this.hear(report)),
          without,
        ),
      )
      await this.host.ask((api) => api.watch(this.ordered()))
      await this.host.ask((api) => api.open(revision, now, layouts))
    }
    const done = await open().then(
      () => true,
      () => false,
    )
    if (!done || revision !== this.revision) return
    // What was changed or watched while the worker opened goes there now: before, it would have come to nothing.
    this.sent = now
    if (this.now && this.now !== now) this.change(this.now)
    this.tellWatched()
  }

  private hear(report: Report): void {
    // Late words of another project are let go.
    if (report.revision < this.openedAt) return
    // Those of an earlier revision of this one bring views that the worker takes for known from then on, and say nothing of now.
    const late = report.revision !== this.revision
    if (!late) this.doing = report.doing
    const { kept = [], ...what } = report
    if (kept.length > 0) this.store.keep(kept)
    this.store.dispatch(reported({ ...what, late }))
  }

  private replay(why: 'died' | 'hung'): void {
    if (!this.now) return
    if (why === 'hung' && this.doing) this.hung.set(this.doing, (this.hung.get(this.doing) ?? 0) + 1)
    toast.error(
      why === 'died'
        ? 'The planner broke off and was started anew. Nothing is lost; the figures come again.'
        : `The planner did not answer${this.doing ? ` (it was at: ${this.doing})` : ''} and was started anew. Nothing is lost.`,
    )
    this.sent = null
    this.openedAt = ++this.revision
    this.store.dispatch(asked())
    void this.begin()
  }

  /** One message for all that is mounted and unmounted together. */
  private tellWatched(): void {
    if (this.telling) return
    this.telling = true
    queueMicrotask(() => {
      this.telling = false
      if (!this.sent) return
      this.store.dispatch(asked())
      void this.host.ask((api) => api.watch(this.ordered())).catch(() => undefined)
    })
  }

  /** The open stage first, and there what is about the picked thing; then the others in the order of the work. */
  private ordered(): Watched[] {
    const rank = ({ node, arg }: Watched): number => {
      const { stage, name } = nodes[node].node
      const near = stage === this.stage ? 0 : name === 'levels' ? 1 : 2 + STAGES.indexOf(stage)
      return near * 4 + (name.startsWith('snags') ? 2 : 0) + (arg ? 0 : 1)
    }
    return [...this.watching.values()].map(({ item }) => item).toSorted((a, b) => rank(a) - rank(b))
  }
}
