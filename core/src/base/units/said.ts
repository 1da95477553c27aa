// Sentences that carry their lengths as values: they are worded in the maker's unit where they are read.
import { formatArea, formatInches, formatMm, MM_PER_INCH, type Unit } from './lengths'
import { formatKept, type Kept } from './measures'
import { formatHeat, formatWeight } from './weights'

/** A value within a sentence, in mm, mm², gsm, °C, or as it is kept. */
export type Value =
  | { mm: number; digits: number | undefined }
  | { size: readonly [wMm: number, hMm: number] }
  | { mm2: number }
  | { amount: number; kept: Kept }
  | { gsm: number }
  | { celsius: number }

/** A sentence, or one with values in it. Plain data. */
export type Said = string | readonly (string | Value)[]

/** A length of so many mm; `digits` after the point in mm where one is too many or too few. */
export const length = (mm: number, digits?: number): Value => ({ mm, digits })
/** Width by height. */
export const size = (wMm: number, hMm: number): Value => ({ size: [wMm, hMm] })
/** An area of so many mm². */
export const area = (mm2: number): Value => ({ mm2 })
/** A long way, of twine or of a cut, in m. */
export const metres = (m: number): Value => measured(m, 'm')
/** So much of what is kept in a unit of its own: ml of glue. */
export const measured = (amount: number, kept: Kept): Value => ({ amount, kept })

/** What card weighs, in gsm. */
export const weight = (gsm: number): Value => ({ gsm })
/** How hot, in °C. */
export const heat = (celsius: number): Value => ({ celsius })

/** A template whose values stay values. */
export function say(strings: TemplateStringsArray, ...values: (number | Said | Value)[]): Said {
  const parts: (string | Value)[] = []
  const add = (part: string | Value) => {
    const last = parts.at(-1)
    if (typeof part === 'string' && typeof last === 'string') parts[parts.length - 1] = last + part
    else if (part !== '') parts.push(part)
  }
  strings.forEach((text, i) => {
    add(text)
    const value = values[i]
    if (value === undefined) return
    if (typeof value === 'number') add(String(value))
    else if (Array.isArray(value)) for (const part of value as readonly (string | Value)[]) add(part)
    else add(value as string | Value)
  })
  if (parts.length === 0) return ''
  return parts.length === 1 && typeof parts[0] === 'string' ? parts[0] : parts
}

/** Sentences one after the other. */
export const sayAll = (list: readonly Said[], between = ' '): Said =>
  list.reduce((all, one, i) => (i === 0 ? one : say`${all}${between}${one}`), '')

/** Words a sentence in a unit. */
export function wordsIn(said: Said, unit: Unit): string {
  if (typeof said === 'string') return said
  return said.map((part) => (typeof part === 'string' ? part : wordOf(part, unit))).join('')
}

function wordOf(value: Value, unit: Unit): string {
  if ('mm2' in value) return formatArea(value.mm2, unit)
  if ('kept' in value) return formatKept(value.amount, value.kept, unit)
  if ('gsm' in value) return formatWeight(value.gsm, unit)
  if ('celsius' in value) return formatHeat(value.celsius, unit)
  if ('size' in value) return formatSize(...value.size, unit)
  return formatLength(value.mm, unit, value.digits)
}

/** Shorter lengths than this have no useful fraction of an inch: they are decimals. */
const FRACTION_FROM_MM = 3

/**
 * A length with its unit: 216 mm, 0.29 mm, 8 1/2 in, 0.011 in.
 * @param digits after the point in mm: one, and two under 1 mm, where it is not given
 */
export function formatLength(mm: number, unit: Unit, digits?: number): string {
  if (unit === 'mm') return `${formatMm(mm, digits ?? (Math.abs(mm) < 1 ? 2 : 1))} mm`
  if (Math.abs(mm) >= FRACTION_FROM_MM || mm === 0) return `${formatInches(mm)} in`
  const inches = mm / MM_PER_INCH
  return `${formatMm(inches, Math.abs(inches) < 0.02 ? 3 : 2)} in`
}

/** Width by height with one unit behind: 200 × 150 mm. */
export function formatSize(wMm: number, hMm: number, unit: Unit): string {
  if (unit === 'mm') return `${formatMm(wMm)} × ${formatMm(hMm)} mm`
  const [w, h] = [formatLength(wMm, 'in'), formatLength(hMm, 'in')]
  return `${w.replace(' in', '')} × ${h}`
}
