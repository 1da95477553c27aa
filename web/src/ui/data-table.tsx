// A table that is sorted by a press on a column, filtered by a text, with columns that can be hidden; long ones draw what is in sight.
import {
  columnFilteringFeature,
  columnVisibilityFeature,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
  type ColumnDef,
  type ColumnVisibilityState,
  type RowData,
  type SortingState,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { Columns3 } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { memo, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { menuItem } from './menu'

const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  columnVisibilityFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  filterFns: { includesString: filterFn_includesString },
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
})

export interface DataColumn<T> {
  id: string
  title: string
  /** Stands under the title. */
  unit?: string
  /** What is sorted and searched by; without it the column is neither. */
  value?: (row: T) => string | number
  cell: (row: T) => ReactNode
  numeric?: boolean
  /** Stays whatever the maker hides. */
  always?: boolean
  /** Left out until the maker asks for it. */
  seldom?: boolean
}

interface Props<T extends RowData> {
  label: string
  rows: readonly T[]
  columns: readonly DataColumn<T>[]
  rowId: (row: T) => string
  /** Attributes of a row, to find it by. */
  rowProps?: (row: T) => Record<`data-${string}`, string>
  sortedBy?: string
  /** The text that rows are filtered by. */
  filter?: string
  /** Stands before the button of the columns. */
  toolbar?: (shown: number) => ReactNode
  small?: boolean
}

/** From so many rows on only those in sight are drawn, each about so high (px). */
const MANY = 150
const ROW_PX = 33
/** So many come with each picture of the screen: nothing that is typed waits for them. */
const AT_ONCE = 8

