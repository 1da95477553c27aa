// Everything a screen reads that is not stored: drawn from the project and the planner's views.
import { createSelector } from '@reduxjs/toolkit'
import { Cache } from '@feuillet/core/base'
import { measure } from '@feuillet/core/stages/measure'
import {
  builtLayers,
  findLayer,
  goodCuts,
  isMeant,
  isSomeCut,
  lostCuts,
  otherUses,
  STAGES,
  type Project,
  type Snag,
  type Stage,
} from '@feuillet/core/project'
import { nodes, SNAG_NODES, type ViewOf } from '@feuillet/core/stages'
import { runningStage } from '@feuillet/core/stages/journal'
import type { RootState } from './store'

/** The open project; screens under the workbench are only shown while there is one. */
export const selectProject = (state: RootState): Project => state.document.project!
export const selectUnit = (state: RootState) => state.document.project?.unit ?? 'mm'
export const selectView = (state: RootState) => state.view

const alike = new Cache(20_000_000)
const NOTHING_CUT: ReadonlyMap<string, number> = new Map()

/** How many pieces that are cut are of use still, by layer; what a change of shape, size or paper would spoil. */
const goodCutsOf = (project: Project | null): ReadonlyMap<string, number> =>
  project && isSomeCut(project) ? goodCuts(project, alike.memo) : NOTHING_CUT
export const selectGoodCuts = createSelector([selectProject], goodCutsOf)

/** How many pieces that are cut an edit leaves of no use; see lostCuts. */
export const lostBetween = (before: Project, after: Project) => lostCuts(before, after, alike.memo)

/** What cut pieces are of use for, where that is another layer or piece than they were cut for; see otherUses. */
export const selectOtherUses = createSelector([selectProject], (project) => otherUses(project, alike.memo))

/** Whether what is on screen is kept. */
export const selectSaved = ({
  document: { revision, kept, trouble },
}: RootState): 'saved' | 'saving' | 'failed' =>
  trouble !== null ? 'failed' : revision > kept ? 'saving' : 'saved'

/** Whether all that is watched is computed for the project as it is. */
export const selectSettled = ({ plan }: RootState): boolean => plan.settled !== null

const selectSnagLists = createSelector(
  (state: RootState) => state.plan.views,
  (views) => SNAG_NODES.map((name) => views[nodes[name].node.name] as Snag[] | undefined),
  { memoizeOptions: { resultEqualityCheck: sameItems } },
)

function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((item, i) => item === b[i])
}

/** Whether it is known what there is to find in a stage. */
export const selectSnagsKnown = createSelector(
  [selectSnagLists, (_: RootState, stage: string) => stage],
  (lists, stage): boolean =>
    SNAG_NODES.every((name, k) => nodes[name].node.stage !== stage || lists[k] !== undefined),
)

/** All findings that are not meant so, in the order of the stages, as far as they are computed. */
export const selectSnags = createSelector([selectSnagLists, selectProject], (lists, project): Snag[] =>
  lists.flatMap((list) => list ?? []).filter((snag) => !isMeant(project, snag)),
)

/** Findings of a stage that are meant so. */
export const selectMeantSnags = createSelector(
  [selectSnagLists, selectProject, (_: RootState, stage: string) => stage],
  (lists, project, stage): Snag[] =>
    project.plan.meant.length === 0
      ? NONE
      : lists.flatMap((list) => list ?? []).filter((snag) => snag.stage === stage && isMeant(project, snag)),
)
const NONE: Snag[] = []

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

const selectCounts = createSelector(
  (state: RootState) => state.plan.views[nodes.loads.node.name] as ViewOf<'loads'> | undefined,
  (state: RootState) => state.plan.views[nodes.assembly.node.name] as ViewOf<'assembly'> | undefined,
  (loads, assembly) => ({ loads: loads?.length ?? 0, steps: assembly?.steps.map((step) => step.id) ?? [] }),
)

export const selectStages = createSelector(
  [selectProject, selectCounts, selectSnags],
  (project, counts, snags) => {
    const layers = builtLayers(project)
    const some = layers.length > 0
    const done = counts.steps.filter((id) => project.progress.done.includes(id)).length
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
        : project.plan.cutWith || counts.loads > 0 || isSomeCut(project)
          ? 'in order'
          : 'under way',
      depth: !some ? 'untouched' : 'in order',
      assembly: done === 0 ? 'untouched' : done >= counts.steps.length ? 'in order' : 'under way',
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
