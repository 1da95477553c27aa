// Foams, glues and the settings book of the shared drawer, as tables that are edited in place. Every project that is opened plans with them.
import { useMemo, useState } from 'react'
import {
  FOAM_FORMS,
  OUTCOMES,
  starterAdhesives,
  starterFoams,
  withoutSupply,
  type Adhesive,
  type Foam,
  type Setting,
} from '@feuillet/core/project'
import { saveFile } from '../../session/save-file'
import { changeSupplies } from '../../state/edits'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { ACCEPTS, Button, Checkbox, type DataColumn, DataTable, dayOf, FileButton } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { RecordCell, useRecordColumns, type RecordColumn } from './record-cell'
import { TableFaults } from './table-faults'

const MEASURED = 'How thick one is. Measure a stack of ten: “20.5 : 10”'

const FOAM_COLUMNS: readonly RecordColumn<Foam>[] = [
  { key: 'name', title: 'foam', width: 'w-36' },
  { key: 'form', title: 'bought as', options: FOAM_FORMS, width: 'w-24' },
  { key: 'widthMm', title: 'pad wide', length: { min: 2, max: 400 }, width: 'w-13' },
  { key: 'heightMm', title: 'pad high', length: { min: 2, max: 400 }, width: 'w-13' },
  { key: 'thicknessMm', title: 'thick', length: { min: 0.1, max: 30 }, width: 'w-13', tip: MEASURED },
  { key: 'look', title: 'look', options: ['white', 'clear'], width: 'w-16' },
  { key: 'count', title: 'pads left', number: { min: 0, max: 100_000, whole: true }, width: 'w-11' },
  { key: 'perPack', title: 'in a pack', number: { min: 1, max: 100_000, whole: true }, width: 'w-11' },
  { key: 'pricePerPack', price: true, title: 'a pack', number: { min: 0, max: 9999 }, width: 'w-11' },
  { key: 'shop', title: 'shop', width: 'w-14' },
  { key: 'peelS', title: 'to set', unit: 's', number: { min: 0, max: 600 }, width: 'w-9' },
]

const GLUE_COLUMNS: readonly RecordColumn<Adhesive>[] = [
  { key: 'name', title: 'glue', width: 'w-44' },
  { key: 'tackMin', title: 'takes', unit: 'min', number: { min: 0, max: 600 }, width: 'w-10' },
  { key: 'handleMin', title: 'holds', unit: 'min', number: { min: 0, max: 6000 }, width: 'w-10' },
  { key: 'dryMin', title: 'dry', unit: 'min', number: { min: 0, max: 60_000 }, width: 'w-10' },
  { key: 'thicknessMm', title: 'thick', length: { min: 0, max: 5 }, width: 'w-13' },
  {
    key: 'bucklesBelowGsm',
    title: 'buckles under',
    unit: 'gsm',
    weight: true,
    number: { min: 0, max: 1000 },
    width: 'w-11',
  },
  { key: 'holdsKPa', title: 'bears', unit: 'kPa', number: { min: 0, max: 100_000 }, width: 'w-12' },
  { key: 'pricePerPack', price: true, title: 'a bottle', number: { min: 0, max: 9999 }, width: 'w-11' },
  { key: 'packMl', title: 'in it', unit: 'ml', number: { min: 0.1, max: 100_000 }, width: 'w-11' },
  { key: 'surfaces', title: 'sticks to', width: 'w-36' },
  { key: 'caution', title: 'caution', width: 'w-44' },
]

const TICKS: readonly { key: 'slides' | 'driesClear' | 'isTidy'; title: string }[] = [
  { key: 'slides', title: 'slides wet' },
  { key: 'driesClear', title: 'dries clear' },
  { key: 'isTidy', title: 'tidy behind' },
]

