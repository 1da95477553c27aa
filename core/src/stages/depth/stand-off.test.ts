import { beforeAll, describe, expect, it } from 'vitest'
import { intersect, loadGeometry, offset, regionArea } from '../../base/geometry'
import { builtLayers, layerRegion, openingRect, type Project } from '../../project'
import { demo } from '../../demo'
import { starterStock } from '../paper'
import { depthSnags } from './snags'
import { depthPlan } from './depth'
import { shimsOf } from './shim'
import { addStandOff, standOffLayers, withoutStandOff } from './stand-off'

beforeAll(() => loadGeometry())

/** Harbour in a frame that is so much deeper. */
const deeper = (mm: number): Project => {
  const project = demo('harbour')
  if (project.mount.kind !== 'frame') throw new Error('a frame is wanted')
  return { ...project, mount: { ...project.mount, depthMm: project.mount.depthMm + mm } }
}
const codes = (project: Project) => depthSnags(project, depthPlan(project)).map(({ code }) => code)

describe('a stand-off ring', () => {
  it('fills what is left before the work with sheets that the lip hides', () => {
    const project = addStandOff(deeper(24), starterStock())
    const rings = standOffLayers(project)
    const before = depthPlan(deeper(24))
    const { depthMm } = project.mount as { depthMm: number }
    // By hand: whole sheets of 2 mm into the gap, a twentieth more since foam gives.
    expect(rings).toHaveLength(Math.floor(((depthMm - before.stackMm) * 1.05) / 2))
    const after = depthPlan(project)
    expect(after.stackMm).toBeCloseTo(before.stackMm, 6)
    expect(after.standOffMm).toBeCloseTo(before.stackMm + 2 * rings.length, 6)
    for (const ring of rings) {
      expect(regionArea(intersect(layerRegion(ring), offset([openingRect(project)!], 0.9)))).toBeLessThan(
        1e-6,
      )
      expect(ring.paperId).toBe('paper-foam-sheet-white')
    }
    expect(codes(project)).not.toContain('ring-off')
    const shims = shimsOf(project, after)
    expect(shims.filter(({ where }) => where === 'front')).toHaveLength(rings.length)
    expect(new Set(builtLayers(withoutStandOff(project)).map(({ id }) => id))).toEqual(
      new Set(builtLayers(demo('harbour')).map(({ id }) => id)),
    )
  })

  it('that no longer fits is told, and made anew', () => {
    const project = addStandOff(deeper(24), starterStock())
    const shallow: Project = {
      ...project,
      mount: {
        ...project.mount,
        depthMm: (project.mount as { depthMm: number }).depthMm - 5,
      } as Project['mount'],
    }
    expect(codes(shallow)).toContain('ring-off')
    expect(codes(addStandOff(shallow, starterStock()))).not.toContain('ring-off')
  })

  it('is refused in a sentence where there is none to make', () => {
    expect(() => addStandOff(demo('bon-voyage'), starterStock())).toThrow(/only a frame/)
    expect(() =>
      addStandOff(
        deeper(24),
        starterStock().filter((p) => p.finish !== 'craft foam'),
      ),
    ).toThrow(/craft foam/)
  })
})

describe('shims behind', () => {
  it('are as high as they can be, lie under the backmost sheet, and are counted', () => {
    const project = deeper(7.3)
    const plan = depthPlan(project)
    const left = plan.roomMm! - plan.stackMm
    expect(plan.shim!.mm).toBeLessThanOrEqual(left)
    expect(left - plan.shim!.mm).toBeLessThan(1)
    expect(plan.shim!.partsMm.reduce((a, b) => a + b, 0)).toBeCloseTo(plan.shim!.mm, 9)
    const needed = (p: Project) => depthPlan(p).foamUse.reduce((sum, use) => sum + use.needed, 0)
    const free: Project = { ...project, mount: { kind: 'free' } }
    expect(needed(project) - needed(free)).toBe(plan.shim!.at.length * plan.shim!.foamIds.length)
  })
})
