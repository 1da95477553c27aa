import Papa from 'papaparse'

/** Rows as CSV with a head line; cells that a spreadsheet would run as a formula are made plain text. */
export const writeCsv = (rows: readonly Record<string, string | number>[]): string =>
  Papa.unparse([...rows], { escapeFormulae: true, newline: '\n' }) + '\n'
