// Tables that a spreadsheet wrote: CSV with a head line, in whatever letters and separators it chose.
import Papa from 'papaparse'
import type { ZodError } from 'zod'
import { markedEncoding, textIn } from './letters'

/** A row by its columns, whose names are small letters; cells are trimmed. */
export type TableRow = Readonly<Record<string, string>>

/** A table: its columns as they are named, and its rows that are not empty. */
export interface Table {
  columns: readonly string[]
  rows: readonly TableRow[]
}

/** The text of a file that a spreadsheet saved: UTF-8 or UTF-16 as its first bytes say, else UTF-8, else the letters of western Windows. */
export const decodeTable = (bytes: Uint8Array): string =>
  textIn(markedEncoding(bytes) ?? 'utf-8', bytes, { strict: true }) ?? textIn('windows-1252', bytes)!

/** Reads a CSV, its separator found by itself; what was made plain text so that no spreadsheet runs it is as it was. */
export function readTable(text: string): Table {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase(),
    transform: (cell) => cell.trim().replace(/^'(?=[=+\-@])/, ''),
  })
  return { columns: meta.fields ?? [], rows: data }
}

/** A number of a cell, with a point or a comma; NaN for what is none or is not there. */
export const cellNumber = (cell: string | undefined): number => Number(cell?.replace(',', '.') || NaN)

/** What is wrong with a row, by the first thing its schema found; `columnOf` names the column of a field. */
export function cellFault(row: TableRow, error: ZodError, columnOf: (field: string) => string): string {
  const issue = error.issues[0]!
  const column = columnOf(String(issue.path.at(-1) ?? ''))
  const cell = row[column] ?? ''
  if (cell === '') return `“${column}” is missing.`
  const given = `“${column}” is “${cell.slice(0, 40)}”`
  switch (issue.code) {
    case 'invalid_value':
      return `${given}; it can be ${issue.values.slice(0, -1).map(String).join(', ')} or ${String(issue.values.at(-1))}.`
    case 'invalid_type':
      return `${given}, which is no ${issue.expected === 'int' ? 'whole number' : 'number'}.`
    case 'too_small':
      return `${given}; it is ${issue.minimum} or more.`
    case 'too_big':
      return issue.origin === 'string'
        ? `${given} and so on; it has ${issue.maximum} letters at most.`
        : `${given}; it is ${issue.maximum} or less.`
    default:
      return `${given}: ${issue.message}.`
  }
}
