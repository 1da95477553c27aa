// One line or one letter of the words, set otherwise than the rest.
import { useEffect, useState } from 'react'
import type { LetteringRecipe, OwnLetter, OwnLine } from '@feuillet/core/project'
import type { Made } from '@feuillet/core/stages/layers/makers'
import { selectUnit } from '../../../../state/selectors'
import { useAppSelector } from '../../../../state/store'
import { Button, LengthField, NumberField, SelectField } from '../../../../ui'
import { editor } from '../../../../workers'
import { readyFont, shippedFonts } from '../fonts'

export type Letter = NonNullable<Made['letters']>[number]
/** What is picked: a letter, or all of a line. */
export interface PickedLetter {
  line: number
  /** Null for the whole line. */
  at: number | null
}

const AS_THE_REST = 'rest'
const PLAIN = { size: 1, stretch: 1, rightMm: 0, upMm: 0 }
const sameLetter = (picked: PickedLetter) => (one: { line: number; at: number }) =>
  one.line === picked.line && one.at === picked.at

/** What is set of a picked letter or line; as the rest where nothing is. */
const ownOf = (recipe: LetteringRecipe, picked: PickedLetter): Partial<OwnLetter> & typeof PLAIN => ({
  ...PLAIN,
  ...(picked.at === null
    ? recipe.lines.find(({ line }) => line === picked.line)
    : recipe.letters.find(sameLetter(picked))),
})

/** The recipe with a picked letter or line set so; null sets it as the rest. */
function withOwn(
  recipe: LetteringRecipe,
  picked: PickedLetter,
  patch: Partial<OwnLetter> | null,
): LetteringRecipe {
  const { line, at } = picked
  if (at === null) {
    const rest = recipe.lines.filter((one) => one.line !== line)
    return {
      ...recipe,
      lines: patch ? [...rest, { ...ownOf(recipe, picked), ...patch, line } as OwnLine] : rest,
    }
  }
  const rest = recipe.letters.filter((one) => !sameLetter(picked)(one))
  return {
    ...recipe,
    letters: patch
      ? [...rest, { turnDeg: 0, shape: 0, ...ownOf(recipe, picked), ...patch, line, at } as OwnLetter]
      : rest,
  }
}

interface Props {
  recipe: LetteringRecipe
  letters: readonly Letter[]
  picked: PickedLetter | null
  onPick: (picked: PickedLetter | null) => void
  onChange: (recipe: LetteringRecipe) => void
}

/** The letters to pick among, and what is picked. */
export function LetterFields({ recipe, letters, picked, onPick, onChange }: Props) {
  const lines = [...new Set(letters.map(({ line }) => line))].sort((a, b) => a - b)
  return (
    <div className="grid gap-2">
      <p className="text-soft">Set a letter or a line by itself</p>
      {lines.map((line) => (
        <div key={line} className="flex flex-wrap gap-1" role="group" aria-label={`Line ${line + 1}`}>
          {letters
            .filter((letter) => letter.line === line)
            .map(({ at, sign }) => {
              const isPicked = picked?.line === line && picked.at === at
              const isOwn = recipe.letters.some(sameLetter({ line, at }))
              return (
                <button
                  key={at}
                  type="button"
                  aria-pressed={isPicked}
                  aria-label={`Letter ${at + 1}, ${sign || 'joined signs'}`}
                  onClick={() => onPick(isPicked ? null : { line, at })}
                  className={`min-w-7 border px-1.5 py-0.5 ${isPicked ? 'border-plum bg-plum text-white' : 'border-line bg-sheet'} ${isOwn ? 'font-bold underline' : ''}`}
                >
                  {sign || '··'}
                </button>
              )
            })}
          {lines.length > 1 && (
            <button
              type="button"
              aria-pressed={picked?.line === line && picked.at === null}
              onClick={() => onPick({ line, at: null })}
              className={`border px-1.5 py-0.5 text-[13px] ${picked?.line === line && picked.at === null ? 'border-plum bg-plum text-white' : 'border-line bg-sheet'}`}
            >
              whole line
            </button>
          )}
        </div>
      ))}
      {picked && <OwnFields recipe={recipe} letters={letters} picked={picked} onChange={onChange} />}
    </div>
  )
}

