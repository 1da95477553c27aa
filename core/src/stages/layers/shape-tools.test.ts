import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import { ellipse, rectangle, regionArea, subtract } from '../../base/geometry'
import { layerBox, layerRegion, type Project } from '../../project'
import { cutOut, fillHoles, movePieces, offsetCopy, splitOff } from './index'

const ids = (project: Project) => project.layers.map((layer) => layer.id)
const areaOf = (project: Project, id: string) =>
  regionArea(layerRegion(project.layers.find((layer) => layer.id === id)!))

describe('layers made of layers', () => {
  const start = stack('card', plate('a', 0, [20, 20, 40, 30]), plate('b', 1, [50, 30, 40, 40]))

  it('are larger behind or smaller in front by a distance, with round or square corners', () => {
    const larger = offsetCopy(start, 'a', { mm: 5, corners: 'sharp' })
    expect(ids(larger)).toEqual(['a-outset', 'a', 'b'])
    expect(areaOf(larger, 'a-outset')).toBeCloseTo(50 * 40, 1)
    const round = offsetCopy(start, 'a', { mm: 5, corners: 'round' })
    expect(areaOf(round, 'a-outset')).toBeCloseTo(50 * 40 - (4 - Math.PI) * 25, 0)
    const smaller = offsetCopy(start, 'a', { mm: -5, corners: 'round' })
    expect(ids(smaller)).toEqual(['a', 'a-inset', 'b'])
    expect(areaOf(smaller, 'a-inset')).toBeCloseTo(30 * 20, 1)
    // Where nothing would be left, nothing is made.
    expect(offsetCopy(start, 'a', { mm: -20, corners: 'round' })).toBe(start)
  })

  it('are cut out of each other, with room where it is asked for', () => {
    const cut = cutOut(start, 'a', { byId: 'b', roomMm: 0 })
    expect(areaOf(cut, 'a')).toBeCloseTo(1200 - 10 * 20, 1)
    expect(areaOf(cut, 'b')).toBeCloseTo(1600, 1)
    expect(areaOf(cutOut(start, 'a', { byId: 'b', roomMm: 1 }), 'a')).toBeLessThan(areaOf(cut, 'a'))
    expect(cutOut(start, 'a', { byId: 'a', roomMm: 0 })).toBe(start)
  })

  it('lose their small openings only', () => {
    const lace = stack(
      'card',
      card('a', 0, subtract([rectangle(0, 0, 60, 40)], [ellipse(15, 20, 1), ellipse(40, 20, 8)])),
    )
    const filled = fillHoles(lace, 'a', 10)
    expect(layerRegion(filled.layers[0]!)[0]!.holes).toHaveLength(1)
    expect(areaOf(filled, 'a') - areaOf(lace, 'a')).toBeCloseTo(Math.PI, 1)
    expect(fillHoles(filled, 'a', 10)).toBe(filled)
  })

  it('give up single pieces to a layer of their own or to another one', () => {
    const petals = stack('card', plate('a', 0, [0, 0, 10, 10], [20, 0, 10, 10], [40, 0, 10, 10]), plate('b', 1, [28, 2, 14, 6])) // prettier-ignore
    const [, second] = petals.layers[0]!.pieces
    const split = splitOff(petals, 'a', [second!.id])
    expect(ids(split)).toEqual(['a', 'a-part', 'b'])
    expect(layerBox(split.layers[1]!)).toEqual({ minX: 20, minY: 0, maxX: 30, maxY: 10 })
    const moved = movePieces(petals, 'a', { pieceIds: [second!.id], toId: 'b' })
    expect(moved.layers[0]!.pieces).toHaveLength(2)
    // It touches what is there: they are one piece now.
    expect(moved.layers[1]!.pieces).toHaveLength(1)
    expect(areaOf(moved, 'b')).toBeCloseTo(100 + 14 * 6 - 2 * 6, 1)
    expect(
      splitOff(
        petals,
        'b',
        petals.layers[1]!.pieces.map((piece) => piece.id),
      ),
    ).toBe(petals)
  })
})
