import type { Adhesive } from '@feuillet/core/project'
import type { SelectOption } from '../ui'

/** Glues to choose from, with what their labels say that they stick to. */
export const glueOptions = (adhesives: readonly Adhesive[]): SelectOption<string>[] =>
  adhesives.map(({ id, name, surfaces }) => ({
    value: id,
    label: name,
    ...(surfaces ? { detail: surfaces } : {}),
  }))
