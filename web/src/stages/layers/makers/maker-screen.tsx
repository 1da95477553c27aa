// Growing layers: settings at the right, what comes of them in the middle, and nothing in the project until it is taken.
import { useWords } from '../../../state/use-words'
import { useState } from 'react'
import { toast } from 'sonner'
import { boxWidth, growBox } from '@feuillet/core/base/geometry'
import { grow, growAgain, withMadePapers } from '@feuillet/core/stages/layers/makers'
import {
  designBox,
  keepPictures,
  withoutIdlePictures,
  type Picture,
  type Project,
  type Recipe,
} from '@feuillet/core/project'
import { change } from '../../../state/edits'
import { selectProject, selectUnit } from '../../../state/selectors'
import { StageFrame } from '../../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { Board } from '../../../drawing/board'
import { StackDrawing } from '../../../drawing/stack'
import { Button, Figure, Figures, Heading, Switch } from '../../../ui'
import { editor } from '../../../workers'
import { RecipeForm } from './forms'
import { readPicture } from '../prints/read-picture'
import { LetterMarks, type PickedLetter } from './forms/letters'
import { PhotoPicture } from './photo-picture'
import { makerNames } from './start'
import { NO_TOOL, TonesSurface, TonesTools } from './tones-tools'
import { useMade } from './use-made'

/** A picture's colours are kept only where its tones follow from them. */
const kept = (recipe: Recipe): Recipe =>
  recipe.kind === 'tones' && recipe.by === 'greys' ? { ...recipe, colours: undefined } : recipe

interface Props {
  start: Recipe
  /** The entry to make again; null for a new one. */
  grownId: string | null
  onClose: () => void
}

