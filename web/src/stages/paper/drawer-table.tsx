// The whole drawer as a table: sorted by a press on a column, searched, edited in place, in and out as CSV.
import { useMemo, useState } from 'react'
import { pathToRegion, polygonToPath, regionBox } from '@feuillet/core/base/geometry'
import { changedPaper, newPaper } from '@feuillet/core/stages/paper'
import { FINISHES, refreshPapers, type Paper } from '@feuillet/core/project'
import { changeStock } from '../../state/edits'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Checkbox, ColourInput, DataTable, Tip, type DataColumn } from '../../ui'
import { freeName } from './free-name'
import { useRecordColumns, type RecordColumn } from './record-cell'
import { useCsv } from './use-csv'

const COLUMNS: readonly RecordColumn<Paper>[] = [
  { key: 'name', title: 'paper', width: 'w-27' },
  { key: 'count', title: 'sheets', number: { min: 0, max: 9999, whole: true }, width: 'w-9' },
  { key: 'finish', title: 'finish', options: FINISHES, width: 'w-21' },
  {
    key: 'gsm',
    title: 'weight',
    unit: 'gsm',
    weight: true,
    number: { min: 20, max: 2000 },
    width: 'w-9',
    tip: 'By the pound too: 80 lb, 50 lb text',
  },
  {
    key: 'thicknessMm',
    title: 'thick',
    length: { min: 0.03, max: 5 },
    width: 'w-12',
    tip: 'How thick a sheet is. Measure a stack of ten: “2.9 : 10”',
  },
  { key: 'widthMm', title: 'wide', length: { min: 20, max: 2000 }, width: 'w-17.5' },
  { key: 'heightMm', title: 'high', length: { min: 20, max: 2000 }, width: 'w-17.5' },
  { key: 'price', price: true, title: 'price', number: { min: 0, max: 999 }, width: 'w-10' },
  { key: 'perPack', title: 'in a pack', number: { min: 1, max: 999, whole: true }, width: 'w-8' },
  { key: 'core', title: 'core', options: ['solid', 'white'], width: 'w-14' },
  { key: 'shop', title: 'shop', width: 'w-12' },
  { key: 'note', title: 'note', width: 'w-12' },
]

export function DrawerTable() {
  const dispatch = useAppDispatch()
  const { stock } = useAppSelector((state) => state.document)
  const columnsOf = useRecordColumns()
  const [text, setText] = useState('')
  const csv = useCsv({
    what: 'papers',
    file: 'drawer',
    isEmpty: stock.length === 0,
    write: (forms) => forms.papersToCsv(stock),
    read: (forms, { text, name }) => {
      const { papers, wrong } = forms.papersFromCsv(text, stock)
      const isNew = papers !== stock
      if (isNew) dispatch(changeStock(`papers of ${name}`, () => papers, { refresh: refreshPapers }))
      return { isNew, wrong }
    },
  })
  const add = () => {
    const fresh = newPaper(freeName(stock, 'New paper'), stock)
    dispatch(changeStock('a new paper', (papers) => [...papers, fresh], { refresh: (p) => p }))
    setText(fresh.name)
  }
  // Built once: a table of a thousand papers draws anew only the rows that changed.
  const columns = useMemo((): DataColumn<Paper>[] => {
    const set = (paper: Paper, patch: Partial<Paper>, gesture?: string) =>
      dispatch(
        changeStock(
          `${paper.name} in the drawer`,
          (papers) => papers.map((p) => (p.id === paper.id ? changedPaper(p, patch) : p)),
          { refresh: refreshPapers, gesture },
        ),
      )
    return [
      {
        id: 'colour',
        title: 'colour',
        always: true,
        cell: (paper) => (
          <ColourInput
            label={`Colour of ${paper.name}`}
            className="h-6 w-7"
            value={paper.colour}
            onChange={(colour) => set(paper, { colour }, `colour ${paper.id}`)}
          />
        ),
      },
      ...columnsOf(COLUMNS, set),
      {
        id: 'oneWay',
        title: 'one way',
        value: (paper) => (paper.oneWay ? 'one way' : ''),
        cell: (paper) => (
          <Checkbox
            label={`One-way pattern of ${paper.name}`}
            checked={paper.oneWay}
            onChange={(oneWay) => set(paper, { oneWay })}
          />
        ),
      },
      {
        id: 'offCuts',
        title: 'off-cuts',
        cell: (paper) => (
          <span className="flex items-center gap-1">
            {paper.offCuts.map((offCut) => (
              <OffCutPicture
                key={offCut.id}
                paper={paper}
                label={offCut.label}
                path={offCut.path}
                onBin={() => set(paper, { offCuts: paper.offCuts.filter((o) => o.id !== offCut.id) })}
              />
            ))}
          </span>
        ),
      },
    ]
  }, [dispatch, columnsOf])
  return (
    <section aria-label="Drawer as a table" className="flex min-h-0 flex-1 flex-col px-4 py-2">
      {csv.faults}
      <DataTable
        label="Papers of the drawer"
        rows={stock}
        columns={columns}
        rowId={(paper) => paper.id}
        rowProps={(paper) => ({ 'data-paper': paper.name })}
        sortedBy="name"
        filter={text}
        small
        toolbar={(shown) => (
          <>
            <input
              aria-label="Search the table"
              placeholder="name, finish, note"
              className="w-40"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            <span className="min-w-36 flex-1 text-[13px] text-soft">
              {shown} of {stock.length} papers
            </span>
            <Button small onClick={add}>
              New paper
            </Button>
            {csv.buttons}
          </>
        )}
      />
    </section>
  )
}

/** An off-cut in its outline; a press puts it in the bin, undo brings it back. */
function OffCutPicture({
  paper,
  label,
  path,
  onBin,
}: {
  paper: Paper
  label: string
  path: string
  onBin: () => void
}) {
  const region = pathToRegion(path)
  const b = regionBox(region)
  const long = Math.max(b.maxX, b.maxY, 1)
  return (
    <Tip text={`${label}. Press to bin it.`}>
      <button type="button" aria-label={`Bin the off-cut ${label}`} onClick={onBin}>
        <svg width={26} height={26} viewBox={`-4 -4 ${long + 8} ${long + 8}`} aria-hidden>
          <path
            d={region.map(polygonToPath).join('')}
            fillRule="evenodd"
            fill={paper.colour}
            stroke="#1e2126"
            strokeWidth={long / 30}
          />
        </svg>
      </button>
    </Tip>
  )
}
