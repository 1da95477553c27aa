// The settings book: what worked on which paper, and what did not.
import { useMemo } from 'react'
import { OUTCOMES, type Setting } from '@feuillet/core/project'
import { type DataColumn, DataTable, dayOf } from '../../ui'
import { binColumn } from './bin-column'
import { useRecordColumns, type RecordColumn } from './record-cell'
import { useCsv } from './use-csv'
import { useSupply } from './use-supply'

const SETTING_COLUMNS: readonly RecordColumn<Setting & { name: string }>[] = [
  { key: 'depthMm', title: 'blade out', length: { min: 0.01, max: 10 }, width: 'w-13' },
  { key: 'forceG', title: 'force', unit: 'g', number: { min: 1, max: 10_000 }, width: 'w-11' },
  { key: 'speedMmPerS', title: 'speed', kept: 'mm/s', number: { min: 0.1, max: 5000 }, width: 'w-11' },
  { key: 'passes', title: 'passes', number: { min: 1, max: 20, whole: true }, width: 'w-8' },
  { key: 'tack', title: 'tack', options: ['low', 'medium', 'high'], width: 'w-20' },
  { key: 'outcome', title: 'came out', options: OUTCOMES, width: 'w-28' },
  { key: 'note', title: 'note', width: 'w-32' },
]

/** The settings book: what worked on which paper, and what did not. */
export function SettingsTable() {
  const { list: settings, edit, set } = useSupply('settings')
  const columnsOf = useRecordColumns()
  const rows = useMemo(() => settings.map((one) => ({ ...one, name: one.paper })), [settings])
  const columns = useMemo((): DataColumn<Setting & { name: string }>[] => {
    return [
      { id: 'paper', title: 'paper', always: true, value: (one) => one.paper, cell: (one) => <span className="whitespace-nowrap">{one.paper}, {one.finish} {one.gsm} gsm</span> }, // prettier-ignore
      { id: 'cutter', title: 'cutter', value: (one) => one.cutter, cell: (one) => one.cutter },
      { id: 'intricacy', title: 'cut', value: (one) => one.intricacy, cell: (one) => one.intricacy },
      {
        id: 'at',
        title: 'when',
        value: (one) => one.at,
        cell: (one) => dayOf(one.at),
      },
      ...columnsOf(SETTING_COLUMNS, ({ id, paper }, patch) => set(id, `a setting of ${paper}`, patch)),
      binColumn((one) =>
        edit(`bin a setting of ${one.paper}`, (list) => list.filter(({ id }) => id !== one.id)),
      ),
    ]
  }, [edit, set, columnsOf])
  const csv = useCsv({
    what: 'settings',
    file: 'settings',
    isEmpty: settings.length === 0,
    write: (forms) => forms.settingsToCsv(settings),
    read: (forms, { text, name }) => {
      const read = forms.settingsFromCsv(text, settings, () => crypto.randomUUID())
      const isNew = read.settings.length > settings.length
      if (isNew) edit(`settings of ${name}`, () => read.settings)
      return { isNew, wrong: read.wrong }
    },
  })
  return (
    <>
      {csv.faults}
      <DataTable
        label="Settings book"
        rows={rows}
        columns={columns}
        rowId={({ id }) => id}
        rowProps={({ paper }) => ({ 'data-setting': paper })}
        sortedBy="at"
        small
        toolbar={(shown) => (
          <>
            <span className="min-w-36 flex-1 text-[13px] text-soft">
              {shown === 0
                ? 'Nothing yet: say on a load how it came out, and the next one goes on from there.'
                : `${shown} ${shown === 1 ? 'entry' : 'entries'}; the last of a paper, cutter and kind of cut is what the next load goes on from.`}
            </span>
            {csv.buttons}
          </>
        )}
      />
    </>
  )
}
