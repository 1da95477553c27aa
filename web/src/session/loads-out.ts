// Loads that left the application, to the machine or in a file, kept in the browser as they were then until they are noted as cut:
// meanwhile the work may be changed and the page be closed.
import type { Sent, TakenDown } from '@feuillet/core/stages/sheets'
import { smallThings } from './small-things'

/** A load is known by its project and itself. */
export const runIdOf = (projectId: string, loadId: string): string => `${projectId}:${loadId}`

class LoadsOut<T> {
  /** Of this page, for browsers that keep nothing. */
  private readonly here = new Map<string, T>()

  /**
   * @param kind before the name of each
   * @param index under which their names are kept, the newest last
   * @param most the oldest go first
   */
  constructor(
    private readonly kind: string,
    private readonly index: string,
    private readonly most: number,
  ) {}

  private nameOf = (runId: string): string => `${this.kind} ${runId}`

  private ids = async (): Promise<string[]> => (await smallThings.getItem<string[]>(this.index)) ?? []

  async remember(loads: readonly (readonly [runId: string, load: T])[]): Promise<void> {
    try {
      for (const [runId, load] of loads) {
        await smallThings.setItem(this.nameOf(runId), load)
        this.here.delete(runId)
      }
      const now = loads.map(([runId]) => runId)
      const ids = [...(await this.ids()).filter((id) => !now.includes(id)), ...now]
      await smallThings.setItem(this.index, ids.slice(-this.most))
      for (const old of ids.slice(0, -this.most)) await smallThings.removeItem(this.nameOf(old))
    } catch {
      for (const [runId, load] of loads) this.here.set(runId, load)
    }
  }

  /** What left under this id; null where this browser knows of nothing. */
  recall = async (runId: string): Promise<T | null> =>
    this.here.get(runId) ?? smallThings.getItem<T>(this.nameOf(runId)).catch(() => null)

  /** What became of it is noted. */
  async forget(runId: string): Promise<void> {
    this.here.delete(runId)
    try {
      await smallThings.removeItem(this.nameOf(runId))
      await smallThings.setItem(
        this.index,
        (await this.ids()).filter((id) => id !== runId),
      )
    } catch {
      // A browser that keeps nothing has nothing to forget.
    }
  }

  /** Something of a project left of which nothing is noted yet. */
  isAwaited = async (projectId: string): Promise<boolean> =>
    (await this.ids().catch(() => [])).some((id) => id.startsWith(runIdOf(projectId, '')))
}

/** What the machine was sent: it is asked what has become of it when the project is opened. */
export const sentLoads = new LoadsOut<Sent>('sent', 'sent to the cutter', 60)

/** A load as it is in the file that was saved last. */
export interface SavedLoad extends TakenDown {
  /** When it was saved, ms since 1970. */
  at: number
}

export const savedLoads = new LoadsOut<SavedLoad>('saved', 'saved as cut files', 300)
