// The drawer's papers as a table that a spreadsheet reads and writes.
import { parseWeight } from '../../base/units'
import { cellNumber, type TableRow } from '../read'
import { writeCsv } from '../write'
import { changedPaper, newPaper } from '../../stages/paper'
import { MOST, paperSchema, type Paper, type Press } from '../../project'
import { mergeRows, sameLength, type Listed } from './merge-rows'

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

/** The drawer with what a table brought, and what of it could not be read. */
export interface PapersRead {
  papers: readonly Paper[]
  /** A sentence per row that could not be read. */
  wrong: string[]
}

/** Puts the papers of a CSV into the drawer, whose off-cuts stay; what a row does not say is taken as `mergeRows` has it, the thickness that of finish and weight. */
export function papersFromCsv(text: string, stock: readonly Paper[]): PapersRead {
  const { records, wrong } = mergeRows(text, stock, PAPERS)
  return { papers: records, wrong }
}

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

const PAPERS: Listed<Paper> = {
  what: 'papers',
  schema: paperSchema,
  most: MOST.papers,
  given,
  isSize: (paper, { widthMm = paper.widthMm, heightMm = paper.heightMm }) =>
    sameLength(paper.widthMm, widthMm) && sameLength(paper.heightMm, heightMm),
  fresh: newPaper,
  // Of another finish or weight it may be as thick as such are.
  changed: (before, { thicknessMm, ...rest }, cells) =>
    changedPaper(before, cells.thicknessMm === undefined ? rest : { ...rest, thicknessMm }),
  columnOf: (field) => COLUMN_OF[field] ?? field,
}
