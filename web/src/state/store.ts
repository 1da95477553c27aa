import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector, useStore } from 'react-redux'
import { listener } from '../plan/listener'
import results from '../plan/results'
import view from './view'
import work from './document'

export const store = configureStore({
  reducer: { work, view, results },
  // Results hold typed arrays and are large: they are checked by their types, not at run time.
  middleware: (defaults) =>
    defaults({ serializableCheck: false, immutableCheck: false }).prepend(listener.middleware),
})

export type RootState = ReturnType<typeof store.getState>
export type AppDispatch = typeof store.dispatch

export const useAppDispatch = useDispatch.withTypes<AppDispatch>()
export const useAppSelector = useSelector.withTypes<RootState>()
export const useAppStore = useStore.withTypes<typeof store>()
