import { wordsIn } from '../../../base/units'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../../test/stack'
import { expectLegal } from '../../../../test/legal-layout'
import { pathToRegion, polygonBox, polygonToPath, rectangle } from '../../../base/geometry'
import { makeLayer } from '../../layers'
import { newPaper, starterStock } from '../../paper'
import {
  assignPaper,
  newProject,
  setPin,
  setPlan,
  starterCutter,
  takeSizes,
  type Layer,
  type Paper,
  type Project,
} from '../../../project'
import { check, results } from '../../../../test/results'
import { mendProject } from '../../index'
import {
  cheapestMix,
  loadTag,
  planLoads,
  nestProject,
  paperRuns,
  partId,
  sheetsNeeded,
  withPins,
  type NestPiece,
} from '../index'
import { onBed } from './sizes'

const RIM = 5
const BED = { rimMm: RIM, bedWidthMm: 5000, bedHeightMm: 5000 }
const size = (
  id: string,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
  { price, count = 9 }: { price: number; count?: number },
): Paper => ({
  ...newPaper('Dune', []),
  id,
  widthMm,
  heightMm,
  price,
  count,
})
const square = (side: number, qty: number): NestPiece => ({
  id: `s${side}`,
  shape: rectangle([0, 0], side, side),
  qty,
  turns: 'quarter',
})
const mixOf = (sizes: Paper[], ...pieces: NestPiece[]) => {
  const { main, others } = cheapestMix(sizes, { instance: { gap: 2, pieces }, bed: BED })
  return [main.id, ...others.map((paper) => paper.id)]
}

