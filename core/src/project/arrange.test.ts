import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../test/stack'
import { mandalaRecipeSchema } from './schema'
import { grow, growAgain, makeLayers } from '../stages/layers/makers'
import {
  alignParts,
  assemble,
  boxOfLayers,
  copyParts,
  disassemble,
  hideAssembly,
  layerBox,
  layerRegion,
  membersOf,
  mirroredCopy,
  mirrorParts,
  moveParts,
  movedWith,
  readProject,
  removeAssembly,
  repeatAlong,
  repeatRound,
  scaleParts,
  snapped,
  snapsOf,
  spreadParts,
  turnParts,
  unitsOf,
  writeProject,
  type Project,
} from './index'

/** A large plate, two blossoms of two layers each, and a leaf. */
const wreath = (): Project =>
  stack(
    'panel',
    plate('back', 0, [0, 0, 200, 200]),
    plate('a1', 0, [10, 10, 30, 30]),
    plate('a2', 1, [15, 15, 20, 20]),
    plate('b1', 0, [100, 40, 40, 30]),
    plate('b2', 1, [110, 45, 20, 20]),
    plate('leaf', 0, [150, 150, 20, 8]),
  )
const withParts = (): Project =>
  assemble(assemble(wreath(), ['a1', 'a2'], { id: 'A', name: 'Rose' }), ['b1', 'b2'], {
    id: 'B',
    name: 'Daisy',
  })
const corners = (project: Project, id: string): number[][] => {
  const { outer } = layerRegion(project.layers.find((layer) => layer.id === id)!)[0]!
  return Array.from({ length: outer.length / 2 }, (_, i) => [outer[2 * i]!, outer[2 * i + 1]!])
}
const sorted = (points: number[][]) =>
  points.map(([x, y]) => `${x!.toFixed(2)} ${y!.toFixed(2)}`.replaceAll('-0.00', '0.00')).toSorted()

