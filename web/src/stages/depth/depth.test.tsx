// Heights by hand: gaps, pads, single pieces, glue, sticks; each against what the core makes of the same project.
import { beforeEach, describe, expect, it } from 'vitest'
import { layerBox } from '@feuillet/core/project'
import {
  all,
  choose,
  drag,
  field,
  figure,
  fireEvent,
  layer,
  one,
  open,
  panel,
  pick,
  press,
  project,
  settled,
  snags,
  soon,
  the,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'
import { smallFrame } from '../../../test/small'

const pads = () => [...document.querySelectorAll<SVGElement>('[data-pad]')]
/** The pad that was put, once the plan knows it. */
const handPad = () => waitFor(() => one('[data-pad=hand]'))
const put = () => project().plan.handPads
const number = (name: string) => Number.parseFloat(figure(name))

describe('gaps', () => {
  beforeEach(() => open(smallFrame(), 'depth'))

  it('are set, pinned, and the others fitted to the frame round them', async () => {
    await pick('swell')
    const before = await waitFor(() => number('Stack'))
    const { gapMm } = layer('swell').joint
    await press('3 mm', 'radio')
    expect(layer('swell').joint).toMatchObject({ kind: 'foam', gapMm: 3 })
    const higher = () => expect(number('Stack')).toBeCloseTo(before + 3 - gapMm, 1)
    await waitFor(higher)
    await press('pinned', 'switch')
    await press(/^Fit gaps to/)
    await settled()
    expect(layer('swell').joint).toMatchObject({ gapMm: 3, pinned: true })
    // As high as foam up to 4 mm a gap can make it, and no higher than the frame is deep.
    await waitFor(() => expect(number('Stack')).toBeGreaterThan(before + 3 - gapMm))
    expect(number('Left')).toBeGreaterThanOrEqual(0)
    await undo()
    await waitFor(higher)
  })

  it('that do not fit the frame are a stop, and one press mends it', async () => {
    await toStage('measure')
    await type('Depth', '8')
    await toStage('depth')
    await waitFor(() => expect(snags('stack-too-deep')).toHaveLength(1))
    await user.click(the('button', /Fit the gaps/, snags('stack-too-deep')[0]!))
    await waitFor(() => expect(snags('stack-too-deep')).toEqual([]))
    expect(number('Stack')).toBeLessThanOrEqual(8)
  })

  it('of foam become glue, and the layer comes down by it', async () => {
    await pick('swell')
    const before = await waitFor(() => number('Stack'))
    const { gapMm } = layer('swell').joint
    await press('glue', 'radio')
    expect(layer('swell').joint).toMatchObject({ kind: 'glue', gapMm: 0 })
    await waitFor(() => expect(number('Stack')).toBeLessThan(before - gapMm + 0.6))
    await choose('Glue of Swell', /tape runner/)
    expect(layer('swell').joint.adhesiveId).not.toBeNull()
    await choose('Glue of Swell', /^as in the project/)
    expect(layer('swell').joint.adhesiveId).toBeNull()
  })

  it('are typed, within what foam can be', async () => {
    await pick('swell')
    await type('Foam height', '2.5')
    expect(layer('swell').joint.gapMm).toBe(2.5)
    await type('Foam height', '13')
    expect(the('alert', /Between 0\.5 mm and 12 mm/)).toBeTruthy()
    expect(layer('swell').joint.gapMm).toBe(2.5)
  })

  it('slide from shallow to deep through every fit, as one step', async () => {
    await press('Show every fit')
    const slide = (await soon('slider', 'From shallow to deep')) as HTMLInputElement
    const to = async (k: number) => {
      fireEvent.change(slide, { target: { value: String(k) } })
      await settled()
      return number('Stack')
    }
    const shallow = await to(0)
    await to(1)
    const deep = await to(Number(slide.max))
    expect(deep).toBeGreaterThan(shallow)
    expect(slide.getAttribute('aria-valuetext')).toBe(`${Number(slide.max) + 1} of ${Number(slide.max) + 1}`)
    await undo()
    expect(project().layers).toEqual(smallFrame().layers)
  })

  it('more foam for what is sold, less for own use', async () => {
    const steady = await waitFor(() => number('Pads in all'))
    await press('for sale', 'radio')
    await settled()
    await waitFor(() => expect(number('Pads in all')).toBeGreaterThan(steady))
    await press('sparing', 'radio')
    await settled()
    await waitFor(() => expect(number('Pads in all')).toBeLessThan(steady))
    // By the maker's own figure, until a word is chosen again.
    await press('steady', 'radio')
    await type('Card reaches from a pad', '15')
    await settled()
    await waitFor(() => expect(number('Pads in all')).toBeGreaterThan(steady))
    await press('steady', 'radio')
    await waitFor(() => expect(number('Pads in all')).toBe(steady))
    expect(project().plan.padSpanMm).toBeNull()
    await type('Pads back from edges', '2.5')
    expect(project().plan.padMarginMm).toBe(2.5)
  })
})

describe('pads by hand', () => {
  beforeEach(async () => {
    await open(smallFrame(), 'depth')
    await pick('swell')
    await waitFor(() => expect(pads().length).toBeGreaterThan(3))
  })

  it('are dragged, and are the maker’s from then on', async () => {
    const pad = pads()[0]!
    await drag(pad, [[50, 50], [53, 51], [54, 52]]) // prettier-ignore
    await waitFor(() => expect(put()).toHaveLength(1))
    await handPad()
    await waitFor(() => expect(panel().textContent).toContain('Put by you'))
    const [before] = put()
    await type('From the left', String(Math.round(before!.x) + 1))
    expect(put()[0]!.x).toBe(Math.round(before!.x) + 1)
    expect(put()[0]!.y).toBe(before!.y)
    await press('Leave it to the plan')
    expect(put()).toEqual([])
  })

  it('hardly dragged stay with the plan', async () => {
    await drag(pads()[0]!, [[50, 50], [50.1, 50]]) // prettier-ignore
    expect(put()).toEqual([])
    expect(panel().textContent).toContain('Planned:')
  })

  it('go by keys: moved, turned, taken away; the spot stays free until all is planned anew', async () => {
    pads()[1]!.focus()
    await user.keyboard('{ArrowRight}')
    await waitFor(() => expect(put()).toHaveLength(1))
    const { x } = put()[0]!
    ;(await handPad()).focus()
    await user.keyboard('r')
    expect(put()[0]!.rotation % 360).not.toBe(0)
    await user.keyboard('{Shift>}{ArrowRight}{/Shift}')
    expect(put()[0]!.x).toBeCloseTo(x + 5, 6)
    ;(await handPad()).focus()
    await user.keyboard('{Delete}')
    expect(put()).toEqual([])
    expect(project().plan.padFree).toHaveLength(1)
    await press(/^Plan all again \(0 put, 1 spot kept free\)/)
    expect(project().plan.padFree).toEqual([])
  })

  it('of another foam, and one more', async () => {
    await press('Put one more')
    await waitFor(() => expect(put()).toHaveLength(1))
    ;(await handPad()).focus()
    await soon('combobox', 'Foam of the pad')
    const foam = project().drawer.foams.find(({ id }) => id !== put()[0]!.foamIds[0])!
    await choose('Foam of the pad', new RegExp(`^${foam.name}, `))
    expect(put()[0]!.foamIds).toEqual([foam.id])
  })
})

describe('single pieces', () => {
  it('are picked in the list or on the drawing, glued flat, put on foam of their own, and taken back', async () => {
    await open(smallFrame(), 'depth')
    await pick('swell')
    await choose(/^A piece of/, /^2:/)
    await waitFor(() => one('[data-picked-piece]'))
    const before = pads().length
    await press('glued flat', 'radio')
    await waitFor(() => expect(pads().length).toBeLessThan(before))
    await press('own foam', 'radio')
    await choose('Foam under this piece', '3 mm')
    expect(the('combobox', /^A piece of/).textContent).toContain('3 mm of foam')
    await press('as its layer', 'radio')
    expect(layer('swell').joint).toEqual(smallFrame().layers.find(({ id }) => id === 'swell')!.joint)
    const [piece] = layer('swell').pieces
    const box = layerBox({ pieces: [piece!] })
    // Beside every piece nothing is picked.
    fireEvent.click(one('[data-pads]').parentElement!, { clientX: box.minX - 900, clientY: -900 })
    await waitFor(() => expect(document.querySelector('[data-picked-piece]')).toBeNull())
  })
})

describe('glue', () => {
  it('is spread as the maker wants it, and weighed by how', async () => {
    await open('bon-voyage', 'depth')
    await pick('words')
    await waitFor(() => expect(document.querySelectorAll('[data-dot]').length).toBeGreaterThan(0))
    const dots = number('Glue')
    await press('a coat', 'radio')
    await waitFor(() => expect(document.querySelectorAll('[data-dot]')).toHaveLength(0))
    await waitFor(() => expect(number('Glue')).not.toBe(dots))
    await press('beads', 'radio')
    await waitFor(() => expect(figure('Beads of')).toMatch(/mm$/))
    await press('as it fits', 'radio')
    expect(layer('words').joint.spread).toBeNull()
    await waitFor(() => expect(number('Glue')).toBe(dots))
  })
})

describe('sticks', () => {
  it('go where they hold; set otherwise the topper turns, and one press puts them back', async () => {
    await open('bon-voyage', 'depth')
    const best = await waitFor(() => field('Stick 1, from the left').value)
    await type('Stick 1, from the left', '4')
    await type('Stick 2, from the left', '20')
    await waitFor(() => expect(snags('topper-turns')).toHaveLength(1))
    await user.click(the('button', 'Put the sticks where they hold', snags('topper-turns')[0]!))
    await waitFor(() => expect(snags('topper-turns')).toEqual([]))
    expect(field('Stick 1, from the left').value).toBe(best)
    const count = project().layers.length
    await press('Cover the sticks with a piece')
    await waitFor(() => expect(project().layers).toHaveLength(count + 1))
    expect(project().layers.some(({ name }) => name === 'Cover behind the sticks')).toBe(true)
    await press('From behind', 'switch')
    await waitFor(() => expect(document.querySelectorAll('[data-stick]')).toHaveLength(2))
    await toStage('assembly')
    await waitFor(() =>
      expect(document.body.textContent).toContain('Glue “Cover behind the sticks” over the sticks'),
    )
    await toStage('depth')
    await undo()
    expect(project().layers).toHaveLength(count)
  })

  it('are glued with any glue of the drawer, of which those that hold most come first', async () => {
    await open('bon-voyage', 'depth')
    const { adhesives } = project().drawer
    await soon('radio', /^clear solvent glue/)
    expect(all('radio', /flat behind|a bead behind/)).toHaveLength(3)
    await press(`All ${adhesives.length} glues`)
    expect(all('radio', /flat behind|a bead behind/)).toHaveLength(adhesives.length)
    await user.click(the('radio', /^decoupage medium/))
    const { mount } = project()
    expect(mount.kind === 'topper' && mount.stickGlueId).toBe('glue-decoupage')
    await press('The 3 that hold most')
    expect(all('radio', /flat behind|a bead behind/)).toHaveLength(3)
    await toStage('assembly')
    await waitFor(() => expect(document.body.textContent).toContain('decoupage medium'))
  })
})

it('a stand-off ring is layers that are cut, and goes again', async () => {
  await open(smallFrame(), 'depth')
  const count = project().layers.length
  await press('Stand off from the pane')
  await soon('button', 'Without the ring')
  expect(project().layers.length).toBeGreaterThan(count)
  await press('Without the ring')
  await waitFor(() => expect(project().layers).toHaveLength(count))
})

it('a section is cut where its line is moved to', async () => {
  await open(smallFrame(), 'depth')
  await press('section', 'radio')
  const line = await soon('slider', 'Line of the section')
  const name = () => one('[role=img][aria-label^="Section across"]').getAttribute('aria-label')
  const before = await waitFor(name)
  line.focus()
  await user.keyboard('{Shift>}{ArrowDown}{ArrowDown}{/Shift}')
  await waitFor(() => expect(name()).not.toBe(before))
  expect(document.querySelectorAll('[data-cut-card]').length).toBeGreaterThan(0)
  expect(all('alert', /broke off/)).toEqual([])
})
