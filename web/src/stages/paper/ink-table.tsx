// Inks of the shared drawer, to colour card by hand with.
import { useMemo } from 'react'
import { starterInks, type Ink } from '@feuillet/core/project'
import { Button, ColourInput, DataTable, type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { useRecordColumns, type RecordColumn } from './record-cell'
import { useSupply } from './use-supply'
import { useSupplyCsv } from './use-csv'

const COLUMNS: readonly RecordColumn<Ink>[] = [
  { key: 'name', title: 'ink', width: 'w-40' },
  { key: 'on', title: 'shows on', options: ['light card', 'dark card', 'any card'], width: 'w-32' },
  { key: 'dryMin', title: 'dry', unit: 'min', number: { min: 0, max: 10_000 }, width: 'w-14' },
]

export function InkTable() {
  const { list: inks, edit, set: setInk } = useSupply('inks')
  const csv = useSupplyCsv('inks', { what: 'inks', file: 'inks' })
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
    <>
      {csv.faults}
      <DataTable
        label="Inks of the drawer"
        rows={inks}
        columns={columns}
        rowId={({ id }) => id}
        rowProps={({ name }) => ({ 'data-ink': name })}
        sortedBy="name"
        small
        toolbar={(shown) => (
          <>
            <span className="min-w-36 flex-1 text-[13px] text-soft">
              {shown} {shown === 1 ? 'ink' : 'inks'}, to colour card with before it is stuck: how one comes
              out depends on the card, so try it.
            </span>
            <Button small onClick={add}>
              New ink
            </Button>
            {csv.buttons}
          </>
        )}
      />
    </>
  )
}
