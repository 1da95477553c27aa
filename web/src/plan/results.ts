// What the worker computed of the open project.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { Derived } from '@feuillet/core/planner'

export interface ResultsState {
  derived: Derived | null
  busy: boolean
  trouble: string | null
  /** A longer search for fewer sheets under way. */
  search: { share: number; score: number; steps: number } | null
}

const initialState: ResultsState = { derived: null, busy: false, trouble: null, search: null }

const results = createSlice({
  name: 'results',
  initialState,
  reducers: {
    asked: (state) => ({ ...state, busy: true }),
    arrived: (state, { payload }: PayloadAction<Derived>) => ({
      ...state,
      derived: payload,
      busy: false,
      trouble: null,
    }),
    failed: (state, { payload }: PayloadAction<string>) => ({ ...state, busy: false, trouble: payload }),
    searching: (state, { payload }: PayloadAction<ResultsState['search']>) => ({ ...state, search: payload }),
    forgotten: () => initialState,
  },
})

export const { asked, arrived, failed, searching, forgotten } = results.actions
export default results.reducer