describe('a paper in several sizes', () => {
  const large = size('large', { widthMm: 310, heightMm: 310 }, { price: 1 })
  const small = size('small', { widthMm: 160, heightMm: 160 }, { price: 0.3 })

  it('is cut of the cheapest sheets that take the pieces', () => {
    expect(mixOf([large, small], square(140, 1))).toEqual(['small'])
    expect(mixOf([large, small], square(140, 3))).toEqual(['small'])
    // Four small ones would be dearer than the large one that takes all four.
    expect(mixOf([large, small], square(140, 4))).toEqual(['large'])
    expect(mixOf([large, small], square(140, 5))).toEqual(['large', 'small'])
    expect(mixOf([large, small], square(200, 1))).toEqual(['large'])
  })

  it('is cut of what is at hand before anything is bought', () => {
    expect(mixOf([large, { ...small, count: 0 }], square(140, 1))).toEqual(['large'])
    expect(
      mixOf(
        [
          { ...large, count: 0 },
          { ...small, count: 4 },
        ],
        square(140, 4),
      ),
    ).toEqual(['small'])
  })

  it('goes by area where no prices are known', () => {
    const free = [large, small].map((paper) => ({ ...paper, price: 0 }))
    expect(mixOf(free, square(140, 1))).toEqual(['small'])
    expect(mixOf(free, square(140, 4))).toEqual(['large'])
  })

  it('keeps to the large size where a piece fits on none', () => {
    expect(mixOf([small, large], square(400, 1))).toEqual(['large'])
  })

  const work = (sizes: Paper[]): Project => {
    const layers = Array.from({ length: 5 }, (_, i) => plate(`l${i}`, 0, [0, 0, 140, 140]))
    const project = setPlan(stack('free', ...layers), { turns: 'quarter', gapMm: 2 })
    const ids = layers.map((layer) => layer.id)
    const withRim = {
      ...project,
      drawer: { ...project.drawer, cutter: { ...project.drawer.cutter, rimMm: RIM } },
    }
    return assignPaper(withRim, ids, { paper: sizes[0]!, stock: sizes })
  }

  it('makes loads of both sizes with tags of their own, and counts each in its own size', () => {
    const project = work([large, small])
    expect(project.drawer.papers.map((paper) => paper.id)).toEqual(['large', 'small'])
    const runs = nestProject(project)
    expect(runs).toHaveLength(1)
    expectLegal(runs[0]!.run.instance, runs[0]!.layout)
    const list = planLoads(project, { runs })
    expect(list.map((load) => [load.id, load.paper.id, load.widthMm, load.onOffCut]).toSorted()).toEqual([
      ['large-1', 'large', 310, null],
      ['small-1', 'small', 160, null],
    ])
    expect(new Set(list.map(loadTag)).size).toBe(2)
    expect(
      sheetsNeeded(list)
        .map((need) => [need.paper.id, need.sheets, need.cost])
        .toSorted(),
    ).toEqual([
      ['large', 1, 1],
      ['small', 1, 0.3],
    ])
    // Files and steps know both.
    const derived = results(project, [large, small])
    expect(derived.assembly.steps.filter((step) => step.kind === 'cut')).toHaveLength(2)
    expect(derived.left.every((left) => ['large', 'small'].includes(left.paperId))).toBe(true)
  })

  it('stays with its mix when a piece is pinned', () => {
    const project = work([large, small])
    const [run] = paperRuns(project)
    const pinned = setPin(project, {
      layerId: 'l2',
      pieceId: project.layers[2]!.pieces[0]!.id,
      copy: 0,
      sheet: 0,
      on: '',
      x: 20,
      y: 20,
      rotation: 0,
    })
    expect(withPins(run!, pinned)).toEqual(paperRuns(pinned)[0])
    expect(withPins(run!, pinned).fingerprint).not.toBe(run!.fingerprint)
  })

  it('is planned too where off-cuts take everything', () => {
    const whole = { id: 'rest', label: 'rest', path: polygonToPath(rectangle([0, 0], 310, 310)) }
    const project = work([{ ...large, offCuts: [whole, { ...whole, id: 'rest-2' }] }, small])
    const runs = nestProject(project)
    const list = planLoads(project, { runs })
    expect(list.length).toBeGreaterThan(0)
    expect(list.every(({ onOffCut }) => onOffCut !== null)).toBe(true)
    expect(list.flatMap(({ pieces }) => pieces)).toHaveLength(project.layers.reduce((sum, layer) => sum + layer.pieces.length, 0)) // prettier-ignore
  })

  it('is found in the drawer later, where that saves something', () => {
    const project = work([large])
    const snag = check(project, [large, small]).find((s) => s.code === 'other-size-at-hand')!
    expect(wordsIn(snag.message, 'mm')).toBe(
      'The drawer holds Dune in 160 × 160 mm too: cutting of 310 × 310 mm and 160 × 160 mm together costs less, or less has to be bought.',
    )
    const mended = mendProject(project, snag.mend!.action, [large, small])
    expect(mended).toEqual(takeSizes(project, [large, small], ['small']))
    expect(check(mended, [large, small]).map((s) => s.code)).not.toContain('other-size-at-hand')
    const dear = { ...small, price: 2 }
    expect(check(project, [large, dear]).map((s) => s.code)).not.toContain('other-size-at-hand')
  })

  it('comes in packs', () => {
    const project = work([{ ...large, count: 0, perPack: 10 }])
    const [need] = sheetsNeeded(planLoads(project, { runs: nestProject(project) }))
    expect(need).toMatchObject({ sheets: 2, buy: 2, packs: 1 })
    expect(check(project).find((s) => s.code === 'short-of-paper')!.message).toContain('buy 1 pack of 10.')
  })
})

