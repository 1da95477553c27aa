import { describe, expect, it } from 'vitest'
import { ellipse, offset, rectangle, regionContains, subtract, type Region } from '../../base/geometry'
import { wordsIn } from '../../base/units'
import { card, plate } from '../../../test/stack'
import { newProject, setLayer, setPlan, type Layer, type Project } from '../../project'
import { planAssembly } from '../assembly'
import { mendProject } from '../mend'
import { depthPlan } from './depth'
import { PIN_HEAD_MM, pinSnags } from './pins'

const onFabric = (...layers: Layer[]): Project => ({
  ...newProject('p', 'Pinned', {
    kind: 'frame',
    spacer: { widthMm: 200, heightMm: 160 },
    opening: { widthMm: 180, heightMm: 140 },
    depthMm: 30,
    back: 'fabric',
  }),
  layers,
})
const pinned = (project: Project, id = 'back'): Project =>
  setLayer(project, id, { joint: { kind: 'pins', gapMm: 0, pinned: true } })
const codes = (project: Project) => pinSnags(project, depthPlan(project).pins).map(({ code }) => code)
const back = plate('back', 0, [0, 0, 200, 160])
/** A sheet with a round opening, so much over what is below. */
const frame = (gapMm: number): Layer =>
  card('ring', gapMm, subtract([rectangle([0, 0], 200, 160)], [ellipse([100, 80], 45)]))

/** What hides: the sheet in front, and past its edges the frame's lip. */
const cover = subtract([rectangle([-60, -60], 320, 280)], [ellipse([100, 80], 45)])

/** Places that an eye from 16 sides at an angle sees past a cover that lies so high: by brute force. */
function isSeen(
  cover: Region,
  [x, y]: readonly [number, number],
  { heightMm, deg }: { heightMm: number; deg: number },
): boolean {
  const reach = heightMm * Math.tan((deg * Math.PI) / 180)
  return Array.from({ length: 17 }, (_, k) => {
    const [dx, dy] = k === 16 ? [0, 0] : [Math.cos((k * Math.PI) / 8), Math.sin((k * Math.PI) / 8)]
    return !regionContains(cover, x + dx * reach, y + dy * reach)
  }).some(Boolean)
}

describe('pins into fabric', () => {
  it('go where layers above hide their heads from every side, on the sheet and away from its edge', () => {
    const project = pinned(onFabric(back, frame(3)))
    const { pins, shim } = depthPlan(project)
    expect(pins!.at.length).toBeGreaterThanOrEqual(4)
    expect(shim).toBeNull()
    const inner = offset([rectangle([0, 0], 200, 160)], -3.9)
    for (const at of pins!.at) {
      expect(regionContains(inner, ...at)).toBe(true)
      expect(isSeen(cover, at, { heightMm: 3, deg: project.plan.viewingDeg })).toBe(false)
    }
    const pairs = pins!.at.flatMap((a, i) =>
      pins!.at.slice(i + 1).map((b) => Math.hypot(a[0] - b[0], a[1] - b[1])),
    )
    expect(Math.min(...pairs)).toBeGreaterThan(12)
    // By brute force over the sheet.
    let far = 0
    for (let x = 1; x < 200; x += 3)
      for (let y = 1; y < 160; y += 3)
        far = Math.max(far, Math.min(...pins!.at.map(([px, py]) => Math.hypot(px - x, py - y))))
    expect(Math.abs(far - pins!.farthestMm)).toBeLessThan(4)
    expect(codes(project)).toEqual([])
  })

  it('find no room under what lies right on the sheet, nor where all of it shows', () => {
    expect(codes(pinned(onFabric(back, frame(0))))).toEqual(['pins-show'])
    expect(codes(pinned(onFabric(back)))).not.toEqual([])
    const glued = pinned(onFabric(back, frame(0)))
    const [snag] = pinSnags(glued, depthPlan(glued).pins)
    expect(wordsIn(snag!.message, 'mm')).toContain(`${PIN_HEAD_MM.high.toFixed(1)} mm`.replace('.0', ''))
    const mended = mendProject(glued, snag!.mend!.action, [])
    expect(mended.layers[0]!.joint.kind).toBe('glue')
    expect(codes(mended)).toEqual([])
  })

  it('hold nothing but the backmost sheet, on fabric', () => {
    expect(codes(pinned(onFabric(back, frame(3)), 'ring'))).toEqual(['pins-nowhere'])
    const board = pinned(onFabric(back, frame(3)))
    expect(codes({ ...board, mount: { ...board.mount, back: 'board' } as Project['mount'] })).toEqual([
      'pins-nowhere',
    ])
  })

  it('stay hidden from far aside where that is asked for', () => {
    const wide = setPlan(pinned(onFabric(back, frame(3))), { viewingDeg: 55 })
    const { at } = depthPlan(wide).pins!
    expect(at.length).toBeGreaterThan(1)
    for (const place of at) expect(isSeen(cover, place, { heightMm: 3, deg: 55 })).toBe(false)
  })

  it('go in first, and nothing is fixed to the board after', () => {
    const project = pinned(onFabric(back, frame(3)))
    const { steps } = planAssembly({ project, loads: [], depth: depthPlan(project) })
    const first = steps.find(({ layerId, kind }) => layerId === 'back' && kind === 'lay')!
    expect(first.title).toBe('Pin layer 1 to the fabric')
    expect(wordsIn(first.detail, 'mm')).toContain(`${depthPlan(project).pins!.at.length} pins`)
    expect(first.caution).toMatch(/prick/)
    expect(steps.some(({ id }) => id === 'mount')).toBe(false)
    expect(
      steps
        .filter(({ layerId }) => layerId === 'ring')
        .every((s) => s.startMin >= first.endMin || s.kind === 'pad'),
    ).toBe(true)
  })
})
