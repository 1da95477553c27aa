import { configureStore, type ThunkDispatch, type UnknownAction } from '@reduxjs/toolkit'
import { useDispatch, useSelector, useStore } from 'react-redux'
import plan from '../plan/plan'
import document from './document'
import { guard } from './guard'
import view from './view'

export const store = configureStore({
  reducer: { document, view, plan },
  // Documents are large and never changed in place: they are checked by their types, not at run time.
  middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).prepend(guard),
})

export type RootState = ReturnType<typeof store.getState>
/** Of plain actions and of thunks. */
export type AppDispatch = ThunkDispatch<RootState, undefined, UnknownAction>

export const useAppDispatch = useDispatch.withTypes<AppDispatch>()
export const useAppSelector = useSelector.withTypes<RootState>()
export const useAppStore = useStore.withTypes<typeof store>()
