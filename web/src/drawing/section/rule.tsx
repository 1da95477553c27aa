import { type Unit } from '@feuillet/core/base/units'
import { ruleFigure, ruleSteps } from '../rule-steps'
import { RULE_X } from './sizes'

/** Height over the board along the left edge. */
export function Rule({
  topMm,
  y,
  unit,
  scale,
}: {
  topMm: number
  y: (mm: number) => number
  unit: Unit
  scale: number
}) {
  const steps = ruleSteps({ unit, scale, lengthMm: topMm, markPx: 6, figurePx: 44, finestInch: 1 / 8 })
  const marks = Array.from({ length: Math.floor(topMm / steps.mm) + 1 }, (_, k) => k)
  return (
    <g stroke="var(--color-ink)" strokeWidth={1}>
      {marks.map((k) => {
        const major = k % steps.figure === 0
        const at = y(k * steps.mm)
        const figure = ruleFigure(k * steps.mm, unit)
        return (
          <g key={k}>
            <line x1={RULE_X - (major ? 10 : 5)} x2={RULE_X} y1={at} y2={at} />
            {major && (
              <text
                x={RULE_X - 12}
                y={at + 4}
                textAnchor="end"
                stroke="none"
                // Sixteenths of an inch are four signs wide.
                fontSize={figure.length > 3 ? 8.5 : 11}
                className="measure"
                fill="var(--color-ink)"
              >
                {figure}
              </text>
            )}
          </g>
        )
      })}
      <text x={2} y={y(0) + 20} stroke="none" fontSize={11} className="measure" fill="var(--color-soft)">
        {unit}
      </text>
    </g>
  )
}
