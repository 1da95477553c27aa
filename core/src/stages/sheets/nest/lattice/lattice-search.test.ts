import { describe, expect, it } from 'vitest'
import { polygon } from '../../../../../test/cut-up'
import { expectLegal } from '../../../../../test/legal-layout'
import { piece } from '../../../../../test/nest-piece'
import { seededRandom } from '../../../../base'
import {
  compose,
  ellipse,
  fillRings,
  mapPolygon,
  polygonArea,
  rectangle,
  rotation,
  smoothLine,
  subtract,
  translation,
  type Polygon,
} from '../../../../base/geometry'
import type { NestInstance, NestLayout, NestPiece, Turns } from '../instance'
import { Nester } from '../nester'
import { kindsOf } from './alike'
import { LatticeSearch } from './lattice-search'

const SHEET = { w: 150, h: 120, margin: 4 }
const plus = polygon([[8, 0], [16, 0], [16, 8], [24, 8], [24, 16], [16, 16], [16, 24], [8, 24], [8, 16], [0, 16], [0, 8], [8, 8]]) // prettier-ignore
const petal = fillRings([smoothLine([[0, 0], [10, -4], [22, -9], [29, 0], [22, 9], [10, 4]], true, 0.1)], 'nonzero')[0]! // prettier-ignore
const ring = subtract([ellipse([0, 0], 12)], [ellipse([0, 0], 6)])[0]!

const work = (pieces: NestPiece[], more: Partial<NestInstance> = {}): NestInstance => ({
  sheet: SHEET,
  gap: 1.5,
  pieces,
  ...more,
})

/** What rows make of it. */
function inRows(instance: NestInstance, best = new Nester(instance, 1, { ways: 'orders' }).best): NestLayout {
  const search = new LatticeSearch(instance, () => {
    throw new Error('nothing is left to search')
  })
  while (!search.isLaid) {
    const layout = search.step(best)
    if (layout) return layout
  }
  throw new Error('no rows')
}

