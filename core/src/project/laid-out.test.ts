import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rectangle, regionArea, regionBox, subtract, type Region } from '../base/geometry'
import { demo, demoNames } from '../demo'
import { card, plate, stack } from '../../test/stack'
import { layerBox, layerRegion } from './faces'
import { laidOut, layOnEachOther } from './laid-out'
import type { Layer, Project } from './schema'

const SIDE = 150
const sheetsOf = (project: Project) => laidOut(project).sheets

/** A sheet with a round number of openings, drawn at a place. */
const sheet = (openings: number, [x, y]: readonly [number, number], side = SIDE): Region =>
  subtract(
    [rectangle([x, y], side, side)],
    Array.from({ length: openings }, (_, k) => rectangle([x + 10 + 12 * k, y + 20], 8, side / 2)),
  )
const boxOf = (project: Project, id: string) => layerBox(project.layers.find((layer) => layer.id === id)!)
/** Where a box lies against the sheet at the back, to a thousandth of a mm. */
const against = (project: Project, id: string) => {
  const [back, box] = [layerBox(project.layers[0]!), boxOf(project, id)]
  return [box.minX - back.minX, box.minY - back.minY].map((mm) => Math.round(mm * 1000) / 1000 + 0)
}
/** Sheets beside each other, those with more openings further to the right. */
const inRow = (n: number, pitch = 170): Layer[] =>
  Array.from({ length: n }, (_, k) => card(`l${k}`, 2, sheet(k, [k * pitch, 0])))

