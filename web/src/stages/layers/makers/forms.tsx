// The settings of each maker. A form draws and hands on; what comes of it is made by the core.
import type { ReactNode } from 'react'
import type {
  LadderRecipe,
  LetteringRecipe,
  MandalaRecipe,
  Recipe,
  RosetteRecipe,
  TonesRecipe,
} from '@feuillet/core/project'
import { selectLayer, selectUnit } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { Button, Choice, LengthField, NumberField, SelectField } from '../../../ui'
import { shippedFonts } from './fonts'
import { Histogram } from './histogram'

interface FormProps<R extends Recipe> {
  recipe: R
  set: (patch: Partial<R>) => void
}

function Length({
  label,
  value,
  onChange,
  min = 0,
  max = 1000,
}: {
  label: string
  value: number
  onChange: (mm: number) => void
  min?: number
  max?: number
}) {
  const unit = useAppSelector(selectUnit)
  return <LengthField label={label} valueMm={value} unit={unit} min={min} max={max} onChange={onChange} />
}

const Labelled = ({ label, children }: { label: string; children: ReactNode }) => (
  <div>
    <p className="mb-1 text-soft">{label}</p>
    {children}
  </div>
)

function LadderForm({ recipe, set }: FormProps<LadderRecipe>) {
  return (
    <>
      <Choice
        label="Direction"
        value={recipe.direction}
        options={[
          { value: 'inset', label: 'inwards' },
          { value: 'outset', label: 'outwards', title: 'For thin shapes such as letters' },
        ]}
        onChange={(direction) => set({ direction })}
      />
      <NumberField
        label="Steps"
        value={recipe.steps}
        min={1}
        max={40}
        whole
        onChange={(steps) => set({ steps })}
      />
      <Length
        label="One step"
        value={recipe.stepMm}
        min={0.2}
        max={100}
        onChange={(stepMm) => set({ stepMm })}
      />
      <Choice
        label="Corners"
        value={recipe.corners}
        options={[
          { value: 'round', label: 'round corners' },
          { value: 'sharp', label: 'sharp' },
        ]}
        onChange={(corners) => set({ corners })}
      />
      <NumberField
        label="Drop specks under"
        unitHint="mm²"
        value={recipe.speckMm2}
        min={0}
        max={500}
        onChange={(speckMm2) => set({ speckMm2 })}
      />
      <Length
        label="Sheet width"
        value={recipe.sheetWidthMm}
        min={10}
        onChange={(sheetWidthMm) => set({ sheetWidthMm })}
      />
      <Length
        label="Sheet height"
        value={recipe.sheetHeightMm}
        min={10}
        onChange={(sheetHeightMm) => set({ sheetHeightMm })}
      />
      <Length
        label="Front border, 0 for none"
        value={recipe.borderMm}
        max={200}
        onChange={(borderMm) => set({ borderMm })}
      />
    </>
  )
}