describe('rows of copies', () => {
  it('are complete and legal, whatever is turned how, on several sheets, with others beside them', () => {
    for (const turns of ['free', 'quarter', 'fixed'] as Turns[])
      for (const instance of [
        work([piece('plus', plus, { qty: 40, turns })]),
        work([piece('petal', petal, { qty: 46, turns })]),
        work([piece('ring', ring, { qty: 23, turns }), piece('petal', petal, { qty: 12, turns })]),
        work([piece('plus', plus, { qty: 33, turns }), piece('disc', ellipse([0, 0], 9), { qty: 7, turns })]),
      ]) {
        const layout = inRows(instance)
        expectLegal(instance, layout)
        expect(layout.score).toBeGreaterThan(0)
      }
  }, 60_000)

  it('fill whole sheets and nothing else where there are just so many', () => {
    const two = (qty: number) => inRows(work([piece('plus', plus, { qty })]))
    const onOne = two(100).placements.filter(({ sheet }) => sheet === 0).length
    const layout = two(2 * onOne)
    expect(layout.sheets).toBe(2)
    expectLegal(work([piece('plus', plus, { qty: 2 * onOne })]), layout)
  })

  it('come closer than pieces laid one by one', () => {
    const instance = work([piece('plus', plus, { qty: 60 })])
    const one = new Nester(instance, 1, { ways: 'orders' })
    for (let k = 0; k < 60; k++) one.step()
    expect(inRows(instance).score).toBeLessThan(0.95 * one.best.score)
  })

  it('are what the search shows, and betters', () => {
    const instance = work([piece('plus', plus, { qty: 60 })])
    const rows = inRows(instance)
    const nester = new Nester(instance)
    for (let k = 0; k < 40; k++) nester.step()
    expect(nester.best.score).toBeLessThanOrEqual(rows.score + 1e-9)
    expectLegal(instance, nester.best)
  })

  it('fill off-cuts that are rectangles, where that is more card, and leave what lies on others', () => {
    const offCut = (outline: Polygon) => {
      const instance = work([piece('petal', petal, { qty: 30 })], {
        offCuts: [{ id: 'a', outline, margin: 2 }],
      })
      const best = new Nester(instance, 1, { ways: 'orders' }).best
      const layout = inRows(instance, best)
      expectLegal(instance, layout)
      return [best, layout].map(({ placements }) => placements.filter(({ sheet }) => sheet < 0))
    }
    const [before, after] = offCut(rectangle([0, 0], 70, 60))
    expect(before!.length).toBeGreaterThan(0)
    expect(after!.length).toBeGreaterThan(before!.length)
    const [asItWas, asItIs] = offCut(polygon([[0, 0], [80, 0], [60, 60], [0, 60]])) // prettier-ignore
    expect(asItWas!.length).toBeGreaterThan(0)
    expect(asItIs).toEqual(asItWas)
  })

  it('take copies that are drawn turned, each by its own name', () => {
    const random = seededRandom(3)
    const drawn = Array.from({ length: 20 }, (_, k) =>
      piece(
        `p${k}`,
        mapPolygon(compose(translation(random() * 90, random() * 90), rotation(random() * 360)), petal),
      ),
    )
    expect(kindsOf(drawn)).toHaveLength(1)
    const instance = work(drawn)
    expectLegal(instance, inRows(instance))
  })

  it('are tried where one shape is most of the work', () => {
    const suits = (pieces: NestPiece[], more: Partial<NestInstance> = {}) =>
      LatticeSearch.suits(work(pieces, more))
    const boxes = (n: number) =>
      Array.from({ length: n }, (_, k) => piece(`b${k}`, rectangle([0, 0], 20 + k, 20)))
    expect(suits([piece('petal', petal, { qty: 20 })])).toBe(true)
    expect(suits([piece('petal', petal, { qty: 9 })])).toBe(false)
    expect(suits([piece('petal', petal, { qty: 12 }), ...boxes(20)])).toBe(false)
    const pinned = [{ id: 'petal', copy: 0, sheet: 0, x: 40, y: 40, rotation: 0 }]
    expect(suits([piece('petal', petal, { qty: 20 })], { pinned })).toBe(false)
  })

  it('of more pieces than overlaps are parted for go on with what whole sheets leave', () => {
    const instance = work([piece('small', mapPolygon([0.3, 0, 0, 0.3, 0, 0], plus), { qty: 640 })], {
      gap: 0.5,
    })
    const nester = new Nester(instance)
    const scores = Array.from({ length: 60 }, () => {
      nester.step()
      return nester.best.score
    })
    expectCounts(instance, nester.best)
    const room = (SHEET.w - 2 * SHEET.margin) * (SHEET.h - 2 * SHEET.margin)
    const least = (640 * polygonArea(instance.pieces[0]!.shape)) / room
    expect(scores.at(-1)!).toBeGreaterThan(least)
    expect(scores.at(-1)!).toBeLessThan(1.5 * least)
  })
})

function expectCounts({ pieces }: NestInstance, { placements }: NestLayout): void {
  const keys = new Set(placements.map(({ id, copy }) => `${id}#${copy}`))
  expect(keys.size).toBe(placements.length)
  expect(keys.size).toBe(pieces.reduce((sum, { qty }) => sum + qty, 0))
}

describe('kinds', () => {
  const kinds = (...shapes: [Polygon, Turns][]) =>
    kindsOf(shapes.map(([shape, turns], k) => piece(`p${k}`, shape, { turns }))).length
  const ell = polygon([[0, 0], [20, 0], [20, 6], [6, 6], [6, 30], [0, 30]]) // prettier-ignore
  const turned = mapPolygon(rotation(37), ell)

  it('are shapes that are the same when moved, and turned where they may be', () => {
    expect(kinds([ell, 'free'], [turned, 'free'])).toBe(1)
    expect(kinds([ell, 'quarter'], [turned, 'quarter'])).toBe(2)
    expect(kinds([ell, 'fixed'], [mapPolygon(translation(5, 5), ell), 'fixed'])).toBe(1)
    expect(kinds([ell, 'free'], [ell, 'quarter'])).toBe(2)
  })

  it('tell a shape from its mirror image, and from one a little larger', () => {
    const mirrored = polygon([[0, 0], [0, 30], [-6, 30], [-6, 6], [-20, 6], [-20, 0]]) // prettier-ignore
    expect(kinds([ell, 'free'], [mirrored, 'free'])).toBe(2)
    expect(kinds([ell, 'free'], [mapPolygon([1.001, 0, 0, 1.001, 0, 0], ell), 'free'])).toBe(2)
  })
})
