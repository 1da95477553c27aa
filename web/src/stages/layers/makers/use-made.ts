import { useEffect, useState } from 'react'
import type { Made } from '@feuillet/core/stages/layers/makers'
import type { Said } from '@feuillet/core/base/units'
import type { Recipe } from '@feuillet/core/project'
import { editor } from '../../../workers'
import { readyFont } from './fonts'

export interface MadeState {
  made: Made | null
  /** Why the setting is not possible; the last possible layers stay in sight. */
  why: Said | null
  busy: boolean
}

/** Layers of a recipe, made in the worker a moment after the last change; late answers to older recipes are dropped. */
export function useMade(recipe: Recipe | null): MadeState {
  const [state, setState] = useState<MadeState>({ made: null, why: null, busy: false })
  useEffect(() => {
    if (!recipe) return
    let stale = false
    const timer = setTimeout(() => {
      setState((last) => ({ ...last, busy: true }))
      const work = async () => {
        if ('font' in recipe) await readyFont(String(recipe.font))
        const answer = await editor.ask((api) => api.make(recipe))
        if (stale) return
        setState((last) =>
          answer.ok
            ? { made: answer.made, why: null, busy: false }
            : { made: last.made, why: answer.said, busy: false },
        )
      }
      work().catch(
        (error: unknown) =>
          !stale &&
          setState((last) => ({
            ...last,
            why: error instanceof Error ? error.message : String(error),
            busy: false,
          })),
      )
    }, 120)
    return () => {
      stale = true
      clearTimeout(timer)
    }
  }, [recipe])
  return state
}
