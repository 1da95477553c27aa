// Foams of the shared drawer: what pads are cut of, how thick they are, how many are left.
import { useMemo } from 'react'
import { FOAM_FORMS, starterFoams, withoutSupply, type Foam } from '@feuillet/core/project'
import { changeSupplies } from '../../state/edits'
import { useAppDispatch } from '../../state/store'
import { Checkbox, type DataColumn } from '../../ui'
import { binColumn } from './bin-column'
import { freeName } from './free-name'
import { RecordCell, useRecordColumns, type RecordColumn } from './record-cell'
import { SupplyTable } from './supply-table'
import { useSupply } from './use-supply'

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

export function FoamTable() {
  const dispatch = useAppDispatch()
  const { list: foams, edit, set: setFoam } = useSupply('foams')
  const columnsOf = useRecordColumns()
  const columns = useMemo((): DataColumn<Foam>[] => {
    const set = ({ id, name }: Pick<Foam, 'id' | 'name'>, patch: Partial<Foam>) =>
      setFoam(id, `${name} in the drawer`, patch)
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
  }, [dispatch, columnsOf, setFoam])
  const add = () => {
    const fresh: Foam = {
      ...starterFoams[2]!,
      id: crypto.randomUUID(),
      name: freeName(foams, 'New foam'),
      count: 0,
    }
    edit('a new foam', (list) => [...list, fresh])
  }
  return (
    <SupplyTable
      list="foams"
      one="foam"
      many="foams"
      note=". Pads are taken as their step is ticked, and given back with the tick."
      rows={foams}
      columns={columns}
      onNew={add}
    />
  )
}
