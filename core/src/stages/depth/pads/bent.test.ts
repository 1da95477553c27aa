// Strips that may be bent, under narrow rings where a straight one finds no room.
import { describe, expect, it } from 'vitest'
import { card, stack } from '../../../../test/stack'
import { results } from '../../../../test/results'
import { ellipse, rectangle, regionArea, reversed, subtract, type Region } from '../../../base/geometry'
import { padsToPlan, putPad, transformLayers, type Foam, type Project } from '../../../project'
import { depthPlan } from '../depth'
import { Edges } from './edges'
import { padChords, padOutline } from './lie'
import { overlaps } from './pads'
import type { Pad } from './poses'

const ring = (r: number, widthMm: number): Region => [
  { outer: ellipse([100, 100], r).outer, holes: [reversed(ellipse([100, 100], r - widthMm).outer)] },
]
/** A ring on foam over a sheet, with strips of 30 by 3 mm alone at hand. */
function ringed(mayBend: boolean, r = 50): Project {
  const project = stack('free', card('sheet', 0, [rectangle([0, 0], 200, 200)]), card('ring', 2, ring(r, 9)))
  const [first] = project.drawer.foams
  const strip: Foam = { ...first!, id: 'strip', name: 'strips', form: 'strips', widthMm: 30, heightMm: 3, thicknessMm: 2, mayBend } // prettier-ignore
  return { ...project, drawer: { ...project.drawer, foams: [strip] } }
}
const padsOf = (project: Project): Pad[] =>
  depthPlan(project).pads.filter(({ layerId }) => layerId === 'ring')
const misfitsOf = (project: Project) => depthPlan(project).layers.flatMap(({ misfits }) => misfits)
const centreOf = ({ x, y, rotation, bendMm }: Pad) => {
  const t = (rotation * Math.PI) / 180
  return [x - bendMm! * Math.sin(t), y + bendMm! * Math.cos(t)] as const
}

describe('strips that may be bent', () => {
  it('find room under a ring where straight ones find none, each along the ring, none on another', () => {
    expect(padsOf(ringed(false))).toEqual([])
    const pads = padsOf(ringed(true))
    expect(pads.length).toBeGreaterThan(3)
    for (const pad of pads) {
      // Bent about the middle of the ring, by hand: within its inner and its outer edge.
      const [cx, cy] = centreOf(pad)
      expect(Math.hypot(cx - 100, cy - 100)).toBeLessThan(1)
      expect(Math.abs(pad.bendMm!)).toBeGreaterThan(41)
      expect(Math.abs(pad.bendMm!)).toBeLessThan(50)
      const outside = subtract([{ outer: padOutline(pad), holes: [] }], ring(50, 9))
      expect(regionArea(outside)).toBe(0)
      expect(new Edges(ring(50, 9)).holdsAll(padChords(pad))).toBe(true)
    }
    for (const a of pads) for (const b of pads) if (a !== b) expect(overlaps(a, b)).toBe(false)
  })

  it('are not bent tighter than foam bends, whatever a document says', () => {
    expect(padsOf(ringed(true, 14))).toEqual([])
    const put = putPad(ringed(true), { id: 'mine', layerId: 'ring', pieceId: 'p1', x: 100, y: 55, rotation: 0, bendMm: 1e-6, foamIds: ['strip'] }) // prettier-ignore
    expect(padsOf(put).find(({ handId }) => handId === 'mine')!.bendMm).toBeUndefined()
  })

  it('are told in the step, and stay bent when they are moved by hand, and their layer mirrored', () => {
    const project = ringed(true)
    const step = results(project).assembly.steps.find(({ id }) => id === 'pad-ring')!
    expect(JSON.stringify(step.detail)).toContain('bent along the curve')
    const [pad] = padsOf(project)
    const { layerId, pieceId, x, y, rotation, bendMm, foamIds } = pad!
    const put = putPad(project, { id: 'mine', layerId, pieceId, x, y, rotation, bendMm: bendMm!, foamIds })
    const mine = padsOf(put).find(({ handId }) => handId === 'mine')!
    expect(mine.bendMm).toBe(bendMm)
    expect(misfitsOf(put)).toEqual([])
    // Mirrored about the middle of the ring it lies on the ring still, bent about the same middle.
    const mirrored = transformLayers(put, [-1, 0, 0, 1, 200, 0])
    const there = padsOf(mirrored).find(({ handId }) => handId === 'mine')!
    const [cx, cy] = centreOf(there)
    expect(Math.hypot(cx - 100, cy - 100)).toBeLessThan(1)
    expect(misfitsOf(mirrored)).toEqual([])
    expect(padsToPlan(mirrored, 'ring').plan.handPads).toEqual([])
  })
})
