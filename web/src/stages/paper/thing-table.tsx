// Frames, sticks, twine and their kin of the shared drawer: what they cost, and how many are left.
import { useMemo } from 'react'
import { amountIn, partsOf } from '@feuillet/core/stages/journal'
import {
  kindOf,
  measuredAs,
  newThing,
  THING_KINDS,
  thingFor,
  thingOf,
  thingUnit,
  type Project,
  type Supplies,
  type Thing,
} from '@feuillet/core/project'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { RecordCell, useRecordColumns, type RecordColumn } from './record-cell'
import { SupplyTable } from './supply-table'
import { useSupply } from './use-supply'

const SIZES = 'Works of this size take it, whichever way round. Blank for any size'

const COLUMNS: readonly RecordColumn<Thing>[] = [
  { key: 'name', title: 'thing', width: 'w-27' },
  { key: 'kind', title: 'kind', options: THING_KINDS, width: 'w-20' },
  { key: 'widthMm', title: 'wide', length: { min: 1, max: 2000 }, blank: 'any', width: 'w-16', tip: SIZES },
  { key: 'heightMm', title: 'high', length: { min: 1, max: 2000 }, blank: 'any', width: 'w-16', tip: SIZES },
]

/** What is told by the piece, or by the metre. */
const FIGURES: readonly (RecordColumn<Thing> & { key: 'count' | 'perPack' | 'price' })[] = [
  {
    key: 'count',
    title: 'left',
    number: { min: 0, max: 100_000 },
    blank: '–',
    width: 'w-11',
    tip: 'How many are at hand. Blank where that is not counted',
  },
  { key: 'perPack', title: 'in a pack', number: { min: 0.1, max: 100_000 }, width: 'w-11' },
  { key: 'price', title: 'price', number: { min: 0, max: 9999 }, width: 'w-11' },
]

/**
 * A thing such as the open work takes, of its size and price, by the name under which it was measured; of any size where the drawer has one of
 * that.
 */
function thingLike(project: Project, supplies: Supplies): Thing {
  const { things } = supplies
  const wanted = thingOf(project.mount) ?? { kind: 'frame', widthMm: null, heightMm: null }
  const { kind, widthMm, heightMm } = wanted
  const known = thingFor(things, project)
  const isSized = known !== null && (known.widthMm !== null || known.heightMm !== null)
  // A stick has no name by the topper that was measured.
  const measured = isSized || heightMm === null ? null : measuredAs(supplies, project.mount).same
  return {
    ...newThing(kind, crypto.randomUUID()),
    name: measured?.name ?? freeName(things, `New ${kind}`),
    count: 0,
    price: partsOf(project).find(({ id }) => id === kind)?.price ?? 0,
    ...(isSized ? {} : { widthMm, heightMm }),
  }
}

/** A thing as the table has it: called what it is where it has no name. */
const shown = (thing: Thing): Thing => {
  const kind = kindOf(thing)
  return { ...thing, kind, name: thing.name || kind || 'thing' }
}

export function ThingTable() {
  const supplies = useAppSelector((state) => state.document.supplies)
  const { list: things, edit, set: setThing } = useSupply('things')
  const rows = useMemo(() => things.map(shown), [things])
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const columnsOf = useRecordColumns()
  const { currency } = project.drawer
  const columns = useMemo((): DataColumn<Thing>[] => {
    const set = ({ id, name }: Thing, patch: Partial<Thing>) => setThing(id, `${name} in the drawer`, patch)
    const figures = FIGURES.map((column): DataColumn<Thing> => {
      const { key, title } = column
      return {
        id: key,
        title,
        ...(key === 'price' ? { unit: currency } : {}),
        numeric: true,
        value: (thing) => thing[key] ?? -1,
        cell: (thing) => {
          const by = amountIn({ amount: 1, unit: thingUnit(kindOf(thing)) }, unit)
          const one = key === 'price' ? 1 / by.amount : by.amount
          const kept = thing[key] === null ? null : thing[key] * one
          return (
            <span className="flex items-baseline gap-1 whitespace-nowrap">
              <RecordCell
                record={{
                  ...thing,
                  [key]: kept !== null && by.unit === 'ft' ? Number(kept.toPrecision(3)) : kept,
                }}
                column={column}
                onChange={(patch) => {
                  const typed = patch[key]
                  set(thing, { [key]: typeof typed === 'number' ? typed / one : null })
                }}
              />
              {/* The same room in every row, so that figures stand under each other. */}
              <span className="w-6 text-[13px] text-soft">
                {by.unit && (key === 'price' ? `a ${by.unit}` : by.unit)}
              </span>
            </span>
          )
        },
      }
    })
    return [
      ...columnsOf(COLUMNS, set),
      ...figures,
      ...columnsOf([{ key: 'shop', title: 'shop', width: 'w-9' } satisfies RecordColumn<Thing>], set),
      binColumn<Thing>(({ id, name }) => edit(`bin ${name}`, (list) => list.filter((one) => one.id !== id))),
    ]
  }, [edit, setThing, columnsOf, currency, unit])
  return (
    <SupplyTable
      list="things"
      one="thing"
      many="things"
      note=". What a work takes of them leaves the drawer when all is laid ready, and comes back with the tick."
      rows={rows}
      columns={columns}
      onNew={() => edit('a new thing', (list) => [...list, thingLike(project, supplies)])}
    />
  )
}
