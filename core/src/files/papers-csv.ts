// The drawer's papers as a table that a spreadsheet reads and writes.
import Papa from 'papaparse'
import { writeCsv } from '../formats'
import { newPaper } from '../paper'
import { paperSchema, type Paper } from '../project'

type Column = 'name' | 'colour' | 'finish' | 'gsm' | 'thickness mm' | 'core' | 'width mm' | 'height mm' | 'count' | 'price' | 'one way' | 'note'

/** Papers as CSV with a head line; off-cuts stay in the drawer. */
export const papersToCsv = (papers: readonly Paper[]): string =>
  writeCsv(
    papers.map((p): Record<Column, string | number> => ({
      name: p.name,
      colour: p.colour,
      finish: p.finish,
      gsm: p.gsm,
      'thickness mm': p.thicknessMm,
      core: p.core,
      'width mm': p.widthMm,
      'height mm': p.heightMm,
      count: p.count,
      price: p.price,
      'one way': p.oneWay ? 'yes' : 'no',
      note: p.note,
    })),
  )

export interface PapersRead {
  papers: Paper[]
  /** A sentence per row that could not be read. */
  wrong: string[]
}

/**
 * Papers of a CSV: rows whose name is in the drawer change that paper and keep its off-cuts, others are new. Rows that
 * cannot be read are left out and named. What a row does not say stays as it was, or takes a common value.
 */
export function papersFromCsv(text: string, stock: readonly Paper[]): PapersRead {
  const table = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  if (!table.meta.fields?.includes('name')) return { papers: [...stock], wrong: ['There is no column “name”: is this a table of papers?'] }
  const papers = [...stock]
  const wrong: string[] = []
  table.data.forEach((row, i) => {
    const name = (row['name'] ?? '').trim().replace(/^'(?=[=+\-@])/, '')
    const at = papers.findIndex((p) => p.name.toLowerCase() === name.toLowerCase())
    const parsed = paperSchema.safeParse({ ...(papers[at] ?? newPaper(name, papers)), ...given(row), name })
    if (parsed.success && at >= 0) papers[at] = parsed.data
    else if (parsed.success) papers.push(parsed.data)
    else {
      const issue = parsed.error.issues[0]!
      wrong.push(`Row ${i + 2}${name ? ` (${name})` : ''}: ${issue.path.join(' ') || 'it'} cannot be read: ${issue.message}.`)
    }
  })
  return { papers, wrong }
}

/** The cells of a row that say something. */
function given(row: Record<string, string>): object {
  const cell = (column: Column) => row[column]?.trim() || undefined
  const number = (column: Column) => {
    const value = cell(column)
    return value === undefined ? undefined : Number(value.replace(',', '.'))
  }
  const oneWay = cell('one way')
  const all = {
    colour: cell('colour'),
    finish: cell('finish')?.toLowerCase(),
    gsm: number('gsm'),
    thicknessMm: number('thickness mm'),
    core: cell('core')?.toLowerCase(),
    widthMm: number('width mm'),
    heightMm: number('height mm'),
    count: number('count'),
    price: number('price'),
    oneWay: oneWay === undefined ? undefined : /^(yes|y|true|1)$/i.test(oneWay),
    note: cell('note'),
  }
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined))
}
