// What the planner has told of the open project, by node.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { GainMark } from '../stages/sheets/search-marks'
import type { Report } from '../workers/planner.worker'

export interface PlanState {
  /** Views by the name of their ref, as they came last. */
  views: Readonly<Record<string, unknown>>
  /** The revision for which each view is known to be true. */
  fresh: Readonly<Record<string, number>>
  /** Why a node has no view, and of which revision that is told. */
  failed: Readonly<Record<string, { sentence: string; revision: number }>>
  /** The revision of which all that is watched is there. */
  settled: number | null
  /** The node that is being computed. */
  doing: string | null
  /** What went wrong with the planner itself, in a sentence. */
  trouble: string | null
  /** A longer search for fewer sheets under way. */
  search: { share: number; steps: number } | null
  /** What the last search gained, as time went by: the sheets that all papers together came to. */
  gains: readonly GainMark[]
}

const initialState: PlanState = {
  views: {},
  fresh: {},
  failed: {},
  settled: null,
  doing: null,
  trouble: null,
  search: null,
  gains: [],
}

const plan = createSlice({
  name: 'plan',
  initialState,
  reducers: {
    /** What the worker tells; of a `late` report, of an earlier revision, the views alone. */
    reported: (state, { payload }: PayloadAction<Report & { late?: boolean }>) => {
      const { revision, views, fresh, failed, doing, late = false } = payload
      const next = { ...(state as PlanState) }
      if (views.length > 0) next.views = { ...next.views, ...Object.fromEntries(views) }
      if (late) return next
      next.doing = doing
      if (doing === null) next.settled = revision
      if (fresh.length > 0) {
        next.fresh = { ...next.fresh, ...Object.fromEntries(fresh.map((name) => [name, revision])) }
        if (fresh.some((name) => name in next.failed))
          next.failed = Object.fromEntries(
            Object.entries(next.failed).filter(([name]) => !fresh.includes(name)),
          )
      }
      if (failed.length > 0)
        next.failed = {
          ...next.failed,
          ...Object.fromEntries(failed.map(([name, sentence]) => [name, { sentence, revision }])),
        }
      return next
    },
    /** More is watched, or the project has changed: what is there may no longer be all or true. */
    asked: (state) => ({ ...state, settled: null }),
    troubled: (state, { payload }: PayloadAction<string | null>) => ({ ...state, trouble: payload }),
    searching: (state, { payload }: PayloadAction<PlanState['search']>) => ({ ...state, search: payload }),
    gained: (state, { payload }: PayloadAction<readonly GainMark[]>) => ({ ...state, gains: payload }),
    forgotten: () => initialState,
  },
})

export const { reported, asked, troubled, searching, gained, forgotten } = plan.actions
export default plan.reducer
