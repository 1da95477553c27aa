// The shelf as the journal asks it: what every project takes and brings, and what its journal says.
import { useEffect, useMemo, useState } from 'react'
import { openProject, refreshPapers, refreshSupplies, type Project } from '@feuillet/core/project'
import { digestOf, type Counted, type Digest } from '@feuillet/core/stages/journal'
import { planner } from '../../plan'
import { loadShelf, readKept } from '../../session'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'

/** Every project of the shelf as what it takes and brings, counted one after the other when it is first asked for. */
export function useShelfCounts(): { counted: readonly Counted[]; doing: string | null } {
  const own = useAppSelector(selectProject)
  const { stock, supplies } = useAppSelector((state) => state.document)
  const [counted, setCounted] = useState<readonly Counted[]>([])
  const [doing, setDoing] = useState<string | null>('the shelf')
  useEffect(() => {
    let gone = false
    const count = async () => {
      const entries = (await loadShelf()).filter(({ trouble }) => trouble === null)
      for (const entry of entries) {
        if (gone) return
        setDoing(entry.name)
        const project = entry.id === own.id ? own : await read(entry.id)
        const fresh = project && refreshSupplies(refreshPapers({ ...project, id: entry.id }, stock), supplies)
        const found =
          fresh && (await planner.host.ask((api) => api.candidate(fresh, stock)).catch(() => null))
        if (found && !gone) setCounted((list) => [...list.filter(({ id }) => id !== found.id), found])
      }
      if (!gone) setDoing(null)
    }
    void count()
    return () => {
      gone = true
    }
    // Counted when it is opened: an edit meanwhile does not begin it anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [own.id])
  return { counted, doing }
}

/** The journals of all projects of the shelf in short, read one after the other. */
export function useDigests(now: number): { digests: readonly Digest[]; doing: string | null } {
  const own = useAppSelector(selectProject)
  const [others, setOthers] = useState<readonly Digest[]>([])
  const [doing, setDoing] = useState<string | null>('the shelf')
  useEffect(() => {
    let gone = false
    const count = async () => {
      const entries = (await loadShelf()).filter(({ id, trouble }) => trouble === null && id !== own.id)
      for (const { id, name } of entries) {
        if (gone) return
        setDoing(name)
        const project = await read(id)
        // A clock that still runs elsewhere has run until now.
        if (project && !gone) setOthers((list) => [...list, digestOf({ ...project, id }, Date.now())])
      }
      if (!gone) setDoing(null)
    }
    void count()
    return () => {
      gone = true
      setOthers([])
    }
  }, [own.id])
  const digests = useMemo(() => [digestOf(own, now), ...others], [own, now, others])
  return { digests, doing }
}

/** A kept project; null where it cannot be read. */
async function read(id: string): Promise<Project | null> {
  try {
    const kept = await readKept(id)
    return kept ? openProject(kept.text).project : null
  } catch {
    return null
  }
}
