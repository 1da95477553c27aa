// A drawing in mm with rulers along its top and left edge, as large as its place allows.
import type { PointerEvent, ReactNode } from 'react'
import type { Box } from '@feuillet/core/base/geometry'
import { MM_PER_INCH, type Unit } from '@feuillet/core/base/units'
import { useSize } from './use-size'

interface Props {
  /** What to show, mm. */
  box: Box
  unit: Unit
  label: string
  /** Draws in mm; `px` is the size of a CSS pixel in mm. */
  children: (px: number) => ReactNode
  onPointerDown?: (event: PointerEvent) => void
}

const RULER = 34

export function Board({ box, unit, label, children, onPointerDown }: Props) {
  const [ref, { width, height }] = useSize()
  const w = Math.max(1, box.maxX - box.minX)
  const h = Math.max(1, box.maxY - box.minY)
  const scale = Math.max(0.01, Math.min((width - RULER - 14) / w, (height - RULER - 10) / h))
  const px = 1 / scale
  const shownW = w * scale
  const shownH = h * scale
  const left = RULER + Math.max(0, (width - RULER - 14 - shownW) / 2)
  const top = RULER + Math.max(0, (height - RULER - 10 - shownH) / 2)
  return (
    <div ref={ref} className="relative h-full min-h-0 w-full min-w-0">
      {width > 0 && (
        <svg
          role="img"
          aria-label={label}
          className="absolute inset-0 h-full w-full touch-none select-none"
          onPointerDown={onPointerDown}
        >
          <Ruler from={box.minX} length={w} scale={scale} unit={unit} x={left} y={top - 6} across />
          <Ruler from={box.minY} length={h} scale={scale} unit={unit} x={left - 6} y={top} />
          <svg
            x={left}
            y={top}
            width={shownW}
            height={shownH}
            viewBox={`${box.minX} ${box.minY} ${w} ${h}`}
            overflow="visible"
            data-board
          >
            {children(px)}
          </svg>
        </svg>
      )}
    </div>
  )
}

function Ruler({
  from,
  length,
  scale,
  unit,
  x,
  y,
  across = false,
}: {
  from: number
  length: number
  scale: number
  unit: Unit
  x: number
  y: number
  across?: boolean
}) {
  const base = unit === 'mm' ? 10 : MM_PER_INCH / 4
  // Ticks at least 7 pixels apart, figures at least 70.
  const step = [1, 2, 5, 10, 20, 50].find((k) => base * k * scale >= 7)! * base
  const perLabel = [1, 2, 4, 5, 10, 20, 50, 100].find(
    (k) => step * k * scale >= 70 && (unit === 'mm' || Number.isInteger((step * k) / MM_PER_INCH)),
  )!
  const ticks: ReactNode[] = []
  const first = Math.ceil(from / step - 1e-9)
  for (let k = first; k * step <= from + length + 1e-6; k++) {
    const at = (k * step - from) * scale
    const major = k % perLabel === 0
    const size = major ? 10 : 5
    const [x1, y1, x2, y2] = across ? [x + at, y, x + at, y - size] : [x, y + at, x - size, y + at]
    ticks.push(<line key={k} x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--color-ink)" strokeWidth={1} />)
    if (!major) continue
    const value = unit === 'mm' ? String(Math.round(k * step)) : String(Math.round((k * step) / MM_PER_INCH))
    const text =
      k === first || k + perLabel > (from + length) / step ? `${value} ${across ? unit : ''}` : value
    ticks.push(
      <text
        key={`t${k}`}
        x={across ? x + at + 3 : x - 7}
        y={across ? y - 6 : y + at + 13}
        textAnchor={across ? 'start' : 'end'}
        className="measure"
        fontSize={11}
        fill="var(--color-ink)"
      >
        {text}
      </text>,
    )
  }
  return <g aria-hidden>{ticks}</g>
}
