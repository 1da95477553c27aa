import { describe, expect, it } from 'vitest'
import { mendProject } from '../mend'
import { demo } from '../../demo'
import { plate as stackPlate, stack } from '../../../test/stack'
import {
  builtLayers,
  colourOf,
  findLayer,
  FINISHES,
  paperOf,
  setLayer,
  safeStripMm,
  type Project,
} from '../../project'
import { isDearPaper } from '../layers'
import {
  assignNearest,
  assignRamp,
  coloursInUse,
  giveColour,
  colourDifference,
  dearSnags,
  matchPapers,
  nearestPaper,
  neighbourSteps,
  paperSnags,
  ramp,
  rampPapers,
  soldAs,
  starterStock,
  typicalThickness,
  weightWords,
} from './index'

const stock = starterStock()

describe('the starter drawer', () => {
  it('holds two dozen papers or more of several finishes, weights and sizes, each with its own name', () => {
    expect(stock.length).toBeGreaterThanOrEqual(24)
    expect(new Set(stock.map((p) => p.name)).size).toBe(stock.length)
    expect(new Set(stock.map((p) => p.finish)).size).toBeGreaterThanOrEqual(5)
    expect(new Set(stock.map((p) => p.gsm)).size).toBeGreaterThanOrEqual(5)
    expect(new Set(stock.map((p) => `${p.widthMm}×${p.heightMm}`)).size).toBeGreaterThanOrEqual(5)
  })

  it('takes thickness from finish and weight, heavier never thinner', () => {
    expect(typicalThickness('smooth', 216)).toBe(0.29)
    expect(typicalThickness('glitter', 300)).toBe(0.42)
    const list = [60, 75, 100, 176, 200, 216, 250, 300, 350, 500].map((gsm) =>
      typicalThickness('smooth', gsm),
    )
    expect(list).toEqual(list.toSorted((a, b) => a - b))
    for (const finish of FINISHES) expect(typicalThickness(finish, 216)).toBeGreaterThan(0)
  })

  it('tells weights by the pound where inches are used, but for what is sold by its thickness', () => {
    expect(weightWords({ finish: 'smooth', gsm: 270 }, 'in')).toBe('270 gsm (100 lb)')
    expect(weightWords({ finish: 'smooth', gsm: 270 }, 'mm')).toBe('270 gsm')
    expect(weightWords({ finish: 'acetate', gsm: 280 }, 'in')).toBe('280 gsm')
  })

  it('knows in what size its sheets are sold, upright or across', () => {
    expect(new Set(stock.map(soldAs))).toEqual(new Set(['12 × 12 in', '9 × 12 in', '8 1/2 × 11 in', '6 × 6 in', 'A4', 'A3', null])) // prettier-ignore
    expect([soldAs({ widthMm: 297, heightMm: 210 }), soldAs({ widthMm: 279, heightMm: 216 }), soldAs({ widthMm: 300, heightMm: 210 })]).toEqual(['A4', '8 1/2 × 11 in', null]) // prettier-ignore
  })

  it('knows the narrowest strip each paper survives', () => {
    const strip = (name: string) => safeStripMm(stock.find((p) => p.name === name))
    expect([
      strip('Shell'),
      strip('Oyster'),
      strip('Sunken gold'),
      strip('Herring'),
      safeStripMm(undefined),
    ]).toEqual([1.2, 1.5, 2, 1.3, 1.2])
  })
})

describe('colours', () => {
  it('differ by nothing from themselves and much between black and white', () => {
    expect(colourDifference('#42598c', '#42598c')).toBe(0)
    expect(colourDifference('#000000', '#ffffff')).toBeCloseTo(100, 0)
    expect(colourDifference('#42598c', '#445b8e')).toBeLessThan(1)
  })

  it('ramp from one end to the other in even steps', () => {
    const steps = ramp('#222e52', '#f2bea1', 5)
    expect([steps[0], steps[4]]).toEqual(['#222e52', '#f2bea1'])
    const gaps = steps.slice(1).map((c, i) => colourDifference(steps[i]!, c))
    expect(Math.max(...gaps) / Math.min(...gaps)).toBeLessThan(2.2)
    expect(ramp('#222e52', '#f2bea1', 1)).toEqual(['#222e52'])
  })

  it('find the nearest paper, and spend no paper twice while others remain', () => {
    expect(nearestPaper('#43598b', stock)!.name).toBe('Harbour blue')
    expect(nearestPaper('#43598b', [])).toBeUndefined()
    const three = matchPapers(['#42598c', '#42598c', '#42598c'], stock)
    expect(new Set(three.map((p) => p.id)).size).toBe(3)
    expect(matchPapers(['#42598c', '#42598c'], stock.slice(0, 1)).map((p) => p.id)).toEqual([
      stock[0]!.id,
      stock[0]!.id,
    ])
  })
})

