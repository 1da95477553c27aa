// The rules that every pad keeps, and where it would show.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blocks } from '../../../../test/arbitrary'
import { expectSoundPads, padShape } from '../../../../test/pads'
import { card, plate, stack } from '../../../../test/stack'
import { demo, demoNames } from '../../../demo'
import {
  ellipse,
  intersect,
  offset,
  polygonBox,
  rectangle,
  regionArea,
  subtract,
  union,
  type Polygon,
} from '../../../base/geometry'
import { emptyDrawer, setLayer, setPlan, type Layer, type Project } from '../../../project'
import { depthPlan, depthSnags, padSpan } from '../index'

describe('pads', () => {
  it.each(demoNames)('of %s keep margin, ground and distance', (name) => {
    const project = demo(name)
    expectSoundPads(project, depthPlan(project))
  })

  it('of any blocks keep them too', () => {
    fc.assert(
      fc.property(
        blocks(130),
        blocks(130),
        fc.constantFrom<'sparing' | 'steady' | 'sale'>('sparing', 'steady', 'sale'),
        (a, b, thrift) => {
          const project = setPlan(
            stack('card', plate('base', 0, [0, 0, 140, 140]), card('a', 2, a), card('b', 2, b)),
            { thrift },
          )
          expectSoundPads(project, depthPlan(project))
        },
      ),
      { numRuns: 15 },
    )
  })

  it('leave no point of a plain sheet farther away than the span', () => {
    for (const thrift of ['sparing', 'steady', 'sale'] as const) {
      const project = setPlan(
        stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', 2, [0, 0, 200, 200])),
        { thrift },
      )
      const plan = depthPlan(project)
      for (let x = 1; x < 200; x += 9)
        for (let y = 1; y < 200; y += 9)
          expect(Math.min(...plan.pads.map((p) => Math.hypot(p.x - x, p.y - y)))).toBeLessThanOrEqual(
            padSpan(project.plan),
          )
    }
  })

  it('grow in number with the thrift', () => {
    const count = (thrift: 'sparing' | 'steady' | 'sale') =>
      depthPlan(setPlan(demo('harbour'), { thrift })).pads.length
    const counts = [count('sparing'), count('steady'), count('sale')]
    expect(counts).toEqual(counts.toSorted((a, b) => a - b))
    expect(new Set(counts).size).toBe(3)
  })

  it('stay farther in where they are higher, so that none shows from the side', () => {
    const edge = (gap: number, deg: number) => {
      const project = setPlan(
        stack('frame', plate('a', 0, [0, 0, 200, 200]), plate('b', gap, [0, 0, 200, 200])),
        { viewingDeg: deg },
      )
      return Math.min(...depthPlan(project).pads.map((p) => polygonBox(padShape(p)).minX))
    }
    expect(edge(1, 30)).toBeGreaterThanOrEqual(1 + Math.tan(Math.PI / 6) - 0.01)
    expect(edge(3, 30)).toBeGreaterThanOrEqual(1 + 3 * Math.tan(Math.PI / 6) - 0.01)
    expect(edge(3, 45)).toBeGreaterThan(edge(3, 0))
  })

  it('lie only where opaque card hides them once lit from behind', () => {
    const thin = (id: string, gap: number, region: Polygon[]) => card(id, gap, region)
    const cover = [ellipse([70, 70], 30)]
    let project = stack(
      'card',
      plate('base', 0, [0, 0, 140, 140]),
      thin('sheer', 2, [rectangle([0, 0], 140, 140)]),
      thin('cover', 0, cover),
    )
    const paper = { ...demo('harbour').drawer.papers[0]!, id: 'thin', gsm: 120, thicknessMm: 0.15 }
    project = setLayer({ ...project, drawer: { ...project.drawer, papers: [paper] } }, 'sheer', {
      paperId: 'thin',
    })
    const pads = depthPlan(setPlan(project, { litFromBehind: true })).pads.filter(
      (p) => p.layerId === 'sheer',
    )
    expect(pads.length).toBeGreaterThan(0)
    for (const pad of pads) expect(regionArea(subtract([padShape(pad)], cover))).toBeLessThan(0.3)
  })

  it('give way to glue where nothing is wide enough, and one press does it', () => {
    const lace = union(...Array.from({ length: 8 }, (_, i) => [rectangle([10 + i * 12, 10], 2, 100)]), [
      rectangle([10, 10], 86, 2),
    ])
    const project = stack('card', plate('base', 0, [0, 0, 140, 140]), card('lace', 2, lace))
    const plan = depthPlan(project)
    const snag = depthSnags(project, plan).find((s) => s.code === 'no-room-for-pads')!
    expect(snag.mend!.action).toEqual({ kind: 'set-joint', layerId: 'lace', joint: 'glue', gapMm: 0 })
  })

  it('are counted pad by pad, and packs are bought only for what is short', () => {
    const plan = depthPlan(demo('harbour'))
    const used = plan.foamUse.reduce((sum, use) => sum + use.needed, 0)
    const shimmed = plan.shim ? plan.shim.at.length * plan.shim.foamIds.length : 0
    expect(used).toBe(plan.pads.reduce((sum, pad) => sum + pad.foamIds.length, 0) + shimmed)
    const project = demo('harbour')
    const bare = {
      ...project,
      drawer: { ...project.drawer, foams: project.drawer.foams.map((f) => ({ ...f, count: 0 })) },
    }
    for (const use of depthPlan(bare).foamUse)
      expect(use.packs).toBe(Math.ceil(use.needed / use.foam.perPack))
  })
})