describe('pieces that are larger than any sheet', () => {
  const [paper] = starterStock()
  const named = (project: Project) => check(project).filter(({ code }) => code === 'piece-too-large')
  const wordsOf = (project: Project) => named(project).map(({ message }) => wordsIn(message, 'mm'))
  const laidOf = (project: Project) =>
    nestProject(project).flatMap(({ run, layout }) => {
      expectLegal(run.instance, layout)
      return layout.placements.map(({ id }) => id)
    })
  const back = { ...plate('back', 0, [0, 0, 400, 100]), name: 'back' }
  const front = { ...plate('front', 0, [10, 10, 30, 30], [20, 50, 320, 20]), name: 'front' }
  const of = (...layers: Layer[]) =>
    assignPaper(
      stack('free', ...layers),
      layers.map(({ id }) => id),
      { paper: paper! },
    )

  it('are named, where they are; all others are laid', () => {
    const project = of(back, front)
    expect(named(project)).toMatchObject([{ layer: 'back', at: [200, 50] }])
    // 304.8 mm less a rim of 6.35 mm on either side.
    expect(wordsOf(project)[0]).toContain(
      `${paper!.name}: “back” and a piece of “front” are larger than the 292.1 × 292.1 mm that can be cut of a sheet, and not laid.`,
    )
    const small = front.pieces.find(({ path }) => polygonBox(pathToRegion(path)[0]!).maxX < 50)!
    expect(laidOf(project)).toEqual([partId('front', small.id)])
    // What is laid of a paper of which nothing fits, or of which the rim leaves nothing: no sheet, no error.
    expect(laidOf(of(back))).toEqual([])
    const { cutter } = project.drawer
    const rimmed = { ...project, drawer: { ...project.drawer, cutter: { ...cutter, rimMm: 160 } } }
    expect(laidOf(rimmed)).toEqual([])
    expect(wordsOf(rimmed)[0]).toMatch(/the rim .* leaves nothing of a sheet to cut/)
  })

  it('lie across where they may be turned: a press lets them', () => {
    const straight = setPlan(of(front), { turns: 'quarter' })
    expect(wordsOf(straight)[0]).toMatch(/and not laid\. Turned it would fit\.$/)
    const { mend } = named(straight)[0]!
    const turned = mendProject(straight, mend!.action, [])
    expect(named(turned)).toEqual([])
    expect(laidOf(turned)).toHaveLength(2)
    expect(wordsOf(setPlan(of(back, front), { turns: 'quarter' }))[0]).toMatch(
      /1 of 2 would fit turned; for the others take a larger sheet or scale the design\.$/,
    )
    const oneWay = of(front)
    const papers = oneWay.drawer.papers.map((one) => ({ ...one, oneWay: true }))
    const grained = { ...oneWay, drawer: { ...oneWay.drawer, papers } }
    expect(wordsOf(grained)[0]).toMatch(/but this paper lies one way only/)
    expect(named(grained)[0]!.mend).toBeUndefined()
  })

  it('are put together of parts at a press, one layer after the other, where no turn helps', () => {
    const { mend } = named(of(back))[0]!
    expect(wordsIn(mend!.label, 'mm')).toBe('Put “back” together of parts')
    const parted = mendProject(of(back), mend!.action, [])
    expect(named(parted)).toEqual([])
    expect(laidOf(parted)).toHaveLength(2)
    const two = of(back, { ...back, id: 'other', name: 'other' })
    const [first] = named(two)
    const [second] = named(mendProject(two, first!.mend!.action, []))
    expect(wordsIn(second!.mend!.label, 'mm')).toBe('Put “other” together of parts')
    // What folds up is not cut apart, and the other is.
    const folds = [
      { line: [0, 50, 400, 50] as [number, number, number, number], way: 'up' as const, deg: 90 },
    ]
    const [other] = named(of({ ...back, folds }, { ...back, id: 'other', name: 'other' }))
    expect(wordsIn(other!.mend!.label, 'mm')).toBe('Put “other” together of parts')
    expect(named(setPlan(of(back), { turns: 'fixed' }))[0]!.mend).toBeUndefined()
  })

  it('are told to fit a size that the drawer has and the project does not plan with', () => {
    const large = { ...paper!, id: 'large', widthMm: 450, heightMm: 304.8 }
    const bare = of(back)
    // On a bed that is no wider it takes no more.
    expect(check(bare, [paper!, large]).map(({ code }) => code)).not.toContain('other-size-at-hand')
    const cutter = { ...bare.drawer.cutter, mats: [], bedWidthMm: 500 }
    const project = { ...bare, drawer: { ...bare.drawer, cutter } }
    const snag = check(project, [paper!, large]).find(({ code }) => code === 'other-size-at-hand')!
    expect(wordsIn(snag.message, 'mm')).toMatch(/what is too large for the sheets that are planned with fits/)
    expect(named(mendProject(project, snag.mend!.action, [paper!, large]))).toEqual([])
  })
})

