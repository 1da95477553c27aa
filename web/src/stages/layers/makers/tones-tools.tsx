// Work on the picture itself: a brush that gives an area to a tone, and a loose outline round the subject.
import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { TonesRecipe } from '@feuillet/core/project'
import { selectUnit } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { Button, Choice, Heading, LengthField, NumberField } from '../../../ui'

interface Props {
  recipe: TonesRecipe
  onChange: (recipe: TonesRecipe) => void
}

export interface TonesTool {
  kind: 'look' | 'brush' | 'outline'
  tone: number
  widthMm: number
}

export const NO_TOOL: TonesTool = { kind: 'look', tone: 1, widthMm: 6 }
const LOOSE_MM = 10
/** A line's points are this far apart at the least, mm. */
const STEP_MM = 0.5

/** Which tool is at hand, and what was done with it. */
export function TonesTools({
  recipe,
  onChange,
  tool,
  onTool,
}: Props & { tool: TonesTool; onTool: (tool: TonesTool) => void }) {
  const unit = useAppSelector(selectUnit)
  const { strokes, outline } = recipe
  return (
    <Heading title="On the picture">
      <div className="grid gap-2">
        <Choice
          label="Tool on the picture"
          value={tool.kind}
          options={[
            { value: 'look', label: 'look' },
            { value: 'brush', label: 'brush', title: 'Give an area to another tone' },
            { value: 'outline', label: 'outline', title: 'Draw loosely round the subject' },
          ]}
          onChange={(kind) => onTool({ ...tool, kind })}
        />
        {tool.kind === 'brush' && (
          <>
            <NumberField
              label="Tone of the brush, 1 is the back"
              value={tool.tone}
              min={1}
              max={recipe.levels}
              whole
              onChange={(tone) => onTool({ ...tool, tone })}
            />
            <LengthField
              label="Width of the brush"
              unit={unit}
              valueMm={tool.widthMm}
              min={0.5}
              max={100}
              onChange={(widthMm) => onTool({ ...tool, widthMm })}
            />
            <p className="text-[13px] text-soft">
              Draw over an area, or move the brush by the arrow keys and press Enter.
            </p>
          </>
        )}
        {tool.kind === 'outline' && (
          <p className="text-[13px] text-soft">
            Draw a loose line round what is to stay. Its true edge is looked for inside the line; all else
            goes to the back.
          </p>
        )}
        {outline && (
          <LengthField
            label="Edge lies inside by up to"
            unit={unit}
            valueMm={outline.looseMm}
            min={1}
            max={200}
            onChange={(looseMm) => onChange({ ...recipe, outline: { ...outline, looseMm } })}
          />
        )}
        <div className="flex flex-wrap gap-2">
          {strokes.length > 0 && (
            <Button small onClick={() => onChange({ ...recipe, strokes: strokes.slice(0, -1) })}>
              Take back a stroke ({strokes.length})
            </Button>
          )}
          {outline && (
            <Button small onClick={() => onChange({ ...recipe, outline: null })}>
              Keep the background
            </Button>
          )}
        </div>
      </div>
    </Heading>
  )
}

/** Takes lines that are drawn over the picture, mm in its frame. */
export function TonesSurface({
  recipe,
  onChange,
  tool,
  px,
  heightMm,
}: Props & { tool: TonesTool; px: number; heightMm: number }) {
  const [line, setLine] = useState<number[] | null>(null)
  const [at, setAt] = useState({ x: recipe.widthMm / 2, y: heightMm / 2 })
  if (tool.kind === 'look') return null
  const isBrush = tool.kind === 'brush'
  const placeOf = (event: PointerEvent<SVGGraphicsElement>) =>
    new DOMPoint(event.clientX, event.clientY).matrixTransform(event.currentTarget.getScreenCTM()!.inverse())
  const done = (points: number[]) => {
    setLine(null)
    if (isBrush)
      onChange({
        ...recipe,
        strokes: [
          ...recipe.strokes,
          { tone: Math.min(tool.tone, recipe.levels), widthMm: tool.widthMm, points },
        ],
      })
    else if (points.length >= 6)
      onChange({ ...recipe, outline: { points, looseMm: recipe.outline?.looseMm ?? LOOSE_MM } })
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const step = tool.widthMm / 2
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[
      event.key
    ]
    if (by) setAt({ x: at.x + by[0]!, y: at.y + by[1]! })
    else if (event.key === 'Enter') done([at.x, at.y])
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const path = (points: readonly number[]) =>
    points.reduce((text, v, i) => text + (i === 0 ? 'M' : i % 2 ? ' ' : 'L') + v.toFixed(2), '')
  return (
    <g>
      {recipe.outline && tool.kind === 'outline' && !line && (
        <path
          d={path(recipe.outline.points) + 'Z'}
          fill="none"
          stroke="var(--color-plum)"
          strokeWidth={px * 1.5}
          strokeDasharray={`${px * 6} ${px * 4}`}
        />
      )}
      {line && (
        <path
          d={path(line.length === 2 ? [...line, ...line] : line)}
          fill="none"
          stroke="var(--color-plum)"
          strokeOpacity={isBrush ? 0.45 : 1}
          strokeWidth={isBrush ? tool.widthMm : px * 2}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      <rect
        data-grip
        role="application"
        tabIndex={isBrush ? 0 : undefined}
        aria-label={isBrush ? 'Brush over the picture' : 'Outline round the subject'}
        width={recipe.widthMm}
        height={heightMm}
        fill="transparent"
        // The ring of the brush tells where the keys are.
        style={{ cursor: 'crosshair', outline: 'none' }}
        onKeyDown={isBrush ? onKeyDown : undefined}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          const { x, y } = placeOf(event)
          setLine([x, y])
          setAt({ x, y })
        }}
        onPointerMove={(event) => {
          const { x, y } = placeOf(event)
          if (!line || Math.hypot(x - line.at(-2)!, y - line.at(-1)!) < STEP_MM) return
          setLine([...line, x, y])
        }}
        onPointerUp={() => line && done(line)}
        onPointerCancel={() => setLine(null)}
      />
      {isBrush && !line && (
        <circle
          cx={at.x}
          cy={at.y}
          r={tool.widthMm / 2}
          fill="none"
          stroke="var(--color-plum)"
          strokeWidth={px * 1.5}
          pointerEvents="none"
        />
      )}
    </g>
  )
}
