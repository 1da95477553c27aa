import { beforeAll, describe, expect, it } from 'vitest'
import { loadGeometry } from '../../base/geometry'
import { demo, demoNames } from '../../demo'
import { findLayer, isOnPane, viewBox } from '../../project'
import { depthPlan } from './depth'
import { cutterOf } from './section-cut'
import { spaceOf, type Space } from './space'

beforeAll(() => loadGeometry())

const part = { bottomMm: 2, thicknessMm: 0.3, riseMm: 0, hinge: null, round: null }
const space = (parts: Space['pieces'][number]['parts'], pads: Space['pads'] = []): Space => ({
  pieces: [{ layerId: 'a', pieceId: 'p', parts }],
  pads,
  stackMm: 3,
})

describe('a section', () => {
  // A plate of 100 by 60 with a window of 20 from 40 on.
  const plate = { ...part, path: 'M0 0L100 0L100 60L0 60ZM40 20L60 20L60 40L40 40Z' }

  it('meets card beside an opening, and not in it', () => {
    const through = cutterOf(space([plate]))({ way: 'across', atMm: 30 })
    expect(through.cards.map(({ fromMm, toMm }) => [fromMm, toMm])).toEqual([
      [0, 40],
      [60, 100],
    ])
    expect(through.cards[0]!.bottomMm).toEqual([2, 2])
    const above = cutterOf(space([plate]))({ way: 'across', atMm: 10 })
    expect(above.cards.map(({ fromMm, toMm }) => [fromMm, toMm])).toEqual([[0, 100]])
    const down = cutterOf(space([plate]))({ way: 'down', atMm: 50 })
    expect(down.cards.map(({ fromMm, toMm }) => [fromMm, toMm])).toEqual([
      [0, 20],
      [40, 60],
    ])
    expect(cutterOf(space([plate]))({ way: 'down', atMm: 101 }).cards).toEqual([])
  })

  it('follows what rises about a hinge, and turned pads', () => {
    // Turned up about its left edge: 12 mm at the far end.
    const wing = {
      ...plate,
      path: 'M0 0L40 0L40 20L0 20Z',
      riseMm: 12,
      hinge: [0, 0, 0, 20] as [number, number, number, number],
    }
    const { cards } = cutterOf(space([wing]))({ way: 'across', atMm: 10 })
    const last = cards.at(-1)!
    expect(last.toMm).toBe(40)
    expect(last.bottomMm[1]).toBeCloseTo(14, 9)
    const middle = cards.find(({ fromMm, toMm }) => fromMm <= 20 && toMm >= 20)!
    const t = (20 - middle.fromMm) / (middle.toMm - middle.fromMm)
    expect(middle.bottomMm[0] + t * (middle.bottomMm[1] - middle.bottomMm[0])).toBeCloseTo(8, 9)
    // A square of 6 on its corner is as wide as its diagonal in the middle.
    const pad = {
      layerId: 'a',
      x: 20,
      y: 10,
      rotation: 45,
      widthMm: 6,
      heightMm: 6,
      bottomMm: 0,
      thicknessMm: 2,
      isClear: false,
    }
    const [met] = cutterOf(space([], [pad]))({ way: 'across', atMm: 10 }).pads
    expect(met!.toMm - met!.fromMm).toBeCloseTo(6 * Math.SQRT2, 9)
  })

  it('of a demo is nowhere higher than the stack, and no card lies in another', () => {
    const project = demo('harbour')
    const whole = spaceOf(project, depthPlan(project))
    const cut = cutterOf(whole)
    for (let atMm = 5; atMm < 195; atMm += 19) {
      const { cards } = cut({ way: 'across', atMm })
      for (const a of cards) {
        expect(a.bottomMm[0] + a.thicknessMm).toBeLessThanOrEqual(whole.stackMm + 1e-6)
        for (const b of cards) {
          const beside = a.toMm <= b.fromMm + 1e-6 || b.toMm <= a.fromMm + 1e-6
          const apart =
            a.bottomMm[0] + a.thicknessMm <= b.bottomMm[0] + 1e-6 ||
            b.bottomMm[0] + b.thicknessMm <= a.bottomMm[0] + 1e-6
          expect(a === b || beside || apart).toBe(true)
        }
      }
    }
  })

  it('stands a roll on its place, as high as it is', () => {
    const roll = { ...part, path: 'M0 0L10 0L10 10L0 10Z', riseMm: 6 }
    expect(cutterOf(space([roll]))({ way: 'across', atMm: 5 }).cards).toMatchObject([
      { fromMm: 0, toMm: 10, bottomMm: [2, 2], thicknessMm: 6.3 },
    ])
  })

  it.each(demoNames)('of %s lies between the board and the top of the stack, wherever it is', (name) => {
    const project = demo(name)
    const { minX, minY, maxX, maxY } = viewBox(project)
    const all = spaceOf(project, depthPlan(project))
    // What is on the pane is no part of the stack.
    const pieces = all.pieces.filter(({ layerId }) => !isOnPane(findLayer(project, layerId)!))
    const cut = cutterOf({ ...all, pieces })
    for (let k = 0.5; k < 40; k++)
      for (const way of ['across', 'down'] as const) {
        const [from, to] = way === 'across' ? [minY, maxY] : [minX, maxX]
        for (const { bottomMm, thicknessMm } of cut({ way, atMm: from + ((to - from) * k) / 40 }).cards)
          for (const mm of bottomMm) {
            expect(mm).toBeGreaterThanOrEqual(-1e-6)
            expect(mm + thicknessMm).toBeLessThanOrEqual(all.stackMm + 1e-3)
          }
      }
  })
})
