// Other states of a project than the one that is worked on: a past version that is gone back to, one that comes to stand beside it.
import type { Project } from './schema'

/**
 * A past version gone back to: the design and its plan are as they were. What was done since stays: what is cut and paid for, ticked, noted and
 * made is so however the work is drawn, and other projects' books count on who is cut along.
 */
export function wentBack(past: Project, now: Project): Project {
  const { cut, cutElsewhere, progress, journal } = now
  const held = new Map(now.drawer.papers.map((paper) => [paper.id, paper]))
  const had = new Set(past.drawer.papers.map(({ id }) => id))
  // What was cut of a paper that came later is given back to it.
  const cutOf = new Set(cut.map(({ paper }) => paper.id))
  const later = now.drawer.papers.filter(({ id }) => !had.has(id) && cutOf.has(id))
  return {
    ...past,
    id: now.id,
    cut,
    cutElsewhere,
    progress,
    journal: { ...journal, note: journal.note || past.journal.note },
    plan: { ...past.plan, guests: now.plan.guests, cutWith: now.plan.cutWith },
    drawer: {
      ...past.drawer,
      papers: [...past.drawer.papers.map((paper) => held.get(paper.id) ?? paper), ...later],
    },
  }
}

/**
 * Another state of a project that comes to stand beside it, as from a file. It is cut and built as it says; what the project itself tells of was
 * taken from the drawer once, and its guests know of their pieces on those sheets: that is in the project's own book.
 * @param book the project itself; where nothing is said it tells of all, or has given it back
 */
export function besideItself(
  state: Project,
  id: string,
  book: Pick<Project, 'cut' | 'progress'> = state,
): Project {
  const known = new Set(book.cut.map((sheet) => `${sheet.id} ${sheet.at}`))
  const noted = new Set(book.progress.took.map(({ stepId }) => stepId))
  const took = state.progress.took.filter(({ stepId }) => !noted.has(stepId))
  const cut = state.cut.map((sheet) =>
    known.has(`${sheet.id} ${sheet.at}`)
      ? {
          ...sheet,
          took: { ...sheet.took, sheets: 0, offCut: null, keptIds: [] },
          pieces: sheet.pieces.filter(({ guestId }) => guestId === null),
        }
      : sheet,
  )
  return { ...state, id, cut, progress: { ...state.progress, took } }
}
