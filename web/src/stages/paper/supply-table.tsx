// A list of the drawer that is no paper, as a table: edited in place, a new record, a spreadsheet's file in and out.
import type { SupplyList } from '@feuillet/core/io/exports'
import { Button, DataTable, type DataColumn } from '../../ui'
import { useSupplyCsv } from './use-csv'

interface Props<T extends { id: string; name: string }> {
  list: SupplyList
  /** What a record is called, and several. */
  one: string
  many: string
  /** Goes on from how many there are. */
  note: string
  rows: readonly T[]
  columns: readonly DataColumn<T>[]
  onNew: () => void
}

export function SupplyTable<T extends { id: string; name: string }>({
  list,
  one,
  many,
  note,
  rows,
  columns,
  onNew,
}: Props<T>) {
  const csv = useSupplyCsv(list, many)
  return (
    <>
      {csv.faults}
      <DataTable
        label={`${many.charAt(0).toUpperCase()}${many.slice(1)} of the drawer`}
        rows={rows}
        columns={columns}
        rowId={({ id }) => id}
        rowProps={({ name }) => ({ [`data-${one}`]: name })}
        sortedBy="name"
        small
        toolbar={(shown) => (
          <>
            <span className="min-w-36 flex-1 text-[13px] text-soft">
              {shown} {shown === 1 ? one : many}
              {note}
            </span>
            <Button small onClick={onNew}>
              New {one}
            </Button>
            {csv.buttons}
          </>
        )}
      />
    </>
  )
}
