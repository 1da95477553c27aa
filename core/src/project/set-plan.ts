import type { Plan, Project } from './schema'

/** Changes settings of the plan. */
export const setPlan = (project: Project, patch: Partial<Plan>): Project => ({
  ...project,
  plan: { ...project.plan, ...patch },
})
