// Columns of a table of the drawer whose cells are edited in place: a name, a number, a length in the maker's unit, one of a few words.
import { useCallback } from 'react'
import { toast } from 'sonner'
import {
  formatLength,
  formatMm,
  lengthForEditing,
  digitsOf,
  parseLength,
  parseWeight,
  shownAs,
  type Kept,
  type Unit,
} from '@feuillet/core/base/units'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Select, Tip, type DataColumn } from '../../ui'

export interface RecordColumn<T> {
  key: keyof T & string
  title: string
  unit?: string
  number?: { min: number; max: number; whole?: boolean }
  /** In the maker's unit; bounds in mm. */
  length?: { min: number; max: number }
  /** In the currency. */
  price?: boolean
  /** Kept so, bounds too, and shown in the maker's unit. */
  kept?: Kept
  /** Of card, in gsm: pounds are read too. */
  weight?: boolean
  /** Left out of the table until the maker asks for it. */
  seldom?: boolean
  options?: readonly string[]
  /** What stands where nothing is said; kept as null. */
  blank?: string
  width: string
  /** Said at the field. */
  tip?: string
}

/** Makes columns of a table whose cells are edited in place, in the maker's unit and currency. */
export function useRecordColumns() {
  const unit = useAppSelector(selectUnit)
  const { currency } = useAppSelector(selectProject).drawer
  return useCallback(
    <T extends { name: string }>(
      columns: readonly RecordColumn<T>[],
      onChange: (record: T, patch: Partial<T>) => void,
    ): DataColumn<T>[] =>
      columns.map((column) => ({
        id: column.key,
        title: column.title,
        unit: unitOf(column, { unit, currency }),
        numeric: Boolean(column.number ?? column.length),
        always: column.key === 'name',
        seldom: column.seldom ?? false,
        value: (record) => (record[column.key] as string | number | null) ?? '',
        cell: (record) => (
          <RecordCell record={record} column={column} onChange={(patch) => onChange(record, patch)} />
        ),
      })),
    [unit, currency],
  )
}

/** What stands under the title of a column. */
function unitOf<T>(
  column: RecordColumn<T>,
  { unit, currency }: { unit: Unit; currency: string },
): string | undefined {
  if (column.price) return currency
  if (column.length) return unit
  return column.kept ? shownAs(column.kept, unit).unit : column.unit
}

export function RecordCell<T extends { name: string }>({
  record,
  column,
  onChange,
}: {
  record: T
  column: RecordColumn<T>
  onChange: (patch: Partial<T>) => void
}) {
  const unit = useAppSelector(selectUnit)
  const { key, number, length, options, width, title, tip } = column
  const one = column.kept ? shownAs(column.kept, unit).one : 1
  const kept = record[key]
  // The unit stands at the head of the column.
  const shown =
    kept === null
      ? ''
      : length
        ? lengthForEditing(Number(kept), unit).replace(/ in$/, '')
        : typeof kept === 'number'
          ? formatMm(kept * one, column.kept ? digitsOf(kept * one) : 2)
          : String(kept)
  const label = `${title} of ${record.name}`
  const set = (value: unknown) => onChange({ [key]: value } as Partial<T>)
  if (options)
    return (
      <Select
        label={label}
        className={width}
        quiet
        value={shown}
        options={options.map((option) => ({ value: option, label: option }))}
        onChange={set}
      />
    )
  const commit = (input: HTMLInputElement) => {
    const text = input.value.trim()
    if (text === shown) return
    const wrong = (sentence: string) => {
      toast.error(`${label}: ${sentence}`)
      input.value = shown
    }
    if (column.blank && text === '') return set(null)
    if (length) {
      const value = parseLength(text, unit)
      const { min, max } = length
      if (value !== null && value >= min && value <= max) set(value)
      else wrong(`a length from ${formatLength(min, unit)} to ${formatLength(max, unit)}.`)
      return
    }
    if (!number) {
      if (key === 'name' && text === '') wrong('a name is wanted.')
      else set(text)
      return
    }
    const value = column.weight ? (parseWeight(text) ?? NaN) : Number(text.replace(',', '.'))
    const [min, max] = [number.min, number.max].map((bound) => Number(formatMm(bound * one, 3))) as [
      number,
      number,
    ]
    if (text !== '' && value >= min && value <= max && (!number.whole || Number.isInteger(value)))
      set(value / one)
    else wrong(`a number from ${min} to ${max}${number.whole ? ', no fraction' : ''}.`)
  }
  const field = (
    <input
      key={shown}
      aria-label={label}
      className={`${width} border-transparent! bg-transparent! px-0.5! py-0.5! hover:border-line! focus:border-plum! ${number || length ? 'measure text-right' : ''}`}
      defaultValue={shown}
      placeholder={column.blank}
      onBlur={(event) => commit(event.currentTarget)}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
  )
  return tip ? <Tip text={tip}>{field}</Tip> : field
}
