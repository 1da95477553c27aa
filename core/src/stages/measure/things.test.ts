import { expect, it } from 'vitest'
import { wordsIn } from '../../base/units'
import { demo } from '../../demo'
import { newThing, refreshSupplies, setPlan, starterSupplies, tickTaking, type Thing } from '../../project'
import { shortSnags, thingNeeded, thingsTaken } from './index'

const held = (name: 'bon-voyage' | 'regatta', thing: Thing, batch = 1) => {
  const supplies = { ...starterSupplies(), things: [thing] }
  return { project: refreshSupplies(setPlan(demo(name), { batch }), supplies), supplies }
}

it('what carries a work is less what was laid ready of it, and told where it runs short', () => {
  const sticks = { ...newThing('sticks', 'dowels'), name: 'dowels', count: 4, perPack: 10, price: 0.1 }
  const one = held('bon-voyage', sticks, 3)
  const need = thingNeeded(one.project)!
  // Two sticks for each of three, four of them at hand.
  expect(need).toMatchObject({ needed: 6, taken: 0, packs: 1, cost: 1 })
  expect(shortSnags(need).map(({ message }) => message)).toEqual([
    '“dowels”: 6 needed, 4 at hand: buy 1 pack of 10.',
  ])
  const laid = tickTaking(one, 'prepare', { done: true, things: thingsTaken(one.project) })
  expect(laid.supplies.things[0]!.count).toBe(0)
  const after = thingNeeded(laid.project)
  expect(after).toMatchObject({ needed: 6, taken: 6, packs: 0 })
  expect(shortSnags(after)).toEqual([])
  const uncounted = held('bon-voyage', { ...sticks, count: null }).project
  expect([thingNeeded(uncounted), thingsTaken(uncounted), shortSnags(null)]).toEqual([null, [], []])
  expect(thingNeeded(demo('bon-voyage'))).toBeNull()
})

it('twine that runs short is told by the metre or the foot', () => {
  const twine = { ...newThing('twine', 'twine'), count: 1, perPack: 25, price: 0.2 }
  const [snag] = shortSnags(thingNeeded(held('regatta', twine).project))
  expect(wordsIn(snag!.message, 'mm')).toMatch(/^“twine”: \d\.\d+ m needed, 1 m at hand: buy 25 m\.$/)
  expect(wordsIn(snag!.message, 'in')).toMatch(/ ft needed, 3\.28 ft at hand: buy 82 ft\.$/)
})
