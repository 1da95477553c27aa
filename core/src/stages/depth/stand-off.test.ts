import { beforeAll, describe, expect, it } from 'vitest'
import {
  boxHeight,
  boxWidth,
  intersect,
  loadGeometry,
  offset,
  regionArea,
  regionBox,
} from '../../base/geometry'
import {
  adhesiveOf,
  builtLayers,
  changeKind,
  layerRegion,
  openingRect,
  pieceRegion,
  removeLayer,
  setLayer,
  setPlan,
  type Project,
} from '../../project'
import { demo } from '../../demo'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { fitDesign } from '../measure'
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
/** Two sheets in a frame as deep; quicker to reckon. */
const small = (depthMm: number): Project => {
  const project = stack('frame', plate('back', 0, [0, 0, 200, 200]), plate('mid', 2, [0, 0, 200, 200]), plate('front', 2, [0, 0, 200, 200])) // prettier-ignore
  return { ...project, mount: { ...project.mount, depthMm } as Project['mount'] }
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
    // The work reaches the pane: no sheet goes in, and nothing is cut of foam.
    expect(() => addStandOff(small(4), starterStock())).toThrow(/0 mm are left/)
  })

  it('rests on the work, whatever is on the pane before it', () => {
    const project = small(24)
    const behindPane = setLayer(project, 'front', { lives: 'behind-pane' })
    const without = removeLayer(project, 'front')
    const sheets = (of: Project) => standOffLayers(addStandOff(of, starterStock())).length
    expect(sheets(behindPane)).toBe(sheets(without))
  })

  it('leaves room for the glue between its sheets', () => {
    const project = addStandOff(setPlan(small(24), { adhesiveId: 'glue-hot' }), starterStock())
    const glueMm = adhesiveOf(project)!.thicknessMm
    const n = standOffLayers(project).length
    const { stackMm, standOffMm } = depthPlan(project)
    expect(glueMm).toBeGreaterThan(0.3)
    expect(standOffMm).toBeCloseTo(stackMm + n * (2 + glueMm), 6)
    expect(codes(project)).not.toContain('ring-off')
  })

  it('keeps what is less than a sheet as air, and is no false alarm', () => {
    const project = addStandOff(small(21.3), starterStock())
    const { standOffMm } = depthPlan(project)
    // By hand: three cards of 0.29, two pads of 2, eight sheets of 2; half a millimetre is left.
    expect(standOffMm).toBeCloseTo(20.87, 6)
    const told = results(project, starterStock()).snags
    expect(told.map(({ code }) => code)).not.toContain('ring-off')
  })

  it('is cut in strips that the sheets hold, and covers the same', () => {
    const project = small(24)
    const wide = (widthMm: number): Project => ({
      ...project,
      mount: {
        ...project.mount,
        spacer: { widthMm, heightMm: 200 },
        opening: { widthMm: widthMm - 14, heightMm: 186 },
      } as Project['mount'],
    })
    const [ring] = standOffLayers(addStandOff(wide(640), starterStock()))
    const boxes = ring!.pieces.map((piece) => regionBox(pieceRegion(piece)))
    expect(boxes).toHaveLength(8)
    for (const box of boxes) expect(boxWidth(box)).toBeLessThan(304.8 - 2 * 6.35)
    // By hand: half a millimetre off the spacer, one behind the lip.
    expect(regionArea(layerRegion(ring!))).toBeCloseTo(639 * 199 - 628 * 188, 1)
    expect(codes(addStandOff(wide(640), starterStock()))).not.toContain('ring-off')
    // Of measures that are not round the strips at the sides are strips as well, and not one piece with a line between.
    for (const mm of [302.5771075487137, 333.3333333, 411.8741]) {
      const frame = wide(mm)
      const square = {
        spacer: { widthMm: mm, heightMm: mm },
        opening: { widthMm: mm * 0.93, heightMm: mm * 0.93 },
      }
      const framed = { ...frame, mount: { ...frame.mount, ...square } as Project['mount'] }
      const [own] = standOffLayers(addStandOff(framed, starterStock()))
      for (const box of own!.pieces.map((piece) => regionBox(pieceRegion(piece))))
        expect(Math.min(boxWidth(box), boxHeight(box))).toBeLessThan(16)
    }
  })

  it('is told where the frame is another, belongs to it, and stays when the work is sized', () => {
    const project = addStandOff(small(24), starterStock())
    const { mount } = project
    const opened: Project = {
      ...project,
      mount: { ...mount, opening: { widthMm: 190, heightMm: 190 } } as Project['mount'],
    }
    expect(codes(opened)).toContain('ring-off')
    expect(codes(addStandOff(opened, starterStock()))).not.toContain('ring-off')
    expect(standOffLayers(fitDesign({ ...opened, mount }))).toEqual(standOffLayers(project))
    expect(standOffLayers(changeKind(project, 'card'))).toEqual([])
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