describe('papers for layers', () => {
  it('come as a ramp over chosen layers only', () => {
    const project = demo('harbour')
    const chosen = ['far-hills', 'headland', 'open-sea']
    const next = assignRamp(project, { layerIds: chosen, ends: ['#f2bea1', '#222e52'], stock })
    const wanted = rampPapers(project, { layerIds: chosen, ends: ['#f2bea1', '#222e52'], stock })
    expect(chosen.map((id) => next.layers.find((l) => l.id === id)!.paperId)).toEqual(
      wanted.map((w) => w.paper.id),
    )
    expect(next.layers[7]!.paperId).toBe(project.layers[7]!.paperId)
  })

  it('are the nearest to the colours of the drawing, one for equal colours', () => {
    const project = demo('harbour')
    const bare = {
      ...project,
      layers: project.layers.map((l, i) => ({ ...l, paperId: null, colour: i < 2 ? '#c9463d' : '#eebd3e' })),
    }
    const next = assignNearest(
      bare,
      bare.layers.map((l) => l.id),
      stock,
    )
    expect(next.layers.map((l) => paperOf(next, l)!.name)).toEqual([
      'Buoy',
      'Buoy',
      ...Array<string>(6).fill('Gorse'),
    ])
  })

  it('are such that what is cut of them fits, layer by layer where not everything does', () => {
    const small = { ...stock[0]!, id: 'small', colour: '#c9463d', widthMm: 150, heightMm: 150 }
    const large = { ...stock[0]!, id: 'large', colour: '#202020', widthMm: 305, heightMm: 305 }
    const foam = {
      ...large,
      id: 'foam',
      colour: '#c9463d',
      finish: 'craft foam' as const,
      widthMm: 900,
      heightMm: 900,
    }
    const chosen = (side: number) => {
      const project = stack(
        'free',
        stackPlate('a', 0, [0, 0, side, side]),
        stackPlate('b', 0, [0, 0, 50, 50]),
      )
      const red = { ...project, layers: project.layers.map((layer, i) => ({ ...layer, colour: i ? '#c8463d' : '#c9463d' })) } // prettier-ignore
      return assignNearest(red, ['a', 'b'], [small, large, foam]).layers.map(({ paperId }) => paperId)
    }
    expect(chosen(250)).toEqual(['large', 'large'])
    // Nothing fits all: the small layer has its own colour, and the large one is to be cut in parts of card, not foam.
    expect(chosen(400)).toEqual(['large', 'large'])
  })

  it('snag where neighbours cannot be told apart, and the mend clears it', () => {
    const project = demo('harbour')
    const alike = setLayer(project, 'far-hills', { paperId: project.layers[0]!.paperId })
    const snag = paperSnags(alike, stock).find((s) => s.code === 'too-alike')!
    expect(snag.layer).toBe('far-hills')
    expect(snag.mend!.action.kind).toBe('swap-paper')
    expect(neighbourSteps(project).every((step) => step.difference >= 6)).toBe(true)
    expect(paperSnags(project, stock)).toEqual([])
  })

  it('snag with a paper that stands clear of what is told apart from it, past clear sheets and films between', () => {
    const project = demo('kittiwake')
    const alike = setLayer(project, 'name', {
      lives: 'stack',
      paperId: findLayer(project, 'body')!.paperId,
    })
    const between = setLayer(alike, 'beak', { role: 'cover' })
    const snag = paperSnags(between, stock).find((s) => s.code === 'too-alike' && s.layer === 'name')!
    const swapped = mendProject(between, snag.mend!.action, stock)
    expect(paperSnags(swapped, stock).filter((s) => s.code === 'too-alike' && s.layer === 'name')).toEqual([])
    // Film is taken for film alone, card for card.
    const swapTo = stock.find(({ id }) => id === paperOf(swapped, findLayer(swapped, 'name')!)!.id)!
    expect(swapTo.press).toBeNull()
  })

  it('snag with a paper that takes what is cut of the layer', () => {
    const [like] = stock
    const large = { ...like!, id: 'large', widthMm: 305, heightMm: 305 }
    const near = { ...like!, id: 'near', widthMm: 210, heightMm: 297, colour: '#7a2f2f' }
    const far = { ...large, id: 'far', colour: '#101010' }
    const swapTo = (side: number) => {
      const plate = (id: string) => ({ ...stackPlate(id, 1, [0, 0, side, side]), paperId: 'large' })
      const alike = stack('free', plate('back'), plate('front'))
      const project = { ...alike, drawer: { ...alike.drawer, papers: [large] } }
      const snag = paperSnags(project, [large, near, far]).find(({ code }) => code === 'too-alike')!
      return snag.mend!.action
    }
    expect(swapTo(100)).toMatchObject({ paperId: 'near' })
    expect(swapTo(250)).toMatchObject({ paperId: 'far' })
  })

  it('snag without a mend that another snag takes back: no dear paper for a plain one, none too alike for a dear one', () => {
    const plate = (id: string, paperId: string) => ({ ...stackPlate(id, 1, [0, 0, 60, 60]), paperId })
    const withStock = (project: Project): Project => ({
      ...project,
      drawer: { ...project.drawer, papers: stock },
    })
    const smooth = stock.filter(({ finish, press }) => finish === 'smooth' && press === null)
    for (const dear of stock.filter(isDearPaper)) {
      // Beside the plain paper that is nearest to a dear one that plain one would not be told apart.
      const nearest = smooth.toSorted(
        (a, b) => colourDifference(a.colour, dear.colour) - colourDifference(b.colour, dear.colour),
      )[0]!
      const project = withStock(stack('card', plate('back', nearest.id), plate('front', dear.id)))
      const [snag] = dearSnags(project, [{ id: 'front', areaMm2: 100, visibleMm2: 5 } as never], stock)
      const taken = mendProject(project, snag!.mend!.action, stock)
      expect(neighbourSteps(taken)[0]!.difference).toBeGreaterThanOrEqual(6)
      // And a plain one that is too like what it lies on is not made a dear one.
      const alike = withStock(stack('card', plate('back', nearest.id), plate('front', nearest.id)))
      const swap = paperSnags(alike, stock).find(({ code }) => code === 'too-alike')!.mend!.action
      const swapped = mendProject(alike, swap, stock)
      expect(isDearPaper(paperOf(swapped, findLayer(swapped, 'front')!)!)).toBe(false)
    }
  })

  it('snag where there are none yet', () => {
    const project = setLayer(demo('harbour'), 'pier', { paperId: null })
    const [snag] = paperSnags(project, stock)
    expect([snag!.code, snag!.layer]).toEqual(['no-paper', 'pier'])
    expect(colourOf(project, builtLayers(project)[6]!)).toMatch(/^#/)
  })
})

describe('colours in use', () => {
  it('are listed with their layers, and merged by giving one the paper of another', () => {
    const project = demo('harbour')
    const colours = coloursInUse(project)
    expect(colours.flatMap(({ layerIds }) => layerIds).toSorted()).toEqual(
      builtLayers(project)
        .map(({ id }) => id)
        .toSorted(),
    )
    const [to, from] = colours
    const merged = giveColour(project, from!.layerIds, { to: to!, stock })
    const after = coloursInUse(merged)
    expect(after).toHaveLength(colours.length - 1)
    expect(after[0]!.layerIds).toHaveLength(to!.layerIds.length + from!.layerIds.length)
    // Of bare colours the colour itself is taken over.
    const bare = from!.layerIds.reduce((p, id) => setLayer(p, id, { paperId: null }), project)
    const back = giveColour(bare, to!.layerIds, { to: { paperId: null, colour: '#123456' }, stock })
    expect(
      to!.layerIds.map((id) =>
        colourOf(
          back,
          back.layers.find((layer) => layer.id === id)!,
        ),
      ),
    ).toEqual(to!.layerIds.map(() => '#123456'))
  })
})
