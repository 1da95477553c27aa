// What all projects of the shelf want of the drawer: what is spoken for, what runs short, and one shopping list.
import { saveFile } from '../../session/save-file'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Button, DataTable, type DataColumn } from '../../ui'
import { billOf, packsOf, shoppingOf, wantsOf, type Want } from '@feuillet/core/stages/journal'
import { useShelfCounts } from './use-shelf'

export function AllWants() {
  const { drawer } = useAppSelector(selectProject)
  const { stock, supplies } = useAppSelector((state) => state.document)
  const { counted, doing } = useShelfCounts()
  const { currency } = drawer
  const rows = wantsOf(counted, { papers: [...stock, ...drawer.papers], foams: supplies.foams })
  const bill = billOf(rows)
  const columns: DataColumn<Want>[] = [
    { id: 'kind', title: 'what', value: ({ kind }) => kind, cell: ({ kind }) => kind },
    { id: 'name', title: 'name', always: true, value: ({ name }) => name, cell: ({ name }) => name },
    {
      id: 'atHand',
      title: 'at hand',
      numeric: true,
      value: ({ atHand }) => atHand,
      cell: ({ atHand }) => <span className="measure">{atHand}</span>,
    },
    {
      id: 'wanted',
      title: 'spoken for',
      numeric: true,
      value: ({ wanted }) => wanted,
      cell: ({ wanted, by }) => (
        <span className="measure" title={by.map(({ name, count }) => `${name}: ${count}`).join(', ')}>
          {wanted}
        </span>
      ),
    },
    {
      id: 'left',
      title: 'left',
      numeric: true,
      value: ({ atHand, wanted }) => atHand - wanted,
      cell: ({ atHand, wanted }) => (
        <span className={`measure ${atHand < wanted ? 'text-crimson' : ''}`}>
          {atHand < wanted ? `■ ${atHand - wanted}` : atHand - wanted}
        </span>
      ),
    },
    {
      id: 'buy',
      title: 'to buy',
      value: packsOf,
      cell: (row) => {
        const packs = packsOf(row)
        if (packs === 0) return '–'
        return row.perPack === 1 ? `${packs}` : `${packs} ${packs === 1 ? 'pack' : 'packs'} of ${row.perPack}`
      },
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
    const { writeCsv } = await import('@feuillet/core/io/write')
    saveFile(
      'shopping-all.csv',
      writeCsv(
        shoppingOf(rows)
          .flatMap((shop) => shop.wants)
          .map((row) => ({
            shop: row.shop,
            what: row.kind,
            name: row.name,
            'at hand': row.atHand,
            'spoken for': row.wanted,
            buy: packsOf(row),
            unit: row.perPack === 1 ? 'one' : `packs of ${row.perPack}`,
            [`cost ${currency}`]: (packsOf(row) * row.price).toFixed(2),
            by: row.by.map(({ name, count }) => `${name} ${count}`).join('; '),
          })),
      ),
      'text/csv',
    )
  }
  return (
    <DataTable
      label="What all projects want"
      rows={rows}
      columns={columns}
      rowId={({ id }) => id}
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
          <Button small disabled={bill === 0} onClick={() => void save()}>
            One shopping list (CSV)
          </Button>
        </>
      )}
    />
  )
}
