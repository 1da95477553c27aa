// What other projects' books tell of one: whose sheets it is cut from, and which pieces of it were cut on others' sheets.
import { openProject, type Books, type Project } from '@feuillet/core/project'
import type { KeptProject, ShelfEntry } from './vault'

/** Reads the books of those that have cut pieces of a project. */
export async function booksOn(
  projectId: string,
  shelf: readonly ShelfEntry[],
  readKept: (id: string) => Promise<KeptProject | undefined>,
): Promise<Books> {
  const unread = new Set(shelf.filter(({ trouble }) => trouble !== null).map(({ id }) => id))
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
  return { books: books.flat(), shelf, unread }
}

/** The other projects that the book of one tells of. */
export const toldOf = ({ guestIds, cutForIds }: ShelfEntry): string[] => [...guestIds, ...cutForIds]

/** Whether another book, about the projects that it tells of now, is or was of account for a project. */
export const concerns = (project: Project, otherId: string, about: readonly string[]): boolean =>
  about.includes(project.id) ||
  project.plan.cutWith?.projectId === otherId ||
  project.cutElsewhere.some(({ projectId }) => projectId === otherId)
