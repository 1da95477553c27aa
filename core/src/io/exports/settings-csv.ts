// The settings book as a table that a spreadsheet reads and writes.
import Papa from 'papaparse'
import { writeCsv } from '../write'
import { settingSchema, type Setting } from '../../project'

/** The book as CSV with a head line. */
export const settingsToCsv = (settings: readonly Setting[]): string =>
  writeCsv(
    settings.map((one) => ({
      paper: one.paper,
      finish: one.finish,
      gsm: one.gsm,
      cutter: one.cutter,
      cut: one.intricacy,
      'blade out mm': one.depthMm,
      'force g': one.forceG,
      'speed mm/s': one.speedMmPerS,
      passes: one.passes,
      tack: one.tack,
      outcome: one.outcome,
      note: one.note,
      when: new Date(one.at).toISOString(),
    })),
  )

/** Entries of a CSV, with what of it could not be read, a sentence a row. */
export interface SettingsRead {
  settings: Setting[]
  wrong: string[]
}

/** Reads a book; each row is an entry of its own, under an id that `newId` gives. */
export function settingsFromCsv(text: string, newId: () => string): SettingsRead {
  const { data } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase(),
  })
  const settings: Setting[] = []
  const wrong: string[] = []
  data.forEach((row, i) => {
    const number = (key: string) => Number((row[key] ?? '').replace(',', '.') || NaN)
    const at = Date.parse(row['when'] ?? '')
    const read = settingSchema.safeParse({
      id: newId(),
      paper: row['paper']?.trim(),
      finish: row['finish']?.trim().toLowerCase(),
      gsm: number('gsm'),
      cutter: row['cutter']?.trim() ?? '',
      intricacy: row['cut']?.trim() || 'plain',
      depthMm: number('blade out mm'),
      forceG: number('force g'),
      speedMmPerS: number('speed mm/s'),
      passes: number('passes'),
      tack: row['tack']?.trim().toLowerCase(),
      outcome: row['outcome']?.trim().toLowerCase(),
      note: row['note'] ?? '',
      at: Number.isFinite(at) ? at : 0,
    })
    if (read.success) settings.push(read.data)
    else wrong.push(`Row ${i + 2}: ${String(read.error.issues[0]!.path[0] ?? 'it')} cannot be read.`)
  })
  if (data.length === 0) wrong.push('There is no row in this table.')
  return { settings, wrong }
}
