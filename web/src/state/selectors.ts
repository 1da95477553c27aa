// Everything a screen reads that is not stored: drawn from the project and the worker's results.
import { createSelector } from '@reduxjs/toolkit'
import { measure } from '@feuillet/core/stages/measure'
import { builtLayers, findLayer, STAGES, type Project, type Snag, type Stage } from '@feuillet/core/project'
import { runningStage } from '@feuillet/core/stages/journal'
import type { RootState } from './store'

/** The open project; screens under the workbench are only shown while there is one. */
export const selectProject = (state: RootState): Project => state.work.project!
export const selectUnit = (state: RootState) => state.work.project?.unit ?? 'mm'
export const selectDerived = (state: RootState) => state.results.derived
export const selectView = (state: RootState) => state.view

const NO_SNAGS: Snag[] = []
export const selectSnags = createSelector(selectDerived, (derived) => derived?.snags ?? NO_SNAGS)

export const selectMeasures = createSelector(selectProject, measure)

/** The picked layer; the frontmost where none is picked. */
export const selectLayer = createSelector(
  [selectProject, selectView],
  (project, view) => findLayer(project, view.layerId) ?? project.layers.at(-1),
)

export const selectStageSnags = createSelector(
  [selectSnags, (_: RootState, stage: Stage) => stage],
  (snags, stage) => snags.filter((snag) => snag.stage === stage),
)

export type StageState = 'untouched' | 'under way' | 'in order'

export const selectStages = createSelector(
  [selectProject, selectDerived, selectSnags],
  (project, derived, snags) => {
    const layers = builtLayers(project)
    const some = layers.length > 0
    const steps = derived?.assembly.steps.length ?? 0
    const done = project.progress.done.length
    const states: Record<Stage, StageState> = {
      measure: 'in order',
      layers: some ? 'in order' : 'untouched',
      paper: !some
        ? 'untouched'
        : layers.every((layer) => layer.paperId)
          ? 'in order'
          : layers.some((layer) => layer.paperId)
            ? 'under way'
            : 'untouched',
      sheets: !some
        ? 'untouched'
        : project.plan.cutWith || (derived && derived.loads.length > 0)
          ? 'in order'
          : 'under way',
      depth: !some ? 'untouched' : 'in order',
      assembly: done === 0 ? 'untouched' : done >= steps ? 'in order' : 'under way',
      journal:
        project.journal.timers.length + project.journal.sheetsUsed.length === 0
          ? 'untouched'
          : runningStage(project)
            ? 'under way'
            : 'in order',
    }
    return STAGES.map((stage) => {
      const own = snags.filter((snag) => snag.stage === stage)
      const state = own.length > 0 && states[stage] === 'in order' ? 'under way' : states[stage]
      return { stage, state, snags: own.length, stops: own.filter((snag) => snag.severity === 'stop').length }
    })
  },
)
