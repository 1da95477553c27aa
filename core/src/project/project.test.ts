import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rectangle, regionArea } from '../base/geometry'
import { demo, demoNames } from '../demo'
import { makeLayer } from '../stages/layers'
import { starterStock } from '../stages/paper'
import {
  addLayers,
  addMirrored,
  assignPaper,
  builtLayers,
  designBox,
  dropPin,
  folioOf,
  guestOf,
  isBegun,
  layerBox,
  layerRegion,
  isMeant,
  madeAnew,
  meanSo,
  moveLayer,
  newProject,
  openProject,
  projectFileName,
  readProject,
  refreshPapers,
  takeOffCuts,
  removeLayer,
  scaleAndMove,
  setLayer,
  setPin,
  setPlan,
  slug,
  starterMount,
  takeBack,
  tickStep,
  transformLayers,
  viewBox,
  writeProject,
} from './index'
import { BadInput } from '../base'
import type { Project } from './schema'

const sheet = (id: string, x = 0) => makeLayer({ id, name: id }, [rectangle([x, 0], 50, 50)])
const threeLayers = () => ({
  ...newProject('p', 'Three', starterMount('frame')),
  layers: [sheet('a'), sheet('b'), sheet('c')],
})
const ids = (project: { layers: { id: string }[] }) => project.layers.map((layer) => layer.id).join('')

describe('project files', () => {
  it.each(demoNames)('%s comes back as it was written', (name) => {
    const project = demo(name)
    expect(readProject(writeProject(project))).toEqual(project)
  })

  it('keep keys that this version does not know, at every depth', () => {
    const doc = JSON.parse(writeProject(threeLayers())) as { layers: Record<string, unknown>[] } & Record<
      string,
      unknown
    >
    doc['laterIdea'] = { a: 1 }
    doc.layers[1]!['texture'] = 'linen'
    const again = JSON.parse(writeProject(readProject(JSON.stringify(doc)))) as typeof doc
    expect(again['laterIdea']).toEqual({ a: 1 })
    expect(again.layers[1]!['texture']).toBe('linen')
  })

  it('of version 0 are brought up to date', () => {
    const { id, name, mount, layers, drawer } = threeLayers()
    const old = { id, name, mount, layers, drawer }
    const project = readProject(JSON.stringify(old))
    expect(project.schemaVersion).toBe(2)
    expect(project.plan.gapMm).toBe(2)
    expect(project.journal.timers).toEqual([])
  })

  it('of version 1 open with their journal and its stages', () => {
    const rest: Partial<Project> = threeLayers()
    delete rest.journal
    const log = {
      timers: ['build', 'log', 'sheets'].map((stage) => ({ stage, startedAt: 1, endedAt: 2 })),
      note: 'blade 4',
    }
    const project = readProject(JSON.stringify({ ...rest, schemaVersion: 1, log }))
    expect(project.journal.timers.map((timer) => timer.stage)).toEqual(['assembly', 'journal', 'sheets'])
    expect(project.journal.note).toBe('blade 4')
    expect(project).not.toHaveProperty('log')
  })

  it.each([
    ['not JSON', 'oops', /not JSON/],
    ['another document', '{"a":1}', /has no layers/],
    ['a newer version', JSON.stringify({ ...threeLayers(), schemaVersion: 99 }), /newer Feuillet/],
    [
      'a bad colour',
      writeProject(threeLayers()).replace('#b9b4a8', 'red'),
      /layers\.0\.colour: a colour is written #rrggbb/,
    ],
    ['curves in a path', writeProject(threeLayers()).replace('L50 0', 'C1 1 2 2 50 0'), /holds “C”/],
    [
      'a paper that is not there',
      writeProject(setLayer(threeLayers(), 'a', { paperId: 'gone' })),
      /does not hold: gone/,
    ],
    [
      'two layers of one id',
      writeProject({ ...threeLayers(), layers: [sheet('a'), sheet('a')] }),
      /two layers have the id “a”/,
    ],
    [
      'a negative depth',
      writeProject(threeLayers()).replace('"depthMm": 24', '"depthMm": -3'),
      /mount\.depthMm/,
    ],
  ])('with %s are refused in one sentence', (_, text, sentence) => {
    expect(() => readProject(text)).toThrow(BadInput)
    expect(() => readProject(text)).toThrow(sentence)
  })

  it.each(['M0 0', 'M0 0L5 5', 'M1 1L1 1L1 1Z', 'Z', 'M-1e308 0L1e308 0L0 1e308Z'])(
    'with a piece “%s” that card could never be cut to open without it, and say so',
    (path) => {
      const sound = threeLayers()
      const [first] = sound.layers
      const odd = { ...first!, pieces: [...first!.pieces, { id: 'odd', path }] }
      const { project, healed } = openProject(
        writeProject({ ...sound, layers: [odd, ...sound.layers.slice(1)] }),
      )
      expect(project.layers).toEqual(readProject(writeProject(sound)).layers)
      expect(healed).toEqual([expect.stringMatching(/1 piece of layer “.+” .*left out/)])
    },
  )

  it('made of any JSON at all give a project or one sentence, never a crash', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        try {
          readProject(JSON.stringify({ layers: value }))
        } catch (error) {
          expect(error).toBeInstanceOf(BadInput)
          expect((error as Error).message).not.toContain('\n')
        }
      }),
    )
  })

  it('get names that any file system takes', () => {
    expect(slug('Été à la “mer” / 2')).toBe('ete-a-la-mer-2')
    expect(slug('///')).toBe('untitled')
    expect(projectFileName(threeLayers())).toBe('three.feuillet.json')
  })
})