describe('sheets that are larger than the bed', () => {
  const bed = { rimMm: 6, bedWidthMm: 305, bedHeightMm: 305 }
  const a3 = { widthMm: 297, heightMm: 420 }

  it('are cut as far as they lie on it, turned where more of them does', () => {
    expect(onBed(a3, bed)).toEqual({ widthMm: 297, heightMm: 305, turned: false })
    expect(onBed(a3, { ...bed, bedWidthMm: 610 })).toEqual({ widthMm: 297, heightMm: 420, turned: true })
    expect(onBed({ widthMm: 200, heightMm: 200 }, bed)).toEqual({
      widthMm: 200,
      heightMm: 200,
      turned: false,
    })
  })

  it('bear no piece past its edge: what is longer is too large', () => {
    const slate = starterStock().find(({ heightMm }) => heightMm === 420)!
    const tile = (id: string, w: number, h: number) =>
      makeLayer({ id, name: id }, [rectangle([0, 0], w, h)], { paperId: slate.id, copies: 4 })
    const project = (w: number, h: number) =>
      assignPaper({ ...newProject('p', 'Tiles', { kind: 'free' }), layers: [tile('t', w, h)] }, ['t'], {
        paper: slate,
      })
    const runs = nestProject(project(140, 140))
    for (const load of planLoads(project(140, 140), { runs })) {
      expect([load.widthMm, load.heightMm]).toEqual([297, 420])
      for (const { shape } of load.pieces)
        expect(polygonBox(shape).maxY).toBeLessThanOrEqual(starterCutter.bedHeightMm - 6.35 + 1e-6)
    }
    expect(nestProject(project(100, 400)).map(({ run }) => run.tooLarge?.parts.length)).toEqual([1])
  })

  it('nor an off-cut: what hangs over is there, and nothing is cut of it', () => {
    const paper = starterStock()[0]!
    const long = (w: number, h: number) => ({
      id: 'long',
      label: 'A',
      path: polygonToPath(rectangle([0, 0], w, h)),
    })
    const withOffCut = (w: number, h: number): Project => {
      const own = { ...paper, offCuts: [{ ...paper.offCuts[0], ...long(w, h) }] as Paper['offCuts'] }
      const tiles = makeLayer({ id: 't', name: 't' }, [rectangle([0, 0], 70, 70)], {
        paperId: own.id,
        copies: 9,
      })
      const plain = assignPaper({ ...newProject('p', 'Tiles', { kind: 'free' }), layers: [tiles] }, ['t'], {
        paper: own,
      })
      const { drawer } = plain
      const cutter = { ...drawer.cutter, mats: [], bedWidthMm: 300, bedHeightMm: 300 }
      return { ...plain, drawer: { ...drawer, cutter }, plan: { ...plain.plan, useOffCuts: true } }
    }
    const onOffCut = (w: number, h: number) => {
      const project = withOffCut(w, h)
      return planLoads(project, { runs: nestProject(project) }).filter((load) => load.onOffCut !== null)
    }
    const [load] = onOffCut(520, 160)
    expect([load!.widthMm, load!.heightMm]).toEqual([520, 160])
    expect(load!.lies).toEqual({ turned: false, overMm: 220, widthMm: 300, heightMm: 160 })
    // On all of it there would be room for fourteen; within the bed, for three across and two down.
    expect(load!.pieces.length).toBeGreaterThanOrEqual(6)
    expect(load!.pieces.length).toBeLessThanOrEqual(8)
    for (const { shape } of load!.pieces)
      expect(polygonBox(shape).maxX).toBeLessThanOrEqual(300 - starterCutter.rimMm + 1e-6)
    // One that lies on the bed is used to its own rim.
    const [whole] = onOffCut(290, 160)
    expect(whole!.lies).toBeNull()
    expect(Math.max(...whole!.pieces.map(({ shape }) => polygonBox(shape).maxX))).toBeLessThanOrEqual(287)
  })
})
