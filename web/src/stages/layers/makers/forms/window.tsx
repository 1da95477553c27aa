// An opening before a picture.
import { windowRecipeSchema, type Picture, type WindowRecipe, LIMITS } from '@feuillet/core/project'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { ACCEPTS, FileButton, SchemaFields, SelectField, type SchemaField } from '../../../../ui'
import { type FormProps, useShapeOfLayer } from './form-props'

const NO_PICTURE = 'none'

const WINDOW: readonly SchemaField<WindowRecipe>[] = [
  {
    kind: 'select',
    key: 'shape',
    label: 'Opening',
    options: [
      { value: 'round', label: 'round' },
      { value: 'oval', label: 'oval' },
      { value: 'rounded', label: 'rounded corners' },
      { value: 'heart', label: 'heart' },
      { value: 'own', label: 'the picked layer' },
    ],
  },
  { kind: 'length', key: 'widthMm', label: 'Opening, width', min: 5 },
  { kind: 'length', key: 'heightMm', label: 'Opening, height', min: 5 },
  { kind: 'length', key: 'ringMm', label: 'Ring, width', min: 1, max: 200 },
  { kind: 'length', key: 'underMm', label: 'Picture under the ring', min: 0.5, max: 150 },
  {
    kind: 'choice',
    key: 'pane',
    label: 'Over the picture',
    options: [
      { value: 'clear', label: 'clear pane', title: 'Glued under the ring' },
      { value: 'none', label: 'nothing' },
    ],
  },
  { kind: 'length', key: 'raisedMm', label: 'Raised over the picture', max: 20 },
  {
    kind: 'length',
    key: 'bleedMm',
    label: 'Bleed, 0 for a white edge',
    max: LIMITS.bleedMm[1],
    when: ({ picture }) => picture !== null,
  },
]

export function WindowForm({
  recipe,
  onChange,
  pictures,
  onPicture,
}: FormProps<WindowRecipe> & { pictures: readonly Picture[]; onPicture: (file: File) => void }) {
  const unit = useAppSelector(selectUnit)
  const own = useShapeOfLayer()
  const choose = (id: string) => {
    const chosen = pictures.find((one) => one.id === id)
    const { pixelsWide, pixelsHigh } = chosen ?? {}
    onChange({ ...recipe, picture: chosen ? { id, pixelsWide: pixelsWide!, pixelsHigh: pixelsHigh! } : null })
  }
  return (
    <>
      <SelectField
        label="Picture"
        value={recipe.picture?.id ?? NO_PICTURE}
        options={[
          { value: NO_PICTURE, label: 'none: stuck on' },
          ...pictures.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={choose}
      />
      <FileButton
        small
        label="Picture of the window"
        accept={ACCEPTS.picture}
        onFiles={([file]) => file && onPicture(file)}
      >
        Bring in a picture
      </FileButton>
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={windowRecipeSchema}
        fields={WINDOW}
        onChange={(next) => onChange({ ...next, own: next.shape === 'own' ? (own ?? undefined) : undefined })}
      />
    </>
  )
}
