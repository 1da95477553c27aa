import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { demo, demoNames } from '../../demo'
import { readDxf, readSvg } from '../../io/read'
import {
  intersect,
  pathToRegion,
  rectangle,
  regionArea,
  regionBox,
  subtract,
  union,
  type Region,
} from '../../base/geometry'
import { builtLayers, findLayer, layerRegion, setLayer, type Layer } from '../../project'
import {
  addBacking,
  addBackingRound,
  colourName,
  gatherLayers,
  intake,
  layerFigures,
  makeLayer,
  mergeLayers,
  scattered,
  sequenceLayers,
  isSeeThrough,
  shows,
  haveOnePage,
  onOnePlane,
  placement,
  takeIn,
} from './index'

const svg = (body: string, head = 'width="100mm" height="100mm" viewBox="0 0 100 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`
const rect = ([x, y]: readonly [number, number], [w, h]: readonly [number, number], fill: string) =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${fill}"/>`
const take = (body: string, head?: string) => intake(readSvg(svg(body, head)))
const summary = (layers: readonly Layer[]) =>
  layers.map((l) => `${l.colour} ${Math.round(regionArea(layerRegion(l)))}`)

/** Colour seen at a point when shapes are laid on each other in order. */
function seenAt(list: readonly { region: Region; colour: string }[], cell: Region): string {
  let seen = ''
  for (const { region, colour } of list) if (regionArea(intersect(region, cell)) > 0.5) seen = colour
  return seen
}

describe('layers of a drawing', () => {
  it('are one for each colour where nothing forces more', () => {
    expect(
      summary(
        take(
          rect([0, 0], [100, 100], '#00f') +
            rect([10, 10], [20, 20], '#f00') +
            rect([60, 60], [20, 20], '#f00'),
        ).layers,
      ),
    ).toEqual(['#0000ff 10000', '#ff0000 800'])
  })

  it('are two where a colour lies both under and over another', () => {
    const { layers } = take(
      rect([0, 0], [90, 90], '#00f') + rect([10, 10], [50, 50], '#f00') + rect([20, 20], [10, 10], '#00f'),
    )
    expect(summary(layers)).toEqual(['#0000ff 8100', '#ff0000 2500', '#0000ff 100'])
    expect(layers.map((l) => l.name)).toEqual(
      ['Dark blue', 'Red', 'Dark blue 2'].map(
        (n) => expect.stringMatching(new RegExp(n.split(' ').at(-1)!, 'i')) as string,
      ),
    )
    expect(new Set(layers.map((l) => l.id)).size).toBe(3)
  })

  it('come from named groups, colours kept apart', () => {
    const { layers } = take(
      `<g id="Sky">${rect([0, 0], [100, 100], '#00f')}</g><g id="Hills">${rect([0, 50], [100, 50], '#0a0')}</g><g id="Sun">${rect([40, 10], [20, 20], '#00f')}</g>`,
    )
    expect(layers.map((l) => l.name)).toEqual(['Sky', 'Hills', 'Sun'])
    const several = take(
      `<g id="Sky">${rect([0, 0], [100, 100], '#00f')}${rect([5, 5], [9, 9], '#f00')}</g><g id="Hills">${rect([0, 50], [100, 50], '#0a0')}${rect([9, 60], [9, 9], '#0a0')}</g>`,
    )
    expect(several.layers.map((l) => l.name)).toEqual([
      expect.stringMatching(/^Sky, .*blue$/),
      expect.stringMatching(/^Sky, .*red$/),
      'Hills',
    ])
  })

  it('bear names by which seven yellows are told apart, light to dark', () => {
    const yellows = ['#fff7b0', '#fff29a', '#ffee85', '#ffe96b', '#fde558', '#f8df45', '#f1d732']
    const { layers } = take(yellows.map((fill, i) => rect([i * 12, 0], [10, 10], fill)).join(''))
    const names = yellows.map((hex) => layers.find((layer) => layer.colour === hex)!.name)
    expect(new Set(names).size).toBe(7)
    expect(names.some((name) => /\d/.test(name))).toBe(false)
  })

  it('are refused in a sentence where their colours alone make more than a project holds', () => {
    const many = Array.from({ length: 501 }, (_, i) => {
      const colour = `#${(i * 30_000 + 1).toString(16).padStart(6, '0')}`
      return `<rect x="${i % 30}" y="${Math.floor(i / 30)}" width="1" height="1" fill="${colour}"/>`
    })
    expect(() => intake(readSvg(svg(many.join(''))))).toThrow(/shows 501 colours, .* 500 are the most/)
  })

  it('join shapes that touch into one piece, and count what falls out loose', () => {
    const [layer] = take(
      rect([0, 0], [50, 50], '#f00') + rect([50, 0], [20, 20], '#f00') + rect([90, 90], [5, 5], '#f00'),
    ).layers
    expect(layer!.pieces).toHaveLength(2)
    const figures = layerFigures(layer!)
    expect(figures.looseBits).toEqual(['p2'])
    expect(figures.areaMm2).toBeCloseTo(2500 + 400 + 25, 3)
    expect(figures.outlineMm).toBeCloseTo(70 + 20 + 20 + 30 + 50 + 50 + 20, 1)
  })

  it('stack to what the drawing showed, whatever lies over what', () => {
    const cell = fc.tuple(
      fc.nat(4),
      fc.nat(4),
      fc.integer({ min: 1, max: 3 }),
      fc.integer({ min: 1, max: 3 }),
      fc.constantFrom('#ff0000', '#00ff00', '#0000ff'),
    )
    fc.assert(
      fc.property(fc.array(cell, { minLength: 1, maxLength: 9 }), (cells) => {
        const drawing = readSvg(
          svg(cells.map(([x, y, w, h, c]) => rect([x * 10, y * 10], [w * 10, h * 10], c)).join('')),
        )
        const layers = intake(drawing).layers.map((l) => ({ region: layerRegion(l), colour: l.colour }))
        for (let x = 0; x < 80; x += 10)
          for (let y = 0; y < 80; y += 10) {
            const spot = [rectangle([x + 4, y + 4], 2, 2)]
            expect(seenAt(layers, spot)).toBe(seenAt(drawing.shapes, spot))
          }
      }),
      { numRuns: 60 },
    )
  })

  it('are as few as any order allows', () => {
    // Chains over each other: A B A B needs four, apart they need two.
    const box = (x: number) => ({
      region: [rectangle([x, 0], 10, 10)],
      box: regionBox([rectangle([x, 0], 10, 10)]),
    })
    const chain = ['a', 'b', 'a', 'b'].map((label) => ({ ...box(0), label }))
    expect(sequenceLayers(chain)).toHaveLength(4)
    const apart = ['a', 'b', 'a', 'b'].map((label, i) => ({ ...box(i * 20), label }))
    expect(sequenceLayers(apart)).toHaveLength(2)
    // b over a here, a over b there: three suffice.
    const crossed = [
      { ...box(0), label: 'a' },
      { ...box(0), label: 'b' },
      { ...box(20), label: 'b' },
      { ...box(20), label: 'a' },
    ]
    expect(sequenceLayers(crossed)).toHaveLength(3)
  })
})

it('outlines that share an edge are cut apart, shapes that are filled are one', () => {
  const both = ['<path d="M0 0h40v40h-40z"/>', '<path d="M40 0h40v40h-40z"/>'].join('')
  const pieces = (content: string) => take(content).layers.map((layer) => layer.pieces.length)
  expect(pieces(`<g fill="none" stroke="#000" stroke-width="0.1">${both}</g>`)).toEqual([2])
  expect(pieces(both)).toEqual([1])
  const crossing = '<circle cx="40" cy="20" r="12"/>'
  expect(pieces(`<g fill="none" stroke="#000" stroke-width="0.1">${both}${crossing}</g>`)).toEqual([1])
})

describe('sheets of one colour on each other', () => {
  const holed = (hole: string, { fill = '#000', side = 100 } = {}) =>
    `<path fill="${fill}" fill-rule="evenodd" d="M0 0h${side}v${side}h${-side}z${hole}"/>`
  const hole = (x: number, side: number) => `M${x} ${x}h${side}v${side}h${-side}z`
  const page = 'width="100mm" height="100mm" viewBox="0 0 100 100"'
  const areasOf = (content: string) =>
    take(content, page).layers.map((layer) => Math.round(regionArea(layerRegion(layer))))

  it('are a layer each, whatever they stand in', () => {
    const sheets = [holed(''), holed(hole(30, 20)), holed(hole(10, 80))]
    for (const content of [
      sheets.join(''),
      sheets.map((one) => `<g>${one}</g>`).join(''),
      `<g id="Layer_1">${sheets.map((one, k) => `<g id="g${k}">${one}</g>`).join('')}</g>`,
      // From the front to the back: the one with the most card lies behind.
      sheets.toReversed().join(''),
    ])
      expect(areasOf(content)).toEqual([10_000, 9600, 3600])
    expect(take(sheets.join(''), page).layers.map(({ name }) => name)).toEqual([
      'Black',
      'Black 2',
      'Black 3',
    ])
  })

  it('may be frames of one size with nothing behind, smaller ones on a plate, and have bits of their own', () => {
    expect(areasOf(holed(hole(20, 60)) + holed(hole(10, 80)))).toEqual([6400, 3600])
    const lace = holed(hole(10, 60), { side: 80 })
    expect(areasOf(holed('') + lace)).toEqual([10_000, 2800])
    // What follows a sheet belongs to it.
    const bit = '<rect x="40" y="40" width="10" height="10"/>'
    expect(areasOf(holed(hole(20, 60)) + bit + holed(hole(10, 80)))).toEqual([6500, 3600])
  })

  it('are one where one is the other again, where shapes build up a silhouette, and where other colours show what is meant', () => {
    expect(areasOf(holed(hole(20, 60)) + holed(hole(20, 60)))).toEqual([6400])
    const cloud = [
      [0, 40, 60],
      [30, 10, 60],
      [40, 40, 60],
    ].map(([x, y, s]) => `<rect x="${x}" y="${y}" width="${s}" height="${s}"/>`)
    expect(areasOf(cloud.join(''))).toHaveLength(1)
    // An outline that is painted round a shape fills nothing.
    expect(areasOf('<rect width="100" height="100" stroke="#000" stroke-width="4"/>')).toHaveLength(1)
    expect(
      areasOf(
        '<rect width="100" height="100"/><rect width="100" height="100" fill="none" stroke="#000" stroke-width="4"/>',
      ),
    ).toHaveLength(1)
    // White paper behind, and what of a picture is white too.
    const picture = holed('', { fill: '#fff' }) + rect([20, 20], [50, 50], '#36a')
    expect(
      areasOf(
        `${picture}<g transform="translate(30 30)">${holed(hole(5, 20), { fill: '#fff', side: 30 })}</g>`,
      ),
    ).toHaveLength(3)
    expect(
      areasOf(
        `${holed('', { fill: '#fff' })}<g transform="translate(30 30)">${holed(hole(5, 20), { fill: '#fff', side: 30 })}</g>${rect([5, 5], [10, 10], '#36a')}`,
      ),
    ).toHaveLength(2)
  })
})

describe('taking a drawing into a project', () => {
  const page = `<g id="A">${rect([0, 0], [200, 200], '#fff')}</g><g id="B">${rect([50, 50], [20, 20], '#f00')}</g>`

  it('lays a page of the backing’s size exactly on it, the backmost layer on the board', () => {
    const project = takeIn(stack('frame'), take(page, 'width="200mm" height="200mm" viewBox="0 0 200 200"'))
    const b = regionBox(layerRegion(project.layers[1]!))
    expect([b.minX, b.minY]).toEqual([50, 50])
    expect(project.layers[0]).toMatchObject({ role: 'backing', joint: { kind: 'glue', gapMm: 0 } })
    expect(project.layers[1]!.joint.kind).toBe('foam')
  })

  it('centres any other at its true size', () => {
    const project = takeIn(stack('frame'), take(rect([0, 0], [40, 60], '#f00')))
    const b = regionBox(layerRegion(project.layers[0]!))
    expect([b.minX, b.minY, b.maxX, b.maxY]).toEqual([80, 70, 120, 130])
  })

  it('lays drawings whose pages are of one size on each other as their pages lie', () => {
    const head = 'width="180mm" height="180mm" viewBox="0 0 180 180"'
    const [sheet, dot] = [
      take(rect([0, 0], [180, 180], '#fff'), head),
      take(rect([140, 20], [10, 10], '#f00'), head),
    ]
    expect(haveOnePage([sheet, dot])).toBe(true)
    expect(haveOnePage([sheet, take(rect([140, 20], [10, 10], '#f00'))])).toBe(false)
    expect(haveOnePage([sheet])).toBe(false)
    // 180 mm in the middle of 200 mm.
    expect(placement(stack('frame'), [sheet, dot])).toEqual({ x: 10, y: 10 })
    const own = placement(stack('frame'), [dot])
    expect(own).toEqual({ x: -45, y: 75 })
  })

  it('lays a sheet that is as large as the backing onto it, whatever else runs past its edge', () => {
    const head = 'width="260mm" height="230mm" viewBox="0 0 260 230"'
    const drawing = take(rect([20, 10], [200, 200], '#fff') + rect([10, 150], [240, 70], '#080'), head)
    expect(placement(stack('frame'), [drawing])).toEqual({ x: -20, y: -10 })
    // In free work nothing is that large.
    expect(placement(stack('free'), [drawing])).toEqual({ x: 0, y: 0 })
  })

  describe('without a page, in several files,', () => {
    const dxfOf = (...boxes: [x: number, y: number, w: number, h: number][]) => {
      const corners = boxes.map(([x, y, w, h]) => [x, y, x + w, y, x + w, y + h, x, y + h])
      const lines = corners.map(
        (c) =>
          `0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n${[0, 2, 4, 6].map((k) => `10\n${c[k]}\n20\n${c[k + 1]}\n`).join('')}`,
      )
      return intake(readDxf(`0\nSECTION\n2\nENTITIES\n${lines.join('')}0\nENDSEC\n0\nEOF\n`))
    }
    const boxOf = (one: ReturnType<typeof dxfOf>) => regionBox(layerRegion(one.layers[0]!))

    it('lies as its coordinates say, y up', () => {
      const [sheet, moon] = onOnePlane([dxfOf([300, 500, 180, 180]), dxfOf([440, 640, 20, 20])])
      expect(haveOnePage([sheet!, moon!])).toBe(true)
      expect([sheet!.widthMm, sheet!.heightMm]).toEqual([180, 180])
      expect(boxOf(moon!)).toEqual({ minX: 140, minY: 20, maxX: 160, maxY: 40 })
      expect(boxOf(sheet!)).toEqual({ minX: 0, minY: 0, maxX: 180, maxY: 180 })
    })

    it('comes by itself where each begins at its own corner, or lies far from the others', () => {
      const each = [dxfOf([0, 0, 180, 180]), dxfOf([0, 0, 20, 20])]
      expect(onOnePlane(each)).toBe(each)
      const apart = [dxfOf([0, 0, 180, 180]), dxfOf([250, 0, 180, 180])]
      expect(onOnePlane(apart)).toBe(apart)
      const mixed = [dxfOf([300, 500, 180, 180]), take(rect([0, 0], [180, 180], '#fff'))]
      expect(onOnePlane(mixed)).toBe(mixed)
    })
  })

  it('puts a second drawing in front of the first', () => {
    const once = takeIn(stack('frame'), take(rect([0, 0], [40, 60], '#f00')))
    const twice = takeIn(once, take(rect([0, 0], [40, 60], '#f00')))
    expect(twice.layers).toHaveLength(2)
    expect(twice.layers[1]!.role).toBe('plain')
    expect(twice.layers[1]!.id).not.toBe(twice.layers[0]!.id)
  })
})

describe('a full sheet behind', () => {
  it('fills the frame under what is there, which then is no backing any more', () => {
    const project = takeIn(
      stack('frame'),
      take(rect([10, 10], [30, 30], '#f00') + rect([20, 20], [30, 30], '#00f')),
    )
    const backed = addBacking(project)
    expect(backed.layers.map((l) => l.role)).toEqual(['backing', 'plain', 'plain'])
    expect(regionBox(layerRegion(backed.layers[0]!))).toEqual({ minX: 0, minY: 0, maxX: 200, maxY: 200 })
    expect(new Set(addBacking(backed).layers.map((l) => l.id)).size).toBe(4)
    expect(addBacking(stack('topper'))).toEqual(stack('topper'))
  })
})

describe('card behind, cut round all of it', () => {
  const cardBehind = (...rects: [number, number, number, number][]) =>
    layerRegion(addBackingRound(stack('free', plate('a', 0, ...rects))).layers[0]!)

  it('reaches 3 mm past what it holds on every side, in one piece', () => {
    const [face, ...others] = cardBehind([0, 0, 40, 30], [44, 0, 20, 20])
    expect(others).toEqual([])
    expect(regionBox([face!])).toMatchObject({ minX: -3, minY: -3, maxX: 67, maxY: 33 })
    // A rounded 46 × 36 and what of a rounded 26 × 26 lies beyond it; the bay between them is filled by a little.
    const area = 46 * 36 - 9 * (4 - Math.PI) + 24 * 26
    expect(regionArea([face!])).toBeGreaterThan(area - 9)
    expect(regionArea([face!])).toBeLessThan(area + 9)
  })

  it('fills small openings and keeps large ones', () => {
    const ring = (x: number, width: number): [number, number, number, number][] => [
      [x, 0, 10, 60],
      [x + 10 + width, 0, 10, 60],
      [x, 0, 20 + width, 10],
      [x, 50, 20 + width, 10],
    ]
    expect(cardBehind(...ring(0, 8))[0]!.holes).toHaveLength(0)
    expect(cardBehind(...ring(0, 40))[0]!.holes).toHaveLength(1)
  })

  it('is one piece however far apart things lie, and leaves them where they are', () => {
    const project = stack('free', plate('a', 0, [0, 0, 10, 10], [200, 0, 10, 10], [0, 150, 10, 10]))
    const backed = addBackingRound(project)
    const [back, front] = backed.layers
    expect(back!.role).toBe('backing')
    expect(layerRegion(back!)).toHaveLength(1)
    expect(subtract(layerRegion(front!), layerRegion(back!))).toEqual([])
    expect(front!.pieces).toEqual(project.layers[0]!.pieces)
    expect(addBackingRound(stack('free'))).toEqual(stack('free'))
  })
})

describe('merging', () => {
  it('keeps the frontmost’s name and place, and all card', () => {
    const project = stack(
      'card',
      plate('a', 0, [0, 0, 50, 50]),
      plate('b', 2, [40, 40, 50, 50]),
      plate('c', 2, [0, 0, 5, 5]),
    )
    const merged = mergeLayers(project, ['a', 'b'])
    expect(merged.layers.map((l) => l.id)).toEqual(['b', 'c'])
    expect(regionArea(layerRegion(merged.layers[0]!))).toBeCloseTo(2500 + 2500 - 100, 3)
    expect(merged.layers[0]!.joint.kind).toBe('glue')
    expect(mergeLayers(project, ['a'])).toBe(project)
  })
})

describe('gathering a colour', () => {
  const colours = ['#000000', '#ff0000', '#00ff00']
  const box = fc.tuple(
    fc.integer({ min: 10, max: 150 }),
    fc.integer({ min: 10, max: 150 }),
    fc.integer({ min: 5, max: 40 }),
    fc.integer({ min: 5, max: 40 }),
  )
  const sheets = fc.array(fc.tuple(fc.nat(2), box), { minLength: 3, maxLength: 9 })

  it('changes nothing that is seen, and leaves one layer of it', () => {
    fc.assert(
      fc.property(sheets, (list) => {
        const layers = list.map(([colour, [x, y, w, h]], i) => ({
          ...plate(`l${i}`, 2, [x, y, w, h]),
          colour: colours[colour]!,
        }))
        const project = stack('frame', ...layers)
        const seen = (p: typeof project, colour: string): Region =>
          union(
            ...shows(p)
              .filter((v) => p.layers.find((l) => l.id === v.id)!.colour === colour)
              .map((v) => pathToRegion(v.visiblePath)),
          )
        const gathered = gatherLayers(
          project,
          layers.filter((l) => l.colour === colours[0]).map((l) => l.id),
        )
        expect(gathered.layers.filter((l) => l.colour === colours[0]).length).toBeLessThanOrEqual(1)
        for (const colour of colours) {
          const [before, after] = [seen(project, colour), seen(gathered, colour)]
          expect(regionArea(subtract(before, after)) + regionArea(subtract(after, before))).toBeLessThan(0.2)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('is offered for outlines painted shape by shape, not for grounds that others lie on, nor where nothing lies between', () => {
    const ringed = [0, 1, 2].flatMap((i) => [
      rect([20 * i, 20], [20, 20], ['#f00', '#0f0', '#00f'][i]!),
      `<path fill="#000" fill-rule="evenodd" d="M${20 * i - 1} 19h22v22h-22zM${20 * i + 1} 21v18h18v-18z"/>`,
    ])
    const project = takeIn(
      stack('frame'),
      take(ringed.join(''), 'width="100mm" height="100mm" viewBox="0 0 100 100"'),
    )
    const [ids] = scattered(project, shows(project))
    expect(ids).toHaveLength(3)
    expect(gatherLayers(project, ids!).layers).toHaveLength(project.layers.length - 2)
    const grounds = [0, 1, 2, 3, 4].map((i) => ({
      ...plate(`g${i}`, 2, [10 + i * 10, 10 + i * 10, 160 - i * 20, 160 - i * 20]),
      colour: colours[i % 2]!,
    }))
    expect(scattered(stack('frame', ...grounds), shows(stack('frame', ...grounds)))).toEqual([])
    const apart = [0, 1, 2].map((i) => ({
      ...plate(`a${i}`, 2, [20 + i * 50, 10, 40, 40]),
      colour: colours[0]!,
    }))
    expect(scattered(stack('frame', ...apart), shows(stack('frame', ...apart)))).toEqual([])
  })
})

describe('what shows', () => {
  it.each(demoNames)('of %s adds up to the whole view', (name) => {
    const project = demo(name)
    // What is behind a clear sheet is seen as well as the sheet.
    const seen = shows(project)
      .filter(({ id }) => !isSeeThrough(project, findLayer(project, id)!))
      .reduce((sum, v) => sum + v.visibleMm2, 0)
    const all = union(...builtLayers(project).map(layerRegion))
    const { mount } = project
    const lip = mount.kind === 'frame' ? (mount.spacer.widthMm - mount.opening.widthMm) / 2 : 0
    const inView =
      mount.kind === 'frame'
        ? intersect(all, [rectangle([lip, lip], mount.opening.widthMm, mount.opening.heightMm)])
        : all
    expect(seen).toBeCloseTo(regionArea(inView), 0)
  })

  it('is a layer less all above it, within the opening', () => {
    const project = stack(
      'frame',
      plate('a', 0, [0, 0, 200, 200]),
      plate('b', 2, [50, 50, 100, 100]),
      plate('c', 2, [60, 60, 20, 20]),
    )
    expect(shows(project).map((v) => Math.round(v.visibleMm2))).toEqual([186 * 186 - 10000, 9600, 400])
    const clear = { ...demo('harbour').drawer.papers[0]!, id: 'clear', finish: 'acetate' as const }
    const glazed = setLayer({ ...project, drawer: { ...project.drawer, papers: [clear] } }, 'b', {
      paperId: 'clear',
    })
    expect(shows(glazed).map((v) => Math.round(v.visibleMm2))[0]).toBe(186 * 186 - 400)
  })
})

it('on a card what stands out over the edge shows as well', () => {
  const project = stack('card', plate('a', 0, [0, 0, 100, 100]), plate('b', 2, [-10, 40, 50, 20]))
  expect(shows(project).map((v) => Math.round(v.visibleMm2))).toEqual([10000 - 800, 1000])
  expect(results(project).visible.map((v) => Math.round(v.visibleMm2))).toEqual([10000 - 800, 1000])
})

describe('names of colours', () => {
  it.each([
    ['#ffffff', 'White'],
    ['#000000', 'Black'],
    ['#808080', 'Grey'],
    ['#f6d0da', 'Pale pink'],
    ['#1a3d8f', 'Dark blue'],
  ])('%s is %s', (hex, name) => expect(colourName(hex)).toBe(name))
})

it('sorts pieces largest first and names them', () => {
  const layer = makeLayer(
    { id: 'x', name: 'X' },
    subtract([rectangle([0, 0], 60, 60)], [rectangle([20, -1], 2, 70)]),
  )
  expect(layer.pieces.map((p) => p.id)).toEqual(['p1', 'p2'])
  expect(layerFigures(layer).openings).toBe(0)
  expect(
    layerFigures(makeLayer({ id: 'y', name: 'Y' }, [rectangle([0, 0], 60, 60), rectangle([80, 0], 1, 1)]))
      .specks,
  ).toEqual(['p2'])
})