describe('edits', () => {
  it('move a layer and leave the old project as it was', () => {
    const before = threeLayers()
    expect(ids(moveLayer(before, 'a', 2))).toBe('bca')
    expect(ids(moveLayer(before, 'c', -5))).toBe('cab')
    expect(ids(moveLayer(before, 'zz', 0))).toBe('abc')
    expect(ids(before)).toBe('abc')
  })

  it('count folios over the layers that are built', () => {
    const project = setLayer(threeLayers(), 'b', { optional: true, leftOut: true })
    expect(builtLayers(project)).toHaveLength(2)
    expect([folioOf(project, 'a'), folioOf(project, 'b'), folioOf(project, 'c')]).toEqual([1, null, 2])
  })

  it('give new layers free ids', () =>
    expect(addLayers(threeLayers(), [sheet('a'), sheet('a')]).layers.map((l) => l.id)).toEqual([
      'a',
      'b',
      'c',
      'a-2',
      'a-3',
    ]))

  it('keep a copy of just the papers in use', () => {
    const [one, two] = starterStock()
    let project = assignPaper(threeLayers(), ['a', 'b'], { paper: one! })
    expect(project.drawer.papers).toHaveLength(1)
    project = assignPaper(project, ['b'], { paper: two! })
    project = assignPaper(project, ['a'], { paper: two! })
    expect(project.drawer.papers.map((p) => p.id)).toEqual([two!.id])
    expect(refreshPapers(project, [{ ...two!, thicknessMm: 0.5 }]).drawer.papers[0]!.thicknessMm).toBe(0.5)
  })

  it('scale areas by the square and keep the chosen point in place', () => {
    const project = threeLayers()
    const scaled = transformLayers(project, scaleAndMove(0.5, { x: 25, y: 25 }, { x: 25, y: 25 }), ['b'])
    expect(regionArea(layerRegion(scaled.layers[1]!))).toBeCloseTo(625, 6)
    expect(regionArea(layerRegion(scaled.layers[0]!))).toBeCloseTo(2500, 6)
    expect(designBox(scaled)).toEqual(designBox(project))
  })

  it('drop pins of layers that are gone or were scaled', () => {
    const pin = { layerId: 'b', pieceId: 'p1', copy: 0, sheet: 0, on: '', x: 1, y: 2, rotation: 0 }
    const pinned = setPin(setPin(threeLayers(), pin), { ...pin, x: 9 })
    expect(pinned.plan.pins).toEqual([{ ...pin, x: 9 }])
    expect(dropPin(pinned, pin).plan.pins).toEqual([])
    expect(removeLayer(pinned, 'b').plan.pins).toEqual([])
    expect(transformLayers(pinned, [2, 0, 0, 2, 0, 0]).plan.pins).toEqual([])
  })

  it('tick a step once, however often', () => {
    const twice = tickStep(tickStep(threeLayers(), 'dry-fit', true), 'dry-fit', true)
    expect(twice.progress.done).toEqual(['dry-fit'])
    expect(tickStep(twice, 'dry-fit', false).progress.done).toEqual([])
  })

  it('put a mirrored copy right in front of a layer', () => {
    const project = addMirrored(demo('harbour'), 'pier', 100)
    const order = project.layers.map((l) => l.id)
    const [own, copy] = [project.layers[order.indexOf('pier')]!, project.layers[order.indexOf('pier') + 1]!]
    expect(copy.name).toBe(`${own.name}, mirrored`)
    const [a, b] = [layerBox(own), layerBox(copy)]
    expect([b.minX, b.maxX, b.minY, b.maxY].map((v) => Math.round(v * 1000))).toEqual(
      [200 - a.maxX, 200 - a.minX, a.minY, a.maxY].map((v) => Math.round(v * 1000)),
    )
    expect(addMirrored(project, 'gone', 0)).toBe(project)
  })
})

