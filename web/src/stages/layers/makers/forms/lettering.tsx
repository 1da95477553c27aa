// Words, in letters of any face.
import { letteringRecipeSchema, type LetteringRecipe } from '@feuillet/core/project'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { ACCEPTS, FileInput, SchemaFields, SelectField, type SchemaField } from '../../../../ui'
import { shippedFonts } from '../fonts'
import { LetterFields, type Letter, type PickedLetter } from './letters'
import type { FormProps } from './form-props'

const isCutOut = ({ style }: LetteringRecipe): boolean => style === 'cut-out'

const isJoined = ({ style }: LetteringRecipe): boolean => style === 'joined'

const LETTERING: readonly SchemaField<LetteringRecipe>[] = [
  { kind: 'length', key: 'widthMm', label: 'Width in all', min: 20 },
  {
    kind: 'number',
    key: 'lineGap',
    label: 'From line to line, times',
    min: 0.5,
    max: 2,
    when: ({ text }) => text.trim().includes('\n'),
  },
  {
    kind: 'choice',
    key: 'style',
    label: 'Letters',
    options: [
      {
        value: 'joined',
        label: 'joined',
        title: 'In one piece, each letter moved until it holds to the next',
      },
      { value: 'apart', label: 'apart', title: 'Each letter a piece of its own, on a backing' },
      { value: 'cut-out', label: 'cut out', title: 'Openings in full sheets, wider from sheet to sheet' },
    ],
  },
  { kind: 'length', key: 'joinMm', label: 'Letters joined by', min: 0.3, max: 10, when: isJoined },
  {
    kind: 'choice',
    key: 'dots',
    label: 'Dots and accents',
    when: isJoined,
    options: [
      { value: 'moved', label: 'dots moved' },
      { value: 'strip', label: 'tied by a strip' },
    ],
  },
  {
    kind: 'choice',
    key: 'bridge',
    label: 'Strips that tie',
    when: isJoined,
    options: [
      { value: 'straight', label: 'straight' },
      { value: 'flared', label: 'flared', title: 'Wider where they join' },
      { value: 'bowed', label: 'bowed', title: 'Bent into a bow' },
    ],
  },
  { kind: 'whole', key: 'cutSteps', label: 'Wider sheets in front', min: 1, max: 12, when: isCutOut },
  { kind: 'length', key: 'cutStepMm', label: 'Each wider by', min: 0.2, max: 40, when: isCutOut },
  { kind: 'length', key: 'sheetWidthMm', label: 'Sheet width', min: 10, when: isCutOut },
  { kind: 'length', key: 'sheetHeightMm', label: 'Sheet height', min: 10, when: isCutOut },
  { kind: 'length', key: 'backingMm', label: 'Backing reaches out', max: 40, when: (r) => !isCutOut(r) },
  { kind: 'whole', key: 'backingSteps', label: 'Backing steps', min: 1, max: 4, when: (r) => !isCutOut(r) },
  { kind: 'length', key: 'fillGapsMm', label: 'Fill gaps under', max: 30, when: (r) => !isCutOut(r) },
  { kind: 'whole', key: 'sticks', label: 'Sticks', min: 0, max: 4, when: (r) => !isCutOut(r) },
  {
    kind: 'length',
    key: 'stickMm',
    label: 'Width of a stick',
    min: 1,
    max: 20,
    when: (r) => !isCutOut(r) && r.sticks > 0,
  },
  { kind: 'length', key: 'paperMm', label: 'Card of one sheet', min: 0.1, max: 2, when: (r) => !isCutOut(r) },
  {
    kind: 'choice',
    key: 'corners',
    label: 'Corners of the wider sheets',
    when: isCutOut,
    options: [
      { value: 'round', label: 'round corners' },
      { value: 'sharp', label: 'sharp' },
    ],
  },
]

export function LetteringForm({
  recipe,
  onChange,
  onFont,
  letters,
  picked,
  onPick,
}: FormProps<LetteringRecipe> & {
  onFont: (file: File) => void
  letters: readonly Letter[]
  picked: PickedLetter | null
  onPick: (picked: PickedLetter | null) => void
}) {
  const unit = useAppSelector(selectUnit)
  const set = (patch: Partial<LetteringRecipe>) => onChange({ ...recipe, ...patch })
  return (
    <>
      <textarea
        aria-label="Words"
        className="h-16 w-full border border-line bg-sheet p-2 text-[16px]"
        maxLength={200}
        value={recipe.text}
        onChange={(event) => event.target.value && set({ text: event.target.value })}
      />
      <SelectField
        label="Font"
        value={recipe.font}
        options={[
          ...shippedFonts.map(({ id, name, kind }) => ({ value: id as string, label: name, group: kind })),
          ...(recipe.font === 'own' ? [{ value: 'own', label: 'your own' }] : []),
        ]}
        onChange={(font) => set({ font })}
      />
      <label className="cursor-pointer text-plum underline underline-offset-2 focus-within:outline-2 focus-within:outline-plum">
        Your own font: TTF, OTF, WOFF
        <FileInput
          label="Font file"
          accept={ACCEPTS.font}
          className="sr-only"
          onFiles={([file]) => file && onFont(file)}
        />
      </label>
      <label className="flex items-center justify-between gap-3">
        <span className="text-soft">Alternate signs for</span>
        <input
          className="w-26"
          placeholder="e.g. bg or *"
          value={recipe.alternates}
          onChange={(event) => set({ alternates: event.target.value.trim() })}
        />
      </label>
      <SchemaFields
        value={recipe}
        unit={unit}
        schema={letteringRecipeSchema}
        fields={LETTERING}
        onChange={onChange}
      />
      {letters.length > 0 && (
        <LetterFields recipe={recipe} letters={letters} picked={picked} onPick={onPick} onChange={onChange} />
      )}
    </>
  )
}
