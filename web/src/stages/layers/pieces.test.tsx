// Parts, pieces, openings, strips and folds on the board of layers, by hand: where they go, what becomes of the shape.
import { ellipse, rectangle, regionArea } from '@feuillet/core/base/geometry'
import { beforeEach, describe, expect, it } from 'vitest'
import { layerBox, newProject, pieceRegion, starterMount, type Project } from '@feuillet/core/project'
import { makeLayer } from '@feuillet/core/stages/layers'
import { store } from '../../state/store'
import {
  all,
  choose,
  drag,
  field,
  layer,
  one,
  open,
  panel,
  pick,
  press,
  project,
  settled,
  soon,
  the,
  type,
  undo,
  user,
  waitFor,
} from '../../../test/screens'

const hole = Float64Array.of(130, 50, 130, 60, 140, 60, 140, 50)

/** A panel of 200 mm with a leaf at its left and a square at its right that has an opening and a tile beside it. */
const bouquet = (): Project => ({
  ...newProject('x', 'Bouquet', starterMount('panel')),
  layers: [
    makeLayer({ id: 'back', name: 'Back' }, [rectangle([0, 0], 200, 200)], { role: 'backing' }),
    makeLayer({ id: 'leaf', name: 'Leaf' }, [ellipse([40, 150], 16, 6)]),
    makeLayer({ id: 'square', name: 'Square' }, [
      { outer: rectangle([120, 40], 30, 30).outer, holes: [hole] },
      rectangle([160, 40], 12, 30),
    ]),
  ],
})

const area = (id: string) => regionArea(layer(id).pieces.flatMap(pieceRegion))
const holes = (id: string) =>
  layer(id)
    .pieces.flatMap(pieceRegion)
    .flatMap((face) => face.holes).length
const board = () => one('[data-board]')
beforeEach(async () => {
  await open(bouquet(), 'layers')
})

describe('placing', () => {
  const from = (id: string) => {
    const box = layerBox(layer(id))
    return [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] as const
  }
  const part = (id: string) => one(`[data-layer="${id}"]`)

  beforeEach(async () => {
    await user.keyboard('p')
    await waitFor(() => part('leaf'))
  })

  it('by a drag: where it is let go, drawn to what is near, and as one step', async () => {
    await drag(part('leaf'), [
      [40, 150],
      [60, 120],
      [70, 90],
    ])
    await waitFor(() => expect(from('leaf')[0]).toBeGreaterThan(60))
    // The middle of the panel is further off than it would be drawn to; no edge is near.
    const [x, y] = from('leaf')
    expect(Math.hypot(x - 70, y - 90)).toBeLessThan(8)
    await undo()
    expect(from('leaf')[0]).toBeCloseTo(40, 1)
  })

  it('with Alt it goes where it is put', async () => {
    await drag(part('leaf'), [[40, 150], [98.7, 101.3]], { altKey: true }) // prettier-ignore
    await waitFor(() => expect(from('leaf')[0]).toBeCloseTo(98.7, 1))
    expect(from('leaf')[1]).toBeCloseTo(101.3, 1)
  })

  it('a press without a drag only picks', async () => {
    const before = project()
    await drag(part('leaf'), [
      [40, 150],
      [40, 150],
    ])
    await waitFor(() => expect(store.getState().view.layerId).toBe('leaf'))
    expect(project()).toBe(before)
  })

  it('by keys: fine and coarse, turned, mirrored, copied beside', async () => {
    await drag(part('square'), [
      [130, 45],
      [130, 45],
    ])
    await waitFor(() => expect(store.getState().view.layerId).toBe('square'))
    const [x, y] = from('square')
    await user.keyboard('{ArrowRight}{ArrowRight}{Shift>}{ArrowDown}{/Shift}{Alt>}{ArrowUp}{/Alt}')
    expect(from('square')[0]).toBeCloseTo(x + 1, 6)
    expect(from('square')[1]).toBeCloseTo(y + 5 - 0.1, 6)
    // All the arrows are one step.
    await undo()
    expect(from('square')[0]).toBeCloseTo(x, 6)
    await user.keyboard('m')
    const box = layerBox(layer('square'))
    // The tile is now at the left.
    expect(layer('square').pieces.map((piece) => layerBox({ pieces: [piece] }).minX)).toContain(box.minX)
    expect(area('square')).toBeCloseTo(900 - 100 + 360, 6)
    await user.keyboard('{Control>}d{/Control}')
    const copy = project().layers.at(-1)!
    expect(copy.name).toBe('Square, copy')
    expect(store.getState().view.layerId).toBe(copy.id)
    expect(layerBox(copy).minX).toBeCloseTo(box.minX + 5, 6)
  })

  it('by number, and into the middle of what is seen', async () => {
    await drag(part('square'), [
      [130, 45],
      [130, 45],
    ])
    await waitFor(() => field('Middle, from the left'))
    await type('Middle, from the left', '60')
    expect(from('square')[0]).toBeCloseTo(60, 6)
    await type('Its width, proportions locked', '104')
    const box = layerBox(layer('square'))
    expect([box.maxX - box.minX, box.maxY - box.minY].map((mm) => Math.round(mm * 1e6) / 1e6)).toEqual([
      104, 60,
    ])
    await press('Into the middle')
    expect(from('square').map((mm) => Math.round(mm * 1e6) / 1e6)).toEqual([100, 100])
  })

  it('several in line, spread, as one part, and apart again', async () => {
    const shift = (id: string) => drag(part(id), [from(id)], { shiftKey: true })
    await drag(part('leaf'), [
      [40, 150],
      [40, 150],
    ])
    await waitFor(() => expect(store.getState().view.layerId).toBe('leaf'))
    await shift('square')
    await waitFor(() => the('button', 'Lower edges in line'))
    await press('Lower edges in line')
    expect(layerBox(layer('leaf')).maxY).toBeCloseTo(layerBox(layer('square')).maxY, 6)
    // Two have no gaps to be made even.
    expect(the('button', 'Spread across')).toHaveProperty('disabled', true)
    await press('Make one part')
    expect(project().assemblies).toHaveLength(1)
    await type('Name of the part', 'Posy')
    expect(project().assemblies[0]!.name).toBe('Posy')
    await press('Hidden in drawings', 'switch')
    expect(layer('leaf').hidden && layer('square').hidden).toBe(true)
    await undo()
    await press('Take it apart')
    expect(project().assemblies).toEqual([])
    // A second Shift press lets one go.
    await shift('square')
    await waitFor(() => expect(store.getState().view.alsoIds).toEqual([]))
  })

  it('repeated round the middle and along a line', async () => {
    await drag(part('leaf'), [
      [40, 150],
      [40, 150],
    ])
    await user.click(await soon('button', 'Several of it'))
    await type('How many in all', '4')
    await press('Round the middle')
    const middles = project()
      .layers.filter(({ name }) => name.startsWith('Leaf'))
      .map((one) => layerBox(one))
      .map((box) => [(box.minX + box.maxX) / 2 - 100, (box.minY + box.maxY) / 2 - 100] as const)
    expect(middles).toHaveLength(4)
    // All as far from the middle, a quarter turn from one to the next.
    for (const [x, y] of middles) expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(60, 50), 1)
    expect(middles.reduce((sum, [x]) => sum + x, 0)).toBeCloseTo(0, 1)
    await undo()
    await type('Each to the right by', '0')
    await type('Each down by', '-20')
    await press('Along a line')
    const rows = project()
      .layers.filter(({ name }) => name.startsWith('Leaf'))
      .map((one) => layerBox(one).minY)
    expect(rows.toSorted((a, b) => b - a).map((y) => Math.round(244 - y))).toEqual([100, 120, 140, 160])
  })
})

