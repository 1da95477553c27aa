// Flags on a cord.
import { garlandRecipeSchema, type GarlandRecipe } from '@feuillet/core/project'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { Button, ColourInput, SchemaFields, type SchemaField } from '../../../../ui'
import { type FormProps, useShapeOfLayer } from './form-props'

const GARLAND: readonly SchemaField<GarlandRecipe>[] = [
  {
    kind: 'select',
    key: 'shape',
    label: 'Flag',
    options: [
      { value: 'pennant', label: 'pennant' },
      { value: 'swallowtail', label: 'swallowtail' },
      { value: 'banner', label: 'banner' },
      { value: 'scalloped', label: 'scalloped' },
      { value: 'round', label: 'round end' },
      { value: 'own', label: 'the picked layer' },
    ],
  },
  { kind: 'whole', key: 'flags', label: 'Flags', min: 1, max: 200 },
  { kind: 'length', key: 'flagWidthMm', label: 'Flag width', min: 10 },
  { kind: 'length', key: 'flagHeightMm', label: 'Flag height', min: 10 },
  {
    kind: 'length',
    key: 'scallopMm',
    label: 'Circles of the edge, about',
    min: 4,
    when: ({ shape }) => shape === 'scalloped',
  },
  { kind: 'length', key: 'gapMm', label: 'Twine between flags' },
  { kind: 'length', key: 'endsMm', label: 'Free twine at either end', max: 5000 },
  { kind: 'length', key: 'spanMm', label: 'Hook to hook, 0 if not known', max: 50_000 },
  {
    kind: 'choice',
    key: 'order',
    label: 'Order of the colours',
    options: [
      { value: 'repeating', label: 'repeating' },
      { value: 'mirrored', label: 'mirrored' },
      { value: 'list', label: 'as listed' },
    ],
  },
  {
    kind: 'choice',
    key: 'fixing',
    label: 'On the twine by',
    options: [
      { value: 'flap', label: 'a folded flap' },
      { value: 'eyelets', label: 'eyelets' },
    ],
  },
  { kind: 'length', key: 'flapMm', label: 'Flap', min: 4, max: 100, when: ({ fixing }) => fixing === 'flap' },
  {
    kind: 'length',
    key: 'eyeletMm',
    label: 'Eyelet across',
    min: 1.5,
    max: 15,
    when: ({ fixing }) => fixing === 'eyelets',
  },
]

/** Colours of a garland's flags, typed or picked, and the letters on them. */
export function GarlandForm({ recipe, onChange }: FormProps<GarlandRecipe>) {
  const unit = useAppSelector(selectUnit)
  const own = useShapeOfLayer()
  const { colours } = recipe
  return (
    <>
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={garlandRecipeSchema}
        fields={GARLAND}
        onChange={(next) => onChange({ ...next, own: next.shape === 'own' ? (own ?? undefined) : undefined })}
      />
      <div>
        <p className="mb-1 text-soft">Colours, from the left</p>
        <div className="flex flex-wrap items-center gap-1.5">
          {colours.map((colour, i) => (
            <ColourInput
              key={i}
              label={`Colour ${i + 1}`}
              className="size-8"
              value={colour}
              onChange={(next) => onChange({ ...recipe, colours: colours.with(i, next) })}
            />
          ))}
          <Button
            small
            disabled={colours.length >= 12}
            onClick={() => onChange({ ...recipe, colours: [...colours, colours[0]!] })}
          >
            One more
          </Button>
          <Button
            small
            disabled={colours.length < 2}
            onClick={() => onChange({ ...recipe, colours: colours.slice(0, -1) })}
          >
            One less
          </Button>
        </div>
      </div>
      <label className="flex items-center justify-between gap-3">
        <span className="text-soft">A letter a flag</span>
        <input
          className="w-26"
          maxLength={200}
          placeholder="none"
          value={recipe.text}
          onChange={(event) => onChange({ ...recipe, text: event.target.value })}
        />
      </label>
    </>
  )
}
