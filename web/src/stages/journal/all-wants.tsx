// What all projects of the shelf want of the drawer: what is spoken for, what runs short, and one shopping list.
import { saveFile } from '../../session/save-file'
import { selectProject, selectUnit } from '../../state/selectors'
import { AllBought } from '../../shell/all-bought'
import { useAppSelector } from '../../state/store'
import { Button, DataTable, type DataColumn } from '../../ui'
import {
  billOf,
  boughtOf,
  countWords,
  packsOf,
  packWords,
  wantsOf,
  type Want,
} from '@feuillet/core/stages/journal'
import { useShelfCounts } from './use-shelf'

export function AllWants() {
  const { drawer } = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { stock, supplies } = useAppSelector((state) => state.document)
  const { counted, doing } = useShelfCounts()
  const { currency } = drawer
  const rows = wantsOf(counted, {
    papers: [...stock, ...drawer.papers],
    foams: supplies.foams,
    things: supplies.things,
  })
  const bill = billOf(rows)
  const told = ({ unit: by }: Want, count: number) => countWords(count, by, unit)
  const buyWords = (row: Want) => {
    const packs = packsOf(row)
    return packs === 0 ? '–' : packWords(packs, { perPack: row.perPack, by: row.unit }, unit)
  }
  const columns: DataColumn<Want>[] = [
    { id: 'kind', title: 'what', value: ({ kind }) => kind, cell: ({ kind }) => kind },
    { id: 'name', title: 'name', always: true, value: ({ name }) => name, cell: ({ name }) => name },
    {
      id: 'atHand',
      title: 'at hand',
      numeric: true,
      value: ({ atHand }) => atHand,
      cell: (row) => <span className="measure whitespace-nowrap">{told(row, row.atHand)}</span>,
    },
    {
      id: 'wanted',
      title: 'spoken for',
      numeric: true,
      value: ({ wanted }) => wanted,
      cell: (row) => (
        <span
          className="measure whitespace-nowrap"
          title={row.by.map(({ name, count }) => `${name}: ${told(row, count)}`).join(', ')}
        >
          {told(row, row.wanted)}
        </span>
      ),
    },
    {
      id: 'left',
      title: 'left',
      numeric: true,
      value: ({ atHand, wanted }) => atHand - wanted,
      cell: (row) => {
        const left = row.atHand - row.wanted
        return (
          <span className={`measure whitespace-nowrap ${left < 0 ? 'text-crimson' : ''}`}>
            {left < 0 && '■ '}
            {told(row, left)}
          </span>
        )
      },
    },
    {
      id: 'buy',
      title: 'to buy',
      value: packsOf,
      cell: buyWords,
    },
    {
      id: 'cost',
      title: 'for',
      unit: currency,
      numeric: true,
      value: (row) => packsOf(row) * row.price,
      cell: (row) => <span className="measure">{(packsOf(row) * row.price).toFixed(2)}</span>,
    },
    { id: 'shop', title: 'shop', value: ({ shop }) => shop, cell: ({ shop }) => shop || '–' },
    {
      id: 'by',
      title: 'by',
      value: ({ by }) => by.length,
      cell: ({ by }) => (
        <span className="text-[13px] text-soft">{by.map(({ name }) => name).join(', ')}</span>
      ),
    },
  ]
  const save = async () => {
    const [{ writeCsv }, { wantRows }] = await Promise.all([
      import('@feuillet/core/io/write'),
      import('@feuillet/core/io/exports'),
    ])
    saveFile('shopping-all.csv', writeCsv(wantRows(rows, unit, currency)), 'text/csv')
  }
  return (
    <DataTable
      label="What all projects want"
      rows={rows}
      columns={columns}
      rowId={({ kind, id }) => `${kind} ${id}`}
      rowProps={({ name }) => ({ 'data-want': name })}
      sortedBy="left"
      small
      toolbar={() => (
        <>
          <span className="flex-1 text-[13px] text-soft" aria-live="polite">
            {doing
              ? `Counting ${doing}…`
              : `${counted.length} projects, what is still to be cut and stuck of them: ${bill.toFixed(2)} ${currency} to spend.`}
          </span>
          <AllBought bought={boughtOf(rows)} />
          <Button small disabled={bill === 0} onClick={() => void save()}>
            One shopping list (CSV)
          </Button>
        </>
      )}
    />
  )
}
