// A round drawn from rings of ornaments.
import { mandalaRecipeSchema, type MandalaRecipe } from '@feuillet/core/project'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { Button, SchemaFields, type SchemaField } from '../../../../ui'
import type { FormProps } from './form-props'

const MANDALA: readonly SchemaField<MandalaRecipe>[] = [
  { kind: 'whole', key: 'fold', label: 'Repeats round the centre', min: 3, max: 24 },
  { kind: 'whole', key: 'layers', label: 'Layers', min: 2, max: 8 },
  { kind: 'length', key: 'diameterMm', label: 'Across', min: 20, max: 600 },
  { kind: 'length', key: 'stripMm', label: 'Narrowest strip', min: 0.6, max: 8 },
  { kind: 'whole', key: 'seed', label: 'Pattern number', min: 0, max: 999_999 },
]

export function MandalaForm({ recipe, onChange }: FormProps<MandalaRecipe>) {
  const unit = useAppSelector(selectUnit)
  return (
    <>
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={mandalaRecipeSchema}
        fields={MANDALA}
        onChange={onChange}
      />
      <Button small onClick={() => onChange({ ...recipe, seed: (recipe.seed + 1) % 1_000_000 })}>
        Next
      </Button>
    </>
  )
}