function OwnFields({
  recipe,
  letters,
  picked,
  onChange,
}: Omit<Props, 'picked' | 'onPick'> & { picked: PickedLetter }) {
  const unit = useAppSelector(selectUnit)
  const own = ownOf(recipe, picked)
  const set = (patch: Partial<OwnLetter>) => onChange(withOwn(recipe, picked, patch))
  const letter = letters.find(({ line, at }) => line === picked.line && at === picked.at)
  return (
    <div className="grid gap-2 border-l-4 border-plum pl-3">
      <SelectField
        label={picked.at === null ? 'Font of the line' : 'Font of the letter'}
        value={own.font ?? AS_THE_REST}
        options={[
          { value: AS_THE_REST, label: 'as the rest' },
          ...shippedFonts.map(({ id, name, kind }) => ({ value: id as string, label: name, group: kind })),
        ]}
        onChange={(font) => set({ font: font === AS_THE_REST ? undefined : font, shape: 0 })}
      />
      <NumberField
        label="Size, times"
        value={own.size}
        min={0.2}
        max={5}
        onChange={(size) => set({ size })}
      />
      <NumberField
        label="Width, times"
        value={own.stretch}
        min={0.3}
        max={3}
        onChange={(stretch) => set({ stretch })}
      />
      <LengthField
        label="Moved to the right"
        valueMm={own.rightMm}
        unit={unit}
        min={-200}
        max={200}
        onChange={(rightMm) => set({ rightMm })}
      />
      <LengthField
        label="Moved up"
        valueMm={own.upMm}
        unit={unit}
        min={-200}
        max={200}
        onChange={(upMm) => set({ upMm })}
      />
      {picked.at !== null && (
        <NumberField
          label="Turned by"
          unitHint="°"
          value={own.turnDeg ?? 0}
          min={-180}
          max={180}
          onChange={(turnDeg) => set({ turnDeg })}
        />
      )}
      {letter && letter.sign !== '' && (
        <Shapes
          font={own.font ?? recipe.lines.find(({ line }) => line === picked.line)?.font ?? recipe.font}
          sign={letter.sign}
          chosen={own.shape ?? 0}
          onChoose={(shape) => set({ shape })}
        />
      )}
      <Button small onClick={() => onChange(withOwn(recipe, picked, null))}>
        As the rest
      </Button>
    </div>
  )
}

/** The shapes that a font has of a sign, to choose among. */
function Shapes({
  font,
  sign,
  chosen,
  onChoose,
}: {
  font: string
  sign: string
  chosen: number
  onChoose: (shape: number) => void
}) {
  const [shapes, setShapes] = useState<readonly string[]>([])
  useEffect(() => {
    let stale = false
    const ask = async () => {
      await readyFont(font)
      const list = await editor.ask((api) => api.shapesOf(font, sign))
      if (!stale) setShapes(list)
    }
    ask().catch(() => !stale && setShapes([]))
    return () => {
      stale = true
    }
  }, [font, sign])
  if (shapes.length < 2) return <p className="text-[13px] text-soft">The font has one shape of “{sign}”.</p>
  return (
    <div role="radiogroup" aria-label={`Shapes of ${sign}`} className="flex flex-wrap gap-1">
      {shapes.map((path, shape) => (
        <button
          key={shape}
          type="button"
          role="radio"
          aria-checked={shape === chosen}
          aria-label={shape === 0 ? 'its own shape' : `shape ${shape}`}
          onClick={() => onChoose(shape)}
          className={`border bg-sheet p-1 ${shape === chosen ? 'border-2 border-plum' : 'border-line'}`}
        >
          <svg viewBox="-150 -950 1000 1300" width={40} height={52} aria-hidden>
            <path d={path} fillRule="evenodd" fill="var(--color-ink)" />
          </svg>
        </button>
      ))}
    </div>
  )
}

/** Frames round the letters on the board, to pick them by. */
export function LetterMarks({
  letters,
  picked,
  onPick,
  px,
}: {
  letters: readonly Letter[]
  picked: PickedLetter | null
  onPick: (picked: PickedLetter) => void
  px: number
}) {
  return (
    <g>
      {letters.map(({ line, at, sign, box }) => {
        const isPicked = picked?.line === line && (picked.at === at || picked.at === null)
        return (
          <rect
            key={`${line} ${at}`}
            x={box.minX}
            y={box.minY}
            width={box.maxX - box.minX}
            height={box.maxY - box.minY}
            fill="transparent"
            stroke={isPicked ? 'var(--color-plum)' : 'none'}
            strokeWidth={px * 1.6}
            strokeDasharray={`${px * 4} ${px * 3}`}
            style={{ cursor: 'pointer' }}
            onClick={() => onPick({ line, at })}
            data-letter={`${line} ${at}`}
          >
            <title>{sign}</title>
          </rect>
        )
      })}
    </g>
  )
}
