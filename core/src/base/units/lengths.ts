// Single lengths, areas and times, read and written.
/** The unit a maker works in. */
export type Unit = 'mm' | 'in'

/** Exact by definition. */
export const MM_PER_INCH = 25.4

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
}

const FACTORS: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  '″': MM_PER_INCH,
  '”': MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
  yd: 36 * MM_PER_INCH,
}

/** What stands beside a sign of reckoning: a number, and the mm of its unit where one is said. */
interface Operand {
  value: number
  factor: number | null
  isFraction: boolean
}

function readOperand(text: string): Operand | null {
  let s = text.trim().toLowerCase().replace(/−/g, '-')
  for (const [sign, plain] of Object.entries(VULGAR)) s = s.replace(sign, ' ' + plain)
  const m = /^(-)?\s*(?:(\d+)(?:\s+|-\s?))?(?:(\d+)[/⁄](\d+)|(\d+(?:[.,]\d*)?|[.,]\d+))\s*([a-z"″”]*)$/.exec(
    s.trim(),
  )
  if (!m) return null
  const [, minus, whole, top, bottom, plain, suffix] = m
  const isFraction = top !== undefined
  if (whole !== undefined && !isFraction) return null
  if (isFraction && Number(bottom) === 0) return null
  const value = isFraction
    ? Number(whole ?? 0) + Number(top) / Number(bottom)
    : Number(plain!.replace(',', '.'))
  const factor = suffix ? FACTORS[suffix] : null
  if (factor === undefined || !Number.isFinite(value)) return null
  return { value: (minus ? -1 : 1) * value, factor, isFraction }
}

/** Signs between the terms of a sum stand between spaces: 8-1/2 is eight and a half. */
const SUM = /\s+([+−–-])\s+/
/** A stroke between spaces divides; without them it makes a fraction. */
const PRODUCT = /\s*([×*÷:])\s*|\s+([x/])\s+/

/**
 * Millimetres of a typed length, or null where it cannot be read. A bare fraction is inches; a bare number is in the
 * given unit. Decimal commas are read as points. Lengths may be reckoned with: half of them (5 3/8 / 2), so many of them
 * (4 × 12.5), and what is left (12 in - 2 × 1/4 in).
 */
export function parseLength(text: string, unit: Unit): number | null {
  let sum = 0
  const parts = text.trim().split(SUM)
  for (let k = 0; k < parts.length; k += 2) {
    const mm = productOf(parts[k]!, unit)
    if (mm === null) return null
    sum += k === 0 || parts[k - 1] === '+' ? mm : -mm
  }
  return sum
}

/** One length, so many times or divided; null where it cannot be read, or two of its parts are lengths. */
function productOf(text: string, unit: Unit): number | null {
  const parts = text.split(PRODUCT).filter((part) => part !== undefined)
  const operands = parts.filter((_, k) => k % 2 === 0).map(readOperand)
  const signs = parts.filter((_, k) => k % 2 === 1)
  if (operands.some((one) => one === null)) return null
  const all = operands as Operand[]
  const isDivided = (k: number) => k > 0 && !/[×*x]/.test(signs[k - 1]!)
  const named = all.filter(({ factor }) => factor !== null)
  if (named.length > 1 || all.some(({ factor }, k) => factor !== null && isDivided(k))) return null
  const isInches = unit === 'in' || all.some(({ isFraction }, k) => isFraction && !isDivided(k))
  const product = all.reduce((value, one, k) => (isDivided(k) ? value / one.value : value * one.value), 1)
  const mm = product * (named[0]?.factor ?? (isInches ? MM_PER_INCH : 1))
  return Number.isFinite(mm) ? mm : null
}

/** Decimal mm without trailing noughts: 216, 11.5, 0.29. */
export function formatMm(mm: number, decimals = 1): string {
  const text = mm.toFixed(decimals)
  return (decimals > 0 ? text.replace(/\.?0+$/, '') : text).replace(/^-0$/, '0')
}

/** Nearest ruler fraction: 8 1/2, 3/16, 12. */
export function formatInches(mm: number, denominator = 16): string {
  const parts = Math.round((Math.abs(mm) / MM_PER_INCH) * denominator)
  const whole = Math.floor(parts / denominator)
  let top = parts % denominator
  let bottom = denominator
  while (top > 0 && top % 2 === 0) {
    top /= 2
    bottom /= 2
  }
  const sign = mm < 0 && parts > 0 ? '-' : ''
  if (top === 0) return sign + String(whole)
  return sign + (whole > 0 ? `${whole} ${top}/${bottom}` : `${top}/${bottom}`)
}

/** What a length field shows while it is edited: the number alone in mm, the fraction in inches. */
export const lengthForEditing = (mm: number, unit: Unit): string =>
  unit === 'mm'
    ? formatMm(mm, 2)
    : Math.abs(mm) > 0 && Math.abs(mm) < 3
      ? `${formatMm(mm / MM_PER_INCH, 3)} in`
      : `${formatInches(mm, 32)} in`

/** An area in cm² (or in²). */
export function formatArea(mm2: number, unit: Unit): string {
  if (unit === 'in') {
    const in2 = mm2 / MM_PER_INCH ** 2
    return `${in2.toFixed(in2 < 1 ? 2 : 1)} in²`
  }
  return mm2 < 100 ? `${mm2.toFixed(0)} mm²` : `${(mm2 / 100).toFixed(mm2 < 10000 ? 1 : 0)} cm²`
}

/** Minutes for reading at a glance: 45 s, 4 min 10, 2 h 05. */
export function formatMinutes(minutes: number): string {
  const seconds = Math.round(minutes * 60)
  if (seconds < 60) return `${seconds} s`
  if (minutes < 10)
    return seconds % 60
      ? `${Math.floor(seconds / 60)} min ${String(seconds % 60).padStart(2, '0')}`
      : `${seconds / 60} min`
  const whole = Math.round(minutes)
  if (whole < 60) return `${whole} min`
  return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`
}

/** A share as whole per cent. */
export const formatShare = (share: number): string => `${Math.round(share * 100)} %`
