// Gaps that are fitted where parts are laid as one stiff body, against the heights that the steps build.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../test/stack'
import { ellipse, subtract } from '../../base/geometry'
import { assemble, setAssembly, type FrameMount, type Layer, type Project } from '../../project'
import { depthPlan } from './depth'
import { fitGaps } from './fit'
import { freeLayers, planGaps, withGaps } from './gaps'

/** A sheet with a tower of two at the right, and a part at the left whose upper card reaches over the tower. */
function bridged(depthMm: number, tower: readonly [number, number], apart = true): Project {
  const project = stack(
    'frame',
    plate('sheet', 0, [0, 0, 200, 120]),
    plate('tower', tower[0], [120, 20, 70, 80]),
    plate('tower-top', tower[1], [125, 25, 60, 70]),
    plate('foot', 2, [10, 20, 70, 80]),
    plate('span', 2, [10, 20, 170, 80]),
    plate('crown', 2, [20, 30, 50, 60]),
  ) as Project & { mount: FrameMount }
  const framed = { ...project, mount: { ...project.mount, depthMm, clearanceMm: 2 } }
  const part = assemble(framed, ['foot', 'span', 'crown'], { id: 'part', name: 'Part' })
  return apart ? part : setAssembly(part, 'part', { apart: false })
}
const roomOf = (depthMm: number) => depthMm - 2
const pinned = (project: Project, ...ids: string[]): Project => ({
  ...project,
  layers: project.layers.map((layer) =>
    ids.includes(layer.id) ? { ...layer, joint: { ...layer.joint, pinned: true } } : layer,
  ),
})

describe('gaps that are fitted where a part is stiff', () => {
  it('come to stand as high as they were reckoned, and never over the room', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 24 }),
        fc.constantFrom(1, 2, 3),
        fc.constantFrom(1, 2, 3),
        fc.boolean(),
        (depthMm, a, b, apart) => {
          const project = bridged(depthMm, [a, b], apart)
          const plan = planGaps(project, roomOf(depthMm))
          const built = depthPlan(withGaps(project, plan.gaps))
          expect(built.stackMm).toBeCloseTo(plan.stackMm, 6)
          expect(built.stackMm).toBeLessThanOrEqual(roomOf(depthMm) + 1e-6)
        },
      ),
      { numRuns: 12 },
    )
  })

  it('are as deep as the part on the tower, worked out by hand', () => {
    // The tower: card and foam twice over the sheet. The span lies on it, whatever its own foot wants; a gap and the crown stand on that.
    const card = 0.29
    const project = pinned(bridged(30, [3, 3]), 'tower', 'tower-top', 'foot', 'span', 'crown')
    expect(freeLayers(project)).toEqual([])
    const byHand = card + 2 * (card + 3) + card + (2 + card)
    expect(planGaps(project, 28).stackMm).toBeCloseTo(byHand, 6)
    expect(depthPlan(project).stackMm).toBeCloseTo(byHand, 6)
    // Built in place the span lies on foam over the tower: 2 mm higher.
    const inPlace = pinned(bridged(30, [3, 3], false), 'tower', 'tower-top', 'foot', 'span', 'crown')
    expect(planGaps(inPlace, 28).stackMm).toBeCloseTo(byHand + 2, 6)
  })

  it('fill the frame: one more step of any gap would be too deep, or miss more', () => {
    const project = fitGaps(bridged(16, [2, 2]))
    const { stackMm } = depthPlan(project)
    expect(stackMm).toBeGreaterThan(roomOf(16) - 1.01)
    expect(stackMm).toBeLessThanOrEqual(roomOf(16) + 1e-6)
  })
})

const framed = (depthMm: number, ...layers: Layer[]): Project => {
  const project = stack('frame', plate('sheet', 0, [0, 0, 200, 120]), ...layers) as Project & {
    mount: FrameMount
  }
  return { ...project, mount: { ...project.mount, depthMm, clearanceMm: 2 } }
}
const curled = (id: string, riseMm: number, size: number): Layer => ({
  ...card(id, 2, [ellipse([60, 60], size)]),
  shaping: { how: 'curl', riseMm, flatMm: size / 2 },
})

describe('gaps that are fitted over what is curled, over what stands out, and under what is narrow', () => {
  it('come to stand as high as they were reckoned, or lower where pads find no room after all', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 14, max: 34 }),
        fc.constantFrom(2, 6, 10),
        fc.integer({ min: 12, max: 50 }),
        fc.integer({ min: 2, max: 24 }),
        fc.constantFrom(0, 4, 9),
        (depthMm, riseMm, over, wide, spike) => {
          const ring = subtract([ellipse([60, 60], 40)], [ellipse([60, 60], 40 - wide)])
          const project = framed(
            depthMm,
            { ...plate('spike', spike, [20, 58, 4, 4]), joint: { kind: 'foam', gapMm: spike, pinned: true } },
            curled('petals', riseMm, 45),
            card('over', 2, [ellipse([60, 60], over)]),
            card('ring', 2, ring),
            plate('beside', 2, [120, 10, 60, 90]),
          )
          const plan = planGaps(project, depthMm - 2)
          const built = depthPlan(withGaps(project, plan.gaps))
          expect(built.stackMm).toBeLessThanOrEqual(plan.stackMm + 1e-6)
          if (built.layers.every(({ glued }) => glued.length === 0))
            expect(built.stackMm).toBeCloseTo(plan.stackMm, 6)
        },
      ),
      { numRuns: 12 },
    )
  })

  it('count no glue on the board, whatever stands by its tabs before it', () => {
    const standing: Layer = {
      ...plate('scene', 0, [0, 0, 60, 40]),
      joint: { kind: 'tab', gapMm: 12, pinned: true },
    }
    const project = framed(40, plate('on', 0, [10, 10, 90, 90]))
    const layers = [standing, ...project.layers]
    const hot: Project = { ...project, layers, plan: { ...project.plan, adhesiveId: 'glue-hot' } }
    const bottoms = depthPlan(hot).pieces.map(({ bottomMm }) => bottomMm)
    // Half a millimetre of hot glue under what lies on the sheet, none under the sheet.
    expect(bottoms).toEqual([12, 0, 0.79])
    expect(planGaps(hot, 38).stackMm).toBeCloseTo(0.29 + 0.5 + 0.29, 6)
  })

  it('are as high as curled card under them, worked out by hand', () => {
    // The disc in front rests on the petals where they have risen, not on their middle.
    const project = pinned(
      framed(40, curled('petals', 6, 45), card('over', 2, [ellipse([60, 60], 40)])),
      'petals',
      'over',
    )
    const byHand = 0.29 + (2 + 0.29) + 6 + (2 + 0.29)
    expect(planGaps(project, 38).stackMm).toBeCloseTo(byHand, 6)
    expect(depthPlan(project).stackMm).toBeCloseTo(byHand, 6)
  })

  it('are none where no foam finds room, and so low that foam stays hidden', () => {
    const ring = (mm: number) =>
      card('ring', 2, subtract([ellipse([60, 60], 50)], [ellipse([60, 60], 50 - mm)]))
    const gapUnder = (mm: number) => planGaps(framed(30, ring(mm)), 28).gaps[0]!.gapMm
    expect(gapUnder(3)).toBe(0)
    // Seen from the side, a higher pad is to lie farther in.
    expect(gapUnder(9)).toBeGreaterThan(0)
    expect(gapUnder(9)).toBeLessThan(gapUnder(30))
  })
})
