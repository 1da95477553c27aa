// Inks of the shared drawer, to colour card by hand with.
import { useMemo } from 'react'
import { starterInks, type Ink } from '@feuillet/core/project'
import { changeSupplies } from '../../state/edits'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, ColourInput, DataTable, type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { useRecordColumns, type RecordColumn } from './record-cell'

const COLUMNS: readonly RecordColumn<Ink>[] = [
  { key: 'name', title: 'ink', width: 'w-40' },
  { key: 'on', title: 'shows on', options: ['light card', 'dark card', 'any card'], width: 'w-32' },
  { key: 'dryMin', title: 'dry', unit: 'min', number: { min: 0, max: 10_000 }, width: 'w-14' },
]

export function InkTable() {
  const dispatch = useAppDispatch()
  const { inks } = useAppSelector((state) => state.document.supplies)
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Ink>[] => {
    const edit = (label: string, change: (list: readonly Ink[]) => readonly Ink[]) =>
      dispatch(
        changeSupplies(label, ({ project, supplies }) => ({
          project,
          supplies: { ...supplies, inks: change(supplies.inks) },
        })),
      )
    const set = (ink: Ink, patch: Partial<Ink>) =>
      edit(`${ink.name} in the drawer`, (list) =>
        list.map((one) => (one.id === ink.id ? { ...one, ...patch } : one)),
      )
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
  }, [dispatch, columnsOf])
  const add = () =>
    dispatch(
      changeSupplies('a new ink', ({ project, supplies }) => ({
        project,
        supplies: {
          ...supplies,
          inks: [
            ...supplies.inks,
            { ...starterInks[0]!, id: crypto.randomUUID(), name: freeName(supplies.inks, 'New ink') },
          ],
        },
      })),
    )
  return (
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
          <span className="flex-1 text-[13px] text-soft">
            {shown} {shown === 1 ? 'ink' : 'inks'}, to colour card with before it is stuck: how one comes out
            depends on the card, so try it.
          </span>
          <Button small onClick={add}>
            New ink
          </Button>
        </>
      )}
    />
  )
}