describe('a work made anew', () => {
  it('has the design and its plan, and nothing of what was done', () => {
    const begun = tickStep(
      setPlan(demo('harbour'), { guests: [guestOf(demo('bon-voyage'), 'harbour')] }),
      'prepare',
      true,
    )
    const { cut, cutElsewhere, progress, journal, plan, layers, mount, drawer } = madeAnew(
      {
        ...begun,
        cut: [{} as Project['cut'][number]],
        journal: { ...begun.journal, note: 'Left hand first.' },
      },
      { id: 'again', name: 'Again' },
    )
    expect({ cut, cutElsewhere, done: progress.done, guests: plan.guests }).toEqual({ cut: [], cutElsewhere: [], done: [], guests: [] }) // prettier-ignore
    expect(journal.note).toBe('Left hand first.')
    expect([layers, mount, drawer]).toEqual([begun.layers, begun.mount, begun.drawer])
    expect([isBegun(begun), isBegun(demo('harbour'))]).toEqual([true, false])
  })
})

describe('small helpers', () => {
  it('show backing and design together', () => {
    const project = { ...threeLayers(), layers: [sheet('a', 180)] }
    expect(viewBox(project)).toEqual({ minX: 0, minY: 0, maxX: 230, maxY: 200 })
    expect(viewBox(newProject('e', 'Empty', starterMount('topper')))).toEqual({
      minX: 0,
      minY: 0,
      maxX: 100,
      maxY: 100,
    })
  })
})

describe('off-cuts of the drawer', () => {
  const offCut = (id: string) => ({ id, label: id, path: 'M0 0L90 0L90 90Z' })
  const paper = { ...starterStock()[0]!, offCuts: [offCut('own')] }
  const project = { ...threeLayers(), drawer: { ...threeLayers().drawer, papers: [paper] } }
  const own = (p: typeof project) => p.drawer.papers[0]!.offCuts.map((o) => o.id)
  const stock = (...idsOf: string[]) => [{ ...paper, count: 9, offCuts: idsOf.map(offCut) }]

  it('come into a plan only when they are asked for, and leave it when they are gone', () => {
    expect(own(refreshPapers(project, stock('own', 'new')))).toEqual(['own'])
    expect(refreshPapers(project, stock('own')).drawer.papers[0]!.count).toBe(9)
    expect(own(refreshPapers(project, stock('new')))).toEqual([])
    expect(own(takeOffCuts(project, stock('own', 'new'), [paper.id]))).toEqual(['own', 'new'])
    expect(takeOffCuts(project, stock('new'), [])).toEqual(project)
  })

  it('stay in a plan whose sheets are cut', () => {
    const cut = {
      ...project,
      journal: { ...project.journal, sheetsUsed: [{ paperId: paper.id, count: 1, at: 0 }] },
    }
    expect(own(refreshPapers(cut, stock('new')))).toEqual(['own'])
  })
})

describe('findings that are meant so', () => {
  const snag = (code: string, layer: string | null) => ({ code, layer })

  it('are named by kind and layer, once, and can be taken back', () => {
    const start = threeLayers()
    const meant = meanSo(meanSo(start, [snag('too-alike', 'a'), snag('too-alike', 'b')]), [
      snag('too-alike', 'a'),
    ])
    expect(meant.plan.meant).toHaveLength(2)
    expect(isMeant(meant, snag('too-alike', 'b'))).toBe(true)
    expect(isMeant(meant, snag('too-alike', 'c'))).toBe(false)
    expect(isMeant(meant, snag('weak-neck', 'a'))).toBe(false)
    expect(takeBack(meant, [snag('too-alike', 'a'), snag('too-alike', 'b')]).plan.meant).toEqual([])
    expect(readProject(writeProject(meant)).plan.meant).toEqual(meant.plan.meant)
  })
})
