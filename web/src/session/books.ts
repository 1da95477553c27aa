// What other projects' books tell of one: pieces of it that were cut on their sheets.
import { openProject, refreshCutElsewhere, type Project } from '@feuillet/core/project'
import type { KeptProject, ShelfEntry } from './vault'

/** A project knowing what of it was cut on the sheets of others, as their books have it now. */
export async function withBooks(
  project: Project,
  shelf: readonly ShelfEntry[],
  readKept: (id: string) => Promise<KeptProject | undefined>,
): Promise<Project> {
  const holders = shelf.filter(({ id, cutForIds }) => id !== project.id && cutForIds.includes(project.id))
  if (holders.length === 0 && project.cutElsewhere.length === 0) return project
  const unread = new Set<string>()
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
  // Of a book that cannot be read what was known of it stays.
  const known = shelf.filter(({ id, trouble }) => trouble === null && !unread.has(id))
  return refreshCutElsewhere(project, { books: books.flat(), shelf: known })
}
