import { wordsIn } from '../../../base/units'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../../test/arbitrary'
import { expectLegal } from '../../../../test/legal-layout'
import { demo } from '../../../demo'
import {
  ellipse,
  intersect,
  pathToRegion,
  polygonArea,
  polygonToPath,
  rectangle,
  regionArea,
  subtract,
  union,
  type Polygon,
} from '../../../base/geometry'
import { setPlan, type Paper, type Project } from '../../../project'
import {
  firstFree,
  leftOvers,
  leftView,
  planLoads,
  Nester,
  nestProject,
  offCutSheets,
  paperRuns,
  sheetsNeeded,
  stockAfter,
  whyIllegal,
  type NestInstance,
} from '../index'

const ell = union([rectangle([0, 0], 120, 40)], [rectangle([0, 0], 45, 130)])[0]!
const holed = subtract([rectangle([0, 0], 110, 110)], [ellipse([40, 60], 22)])[0]!
const sheet = { w: 150, h: 150, margin: 5 }

function withOffCuts(project: Project, paperId: string, shapes: Polygon[]): Project {
  const offCuts = shapes.map((shape, i) => ({
    id: `o${i}`,
    label: `off-cut ${i}`,
    path: polygonToPath(shape),
  }))
  return {
    ...project,
    drawer: {
      ...project.drawer,
      papers: project.drawer.papers.map((p) => (p.id === paperId ? { ...p, offCuts } : p)),
    },
  }
}

describe('off-cuts', () => {
  it('take pieces first, legally, whatever their outline', () => {
    fc.assert(
      fc.property(
        fc.array(star(17), { minLength: 2, maxLength: 9 }),
        fc.constantFrom([ell], [holed], [ell, holed]),
        (shapes, outlines) => {
          const offCuts = outlines.map((outline, i) => ({ id: `o${i}`, outline, margin: 3 }))
          const instance: NestInstance = {
            sheet,
            gap: 2,
            offCuts,
            pieces: shapes.map((shape, i) => ({ id: `s${i}`, shape, qty: 1, turns: 'free' })),
          }
          const nester = new Nester(instance, 1)
          expect(nester.best.placements.some((p) => p.sheet < 0)).toBe(true)
          for (let k = 0; k < 40; k++) nester.step()
          expectLegal(instance, nester.best)
          for (const p of nester.best.placements)
            expect(whyIllegal(instance, p, nester.best.placements)).toBeNull()
        },
      ),
      { numRuns: 12 },
    )
  })

  it('are refused where a piece passes their edge', () => {
    const instance: NestInstance = {
      sheet,
      gap: 2,
      offCuts: [{ id: 'o', outline: ell, margin: 3 }],
      pieces: [{ id: 'a', shape: rectangle([0, 0], 30, 30), qty: 1, turns: 'fixed' }],
    }
    const at = (x: number, y: number) => {
      const why = whyIllegal(instance, { id: 'a', copy: 0, sheet: -1, x, y, rotation: 0 }, [])
      return why && wordsIn(why, 'mm')
    }
    expect(at(4, 4)).toBeNull()
    expect(at(60, 60)).toMatch(/passes the edge of the off-cut/)
    expect(at(1, 4)).toMatch(/nearer to it than 3 mm/)
    expect(whyIllegal(instance, { id: 'a', copy: 0, sheet: -2, x: 4, y: 4, rotation: 0 }, [])).toMatch(
      /not there/,
    )
  })

  it('save a whole sheet of a project, unless they are not to be used', () => {
    const base = demo('harbour')
    const paper = base.drawer.papers.find((p) => p.name === 'Shell')!
    const project = withOffCuts(base, paper.id, [rectangle([0, 0], 210, 215), rectangle([0, 0], 90, 300)])
    expect(offCutSheets(project.drawer.papers.find((p) => p.id === paper.id)!).map((o) => o.id)).toEqual([
      'o1',
      'o0',
    ])
    const list = planLoads(project, { runs: nestProject(project) })
    const load = list.find((l) => l.paper.id === paper.id)!
    expect(load).toMatchObject({
      onOffCut: { id: 'o0', label: 'off-cut 0' },
      widthMm: 210,
      heightMm: 215,
      offCut: null,
    })
    expect(sheetsNeeded(list).find((n) => n.paper.id === paper.id)).toMatchObject({
      sheets: 0,
      offCuts: 1,
      cost: 0,
      buy: 0,
    })
    const plain = setPlan(project, { useOffCuts: false })
    expect(planLoads(plain, { runs: nestProject(plain) }).every((l) => l.onOffCut === null)).toBe(true)
  })
})

