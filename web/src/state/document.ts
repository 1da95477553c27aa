// The open project with the shared drawer's papers, and their history. Every change goes through `edited`, so undo
// covers everything.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { Paper, Project } from '@feuillet/core/project'

interface Version {
  project: Project
  stock: Paper[]
  label: string
}

export interface WorkState {
  project: Project | null
  stock: Paper[]
  past: Version[]
  future: Version[]
  saved: 'saved' | 'saving' | 'failed'
}

const HISTORY = 200

const initialState: WorkState = { project: null, stock: [], past: [], future: [], saved: 'saved' }

// Projects are plain data that the core's edits copy; drafts would only slow them down.
const work = createSlice({
  name: 'work',
  initialState,
  reducers: {
    opened: (state, { payload }: PayloadAction<{ project: Project; stock: Paper[] }>) => ({
      ...state,
      ...payload,
      past: [],
      future: [],
      saved: 'saved' as const,
    }),
    closed: () => initialState,
    edited: (state, { payload }: PayloadAction<{ label: string; project: Project; stock?: Paper[] }>) => {
      const current = state as WorkState
      if (!current.project) return state
      const before: Version = { project: current.project, stock: current.stock, label: payload.label }
      return {
        ...current,
        project: payload.project,
        stock: payload.stock ?? current.stock,
        past: [...current.past.slice(-HISTORY + 1), before],
        future: [],
        saved: 'saving' as const,
      }
    },
    undone: (state) => step(state as WorkState, 'past', 'future'),
    redone: (state) => step(state as WorkState, 'future', 'past'),
    savedAs: (state, { payload }: PayloadAction<WorkState['saved']>) => ({ ...state, saved: payload }),
  },
})

function step(state: WorkState, from: 'past' | 'future', to: 'past' | 'future'): WorkState {
  const version = state[from].at(-1)
  if (!version || !state.project) return state
  const here: Version = { project: state.project, stock: state.stock, label: version.label }
  return {
    ...state,
    project: version.project,
    stock: version.stock,
    [from]: state[from].slice(0, -1),
    [to]: [...state[to], here],
    saved: 'saving',
  }
}

export const { opened, closed, edited, undone, redone, savedAs } = work.actions
export default work.reducer
