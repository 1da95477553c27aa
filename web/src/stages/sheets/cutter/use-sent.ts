import { useEffect, useState } from 'react'
import type { Sent } from '@feuillet/core/stages/sheets'
import { sentLoads } from '../../../session/loads-out'
import type { CutterState } from './use-cutter'

/** What the machine has on its mat, as it was sent. */
export function useSent(cutter: CutterState | null): Sent | null {
  const id = cutter?.load?.id ?? null
  // The same load may be sent again, and lie otherwise then.
  const at = cutter?.status === 'asking' ? 'asking' : (cutter?.startedAt ?? null)
  const [found, setFound] = useState<{ id: string; sent: Sent | null } | null>(null)
  useEffect(() => {
    if (id === null) return
    let stale = false
    void sentLoads.recall(id).then((sent) => {
      if (!stale) setFound({ id, sent })
    })
    return () => {
      stale = true
    }
  }, [id, at])
  return found?.id === id ? found.sent : null
}
