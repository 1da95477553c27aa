import { formatInches, formatMm, MM_PER_INCH, type Unit } from '@feuillet/core/base/units'

/** Steps of a rule, mm: from mark to mark, and so many marks to a figure. */
export interface Steps {
  mm: number
  figure: number
}

const MM_STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000]
const INCH_STEPS = [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 6, 12, 24, 48].map((inches) => inches * MM_PER_INCH)

interface Wanted {
  unit: Unit
  /** Pixels a mm. */
  scale: number
  /** What is in sight, mm: at least two figures fall on it. */
  lengthMm: number
  /** Least pixels from mark to mark and from figure to figure. */
  markPx: number
  figurePx: number
  /** Inches bear no finer figures than this part of one. */
  finestInch?: number
}

/** Steps for a rule. Inches bear a figure each inch as long as those have room. */
export function ruleSteps({ unit, scale, lengthMm, markPx, figurePx, finestInch = 1 / 16 }: Wanted): Steps {
  const all = unit === 'mm' ? MM_STEPS : INCH_STEPS
  const mm = all.find((step) => step * scale >= markPx) ?? all.at(-1)!
  const finest = unit === 'in' ? finestInch * MM_PER_INCH - 1e-9 : 0
  const figures = all.filter((step) => isMultiple(step, mm) && step >= finest)
  const roomy = figures.filter((step) => step * scale >= figurePx)
  const whole = roomy.find((step) => unit === 'in' && Math.abs(step - MM_PER_INCH) < 1e-9)
  const wanted = [whole, roomy[0], ...figures.toReversed()].find(
    (step) => step !== undefined && step * 2 <= lengthMm,
  )
  return { mm, figure: Math.round((wanted ?? mm) / mm) }
}

const isMultiple = (step: number, of: number): boolean =>
  Math.abs(step / of - Math.round(step / of)) < 1e-6 && step >= of - 1e-9

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞']

/** A figure of a rule: 120, 0.5, 8½, 3/16; left of or above nought -½. */
export function ruleFigure(mm: number, unit: Unit): string {
  if (unit === 'mm') return formatMm(mm, 1)
  const sixteenths = Math.round((Math.abs(mm) / MM_PER_INCH) * 16)
  const [whole, rest] = [Math.floor(sixteenths / 16), sixteenths % 16]
  if (rest % 2 !== 0) return formatInches(mm)
  return `${mm < 0 && sixteenths > 0 ? '-' : ''}${whole || rest === 0 ? whole : ''}${EIGHTHS[rest / 2]}`
}
