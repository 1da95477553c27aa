// What card weighs, and how hot a plate is: as they are kept, and as packs and labels where inches are used have them.
import { formatMm, type Unit } from './lengths'

/** Grams a square metre of a pound, by the basis weights of cover and of text paper. */
const GSM_PER_LB = { cover: 2.704, text: 1.48 } as const

/** Lighter card is told in pounds of text paper. */
const COVER_FROM_GSM = 135

/** Packs bear whole fives; what comes so near is one. */
const FIVE_WITHIN_LB = 1.2

/**
 * Grams a square metre of a typed weight, or null where it cannot be read: 216, 216 gsm, 216 g/m², 80 lb, 80# cover, 50 lb text. Pounds
 * are of cover, as card is sold, where nothing else is said.
 */
export function parseWeight(text: string): number | null {
  const match = /^(\d+(?:[.,]\d+)?)\s*(gsm|g|g\/m2|g\/m²|(?:lbs?\.?|#)\s*(cover|cardstock|text)?)?$/i.exec(
    text.trim(),
  )
  if (!match) return null
  const [, digits, unit = 'gsm', kind = 'cover'] = match
  const amount = Number(digits!.replace(',', '.'))
  if (/^g/i.test(unit)) return amount
  return Math.round(amount * GSM_PER_LB[kind.toLowerCase() === 'text' ? 'text' : 'cover'])
}

/** A weight of card: 216 gsm; with inches the pounds that packs bear too: 216 gsm (80 lb), 75 gsm (50 lb text). */
export function formatWeight(gsm: number, unit: Unit): string {
  const metric = `${formatMm(gsm)} gsm`
  if (unit === 'mm') return metric
  const kind = gsm >= COVER_FROM_GSM ? 'cover' : 'text'
  const lb = gsm / GSM_PER_LB[kind]
  const five = Math.round(lb / 5) * 5
  return `${metric} (${Math.abs(lb - five) <= FIVE_WITHIN_LB ? five : Math.round(lb)} lb${kind === 'text' ? ' text' : ''})`
}

/** The degrees that a maker reads, of degrees Celsius. */
export const degreesIn = (celsius: number, unit: Unit): number =>
  unit === 'in' ? (celsius * 9) / 5 + 32 : celsius

/** Degrees Celsius of what a maker typed, to a tenth: whole degrees come back as they were. */
export const celsiusOf = (degrees: number, unit: Unit): number =>
  unit === 'in' ? Math.round(((degrees - 32) * 50) / 9) / 10 : degrees

/** The name of those degrees. */
export const degreeUnit = (unit: Unit): string => (unit === 'in' ? '°F' : '°C')

/** How hot: 150 °C, 302 °F. */
export const formatHeat = (celsius: number, unit: Unit): string =>
  `${Math.round(degreesIn(celsius, unit))} ${degreeUnit(unit)}`
