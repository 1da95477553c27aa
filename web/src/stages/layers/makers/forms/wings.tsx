// Wings of one half, folded up.
import { wingsRecipeSchema, type WingsRecipe } from '@feuillet/core/project'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { SchemaFields, type SchemaField } from '../../../../ui'
import { type FormProps, useShapeOfLayer } from './form-props'

const WINGS: readonly SchemaField<WingsRecipe>[] = [
  {
    kind: 'choice',
    key: 'wing',
    label: 'Wing',
    options: [
      { value: 'gull', label: 'gull' },
      { value: 'butterfly', label: 'butterfly' },
      {
        value: 'own',
        label: 'picked layer',
        title: 'The picked layer is the right half: its left side joins the body',
      },
    ],
  },
  { kind: 'length', key: 'spanMm', label: 'Span', min: 10 },
  { kind: 'length', key: 'heightMm', label: 'Height', min: 5 },
  { kind: 'length', key: 'bodyMm', label: 'Body that is glued', min: 1, max: 200 },
  { kind: 'number', key: 'deg', label: 'Wings turned up by', unitHint: '°', min: 0, max: 85 },
]

export function WingsForm({ recipe, onChange }: FormProps<WingsRecipe>) {
  const unit = useAppSelector(selectUnit)
  const own = useShapeOfLayer()
  return (
    <SchemaFields
      value={recipe}
      unit={unit}
      schema={wingsRecipeSchema}
      fields={WINGS}
      onChange={(next) => onChange({ ...next, own: next.wing === 'own' ? (own ?? undefined) : undefined })}
    />
  )
}
