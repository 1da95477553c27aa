// The drawer's papers as a table that a spreadsheet reads and writes.
import { parseWeight } from '../../base/units'
import { cellFault, cellNumber, readTable, type TableRow } from '../read'
import { writeCsv } from '../write'
import { changedPaper, newPaper } from '../../stages/paper'
import { MOST, paperSchema, type Paper, type Press } from '../../project'

type Column =
  | 'name'
  | 'colour'
  | 'finish'
  | 'gsm'
  | 'thickness mm'
  | 'core'
  | 'width mm'
  | 'height mm'
  | 'count'
  | 'price'
  | 'per pack'
  | 'one way'
  | 'press celsius'
  | 'press seconds'
  | 'peel'
  | 'shop'
  | 'note'

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
      'per pack': p.perPack,
      'one way': p.oneWay ? 'yes' : 'no',
      'press celsius': p.press?.tempC ?? '',
      'press seconds': p.press?.seconds ?? '',
      peel: p.press?.peel ?? '',
      shop: p.shop,
      note: p.note,
    })),
  )

/** The drawer with what a table brought, and what of it could not be read, a sentence a row. */
export interface PapersRead {
  papers: Paper[]
  /** A sentence per row that could not be read. */
  wrong: string[]
}

/**
 * Papers of a CSV: rows whose name and size are in the drawer change that paper and keep its off-cuts, and so do rows whose
 * name there is but once on either side; others are new. Rows that cannot be read are left out and named. What a row does
 * not say stays as it was, or takes a common value: the thickness that of finish and weight.
 */
export function papersFromCsv(text: string, stock: readonly Paper[]): PapersRead {
  const { columns, rows } = readTable(text)
  if (!columns.includes('name'))
    return { papers: [...stock], wrong: ['There is no column “name”: is this a table of papers?'] }
  const papers = [...stock]
  const wrong: string[] = []
  let left = 0
  const rowsNamed = (name: string) => rows.filter((row) => sameName(nameIn(row), name)).length
  rows.forEach((row, i) => {
    const name = nameIn(row)
    const cells = given(row)
    const named = papers.filter((p) => sameName(p.name, name))
    const found =
      named.find((p) => sameSize(p, cells)) ??
      (named.length === 1 && rowsNamed(name) === 1 ? named[0] : undefined)
    const at = found ? papers.indexOf(found) : -1
    const before = found ?? newPaper(name, papers)
    const parsed = paperSchema.safeParse({ ...before, ...cells, name })
    const after = (): Paper => {
      const { thicknessMm, ...rest } = parsed.data!
      // Of another finish or weight it may be as thick as such are.
      return changedPaper(before, cells.thicknessMm === undefined ? rest : { ...rest, thicknessMm })
    }
    if (parsed.success && at >= 0) papers[at] = after()
    else if (parsed.success && papers.length < MOST.papers) papers.push(after())
    else if (parsed.success) left++
    else
      wrong.push(
        `Row ${i + 2}${name ? ` (${name})` : ''}: ${cellFault(row, parsed.error, (field) => COLUMN_OF[field] ?? field)}`,
      )
  })
  if (left > 0) wrong.push(`The drawer is full: it holds ${MOST.papers} papers, and ${left} are left out.`)
  return { papers, wrong }
}

const nameIn = (row: TableRow): string => row['name'] ?? ''

/** Columns of fields that are called otherwise. */
const COLUMN_OF: Readonly<Record<string, Column>> = {
  thicknessMm: 'thickness mm',
  widthMm: 'width mm',
  heightMm: 'height mm',
  perPack: 'per pack',
  oneWay: 'one way',
  tempC: 'press celsius',
  seconds: 'press seconds',
}

const sameName = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase()

/** Sizes that differ by less than this are one size written differently (mm). */
const SAME_MM = 0.5

/** Whether a row is of a paper's size, as far as it says one. */
const sameSize = (
  paper: Paper,
  { widthMm = paper.widthMm, heightMm = paper.heightMm }: Partial<Paper>,
): boolean => Math.abs(paper.widthMm - widthMm) < SAME_MM && Math.abs(paper.heightMm - heightMm) < SAME_MM

/** The cells of a row that say something. */
function given(row: TableRow): Partial<Paper> {
  const cell = (column: Column) => row[column] || undefined
  const number = (column: Column) => (cell(column) === undefined ? undefined : cellNumber(cell(column)))
  const oneWay = cell('one way')
  const tempC = number('press celsius')
  const press =
    tempC === undefined
      ? undefined
      : {
          tempC,
          seconds: number('press seconds'),
          peel: cell('peel')?.toLowerCase() as Press['peel'] | undefined,
        }
  const all = {
    press: press as Press | undefined,
    colour: cell('colour'),
    finish: cell('finish')?.toLowerCase(),
    gsm: cell('gsm') === undefined ? undefined : (parseWeight(cell('gsm')!) ?? NaN),
    thicknessMm: number('thickness mm'),
    core: cell('core')?.toLowerCase(),
    widthMm: number('width mm'),
    heightMm: number('height mm'),
    count: number('count'),
    price: number('price'),
    perPack: number('per pack'),
    oneWay: oneWay === undefined ? undefined : /^(yes|y|true|1)$/i.test(oneWay),
    shop: cell('shop'),
    note: cell('note'),
  }
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined))
}
