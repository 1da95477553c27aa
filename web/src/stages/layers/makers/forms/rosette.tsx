// Rings of petals.
import { rosetteRecipeSchema, type RosetteRecipe } from '@feuillet/core/project'
import { selectLayer, selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { Button, SchemaFields, type SchemaField } from '../../../../ui'
import type { FormProps } from './form-props'

const ROSETTE: readonly SchemaField<RosetteRecipe>[] = [
  { kind: 'whole', key: 'petals', label: 'Petals', min: 3, max: 16 },
  { kind: 'length', key: 'diameterMm', label: 'Across', min: 15, max: 400 },
  { kind: 'whole', key: 'sizes', label: 'Sizes, two of each', min: 1, max: 8 },
  {
    kind: 'choice',
    key: 'fall',
    label: 'Sizes fall by',
    options: [
      { value: 'ratio', label: 'by a ratio' },
      { value: 'step', label: 'by equal steps' },
    ],
  },
  {
    kind: 'number',
    key: 'ratio',
    label: 'Each size against the last',
    min: 0.4,
    max: 0.97,
    when: ({ fall }) => fall === 'ratio',
  },
  {
    kind: 'length',
    key: 'stepMm',
    label: 'Each less across by',
    min: 0.5,
    max: 100,
    when: ({ fall }) => fall === 'step',
  },
  { kind: 'length', key: 'curlMm', label: 'Petals curled up by, 0 for flat', max: 60 },
  { kind: 'length', key: 'centreMm', label: 'Rolled centre, 0 for none', max: 80 },
  { kind: 'length', key: 'fringeMm', label: 'Fringe height', min: 3, max: 60 },
  { kind: 'length', key: 'paperMm', label: 'Card of the strip', min: 0.05, max: 1 },
  {
    kind: 'choice',
    key: 'strip',
    label: 'Strip of the centre',
    when: ({ centreMm }) => centreMm > 0,
    options: [
      { value: 'folded', label: 'strip folded', title: 'In half lengthwise: half as long for the same roll' },
      { value: 'single', label: 'single' },
    ],
  },
  {
    kind: 'number',
    key: 'fringeDepth',
    label: 'Fringe cut in, share',
    min: 0.2,
    max: 0.95,
    when: ({ centreMm }) => centreMm > 0,
  },
  {
    kind: 'length',
    key: 'slitMm',
    label: 'Slit to slit',
    min: 0.6,
    max: 20,
    when: ({ centreMm }) => centreMm > 0,
  },
  {
    kind: 'length',
    key: 'longestMm',
    label: 'Longest strip of a sheet',
    min: 30,
    max: 2000,
    when: ({ centreMm }) => centreMm > 0,
  },
  { kind: 'whole', key: 'leaves', label: 'Leaves', min: 0, max: 6 },
  {
    kind: 'number',
    key: 'leafRatio',
    label: 'Each leaf against the last',
    min: 0.5,
    max: 1,
    when: ({ leaves }) => leaves > 0,
  },
  {
    kind: 'choice',
    key: 'leaf',
    label: 'Leaves are',
    when: ({ leaves }) => leaves > 0,
    options: [
      { value: 'folded', label: 'leaves folded', title: 'Lightly along the middle' },
      {
        value: 'cupped',
        label: 'cupped',
        title: 'A slit whose one edge is glued over the other turns the tip up',
      },
    ],
  },
  {
    kind: 'number',
    key: 'cupDeg',
    label: 'Cup turns up by',
    unitHint: '°',
    min: 5,
    max: 80,
    when: ({ leaves, leaf }) => leaves > 0 && leaf === 'cupped',
  },
  {
    kind: 'length',
    key: 'flapMm',
    label: 'Flap glued under',
    min: 1,
    max: 40,
    when: ({ leaves, leaf }) => leaves > 0 && leaf === 'cupped',
  },
]

const PETAL: readonly SchemaField<RosetteRecipe>[] = [
  {
    kind: 'choice',
    key: 'petal',
    label: 'Petal',
    options: [
      { value: 'round', label: 'round' },
      { value: 'pointed', label: 'pointed' },
      { value: 'heart', label: 'heart' },
      { value: 'lobed', label: 'lobed' },
    ],
  },
]

export function RosetteForm({ recipe, onChange }: FormProps<RosetteRecipe>) {
  const unit = useAppSelector(selectUnit)
  const layer = useAppSelector(selectLayer)
  const ring = layer?.pieces.map((piece) => piece.path).join('')
  return (
    <>
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={rosetteRecipeSchema}
        fields={PETAL}
        onChange={(next) => onChange({ ...next, shape: undefined })}
      />
      {ring && (
        <Button
          small
          aria-pressed={recipe.shape !== undefined}
          onClick={() => onChange({ ...recipe, shape: recipe.shape === undefined ? ring : undefined })}
        >
          {recipe.shape === undefined ? `Take “${layer!.name}” as the ring` : 'Draw the petals again'}
        </Button>
      )}
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={rosetteRecipeSchema}
        fields={ROSETTE}
        onChange={onChange}
      />
    </>
  )
}
