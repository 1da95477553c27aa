import { MM_PER_INCH, type Unit } from '@feuillet/core/base/units'
import { RULE_X } from './sizes'

/** Steps of a rule: between marks, and so many marks to a figure. */
export interface Steps {
  mm: number
  figure: number
}

/** Marks at least so far apart, figures at least so far, px. */
const MARK_PX = 7
const FIGURE_PX = 20

/**
 * Steps for a rule: mm in ones, twos and fives; inches halved down to sixteenths. At least two figures stand on it.
 * @param scale px a mm
 */
export function ruleSteps(unit: Unit, scale: number, lengthMm: number): Steps {
  const marks =
    unit === 'mm' ? [1, 2, 5, 10, 20, 50] : [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2].map((k) => k * MM_PER_INCH)
  const at = Math.max(
    0,
    marks.findIndex((mm) => mm * scale >= MARK_PX),
  )
  const figures = marks
    .slice(at)
    .filter((mm) => Math.abs(mm / marks[at]! - Math.round(mm / marks[at]!)) < 1e-9)
  const figure = figures.find((mm) => mm * scale >= FIGURE_PX && mm <= lengthMm) ?? marks[at]!
  return { mm: marks[at]!, figure: Math.round(figure / marks[at]!) }
}

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
  const steps = ruleSteps(unit, scale, topMm)
  const marks = Array.from({ length: Math.floor(topMm / steps.mm) + 1 }, (_, k) => k)
  return (
    <g stroke="var(--color-ink)" strokeWidth={1}>
      {marks.map((k) => {
        const major = k % steps.figure === 0
        const at = y(k * steps.mm)
        return (
          <g key={k}>
            <line x1={RULE_X - (major ? 10 : 5)} x2={RULE_X} y1={at} y2={at} />
            {major && (
              <text
                x={RULE_X - 13}
                y={at + 4}
                textAnchor="end"
                stroke="none"
                fontSize={11}
                className="measure"
                fill="var(--color-ink)"
              >
                {unit === 'mm' ? k * steps.mm : fractionOfInch(k * steps.mm)}
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

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞']

/** 0, ¼, 1½; sixteenths as 3/16. */
function fractionOfInch(mm: number): string {
  const sixteenths = Math.round((mm / MM_PER_INCH) * 16)
  const whole = Math.floor(sixteenths / 16)
  const rest = sixteenths % 16
  if (rest % 2 === 1) return `${whole || ''} ${rest}/16`.trim()
  return `${whole || rest === 0 ? whole : ''}${EIGHTHS[rest / 2]}`
}
