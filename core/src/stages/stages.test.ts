import { wordsIn } from '../base/units'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../test/stack'
import { demo, demoNames } from '../demo'
import { readSvg } from '../io/read'
import { rectangle, subtract } from '../base/geometry'
import { intake, takeIn } from './layers'
import { assignNearest, starterStock } from './paper'
import { keptLayout } from './sheets'
import { findLayer, meanSo, setLayer, setPin, setPlan, type Project } from '../project'
import { check, computeResults, results } from '../../test/results'
import { mendProject } from './index'

const stock = starterStock().map((paper) =>
  paper.name === 'Shell'
    ? { ...paper, offCuts: [{ id: 'o1', label: 'left of the last', path: 'M0 0L120 0L120 90L0 90Z' }] }
    : paper,
)

/** Two small layers of papers that nobody can tell apart, a third between them. */
function twoBlues(): Project {
  const project = stack(
    'card',
    plate('low', 0, [0, 0, 60, 60]),
    plate('mid', 2, [5, 5, 50, 50]),
    plate('top', 2, [10, 10, 30, 30]),
  )
  const [shell, , , , blue] = starterStock()
  const papers = [shell!, blue!, { ...blue!, id: 'blue-too', name: 'Harbour blue again', colour: '#43598d' }]
  const ids = [blue!.id, shell!.id, 'blue-too']
  return {
    ...project,
    drawer: { ...project.drawer, papers },
    layers: project.layers.map((layer, i) => ({ ...layer, paperId: ids[i]! })),
  }
}
const codes = (project: Project) => check(project, stock).map((s) => s.code)

/** Three tiles, each with a black rim of its own that reaches over its neighbour. */
const outlined = () =>
  stack(
    'frame',
    ...[0, 1, 2].flatMap((i) => {
      const rim = subtract([rectangle([20 + 40 * i, 20], 44, 44)], [rectangle([24 + 40 * i, 24], 36, 36)])
      return [
        plate(`tile-${i}`, 2, [20 + 40 * i, 20, 42, 42]),
        { ...card(`rim-${i}`, 2, rim), colour: '#000000' },
      ].map((layer, k) => (k === 0 ? { ...layer, colour: ['#cc0000', '#00cc00', '#0000cc'][i]! } : layer))
    }),
  )

/** Three sheets of the size of the backing, beside each other as they are cut. */
const besideEachOther = () =>
  stack(
    'frame',
    ...[0, 1, 2].map((k) =>
      card(
        `sheet-${k}`,
        2,
        subtract(
          [rectangle([210 * k, 0], 200, 200)],
          k === 0 ? [] : [rectangle([210 * k + 40, 40], 100 + k, 100)],
        ),
      ),
    ),
  )

describe.each(demoNames)('the demo %s', (name) => {
  const derived = results(demo(name), stock)

  it('is complete: no stop, a load for every sheet, steps to the end', () => {
    expect(derived.snags.filter((s) => s.severity === 'stop')).toEqual([])
    expect(derived.loads.length).toBeGreaterThan(0)
    expect(derived.depth.stackMm).toBeLessThanOrEqual(derived.depth.roomMm ?? Infinity)
    expect(derived.assembly.steps.at(-1)!.endMin).toBe(derived.assembly.minutes)
  })

  it('gives the same results each time', () => {
    // With a cache of its own, so that nothing is compared with itself.
    const again = computeResults(demo(name), stock)
    expect(again.runs[0]!.layout).not.toBe(derived.runs[0]!.layout)
    expect(again.runs.map((r) => r.layout)).toEqual(derived.runs.map((r) => r.layout))
    expect(again.depth.pads).toEqual(derived.depth.pads)
    expect(again.assembly).toEqual(derived.assembly)
  })
})

