// A picture in tones, a sheet each.
import { tonesRecipeSchema, type TonesRecipe } from '@feuillet/core/project'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { Choice, SchemaFields, type SchemaField } from '../../../../ui'
import { Histogram } from './histogram'

const FIELDS: readonly SchemaField<TonesRecipe>[] = [
  {
    kind: 'choice',
    key: 'back',
    label: 'Full sheet at the back',
    options: [
      { value: 'light', label: 'light at the back' },
      { value: 'dark', label: 'dark' },
    ],
  },
  { kind: 'length', key: 'widthMm', label: 'Width', min: 20 },
  {
    kind: 'choice',
    key: 'filter',
    label: 'Smoothed',
    options: [
      { value: 'plain', label: 'smoothed all over' },
      { value: 'edges', label: 'edges kept', title: 'Smooth within areas, and not across their edges' },
    ],
  },
  { kind: 'length', key: 'smoothMm', label: 'Smoothing', max: 20 },
  { kind: 'number', key: 'contrast', label: 'Local contrast, 0 to 1', min: 0, max: 1 },
  { kind: 'area', key: 'speckMm2', label: 'Drop specks under', min: 0, max: 2000 },
  {
    kind: 'choice',
    key: 'spots',
    label: 'Small spots that stand out',
    options: [
      { value: 'kept', label: 'bright spots kept', title: 'Eyes, lamps: specks that stand out stay' },
      { value: 'dropped', label: 'dropped' },
    ],
  },
  { kind: 'length', key: 'detailMm', label: 'Detail, outlines true to', min: 0.01, max: 5 },
  { kind: 'length', key: 'tieMm', label: 'Tie pieces by strips, 0 for none', max: 10 },
  {
    kind: 'choice',
    key: 'crop',
    label: 'Crop',
    options: [
      { value: 'none', label: 'no crop' },
      { value: 'oval', label: 'oval' },
      { value: 'rounded', label: 'rounded' },
    ],
  },
  { kind: 'length', key: 'matMm', label: 'Mat round it, 0 for none', max: 200 },
]

interface Props {
  recipe: TonesRecipe
  /** How many of each grey the picture has; undefined until it is counted. */
  greys: readonly number[] | undefined
  onChange: (recipe: TonesRecipe) => void
}

/** Settings of the tones maker. */
export function TonesForm({ recipe, greys, onChange }: Props) {
  const unit = useAppSelector(selectUnit)
  const stock = useAppSelector((state) => state.document.stock)
  // Another number of tones wants other thresholds.
  const retoned = (next: TonesRecipe) =>
    onChange(next.levels === recipe.levels ? next : { ...next, thresholds: [] })
  const parted = (by: TonesRecipe['by']) =>
    onChange({
      ...recipe,
      by,
      papers:
        by === 'papers'
          ? stock
              .filter(({ finish }) => finish !== 'acetate' && finish !== 'vellum')
              .map(({ id, colour }) => ({ paperId: id, colour }))
          : [],
    })
  return (
    <>
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={tonesRecipeSchema}
        fields={[{ kind: 'whole', key: 'levels', label: 'Tones', min: 2, max: 6 }]}
        onChange={retoned}
      />
      {recipe.colours && (
        <Choice
          label="Parted by"
          value={recipe.by}
          options={[
            { value: 'greys', label: 'greys' },
            { value: 'colours', label: 'colours', title: 'The colours that fit the picture best' },
            { value: 'papers', label: 'my papers', title: 'The papers of the drawer that fit it best' },
          ]}
          onChange={parted}
        />
      )}
      {recipe.by === 'greys' && greys && (
        <div>
          <p className="mb-1 text-soft">Greys and thresholds</p>
          <Histogram
            recipe={recipe}
            bins={greys}
            onChange={(thresholds) => onChange({ ...recipe, thresholds })}
          />
        </div>
      )}
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={tonesRecipeSchema}
        fields={FIELDS}
        onChange={onChange}
      />
    </>
  )
}
