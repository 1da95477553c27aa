import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import { ellipse, rectangle, regionArea, subtract } from '../../base/geometry'
import { layerBox, layerRegion, setLayer, type Project } from '../../project'
import {
  cutOut,
  drawStrip,
  edged,
  fillHoles,
  fillOpening,
  movePieces,
  offsetCopy,
  splitOff,
  weakNecks,
  widenAt,
  withEdge,
} from './index'

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
      card('a', 0, subtract([rectangle([0, 0], 60, 40)], [ellipse([15, 20], 1), ellipse([40, 20], 8)])),
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

describe('pieces and openings one by one', () => {
  const bits = stack('card', plate('a', 0, [0, 0, 10, 10], [20, 0, 10, 10]))

  it('are tied by a strip that is drawn, and parted by one that is cut', () => {
    const strip = { from: { x: 8, y: 5 }, to: { x: 22, y: 5 }, widthMm: 2 }
    const tied = drawStrip(bits, 'a', { ...strip, cut: false })
    expect(tied.layers[0]!.pieces).toHaveLength(1)
    expect(areaOf(tied, 'a')).toBeCloseTo(200 + 10 * 2, 2)
    const across = { from: { x: 15, y: 3 }, to: { x: 15, y: 7 }, widthMm: 2 }
    const parted = drawStrip(tied, 'a', { ...across, cut: true })
    expect(parted.layers[0]!.pieces).toHaveLength(2)
    expect(areaOf(parted, 'a')).toBeCloseTo(220 - 4, 0)
  })

  it('are filled alone: the innermost opening round a place', () => {
    const frame = stack(
      'card',
      card('a', 0, subtract([rectangle([0, 0], 60, 40)], [ellipse([15, 20], 5), ellipse([40, 20], 8)])),
    )
    const filled = fillOpening(frame, 'a', { x: 15, y: 20 })
    expect(areaOf(filled, 'a') - areaOf(frame, 'a')).toBeCloseTo(Math.PI * 25, 0)
    expect(fillOpening(frame, 'a', { x: 2, y: 2 })).toBe(frame)
  })

  it('are widened at one place and nowhere else', () => {
    const thin = stack('card', plate('a', 0, [0, 0, 20, 20], [40, 0, 20, 20], [80, 0, 20, 20]))
    const narrow = [10, 50].reduce(
      (p, x) =>
        drawStrip(p, 'a', { from: { x: x + 5, y: 10 }, to: { x: x + 35, y: 10 }, widthMm: 0.6, cut: false }),
      thin,
    )
    const [first] = weakNecks(layerRegion(narrow.layers[0]!), 1.2).toSorted((a, b) => a.at.x - b.at.x)
    const widened = widenAt(narrow, 'a', { at: first!.at, safeMm: 1.2 })
    const left = weakNecks(layerRegion(widened.layers[0]!), 1.2).filter((neck) => neck.kind === 'neck')
    expect(left.length).toBeGreaterThan(0)
    expect(left.every((neck) => Math.abs(neck.at.x - first!.at.x) > 4)).toBe(true)
  })
})

describe('a layer that is cut flat and then rolled', () => {
  it('is left as it is: its maker changes it, and nothing of it is cut twice', () => {
    const rolls = stack(
      'card',
      plate('a', 0, [0, 0, 10, 10], [20, 0, 10, 10]),
      plate('b', 1, [0, 20, 40, 10]),
    )
    const blanks = [{ id: 'strip-1', path: 'M0 50L100 50L100 60L0 60Z' }]
    const project = setLayer(rolls, 'a', { blanks })
    const [piece] = project.layers[0]!.pieces
    const at = { x: 5, y: 5 }
    expect(splitOff(project, 'a', [piece!.id])).toBe(project)
    expect(movePieces(project, 'a', { pieceIds: [piece!.id], toId: 'b' })).toBe(project)
    expect(movePieces(project, 'b', { pieceIds: [project.layers[1]!.pieces[0]!.id], toId: 'a' })).toBe(
      project,
    )
    expect(drawStrip(project, 'a', { from: at, to: { x: 25, y: 5 }, widthMm: 2, cut: false })).toBe(project)
    expect(withEdge(project, 'a', { kind: 'scalloped', mm: 4 })).toBe(project)
    expect(splitOff(rolls, 'a', [piece!.id])).not.toBe(rolls)
  })
})

describe('edges', () => {
  const sheet = subtract([rectangle([0, 0], 100, 60)], [ellipse([50, 30], 10)])

  it('are scalloped by even bumps, openings left as they are', () => {
    const out = edged(sheet, { kind: 'scalloped', mm: 8 })
    const bumps = 320 / 8
    const radius = (320 / bumps / 2) * 1.08
    // Each bump adds about half a disc, less what neighbours share; at the corners a little more.
    const added = regionArea(out) - regionArea(sheet)
    expect(added / ((bumps * Math.PI * radius * radius) / 2)).toBeGreaterThan(0.93)
    expect(added / ((bumps * Math.PI * radius * radius) / 2)).toBeLessThan(1.1)
    expect(out).toHaveLength(1)
    expect(out[0]!.holes).toHaveLength(1)
  })

  it('are torn within their depth, the same each time', () => {
    const out = edged(sheet, { kind: 'torn', mm: 3 })
    expect(edged(sheet, { kind: 'torn', mm: 3 })).toEqual(out)
    expect(regionArea(subtract(out, [rectangle([-1.6, -1.6], 103.2, 63.2)]))).toBeLessThan(0.01)
    expect(
      regionArea(subtract([rectangle([1.6, 1.6], 96.8, 56.8)], [...out, ellipse([50, 30], 10)])),
    ).toBeLessThan(0.5)
    expect(regionArea(subtract(out, sheet))).toBeGreaterThan(20)
  })

  it('bear a row of holes at even distances', () => {
    const out = edged(sheet, { kind: 'holes', mm: 4, roomMm: 3 })
    const holes = out[0]!.holes.length - 1
    // Along a way 5 mm inside the edge: 90 by 50 mm round.
    expect(holes).toBe(Math.round(280 / 7))
    expect((regionArea(sheet) - regionArea(out)) / (holes * Math.PI * 4)).toBeCloseTo(1, 1)
    // Round a corner of the way two holes come a little closer.
    expect(weakNecks(out, 1.9).filter((neck) => neck.kind === 'neck')).toEqual([])
  })
})
