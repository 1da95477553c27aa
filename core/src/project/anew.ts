// A work made again: the design and how it is planned, and nothing of what was done.
import { journalSchema, progressSchema, type Project } from './schema'

/** What a project has of its making before anything is done. */
export const nothingDone = (): Pick<Project, 'cut' | 'cutElsewhere' | 'progress' | 'journal'> => ({
  cut: [],
  cutElsewhere: [],
  progress: progressSchema.parse({}),
  journal: journalSchema.parse({}),
})

/** Whether anything of a project is cut, ticked or noted. */
export const isBegun = ({ cut, cutElsewhere, progress, journal }: Project): boolean =>
  cut.length + cutElsewhere.length + progress.done.length + journal.timers.length + journal.makes.length > 0

/**
 * A copy of a project as a work of its own. No sheet is cut of it, whatever the other has cut: what is in one book is not in another. Whoever is
 * cut along with the other stays with it. The note of the journal goes along.
 */
export function madeAnew(project: Project, { id, name }: Pick<Project, 'id' | 'name'>): Project {
  const fresh = nothingDone()
  return {
    ...project,
    id,
    name,
    ...fresh,
    journal: { ...fresh.journal, note: project.journal.note },
    plan: { ...project.plan, guests: [], cutWith: null, pins: pinsOfOwn(project), loadOrder: [] },
  }
}

/** Pins of a project's own pieces; those of guests go with them. */
const pinsOfOwn = ({ layers, plan }: Project): Project['plan']['pins'] => {
  const own = new Set(layers.map((layer) => layer.id))
  return plan.pins.filter(({ layerId }) => own.has(layerId))
}
