// The whole drawer as a table: sorted by a press on a column, searched, edited in place, in and out as CSV.
import { Fragment, useRef, useState } from 'react'
import { toast } from 'sonner'
import { pathToRegion, polygonToPath, regionBox } from '@feuillet/core/base/geometry'
import { newPaper } from '@feuillet/core/stages/paper'
import { FINISHES, refreshPapers, type Finish, type Paper } from '@feuillet/core/project'
import { lengthForEditing, parseLength } from '@feuillet/core/base/units'
import { changeStock } from '../../state/edits'
import { saveFile } from '../../session/save-file'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button } from '../../ui'

type Key =
  | 'name'
  | 'finish'
  | 'gsm'
  | 'thicknessMm'
  | 'core'
  | 'widthMm'
  | 'heightMm'
  | 'count'
  | 'price'
  | 'perPack'
  | 'note'

interface Column {
  key: Key
  title: string
  unit?: string
  number?: { min: number; max: number; whole?: boolean }
  /** In the maker's unit. */
  length?: true
  options?: readonly string[]
  width: string
}

const COLUMNS: readonly Column[] = [
  { key: 'name', title: 'paper', width: 'w-26' },
  { key: 'count', title: 'sheets', number: { min: 0, max: 9999, whole: true }, width: 'w-9' },
  { key: 'finish', title: 'finish', options: FINISHES, width: 'w-19' },
  { key: 'gsm', title: 'weight', unit: 'gsm', number: { min: 20, max: 2000 }, width: 'w-9' },
  { key: 'thicknessMm', title: 'thick', unit: 'mm', number: { min: 0.03, max: 5 }, width: 'w-10' },
  { key: 'widthMm', title: 'wide', length: true, width: 'w-13' },
  { key: 'heightMm', title: 'high', length: true, width: 'w-13' },
  { key: 'price', title: 'price', number: { min: 0, max: 999 }, width: 'w-10' },
  { key: 'perPack', title: 'in a pack', number: { min: 1, max: 999, whole: true }, width: 'w-8' },
  { key: 'core', title: 'core', options: ['solid', 'white'], width: 'w-14' },
  { key: 'note', title: 'note', width: 'w-12' },
]

