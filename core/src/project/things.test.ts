// Frames, sticks and twine of the drawer: which a work takes, what it costs in all of them, how many are left when all is laid ready, and
// what two tabs make of one.
import { describe, expect, it } from 'vitest'
import { demo } from '../demo'
import {
  applySupplyChanges,
  kindOf,
  mountWith,
  newThing,
  priceThing,
  putIn,
  refreshSupplies,
  sizedThings,
  soundSupplies,
  starterMount,
  starterSupplies,
  supplyChanges,
  thingFor,
  tickTaking,
  untickAll,
  type Mount,
  type MountKind,
  type Project,
  type Supplies,
  type Thing,
} from './index'

const thing = (id: string, own: Partial<Thing>): Thing => ({ ...newThing('frame', id), ...own })
const withThings = (...things: Thing[]): Supplies => ({ ...starterSupplies(), things })
const framed = (widthMm: number, heightMm: number): Project => {
  const project = demo('harbour')
  if (project.mount.kind !== 'frame') throw new Error('Harbour lives in a frame')
  return { ...project, mount: { ...project.mount, spacer: { widthMm, heightMm } } }
}

const living = (kind: MountKind): Project => ({ ...demo('harbour'), mount: starterMount(kind) })

describe('which thing a work takes', () => {
  const any = thing('any', {})
  const small = thing('small', { widthMm: 180, heightMm: 240 })
  const wide = thing('wide', { widthMm: 400 })
  const of = (things: Thing[], ...size: [number, number]) => thingFor(things, framed(...size))?.id

  it('is one of its size, whichever way round, before one for any', () => {
    const all = [any, small, wide]
    expect(of(all, 180, 240)).toBe('small')
    expect(of(all, 240.6, 180)).toBe('small')
    expect(of(all, 182, 240)).toBe('any')
    expect(of(all, 300, 400)).toBe('wide')
    expect(of([small, wide], 100, 100)).toBeUndefined()
    // Of two alike the one of which there are some.
    expect(of([any, thing('full', { count: 2 })], 50, 50)).toBe('full')
    expect(thingFor([any, newThing('twine', 't')], living('garland'))?.id).toBe('t')
    expect(thingFor([any], living('free'))).toBeNull()
  })

  it('is told by its width where it is a stick', () => {
    const topper = living('topper')
    const { mount } = topper
    if (mount.kind !== 'topper') throw new Error('no topper')
    const stick = (id: string, widthMm: number) => ({ ...newThing('sticks', id), widthMm })
    const all = [stick('thin', 2), stick('own', mount.stick.widthMm)]
    expect(thingFor(all, topper)?.id).toBe('own')
    expect(thingFor(all, { ...topper, mount: { ...mount, sticks: 0 } })).toBeNull()
  })
})