describe('where pads would show', () => {
  const paper = (id: string, more: object) => ({ ...demo('harbour').drawer.papers[0]!, id, ...more })
  const papers = [
    paper('vellum', { finish: 'vellum', gsm: 100, thicknessMm: 0.11 }),
    paper('white', { gsm: 216, colour: '#ffffff' }),
    paper('black', { gsm: 300, colour: '#101010' }),
    paper('text', { gsm: 100, colour: '#ffffff', thicknessMm: 0.13 }),
  ]
  const sheet = (
    id: string,
    gap: number,
    { paperId, region = [rectangle([0, 0], 140, 140)] }: { paperId: string; region?: Polygon[] },
  ) => ({
    ...card(id, gap, region),
    paperId,
  })
  const of = (...layers: Layer[]): Project => {
    const base = stack('card', plate('base', 0, [0, 0, 140, 140]), ...layers)
    return { ...base, drawer: { ...base.drawer, papers } }
  }
  const padsOf = (project: Project, id: string) => depthPlan(project).pads.filter((pad) => pad.layerId === id)

  it('text-weight card gets pads like any other, until a lamp is behind it', () => {
    const project = of(sheet('thin', 2, { paperId: 'text' }))
    expect(padsOf(project, 'thin').length).toBeGreaterThan(5)
    expect(padsOf(setPlan(project, { litFromBehind: true }), 'thin')).toEqual([])
    expect(
      padsOf(setPlan(of(sheet('thin', 2, { paperId: 'black' })), { litFromBehind: true }), 'thin').length,
    ).toBeGreaterThan(5)
    expect(
      padsOf(setPlan(of(sheet('thin', 2, { paperId: 'white' })), { litFromBehind: true }), 'thin'),
    ).toEqual([])
  })

  it('under vellum they hide from every side asked: the cover is drawn in by its height', () => {
    const cover = [ellipse([70, 70], 40)]
    const project = of(
      sheet('sheer', 2, { paperId: 'vellum' }),
      sheet('cover', 3, { paperId: 'black', region: cover }),
    )
    const own = padsOf(project, 'sheer')
    expect(own.length).toBeGreaterThan(0)
    // From the vellum's underside up to the cover's: the vellum and 3 mm of foam.
    const inside = offset(cover, -(0.11 + 3) * Math.tan(Math.PI / 6) + 0.1)
    for (const pad of own) expect(regionArea(subtract([padShape(pad)], inside))).toBeLessThan(0.2)
  })

  it('the lip hides them too, and clear foam may lie where white may not', () => {
    const base = stack('frame', plate('base', 0, [0, 0, 200, 200]), sheet('sheer', 1, { paperId: 'vellum', region: [rectangle([0, 0], 200, 200)] })) // prettier-ignore
    const framed = {
      ...base,
      drawer: { ...base.drawer, papers },
      mount: { ...base.mount, depthMm: 8, opening: { widthMm: 150, heightMm: 150 } } as Project['mount'],
    }
    const own = padsOf(framed, 'sheer')
    expect(own.length).toBeGreaterThan(3)
    const seen = offset([rectangle([25, 25], 150, 150)], 8 * Math.tan(Math.PI / 6) - 0.1)
    for (const pad of own) expect(regionArea(intersect([padShape(pad)], seen))).toBeLessThan(0.5)
    const clear = {
      ...emptyDrawer().foams.find(({ thicknessMm }) => thicknessMm === 1)!,
      id: 'clear',
      look: 'clear' as const,
    }
    const more = { ...framed, drawer: { ...framed.drawer, foams: [...framed.drawer.foams, clear] } }
    const inside = padsOf(more, 'sheer').filter((pad) => regionArea(intersect([padShape(pad)], seen)) > 1)
    expect(inside.length).toBeGreaterThan(0)
    for (const { foamIds } of inside) expect(foamIds).toEqual(['clear'])
  })
})
