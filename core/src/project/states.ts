// Other states of a project than the one that is worked on: a past version that is gone back to, a file of it that is opened beside it.
import type { Project } from './schema'

/**
 * A past version gone back to: the design and its plan are as they were. What was done since stays: what is cut and paid for, ticked, noted and
 * made is so however the work is drawn, and other projects' books count on who is cut along.
 */
export function wentBack(past: Project, now: Project): Project {
  const { cut, cutElsewhere, progress, journal } = now
  const held = new Map(now.drawer.papers.map((paper) => [paper.id, paper]))
  return {
    ...past,
    id: now.id,
    cut,
    cutElsewhere,
    progress,
    journal: { ...journal, note: journal.note || past.journal.note },
    plan: { ...past.plan, guests: now.plan.guests, cutWith: now.plan.cutWith },
    drawer: { ...past.drawer, papers: past.drawer.papers.map((paper) => held.get(paper.id) ?? paper) },
  }
}

/**
 * A file of a project that comes to stand beside the project itself. Its sheets are cut as it says; they were taken from the drawer once, and its
 * guests' pieces are counted once: that is in the other's book.
 */
export function besideItself(project: Project, id: string): Project {
  const cut = project.cut.map((sheet) => ({
    ...sheet,
    took: { ...sheet.took, sheets: 0, offCut: null, keptIds: [] },
    pieces: sheet.pieces.map((piece) => ({ ...piece, guestId: null })),
  }))
  return { ...project, id, cut, progress: { ...project.progress, took: [] } }
}