export function DataTable<T extends RowData>({
  label,
  rows,
  columns,
  rowId,
  rowProps,
  sortedBy,
  filter = '',
  toolbar,
  small = false,
}: Props<T>) {
  const [sorting, setSorting] = useState<SortingState>(sortedBy ? [{ id: sortedBy, desc: false }] : [])
  const [columnVisibility, setColumnVisibility] = useState<ColumnVisibilityState>(() =>
    Object.fromEntries(columns.flatMap(({ id, seldom }) => (seldom ? [[id, false]] : []))),
  )
  const defs = useMemo(
    () =>
      columns.map(({ id, title, value, numeric }): ColumnDef<typeof features, T> => ({
        id,
        header: title,
        accessorFn: value ?? (() => ''),
        enableSorting: value !== undefined,
        enableGlobalFilter: value !== undefined,
        sortFn: numeric ? 'basic' : 'alphanumeric',
      })),
    [columns],
  )
  const table = useTable(
    {
      features,
      data: rows,
      columns: defs,
      getRowId: rowId,
      globalFilterFn: 'includesString',
      state: { sorting, columnVisibility, globalFilter: filter },
      onSortingChange: setSorting,
      onColumnVisibilityChange: setColumnVisibility,
    },
    (state) => state,
  )
  const byId = useMemo(() => new Map(columns.map((column) => [column.id, column])), [columns])
  const shown = table.getRowModel().rows
  const seen = table.getVisibleLeafColumns().map(({ id }) => byId.get(id)!)
  const scroller = useRef<HTMLDivElement>(null)
  const many = shown.length > MANY
  // What it gives is read while rendering and handed to nobody.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: shown.length,
    // Else it would measure the table before it is drawn, for nothing.
    enabled: many,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
  })
  const drawn = useGrowing(Math.min(shown.length, MANY))
  const inSight = (many ? virtual.getVirtualItems().map(({ index }) => index) : shown.map((_, i) => i)).slice(
    0,
    drawn,
  )
  const above = many && inSight.length > 0 ? inSight[0]! * ROW_PX : 0
  const below = many && inSight.length > 0 ? (shown.length - 1 - inSight.at(-1)!) * ROW_PX : 0
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2 [&_button]:whitespace-nowrap">
        {toolbar ? toolbar(shown.length) : <span className="flex-1" />}
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger
            aria-label={`Columns of ${label}`}
            className="inline-flex items-center gap-1.5 border border-line bg-panel px-2 py-1 hover:bg-sheet"
          >
            <Columns3 size={14} aria-hidden /> Columns
          </DropdownMenu.Trigger>

          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-30 max-h-80 min-w-40 overflow-y-auto border border-ink bg-sheet py-1"
          >
            {columns
              .filter(({ always }) => !always)
              .map(({ id, title }) => (
                <DropdownMenu.CheckboxItem
                  key={id}
                  className={`${menuItem} flex justify-between gap-4`}
                  checked={columnVisibility[id] !== false}
                  onSelect={(event) => event.preventDefault()}
                  onCheckedChange={(on) => setColumnVisibility({ ...columnVisibility, [id]: on })}
                >
                  {title}
                  <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
                </DropdownMenu.CheckboxItem>
              ))}
          </DropdownMenu.Content>
        </DropdownMenu.Root>
      </div>
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-auto bg-panel"
        tabIndex={0}
        role="region"
        aria-label={label}
      >
        <table className={`w-full ${small ? 'text-[12.5px]' : ''}`} aria-rowcount={shown.length + 1}>
          <thead className="sticky top-0 z-10 bg-panel text-left text-soft">
            <tr className="border-b border-line">
              {seen.map(({ id, title, unit, numeric, value }) => {
                const sorted = table.getColumn(id)?.getIsSorted()
                return (
                  <th
                    key={id}
                    className={`px-1 py-1 align-bottom leading-tight font-normal ${numeric ? 'text-right' : ''}`}
                    aria-sort={sorted ? (sorted === 'desc' ? 'descending' : 'ascending') : 'none'}
                  >
                    {value ? (
                      <button
                        type="button"
                        className={`hover:text-ink ${numeric ? 'w-full text-right' : ''} ${sorted ? 'font-semibold text-ink' : ''}`}
                        onClick={() => table.getColumn(id)!.toggleSorting(sorted === 'asc')}
                      >
                        {title}
                        {unit && <span className="block">{unit}</span>}
                        {sorted && (sorted === 'desc' ? ' ▾' : ' ▴')}
                      </button>
                    ) : (
                      title
                    )}
                  </th>
                )
              })}
            </tr>
          </thead>
          <tbody>
            {above > 0 && <tr style={{ height: above }} aria-hidden />}
            {inSight.map((k) => (
              <Row
                key={shown[k]!.id}
                row={shown[k]!.original}
                at={k + 2}
                {...{ columns, hidden: columnVisibility, rowProps }}
              />
            ))}
            {below > 0 && <tr style={{ height: below }} aria-hidden />}
          </tbody>
        </table>
      </div>
    </>
  )
}

interface RowProps<T extends RowData> {
  row: T
  /** Which row of the table it is, from 1; the first are the titles. */
  at: number
  columns: readonly DataColumn<T>[]
  hidden: ColumnVisibilityState
  rowProps: Props<T>['rowProps']
}

/** Drawn again only when its record or the columns change: a row full of fields is dear. */
const Row = memo(function Row<T extends RowData>({ row, at, columns, hidden, rowProps }: RowProps<T>) {
  return (
    <tr className="border-b border-line" aria-rowindex={at} {...rowProps?.(row)}>
      {columns
        .filter(({ id }) => hidden[id] !== false)
        .map(({ id, cell, numeric }) => (
          <td key={id} className={`px-1 py-0.5 ${numeric ? 'text-right' : ''}`}>
            {cell(row)}
          </td>
        ))}
    </tr>
  )
}) as <T extends RowData>(props: RowProps<T>) => ReactNode

/** A number that grows to what is wished, some with each picture of the screen. */
function useGrowing(wished: number): number {
  const [shown, setShown] = useState(AT_ONCE)
  useEffect(() => {
    if (shown >= wished) return
    const frame = requestAnimationFrame(() => setShown(shown + AT_ONCE))
    return () => cancelAnimationFrame(frame)
  }, [shown, wished])
  return shown
}
