// Gaps fitted to the depth at hand, against every choice of foam.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { wordsIn } from '../../base/units'
import { demo } from '../../demo'
import { setLayer, setPlan, starterFoams, type Foam, type Project } from '../../project'
import {
  depthPlan,
  depthSnags,
  fitGaps,
  freeLayers,
  gapChoices,
  planGaps,
  profileShares,
  withGaps,
} from './index'

const CARD = 0.29

describe('gaps fitted to the frame', () => {
  const foam = (thicknessMm: number): Foam => ({
    ...starterFoams[0]!,
    id: `f${thicknessMm}`,
    name: `${thicknessMm}`,
    widthMm: 6,
    heightMm: 6,
    thicknessMm,
    perPack: 100,
    pricePerPack: 1,
    count: 100,
  })
  const four = (foams: Foam[]) => {
    const project = stack(
      'frame',
      plate('a', 0, [0, 0, 200, 200]),
      plate('b', 2, [0, 0, 200, 200]),
      plate('c', 2, [0, 0, 200, 200]),
      plate('d', 2, [0, 0, 200, 200]),
    )
    return { ...project, drawer: { ...project.drawer, foams } }
  }

  it('are the best there are: no other choice of foam is nearer to the profile', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(0.5, 1, 1.5, 2, 3), { minLength: 1, maxLength: 3 }),
        fc.double({ min: 2, max: 22, noNaN: true }),
        fc.constantFrom<'even' | 'front' | 'hero'>('even', 'front', 'hero'),
        (thicknesses, room, profile) => {
          const project = setPlan(four(thicknesses.map(foam)), { profile })
          const plan = planGaps(project, room)
          const fixed = 4 * CARD
          const targets = profileShares(project, freeLayers(project)).map(
            (s) => s * Math.max(0, room - fixed),
          )
          const cost = (gaps: number[]) =>
            gaps.reduce((sum, g, i) => sum + (g - targets[i]!) ** 2 + (g === 0 ? 400 : 0), 0)
          const choices = [0, ...gapChoices(project.drawer.foams).map((c) => c.gapMm)]
          let best = Infinity
          for (const x of choices)
            for (const y of choices)
              for (const z of choices)
                if (fixed + x + y + z <= room + 1e-9) best = Math.min(best, cost([x, y, z]))
          expect(cost(plan.gaps.map((g) => g.gapMm))).toBeCloseTo(best, 6)
          expect(plan.stackMm).toBeLessThanOrEqual(room + 1e-6)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('share the depth where layers lie side by side, and come back where they were glued for want of room', () => {
    // Nine cards abreast on a backing, in 12 mm of room: each may have what foam makes of it.
    const abreast = stack(
      'frame',
      plate('back', 0, [0, 0, 200, 200]),
      ...Array.from({ length: 9 }, (_, i) => plate(`c${i}`, 2, [5 + i * 21, 40, 18, 100])),
    )
    const project = { ...abreast, drawer: { ...abreast.drawer, foams: [foam(1), foam(2), foam(3)] } }
    const plan = planGaps(project, 12)
    for (const { gapMm } of plan.gaps) expect(gapMm).toBe(6)
    expect(plan.stackMm).toBeCloseTo(2 * CARD + 6, 6)
    const deep = { ...project, mount: { ...project.mount, depthMm: 10, clearanceMm: 2 } as Project['mount'] }
    const flat = fitGaps({ ...deep, mount: { ...deep.mount, depthMm: 2.6 } as Project['mount'] })
    expect(flat.layers[1]!.joint).toMatchObject({ kind: 'glue', byFit: true })
    const again = fitGaps({ ...flat, mount: deep.mount })
    expect(again.layers[1]!.joint).toMatchObject({ kind: 'foam', gapMm: 6 })
    expect(again.layers[1]!.joint.byFit).toBeUndefined()
  })

  it('are the best where chains of layers cross: against every choice', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 1, max: 3 })), { minLength: 3, maxLength: 4 }), // prettier-ignore
        fc.double({ min: 2, max: 9, noNaN: true }),
        (list, room) => {
          const base = stack('frame', plate('back', 0, [0, 0, 200, 200]), ...list.map(([x, w], i) => plate(`l${i}`, 1, [x * 40, 10, w * 40, 80]))) // prettier-ignore
          const project = { ...base, drawer: { ...base.drawer, foams: [foam(1), foam(2)] } }
          const { gaps, stackMm } = planGaps(project, room)
          // Heights by hand: over all that lies under it.
          const height = (g: readonly number[]) => {
            const tops: number[] = []
            list.forEach(([x, w], i) => {
              const under = list.flatMap(([u, v], k) => (k < i && u < x + w && x < u + v ? [tops[k]!] : []))
              tops.push(Math.max(CARD, ...under) + g[i]! + CARD)
            })
            return Math.max(CARD, ...tops)
          }
          expect(stackMm).toBeCloseTo(height(gaps.map(({ gapMm }) => gapMm)), 6)
          expect(stackMm).toBeLessThanOrEqual(Math.max(room, height(list.map(() => 0))) + 1e-5)
          // No single gap could be the next larger one, nor two exchanged for less, and still fit better.
          const choices = [0, ...gapChoices(project.drawer.foams).map(({ gapMm }) => gapMm)]
          for (const k of list.keys()) {
            const own = gaps.map(({ gapMm }) => gapMm)
            if (own[k] !== 0) continue
            // Where a layer was glued, no foam at all fits there with the others as they are.
            const least = own.slice()
            least[k] = choices[1]!
            expect(height(least)).toBeGreaterThan(room - 1e-6)
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('keep what is pinned, and say where even glue is too deep', () => {
    const project = setLayer(four([foam(1), foam(2)]), 'b', {
      joint: { kind: 'foam', gapMm: 7, pinned: true },
    })
    const fitted = fitGaps(project)
    expect(fitted.layers[1]!.joint).toEqual({ kind: 'foam', gapMm: 7, pinned: true })
    expect(depthPlan(fitted).stackMm).toBeLessThanOrEqual(22)
    expect(planGaps(project, 1).fits).toBe(false)
  })

  it('mend a stack that is too deep', () => {
    const project = demo('harbour')
    const shallow: Project = { ...project, mount: { ...project.mount, depthMm: 14 } as Project['mount'] }
    expect(depthSnags(shallow, depthPlan(shallow)).map((s) => s.code)).toContain('stack-too-deep')
    const fitted = fitGaps(shallow)
    expect(depthPlan(fitted).stackMm).toBeLessThanOrEqual(12)
    expect(depthSnags(fitted, depthPlan(fitted)).map((s) => s.code)).not.toContain('stack-too-deep')
  })

  it('go in as they are built, where pads find room otherwise than was reckoned gap by gap', () => {
    const project = stack(
      'card',
      plate('a', 0, [2, 45, 21, 39], [8, 24, 24, 27]),
      plate('b', 2, [42, 46, 27, 47], [18, 52, 31, 8]),
      plate('c', 2, [4, 46, 41, 43]),
      plate('d', 2, [15, 68, 31, 29], [42, 50, 17, 34]),
    )
    const tight = {
      ...project,
      mount: { ...project.mount, depthMm: 6.9, clearanceMm: 0 } as Project['mount'],
    }
    const reckoned = planGaps(tight, 6.9)
    expect(reckoned.stackMm).toBeLessThan(6.9)
    expect(depthPlan(withGaps(tight, reckoned.gaps)).stackMm).toBeGreaterThan(7)
    const { stackMm } = depthPlan(fitGaps(tight))
    expect(stackMm).toBeLessThan(6.9)
    // And no more is given up than need be.
    expect(stackMm).toBeGreaterThan(6)
  })

  it('leave room for the glue that stays, and for what is folded up', () => {
    for (const name of ['harbour', 'tide-rose', 'kittiwake'] as const)
      for (const depthMm of [14, 24, 32]) {
        const project = setPlan(demo(name), { adhesiveId: 'glue-hot' })
        const shallow = { ...project, mount: { ...project.mount, depthMm } as Project['mount'] }
        const { stackMm, fits } = planGaps(shallow, depthPlan(shallow).roomMm!)
        const fitted = depthPlan(fitGaps(shallow))
        expect(fitted.stackMm).toBeLessThanOrEqual(stackMm + 1e-5)
        if (fits) expect(fitted.stackMm).toBeLessThanOrEqual(fitted.roomMm! + 1e-5)
      }
  })

  it('are offered as far as they go where the room is not enough, and not where none can be less', () => {
    const project = demo('harbour')
    const flat: Project = { ...project, mount: { ...project.mount, depthMm: 4 } as Project['mount'] }
    const told = (of: Project) => depthSnags(of, depthPlan(of)).find(({ code }) => code === 'stack-too-deep')!
    const { message, mend } = told(flat)
    const leastMm = depthPlan(fitGaps(flat)).stackMm
    expect(wordsIn(message, 'mm')).toContain(`At the least it is ${leastMm.toFixed(1)} mm: leave a layer out`)
    expect(wordsIn(mend!.label, 'mm')).toBe(`Fit the gaps to ${leastMm.toFixed(1)} mm`)
    expect(told(fitGaps(flat)).mend).toBeUndefined()
  })

  it('leave a shim that goes into what is left', () => {
    const plan = depthPlan(demo('harbour'))
    expect(plan.shim!.mm).toBeLessThanOrEqual(plan.roomMm! - plan.stackMm + 1e-9)
    expect(plan.roomMm! - plan.stackMm - plan.shim!.mm).toBeLessThan(1)
  })
})
