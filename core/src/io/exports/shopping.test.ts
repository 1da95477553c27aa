import { expect, it } from 'vitest'
import { newThing } from '../../project'
import type { CostLine, Want } from '../../stages/journal'
import type { ThingNeeded } from '../../stages/measure'
import { shoppingRows, wantRows } from './shopping'

const twine = {
  ...newThing('twine', 'twine'),
  name: 'twine',
  count: 2.5,
  perPack: 10,
  price: 0.2,
  shop: 'Quay',
}
const line: CostLine = {
  kind: 'part',
  what: 'twine',
  amount: 3.25,
  unit: 'm',
  cost: 0.65,
  basis: '',
  partId: 'twine',
}
const thing: ThingNeeded = { thing: twine, needed: 3.25, taken: 0, packs: 1, cost: 2 }

it('a thing that the drawer counts is on the list with what is at hand, what is measured in the maker’s unit', () => {
  const one = { needed: [], foamUse: [], lines: [line] }
  expect(shoppingRows({ ...one, thing }, 'mm')).toEqual([
    { what: 'other', name: 'twine', size: '', needed: 3.25, 'at hand': 2.5, buy: 10, unit: 'm', cost: '2.00', used: '0.65', shop: 'Quay' }, // prettier-ignore
  ])
  expect(shoppingRows({ ...one, thing }, 'in')).toMatchObject([{ needed: 10.66, 'at hand': 8.2, buy: 32.81, unit: 'ft' }]) // prettier-ignore
  expect(shoppingRows({ ...one, thing: null }, 'mm')).toMatchObject([{ needed: 3.25, 'at hand': '', buy: '', unit: 'm', cost: '' }]) // prettier-ignore
})

it('things by the pack are bought so', () => {
  const sticks = { ...newThing('sticks', 's'), count: 4, perPack: 50, price: 0.1 }
  const lines = [{ ...line, what: 'sticks', amount: 6, unit: '', partId: 'sticks' }]
  const need = { thing: sticks, needed: 6, taken: 0, packs: 1, cost: 5 }
  expect(shoppingRows({ needed: [], foamUse: [], lines, thing: need }, 'mm')).toMatchObject([
    { name: 'sticks', needed: 6, 'at hand': 4, buy: 1, unit: 'packs of 50', cost: '5.00' },
  ])
})

it('one list for all projects has the frames and twine that run short', () => {
  const want = (own: Partial<Want>): Want => ({ id: '', name: '', kind: 'thing', unit: '', atHand: 0, wanted: 1, perPack: 1, price: 1, shop: '', by: [], ...own }) // prettier-ignore
  const rows = [
    want({ name: 'oak', atHand: 1, wanted: 3, price: 9, by: [{ name: 'A', count: 3 }] }),
    want({ name: 'twine', unit: 'm', atHand: 2.5, wanted: 3.25, perPack: 10, price: 2, by: [{ name: 'B', count: 3.25 }] }), // prettier-ignore
    want({ name: 'enough', atHand: 5 }),
  ]
  expect(wantRows(rows, 'in', '€')).toMatchObject([
    { name: 'oak', 'at hand': 1, buy: 2, unit: 'one', 'cost €': '18.00', by: 'A 3' },
    { name: 'twine', 'at hand': 8.2, buy: 32.81, unit: 'ft', 'cost €': '2.00', by: 'B 10.66 ft' },
  ])
})