describe('the mount of a work that takes a thing', () => {
  const { mount } = framed(200, 300)
  const oak = thing('oak', { name: 'Oak', widthMm: 400, heightMm: 250 })

  it('has its size, as upright as it was, and a lip as wide', () => {
    if (mount.kind !== 'frame') throw new Error('Harbour lives in a frame')
    const lip = { x: 200 - mount.opening.widthMm, y: 300 - mount.opening.heightMm }
    const { mount: taken, isMeasured } = mountWith(oak, { mount, measured: [] })
    expect(isMeasured).toBe(false)
    expect(taken).toEqual({
      ...mount,
      spacer: { widthMm: 250, heightMm: 400 },
      opening: { widthMm: 250 - lip.x, heightMm: 400 - lip.y },
    })
    expect(thingFor([oak], { ...framed(1, 1), mount: taken })).toBe(oak)
    const board = mountWith({ ...oak, kind: 'panel' }, { mount: starterMount('panel'), measured: [] }).mount
    expect(board).toEqual({ ...starterMount('panel'), panel: { widthMm: 400, heightMm: 250 } })
    const skewer = { ...newThing('sticks', 's'), widthMm: 3 }
    expect(mountWith(skewer, { mount: starterMount('topper'), measured: [] }).mount).toMatchObject({
      stick: { kind: 'skewer', widthMm: 3 },
    })
    // Nothing but the stick, whatever toppers with such sticks were measured; and no wider than a topper has.
    const topper = starterMount('topper')
    const wide = [{ id: 'w', name: 'wide', mount: { ...topper, widthMm: 400 } as Mount }]
    const stick = { ...skewer, widthMm: 4 }
    expect(mountWith(stick, { mount: topper, measured: wide }).mount).toEqual(topper)
    expect(mountWith({ ...stick, widthMm: 90 }, { mount: topper, measured: [] }).mount).toMatchObject({ stick: { kind: 'own', widthMm: 40 } }) // prettier-ignore
  })

  it('is as one of that size was measured before, the one of its name first', () => {
    const other = framed(250, 400).mount
    const own = { ...other, depthMm: 33 } as Mount
    const measured = [
      { id: 'a', name: 'Pine', mount: other },
      { id: 'b', name: 'Oak', mount: own },
      { id: 'c', name: 'Oak', mount: framed(10, 10).mount },
    ]
    expect(mountWith(oak, { mount, measured })).toEqual({ mount: own, isMeasured: true })
    expect(mountWith({ ...oak, name: 'Ash' }, { mount, measured })).toEqual({
      mount: other,
      isMeasured: true,
    })
  })

  it('is offered of what tells a size', () => {
    const all = [oak, thing('any', {}), thing('wide', { widthMm: 90 }), newThing('twine', 't')]
    expect(sizedThings(all, mount).map(({ id }) => id)).toEqual(['oak', 'wide'])
    expect(sizedThings(all, starterMount('garland'))).toEqual([])
  })
})

describe('what a thing costs', () => {
  const price = (held: { project: Project; supplies: Supplies }, amount: number) =>
    priceThing(held, { what: 'frame', price: amount, id: 'fresh' })

  it('goes from one work to the next, the last word counting', () => {
    const project = framed(200, 200)
    const priced = price({ project, supplies: price({ project, supplies: withThings() }, 12) }, 11)
    expect(priced.things).toMatchObject([{ id: 'frame', kind: 'frame', price: 11, count: null }])
    // Of one that is kept for this size that one's price is set.
    const sized = withThings(thing('own', { widthMm: 200, heightMm: 200, price: 4, count: 3 }), thing('frame', { price: 9 })) // prettier-ignore
    expect(price({ project, supplies: sized }, 5).things.map((one) => one.price)).toEqual([5, 9])
    const other = withThings(thing('frame', { widthMm: 50, heightMm: 50, price: 4 }))
    expect(price({ project, supplies: other }, 5).things.map(({ id }) => id)).toEqual(['frame', 'fresh'])
  })

  it('is put into what another project changed meanwhile, and read of a drawer of before', () => {
    const project = framed(200, 200)
    const priced = price({ project, supplies: withThings() }, 11)
    const elsewhere = withThings({ ...newThing('sticks', 'sticks'), price: 0.2 })
    const both = applySupplyChanges(elsewhere, supplyChanges(withThings(), priced)!)
    expect(both.things.map((one) => [one.id, one.price])).toEqual([
      ['sticks', 0.2],
      ['frame', 11],
    ])
    expect(refreshSupplies(project, both).drawer.things).toEqual(both.things)
    const old = soundSupplies({ things: [{ id: 'twine', price: 0.3 }] })
    expect(old.things).toMatchObject([{ id: 'twine', price: 0.3, kind: null, count: null }])
    expect(kindOf(old.things[0]!)).toBe('twine')
  })
})

