// The settings of each maker, as tables of fields. A form draws and hands on; what comes of it is made by the core.
import {
  garlandRecipeSchema,
  ladderRecipeSchema,
  letteringRecipeSchema,
  mandalaRecipeSchema,
  rosetteRecipeSchema,
  sceneRecipeSchema,
  windowRecipeSchema,
  wingsRecipeSchema,
  type GarlandRecipe,
  type LadderRecipe,
  type LetteringRecipe,
  type MandalaRecipe,
  type Recipe,
  type RosetteRecipe,
  type Picture,
  type SceneRecipe,
  type WindowRecipe,
  type WingsRecipe,
} from '@feuillet/core/project'
import type { Made } from '@feuillet/core/stages/layers/makers'
import { selectLayer, selectUnit } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import {
  ACCEPTS,
  Button,
  ColourInput,
  FileButton,
  FileInput,
  SchemaFields,
  SelectField,
  type SchemaField,
} from '../../../ui'
import { shippedFonts } from './fonts'
import { GARLAND, SCENE, WINDOW, WINGS } from './kind-fields'
import { LetterFields, type Letter, type PickedLetter } from './letter-fields'
import { TonesForm } from './tones-form'

interface FormProps<R extends Recipe> {
  recipe: R
  onChange: (recipe: R) => void
}

const LADDER: readonly SchemaField<LadderRecipe>[] = [
  {
    kind: 'choice',
    key: 'direction',
    label: 'Direction',
    options: [
      { value: 'inset', label: 'inwards' },
      { value: 'outset', label: 'outwards', title: 'For thin shapes such as letters' },
    ],
  },
  { kind: 'whole', key: 'steps', label: 'Steps', min: 1, max: 40 },
  { kind: 'length', key: 'stepMm', label: 'One step', min: 0.2, max: 100 },
  {
    kind: 'choice',
    key: 'corners',
    label: 'Corners',
    options: [
      { value: 'round', label: 'round corners' },
      { value: 'sharp', label: 'sharp' },
    ],
  },
  { kind: 'number', key: 'speckMm2', label: 'Drop specks under', unitHint: 'mm²', min: 0, max: 500 },
  { kind: 'length', key: 'sheetWidthMm', label: 'Sheet width', min: 10 },
  { kind: 'length', key: 'sheetHeightMm', label: 'Sheet height', min: 10 },
  { kind: 'length', key: 'borderMm', label: 'Front border, 0 for none', max: 200 },
]

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

const MANDALA: readonly SchemaField<MandalaRecipe>[] = [
  { kind: 'whole', key: 'fold', label: 'Repeats round the centre', min: 3, max: 24 },
  { kind: 'whole', key: 'layers', label: 'Layers', min: 2, max: 8 },
  { kind: 'length', key: 'diameterMm', label: 'Across', min: 20, max: 600 },
  { kind: 'length', key: 'stripMm', label: 'Narrowest strip', min: 0.6, max: 8 },
  { kind: 'whole', key: 'seed', label: 'Pattern number', min: 0, max: 999_999 },
]

function LetteringForm({
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

function RosetteForm({ recipe, onChange }: FormProps<RosetteRecipe>) {
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

/** Colours of a garland's flags, typed or picked, and the letters on them. */
function GarlandForm({ recipe, onChange }: FormProps<GarlandRecipe>) {
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

/** Shape of the picked layer as path data; null where none is picked. */
function useShapeOfLayer(): string | null {
  const layer = useAppSelector(selectLayer)
  return layer ? layer.pieces.map((piece) => piece.path).join('') : null
}

function WingsForm({ recipe, onChange }: FormProps<WingsRecipe>) {
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

function SceneForm({ recipe, onChange }: FormProps<SceneRecipe>) {
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

const NO_PICTURE = 'none'

function WindowForm({
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
          { value: NO_PICTURE, label: 'none: a photo is stuck on' },
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

function MandalaForm({ recipe, onChange }: FormProps<MandalaRecipe>) {
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

/** The form of a recipe's kind. */
export function RecipeForm({
  recipe,
  made,
  onChange,
  onFont,
  pictures,
  onPicture,
  letter,
  onLetter,
}: {
  recipe: Recipe
  /** What came of it last. */
  made: Made | null
  onChange: (recipe: Recipe) => void
  onFont: (file: File) => void
  /** Pictures to choose among, and one to bring in. */
  pictures: readonly Picture[]
  onPicture: (file: File) => void
  /** The letter or line of words that is set by itself. */
  letter: PickedLetter | null
  onLetter: (letter: PickedLetter | null) => void
}) {
  const unit = useAppSelector(selectUnit)
  switch (recipe.kind) {
    case 'ladder':
      return (
        <SchemaFields
          value={recipe}
          unit={unit}
          schema={ladderRecipeSchema}
          fields={LADDER}
          onChange={onChange}
        />
      )
    case 'lettering':
      return (
        <LetteringForm
          recipe={recipe}
          onChange={onChange}
          onFont={onFont}
          letters={made?.letters ?? []}
          picked={letter}
          onPick={onLetter}
        />
      )
    case 'tones':
      return <TonesForm recipe={recipe} greys={made?.greys} onChange={onChange} />
    case 'rosette':
      return <RosetteForm recipe={recipe} onChange={onChange} />
    case 'garland':
      return <GarlandForm recipe={recipe} onChange={onChange} />
    case 'wings':
      return <WingsForm recipe={recipe} onChange={onChange} />
    case 'scene':
      return <SceneForm recipe={recipe} onChange={onChange} />
    case 'window':
      return <WindowForm recipe={recipe} onChange={onChange} pictures={pictures} onPicture={onPicture} />
    case 'mandala':
      return <MandalaForm recipe={recipe} onChange={onChange} />
  }
}
