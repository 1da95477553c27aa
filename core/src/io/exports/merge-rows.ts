// Records of the drawer that a table changes, and those that it adds.
import type { ZodType } from 'zod'
import { share } from '../../base'
import { cellFault, readTable, type TableRow } from '../read'

/** Records of one list of the drawer, and how a table says them. */
export interface Listed<T> {
  /** What they are: foams. */
  what: string
  schema: ZodType<T>
  /** So many the drawer holds at most. */
  most: number
  /** The fields that a row says; a field that is not there is not said. */
  given: (row: TableRow) => Partial<T>
  /** Whether a row is of a record's size, as far as it says one. */
  isSize: (record: T, cells: Partial<T>) => boolean
  /** A record of a name, with common values, that is not in the list. */
  fresh: (name: string, list: readonly T[]) => T
  /** A record of before, as it is written now. */
  sound?: (record: T) => T
  /** A record as a row changes it, where that takes more than its fields. */
  changed?: (before: T, after: T, cells: Partial<T>) => T
  /** The column of a field that is called otherwise. */
  columnOf: (field: string) => string
}

/** A list with what a table brought: the list itself where that is nothing new. */
export interface RowsRead<T> {
  records: readonly T[]
  /** A sentence per row that could not be read. */
  wrong: string[]
}

/**
 * Puts the rows of a CSV into a list: rows whose name and size are in it change that record, and so do rows whose name is but once on either
 * side; others are new. Rows that cannot be read are left out and named. What a row does not say stays as it was, or takes a common value.
 */
export function mergeRows<T extends { name: string }>(
  text: string,
  list: readonly T[],
  { what, schema, most, given, isSize, fresh, sound, changed, columnOf }: Listed<T>,
): RowsRead<T> {
  const { columns, rows } = readTable(text)
  if (!columns.includes('name'))
    return { records: list, wrong: [`There is no column “name”: is this a table of ${what}?`] }
  const records = sound ? list.map(sound) : [...list]
  const wrong: string[] = []
  let left = 0
  const rowsNamed = (name: string) => rows.filter((row) => sameName(nameIn(row), name)).length
  rows.forEach((row, i) => {
    const name = nameIn(row)
    const cells = given(row)
    const named = records.filter((one) => sameName(one.name, name))
    const found =
      named.find((one) => isSize(one, cells)) ??
      (named.length === 1 && rowsNamed(name) === 1 ? named[0] : undefined)
    const before = found ?? fresh(name, records)
    const { data, error } = schema.safeParse({ ...before, ...cells, name })
    if (error) {
      const fault = cellFault({ ...row, name }, error, columnOf)
      wrong.push(`Row ${i + 2}${name ? ` (${name})` : ''}: ${fault}`)
      return
    }
    const after = changed ? changed(before, data, cells) : data
    if (found) records[records.indexOf(found)] = after
    else if (records.length < most) records.push(after)
    else left++
  })
  if (left > 0) wrong.push(`The drawer is full: it holds ${most} ${what}, and ${left} are left out.`)
  return { records: share(list, records), wrong }
}

const nameIn = (row: TableRow): string => row['name'] ?? ''

const sameName = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase()

/** Sizes that differ by less than this are one size written differently (mm). */
const SAME_MM = 0.5

/** Whether two lengths are one; what has no length is like what has none. */
export const sameLength = (a: number | null, b: number | null): boolean =>
  a === null || b === null ? a === b : Math.abs(a - b) < SAME_MM