describe('sheets that a drawing shows beside each other', () => {
  it('come to lie on each other, what is small at its place on its sheet', () => {
    fc.assert(
      fc.property(
        fc.record({
          count: fc.integer({ min: 2, max: 7 }),
          columns: fc.integer({ min: 1, max: 4 }),
          gapMm: fc.integer({ min: 2, max: 60 }),
          at: fc.tuple(fc.integer({ min: 0, max: 120 }), fc.integer({ min: 0, max: 120 })),
          turned: fc.boolean(),
        }),
        ({ count, columns, gapMm, at, turned }) => {
          const place = (k: number): [number, number] => [
            (k % columns) * (SIDE + gapMm),
            Math.floor(k / columns) * (SIDE + gapMm),
          ]
          const sheets = Array.from({ length: count }, (_, k) => card(`l${k}`, 2, sheet(k, place(k))))
          const [x, y] = place(count)
          const small = plate('small', 2, [x + at[0], y + at[1], 30, 25])
          // Drawn from the front or from the back: the one with most card lies behind.
          const layers = turned ? [small, ...sheets.toReversed()] : [...sheets, small]
          const laid = layOnEachOther(stack('frame', ...layers))
          expect(laid.layers.map(({ id }) => id)).toEqual([...sheets.map(({ id }) => id), 'small'])
          for (const { id } of sheets) expect(against(laid, id)).toEqual([0, 0])
          // Of one full row it is not told how far the next would lie below.
          if (columns === 1 || count !== columns) expect(against(laid, 'small')).toEqual(at)
          const back = boxOf(laid, 'l0')
          expect([back.minX + back.maxX, back.minY + back.maxY]).toEqual([200, 200])
        },
      ),
      { numRuns: 60 },
    )
  })

  it('come to lie middle on middle where they grow smaller', () => {
    const sizes = [150, 138, 121, 100]
    let x = 0
    const rings = sizes.map((side, k) => {
      const layer = card(`r${k}`, 2, sheet(1, [x, 7 * k], side))
      x += side + 12
      return layer
    })
    const laid = layOnEachOther(stack('frame', ...rings))
    for (const [k, side] of sizes.entries())
      expect(against(laid, `r${k}`)).toEqual([(150 - side) / 2, (150 - side) / 2])
  })

  it.each([
    ['with another between them', [0, 2]],
    ['right beside each other', [0, 1]],
    ['at the end', [1, 2]],
  ])('are layers of their own where two of them have one colour, %s', (_, white) => {
    const sheets = inRow(3)
    const both = card(
      'white',
      2,
      white.flatMap((k) => layerRegion(sheets[k]!)),
    )
    const other = sheets.find((__, k) => !white.includes(k))!
    const project = stack('frame', { ...both, name: 'White' }, other)
    expect(sheetsOf(project)).toHaveLength(3)
    const laid = layOnEachOther(project)
    // Those further to the right have more openings, and lie in front.
    const openings = laid.layers.map((layer) =>
      layerRegion(layer).reduce((sum, { holes }) => sum + holes.length, 0),
    )
    expect(openings).toEqual([0, 1, 2])
    expect(laid.layers.map(({ name }) => name).toSorted()).toEqual(
      [other.name, 'White', 'White, 2'].toSorted(),
    )
    expect(new Set(laid.layers.map(({ id }) => id)).size).toBe(3)
    for (const { id } of laid.layers) expect(against(laid, id)).toEqual([0, 0])
    const area = (one: Project) => one.layers.reduce((sum, layer) => sum + regionArea(layerRegion(layer)), 0)
    expect(area(laid)).toBeCloseTo(area(project), 6)
  })

  it('may be rings of loose petals, each of a colour', () => {
    const ring = (k: number): [number, number, number, number][] =>
      Array.from({ length: 8 }, (_, i) => {
        const r = 60 - 6 * k
        return [
          200 * k + r * Math.cos((i * Math.PI) / 4),
          r * Math.sin((i * Math.PI) / 4),
          30 - 3 * k,
          30 - 3 * k,
        ]
      })
    const laid = layOnEachOther(stack('frame', ...[0, 1, 2].map((k) => plate(`ring-${k}`, 2, ...ring(k)))))
    expect(laid.layers.map(({ id, pieces }) => [id, pieces.length])).toEqual([['ring-0', 8], ['ring-1', 8], ['ring-2', 8]]) // prettier-ignore
    for (const { id } of laid.layers) {
      const { minX, maxX, minY, maxY } = boxOf(laid, id)
      expect([(minX + maxX) / 2, (minY + maxY) / 2]).toEqual([expect.closeTo(100, 6), expect.closeTo(100, 6)])
    }
  })

  it('have what is written under them beside them still, in one layer for each', () => {
    const sheets = inRow(4)
    // Two digits of 5 mm under each, all of one layer.
    const digits = plate(
      'digits',
      0,
      ...[0, 1, 2, 3].flatMap((k): [number, number, number, number][] => [
        [170 * k + 20, 153, 5, 8],
        [170 * k + 27, 153, 5, 8],
      ]),
    )
    for (const laid of [
      layOnEachOther(stack('frame', digits, ...sheets)),
      layOnEachOther(stack('frame', ...sheets.toReversed(), digits)),
    ])
      expect(laid.layers.map(({ id }) => id)).toEqual([
        ...sheets.map(({ id }) => id),
        'digits',
        'digits-2',
        'digits-3',
        'digits-4',
      ])
    const laid = layOnEachOther(stack('frame', digits, ...sheets))
    for (const id of ['digits', 'digits-2', 'digits-3', 'digits-4'])
      expect([against(laid, id), laid.layers.find((layer) => layer.id === id)!.pieces.length]).toEqual([
        [20, 153],
        2,
      ])
  })

  describe('with the finished work beside them', () => {
    const colours = ['#223344', '#446655', '#886644', '#aa9977']
    const place: [number, number] = [800, 20]
    /** The work as it is seen at a place, of a size: a region for each sheet, from the back. */
    const picture = (side: number, sheets = colours.length): Region[] =>
      colours
        .slice(0, sheets)
        .map((_, k) => [
          rectangle(place, side, side),
          ...(k > 0 ? [rectangle([place[0] + 10 * k, place[1] + 10], side / 3, side / 3)] : []),
        ])
        .map((rings, k) => (k > 0 ? subtract(rings.slice(0, 1), rings.slice(1)) : rings))
    const sheets = inRow(4).map((layer, k): Layer => ({ ...layer, colour: colours[k]! }))
    const isStacked = (project: Project) => {
      expect(project.layers.map(({ id }) => id)).toEqual(['l0', 'l1', 'l2', 'l3'])
      for (const { id, pieces } of project.layers) {
        expect(pieces).toHaveLength(1)
        expect(against(project, id)).toEqual([0, 0])
      }
    }

    it.each([150, 90, 20])('in their colours, %d mm wide: the picture goes', (side) => {
      const shown = picture(side)
      const layers = sheets.map((layer, k) => ({
        ...card(layer.id, 2, [...layerRegion(layer), ...shown[k]!]),
        colour: layer.colour,
      }))
      const project = stack('frame', ...layers)
      expect(laidOut(project).picture?.layerIds).toEqual([])
      isStacked(layOnEachOther(project))
      // What lies behind is told by the picture, also where the sheet with the most card is in front.
      const turned = layOnEachOther(stack('frame', ...layers.toReversed()))
      expect(turned.layers.map(({ id }) => id)).toEqual(['l3', 'l2', 'l1', 'l0'])
    })

    it('drawn by itself: it goes, and gives the order', () => {
      const own = picture(100).map((shape, k) => ({ ...card(`seen-${k}`, 2, shape), colour: colours[k]! }))
      isStacked(layOnEachOther(stack('frame', ...sheets, ...own)))
      isStacked(layOnEachOther(stack('frame', ...own, ...[2, 0, 3, 1].map((k) => sheets[k]!))))
    })

    it('is another work where it has other proportions or colours, and stays', () => {
      const own = picture(100).map((shape, k) => ({ ...card(`seen-${k}`, 2, shape), colour: '#ff00ff' }))
      expect(laidOut(stack('frame', ...sheets, ...own))).toEqual({ sheets: [], picture: null })
      const wide = [plate('a', 2, [800, 0, 150, 100]), plate('b', 2, [820, 10, 20, 20])].map((layer, k) => ({
        ...layer,
        colour: colours[k]!,
      }))
      expect(sheetsOf(stack('frame', ...sheets, ...wide))).toEqual([])
      // Two stacks are two designs.
      const twice = [0, 300].flatMap((x) => [
        { ...plate(`a${x}`, 2, [800 + x, 0, 150, 150]), colour: colours[0]! },
        { ...plate(`b${x}`, 2, [820 + x, 10, 20, 20]), colour: colours[1]! },
      ])
      expect(sheetsOf(stack('frame', ...sheets, ...twice))).toEqual([])
    })
  })

  it('are none where one lies on another, where all fit as they lie, where they are not alike, and where little is told', () => {
    for (const name of demoNames) expect(sheetsOf(demo(name))).toEqual([])
    expect(sheetsOf(stack('frame', plate('back', 0, [0, 0, 700, 150]), ...inRow(4)))).toEqual([])
    // Three tiles of 60 mm within 200 mm.
    const tiles = [0, 65, 130].map((x, k) => plate(`t${k}`, 2, [x, 0, 60, 60]))
    expect(sheetsOf(stack('frame', ...tiles))).toEqual([])
    // Three of a kind that were drawn a little too wide.
    const triptych = [0, 1, 2].map((k) => card(`p${k}`, 2, sheet(k, [72 * k, 0], 68)))
    expect(sheetsOf(stack('frame', ...triptych))).toEqual([])
    // Letters in a row, each of a colour and a width of its own.
    const letters = [40, 55, 20, 48, 60].map((w, k) => plate(`c${k}`, 2, [70 * k, 0, w, 60]))
    expect(sheetsOf(stack('topper', ...letters))).toEqual([])
    expect(sheetsOf(stack('free', ...inRow(2)))).toEqual([])
    // Flags of three colours in turn, and as many tiles of one shape as go beside each other.
    const flags = [0, 1, 2].map((k) => plate(`f${k}`, 2, [80 * k, 0, 60, 80], [240 + 80 * k, 0, 60, 80]))
    const squares = [0, 1, 2, 3, 4].map((k) => plate(`q${k}`, 2, [70 * k, 0, 60, 60]))
    for (const kind of ['frame', 'free', 'topper'] as const)
      for (const all of [flags, squares]) expect(sheetsOf(stack(kind, ...all))).toEqual([])
    expect(sheetsOf(stack('free', ...inRow(3)))).toHaveLength(3)
    expect(sheetsOf(stack('garland', ...inRow(4)))).toEqual([])
    const stacked = layOnEachOther(stack('frame', ...inRow(4)))
    expect(sheetsOf(stacked)).toEqual([])
    expect(layOnEachOther(stacked)).toBe(stacked)
  })

  it('keep folds and what else is drawn on them', () => {
    const [a, b] = inRow(2)
    const fold = { line: [180, 10, 180, 90] as [number, number, number, number] }
    const project = stack('frame', a!, { ...b!, folds: [{ ...card('x', 0, []).folds[0]!, ...fold }] })
    const laid = layOnEachOther(project)
    const { folds } = laid.layers[1]!
    const box = regionBox(layerRegion(laid.layers[1]!))
    expect(folds.map(({ line }) => line[0] - box.minX)).toEqual([10])
  })
})
