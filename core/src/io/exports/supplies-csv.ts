// Foams, glues, inks and things of the drawer as tables that a spreadsheet reads and writes.
import { z } from 'zod'
import { parseWeight } from '../../base/units'
import {
  adhesiveSchema,
  foamSchema,
  inkSchema,
  kindOf,
  MOST,
  newThing,
  starterAdhesives,
  starterFoams,
  starterInks,
  THING_KINDS,
  thingSchema,
  type Adhesive,
  type Foam,
  type Ink,
  type Thing,
} from '../../project'
import { cellNumber, type TableRow } from '../read'
import { writeCsv } from '../write'
import { mergeRows, sameLength, type Listed, type RowsRead } from './merge-rows'

/** A column of a table: what it is called, and how its cells are written. */
interface Column<T> {
  key: keyof T & string
  title: string
  /** A word is one of a few; a share is written in per cent. */
  as: 'text' | 'word' | 'number' | 'weight' | 'share' | 'yes'
  /** What stands for null. */
  none?: string
}

/** A list of the drawer and its table. */
interface SupplyTable<T> extends Pick<Listed<T>, 'what' | 'schema' | 'most' | 'isSize' | 'sound'> {
  columns: readonly Column<T>[]
  /** A record with common values. */
  fresh: (given: { id: string; name: string }) => T
}

const FOAMS: SupplyTable<Foam> = {
  what: 'foams',
  schema: foamSchema,
  most: MOST.foams,
  columns: [
    { key: 'name', title: 'name', as: 'text' },
    { key: 'form', title: 'bought as', as: 'word' },
    { key: 'widthMm', title: 'width mm', as: 'number' },
    { key: 'heightMm', title: 'height mm', as: 'number' },
    { key: 'thicknessMm', title: 'thickness mm', as: 'number' },
    { key: 'look', title: 'look', as: 'word' },
    { key: 'count', title: 'pads', as: 'number' },
    { key: 'perPack', title: 'per pack', as: 'number' },
    { key: 'pricePerPack', title: 'pack price', as: 'number' },
    { key: 'shop', title: 'shop', as: 'text' },
    { key: 'mayCut', title: 'may be cut', as: 'yes' },
    { key: 'mayBend', title: 'may be bent', as: 'yes' },
    { key: 'give', title: 'gives %', as: 'share' },
    { key: 'peelS', title: 'seconds to set', as: 'number' },
  ],
  isSize: (foam, cells) =>
    (['widthMm', 'heightMm', 'thicknessMm'] as const).every((key) =>
      sameLength(foam[key], cells[key] ?? foam[key]),
    ),
  fresh: (given) => ({ ...starterFoams[2]!, count: 0, ...given }),
}

const ADHESIVES: SupplyTable<Adhesive> = {
  what: 'glues',
  schema: adhesiveSchema,
  most: MOST.adhesives,
  columns: [
    { key: 'name', title: 'name', as: 'text' },
    { key: 'tackMin', title: 'takes min', as: 'number' },
    { key: 'handleMin', title: 'holds min', as: 'number' },
    { key: 'dryMin', title: 'dry min', as: 'number' },
    { key: 'thicknessMm', title: 'thickness mm', as: 'number' },
    { key: 'bucklesBelowGsm', title: 'buckles below gsm', as: 'weight' },
    { key: 'holdsKPa', title: 'bears kpa', as: 'number' },
    { key: 'pricePerPack', title: 'bottle price', as: 'number' },
    { key: 'packMl', title: 'bottle ml', as: 'number' },
    { key: 'slides', title: 'slides wet', as: 'yes' },
    { key: 'driesClear', title: 'dries clear', as: 'yes' },
    { key: 'isTidy', title: 'tidy behind', as: 'yes' },
    { key: 'surfaces', title: 'sticks to', as: 'text' },
    { key: 'caution', title: 'caution', as: 'text' },
  ],
  isSize: () => true,
  // What must be heeded is on its own label.
  fresh: (given) => ({ ...starterAdhesives[0]!, caution: '', ...given }),
}

