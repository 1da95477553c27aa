// Glues of the shared drawer: how fast they take, what they stick to, what their labels caution.
import { useMemo } from 'react'
import { starterAdhesives, withoutSupply, type Adhesive } from '@feuillet/core/project'
import { changeSupplies } from '../../state/edits'
import { useAppDispatch } from '../../state/store'
import { Checkbox, type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { useRecordColumns, type RecordColumn } from './record-cell'
import { SupplyTable } from './supply-table'
import { useSupply } from './use-supply'

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
  { key: 'holdsKPa', title: 'bears', kept: 'kPa', number: { min: 0, max: 100_000 }, width: 'w-12' },
  { key: 'pricePerPack', price: true, title: 'a bottle', number: { min: 0, max: 9999 }, width: 'w-11' },
  { key: 'packMl', title: 'in it', kept: 'ml', number: { min: 0.1, max: 100_000 }, width: 'w-11' },
  { key: 'surfaces', title: 'sticks to', width: 'w-36' },
  { key: 'caution', title: 'caution', width: 'w-44' },
]

const TICKS: readonly { key: 'slides' | 'driesClear' | 'isTidy'; title: string }[] = [
  { key: 'slides', title: 'slides wet' },
  { key: 'driesClear', title: 'dries clear' },
  { key: 'isTidy', title: 'tidy behind' },
]

export function GlueTable() {
  const dispatch = useAppDispatch()
  const { list: adhesives, edit, set: setGlue } = useSupply('adhesives')
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Adhesive>[] => {
    const set = ({ id, name }: Adhesive, patch: Partial<Adhesive>) =>
      setGlue(id, `${name} in the drawer`, patch)
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
  }, [dispatch, columnsOf, setGlue])
  const add = () => {
    const fresh: Adhesive = {
      ...starterAdhesives[0]!,
      id: crypto.randomUUID(),
      name: freeName(adhesives, 'New glue'),
      caution: '',
    }
    edit('a new glue', (list) => [...list, fresh])
  }
  return (
    <SupplyTable
      list="adhesives"
      one="glue"
      many="glues"
      note=": middle values of their kinds to start from. The label goes before them."
      rows={adhesives}
      columns={columns}
      onNew={add}
    />
  )
}
