import type { Stage } from '@feuillet/core/project'

/** The stages as makers read them. */
export const stageName: Record<Stage, string> = {
  measure: 'Measure',
  layers: 'Layers',
  paper: 'Paper',
  sheets: 'Sheets',
  depth: 'Depth',
  assembly: 'Assembly',
  journal: 'Journal',
}

/** Where a stage of a project stands, or its bench. */
export const pathOf = (projectId: string, stage: Stage | 'bench'): string =>
  `/project/${encodeURIComponent(projectId)}/${stage}`
