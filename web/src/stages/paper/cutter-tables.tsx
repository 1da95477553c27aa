// What cuts, with its mats, as tables that are edited in place; shared by all projects as foams and glues are.
import { useMemo } from 'react'
import { Trash2 } from 'lucide-react'
import {
  changeCutter,
  starterCutters,
  TACKS,
  wearOf,
  withoutCutter,
  type Cutter,
  type Mat,
} from '@feuillet/core/project'
import { changeSupplies } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, DataTable, Tip, type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { useRecordColumns, type RecordColumn } from './record-cell'

const CUTTER_COLUMNS: readonly RecordColumn<Cutter>[] = [
  { key: 'name', title: 'cuts with', width: 'w-31' },
  { key: 'tool', title: 'tool', options: ['machine', 'knife'], width: 'w-18' },
  { key: 'bedWidthMm', title: 'bed wide', length: { min: 20, max: 3000 }, width: 'w-17.5' },
  { key: 'bedHeightMm', title: 'bed high', length: { min: 20, max: 3000 }, width: 'w-17.5' },
  { key: 'rimMm', title: 'rim', length: { min: 0, max: 60 }, width: 'w-9' },
  { key: 'speedMmPerS', title: 'speed', kept: 'mm/s', number: { min: 0.1, max: 5000 }, width: 'w-11' },
  { key: 'cornerS', title: 'a point', unit: 's', number: { min: 0, max: 60 }, width: 'w-10', seldom: true },
  { key: 'liftS', title: 'a lift', unit: 's', number: { min: 0, max: 60 }, width: 'w-10', seldom: true },
  { key: 'loadMin', title: 'to load', unit: 'min', number: { min: 0, max: 60 }, width: 'w-10' },
  {
    key: 'bladePrice',
    title: 'blade',
    price: true,
    number: { min: 0, max: 9999 },
    width: 'w-10',
    tip: 'What a new blade costs',
  },
  {
    key: 'bladeM',
    title: 'cuts',
    kept: 'm',
    number: { min: 5, max: 100_000 },
    width: 'w-10',
    tip: 'How far a blade cuts before it is dull: an estimate to correct',
  },
  {
    key: 'hourCost',
    title: 'hour',
    price: true,
    number: { min: 0, max: 9999 },
    width: 'w-10',
    tip: 'What an hour of it costs: power, wear, what it was bought for',
  },
  {
    key: 'overcutMm',
    title: 'cuts past the start',
    length: { min: 0, max: 5 },
    width: 'w-11',
    seldom: true,
    tip: 'How far the blade goes on past the start of a closed cut, so that the last fibre is cut too',
  },
  {
    key: 'accelMmPerS2',
    title: 'gathers speed',
    kept: 'mm/s²',
    number: { min: 1, max: 100_000 },
    width: 'w-12',
    seldom: true,
  },
  {
    key: 'travelMmPerS',
    title: 'speed lifted',
    kept: 'mm/s',
    number: { min: 0.1, max: 5000 },
    width: 'w-11',
    seldom: true,
  },
]

const MAT_COLUMNS: readonly RecordColumn<Mat>[] = [
  { key: 'name', title: 'mat', width: 'w-40' },
  { key: 'tack', title: 'tack', options: TACKS, width: 'w-19' },
  { key: 'widthMm', title: 'wide', length: { min: 20, max: 3000 }, width: 'w-15' },
  { key: 'heightMm', title: 'high', length: { min: 20, max: 3000 }, width: 'w-15' },
  {
    key: 'loads',
    title: 'loads so far',
    number: { min: 0, max: 100_000, whole: true },
    width: 'w-9',
    tip: 'Loads cut on it since it was new or washed; 0 when you wash it',
  },
  {
    key: 'lasts',
    title: 'lasts',
    unit: 'loads',
    number: { min: 1, max: 100_000, whole: true },
    width: 'w-9',
    tip: 'After so many loads it no longer holds: an estimate to correct',
  },
  {
    key: 'price',
    title: 'price',
    price: true,
    number: { min: 0, max: 9999 },
    width: 'w-11',
    tip: 'What a new mat costs: each load takes its share',
  },
]

const WEAR = { good: 'holds well', worn: '▲ worn', done: '■ wash it' } as const