describe('snags and their mends', () => {
  const cases: [string, () => Project][] = [
    ['design-over-opening', () => stack('frame', plate('a', 0, [2, 2, 190, 50]))],
    [
      'stack-too-deep',
      () => ({ ...demo('harbour'), mount: { ...demo('harbour').mount, depthMm: 14 } as Project['mount'] }),
    ],
    ['no-paper', () => setLayer(demo('harbour'), 'pier', { paperId: null })],
    ['too-alike', () => setLayer(demo('harbour'), 'pier', { paperId: 'paper-deep-harbour' })],
    [
      'specks',
      () => ({
        ...demo('harbour'),
        layers: [...demo('harbour').layers, plate('dust', 0, [100, 100, 30, 30], [150, 100, 1, 1])],
      }),
    ],
    [
      'pin-illegal',
      () =>
        setPin(demo('harbour'), {
          layerId: 'sky',
          pieceId: 'p1',
          copy: 0,
          sheet: 0,
          on: '',
          x: -20,
          y: 10,
          rotation: 0,
        }),
    ],
    ['papers-alike', () => twoBlues()],
    ['board-shows', () => stack('frame', plate('a', 0, [40, 40, 100, 100]))],
    ['strewn-colour', () => outlined()],
    ['laid-out', () => besideEachOther()],
    ['off-cuts-at-hand', () => demo('harbour')],
    [
      'no-room-for-pads',
      () => stack('card', plate('base', 0, [0, 0, 140, 140]), plate('thin', 2, [10, 10, 100, 2])),
    ],
    [
      'opening-over-spacer',
      () => ({
        ...demo('harbour'),
        mount: { ...demo('harbour').mount, opening: { widthMm: 220, heightMm: 100 } } as Project['mount'],
      }),
    ],
  ]

  it.each(cases)('%s goes away at one press', (code, make) => {
    const project = make()
    const snag = check(project, stock).find((s) => s.code === code)!
    expect(snag.mend, code).toBeDefined()
    expect(codes(mendProject(project, snag.mend!.action, stock))).not.toContain(code)
  })

  it('tell no bare board where an opening passes the board: no sheet fills that', () => {
    const project = stack('frame', plate('back', 0, [0, 0, 200, 200]), plate('a', 2, [40, 40, 100, 100]))
    const opening = { widthMm: 260, heightMm: 186 }
    const wide = { ...project, mount: { ...project.mount, opening } as Project['mount'] }
    expect(codes(wide)).toContain('opening-over-spacer')
    expect(codes(wide)).not.toContain('board-shows')
  })

  it('offer no merging of papers with what is printed on', () => {
    const project = twoBlues()
    expect(codes(project)).toContain('papers-alike')
    const print = { pictureId: 'gone', map: [1, 0, 0, 1, 0, 0] as const, bleedMm: 2 }
    const printed = project.layers.reduce((p, { id }) => setLayer(p, id, { print: { ...print, map: [...print.map] } }), project) // prettier-ignore
    expect(codes(printed)).not.toContain('papers-alike')
  })

  it('offer no merging of papers where one layer lies right on the other, or nothing is saved', () => {
    const project = twoBlues()
    const touching = { ...project, layers: [project.layers[0]!, project.layers[2]!, project.layers[1]!] }
    expect(codes(touching)).not.toContain('papers-alike')
    const large = {
      ...project,
      layers: project.layers.map((layer) => ({ ...layer, copies: { low: 16, mid: 1, top: 60 }[layer.id]! })),
    }
    expect(results(large, stock).loads.length).toBeGreaterThanOrEqual(3)
    expect(codes(large)).not.toContain('papers-alike')
  })

  it('say where: every layer they name is there', () => {
    for (const [, make] of cases) {
      const project = make()
      for (const snag of check(project, stock)) {
        if (snag.layer !== null) expect(findLayer(project, snag.layer)).toBeDefined()
        expect(wordsIn(snag.message, 'mm')).toMatch(/\.$/)
      }
    }
  })

  it('are one where sheets lie beside each other, and what follows from it only where that is meant', () => {
    const project = besideEachOther()
    const told = (of: Project) =>
      check(of, stock)
        .filter(({ stage }) => stage === 'measure' || stage === 'layers')
        .map(({ code }) => code)
    expect(told(project)).toEqual(['laid-out'])
    const [snag] = check(project, stock).filter(({ code }) => code === 'laid-out')
    expect(told(meanSo(project, [snag!]))).toEqual(
      expect.arrayContaining(['design-over-opening', 'hidden-layer']),
    )
    const laid = mendProject(project, snag!.mend!.action, stock)
    expect(told(laid)).toEqual([])
  })

  it('warn of a layer that nobody will see, and of one with no pieces', () => {
    const project = stack(
      'card',
      plate('a', 0, [0, 0, 140, 140]),
      plate('hidden', 2, [20, 20, 50, 50]),
      plate('over', 2, [10, 10, 100, 100]),
      {
        ...plate('none', 0),
        pieces: [],
      },
    )
    expect(codes(project)).toEqual(expect.arrayContaining(['hidden-layer', 'empty-layer']))
  })

  it('let a layer that nobody sees be left out, unless something rests on it alone', () => {
    const over = (kind: 'card' | 'free') =>
      stack(kind, plate('hidden', 0, [20, 20, 50, 50]), plate('over', 2, [10, 10, 100, 100]))
    const mendOf = (project: Project) =>
      check(project, stock).find(({ code }) => code === 'hidden-layer')!.mend?.action.kind
    expect(mendOf(over('card'))).toBe('leave-out')
    expect(mendOf(over('free'))).toBeUndefined()
    const carried = over('free')
    const held = { ...carried, layers: [plate('back', 0, [0, 0, 120, 120]), ...carried.layers] }
    expect(mendOf(held)).toBe('leave-out')
  })

  it('leave no empty layer behind', () => {
    const project = stack('card', plate('a', 0, [0, 0, 140, 140]), plate('dust', 2, [10, 10, 1, 1]))
    const snag = check(project, stock).find((s) => s.code === 'specks')!
    expect(mendProject(project, snag.mend!.action, stock).layers.map((l) => l.id)).toEqual(['a'])
  })

  it('are harmless when what they were about is gone', () => {
    const project = demo('harbour')
    expect(mendProject(project, { kind: 'swap-paper', layerId: 'sky', paperId: 'gone' }, stock)).toBe(project)
    expect(mendProject(project, { kind: 'drop-specks', layerId: 'gone', pieceIds: [] }, stock)).toBe(project)
  })
})