export function FoamTable() {
  const dispatch = useAppDispatch()
  const { foams } = useAppSelector((state) => state.document.supplies)
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Foam>[] => {
    const set = (foam: Foam, patch: Partial<Foam>) =>
      dispatch(
        changeSupplies(`${foam.name} in the drawer`, ({ project, supplies }) => ({
          project,
          supplies: {
            ...supplies,
            foams: supplies.foams.map((one) => (one.id === foam.id ? { ...one, ...patch } : one)),
          },
        })),
      )
    return [
      ...columnsOf(FOAM_COLUMNS, set),
      {
        id: 'give',
        title: 'gives',
        unit: '%',
        numeric: true,
        value: (foam) => foam.give,
        cell: (foam) => (
          <RecordCell
            record={{ name: foam.name, give: foam.give * 100 }}
            column={{
              key: 'give',
              title: 'gives',
              number: { min: 0, max: 50 },
              width: 'w-9',
              tip: 'How much thinner it is under a press',
            }}
            onChange={({ give }) => give !== undefined && set(foam, { give: give / 100 })}
          />
        ),
      },
      {
        id: 'mayCut',
        title: 'cut in two',
        value: (foam) => (foam.mayCut ? 'may be cut' : ''),
        cell: (foam) => (
          <Checkbox
            label={`Pads of ${foam.name} may be cut in two`}
            checked={foam.mayCut}
            onChange={(mayCut) => set(foam, { mayCut })}
          />
        ),
      },
      {
        id: 'mayBend',
        title: 'bent',
        value: (foam) => (foam.mayBend ? 'may be bent' : ''),
        cell: (foam) => (
          <Checkbox
            label={`Strips of ${foam.name} may be bent along a curve`}
            checked={foam.mayBend}
            onChange={(mayBend) => set(foam, { mayBend })}
          />
        ),
      },
      binColumn<Foam>((foam) =>
        dispatch(changeSupplies(`bin ${foam.name}`, (held) => withoutSupply(held, foam.id))),
      ),
    ]
  }, [dispatch, columnsOf])
  const add = () => {
    const fresh: Foam = {
      ...starterFoams[2]!,
      id: crypto.randomUUID(),
      name: freeName(foams, 'New foam'),
      count: 0,
    }
    dispatch(
      changeSupplies('a new foam', ({ project, supplies }) => ({
        project,
        supplies: { ...supplies, foams: [...supplies.foams, fresh] },
      })),
    )
  }
  return (
    <DataTable
      label="Foams of the drawer"
      rows={foams}
      columns={columns}
      rowId={({ id }) => id}
      rowProps={({ name }) => ({ 'data-foam': name })}
      sortedBy="name"
      small
      toolbar={(shown) => (
        <>
          <span className="flex-1 text-[13px] text-soft">
            {shown} {shown === 1 ? 'foam' : 'foams'}. Pads are taken as their step is ticked, and given back
            with the tick.
          </span>
          <Button small onClick={add}>
            New foam
          </Button>
        </>
      )}
    />
  )
}

