// What is measured otherwise than by a ruler or a scale for card: how it is kept, and what makers who work in inches call it.
import { formatMm, MM_PER_INCH, type Unit } from './lengths'

/** The unit each is kept in: long ways, paces, volumes, weights, forces and what a joint bears. */
export type Kept = 'm' | 'mm/s' | 'mm/s²' | 'ml' | 'g' | 'N' | 'kPa'

/** A unit by its name, and how many of it one of what is kept is. */
interface ShownAs {
  unit: string
  one: number
}

const POUND_N = 4.448_222

/** Where inches are used; fluid ounces are those of the United States. */
const WITH_INCHES: Record<Kept, ShownAs> = {
  m: { unit: 'ft', one: 1000 / (12 * MM_PER_INCH) },
  'mm/s': { unit: 'in/s', one: 1 / MM_PER_INCH },
  'mm/s²': { unit: 'in/s²', one: 1 / MM_PER_INCH },
  ml: { unit: 'fl oz', one: 1 / 29.573_53 },
  g: { unit: 'oz', one: 1 / 28.349_52 },
  N: { unit: 'lbf', one: 1 / POUND_N },
  kPa: { unit: 'psi', one: MM_PER_INCH ** 2 / 1000 / POUND_N },
}

/** The maker's unit of what is kept, and how many of it one of what is kept is. */
export const shownAs = (kept: Kept, unit: Unit): ShownAs =>
  unit === 'in' ? WITH_INCHES[kept] : { unit: kept, one: 1 }

/** Digits after the point for three figures, and one fewer under 1. */
export const digitsOf = (amount: number): number => {
  const size = Math.abs(amount)
  return size < 0.1 ? 3 : size < 10 ? 2 : size < 100 ? 1 : 0
}

/** An amount in the maker's unit, to three figures: 1.63 m, 5.35 ft, 60 mm/s, 2.36 in/s, 0.31 ml, 4 fl oz. */
export function formatKept(amount: number, kept: Kept, unit: Unit): string {
  const { unit: name, one } = shownAs(kept, unit)
  return `${formatMm(amount * one, digitsOf(amount * one))} ${name}`
}
