import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pricingSchema, setPlan, type Pricing, type Project } from '../../project'
import { demo } from '../../demo'
import { priceOf, roundedUp, selling, rightsSnags, type Cost } from './index'

const cost = (material: number, hands: number): Cost => ({
  paper: material / 2,
  foam: 0,
  other: material / 2,
  hands,
  total: material + hands,
})
const base = demo('bon-voyage')
const withPricing = (pricing: Partial<Pricing>, more: Partial<Project['plan']> = {}) =>
  setPlan(base, { pricing: pricingSchema.parse(pricing), hourlyRate: 12, ...more })

describe('the price', () => {
  it('by mark-up is what it costs and so much more', () => {
    // 8.00 of material and half an hour at 12.00: 14.00; 50 % more is 21.00.
    const { price, left, profit, wage } = priceOf(withPricing({ markUp: 0.5, roundTo: 0 }), {
      cost: cost(8, 6),
      handsMinutes: 30,
    })
    expect([price, left, profit, wage]).toEqual([21, 13, 7, 26])
  })

  it('by wage leaves the hour what it is to bring after a shop’s third, tax of a fifth, packing and postage', () => {
    const pricing = { way: 'wage', wage: 20, feeShare: 1 / 3, feeFixed: 0.4, taxRate: 0.2, packing: 0.6, postage: 3, roundTo: 0 } as const // prettier-ignore
    const found = priceOf(withPricing(pricing, { batch: 4 }), { cost: cost(40, 24), handsMinutes: 120 })
    // One: 10.00 of material, half an hour: 20.00 wanted; 24.00 with fees and sending; of the price 1/1.2 − 1/3 = 0.5 is left.
    expect(found.price).toBeCloseTo(48, 9)
    expect(found.tax).toBeCloseTo(8, 9)
    expect(found.fees).toBeCloseTo(16.4, 9)
    expect(found.wage).toBeCloseTo(20, 9)
  })

  it('that is wished says what wage is left, under nought too', () => {
    const found = priceOf(withPricing({ way: 'price', wished: 9 }), { cost: cost(8, 6), handsMinutes: 30 })
    expect([found.price, found.left, found.wage]).toEqual([9, 1, 2])
    expect(
      priceOf(withPricing({ way: 'price', wished: 5 }), { cost: cost(8, 6), handsMinutes: 30 }).wage,
    ).toBe(-6)
  })

  it('always adds up: price = tax + fees + sending + material + hands + profit', () => {
    const money = fc.double({ min: 0, max: 200, noNaN: true })
    fc.assert(
      fc.property(
        fc.record({
          way: fc.constantFrom('mark-up' as const, 'wage' as const, 'price' as const),
          markUp: fc.double({ min: 0, max: 3, noNaN: true }),
          wage: money,
          wished: money,
          feeShare: fc.double({ min: 0, max: 0.6, noNaN: true }),
          feeFixed: fc.double({ min: 0, max: 5, noNaN: true }),
          packing: fc.double({ min: 0, max: 5, noNaN: true }),
          postage: fc.double({ min: 0, max: 9, noNaN: true }),
          taxRate: fc.double({ min: 0, max: 0.27, noNaN: true }),
          roundTo: fc.constantFrom(0, 0.05, 0.5, 1, 5),
        }),
        money,
        fc.double({ min: 1, max: 600, noNaN: true }),
        fc.integer({ min: 1, max: 30 }),
        (pricing, material, minutes, batch) => {
          const hands = (minutes / 60) * 12
          const found = priceOf(withPricing(pricing, { batch }), { cost: cost(material, hands), handsMinutes: minutes }) // prettier-ignore
          if (found.price === null) return
          const sum = found.tax + found.fees + found.sending + material / batch + hands / batch + found.profit
          expect(sum).toBeCloseTo(found.price, 6)
          // Rounded up, never down: what was wanted is there.
          if (pricing.way === 'wage') expect(found.left).toBeGreaterThanOrEqual((minutes / 60 / batch) * pricing.wage - 1e-6) // prettier-ignore
        },
      ),
    )
  })

  it('does not exist where fees and tax take it all', () =>
    expect(
      priceOf(withPricing({ feeShare: 0.9, taxRate: 0.2 }), { cost: cost(8, 6), handsMinutes: 30 }).price,
    ).toBeNull())

  it('pays a stall after so many pieces', () => {
    const found = priceOf(withPricing({ way: 'price', wished: 20, stall: 60 }), { cost: cost(8, 6), handsMinutes: 30 }) // prettier-ignore
    // 12.00 each without the hands, 6.00 with them.
    expect([found.breakEven, found.breakEvenPaid]).toEqual([5, 10])
    const dear = priceOf(withPricing({ way: 'price', wished: 9, stall: 60 }), { cost: cost(8, 6), handsMinutes: 30 }) // prettier-ignore
    expect([dear.breakEven, dear.breakEvenPaid]).toEqual([60, null])
  })

  it('is rounded up to a multiple, and stays where it is one', () =>
    expect([roundedUp(7.01, 0.5), roundedUp(7.5, 0.5), roundedUp(0.1 + 0.2, 0.1), roundedUp(7.3, 0)]).toEqual(
      [7.5, 7.5, expect.closeTo(0.3, 9), 7.3],
    ))
})

describe('the right to sell', () => {
  const makes = (...list: [number, 'sold' | 'given' | 'kept'][]) =>
    list.map(([count, fate], k) => ({
      id: `m${k}`,
      at: k,
      count,
      fate,
      whom: '',
      price: 0,
      note: '',
      version: '',
    }))
  const of = (rights: Partial<Project['rights']>, made: ReturnType<typeof makes>, batch = 1): Project => ({
    ...setPlan(base, { batch }),
    rights: { ...base.rights, source: 'a friend', ...rights },
    journal: { ...base.journal, makes: made },
  })

  it('is counted down by what is sold, not by what is given', () => {
    const project = of({ use: 'may be sold', most: 5 }, makes([2, 'sold'], [3, 'given'], [1, 'sold']))
    expect(selling(project)).toMatchObject({ sold: 3, left: 2, why: null })
    expect(selling(of({ use: 'may be sold', most: 3 }, makes([3, 'sold'])))).toMatchObject({ left: 0, why: expect.stringContaining('All 3 pieces') }) // prettier-ignore
    expect(selling(of({ use: 'own use only' }, [])).left).toBe(0)
    expect(selling(of({ use: 'own design' }, makes([9, 'sold']))).left).toBeNull()
  })

  it('raises a snag before a batch passes it, and a stop once it is passed', () => {
    const codes = (project: Project) =>
      rightsSnags(project).map(({ code, severity }) => `${code} ${severity}`)
    const rights = { use: 'may be sold', most: 5, credit: 'design: a friend' } as const
    expect(codes(of(rights, makes([2, 'sold']), 5))).toEqual([])
    expect(codes(of(rights, makes([2, 'sold']), 6))).toEqual(['rights caution'])
    expect(codes(of(rights, makes([6, 'sold']), 6))).toEqual(['rights stop'])
    expect(codes(of({ use: 'own use only' }, makes([1, 'sold'])))).toEqual(['rights stop'])
    expect(codes(of({ use: 'may be sold' }, []))).toEqual(['credit caution'])
  })
})
