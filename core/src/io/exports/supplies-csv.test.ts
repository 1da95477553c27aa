import { describe, expect, it } from 'vitest'
import { newThing, starterSupplies, type Supplies } from '../../project'
import { supplyFromCsv, supplyToCsv, type SupplyList } from './index'

const oak = { ...newThing('frame', 'oak'), name: 'Oak', widthMm: 250, heightMm: 200, count: 3, shop: 'fair' }
const held: Supplies = {
  ...starterSupplies(),
  things: [
    oak,
    { ...oak, id: 'small', widthMm: 150, heightMm: 150, count: 1 },
    { ...newThing('twine', 'twine'), name: '-plain', perPack: 25, price: 0.12 },
  ],
}

/** Ids of new records: n1, n2 … */
const read = <K extends SupplyList>(list: K, text: string) => {
  let n = 0
  return supplyFromCsv(list, text, { supplies: held, newId: () => `n${++n}` })
}

describe('tables of foams, glues, inks and things', () => {
  it.each(['foams', 'adhesives', 'inks', 'things'] as const)('%s come back as they went out', (list) => {
    expect(read(list, supplyToCsv(list, held))).toEqual({ records: held[list], wrong: [] })
  })

  it('say what is of any size, and what is not counted', () => {
    expect(supplyToCsv('things', held).split('\n')).toEqual([
      'name,kind,width mm,height mm,count,per pack,price,shop',
      'Oak,frame,250,200,3,1,0,fair',
      'Oak,frame,150,150,1,1,0,fair',
      '"\'-plain",twine,any,any,not counted,25,0.12,',
      '',
    ])
    const { records } = read('things', 'name,width mm,height mm,count\nOak,250,200,not counted\n')
    expect(records[0]).toEqual({ ...oak, count: null })
  })

  it('change records of a name and size, add others, and leave the rest', () => {
    const foam = held.foams[0]!
    const { records, wrong } = read(
      'foams',
      `name,thickness mm,pads,gives %,may be cut\n${foam.name},,17,"7,5 %",\nFelt dots,3,90,,yes\n`,
    )
    expect(wrong).toEqual([])
    expect(records[0]).toEqual({ ...foam, count: 17, give: 0.075 })
    expect(records.at(-1)).toMatchObject({
      id: 'n1',
      name: 'Felt dots',
      thicknessMm: 3,
      count: 90,
      mayCut: true,
    })
    expect(records).toHaveLength(held.foams.length + 1)
    expect(read('adhesives', 'name,buckles below gsm\nPaste,80 lb\n').records.at(-1)).toMatchObject({
      bucklesBelowGsm: 216,
      caution: '',
    })
  })

  it('name the rows that cannot be read, by their columns', () => {
    const { records, wrong } = read(
      'things',
      'name,kind,width mm,count\nOak,frame,wide,2\nReed,basket,,1\nCord,,,4\n,twine,,30\n',
    )
    expect(wrong).toEqual([
      'Row 2 (Oak): “width mm” is “wide”, which is no number.',
      'Row 3 (Reed): “kind” is “basket”; it can be frame, panel, envelope, sticks or twine.',
      'Row 4 (Cord): “kind” is missing.',
    ])
    // A thing may have no name: then it is called by its kind.
    expect(records.at(-1)).toMatchObject({ name: '', kind: 'twine', count: 30 })
    expect(read('inks', 'a,b\n1,2\n').wrong).toEqual(['There is no column “name”: is this a table of inks?'])
  })

  it('read a drawer of before, whose things were their kind', () => {
    const old = { ...held, things: [{ ...newThing('sticks', 'sticks'), kind: null, price: 0.2 }] }
    expect(
      supplyFromCsv('things', supplyToCsv('things', old), { supplies: old, newId: () => 'n' }).records,
    ).toEqual([{ ...newThing('sticks', 'sticks'), price: 0.2 }])
  })
})
