// What one unit of a drawing may be that does not say how large it is: programs disagree.
import { formatSize, say, size, type Said, type Unit } from '@feuillet/core/base/units'
import type { Kind } from './read-file'

/** A drawing that does not say how large it is: what one unit was taken for, and how large that made it. */
export interface Untold {
  name: string
  kind: Kind
  unitMm: number
  widthMm: number
  heightMm: number
}

const INCH_MM = 25.4

const FILE_UNITS = [
  { name: '1/96 in', mm: INCH_MM / 96 },
  { name: '1/90 in', mm: INCH_MM / 90 },
  { name: '1/72 in', mm: INCH_MM / 72 },
  { name: '1 mm', mm: 1 },
  { name: '1 cm', mm: 10 },
  { name: '1 in', mm: INCH_MM },
] as const

const isUnit =
  (unitMm: number) =>
  ({ mm }: { mm: number }) =>
    Math.abs(mm - unitMm) < 1e-6

/** A unit by its name, as rulers have it. */
export const unitNamed = (unitMm: number): string => FILE_UNITS.find(isUnit(unitMm))?.name ?? `${unitMm} mm`

/** What the size of a drawing rests on that does not say how large it is. */
export const sizeRestsOn = ({ name, unitMm, widthMm, heightMm }: Untold): Said =>
  say`${name} does not say how large it is: with ${unitNamed(unitMm)} to a unit it is ${size(widthMm, heightMm)}.`

/** No card work is smaller or larger, mm. */
const LEAST_MM = 5
const MOST_MM = 3000

/** The units that make a size of a drawing that card work may have, with that size. */
export const unitChoices = ({ unitMm, widthMm, heightMm }: Untold, unit: Unit) =>
  FILE_UNITS.flatMap(({ name, mm }) => {
    const [w, h] = [(widthMm * mm) / unitMm, (heightMm * mm) / unitMm]
    const longer = Math.max(w, h)
    return (longer >= LEAST_MM && longer <= MOST_MM) || isUnit(unitMm)({ mm })
      ? [{ value: name, label: name, detail: formatSize(w, h, unit), mm }]
      : []
  })
