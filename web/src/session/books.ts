// What other projects' books tell of one: whose sheets it is cut from, and which pieces of it were cut on others' sheets.
import { openProject, type Books, type Project } from '@feuillet/core/project'
import type { KeptProject, ShelfEntry } from './vault'

/** Reads the books of those that have cut pieces of a project. One that cannot be read is as if it were not there. */
export async function booksOn(
  projectId: string,
  shelf: readonly ShelfEntry[],
  readKept: (id: string) => Promise<KeptProject | undefined>,
): Promise<Books & { shelf: readonly ShelfEntry[] }> {
  const unread = new Set<string>()
  const holders = shelf.filter(({ id, cutForIds }) => id !== projectId && cutForIds.includes(projectId))
  const books = await Promise.all(
    holders.map(async ({ id }): Promise<Project[]> => {
      try {
        const kept = await readKept(id)
        return kept ? [{ ...openProject(kept.text).project, id }] : []
      } catch {
        unread.add(id)
        return []
      }
    }),
  )
  return {
    books: books.flat(),
    shelf: shelf.filter(({ id, trouble }) => trouble === null && !unread.has(id)),
  }
}

/** Whether what a project on the shelf has may be of account for another. */
export function concerns(project: Project, entry: ShelfEntry | undefined, id: string): boolean {
  return (
    (entry?.cutForIds.includes(project.id) ?? false) ||
    (entry?.guestIds.includes(project.id) ?? false) ||
    project.plan.cutWith?.projectId === id ||
    project.cutElsewhere.some(({ projectId }) => projectId === id)
  )
}
