import { describe, expect, it } from 'vitest'
import { demo } from '../demo'
import { results } from '../../test/results'
import { bedOf, matFor, starterCutters, wearMats, wearOf, type Cutter, type Mat } from './index'
import { changeCutter, cutWithTool, refreshSupplies, starterSupplies, supplyChanges, applySupplyChanges } from './index' // prettier-ignore

const mat = (
  id: string,
  tack: Mat['tack'],
  { sides: [widthMm, heightMm], loads = 0 }: { sides: [number, number]; loads?: number },
): Mat => ({
  id,
  name: id,
  tack,
  widthMm,
  heightMm,
  loads,
  lasts: 40,
  price: 10,
})
const sheet = { widthMm: 300, heightMm: 300 }

describe('mats', () => {
  it('are chosen by tack and size, the least worn first', () => {
    const mats = [mat('a', 'medium', { sides: [305, 305], loads: 12 }), mat('b', 'medium', { sides: [305, 305], loads: 3 }), mat('c', 'high', { sides: [305, 305] })] // prettier-ignore
    expect(matFor({ mats }, 'medium', sheet)).toEqual({ matId: 'b', name: 'b', mind: [] })
    expect(matFor({ mats: [] }, 'medium', sheet)).toBeNull()
  })

  it('that are not at hand are stood in for, and it is said what to mind', () => {
    const mats = [mat('low', 'low', { sides: [305, 305] }), mat('high', 'high', { sides: [305, 305] })]
    // What holds less is taped; what holds more would tear the card.
    expect(matFor({ mats }, 'medium', sheet)).toMatchObject({ matId: 'low', mind: ['holds less'] })
    expect(matFor({ mats: [mats[1]!] }, 'low', sheet)!.mind).toEqual(['holds more'])
    expect(matFor({ mats }, 'low', { widthMm: 300, heightMm: 500 })!.mind).toEqual(['too small'])
    expect(
      matFor({ mats: [mat('old', 'low', { sides: [305, 305], loads: 40 })] }, 'low', sheet)!.mind,
    ).toEqual(['done'])
  })

  it('wear by the loads that are cut on them', () => {
    const cutters = wearMats(starterCutters, ['mat-medium', 'mat-medium', 'mat-low'])
    const loadsOf = (id: string) => cutters.flatMap(({ mats }) => mats).find((one) => one.id === id)!.loads
    expect([loadsOf('mat-medium'), loadsOf('mat-low'), loadsOf('mat-high')]).toEqual([2, 1, 0])
    expect([29, 30, 40].map((loads) => wearOf({ loads, lasts: 40 }))).toEqual(['good', 'worn', 'done'])
  })

  it('limit the bed: a long bed reaches no farther than its longest mat', () => {
    const long = starterCutters.find(({ id }) => id === 'cutter-long')!
    expect(bedOf(long).bedHeightMm).toBeCloseTo(609.6, 6)
    expect(bedOf({ ...long, mats: long.mats.slice(2) }).bedHeightMm).toBeCloseTo(304.8, 6)
  })
})

describe('what cuts', () => {
  it('is shared by all projects, and each is cut with one of them', () => {
    const before = starterSupplies()
    const project = cutWithTool(refreshSupplies(demo('bon-voyage'), before), 'cutter-small')
    expect(project.drawer.cutter.id).toBe('cutter-small')
    const slower = (one: Cutter): Cutter => ({ ...one, speedMmPerS: 20 })
    const held = changeCutter({ project, supplies: before }, 'cutter-small', slower)
    const changes = supplyChanges(before, held.supplies)!
    expect(changes.cutters!.changed).toEqual([{ id: 'cutter-small', fields: { speedMmPerS: 20 }, count: 0 }])
    const refreshed = refreshSupplies(project, applySupplyChanges(before, changes))
    expect(refreshed.drawer.cutter.speedMmPerS).toBe(20)
  })

  it('by knife asks for wider strips and takes hands; board takes several cuts, card one', () => {
    const own = refreshSupplies(demo('bon-voyage'), starterSupplies())
    const byKnife = cutWithTool(own, 'knife')
    const [machine, knife] = [results(own), results(byKnife)]
    expect(knife.loads.every(({ setting }) => setting.passes === 1 && setting.basis.from === 'hand')).toBe(
      true,
    )
    const cuts = knife.assembly.steps.filter(({ kind }) => kind === 'cut')
    expect(cuts.every(({ needs }) => needs.join() === 'hands')).toBe(true)
    expect(machine.assembly.steps.find(({ kind }) => kind === 'cut')!.needs).toEqual(['cutter'])
    const least = (all: typeof machine) => all.sound.flatMap(({ necks }) => necks).length
    expect(least(knife)).toBeGreaterThan(least(machine))
    const board = { ...byKnife, drawer: { ...byKnife.drawer, papers: byKnife.drawer.papers.map((paper) => ({ ...paper, finish: 'chipboard' as const, thicknessMm: 1.5 })) } } // prettier-ignore
    expect(results(board).loads.every(({ setting }) => setting.passes > 2)).toBe(true)
  })
})
