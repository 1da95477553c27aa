// What the forms of makers have in common.
import type { Recipe } from '@feuillet/core/project'
import { selectLayer } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'

/** A recipe as it is, and what becomes of it. */
export interface FormProps<R extends Recipe> {
  recipe: R
  onChange: (recipe: R) => void
}

/** Shape of the picked layer as path data; null where none is picked. */
export function useShapeOfLayer(): string | null {
  const layer = useAppSelector(selectLayer)
  return layer ? layer.pieces.map((piece) => piece.path).join('') : null
}
