// What happens after a change: results are computed anew in the worker, and the project is saved.
import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit'
import { toast } from 'sonner'
import { compute } from '../workers/compute'
import { foundLayouts } from '../session/layouts'
import { arrived, asked, failed } from './results'
import { saveProject, saveStock } from '../session/storage'
import { edited, opened, redone, savedAs, undone, type WorkState } from '../state/document'

export const listener = createListenerMiddleware()

const changed = isAnyOf(opened, edited, undone, redone)
const workOf = (state: unknown): WorkState => (state as { work: WorkState }).work

listener.startListening({
  matcher: changed,
  effect: async (action, api) => {
    const now = workOf(api.getState())
    const before = workOf(api.getOriginalState())
    if (!now.project) return
    // Ticks, timers and names change no result.
    const same =
      !opened.match(action) &&
      before.project &&
      (['mount', 'layers', 'drawer', 'plan'] as const).every(
        (key) => before.project![key] === now.project![key],
      ) &&
      before.stock === now.stock
    if (same) return
    api.cancelActiveListeners()
    api.dispatch(asked())
    await api.delay(opened.match(action) ? 0 : 120)
    try {
      const derived = await compute.derive(now.project, now.stock, await foundLayouts())
      if (workOf(api.getState()).project === now.project || !api.signal.aborted)
        api.dispatch(arrived(derived))
    } catch (error) {
      if (!api.signal.aborted) api.dispatch(failed(error instanceof Error ? error.message : String(error)))
    }
  },
})

listener.startListening({
  matcher: isAnyOf(edited, undone, redone),
  effect: async (_, api) => {
    api.cancelActiveListeners()
    await api.delay(400)
    const { project, stock } = workOf(api.getState())
    if (!project) return
    try {
      await saveProject(project)
      await saveStock(stock)
      api.dispatch(savedAs('saved'))
    } catch {
      api.dispatch(savedAs('failed'))
      toast.error('The browser would not keep this project. Save it as a file before you close the page.')
    }
  },
})
