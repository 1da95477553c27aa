// Pads along the lip, against plain sums and rectangles.
import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { rectangle, regionArea, subtract, intersect } from '../../base/geometry'
import { setPlan, type FrameMount, type Project } from '../../project'
import { mendProject } from '../mend'
import { depthPlan } from './depth'
import { builds, footprints } from './foam'
import { lipShapes } from './lip'
import { shimsOf } from './shim'

const CARD = 0.29

/** A sheet of 200 mm behind an opening that leaves a lip on all sides; 14 mm to the pane. */
function framed(lipMm = 9, patch: Partial<FrameMount> = {}): Project {
  const project = stack('frame', plate('sheet', 0, [0, 0, 200, 200]), plate('top', 2, [60, 60, 80, 80]))
  const side = 200 - 2 * lipMm
  const mount: FrameMount = {
    ...(project.mount as FrameMount),
    spacer: { widthMm: 200, heightMm: 200 },
    opening: { ...(project.mount as FrameMount).opening, widthMm: side, heightMm: side },
    depthMm: 14,
    clearanceMm: 2,
    ...patch,
  }
  return setPlan({ ...project, mount }, { fill: 'lip' })
}

describe('pads along the lip', () => {
  const project = framed()
  const { lip, shim, foamUse } = depthPlan(project)

  it('are the thickest build that goes from the sheet to the pane; nothing is packed behind', () => {
    const heights = footprints(project.drawer.foams).flatMap((size) => builds(size).map((b) => b.totalMm))
    const best = Math.max(...heights.filter((mm) => mm <= 14 - CARD))
    expect(lip!.bottomMm).toBeCloseTo(CARD, 6)
    expect(lip!.mm).toBeCloseTo(best, 6)
    expect(lip!.partsMm.reduce((sum, mm) => sum + mm, 0)).toBeCloseTo(best, 6)
    expect(shim).toBeNull()
  })

  it('lie under the lip on card, on every side, none on another', () => {
    const shapes = lipShapes(lip!)
    const band = subtract([rectangle([0, 0], 200, 200)], [rectangle([9, 9], 182, 182)])
    const area = shapes.reduce((sum, shape) => sum + regionArea([shape]), 0)
    expect(regionArea(intersect(shapes, band))).toBeCloseTo(area, 3)
    for (const [k, one] of shapes.entries())
      for (const other of shapes.slice(k + 1)) expect(intersect([one], [other])).toEqual([])
    const count = (isThere: (at: { x: number; y: number }) => boolean) => lip!.at.filter(isThere).length
    for (const n of [
      count(({ y }) => y < 9),
      count(({ y }) => y > 191),
      count(({ x }) => x < 9),
      count(({ x }) => x > 191),
    ])
      // prettier-ignore
      expect(n).toBeGreaterThan(1)
  })

  it('are counted as foam, told as fillings in front, and set before the pane goes in', () => {
    const bare = depthPlan(setPlan(project, { fill: 'behind' }))
    const [id] = lip!.foamIds
    const needed = (use: typeof foamUse) => use.find(({ foam }) => foam.id === id)?.needed ?? 0
    const ofIt = lip!.foamIds.filter((one) => one === id).length * lip!.at.length
    const behind = (bare.shim?.foamIds ?? []).filter((one) => one === id).length * (bare.shim?.at.length ?? 0)
    expect(needed(foamUse) - ofIt).toBe(needed(bare.foamUse) - behind)
    const filled = shimsOf(project, depthPlan(project))
    expect(filled.map(({ where }) => where)).toEqual(lip!.foamIds.map(() => 'front'))
    const ids = results(project).assembly.steps.map((step) => step.id)
    expect(ids.indexOf('lip-pads')).toBe(ids.indexOf('glaze') - 1)
    expect(results(project).snags.some(({ code }) => code === 'floats')).toBe(false)
  })

  it('stand on what is highest under the lip, and only there', () => {
    const border = stack('frame', plate('sheet', 0, [0, 0, 200, 200]), plate('left', 2, [0, 0, 30, 200]))
    const plan = depthPlan(setPlan({ ...border, mount: project.mount }, { fill: 'lip' }))
    expect(plan.lip!.bottomMm).toBeCloseTo(2 * CARD + 2, 6)
    for (const { x, widthMm } of plan.lip!.at) expect(x + widthMm / 2).toBeLessThanOrEqual(30 + 1e-9)
  })

  it('are none where the lip hides too little: it is told, and filled behind', () => {
    const narrow = framed(3)
    expect(depthPlan(narrow).lip).toBeNull()
    expect(depthPlan(narrow).shim).not.toBeNull()
    const snag = results(narrow).snags.find(({ code }) => code === 'no-lip-pads')!
    const mended = mendProject(narrow, snag.mend!.action, [])
    expect(results(mended).snags.some(({ code }) => code === 'no-lip-pads')).toBe(false)
    expect(depthPlan(stack('card', plate('sheet', 0, [0, 0, 100, 100]))).lip).toBeNull()
  })
})
