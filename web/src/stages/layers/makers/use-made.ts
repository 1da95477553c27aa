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

interface Answered extends Omit<MadeState, 'busy'> {
  /** The recipe that was answered to last. */
  to: Recipe | null
}

/** The fonts that a recipe asks for: its own, and those of lines and letters that differ. */
const fontsOf = (recipe: Recipe): string[] => [
  ...('font' in recipe ? [String(recipe.font)] : []),
  ...(recipe.kind === 'lettering'
    ? [...recipe.lines, ...recipe.letters].flatMap(({ font }) => (font === undefined ? [] : [font]))
    : []),
]

/** Layers of a recipe, made in the worker a moment after the last change (busy until then); late answers to older recipes are dropped. */
export function useMade(recipe: Recipe | null): MadeState {
  const [state, setState] = useState<Answered>({ made: null, why: null, to: null })
  useEffect(() => {
    if (!recipe) return
    let stale = false
    const timer = setTimeout(() => {
      const work = async () => {
        for (const font of fontsOf(recipe)) await readyFont(font)
        const answer = await editor.ask((api) => api.make(recipe))
        if (stale) return
        setState((last) =>
          answer.ok
            ? { made: answer.made, why: null, to: recipe }
            : { made: last.made, why: answer.said, to: recipe },
        )
      }
      work().catch(
        (error: unknown) =>
          !stale &&
          setState((last) => ({
            ...last,
            why: error instanceof Error ? error.message : String(error),
            to: recipe,
          })),
      )
    }, 120)
    return () => {
      stale = true
      clearTimeout(timer)
    }
  }, [recipe])
  return { made: state.made, why: state.why, busy: recipe !== state.to }
}