/** The cutters, the knife among them; the one that this project is cut with, and its mats. */
export function CutterTables() {
  const dispatch = useAppDispatch()
  const { cutters } = useAppSelector((state) => state.document.supplies)
  const { cutter: used } = useAppSelector(selectProject).drawer
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Cutter>[] => {
    const set = (cutter: Cutter, patch: Partial<Cutter>) =>
      dispatch(
        changeSupplies(`${cutter.name} in the drawer`, (held) =>
          changeCutter(held, cutter.id, (one) => ({ ...one, ...patch })),
        ),
      )
    return [
      ...columnsOf(CUTTER_COLUMNS, set),
      {
        id: 'bin',
        title: 'bin',
        always: true,
        cell: (cutter) => (
          <Tip text={`Takes ${cutter.name} out of the drawer; undo brings it back`}>
            <button
              type="button"
              aria-label={`Bin ${cutter.name}`}
              className="p-1 disabled:opacity-40"
              disabled={cutters.length === 1}
              onClick={() =>
                dispatch(
                  changeSupplies(`bin ${cutter.name}`, ({ project, supplies }) => ({
                    project: withoutCutter(project, cutter.id),
                    supplies: {
                      ...supplies,
                      cutters: supplies.cutters.filter(({ id }) => id !== cutter.id),
                    },
                  })),
                )
              }
            >
              <Trash2 size={15} aria-hidden />
            </button>
          </Tip>
        ),
      },
    ]
  }, [dispatch, columnsOf, cutters.length])
  const add = () =>
    dispatch(
      changeSupplies('a new cutter', ({ project, supplies }) => ({
        project,
        supplies: {
          ...supplies,
          cutters: [
            ...supplies.cutters,
            {
              ...starterCutters[0]!,
              id: crypto.randomUUID(),
              name: `New cutter ${supplies.cutters.length + 1}`,
              mats: [],
            },
          ],
        },
      })),
    )
  const own = cutters.find(({ id }) => id === used.id)
  return (
    <>
      <DataTable
        label="Cutters of the drawer"
        rows={cutters}
        columns={columns}
        rowId={({ id }) => id}
        rowProps={({ name }) => ({ 'data-cutter': name })}
        sortedBy="name"
        small
        toolbar={() => (
          <>
            <span className="flex-1 text-[13px] text-soft">
              This project is cut with {used.name}: chosen under Sheets. Starting values of ours; the
              machine&apos;s own book goes before them.
            </span>
            <Button small onClick={add}>
              New cutter
            </Button>
          </>
        )}
      />
      {own && own.tool === 'machine' && <MatTable key={own.id} cutter={own} />}
    </>
  )
}

/** The mats of one cutter, and how worn they are. */
function MatTable({ cutter }: { cutter: Cutter }) {
  const dispatch = useAppDispatch()
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Mat>[] => {
    const edit = (label: string, change: (mats: Mat[]) => Mat[]) =>
      dispatch(
        changeSupplies(label, (held) =>
          changeCutter(held, cutter.id, (one) => ({ ...one, mats: change(one.mats) })),
        ),
      )
    return [
      ...columnsOf(MAT_COLUMNS, (mat, patch) =>
        edit(`mat ${mat.name}`, (list) =>
          list.map((one) => (one.id === mat.id ? { ...one, ...patch } : one)),
        ),
      ),
      {
        id: 'wear',
        title: 'holds',
        value: (mat) => mat.loads / mat.lasts,
        cell: (mat) => (
          <span className={wearOf(mat) === 'good' ? '' : 'text-ochre'}>{WEAR[wearOf(mat)]}</span>
        ),
      },
      {
        id: 'washed',
        title: 'care',
        always: true,
        cell: (mat) => (
          <Button
            small
            disabled={mat.loads === 0}
            onClick={() =>
              edit(`${mat.name} washed`, (list) =>
                list.map((one) => (one.id === mat.id ? { ...one, loads: 0 } : one)),
              )
            }
          >
            Washed
          </Button>
        ),
      },
      binColumn<Mat>((mat) => edit(`bin ${mat.name}`, (list) => list.filter(({ id }) => id !== mat.id))),
    ]
  }, [dispatch, columnsOf, cutter.id])
  const add = () =>
    dispatch(
      changeSupplies('a new mat', (held) =>
        changeCutter(held, cutter.id, (one) => ({
          ...one,
          mats: [
            ...one.mats,
            {
              id: crypto.randomUUID(),
              name: `New mat ${one.mats.length + 1}`,
              widthMm: one.bedWidthMm,
              heightMm: one.bedHeightMm,
              tack: 'medium',
              loads: 0,
              lasts: 40,
              price: 10,
            },
          ],
        })),
      ),
    )
  return (
    <DataTable
      label={`Mats of ${cutter.name}`}
      rows={cutter.mats}
      columns={columns}
      rowId={({ id }) => id}
      rowProps={({ name }) => ({ 'data-mat': name })}
      sortedBy="name"
      small
      toolbar={() => (
        <>
          <span className="flex-1 text-[13px] text-soft">
            Mats of {cutter.name}. A load wears its mat as it is noted as cut; without mats any that is asked
            for counts as at hand.
          </span>
          <Button small onClick={add}>
            New mat
          </Button>
        </>
      )}
    />
  )
}
