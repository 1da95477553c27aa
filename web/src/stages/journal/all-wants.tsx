// What all projects of the shelf want of the drawer: what is spoken for, what runs short, and one shopping list.
import { saveFile } from '../../session/save-file'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Button, DataTable, type DataColumn } from '../../ui'
import { useShelfCounts } from './use-shelf-counts'

interface Want {
  id: string
  name: string
  kind: 'paper' | 'foam'
  atHand: number
  wanted: number
  perPack: number
  /** Of a pack. */
  price: number
  /** By whom, and how many. */
  by: { name: string; count: number }[]
}

const packsOf = ({ atHand, wanted, perPack }: Want): number =>
  Math.ceil(Math.max(0, wanted - atHand) / perPack)

export function AllWants() {
  const { drawer } = useAppSelector(selectProject)
  const { stock, supplies } = useAppSelector((state) => state.document)
  const { counted, doing } = useShelfCounts()
  const { currency } = drawer
  const wants = new Map<string, Want>()
  const add = (kind: Want['kind'], id: string, { name, count }: { name: string; count: number }) => {
    if (count <= 0) return
    const paper = kind === 'paper' ? [...stock, ...drawer.papers].find((one) => one.id === id) : undefined
    const foam = kind === 'foam' ? supplies.foams.find((one) => one.id === id) : undefined
    if (!paper && !foam) return
    const known = wants.get(`${kind} ${id}`)
    wants.set(`${kind} ${id}`, {
      id: `${kind} ${id}`,
      kind,
      name: (paper ?? foam)!.name,
      atHand: (paper ?? foam)!.count,
      perPack: (paper ?? foam)!.perPack,
      price: paper ? paper.price * paper.perPack : foam!.pricePerPack,
      wanted: (known?.wanted ?? 0) + count,
      by: [...(known?.by ?? []), { name, count }],
    })
  }
  for (const { name, wants: own } of counted) {
    for (const [id, count] of Object.entries(own.sheets)) add('paper', id, { name, count })
    for (const [id, count] of Object.entries(own.pads)) add('foam', id, { name, count })
  }
  const rows = [...wants.values()].toSorted((a, b) => a.atHand / a.wanted - b.atHand / b.wanted)
  const bill = rows.reduce((sum, row) => sum + packsOf(row) * row.price, 0)
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
        rows
          .filter((row) => packsOf(row) > 0)
          .map((row) => ({
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
