// Projects and the shared drawer in the browser. A project is written aside first and then put in place, so that a crash
// leaves the last good version.
import localforage from 'localforage'
import { starterStock } from '@feuillet/core/stages/paper'
import { paperSchema, readProject, writeProject, type Paper, type Project } from '@feuillet/core/project'

const projects = localforage.createInstance({ name: 'feuillet', storeName: 'projects' })
const aside = localforage.createInstance({ name: 'feuillet', storeName: 'aside' })
const shared = localforage.createInstance({ name: 'feuillet', storeName: 'shared' })

interface Kept {
  text: string
  savedAt: number
}

export interface ShelfEntry {
  project: Project
  savedAt: number
}

/** Projects that the browser would not keep: open for as long as the page is. */
const held = new Map<string, Project>()

/** Saves a project, or holds it for this page where the browser will not keep it. False where it is only held. */
export async function saveOrHold(project: Project): Promise<boolean> {
  try {
    await saveProject(project)
    return true
  } catch {
    held.set(project.id, project)
    return false
  }
}

export async function saveProject(project: Project): Promise<void> {
  const kept: Kept = { text: writeProject(project), savedAt: Date.now() }
  await aside.setItem(project.id, kept)
  await projects.setItem(project.id, kept)
  await aside.removeItem(project.id)
}

/** The kept project; the copy written aside where the main one cannot be read. Null where there is none. */
export async function loadProject(id: string): Promise<Project | null> {
  for (const store of [projects, aside]) {
    try {
      const kept = await store.getItem<Kept>(id)
      if (!kept) continue
      return readProject(kept.text)
    } catch {
      continue
    }
  }
  return held.get(id) ?? null
}

export async function removeProject(id: string): Promise<void> {
  await projects.removeItem(id)
}

/** All kept projects, the last saved first; damaged ones are passed over and stay where they are. */
export async function loadShelf(): Promise<ShelfEntry[]> {
  const entries: ShelfEntry[] = []
  await projects.iterate<Kept, undefined>((kept) => {
    try {
      entries.push({ project: readProject(kept.text), savedAt: kept.savedAt })
    } catch {
      // Left untouched: a newer Feuillet may read it.
    }
  })
  return entries.sort((a, b) => b.savedAt - a.savedAt)
}

/** The shared drawer; what an older Feuillet kept gets today's fields. */
export async function loadStock(): Promise<Paper[]> {
  const kept = await shared.getItem<Paper[]>('papers').catch(() => null)
  return kept?.map((paper) => paperSchema.safeParse(paper).data ?? paper) ?? starterStock()
}

export const saveStock = (stock: Paper[]): Promise<Paper[]> => shared.setItem('papers', stock)

export const sharedStore = shared