describe('how many are left', () => {
  const supplies = withThings(thing('oak', { count: 3 }), thing('tin', {}))
  const held = { project: refreshSupplies(framed(200, 200), supplies), supplies }
  const laid = (wants: number, id = 'oak') =>
    tickTaking(held, 'prepare', { done: true, things: [{ thingId: id, count: wants }] })
  const counts = ({ supplies: { things } }: { supplies: Supplies }) => things.map(({ count }) => count)

  it('falls when all is laid ready, and rises with the tick; what was not there is not given back', () => {
    const two = laid(2)
    expect(counts(two)).toEqual([1, null])
    expect(two.project.drawer.things.map(({ count }) => count)).toEqual([1, null])
    expect(counts(tickTaking(two, 'prepare', { done: false }))).toEqual([3, null])
    const five = laid(5)
    expect(counts(five)).toEqual([0, null])
    expect(five.project.progress.took).toMatchObject([
      { stepId: 'prepare', foams: [], things: [{ thingId: 'oak', count: 5, missing: 2 }] },
    ])
    expect(counts(untickAll(five))).toEqual([3, null])
    // What is not counted is not noted.
    expect(laid(1, 'tin').project.progress.took).toEqual([])
  })

  it('is of the one that was taken, though there are others now', () => {
    const spare = thing('spare', { count: 5 })
    const shelf = withThings(thing('last', { count: 1 }), spare)
    const begun = { project: refreshSupplies(framed(200, 200), shelf), supplies: shelf }
    expect(thingFor(shelf.things, begun.project)?.id).toBe('last')
    const gone = tickTaking(begun, 'prepare', { done: true, things: [{ thingId: 'last', count: 1 }] })
    expect(thingFor(gone.supplies.things, gone.project)?.id).toBe('last')
    expect(thingFor(gone.supplies.things, begun.project)?.id).toBe('spare')
  })

  it('adds up over two tabs, and is what was typed where it was not counted before', () => {
    const one = supplyChanges(supplies, laid(1).supplies)!
    const both = applySupplyChanges(applySupplyChanges(supplies, one), one)
    expect(both.things[0]!.count).toBe(1)
    const typed = { ...supplies, things: supplies.things.map((own) => ({ ...own, count: 7 })) }
    const change = supplyChanges(supplies, typed)!
    expect(applySupplyChanges(supplies, change).things.map(({ count }) => count)).toEqual([7, 7])
    const blank = { ...typed, things: typed.things.map((own) => ({ ...own, count: null })) }
    const back = supplyChanges(typed, blank)!
    expect(applySupplyChanges(typed, back).things.map(({ count }) => count)).toEqual([null, null])
  })

  it('of foam that the project alone has is its own count', () => {
    const [foam] = held.project.drawer.foams
    const own = { ...foam!, id: 'brought', count: 50 }
    const brought = { ...held.project, drawer: { ...held.project.drawer, foams: [own] } }
    const ticked = tickTaking({ project: brought, supplies }, 'pad', { done: true, foams: [{ foamId: 'brought', count: 12 }] }) // prettier-ignore
    expect(ticked.project.drawer.foams[0]!.count).toBe(38)
    expect(tickTaking(ticked, 'pad', { done: false }).project.drawer.foams[0]!.count).toBe(50)
  })
})

describe('what was bought', () => {
  const supplies = withThings(thing('oak', { count: 1 }), thing('tin', {}))
  const project = refreshSupplies(framed(200, 200), supplies)
  const [paper] = project.drawer.papers
  const [foam] = supplies.foams
  const stock = [{ ...paper!, count: 2 }]
  const held = { project, stock, supplies }

  it('is put to what is there, in the drawer and in the project’s copy', () => {
    const sheets = { [paper!.id]: 10 }
    const after = putIn(held, { sheets, pads: { [foam!.id]: 100 }, things: { oak: 2, tin: 3 } })
    expect(after.stock[0]!.count).toBe(12)
    expect(after.project.drawer.papers[0]!.count).toBe(paper!.count + 10)
    expect(after.supplies.foams[0]!.count).toBe(foam!.count + 100)
    expect(after.project.drawer.foams[0]!.count).toBe(foam!.count + 100)
    // Of what is not counted nobody knows how many there are.
    expect(after.supplies.things.map(({ count }) => count)).toEqual([3, null])
    expect(putIn(held, {})).toEqual(held)
  })

  it('counts in another project too, whatever was taken there meanwhile', () => {
    const after = putIn(held, { things: { oak: 4 } })
    const elsewhere = tickTaking(held, 'prepare', { done: true, things: [{ thingId: 'oak', count: 1 }] })
    const both = applySupplyChanges(elsewhere.supplies, supplyChanges(supplies, after.supplies)!)
    expect(both.things[0]!.count).toBe(4)
  })
})