describe('parts', () => {
  it('move, turn and scale as one, as the points of their layers do', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.double({ min: 0.4, max: 2.5, noNaN: true }),
        (dx, deg, factor) => {
          const start = withParts()
          const done = scaleParts(turnParts(moveParts(start, ['a2'], [dx, 7]), ['a1'], deg), ['a1'], factor)
          // Worked out point by point: about the middle of the box that stands at the time.
          const moved = ['a1', 'a2'].map((id) => corners(start, id).map(([x, y]) => [x! + dx, y! + 7]))
          const middle = (all: number[][][]) => {
            const flat = all.flat()
            const mid = (k: number) =>
              (Math.min(...flat.map((p) => p[k]!)) + Math.max(...flat.map((p) => p[k]!))) / 2
            return [mid(0), mid(1)] as const
          }
          const [cx, cy] = middle(moved)
          const a = (deg * Math.PI) / 180
          const turned = moved.map((points) =>
            points.map(([x, y]) => [
              cx + (x! - cx) * Math.cos(a) - (y! - cy) * Math.sin(a),
              cy + (x! - cx) * Math.sin(a) + (y! - cy) * Math.cos(a),
            ]),
          )
          const [tx, ty] = middle(turned)
          turned.forEach((points, k) => {
            const want = points.map(([x, y]) => [tx + (x! - tx) * factor, ty + (y! - ty) * factor])
            const have = corners(done, ['a1', 'a2'][k]!)
            for (const [x, y] of want)
              expect(Math.min(...have.map(([hx, hy]) => Math.hypot(hx! - x!, hy! - y!)))).toBeLessThan(0.02)
          })
          expect(done.layers.filter((layer) => !layer.id.startsWith('a'))).toEqual(
            start.layers.filter((layer) => !layer.id.startsWith('a')),
          )
        },
      ),
      { numRuns: 40 },
    )
  })

  it('lie in parts, and can be taken apart, hidden and taken out', () => {
    const both = assemble(withParts(), ['a1', 'b1'], { id: 'C', name: 'Bunch' })
    expect(movedWith(both, ['b2'])).toEqual(['a1', 'a2', 'b1', 'b2'])
    expect(unitsOf(both, ['a1', 'leaf']).map((unit) => unit.name)).toEqual(['Bunch', 'leaf'])
    const apart = disassemble(both, 'C')
    expect(movedWith(apart, ['b2'])).toEqual(['b1', 'b2'])
    expect(membersOf(both, 'C').map((layer) => layer.id)).toEqual(['a1', 'a2', 'b1', 'b2'])
    expect(hideAssembly(both, 'B', true).layers.filter((layer) => layer.hidden).map((layer) => layer.id)).toEqual(['b1', 'b2']) // prettier-ignore
    const gone = removeAssembly(both, 'C')
    expect(gone.layers.map((layer) => layer.id)).toEqual(['back', 'leaf'])
    expect(gone.assemblies).toEqual([])
    expect(readProject(writeProject(both)).assemblies).toEqual(both.assemblies)
    // A part that lies in itself, as a damaged file may have it, ends nothing.
    const round = { ...both, assemblies: both.assemblies.map((part) => ({ ...part, parentId: part.id })) }
    expect(movedWith(round, ['a1'])).toEqual(['a1', 'a2'])
  })

  it('are copied with their layers under new ids, in front of what they are copies of', () => {
    const { project, layerIds } = copyParts(withParts(), ['a1'], [1, 0, 0, 1, 40, 0])
    expect(project.layers.map((layer) => layer.id)).toEqual(['back', 'a1', 'a2', 'a1-copy', 'a2-copy', 'b1', 'b2', 'leaf']) // prettier-ignore
    expect(layerIds).toEqual(['a1-copy', 'a2-copy'])
    expect(movedWith(project, ['a2-copy'])).toEqual(layerIds)
    expect(project.assemblies.map((part) => part.name)).toEqual(['Rose', 'Daisy', 'Rose, copy'])
    expect(layerBox(project.layers[3]!)).toEqual({ minX: 50, minY: 10, maxX: 80, maxY: 40 })
    expect(new Set(copyParts(project, ['a1'], [1, 0, 0, 1, 0, 9]).project.layers.map((l) => l.id)).size).toBe(
      10,
    )
  })

  it('make a right wing of a left one', () => {
    const { project, layerIds } = mirroredCopy(wreath(), ['leaf'], 100)
    expect(layerBox(project.layers.find((layer) => layer.id === layerIds[0])!)).toEqual({ minX: 30, minY: 150, maxX: 50, maxY: 158 }) // prettier-ignore
    const twice = mirrorParts(mirrorParts(wreath(), ['leaf'], 'upright'), ['leaf'], 'upright')
    expect(sorted(corners(twice, 'leaf'))).toEqual(sorted(corners(wreath(), 'leaf')))
  })

  it('line up, spread and repeat', () => {
    const lined = alignParts(withParts(), ['a1', 'b1', 'leaf'], { edge: 'bottom' })
    for (const id of ['a1', 'b1', 'leaf']) expect(boxOfLayers(lined, [id]).maxY).toBeCloseTo(158, 6)
    // A part is lined up whole: its second layer keeps its place in it.
    expect(boxOfLayers(lined, ['a2']).minY - boxOfLayers(lined, ['a1']).minY).toBeCloseTo(5, 6)
    const framed = alignParts(withParts(), ['a1'], {
      edge: 'centre',
      to: { minX: 0, minY: 0, maxX: 200, maxY: 200 },
    })
    expect(boxOfLayers(framed, ['a1']).minX).toBeCloseTo(85, 6)
    const even = spreadParts(withParts(), ['a1', 'b1', 'leaf'], 'across')
    const [a, b, c] = ['a1', 'b1', 'leaf'].map((id) => boxOfLayers(even, [id]))
    expect(b!.minX - a!.maxX).toBeCloseTo(c!.minX - b!.maxX, 6)
    expect([a!.minX, c!.maxX]).toEqual([10, 170])
    const row = repeatAlong(wreath(), ['leaf'], { count: 4, dx: -30, dy: 0 })
    expect(row.layers.filter((layer) => layer.name.startsWith('leaf')).map((layer) => layerBox(layer).minX).toSorted((x, y) => x - y)).toEqual([60, 90, 120, 150]) // prettier-ignore
    const ring = repeatRound(wreath(), ['leaf'], { count: 6, centre: { x: 100, y: 100 } })
    const leaves = ring.layers.filter((layer) => layer.name.startsWith('leaf'))
    expect(leaves).toHaveLength(6)
    const angles = leaves
      .map((layer) => {
        const box = layerBox(layer)
        return (Math.atan2((box.minY + box.maxY) / 2 - 100, (box.minX + box.maxX) / 2 - 100) * 180) / Math.PI
      })
      .toSorted((x, y) => x - y)
    for (let k = 1; k < 6; k++) expect(angles[k]! - angles[k - 1]!).toBeCloseTo(60, 1)
  })

  it('are drawn to edges and middles within reach only', () => {
    const snaps = snapsOf([{ minX: 0, minY: 0, maxX: 100, maxY: 80 }])
    const near = snapped({ minX: 1.5, minY: 20, maxX: 21.5, maxY: 61 }, snaps, 2)
    expect(near).toMatchObject({ dx: -1.5, dy: -0.5 })
    expect(near.lines).toEqual([{ axis: 'x', at: 0 }, { axis: 'y', at: 40 }]) // prettier-ignore
    expect(snapped({ minX: 9, minY: 12, maxX: 29, maxY: 31 }, snaps, 2)).toEqual({ dx: 0, dy: 0, lines: [] })
  })

  it('that were grown stay adjustable where they were put, turned and sized', () => {
    const recipe = mandalaRecipeSchema.parse({ kind: 'mandala', diameterMm: 60, layers: 2, fold: 8 })
    const made = grow(stack('panel'), 'm', { recipe, made: makeLayers(recipe) })
    const ids = made.layers.map((layer) => layer.id)
    const put = scaleParts(turnParts(moveParts(made, ids, [30, -20]), ids, 20), ids, 0.5)
    const again = growAgain(put, 'm', { recipe, made: makeLayers(recipe) })
    for (const [k, layer] of again.layers.entries()) {
      const [now, before] = [layerBox(layer), layerBox(put.layers[k]!)]
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
        expect(now[side]).toBeCloseTo(before[side], 1)
    }
    const larger = { ...recipe, diameterMm: 80 }
    const grown = growAgain(put, 'm', { recipe: larger, made: makeLayers(larger) })
    const [small, large] = [layerBox(put.layers[0]!), layerBox(grown.layers[0]!)]
    expect((large.maxX - large.minX) / (small.maxX - small.minX)).toBeCloseTo(80 / 60, 1)
    expect((large.minX + large.maxX) / 2).toBeCloseTo((small.minX + small.maxX) / 2, 0)
  })
})