const INKS: SupplyTable<Ink> = {
  what: 'inks',
  schema: inkSchema,
  most: MOST.adhesives,
  columns: [
    { key: 'name', title: 'name', as: 'text' },
    { key: 'colour', title: 'colour', as: 'text' },
    { key: 'on', title: 'shows on', as: 'word' },
    { key: 'dryMin', title: 'dry min', as: 'number' },
  ],
  isSize: () => true,
  fresh: (given) => ({ ...starterInks[0]!, ...given }),
}

const THINGS: SupplyTable<Thing> = {
  what: 'frames, sticks and twine',
  schema: thingSchema.extend({ kind: z.enum(THING_KINDS) }),
  most: MOST.adhesives,
  columns: [
    { key: 'name', title: 'name', as: 'text' },
    { key: 'kind', title: 'kind', as: 'word' },
    { key: 'widthMm', title: 'width mm', as: 'number', none: 'any' },
    { key: 'heightMm', title: 'height mm', as: 'number', none: 'any' },
    { key: 'count', title: 'count', as: 'number', none: 'not counted' },
    { key: 'perPack', title: 'per pack', as: 'number' },
    { key: 'price', title: 'price', as: 'number' },
    { key: 'shop', title: 'shop', as: 'text' },
  ],
  isSize: (thing, { kind = thing.kind, widthMm = thing.widthMm, heightMm = thing.heightMm }) =>
    thing.kind === kind && sameLength(thing.widthMm, widthMm) && sameLength(thing.heightMm, heightMm),
  // Of what kind it is its row must say.
  fresh: ({ id, name }) => ({ ...newThing('frame', id), kind: null, name }),
  sound: (thing) => (thing.kind === null ? { ...thing, kind: kindOf(thing) } : thing),
}

interface RecordOf {
  foams: Foam
  adhesives: Adhesive
  inks: Ink
  things: Thing
}

/** Lists of the drawer that have such a table. */
export type SupplyList = keyof RecordOf

type Lists = { readonly [K in SupplyList]: readonly RecordOf[K][] }

const TABLES: { readonly [K in SupplyList]: SupplyTable<RecordOf[K]> } = {
  foams: FOAMS,
  adhesives: ADHESIVES,
  inks: INKS,
  things: THINGS,
}

/** A list of the drawer as CSV with a head line; lengths in mm, twine by the metre. */
export function supplyToCsv<K extends SupplyList>(list: K, supplies: Lists): string {
  const { columns, sound = (record) => record } = TABLES[list]
  return writeCsv(
    supplies[list].map((record) =>
      Object.fromEntries(columns.map((column) => [column.title, cellOf(sound(record), column)])),
    ),
  )
}

/** A list of the drawer with the rows of a CSV put into it, new records under ids that `newId` gives. */
export function supplyFromCsv<K extends SupplyList>(
  list: K,
  text: string,
  { supplies, newId }: { supplies: Lists; newId: () => string },
): RowsRead<RecordOf[K]> {
  const { columns, fresh, ...table } = TABLES[list]
  return mergeRows<RecordOf[K]>(text, supplies[list], {
    ...table,
    given: (row) => givenIn(row, columns),
    fresh: (name) => fresh({ id: newId(), name }),
    columnOf: (field) => columns.find(({ key }) => key === field)?.title ?? field,
  })
}

function cellOf<T>(record: T, { key, as, none = '' }: Column<T>): string | number {
  const value: unknown = record[key]
  if (value === null) return none
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  // A hundredth of a per cent: 0.07 × 100 is a little more than 7.
  if (typeof value === 'number') return as === 'share' ? Math.round(value * 10_000) / 100 : value
  return String(value)
}

/** The cells of a row that say something. */
function givenIn<T>(row: TableRow, columns: readonly Column<T>[]): Partial<T> {
  const said: Record<string, unknown> = {}
  for (const { key, title, as, none } of columns) {
    const cell = row[title]
    if (!cell || key === 'name') continue
    if (none !== undefined && cell.toLowerCase() === none) said[key] = null
    else if (as === 'number') said[key] = cellNumber(cell)
    else if (as === 'share') said[key] = cellNumber(cell.replace('%', '')) / 100
    else if (as === 'weight') said[key] = parseWeight(cell) ?? NaN
    else if (as === 'yes') said[key] = /^(yes|y|true|1)$/i.test(cell)
    else said[key] = as === 'word' ? cell.toLowerCase() : cell
  }
  return said as Partial<T>
}