describe('what a run leaves', () => {
  const project = demo('harbour')
  const list = planLoads(project, { runs: nestProject(project) })

  it('lies beside the pieces and does not overlap itself', () => {
    for (const load of list) {
      const left = leftOvers(load)
      expect(left[0]?.kind).toBe('clean')
      for (const { shape } of left) {
        expect(
          regionArea(
            intersect(
              [shape],
              load.pieces.map((p) => p.shape),
            ),
          ),
        ).toBeLessThan(0.01)
        expect(regionArea(subtract([shape], [load.outline]))).toBeLessThan(0.01)
      }
      expect(regionArea(union(...left.map((l) => [l.shape])))).toBeCloseTo(
        left.reduce((sum, l) => sum + polygonArea(l.shape), 0),
        1,
      )
    }
  })

  it('goes back into the drawer as kept, and what was cut is gone', () => {
    const stock: Paper[] = project.drawer.papers.map((p) => ({ ...p, count: 3 }))
    const load = list[0]!
    const left = leftOvers(load)
    const after = stockAfter(stock, { loads: [load], kept: left.slice(0, 1).map(leftView), stamp: '7' }).find(
      (p) => p.id === load.paper.id,
    )!
    expect(after.count).toBe(2)
    expect(after.offCuts).toHaveLength(1)
    expect(regionArea(pathToRegion(after.offCuts[0]!.path))).toBeCloseTo(polygonArea(left[0]!.shape), 1)
    // Cut on an off-cut: the off-cut is gone, no sheet is.
    const used = { ...load, onOffCut: { id: after.offCuts[0]!.id, label: '' } }
    const last = stockAfter([after], { loads: [used], kept: [], stamp: '8' })[0]!
    expect([last.count, last.offCuts.length]).toEqual([2, 0])
    expect(stockAfter(stock, { loads: [], kept: [], stamp: '9' })).toEqual(stock)
  })

  it('follows the order of loads that the maker laid down, and counts the blade’s way', () => {
    const ids = list.map((load) => load.id).toReversed()
    const turned = planLoads(setPlan(project, { cutOrder: 'hand', loadOrder: ids.slice(0, 3) }), {
      runs: nestProject(project),
    })
    expect(turned.slice(0, 3).map((load) => load.id)).toEqual(ids.slice(0, 3))
    expect(turned.map((load) => load.number)).toEqual(list.map((load) => load.number))
    expect(list.every((load) => load.bladeCareM === null)).toBe(true)
    const many = setPlan({ ...project, layers: project.layers.map((layer) => ({ ...layer, copies: 8 })) }, {})
    expect(planLoads(many, { runs: nestProject(many, 1) }).some((load) => load.bladeCareM !== null)).toBe(
      true,
    )
  })
})

describe('laid anew', () => {
  it('a paper takes another first layout, the others keep theirs', () => {
    const project = demo('bon-voyage')
    const [first, ...others] = paperRuns(project)
    const next = paperRuns(setPlan(project, { layoutSeeds: { [first!.paper.id]: 2 } }))
    expect(next[0]!.fingerprint).not.toBe(first!.fingerprint)
    expect(next[0]!.seed).toBe(2)
    expect(next.slice(1).map((run) => run.fingerprint)).toEqual(others.map((run) => run.fingerprint))
  })

  it('a piece finds the first free place of a sheet, or none', () => {
    const instance: NestInstance = {
      sheet,
      gap: 2,
      pieces: [{ id: 'a', shape: rectangle([3, -4], 66, 66), qty: 5, turns: 'fixed' }],
    }
    const placed: NonNullable<ReturnType<typeof firstFree>>[] = []
    for (let copy = 0; copy < 5; copy++) {
      const found = firstFree(instance, { id: 'a', copy, sheet: 0, x: 0, y: 0, rotation: 0 }, placed)
      if (found) placed.push(found)
    }
    expect(placed).toHaveLength(4)
    for (const p of placed) expect(whyIllegal(instance, p, placed)).toBeNull()
  })

  it('a piece finds a free place on an off-cut within its outline, and none on one that is not there', () => {
    const pieces = [{ id: 'a', shape: rectangle([3, -4], 28, 60), qty: 3, turns: 'fixed' as const }]
    const instance: NestInstance = { sheet, gap: 2, pieces, offCuts: [{ id: 'o', outline: ell, margin: 3 }] }
    const at = (copy: number, ground: number) => ({ id: 'a', copy, sheet: ground, x: 0, y: 0, rotation: 0 })
    const first = firstFree(instance, at(0, -1), [])!
    expect(whyIllegal(instance, first, [])).toBeNull()
    // The foot of the off-cut takes another below it, its arm is too narrow for a third.
    const second = firstFree(instance, at(1, -1), [first])!
    expect(whyIllegal(instance, second, [first])).toBeNull()
    expect(firstFree(instance, at(2, -1), [first, second])).toBeNull()
    expect(firstFree(instance, at(2, -2), [])).toBeNull()
  })
})
