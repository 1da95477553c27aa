// What is measured, once and again, of each kind of thing that the work lives in; and what follows from it.
import { describe, expect, it } from 'vitest'
import { rectangle, subtract, union } from '@feuillet/core/base/geometry'
import { designBox, newProject, newThing, starterMount, type Mount } from '@feuillet/core/project'
import { makeLayer } from '@feuillet/core/stages/layers'
import { changeSupplies } from '../../state/edits'
import { store } from '../../state/store'
import {
  all,
  choose,
  field,
  figure,
  open,
  press,
  project,
  settled,
  shows,
  snags,
  soon,
  the,
  toast,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'
import { smallFrame } from '../../../test/small'

type Of<K extends Mount['kind']> = Extract<Mount, { kind: K }>
const mount = <K extends Mount['kind']>(kind: K): Of<K> => {
  expect(project().mount.kind).toBe(kind)
  return project().mount as Of<K>
}
const bare = (kind: Mount['kind']) => newProject('x', `A ${kind}`, starterMount(kind))
const width = () => {
  const box = designBox(project())
  return box.maxX - box.minX
}

describe('a frame', () => {
  it('hides by its lip, halves where it sits in the middle, and by hand where it does not', async () => {
    await open(smallFrame(), 'measure')
    await type('Spacer width', '210')
    await type('Opening width', '180')
    await shows('Lip hides', '15 mm · 15 mm')
    await press('Where the opening sits')
    await type('To the right of the middle', '2.5')
    await shows('Lip hides', '17.5 mm · 12.5 mm')
    await undo()
    await shows('Lip hides', '15 mm · 15 mm')
    expect(mount('frame')).toMatchObject({ spacer: { widthMm: 210 }, opening: { widthMm: 180 } })
  })

  it('that is kept under a name is taken for the next work, with all of its measures', async () => {
    await open(smallFrame(), 'measure')
    await type('Depth', '31')
    await type('Name of this frame', 'deep, white')
    await waitFor(() => the('button', 'Forget “deep, white”'))
    const kept = mount('frame')
    await open(bare('frame'), 'measure')
    await waitFor(() => field('Name of this frame'))
    await choose('Measured before', 'deep, white')
    expect(mount('frame')).toEqual(kept)
    await undo()
    expect(mount('frame')).not.toEqual(kept)
    await choose('Measured before', 'deep, white')
    await press('Forget “deep, white”')
    await waitFor(() => field('Name of this frame'))
    expect(all('combobox', 'Measured before')).toEqual([])
    expect(mount('frame')).toEqual(kept)
  })

  it('that is in the drawer gives its size, and all that was measured of one such', async () => {
    await open(bare('frame'), 'measure')
    const oak = { ...newThing('frame', 'oak'), name: 'Oak', widthMm: 300, heightMm: 240, count: 2 }
    const before = store.getState().document.supplies
    store.dispatch(changeSupplies('oak', (held) => ({ ...held, supplies: { ...before, things: [oak] } })))
    await soon('combobox', 'At hand')
    await user.click(the('combobox', 'At hand'))
    expect((await soon('option', 'Oak')).getAttribute('aria-description')).toBe('300 × 240 mm, 2 left')
    await user.keyboard('{Escape}')
    await choose('At hand', 'Oak')
    // The starting lip of 7 mm stays.
    expect(mount('frame')).toMatchObject({
      spacer: { widthMm: 300, heightMm: 240 },
      opening: { widthMm: 286, heightMm: 226 },
    })
    await toast(/The size of “Oak” is taken; what its lip hides/)
    await type('Depth', '44')
    await type('Name of this frame', 'the oak one')
    await waitFor(() => the('button', 'Forget “the oak one”'))
    await type('Spacer width', '111')
    await choose('At hand', 'Oak')
    expect(mount('frame')).toMatchObject({ spacer: { widthMm: 300 }, depthMm: 44 })
    store.dispatch(changeSupplies('as before', (held) => ({ ...held, supplies: before })))
  })

  it('that would be seen through further than it reaches is to be measured again', async () => {
    await open(smallFrame(), 'measure')
    await type('Opening width', '900')
    await settled()
    expect(snags('opening-over-spacer')).toHaveLength(1)
    await type('Opening width', '186')
    await settled()
    expect(snags('opening-over-spacer')).toEqual([])
  })

  it('loses depth to what lies before the glass: clearance, and a mat', async () => {
    await open(smallFrame(), 'measure')
    await type('Depth', '30')
    await type('Clearance to glazing', '3')
    await shows('Depth for card and foam', '27 mm')
    await press('Mat, pane, back')
    await press('Put a mat in')
    expect(mount('frame').mat).toMatchObject({ thicknessMm: 1.4 })
    await shows('Depth for card and foam', '25.6 mm')
    await type('Mat’s thickness', '2.6')
    await shows('Depth for card and foam', '24.4 mm')
    await press('Take the mat out')
    expect(mount('frame').mat).toBeNull()
    await shows('Depth for card and foam', '27 mm')
    await choose('Pane', 'none')
    expect(mount('frame').pane.kind).toBe('none')
    await waitFor(() => expect(all('field', 'Pane’s thickness')).toEqual([]))
  })

  it('that the design passes is a snag; the mend scales it, undo brings it back', async () => {
    await open(smallFrame(), 'measure')
    await type('Spacer width', '150')
    await type('Spacer height', '150')
    await type('Opening width', '140')
    await type('Opening height', '140')
    await settled()
    const before = width()
    expect(before).toBeCloseTo(200, 3)
    await press(/^Fit to size, × 0\.75$/)
    await settled()
    expect(width()).toBeCloseTo(150, 3)
    expect(snags('design-over-opening')).toEqual([])
    await undo()
    expect(width()).toBeCloseTo(before, 6)
  })

  it('into which some sheets do not go for what runs past their edge has that cut off, all at one press', async () => {
    const sheet = (id: string, past: number) =>
      makeLayer(
        { id, name: id },
        subtract(union([rectangle([0, 0], 200, 200)], [rectangle([50, -past], 60, 40)]), [
          rectangle([60, 60], 80, 80),
        ]),
      )
    await open(
      { ...bare('frame'), layers: [sheet('sky', 0), sheet('hills', 9), sheet('dunes', 14)] },
      'measure',
    )
    await waitFor(() => expect(snags('sheet-over-spacer')).toHaveLength(2))
    // Beside each stop, and at the foot for both.
    await user.click(all('button', 'Cut off what passes the spacer').at(-1)!)
    await waitFor(() => expect(snags('sheet-over-spacer')).toHaveLength(0))
    expect(designBox(project())).toEqual({ minX: 0, minY: 0, maxX: 200, maxY: 200 })
    the('button', 'Fits as it is')
    await undo()
    await waitFor(() => expect(snags('sheet-over-spacer')).toHaveLength(2))
  })

  it('that is wider than the cutter reaches has sheets put together of parts, a press a sheet, until undone', async () => {
    const layers = [
      makeLayer({ id: 'sheet', name: 'Sheet' }, [rectangle([0, 0], 200, 400)], { role: 'backing' }),
    ]
    await open({ ...bare('frame'), layers }, 'measure')
    await type('Spacer height', '400')
    await type('Opening height', '386')
    await soon('button', 'Cut it in 2 parts')
    await press('Cut it in 2 parts')
    await waitFor(() => expect(snags('piece-over-sheet')).toHaveLength(0))
    expect(project().layers[0]!.pieces).toHaveLength(2)
    await undo()
    expect(project().layers[0]!.pieces).toHaveLength(1)
  })

  it('is measured again without the first figures in sight; what differs is said, and taken when wished', async () => {
    await open(smallFrame(), 'measure')
    const first = mount('frame')
    await press('Measure again')
    const dialog = await waitFor(() => the('dialog'))
    const again = (label: string) => the('field', label, dialog) as HTMLInputElement
    expect(all('field', /^/, dialog).map((input) => (input as HTMLInputElement).value)).toEqual([
      '0',
      '0',
      '0',
      '0',
      '0',
    ])
    const put = async (label: string, mm: number) => {
      await user.clear(again(label))
      await user.type(again(label), `${mm}{Enter}`)
    }
    await put('Spacer, width', first.spacer.widthMm + 0.5)
    expect(dialog.textContent).toContain('✓ the same')
    await put('Opening, height', first.opening.heightMm - 4)
    expect(the('alert', /^/, dialog).textContent).toContain('4 mm apart')
    await user.click(the('button', 'Take what was typed now', dialog))
    expect(mount('frame').opening.heightMm).toBe(first.opening.heightMm - 4)
    // Half a millimetre is the same reading: it stays as it was.
    expect(mount('frame').spacer.widthMm).toBe(first.spacer.widthMm)
    await undo()
    expect(mount('frame')).toEqual(first)
  })
})

describe('other kinds', () => {
  it('a topper: sticks have their width by kind, cakes their size, and one of its own is neither', async () => {
    await open(bare('topper'), 'measure')
    await choose('Kind of stick', 'dowel')
    const dowel = mount('topper').stick
    expect(dowel.kind).toBe('dowel')
    await choose('Kind of stick', 'toothpick')
    expect(mount('topper').stick.widthMm).toBeLessThan(dowel.widthMm)
    await type('Its width', '4.2')
    expect(mount('topper').stick).toMatchObject({ kind: 'own', widthMm: 4.2 })
    await press('cupcake')
    expect(mount('topper').cake.kind).toBe('cupcake')
    const small = mount('topper').cake
    await press(/^large cake$/)
    expect(mount('topper').cake.diameterMm).toBeGreaterThan(small.diameterMm)
    await type('Sticks', '99')
    expect(the('alert').textContent).toMatch(/Between \d+ and \d+/)
  })

  it('a garland: the string is flags, gaps and both ends', async () => {
    const flag = makeLayer({ id: 'flag', name: 'Flag' }, [rectangle([0, 0], 50, 80)])
    await open({ ...bare('garland'), layers: [flag] }, 'measure')
    await type('Flags', '4')
    await type('Between flags', '20')
    await type('Free at each end', '100')
    await shows('String', '460 mm')
  })

  it('a panel stands off the wall by its edge and the stack', async () => {
    await open({ ...smallFrame(), mount: starterMount('panel') }, 'measure')
    await type('Edge, from the wall', '10')
    const before = await waitFor(() => Number.parseFloat(figure('Stands off the wall')))
    await type('Edge, from the wall', '38')
    await waitFor(() => expect(Number.parseFloat(figure('Stands off the wall'))).toBeCloseTo(before + 28, 6))
    await choose('Made of', 'wood')
    expect(mount('panel').surface).toBe('wood')
  })

  it.each(['card', 'panel', 'topper', 'garland', 'free', 'frame'] as const)(
    'turns into a %s and back, with its layers as they were',
    async (kind) => {
      await open('bon-voyage', 'measure')
      const before = project()
      const words = {
        card: 'card',
        panel: 'panel',
        topper: 'topper',
        garland: 'garland',
        free: 'free work',
        frame: 'frame',
      }[kind]
      if (before.mount.kind !== kind) await choose('It will live in', new RegExp(`^${words}`, 'i'))
      await settled()
      expect(project().mount.kind).toBe(kind)
      expect(project().layers.map(({ id }) => id)).toEqual(before.layers.map(({ id }) => id))
      await toStage('depth')
      expect(all('alert').filter((alert) => /broke off/.test(alert.textContent))).toEqual([])
    },
  )
})

it('both units say the same length', async () => {
  await open(smallFrame(), 'measure')
  const mm = Number(field('Spacer width').value)
  await press(/^Units/)
  await waitFor(() => expect(field('Spacer width').value).toMatch(/in$/))
  expect(project().mount).toEqual(smallFrame().mount)
  await type('Spacer width', '8')
  expect(mount('frame').spacer.widthMm).toBeCloseTo(203.2, 6)
  await undo()
  await press(/^Units/)
  expect(Number(field('Spacer width').value)).toBe(mm)
})