function LetteringForm({
  recipe,
  set,
  onFont,
}: FormProps<LetteringRecipe> & { onFont: (file: File) => void }) {
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
      <label className="cursor-pointer text-plum underline underline-offset-2">
        Your own font: TTF, OTF, WOFF
        <input
          type="file"
          accept=".ttf,.otf,.woff"
          className="sr-only"
          aria-label="Font file"
          onChange={(event) => event.target.files?.[0] && onFont(event.target.files[0])}
        />
      </label>
      <label
        className="flex items-center justify-between gap-3"
        title="Letters to draw in the font's other shape; * for all. Not every font has them."
      >
        <span className="text-soft">Alternate signs for</span>
        <input
          className="w-26"
          placeholder="e.g. bg or *"
          value={recipe.alternates}
          onChange={(event) => set({ alternates: event.target.value.trim() })}
        />
      </label>
      <Length label="Width in all" value={recipe.widthMm} min={20} onChange={(widthMm) => set({ widthMm })} />
      {recipe.text.trim().includes('\n') && (
        <NumberField
          label="From line to line, times"
          value={recipe.lineGap}
          min={0.5}
          max={2}
          onChange={(lineGap) => set({ lineGap })}
        />
      )}
      <Choice
        label="Letters"
        value={recipe.style}
        options={[
          {
            value: 'joined',
            label: 'joined',
            title: 'In one piece, each letter moved until it holds to the next',
          },
          { value: 'apart', label: 'apart', title: 'Each letter a piece of its own, on a backing' },
          { value: 'cut-out', label: 'cut out', title: 'Openings in full sheets, wider from sheet to sheet' },
        ]}
        onChange={(style) => set({ style })}
      />
      {recipe.style === 'joined' && (
        <>
          <Length
            label="Letters joined by"
            value={recipe.joinMm}
            min={0.3}
            max={10}
            onChange={(joinMm) => set({ joinMm })}
          />
          <Choice
            label="Dots and accents"
            value={recipe.dots}
            options={[
              { value: 'moved', label: 'dots moved' },
              { value: 'strip', label: 'tied by a strip' },
            ]}
            onChange={(dots) => set({ dots })}
          />
        </>
      )}
      {recipe.style === 'cut-out' ? (
        <>
          <NumberField
            label="Wider sheets in front"
            value={recipe.cutSteps}
            min={1}
            max={12}
            whole
            onChange={(cutSteps) => set({ cutSteps })}
          />
          <Length
            label="Each wider by"
            value={recipe.cutStepMm}
            min={0.2}
            max={40}
            onChange={(cutStepMm) => set({ cutStepMm })}
          />
          <Length
            label="Sheet width"
            value={recipe.sheetWidthMm}
            min={10}
            onChange={(sheetWidthMm) => set({ sheetWidthMm })}
          />
          <Length
            label="Sheet height"
            value={recipe.sheetHeightMm}
            min={10}
            onChange={(sheetHeightMm) => set({ sheetHeightMm })}
          />
        </>
      ) : (
        <>
          <Length
            label="Backing reaches out"
            value={recipe.backingMm}
            max={40}
            onChange={(backingMm) => set({ backingMm })}
          />
          <NumberField
            label="Backing steps"
            value={recipe.backingSteps}
            min={1}
            max={4}
            whole
            onChange={(backingSteps) => set({ backingSteps })}
          />
          <Length
            label="Fill gaps under"
            value={recipe.fillGapsMm}
            max={30}
            onChange={(fillGapsMm) => set({ fillGapsMm })}
          />
          <NumberField
            label="Sticks"
            value={recipe.sticks}
            min={0}
            max={2}
            whole
            onChange={(sticks) => set({ sticks })}
          />
        </>
      )}
    </>
  )
}

function TonesForm({ recipe, set }: FormProps<TonesRecipe>) {
  return (
    <>
      <NumberField
        label="Tones"
        value={recipe.levels}
        min={2}
        max={6}
        whole
        onChange={(levels) => set({ levels, thresholds: [] })}
      />
      <Labelled label="Greys and thresholds">
        <Histogram recipe={recipe} onChange={(thresholds) => set({ thresholds })} />
      </Labelled>
      <Choice
        label="Full sheet at the back"
        value={recipe.back}
        options={[
          { value: 'light', label: 'light at the back' },
          { value: 'dark', label: 'dark' },
        ]}
        onChange={(back) => set({ back })}
      />
      <Length label="Width" value={recipe.widthMm} min={20} onChange={(widthMm) => set({ widthMm })} />
      <Length label="Smoothing" value={recipe.smoothMm} max={20} onChange={(smoothMm) => set({ smoothMm })} />
      <NumberField
        label="Drop specks under"
        unitHint="mm²"
        value={recipe.speckMm2}
        min={0}
        max={2000}
        onChange={(speckMm2) => set({ speckMm2 })}
      />
      <Length
        label="Detail, outlines true to"
        value={recipe.detailMm}
        min={0.01}
        max={5}
        onChange={(detailMm) => set({ detailMm })}
      />
      <Length
        label="Tie pieces by strips, 0 for none"
        value={recipe.tieMm}
        max={10}
        onChange={(tieMm) => set({ tieMm })}
      />
      <Choice
        label="Crop"
        value={recipe.crop}
        options={[
          { value: 'none', label: 'no crop' },
          { value: 'oval', label: 'oval' },
          { value: 'rounded', label: 'rounded' },
        ]}
        onChange={(crop) => set({ crop })}
      />
    </>
  )
}