describe('a drawing that nobody here drew', () => {
  it('goes through all stages to steps and loads', () => {
    const wave = (y: number) => `<path d="M0 ${y}c20 -10 30 10 50 0s30 -10 50 0v${100 - y}h-100z"/>`
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="5in"><g id="sky" fill="#9cf"><rect width="100" height="100"/></g><g id="sea" fill="#36a">${wave(50)}</g><g id="near" fill="#124">${wave(70)}<circle cx="80" cy="20" r="8"/></g></svg>`
    let project = takeIn(stack('frame'), intake(readSvg(svg)))
    project = assignNearest(
      project,
      project.layers.map((l) => l.id),
      stock,
    )
    const derived = results(setPlan(project, { thrift: 'sale' }), stock)
    expect(derived.snags.filter((s) => s.severity === 'stop')).toEqual([])
    expect(derived.loads.flatMap((l) => l.folios).toSorted()).toEqual(['1', '2', '3'])
    expect(derived.assembly.steps.map((s) => s.kind)).toEqual(
      expect.arrayContaining(['cut', 'weed', 'dry-fit', 'pad', 'lay', 'close']),
    )
  })

  it('takes a layout found earlier instead of searching again', () => {
    const project = demo('bon-voyage')
    const first = results(project, stock)
    const marked = first.runs.map(({ run, layout }) => keptLayout({ run, layout: { ...layout, score: -1 } }))
    expect(results(project, stock, new Map(marked)).runs.map((r) => r.layout.score)).toEqual([-1, -1, -1])
  })
})
