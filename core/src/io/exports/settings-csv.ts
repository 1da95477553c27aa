// The settings book as a table that a spreadsheet reads and writes.
import { parseWeight } from '../../base/units'
import { cellFault, cellNumber, readTable } from '../read'
import { writeCsv } from '../write'
import { MOST, settingSchema, type Setting } from '../../project'

/** The column of each field. */
const COLUMNS = {
  paper: 'paper',
  finish: 'finish',
  gsm: 'gsm',
  cutter: 'cutter',
  intricacy: 'cut',
  depthMm: 'blade out mm',
  forceG: 'force g',
  speedMmPerS: 'speed mm/s',
  passes: 'passes',
  tack: 'tack',
  outcome: 'outcome',
  note: 'note',
  at: 'when',
} as const satisfies Partial<Record<keyof Setting, string>>

/** The book as CSV with a head line. */
export const settingsToCsv = (settings: readonly Setting[]): string =>
  writeCsv(
    settings.map((one) =>
      Object.fromEntries(
        (Object.keys(COLUMNS) as (keyof typeof COLUMNS)[]).map((key) => [
          COLUMNS[key],
          key === 'at' ? new Date(one.at).toISOString() : one[key],
        ]),
      ),
    ),
  )

/** A book with what a table brought, and what of it could not be read. */
export interface SettingsRead {
  settings: Setting[]
  /** A sentence per row that could not be read. */
  wrong: string[]
}

/** Adds the rows of a CSV to a book, each under an id that `newId` gives; those that are there already are not there twice. */
export function settingsFromCsv(text: string, book: readonly Setting[], newId: () => string): SettingsRead {
  const { columns, rows } = readTable(text)
  if (!columns.includes('paper'))
    return { settings: [...book], wrong: ['There is no column “paper”: is this a table of settings?'] }
  const settings = [...book]
  const known = new Set(book.map(tellApart))
  const wrong: string[] = []
  rows.forEach((row, i) => {
    const at = Date.parse(row['when'] ?? '')
    const read = settingSchema.safeParse({
      id: newId(),
      paper: row[COLUMNS.paper],
      finish: row[COLUMNS.finish]?.toLowerCase(),
      gsm: parseWeight(row[COLUMNS.gsm] ?? '') ?? NaN,
      cutter: row[COLUMNS.cutter] ?? '',
      intricacy: row[COLUMNS.intricacy]?.toLowerCase() || 'plain',
      depthMm: cellNumber(row[COLUMNS.depthMm]),
      forceG: cellNumber(row[COLUMNS.forceG]),
      speedMmPerS: cellNumber(row[COLUMNS.speedMmPerS]),
      passes: cellNumber(row[COLUMNS.passes]),
      tack: row[COLUMNS.tack]?.toLowerCase(),
      outcome: row[COLUMNS.outcome]?.toLowerCase(),
      note: row[COLUMNS.note] ?? '',
      at: Number.isFinite(at) ? at : 0,
    })
    if (!read.success)
      wrong.push(
        `Row ${i + 2}: ${cellFault(row, read.error, (field) => COLUMNS[field as keyof typeof COLUMNS] ?? field)}`,
      )
    else if (!known.has(tellApart(read.data)) && settings.length < MOST.entries) {
      known.add(tellApart(read.data))
      settings.push(read.data)
    }
  })
  if (rows.length === 0) wrong.push('There is no row in this table.')
  else if (settings.length === MOST.entries) wrong.push(`The book is full: it holds ${MOST.entries} entries.`)
  else if (settings.length === book.length && wrong.length === 0)
    wrong.push('All of this table is in the book already.')
  return { settings, wrong }
}

/** What tells entries apart: all they say but their id. */
const tellApart = (one: Setting): string =>
  JSON.stringify((Object.keys(COLUMNS) as (keyof typeof COLUMNS)[]).map((key) => one[key]))
