import { useEffect, useState } from 'react'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { planner } from '../plan'
import { runIdOf, savedLoads } from '../session/loads-out'
import { selectProject } from './selectors'
import { useAppSelector } from './store'

/** When the file of a load was saved from which it lies otherwise now (ms since 1970); null where there is none. */
export function useOlderFile(load: LoadView | undefined): number | null {
  const { id: projectId } = useAppSelector(selectProject)
  const stock = useAppSelector((state) => state.document.stock)
  const [found, setFound] = useState<{ load: LoadView | undefined; at: number | null } | null>(null)
  useEffect(() => {
    if (!load) return undefined
    let stale = false
    const look = async () => {
      const saved = await savedLoads.recall(runIdOf(projectId, load.id))
      const alike = saved && (await planner.host.ask((api) => api.liesAs(saved, stock)))
      if (!stale) setFound({ load, at: alike === false ? saved!.at : null })
    }
    // Where the plan cannot be computed the stage says so.
    look().catch(() => undefined)
    return () => {
      stale = true
    }
  }, [projectId, load, stock])
  return load && found?.load === load ? found.at : null
}
