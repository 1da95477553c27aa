// How far a design may be made smaller, against what the shapes measure.
import { describe, expect, it } from 'vitest'
import { card, stack } from '../../../test/stack'
import { ellipse, rectangle, subtract, type Region } from '../../base/geometry'
import { safeStripOf } from '../../project'
import { NUMBER_ROOM_MM } from './marks/number-place'
import { numberLimit, shapeLimit, tightest } from './smallest'

const limitOf = (region: Region) => {
  const project = stack('free', card('a', 0, region))
  return { limit: shapeLimit(project, project.layers[0]!), safeMm: safeStripOf(project, project.layers[0]!) }
}

describe('what the shape of a layer allows', () => {
  it('is set by its narrowest strip', () => {
    // Two openings 3 mm apart, each 30 mm across.
    const openings = [rectangle([20, 20], 30, 30), rectangle([53, 20], 30, 30)]
    const { limit, safeMm } = limitOf(subtract([rectangle([0, 0], 100, 70)], openings))
    expect(limit).toMatchObject({ layerId: 'a', limit: 'strip', leastMm: safeMm })
    expect(limit!.nowMm).toBeGreaterThan(2.8)
    expect(limit!.nowMm).toBeLessThan(3.2)
    expect(limit!.scale).toBeCloseTo(safeMm / limit!.nowMm, 9)
  })

  it('is set by its smallest opening where strips are wide', () => {
    const { limit } = limitOf(subtract([rectangle([0, 0], 100, 70)], [ellipse([50, 35], 2)]))
    expect(limit).toMatchObject({ limit: 'opening', leastMm: 1 })
    expect(limit!.nowMm).toBeCloseTo(4, 1)
    expect(limit!.scale).toBeCloseTo(0.25, 1)
  })

  it('is no limit where nothing is small', () => {
    expect(limitOf([rectangle([0, 0], 100, 70)]).limit).toBeNull()
  })
})

describe('what the number of a layer allows', () => {
  const round = (r: number): Region => [ellipse([0, 0], r)]

  it('is the room where it is hidden, within a bisection', () => {
    const limit = numberLimit('a', round(6), null)
    expect(limit).toMatchObject({ layerId: 'a', limit: 'number', leastMm: NUMBER_ROOM_MM })
    expect(limit!.nowMm).toBeGreaterThan(5.5)
    expect(limit!.nowMm).toBeLessThan(6.1)
  })

  it('is none where none stands, where there is room to spare, and where it finds no place now', () => {
    expect(numberLimit('a', null, null)).toBeNull()
    expect(numberLimit('a', round(80), null)).toBeNull()
    expect(numberLimit('a', round(NUMBER_ROOM_MM * 0.8), null)).toBeNull()
  })

  it('is none where another limit is reached before', () => {
    const other = { layerId: 'a', limit: 'strip', scale: 0.9, nowMm: 1, leastMm: 0.9 } as const
    expect(numberLimit('a', round(6), other)).toBeNull()
    const loose = { ...other, scale: 0.1 }
    expect(numberLimit('a', round(6), loose)!.scale).toBeGreaterThan(0.4)
    expect(tightest([loose, null, other])).toBe(other)
  })
})
