import { describe, expect, it } from 'vitest'
import { wordsIn } from '../../base/units'
import { pathToRegion, regionBox } from '../../base/geometry'
import { plate, stack } from '../../../test/stack'
import { pressOn, setLayer, setPlan, type Layer, type Paper, type Project } from '../../project'
import { planAssembly } from '../assembly'
import { mendProject } from '../mend'
import { starterStock } from '../paper'
import { nestProject, planLoads } from '../sheets'
import { depthPlan } from './depth'
import { carriersOf, heatSnags, pressesOf } from './heat'

const film: Paper = {
  ...starterStock().find(({ name }) => name === 'Window film')!,
  id: 'film',
  name: 'Flock film',
  press: { tempC: 155, seconds: 12, peel: 'cold' },
}
/** Two letters on a plate that lies on foam over a backing. */
const work = (motif: Layer, ...more: Layer[]): Project => {
  const project = stack(
    'frame',
    plate('back', 0, [0, 0, 200, 200]),
    plate('plate', 2, [20, 20, 160, 120]),
    ...more,
    motif,
  )
  const papered = {
    ...project,
    drawer: { ...project.drawer, papers: [...project.drawer.papers, ...starterStock(), film] },
  }
  return pressOn(setLayer(papered, motif.id, { paperId: 'film' }), motif.id)
}
const motif = plate('motif', 0, [40, 40, 30, 30], [90, 40, 50, 30])
const codes = (project: Project) => heatSnags(project, depthPlan(project).pieces).map(({ code }) => code)

describe('film for heat', () => {
  it('lies flat on the card right below it, and is pressed before that goes onto its foam', () => {
    const project = work(motif)
    const plan = depthPlan(project)
    const top = plan.layers.find(({ layerId }) => layerId === 'plate')!.topMm
    expect(plan.layers.find(({ layerId }) => layerId === 'motif')!.bottomMm).toBeCloseTo(top, 9)
    expect(carriersOf(project, plan.pieces, project.layers[2]!).map(({ id }) => id)).toEqual(['plate'])
    expect(codes(project)).toEqual([])
    const loads = planLoads(project, { runs: nestProject(project, 0) })
    const { steps } = planAssembly({ project, loads, depth: plan })
    const press = steps.find(({ kind }) => kind === 'press')!
    expect(wordsIn(press.detail, 'mm')).toContain('155 °C for 12 s')
    expect(wordsIn(press.detail, 'mm')).toContain('“plate”')
    expect(press.caution).toMatch(/burns/)
    const laid = steps.find(({ id }) => id === 'lay-plate')!
    expect(laid.startMin).toBeGreaterThanOrEqual(press.endMin)
    for (const id of press.after)
      expect(steps.find((s) => s.id === id)!.endMin).toBeLessThanOrEqual(press.startMin)
    // It is in no step of laying or gluing.
    expect(steps.filter(({ layerId }) => layerId === 'motif').map(({ kind }) => kind)).toEqual(['press'])
  })

  it('is cut in one, from behind', () => {
    const project = work(motif)
    const load = planLoads(project, { runs: nestProject(project, 0) }).find(
      ({ paper }) => paper.id === 'film',
    )!
    const boxes = load.pieces.map(({ shape }) => regionBox([shape])).toSorted((a, b) => a.minX - b.minX)
    // Seen, the narrow part is at the left and the wide one 20 mm to its right; cut, it is the other way round.
    expect(boxes.map(({ minX, maxX }) => Math.round(maxX - minX)).toSorted((a, b) => a - b)).toEqual([30, 50])
    const across = boxes.map(({ minX, maxX, minY, maxY }) => ({
      w: Math.round(maxX - minX),
      h: Math.round(maxY - minY),
    }))
    if (across.every(({ h }) => h === 30)) {
      expect(across[0]!.w).toBe(50)
      expect(boxes[1]!.minX - boxes[0]!.maxX).toBeCloseTo(20, 3)
    }
    expect(pathToRegion(project.layers[2]!.pieces[0]!.path)).toHaveLength(1)
  })

  it('wants as many presses as the plate asks for', () => {
    const project = work(plate('motif', 0, [30, 30, 140, 60]))
    const layer = project.layers[2]!
    const by = (widthMm: number, heightMm: number) =>
      pressesOf(setPlan(project, { plate: { widthMm, heightMm } }), layer)
    expect(by(230, 230)).toBe(1)
    expect(by(100, 60)).toBe(2)
    // Turned it does with two.
    expect(by(60, 100)).toBe(2)
    expect(by(50, 50)).toBe(6)
  })

  it('that would go wrong is told: no label, not mirrored, over an edge, over nothing, on what melts', () => {
    const project = work(motif)
    const noLabel = {
      ...project,
      drawer: { ...project.drawer, papers: project.drawer.papers.map((p) => ({ ...p, press: null })) },
    }
    expect(codes(noLabel)).toEqual(['press-unknown'])
    const plain = setLayer(project, 'motif', { cutMirrored: false })
    expect(codes(plain)).toEqual(['film-not-mirrored'])
    const [snag] = heatSnags(plain, depthPlan(plain).pieces)
    expect(codes(mendProject(plain, snag!.mend!.action, []))).toEqual([])
    expect(codes(work(plate('motif', 0, [40, 100, 60, 80])))).toEqual(['press-uneven'])
    const clear = setLayer(project, 'plate', { paperId: 'paper-clear-pane' })
    expect(codes(clear)).toEqual(['press-melts'])
  })
})
