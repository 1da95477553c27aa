// What is picked and how it is looked at: never saved with the project.
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

export interface ViewState {
  layerId: string | null
  /** Layers picked along with it, on the board of layers. */
  alsoIds: readonly string[]
  /** Parts are placed on the board of layers. */
  placing: boolean
  /** Pieces and openings of the picked layer are worked on, one by one. */
  bits: boolean
  /** The picture on the picked layer is placed. */
  printing: boolean
  /** Draw only the picked layer. */
  only: boolean
  /** Draw the layers drawn apart. */
  apart: boolean
  loadId: string | null
  /** Parts (layer/piece#copy) picked on a sheet. */
  partKeys: readonly string[]
  stepId: string | null
  /** A place to point at, mm in the project's frame. */
  at: [number, number] | null
  /** Which snag of the stage is stepped to, by its place in the list. */
  snagAt: number | null
  finding: boolean
  keys: boolean
  /** The list of past versions is open. */
  versions: boolean
}

const initialState: ViewState = {
  layerId: null,
  alsoIds: [],
  placing: false,
  bits: false,
  printing: false,
  only: false,
  apart: false,
  loadId: null,
  partKeys: [],
  stepId: null,
  at: null,
  snagAt: null,
  finding: false,
  keys: false,
  versions: false,
}

const view = createSlice({
  name: 'view',
  initialState,
  reducers: {
    looked: (state, { payload }: PayloadAction<Partial<ViewState>>) => ({ ...state, ...payload }),
    pickedLayer: (state, { payload }: PayloadAction<string | null>) => ({
      ...state,
      layerId: payload,
      alsoIds: [],
      at: null,
    }),
    resetView: () => initialState,
  },
})

export const { looked, pickedLayer, resetView } = view.actions
export default view.reducer
