import type { ReactNode } from 'react'
import type { Unit } from '@feuillet/core/base/units'
import { ruleFigure, ruleSteps } from './rule-steps'

const MARK_PX = 6

interface Props {
  /** What of the drawing is in sight, mm. */
  from: number
  to: number
  /** Pixel at which 0 mm lies. */
  zero: number
  /** Pixels a mm. */
  scale: number
  unit: Unit
  /** Where the line of the rule lies: its y across, its x down. */
  at: number
  across?: boolean
}

/** A rule along an edge of the board. */
export function Ruler({ from, to, zero, scale, unit, at, across = false }: Props) {
  const { mm, figure } = ruleSteps({
    unit,
    scale,
    lengthMm: to - from,
    markPx: MARK_PX,
    figurePx: across ? 44 : 30,
  })
  const ticks: ReactNode[] = []
  const first = Math.ceil(from / mm - 1e-6)
  const last = Math.floor(to / mm + 1e-6)
  const firstFigure = Math.ceil(first / figure) * figure
  for (let k = first; k <= last; k++) {
    const along = zero + k * mm * scale
    const major = k % figure === 0
    const size = major ? 10 : 5
    const [x1, y1, x2, y2] = across ? [along, at, along, at - size] : [at, along, at - size, along]
    ticks.push(<line key={k} x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--color-ink)" strokeWidth={1} />)
    if (!major) continue
    ticks.push(
      <text
        key={`figure ${k}`}
        x={across ? along + 3 : at - 7}
        y={across ? at - 6 : along + 12}
        textAnchor={across ? 'start' : 'end'}
        className="measure"
        fontSize={11}
        fill="var(--color-ink)"
      >
        {ruleFigure(k * mm, unit)}
        {across && k === firstFigure ? ` ${unit}` : ''}
      </text>,
    )
  }
  return <g aria-hidden>{ticks}</g>
}
