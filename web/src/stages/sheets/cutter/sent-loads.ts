// What was sent to the cutter, kept in the browser until it is noted: a run takes minutes, in which the work may be changed and the
// page be closed.
import { useEffect, useState } from 'react'
import type { Sent } from '@feuillet/core/stages/sheets'
import { smallThings } from '../../../session/small-things'
import type { CutterState } from './use-cutter'

/** The machine knows a load by its project and itself. */
export const runIdOf = (projectId: string, loadId: string): string => `${projectId}:${loadId}`

/** Under which names loads are kept, and their ids, the newest last. */
const nameOf = (runId: string): string => `sent ${runId}`
const IDS = 'sent to the cutter'
const KEEP = 60
/** Of this page, for browsers that keep nothing. */
const here = new Map<string, Sent>()

const idsOf = async (): Promise<string[]> => (await smallThings.getItem<string[]>(IDS)) ?? []

/** From now on the machine is asked, when this project is opened, what has become of the load. */
export async function rememberSent(runId: string, sent: Sent): Promise<void> {
  try {
    await smallThings.setItem(nameOf(runId), sent)
    here.delete(runId)
    const ids = [...(await idsOf()).filter((id) => id !== runId), runId]
    await smallThings.setItem(IDS, ids.slice(-KEEP))
    for (const old of ids.slice(0, -KEEP)) await smallThings.removeItem(nameOf(old))
  } catch {
    // Then the run is noted only while this page looks.
    here.set(runId, sent)
  }
}

/** What was sent under this id; null where this browser knows of nothing. */
export const recallSent = async (runId: string): Promise<Sent | null> =>
  here.get(runId) ?? smallThings.getItem<Sent>(nameOf(runId)).catch(() => null)

/** What became of it is noted. */
export async function forgetSent(runId: string): Promise<void> {
  here.delete(runId)
  try {
    await smallThings.removeItem(nameOf(runId))
    const ids = (await idsOf()).filter((id) => id !== runId)
    await smallThings.setItem(IDS, ids)
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}

/** Something of a project was sent of which nothing is noted yet. */
export const isAwaited = async (projectId: string): Promise<boolean> =>
  (await idsOf().catch(() => [])).some((id) => id.startsWith(runIdOf(projectId, '')))

/** What the machine has on its mat, as it was sent. */
export function useSent(cutter: CutterState | null): Sent | null {
  const id = cutter?.load?.id ?? null
  // The same load may be sent again, and lie otherwise then.
  const at = cutter?.status === 'asking' ? 'asking' : (cutter?.startedAt ?? null)
  const [found, setFound] = useState<{ id: string; sent: Sent | null } | null>(null)
  useEffect(() => {
    if (id === null) return
    let stale = false
    void recallSent(id).then((sent) => {
      if (!stale) setFound({ id, sent })
    })
    return () => {
      stale = true
    }
  }, [id, at])
  return found?.id === id ? found.sent : null
}
