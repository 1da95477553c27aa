// Inks of the shared drawer, to colour card by hand with.
import { useMemo } from 'react'
import { starterInks, type Ink } from '@feuillet/core/project'
import { ColourInput, type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { useRecordColumns, type RecordColumn } from './record-cell'
import { SupplyTable } from './supply-table'
import { useSupply } from './use-supply'

const COLUMNS: readonly RecordColumn<Ink>[] = [
  { key: 'name', title: 'ink', width: 'w-40' },
  { key: 'on', title: 'shows on', options: ['light card', 'dark card', 'any card'], width: 'w-32' },
  { key: 'dryMin', title: 'dry', unit: 'min', number: { min: 0, max: 10_000 }, width: 'w-14' },
]

export function InkTable() {
  const { list: inks, edit, set: setInk } = useSupply('inks')
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Ink>[] => {
    const set = ({ id, name }: Ink, patch: Partial<Ink>) => setInk(id, `${name} in the drawer`, patch)
    return [
      ...columnsOf(COLUMNS, set),
      {
        id: 'colour',
        title: 'colour',
        value: ({ colour }) => colour,
        cell: (ink) => (
          <ColourInput
            label={`Colour of ${ink.name}`}
            value={ink.colour}
            whenLeft
            onChange={(colour) => set(ink, { colour })}
          />
        ),
      },
      binColumn<Ink>(({ id, name }) => edit(`bin ${name}`, (list) => list.filter((one) => one.id !== id))),
    ]
  }, [edit, columnsOf, setInk])
  const add = () =>
    edit('a new ink', (list) => [
      ...list,
      { ...starterInks[0]!, id: crypto.randomUUID(), name: freeName(list, 'New ink') },
    ])
  return (
    <SupplyTable
      list="inks"
      one="ink"
      many="inks"
      note=", to colour card with before it is stuck: how one comes out depends on the card, so try it."
      rows={inks}
      columns={columns}
      onNew={add}
    />
  )
}
