// Scenery along the frame.
import { sceneRecipeSchema, type SceneRecipe } from '@feuillet/core/project'
import { selectLayer, selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { Button, SchemaFields, type SchemaField } from '../../../../ui'
import { type FormProps, useShapeOfLayer } from './form-props'

const isBand = ({ hold }: SceneRecipe): boolean => hold === 'wraps'

const stands = ({ hold }: SceneRecipe): boolean => hold === 'stands' || hold === 'hangs'

const isFigure = (recipe: SceneRecipe): boolean => !isBand(recipe)

const SCENE: readonly SchemaField<SceneRecipe>[] = [
  {
    kind: 'choice',
    key: 'hold',
    label: 'How it is held',
    options: [
      { value: 'stands', label: 'stands', title: 'On two feet folded opposite ways' },
      { value: 'hangs', label: 'hangs', title: 'From one bar along its upper edge' },
      { value: 'wraps', label: 'band', title: 'A band round the inside of the frame' },
      { value: 'adorns', label: 'corners', title: 'Ornaments in the corners or at the sides of the frame' },
    ],
  },
  {
    kind: 'select',
    key: 'places',
    label: 'Where',
    options: [
      { value: 'upper corners', label: 'both upper corners' },
      { value: 'lower corners', label: 'both lower corners' },
      { value: 'four corners', label: 'all four corners' },
      { value: 'upper left', label: 'upper left corner' },
      { value: 'upper right', label: 'upper right corner' },
      { value: 'lower left', label: 'lower left corner' },
      { value: 'lower right', label: 'lower right corner' },
      { value: 'both sides', label: 'both sides' },
      { value: 'left side', label: 'left side' },
      { value: 'right side', label: 'right side' },
    ],
    when: ({ hold }) => hold === 'adorns',
  },
  { kind: 'length', key: 'widthMm', label: 'Width', min: 5, when: isFigure },
  { kind: 'length', key: 'heightMm', label: 'Height', min: 5, when: isFigure },
  { kind: 'length', key: 'barMm', label: 'Feet, bar or width of the band', min: 2, max: 100 },
  { kind: 'length', key: 'fromPaneMm', label: 'Behind the pane by', max: 300 },
  { kind: 'length', key: 'frameWidthMm', label: 'Inner frame, width', min: 20 },
  { kind: 'length', key: 'frameHeightMm', label: 'Inner frame, height', min: 20 },
  { kind: 'length', key: 'frameDepthMm', label: 'Inner frame, depth', min: 3, max: 300 },
  { kind: 'length', key: 'flapMm', label: 'Flap that closes it', min: 2, max: 60, when: isBand },
  { kind: 'length', key: 'longestMm', label: 'Longest strip of a sheet', min: 30, max: 2000, when: isBand },
  { kind: 'length', key: 'thicknessMm', label: 'Card of it', min: 0.1, max: 3 },
  { kind: 'number', key: 'gsm', label: 'Its weight', unitHint: 'gsm', min: 60, max: 1200, when: stands },
]

export function SceneForm({ recipe, onChange }: FormProps<SceneRecipe>) {
  const unit = useAppSelector(selectUnit)
  const layer = useAppSelector(selectLayer)
  const own = useShapeOfLayer()
  const isBand = recipe.hold === 'wraps'
  const adorns = recipe.hold === 'adorns'
  const set = (next: SceneRecipe) => {
    if (next.hold !== 'adorns' || adorns) return onChange(next)
    // What adorns a corner is small beside what stands.
    const sideMm = Math.max(10, Math.round(0.3 * Math.min(next.frameWidthMm, next.frameHeightMm)))
    onChange({ ...next, widthMm: sideMm, heightMm: sideMm })
  }
  return (
    <>
      <SchemaFields value={recipe} unit={unit} schema={sceneRecipeSchema} fields={SCENE} onChange={set} />
      {!isBand && !adorns && recipe.shape === undefined && (
        <Button small onClick={() => onChange({ ...recipe, seed: (recipe.seed + 1) % 1_000_000 })}>
          Other houses
        </Button>
      )}
      {!isBand && own && (
        <Button
          small
          aria-pressed={recipe.shape !== undefined}
          onClick={() => onChange({ ...recipe, shape: recipe.shape === undefined ? own : undefined })}
        >
          {recipe.shape !== undefined
            ? adorns
              ? 'Take the fan again'
              : 'Take houses again'
            : `Take “${layer!.name}” as ${adorns ? 'the ornament' : 'what stands'}`}
        </Button>
      )}
    </>
  )
}
