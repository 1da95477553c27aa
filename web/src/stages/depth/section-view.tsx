// A section through the stack at a line that is dragged across it: what lies how high there, read off by pointing.
import { useMemo, useRef, useState, type PointerEvent } from 'react'
import { cutterOf, type CutCard } from '@feuillet/core/stages/depth'
import { growBox, type Box } from '@feuillet/core/base/geometry'
import { builtLayers, colourOf, depthAtHand, findLayer, folioOf, viewBox } from '@feuillet/core/project'
import { usePlan } from '../../plan'
import { saveFile } from '../../session/save-file'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { Board } from '../../drawing/board'
import { StackDrawing } from '../../drawing/stack'
import { useSize } from '../../drawing/use-size'
import { Button, Choice, LengthField } from '../../ui'

const EDGE_PX = 34
const STEEPER = ['1', '3', '6'] as const

export function SectionView() {
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { length } = useWords()
  const space = usePlan('space')
  const box = viewBox(project)
  const [way, setWay] = useState<'across' | 'down'>('across')
  const [at, setAt] = useState<{ across: number; down: number }>({
    across: (box.minY + box.maxY) / 2,
    down: (box.minX + box.maxX) / 2,
  })
  const [steeper, setSteeper] = useState<(typeof STEEPER)[number]>('3')
  const [pointed, setPointed] = useState<number | null>(null)
  const [ref, { width, height }] = useSize()
  const svg = useRef<SVGSVGElement>(null)
  const atMm = at[way]
  const cutter = useMemo(() => space && cutterOf(space), [space])
  const cut = useMemo(() => cutter?.({ way, atMm }) ?? null, [cutter, way, atMm])
  const limit = depthAtHand(project.mount)
  const topMm = Math.max(space?.stackMm ?? 0, limit?.depthMm ?? 0, 1) * 1.06
  const [from, to] = way === 'across' ? [box.minX, box.maxX] : [box.minY, box.maxY]
  const times = Number(steeper)
  const scale = Math.min(
    (width - 2 * EDGE_PX) / Math.max(1, to - from),
    (height - 2 * EDGE_PX) / (topMm * times),
  )
  const x = (mm: number) => EDGE_PX + (mm - from) * scale
  const y = (mm: number) => height - EDGE_PX - mm * times * scale
  const point = (event: PointerEvent<SVGSVGElement>) => {
    const mm = from + (event.clientX - event.currentTarget.getBoundingClientRect().left - EDGE_PX) / scale
    setPointed(mm >= from && mm <= to ? mm : null)
  }
  const met = pointed === null || !cut ? [] : heightsAt(cut.cards, pointed)
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-end gap-4 px-6 pt-2">
        <div className="w-44">
          <Choice
            label="Cut"
            value={way}
            options={[
              { value: 'across', label: 'across' },
              { value: 'down', label: 'down' },
            ]}
            onChange={setWay}
          />
        </div>
        <div className="w-60">
          <LengthField
            label={way === 'across' ? 'From the top' : 'From the left'}
            unit={unit}
            valueMm={atMm}
            min={way === 'across' ? box.minY : box.minX}
            max={way === 'across' ? box.maxY : box.maxX}
            onChange={(mm) => setAt({ ...at, [way]: mm })}
          />
        </div>
        <div className="w-52">
          <Choice
            label="Heights drawn"
            value={steeper}
            options={STEEPER.map((value) => ({
              value,
              label: value === '1' ? 'true' : `${value} times`,
              title: 'How much heights are drawn out against widths',
            }))}
            onChange={setSteeper}
          />
        </div>
        <Button small onClick={() => window.print()}>
          Print
        </Button>
        <Button
          small
          disabled={!cut}
          onClick={() =>
            svg.current &&
            saveFile('section.svg', new XMLSerializer().serializeToString(svg.current), 'image/svg+xml')
          }
        >
          Save as a picture
        </Button>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_minmax(0,1.1fr)]">
        <div className="min-h-0 p-3 pb-0">
          <Board
            name="section"
            box={growBox(box, 3)}
            unit={unit}
            label="The stack with the line of the section"
            interactive
          >
            {(px) => (
              <g>
                <StackDrawing project={project} layers={builtLayers(project)} px={px} />
                <CutHandle
                  box={box}
                  px={px}
                  way={way}
                  atMm={atMm}
                  onMove={(mm) => setAt({ ...at, [way]: mm })}
                />
              </g>
            )}
          </Board>
        </div>
        <div ref={ref} className="relative min-h-0 overflow-hidden bg-sheet">
          {width > 0 && cut && (
            <svg
              ref={svg}
              role="img"
              aria-label={`Section ${way} at ${length(atMm)}`}
              className="absolute inset-0 h-full w-full"
              viewBox={`0 0 ${width} ${height}`}
              onPointerMove={point}
              onPointerLeave={() => setPointed(null)}
            >
              <g fontSize={11} className="measure" fill="var(--color-soft)">
                {ticksTo(topMm, times * scale).map((mm) => (
                  <g key={mm}>
                    <line x1={EDGE_PX - 6} x2={EDGE_PX} y1={y(mm)} y2={y(mm)} stroke="var(--color-line)" />
                    <text x={EDGE_PX - 9} y={y(mm) + 4} textAnchor="end">
                      {length(mm, 0).replace(/ .*/, '')}
                    </text>
                  </g>
                ))}
              </g>
              <line x1={x(from)} x2={x(to)} y1={y(0)} y2={y(0)} stroke="var(--color-ink)" strokeWidth={2} />
              {limit && (
                <line
                  x1={x(from)}
                  x2={x(to)}
                  y1={y(limit.depthMm)}
                  y2={y(limit.depthMm)}
                  stroke="var(--color-ink)"
                  strokeDasharray="6 3"
                />
              )}
              {cut.pads.map((pad, i) => (
                <rect
                  key={i}
                  x={x(pad.fromMm)}
                  y={y(pad.bottomMm + pad.thicknessMm)}
                  width={(pad.toMm - pad.fromMm) * scale}
                  height={pad.thicknessMm * times * scale}
                  fill="#fff"
                  stroke="var(--color-soft)"
                  strokeWidth={0.8}
                  data-cut-pad
                />
              ))}
              {cut.cards.map((card, i) => (
                <path
                  key={i}
                  d={`M${x(card.fromMm)} ${y(card.bottomMm[0])}L${x(card.toMm)} ${y(card.bottomMm[1])}V${y(card.bottomMm[1] + card.thicknessMm)}L${x(card.fromMm)} ${y(card.bottomMm[0] + card.thicknessMm)}Z`}
                  fill={colourOf(project, findLayer(project, card.layerId)!)}
                  stroke="#1e2126"
                  strokeWidth={0.6}
                  data-cut-card={card.layerId}
                />
              ))}
              {pointed !== null && (
                <line
                  x1={x(pointed)}
                  x2={x(pointed)}
                  y1={EDGE_PX / 2}
                  y2={y(0)}
                  stroke="var(--color-plum)"
                  pointerEvents="none"
                />
              )}
            </svg>
          )}
        </div>
      </div>
      <p className="px-6 py-2 text-[13px] text-soft" aria-live="polite" data-testid="section-reading">
        {pointed === null
          ? 'Drag the line over the picture; point at the section to read heights off.'
          : met.length === 0
            ? `${length(pointed)}: nothing but the board.`
            : `${length(pointed)}: ${met
                .map(
                  ({ layerId, bottomMm, topMm: top }) =>
                    `layer ${folioOf(project, layerId) ?? '–'} from ${length(bottomMm, 1)} to ${length(top, 1)}`,
                )
                .join('; ')}.`}
      </p>
    </div>
  )
}

