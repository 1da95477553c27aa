// Findings that are meant so: a flower of one colour, a stack that is all white for the light behind it.
import { setPlan } from './set-plan'
import type { Project } from './schema'
import type { Snag } from './snag'

type Named = Pick<Snag, 'code' | 'layer'>

const isSame = (a: Named, b: Named): boolean => a.code === b.code && a.layer === b.layer

/** Whether the maker has said that a finding is meant so. */
export const isMeant = (project: Project, snag: Named): boolean =>
  project.plan.meant.some((meant) => isSame(meant, snag))

/** The project with findings as meant so. */
export const meanSo = (project: Project, snags: readonly Named[]): Project =>
  setPlan(project, {
    meant: [
      ...project.plan.meant,
      ...snags.filter((snag) => !isMeant(project, snag)).map(({ code, layer }) => ({ code, layer })),
    ],
  })

/** The project in which findings are told again. */
export const takeBack = (project: Project, snags: readonly Named[]): Project =>
  setPlan(project, {
    meant: project.plan.meant.filter((meant) => !snags.some((snag) => isSame(meant, snag))),
  })