export function GlueTable() {
  const dispatch = useAppDispatch()
  const { adhesives } = useAppSelector((state) => state.document.supplies)
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Adhesive>[] => {
    const set = (glue: Adhesive, patch: Partial<Adhesive>) =>
      dispatch(
        changeSupplies(`${glue.name} in the drawer`, ({ project, supplies }) => ({
          project,
          supplies: {
            ...supplies,
            adhesives: supplies.adhesives.map((one) => (one.id === glue.id ? { ...one, ...patch } : one)),
          },
        })),
      )
    return [
      ...columnsOf(GLUE_COLUMNS, set),
      ...TICKS.map(({ key, title }): DataColumn<Adhesive> => ({
        id: key,
        title,
        value: (glue) => (glue[key] ? title : ''),
        cell: (glue) => (
          <Checkbox
            label={`${glue.name}: ${title}`}
            checked={glue[key]}
            onChange={(value) => set(glue, { [key]: value })}
          />
        ),
      })),
      binColumn<Adhesive>((glue) =>
        dispatch(changeSupplies(`bin ${glue.name}`, (held) => withoutSupply(held, glue.id))),
      ),
    ]
  }, [dispatch, columnsOf])
  const add = () => {
    const fresh: Adhesive = {
      ...starterAdhesives[0]!,
      id: crypto.randomUUID(),
      name: freeName(adhesives, 'New glue'),
      caution: '',
    }
    dispatch(
      changeSupplies('a new glue', ({ project, supplies }) => ({
        project,
        supplies: { ...supplies, adhesives: [...supplies.adhesives, fresh] },
      })),
    )
  }
  return (
    <DataTable
      label="Glues of the drawer"
      rows={adhesives}
      columns={columns}
      rowId={({ id }) => id}
      rowProps={({ name }) => ({ 'data-glue': name })}
      sortedBy="name"
      small
      toolbar={(shown) => (
        <>
          <span className="flex-1 text-[13px] text-soft">
            {shown} {shown === 1 ? 'glue' : 'glues'}: middle values of their kinds to start from. The label
            goes before them.
          </span>
          <Button small onClick={add}>
            New glue
          </Button>
        </>
      )}
    />
  )
}

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
  const dispatch = useAppDispatch()
  const { settings } = useAppSelector((state) => state.document.supplies)
  const columnsOf = useRecordColumns()
  const [wrong, setWrong] = useState<string[]>([])
  const rows = useMemo(() => settings.map((one) => ({ ...one, name: one.paper })), [settings])
  const put = (label: string, next: readonly Setting[]) =>
    dispatch(
      changeSupplies(label, ({ project, supplies }) => ({
        project,
        supplies: { ...supplies, settings: next },
      })),
    )
  const columns = useMemo((): DataColumn<Setting & { name: string }>[] => {
    const edit = (label: string, change: (list: readonly Setting[]) => readonly Setting[]) =>
      dispatch(
        changeSupplies(label, ({ project, supplies }) => ({
          project,
          supplies: { ...supplies, settings: change(supplies.settings) },
        })),
      )
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
      ...columnsOf(SETTING_COLUMNS, (one, patch) =>
        edit(`a setting of ${one.paper}`, (list) =>
          list.map((entry) => (entry.id === one.id ? { ...entry, ...patch } : entry)),
        ),
      ),
      binColumn((one) =>
        edit(`bin a setting of ${one.paper}`, (list) => list.filter(({ id }) => id !== one.id)),
      ),
    ]
  }, [dispatch, columnsOf])
  const bring = async (chosen: File | undefined) => {
    if (!chosen) return
    const [{ settingsFromCsv }, { decodeTable }] = await Promise.all([
      import('@feuillet/core/io/exports'),
      import('@feuillet/core/io/read'),
    ])
    const read = settingsFromCsv(decodeTable(new Uint8Array(await chosen.arrayBuffer())), settings, () =>
      crypto.randomUUID(),
    )
    setWrong(read.wrong)
    if (read.settings.length > settings.length) put(`settings of ${chosen.name}`, read.settings)
  }
  const save = async () => {
    const { settingsToCsv } = await import('@feuillet/core/io/exports')
    saveFile('settings.csv', settingsToCsv(settings), 'text/csv')
  }
  return (
    <>
      <TableFaults wrong={wrong} />
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
            <span className="flex-1 text-[13px] text-soft">
              {shown === 0
                ? 'Nothing yet: say on a load how it came out, and the next one goes on from there.'
                : `${shown} ${shown === 1 ? 'entry' : 'entries'}; the last of a paper, cutter and kind of cut is what the next load goes on from.`}
            </span>
            <FileButton
              small
              label="Table of settings"
              accept={ACCEPTS.table}
              onFiles={([table]) => void bring(table)}
            >
              Bring in CSV
            </FileButton>
            <Button small disabled={settings.length === 0} onClick={() => void save()}>
              Save as CSV
            </Button>
          </>
        )}
      />
    </>
  )
}