/** Card over one place, from the back on. */
const heightsAt = (cards: readonly CutCard[], mm: number) =>
  cards
    .filter(({ fromMm, toMm }) => fromMm <= mm && mm <= toMm)
    .map(({ layerId, fromMm, toMm, bottomMm: [a, b], thicknessMm }) => {
      const bottomMm = a + ((b - a) * (mm - fromMm)) / (toMm - fromMm || 1)
      return { layerId, bottomMm, topMm: bottomMm + thicknessMm }
    })

/** Marks of the scale of heights, so far apart that their figures do not meet. */
function ticksTo(topMm: number, pxPerMm: number): number[] {
  const step = [1, 2, 5, 10, 20, 50, 100].find((mm) => mm * pxPerMm >= 16) ?? 200
  return Array.from({ length: Math.floor(topMm / step) + 1 }, (_, k) => k * step)
}

/** The line of the section over the picture, dragged or moved by keys. */
function CutHandle({
  box,
  px,
  way,
  atMm,
  onMove,
}: {
  box: Box
  px: number
  way: 'across' | 'down'
  atMm: number
  onMove: (mm: number) => void
}) {
  const across = way === 'across'
  const [least, most] = across ? [box.minY, box.maxY] : [box.minX, box.maxX]
  const to = (mm: number) => onMove(Math.min(most, Math.max(least, mm)))
  const move = (event: PointerEvent<SVGGElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()!.inverse(),
    )
    to(across ? y : x)
  }
  const line = across
    ? { x1: box.minX, x2: box.maxX, y1: atMm, y2: atMm }
    : { x1: atMm, x2: atMm, y1: box.minY, y2: box.maxY }
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Line of the section"
      aria-orientation={across ? 'vertical' : 'horizontal'}
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuenow={Math.round(atMm * 10) / 10}
      className={`outline-none ${across ? 'cursor-ns-resize' : 'cursor-ew-resize'}`}
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={move}
      onKeyDown={(event) => {
        const by = { ArrowUp: -1, ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1 }[event.key]
        if (by === undefined) return
        event.preventDefault()
        event.stopPropagation()
        to(atMm + by * (event.shiftKey ? 10 : 1))
      }}
    >
      <line {...line} stroke="transparent" strokeWidth={px * 14} />
      <line {...line} stroke="#fff" strokeWidth={px * 4} />
      <line
        {...line}
        stroke="var(--color-plum)"
        strokeWidth={px * 2}
        strokeDasharray={`${px * 8} ${px * 4}`}
      />
    </g>
  )
}
