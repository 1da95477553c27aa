import { useEffect } from 'react'
import { builtLayers, moveLayer, STAGES, type Stage } from '@feuillet/core/project'
import { change } from '../state/edits'
import { store } from '../state/store'
import { looked, pickedLayer } from '../state/view'
import { redo, undo } from './history'

/** Keys that work on every stage; none while the maker types. */
export function useKeys(goTo: (stage: Stage) => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      const typing = target.matches('input:not([type=checkbox]):not([type=range]), textarea, select')
      const { dispatch } = store
      const { view, document: open } = store.getState()
      const command = event.ctrlKey || event.metaKey
      const key = event.key.toLowerCase()
      if (command && key === 'k') {
        event.preventDefault()
        dispatch(looked({ finding: true }))
        return
      }
      if (typing || !open.project) return
      if (command && key === 'z') {
        event.preventDefault()
        dispatch(event.shiftKey ? redo() : undo())
        return
      }
      if (command || event.altKey) return
      const layers = builtLayers(open.project)
      const at = layers.findIndex((layer) => layer.id === view.layerId)
      const stage = STAGES[Number(event.key) - 1]
      if (stage) goTo(stage)
      else if (key === 'j')
        dispatch(pickedLayer(layers[at < 0 ? layers.length - 1 : Math.max(0, at - 1)]?.id ?? null))
      else if (key === 'k')
        dispatch(pickedLayer(layers[at < 0 ? 0 : Math.min(layers.length - 1, at + 1)]?.id ?? null))
      else if ((key === '[' || key === ']') && view.layerId) {
        const id = view.layerId
        dispatch(
          change('move a layer', (p) =>
            moveLayer(p, id, p.layers.findIndex((layer) => layer.id === id) + (key === ']' ? 1 : -1)),
          ),
        )
      } else if (key === 'x') dispatch(looked({ only: !view.only }))
      else if (key === 'e') dispatch(looked({ apart: !view.apart }))
      else if (event.key === '?') dispatch(looked({ keys: true }))
      else if (event.key === 'Escape') dispatch(looked({ at: null, partKeys: [] }))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [goTo])
}