function RosetteForm({ recipe, set }: FormProps<RosetteRecipe>) {
  const layer = useAppSelector(selectLayer)
  return (
    <>
      <Choice
        label="Petal"
        value={recipe.petal}
        options={[
          { value: 'round', label: 'round' },
          { value: 'pointed', label: 'pointed' },
          { value: 'heart', label: 'heart' },
          { value: 'lobed', label: 'lobed' },
        ]}
        onChange={(petal) => set({ petal, shape: undefined })}
      />
      {layer && layer.pieces.length > 0 && (
        <Button
          small
          aria-pressed={recipe.shape !== undefined}
          onClick={() =>
            set({
              shape:
                recipe.shape === undefined ? layer.pieces.map((piece) => piece.path).join('') : undefined,
            })
          }
        >
          {recipe.shape === undefined ? `Take “${layer.name}” as the ring` : 'Draw the petals again'}
        </Button>
      )}
      <NumberField
        label="Petals"
        value={recipe.petals}
        min={3}
        max={16}
        whole
        onChange={(petals) => set({ petals })}
      />
      <Length
        label="Across"
        value={recipe.diameterMm}
        min={15}
        max={400}
        onChange={(diameterMm) => set({ diameterMm })}
      />
      <NumberField
        label="Sizes, two of each"
        value={recipe.sizes}
        min={1}
        max={8}
        whole
        onChange={(sizes) => set({ sizes })}
      />
      <NumberField
        label="Each size against the last"
        value={recipe.ratio}
        min={0.4}
        max={0.97}
        onChange={(ratio) => set({ ratio })}
      />
      <Length
        label="Rolled centre, 0 for none"
        value={recipe.centreMm}
        max={80}
        onChange={(centreMm) => set({ centreMm })}
      />
      <Length
        label="Fringe height"
        value={recipe.fringeMm}
        min={3}
        max={60}
        onChange={(fringeMm) => set({ fringeMm })}
      />
      <NumberField
        label="Card of the strip"
        unitHint="mm"
        value={recipe.paperMm}
        min={0.05}
        max={1}
        onChange={(paperMm) => set({ paperMm })}
      />
      <NumberField
        label="Leaves"
        value={recipe.leaves}
        min={0}
        max={6}
        whole
        onChange={(leaves) => set({ leaves })}
      />
    </>
  )
}

function MandalaForm({ recipe, set }: FormProps<MandalaRecipe>) {
  return (
    <>
      <NumberField
        label="Repeats round the centre"
        value={recipe.fold}
        min={3}
        max={24}
        whole
        onChange={(fold) => set({ fold })}
      />
      <NumberField
        label="Layers"
        value={recipe.layers}
        min={2}
        max={8}
        whole
        onChange={(layers) => set({ layers })}
      />
      <Length
        label="Across"
        value={recipe.diameterMm}
        min={20}
        max={600}
        onChange={(diameterMm) => set({ diameterMm })}
      />
      <Length
        label="Narrowest strip"
        value={recipe.stripMm}
        min={0.6}
        max={8}
        onChange={(stripMm) => set({ stripMm })}
      />
      <div className="flex items-end justify-between gap-3">
        <div className="flex-1">
          <NumberField
            label="Pattern number"
            value={recipe.seed}
            min={0}
            max={999_999}
            whole
            onChange={(seed) => set({ seed })}
          />
        </div>
        <Button small onClick={() => set({ seed: (recipe.seed + 1) % 1_000_000 })}>
          Next
        </Button>
      </div>
    </>
  )
}

/** The form of a recipe's kind. */
export function RecipeForm({
  recipe,
  onChange,
  onFont,
}: {
  recipe: Recipe
  onChange: (recipe: Recipe) => void
  onFont: (file: File) => void
}) {
  const set = (patch: object) => onChange({ ...recipe, ...patch } as Recipe)
  switch (recipe.kind) {
    case 'ladder':
      return <LadderForm recipe={recipe} set={set} />
    case 'lettering':
      return <LetteringForm recipe={recipe} set={set} onFont={onFont} />
    case 'tones':
      return <TonesForm recipe={recipe} set={set} />
    case 'rosette':
      return <RosetteForm recipe={recipe} set={set} />
    case 'mandala':
      return <MandalaForm recipe={recipe} set={set} />
  }
}