export default function MakerScreen({ start, grownId, onClose }: Props) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const [recipe, setRecipe] = useState(start)
  const [apart, setApart] = useState(false)
  const [beside, setBeside] = useState(recipe.kind === 'tones')
  const [tool, setTool] = useState(NO_TOOL)
  const [letter, setLetter] = useState<PickedLetter | null>(null)
  const [brought, setBrought] = useState<readonly Picture[]>([])
  const { made, why, busy } = useMade(recipe)
  const { stock } = useAppSelector((state) => state.document)
  const { words: told } = useWords()
  const { title, words } = makerNames[recipe.kind]
  const takeFont = async (file: File) => {
    const bytes = new Uint8Array(await file.arrayBuffer())
    const answer = await editor.ask((api) => api.takeFont('own', bytes))
    if (answer.ok) setRecipe({ ...recipe, font: 'own', ownFont: file.name } as Recipe)
    else toast.error(`${file.name}: ${told(answer.said)}.`)
  }
  const takePicture = async (file: File) => {
    const read = await readPicture(file)
    if (typeof read === 'string') {
      toast.error(`${file.name}: ${read}.`)
      return
    }
    const { id, pixelsWide, pixelsHigh } = read
    setBrought((before) => [...before.filter((one) => one.id !== id), read])
    setRecipe({ ...recipe, picture: { id, pixelsWide, pixelsHigh } } as Recipe)
  }
  const take = () => {
    if (!made) return
    dispatch(
      change(`${title.toLowerCase()}`, (p) =>
        withoutIdlePictures(
          withMadePapers(
            grownId
              ? growAgain(keepPictures(p, brought), grownId, { recipe: kept(recipe), made })
              : grow(keepPictures(p, brought), crypto.randomUUID(), { recipe: kept(recipe), made }),
            made,
            stock,
          ),
        ),
      ),
    )
    onClose()
  }
  const { pictures } = keepPictures(project, brought)
  const shown: Project | null = made && {
    ...project,
    drawer: {
      ...project.drawer,
      papers: stock.filter(({ id }) => made.layers.some(({ paperId }) => paperId === id)),
    },
    layers: made.layers,
    pictures,
  }
  const step = apart && made ? Math.max(2, made.widthMm / Math.max(8, made.layers.length * 2.2)) : 0
  const spread = step * Math.max(0, (made?.layers.length ?? 1) - 1)
  const drawn = shown && designBox(shown)
  const box =
    drawn &&
    growBox({ ...drawn, minY: drawn.minY - spread, maxX: drawn.maxX + spread }, boxWidth(drawn) * 0.03)
  return (
    <StageFrame
      title={title}
      lead={`${words}.`}
      panel={
        <>
          {why && (
            <p
              role="alert"
              className="mb-3 border-l-4 border-crimson bg-crimson-pale px-3 py-2 text-[13.5px]"
            >
              <span aria-hidden>■ </span>
              <strong className="font-semibold">Not possible: </strong>
              {told(why)}.
            </p>
          )}
          {recipe.kind === 'tones' && (
            <TonesTools recipe={recipe} onChange={setRecipe} tool={tool} onTool={setTool} />
          )}
          <Heading title="Settings">
            <div className="grid gap-2">
              <RecipeForm
                recipe={recipe}
                made={made}
                onChange={setRecipe}
                onFont={(file) => void takeFont(file)}
                pictures={pictures}
                onPicture={(file) => void takePicture(file)}
                letter={letter}
                onLetter={setLetter}
              />
            </div>
          </Heading>
          {made && (
            <Heading title={busy ? 'Making…' : 'What comes of it'}>
              <Figures>
                <Figure name="Layers" value={made.layers.length} />
                {made.figures.map((figure) => (
                  <Figure
                    key={told(figure.name)}
                    name={told(figure.name)}
                    value={told(figure.value)}
                    basis={figure.basis && told(figure.basis)}
                  />
                ))}
              </Figures>
              {made.remarks.map(told).map((remark) => (
                <p
                  key={remark}
                  className="mt-2 border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13.5px]"
                >
                  <span aria-hidden>▲ </span>
                  {remark}
                </p>
              ))}
            </Heading>
          )}
        </>
      }
      actions={
        <>
          <Button look="main" disabled={!made || why !== null || busy} onClick={take}>
            {grownId ? 'Take the changes' : 'Take these layers'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </>
      }
    >
      <div className="flex min-h-0 flex-1 gap-3 p-4 pb-1">
        {recipe.kind === 'tones' && beside && <PhotoPicture recipe={recipe} />}
        <div className="min-w-0 flex-1">
          {shown && box ? (
            <Board name="maker" box={box} unit={unit} label={`What the ${title.toLowerCase()} gives`}>
              {(px) => (
                <>
                  <StackDrawing project={shown} layers={shown.layers} px={px} apart={step} />
                  {!apart &&
                    made?.sticks?.map(({ x, topMm, widthMm }) => (
                      <rect
                        key={x}
                        x={x - widthMm / 2}
                        y={topMm}
                        width={widthMm}
                        height={box.maxY - topMm}
                        fill="none"
                        stroke="var(--color-plum)"
                        strokeWidth={px * 1.5}
                        strokeDasharray={`${px * 5} ${px * 3}`}
                        data-stick
                      />
                    ))}
                  {!apart && made?.letters && (
                    <LetterMarks letters={made.letters} picked={letter} onPick={setLetter} px={px} />
                  )}
                  {!apart &&
                    made?.spots?.map(({ x, y }) => (
                      <circle
                        key={`${x} ${y}`}
                        cx={x}
                        cy={y}
                        r={px * 9}
                        fill="none"
                        stroke="var(--color-plum)"
                        strokeWidth={px * 1.5}
                        data-spot
                      />
                    ))}
                  {!apart && recipe.kind === 'tones' && (
                    <TonesSurface
                      recipe={recipe}
                      onChange={setRecipe}
                      tool={tool}
                      px={px}
                      heightMm={(recipe.widthMm * recipe.pixelsHigh) / recipe.pixelsWide}
                    />
                  )}
                </>
              )}
            </Board>
          ) : (
            <p className="p-6 text-soft">{why ? 'Change a setting at the right.' : 'Making…'}</p>
          )}
        </div>
      </div>
      <div className="flex gap-6 px-6 pb-3 text-[13px]">
        <Switch label="Drawn apart" checked={apart} onChange={setApart} />
        {recipe.kind === 'tones' && <Switch label="Beside the photo" checked={beside} onChange={setBeside} />}
      </div>
    </StageFrame>
  )
}