describe('single pieces', () => {
  beforeEach(async () => {
    await pick('square')
    await user.keyboard('i')
    await waitFor(() => the('heading', 'Pieces of Square', panel()))
  })
  const bit = (name: string) => the('any', name, board())

  it('are named, picked and let go by mouse and keys', async () => {
    expect(all('any', /^(Piece|Opening) \d/, board()).map((one) => one.getAttribute('aria-label'))).toEqual([
      'Piece 1',
      'Piece 2',
      'Opening 1.1',
    ])
    expect(panel().textContent).toContain('2 pieces, 1 openings')
    await user.click(bit('Piece 2'))
    expect(bit('Piece 2').getAttribute('aria-pressed')).toBe('true')
    expect(panel().textContent).toContain('Piece 2: 12 × 30 mm')
    bit('Opening 1.1').focus()
    await user.keyboard('{Enter}')
    expect(panel().textContent).toContain('Opening 1.1: 10 × 10 mm')
    await user.keyboard(' ')
    expect(bit('Opening 1.1').getAttribute('aria-pressed')).toBe('false')
  })

  it('an opening is filled', async () => {
    await user.click(bit('Opening 1.1'))
    await press('Fill it')
    await waitFor(() => expect(holes('square')).toBe(0))
    expect(area('square')).toBeCloseTo(900 + 360, 4)
    await undo()
    expect(holes('square')).toBe(1)
  })

  it('a piece is dropped, made a layer of its own, or moved to another', async () => {
    await user.click(bit('Piece 2'))
    await press('Drop it')
    await waitFor(() => expect(area('square')).toBeCloseTo(800, 4))
    await undo()
    await user.click(bit('Piece 2'))
    await press('A layer of its own')
    await waitFor(() => expect(project().layers).toHaveLength(4))
    expect(area('square')).toBeCloseTo(800, 4)
    await undo()
    await user.click(bit('Piece 2'))
    await choose('Move it to', 'Leaf')
    await press('Move')
    await waitFor(() => expect(layer('leaf').pieces.length).toBeGreaterThan(1))
    expect(area('square')).toBeCloseTo(800, 4)
    expect(area('leaf')).toBeGreaterThan(360 + 16 * 6 * 3)
  })

  it('a strip is laid from piece to piece, moved, made wider and taken out again', async () => {
    await press('lay strip', 'radio')
    await type('Width of the strip', '2')
    await drag(the('any', 'Drag a strip of card'), [
      [145, 60],
      [150, 60],
      [165, 60],
    ])
    // From 150 to 160 mm there was none: 10 × 2 mm.
    await waitFor(() => expect(area('square')).toBeCloseTo(900 - 100 + 360 + 20, 1))
    expect(layer('square').ties).toHaveLength(1)
    await press('pick', 'radio')
    const tie = await waitFor(() => the('any', 'Tie 1', board()))
    tie.focus()
    await user.keyboard('{Enter}')
    await waitFor(() => field('Width of the tie'))
    await type('Width of the tie', '4')
    await waitFor(() => expect(area('square')).toBeCloseTo(900 - 100 + 360 + 40, 1))
    await press('Take it out')
    // What the strip met there is a little rounder than it was.
    await waitFor(() => expect(area('square')).toBeCloseTo(900 - 100 + 360, 0))
    expect(layer('square').ties).toEqual([])
  })

  it('a strip is cut away; one that is hardly dragged does nothing', async () => {
    await press('cut', 'radio')
    await type('Width of the strip', '4')
    const before = project()
    await drag(the('any', 'Drag a strip to cut away'), [
      [166, 50],
      [166.1, 50],
    ])
    await settled()
    expect(project()).toBe(before)
    await drag(the('any', 'Drag a strip to cut away'), [
      [155, 55],
      [166, 55],
      [180, 55],
    ])
    await waitFor(() => expect(area('square')).toBeCloseTo(800 + 360 - 12 * 4, 1))
  })

  it('a fold is drawn, turned over, turned further and dropped', async () => {
    await press('fold', 'radio')
    await type('By', '45')
    await drag(the('any', 'Drag a line to fold along'), [
      [120, 45],
      [140, 45],
      [150, 45],
    ])
    await waitFor(() => expect(layer('square').folds).toHaveLength(1))
    expect(layer('square').folds[0]).toMatchObject({ way: 'up', deg: 45, line: [120, 45, 150, 45] })
    const list = one('[aria-label=Folds]')
    expect(list.textContent).toContain('up by 45°')
    await user.click(the('button', 'Turn over', list))
    expect(layer('square').folds[0]!.way).toBe('down')
    await type('By', '90')
    await user.click(the('button', '90°', list))
    expect(layer('square').folds[0]!.deg).toBe(90)
    await user.click(the('button', 'Drop', list))
    expect(layer('square').folds).toEqual([])
    for (let k = 0; k < 4; k++) await undo()
    expect(layer('square').folds).toEqual([])
  })

  it('are not worked on where a layer is cut flat and then folded or rolled', async () => {
    await user.keyboard('i')
    await waitFor(() => expect(store.getState().view.bits).toBe(false))
    expect(all('any', /^Piece \d/, board())).toEqual([])
  })
})