export function DrawerTable() {
  const dispatch = useAppDispatch()
  const { stock } = useAppSelector((state) => state.document)
  const unit = useAppSelector(selectUnit)
  const { drawer } = useAppSelector(selectProject)
  const [sort, setSort] = useState<{ key: Key; down: boolean }>({ key: 'name', down: false })
  const [text, setText] = useState('')
  const [wrong, setWrong] = useState<string[]>([])
  const file = useRef<HTMLInputElement>(null)
  const shown = stock
    .filter((paper) =>
      `${paper.name} ${paper.finish} ${paper.note}`.toLowerCase().includes(text.toLowerCase()),
    )
    .toSorted((a, b) => {
      const [x, y] = [a[sort.key], b[sort.key]]
      const order =
        typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y))
      return sort.down ? -order : order
    })
  const unitOf = (column: Column) =>
    column.key === 'price' ? drawer.currency : column.length ? unit : column.unit
  const set = (paper: Paper, patch: Partial<Paper>) =>
    dispatch(
      changeStock(
        `${paper.name} in the drawer`,
        (papers) => papers.map((p) => (p.id === paper.id ? { ...p, ...patch } : p)),
        refreshPapers,
      ),
    )
  const save = async () => {
    const { papersToCsv } = await import('@feuillet/core/io/exports')
    saveFile('drawer.csv', papersToCsv(stock), 'text/csv')
  }
  const bring = async (chosen: File | undefined) => {
    if (!chosen) return
    const { papersFromCsv } = await import('@feuillet/core/io/exports')
    const read = papersFromCsv(await chosen.text(), stock)
    setWrong(read.wrong)
    if (read.papers.some((paper, i) => paper !== stock[i]))
      dispatch(changeStock(`papers of ${chosen.name}`, () => read.papers, refreshPapers))
  }
  const add = () => {
    let n = 1
    while (stock.some((p) => p.name === `New paper ${n}`)) n++
    const fresh = newPaper(`New paper ${n}`, stock)
    dispatch(
      changeStock(
        'a new paper',
        (papers) => [...papers, fresh],
        (p) => p,
      ),
    )
    setText(fresh.name)
  }
  return (
    <section aria-label="Drawer as a table" className="flex min-h-0 flex-1 flex-col px-4 py-2">
      <header className="mb-2 flex items-center gap-2">
        <input
          aria-label="Search the table"
          placeholder="name, finish, note"
          className="w-40"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <span className="flex-1 text-[13px] text-soft">
          {shown.length} of {stock.length} papers
        </span>
        <Button small onClick={add}>
          New paper
        </Button>
        <Button small onClick={() => file.current?.click()}>
          Bring in CSV
        </Button>
        <Button small onClick={() => void save().catch((error: unknown) => toast.error(String(error)))}>
          Save as CSV
        </Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          aria-label="Table of papers"
          className="hidden"
          onChange={(event) => void bring(event.target.files?.[0])}
        />
      </header>
      {wrong.length > 0 && (
        <div
          role="alert"
          className="mb-2 max-h-24 overflow-y-auto border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13px]"
        >
          {wrong.map((sentence) => (
            <p key={sentence}>▲ {sentence}</p>
          ))}
        </div>
      )}
      <div className="min-h-0 flex-1 overflow-auto bg-panel">
        <table className="w-full text-[12.5px]">
          <thead className="sticky top-0 z-10 bg-panel text-left text-soft">
            <tr className="border-b border-line">
              <th className="w-8" />
              {COLUMNS.map((column, i) => (
                <Fragment key={column.key}>
                  <th
                    className="px-0.5 font-normal"
                    aria-sort={sort.key === column.key ? (sort.down ? 'descending' : 'ascending') : 'none'}
                  >
                    <button
                      type="button"
                      className={`py-1 align-bottom leading-tight hover:text-ink ${column.number || column.length ? 'w-full text-right' : ''} ${sort.key === column.key ? 'font-semibold text-ink' : ''}`}
                      onClick={() =>
                        setSort({ key: column.key, down: sort.key === column.key && !sort.down })
                      }
                    >
                      {column.title}
                      {unitOf(column) && <span className="block">{unitOf(column)}</span>}
                      {sort.key === column.key && (sort.down ? ' ▾' : ' ▴')}
                    </button>
                  </th>
                  {i === 1 && <th className="px-1 font-normal">off-cuts</th>}
                  {column.key === 'core' && (
                    <th className="px-0.5 text-center leading-tight font-normal">
                      one
                      <span className="block">way</span>
                    </th>
                  )}
                </Fragment>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((paper) => (
              <tr key={paper.id} className="border-b border-line" data-paper={paper.name}>
                <td className="px-1">
                  <input
                    type="color"
                    aria-label={`Colour of ${paper.name}`}
                    className="h-6 w-7 p-0"
                    value={paper.colour}
                    onChange={(event) => set(paper, { colour: event.target.value })}
                  />
                </td>
                {COLUMNS.map((column, i) => (
                  <Fragment key={column.key}>
                    <td className="px-0.5">
                      <Cell paper={paper} column={column} onChange={(patch) => set(paper, patch)} />
                    </td>
                    {i === 1 && (
                      <td className="px-1">
                        <span className="flex items-center gap-1">
                          {paper.offCuts.map((offCut) => (
                            <OffCutPicture
                              key={offCut.id}
                              paper={paper}
                              label={offCut.label}
                              path={offCut.path}
                              onBin={() =>
                                set(paper, { offCuts: paper.offCuts.filter((o) => o.id !== offCut.id) })
                              }
                            />
                          ))}
                        </span>
                      </td>
                    )}
                    {column.key === 'core' && (
                      <td className="px-1 text-center">
                        <input
                          type="checkbox"
                          aria-label={`One-way pattern of ${paper.name}`}
                          checked={paper.oneWay}
                          onChange={(event) => set(paper, { oneWay: event.target.checked })}
                        />
                      </td>
                    )}
                  </Fragment>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

function Cell({
  paper,
  column,
  onChange,
}: {
  paper: Paper
  column: Column
  onChange: (patch: Partial<Paper>) => void
}) {
  const unit = useAppSelector(selectUnit)
  const { key, number, length, options, width } = column
  const kept = paper[key]
  const shown = length
    ? lengthForEditing(Number(kept), unit)
    : typeof kept === 'number'
      ? String(Math.round(kept * 100) / 100)
      : kept
  const label = `${column.title} of ${paper.name}`
  if (options)
    return (
      <select
        aria-label={label}
        className={`${width} border-transparent! bg-transparent! px-0.5! py-0.5! hover:border-line!`}
        value={shown}
        onChange={(event) => onChange({ [key]: event.target.value as Finish })}
      >
        {options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </select>
    )
  const commit = (input: HTMLInputElement) => {
    const text = input.value.trim()
    if (text === shown) return
    const value = length ? parseLength(text, unit) : Number(text.replace(',', '.'))
    if (length) {
      if (typeof value === 'number' && value >= 20 && value <= 2000) onChange({ [key]: value })
      else {
        toast.error(`${label}: a length from 20 to 2000 mm, such as 8 1/2 in or 210 mm.`)
        input.value = shown
      }
      return
    }
    const bad = number
      ? !(
          value !== null &&
          value >= number.min &&
          value <= number.max &&
          (!number.whole || Number.isInteger(value))
        )
      : key === 'name' && text === ''
    if (bad) {
      toast.error(
        number
          ? `${label}: a number from ${number.min} to ${number.max}${number.whole ? ', no fraction' : ''}.`
          : 'A paper needs a name.',
      )
      input.value = shown
    } else onChange({ [key]: number ? value : text })
  }
  return (
    <input
      key={shown}
      aria-label={label}
      className={`${width} border-transparent! bg-transparent! px-0.5! py-0.5! hover:border-line! focus:border-plum! ${number || length ? 'measure text-right' : ''}`}
      defaultValue={shown}
      onBlur={(event) => commit(event.currentTarget)}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
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
    <button
      type="button"
      title={`${label}. Press to bin it.`}
      aria-label={`Bin the off-cut ${label}`}
      onClick={onBin}
    >
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
  )
}
