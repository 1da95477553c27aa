// The settings of each maker, as tables of fields. A form draws and hands on; what comes of it is made by the core.
import { ladderRecipeSchema, type LadderRecipe, type Recipe, type Picture } from '@feuillet/core/project'
import type { Made } from '@feuillet/core/stages/layers/makers'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { SchemaFields, type SchemaField } from '../../../../ui'
import type { PickedLetter } from './letters'
import { TonesForm } from './tones'
import { LetteringForm } from './lettering'
import { RosetteForm } from './rosette'
import { GarlandForm } from './garland'
import { WingsForm } from './wings'
import { SceneForm } from './scene'
import { WindowForm } from './window'
import { MandalaForm } from './mandala'

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
  { kind: 'area', key: 'speckMm2', label: 'Drop specks under', min: 0, max: 500 },
  { kind: 'length', key: 'sheetWidthMm', label: 'Sheet width', min: 10 },
  { kind: 'length', key: 'sheetHeightMm', label: 'Sheet height', min: 10 },
  { kind: 'length', key: 'borderMm', label: 'Front border, 0 for none', max: 200 },
]

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