describe('made of a layer', () => {
  beforeEach(() => pick('square'))

  it('its outline, its mirror, another width', async () => {
    await type('Outline', '3')
    await press('Add its outline as a layer')
    await waitFor(() => expect(project().layers).toHaveLength(4))
    const outline = project().layers.find(({ name }) => name === 'Square, outline')!
    expect(layerBox(outline)).toEqual(layerBox(layer('square')))
    await undo()
    await press('this layer', 'radio')
    await press('Mirror this layer')
    expect(layerBox(layer('square'))).toEqual(layerBox(bouquet().layers[2]!))
    await undo()
    await type('Width, proportions locked', '26')
    expect(area('square')).toBeCloseTo((800 + 360) / 4, 4)
    // All others stay.
    expect(layer('leaf')).toEqual(bouquet().layers[1])
  })

  it('openings filled up to a size, a shape cut out, another edge', async () => {
    await type('Fill openings under', '99')
    await press('Fill them')
    await settled()
    expect(holes('square')).toBe(1)
    await type('Fill openings under', '101')
    await press('Fill them')
    await waitFor(() => expect(holes('square')).toBe(0))
    await press('row of holes', 'radio')
    await waitFor(() => field('Hole across'))
    await type('Hole across', '1.5')
    await press('Give it this edge')
    await waitFor(() => expect(holes('square')).toBeGreaterThan(10))
    await undo()
    await pick('back')
    await choose('Another layer', 'Leaf')
    await press('Cut its shape out of this one')
    await waitFor(() => expect(holes('back')).toBe(1))
    expect(area('back')).toBeCloseTo(40_000 - area('leaf'), 1)
  })
})
