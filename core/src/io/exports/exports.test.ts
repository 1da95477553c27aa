import { describe, expect, it } from 'vitest'
import DxfParser from 'dxf-parser'
import { PDFDocument } from '@cantoo/pdf-lib'
import Papa from 'papaparse'
import { demo, demoNames } from '../../demo'
import { readSvg } from '../read'
import { writeCsv } from '../write'
import { fillRings, regionArea } from '../../base/geometry'
import { builtLayers, cutPieces, layerRegion, setPlan } from '../../project'
import { faces } from '../../../test/faces'
import { results } from '../../../test/results'
import { wordsOfPdf } from '../../../test/pdf-words'
import { cutFiles, cutSheet, listFiles, loadFileStem, testSquareFiles } from './index'

const ringsArea = (rings: Float64Array[]) => regionArea(fillRings(rings, 'evenodd'))

/** Rings of a plot text: 40 units a mm. */
function plotRings(text: string): Float64Array[] {
  return [...text.matchAll(/PU([\d,-]+);PD([\d,-]+);/g)].map(([, up, down]) =>
    Float64Array.from(`${up},${down}`.split(',').map((v) => Number(v) / 40)),
  )
}

describe.each(demoNames)('the cut files of %s', (name) => {
  const project = demo(name)
  const derived = results(project)
  const files = cutFiles(project, derived.loads)
  const wanted = builtLayers(project).reduce(
    (sum, l) => sum + regionArea(layerRegion({ pieces: cutPieces(l) })),
    0,
  )
  const text = (ending: string) =>
    [...files].filter(([file]) => file.endsWith(ending)).map(([, content]) => content as string)

  it('hold all card of the layers, in true mm, as SVG, DXF and plot text', () => {
    const bySvg = text('.svg').map((t) => readSvg(t).shapes.reduce((sum, s) => sum + regionArea(s.region), 0))
    const byPlot = text('.hpgl').map((t) => ringsArea(plotRings(t)))
    const byDxf = text('.dxf').map((t) => {
      const doc = new DxfParser().parseSync(t)!
      return ringsArea(
        doc.entities.map((e) =>
          Float64Array.from(
            (e as unknown as { vertices: { x: number; y: number }[] }).vertices.flatMap((v) => [v.x, v.y]),
          ),
        ),
      )
    })
    for (const sums of [bySvg, byPlot, byDxf]) {
      expect(sums).toHaveLength(derived.loads.length)
      expect(Math.abs(sums.reduce((a, b) => a + b, 0) / wanted - 1)).toBeLessThan(0.002)
    }
  })

  it('are as large as the sheet they are cut from', () => {
    derived.loads.forEach((load) => {
      const drawing = readSvg(files.get(`${loadFileStem(load)}.svg`) as string)
      expect([drawing.widthMm, drawing.heightMm]).toEqual([
        expect.closeTo(load.paper.widthMm, 3),
        expect.closeTo(load.paper.heightMm, 3),
      ])
    })
  })

  it('hold numbers, folds and crosses apart from the cuts', () => {
    const marked = results(
      setPlan(
        {
          ...project,
          layers: project.layers.map((layer) => ({
            ...layer,
            numbered: true,
            folds: [{ line: [0, 60, 400, 60], way: 'up', deg: 30 }],
          })),
        },
        { placeMarks: true },
      ),
    )
    const lines = marked.loads.flatMap((load) =>
      load.pieces.flatMap((p) => [...p.marks.number, ...p.marks.folds, ...p.marks.places]),
    )
    const all = [...cutFiles(project, marked.loads)]
    const count = (ending: string, find: RegExp) =>
      all.reduce(
        (n, [file, content]) =>
          n + (file.endsWith(ending) ? [...(content as string).matchAll(find)].length : 0),
        0,
      )
    expect(lines.length).toBeGreaterThan(2)
    const slits = marked.loads.flatMap((load) => load.pieces.flatMap((p) => p.marks.slits))
    const marks = marked.loads.flatMap((load) => cutSheet(project, load).marks ?? [])
    expect(count('.svg', /<path d="M[^Z"]*"\/>/g)).toBe(lines.length + slits.length + marks.length)
    const plots = all.filter(([file]) => file.endsWith('.hpgl')).map(([, content]) => content as string)
    expect(
      plots.flatMap((plot) =>
        plot
          .split(/SP[23];/)
          .slice(1)
          .flatMap((part) => part.split('SP1;')[0]!.match(/PU[\d,-]+;PD/g) ?? []),
      ),
    ).toHaveLength(lines.length)
    const dxf = all
      .filter(([file]) => file.endsWith('.dxf'))
      .map(([, content]) => new DxfParser().parseSync(content as string)!)
    expect(dxf.flatMap((doc) => doc.entities.filter((e) => /_SLIT$/.test(e.layer)))).toHaveLength(
      slits.length,
    )
    expect(
      dxf.flatMap((doc) => doc.entities.filter((e) => /_(NUMBER|FOLD|PLACE)$/.test(e.layer))),
    ).toHaveLength(lines.length)
  })

  it('cut openings before the outline round them', () => {
    for (const plot of text('.hpgl')) {
      const rings = plotRings(plot)
      rings.forEach((ring, i) => {
        const inside = rings
          .slice(i + 1)
          .filter(
            (later) =>
              ringsArea([ring, later]) < ringsArea([ring]) - 1e-6 && ringsArea([later]) < ringsArea([ring]),
          )
        expect(inside).toEqual([])
      })
    }
  })
})

describe('lists and templates', () => {
  it('give pages at true size, a build sheet, and tables that a spreadsheet reads', async () => {
    const project = demo('harbour')
    const derived = results(project)
    const files = await listFiles(project, derived, faces)
    const templates = await PDFDocument.load(files.get('templates-mirrored.pdf') as Uint8Array)
    expect(templates.getPageCount()).toBe(derived.loads.length)
    expect(templates.getPage(0).getWidth()).toBeCloseTo((304.8 / 25.4) * 72, 3)
    expect((await PDFDocument.load(files.get('sheet-tags.pdf') as Uint8Array)).getPageCount()).toBe(1)
    const square = readSvg(testSquareFiles(project).get('test-square.svg') as string)
    expect(square.shapes.reduce((sum, s) => sum + regionArea(s.region), 0)).toBeCloseTo(
      625 - (11 * 11) / 2,
      1,
    )
    expect(
      (await PDFDocument.load(files.get('build-sheet.pdf') as Uint8Array)).getPageCount(),
    ).toBeGreaterThan(0)
    const shopping = Papa.parse<Record<string, string>>(files.get('shopping.csv') as string, {
      header: true,
      skipEmptyLines: true,
    }).data
    expect(shopping.filter((row) => row['what'] === 'paper')).toHaveLength(8)
    const { paper, foam, lines } = derived.cost
    const counted = shopping.filter((row) => row['what'] === 'paper' || row['what'] === 'foam')
    const sum = (rows: typeof shopping, column: string) =>
      rows.reduce((total, row) => total + Number(row[column]), 0)
    expect(sum(counted, 'used')).toBeCloseTo(paper + foam, 1)
    // All of it is at hand: nothing is paid for.
    expect([sum(counted, 'buy'), sum(shopping, 'cost')]).toEqual([0, 0])
    expect(shopping.filter((row) => !counted.includes(row)).map((row) => row['name'])).toEqual(
      lines.filter(({ kind }) => kind === 'glue' || kind === 'part').map(({ what }) => what),
    )
    const cuts = Papa.parse<Record<string, string>>(files.get('cut-list.csv') as string, {
      header: true,
      skipEmptyLines: true,
    }).data
    expect(cuts.map((row) => row['load'])).toEqual(derived.loads.map((load) => String(load.number)))
  })

  it('give the pads and the glue of each layer at true size, from behind', async () => {
    const project = demo('harbour')
    const derived = results(project)
    const files = await listFiles(project, derived, faces)
    const pdf = await PDFDocument.load(files.get('pads-from-behind.pdf') as Uint8Array)
    const held = new Set([...derived.depth.pads, ...derived.glue].map(({ layerId }) => layerId))
    expect(pdf.getPageCount()).toBe(held.size)
    // A sheet of 200 mm and 8 mm round it.
    expect(pdf.getPage(0).getWidth()).toBeCloseTo((216 / 25.4) * 72, 1)
  })

  it('say what is short, what it costs in whole packs, and what the work takes beside', async () => {
    const work = demo('bon-voyage')
    const [first] = work.layers
    const papers = work.drawer.papers.map((paper) =>
      paper.id === first!.paperId ? { ...paper, count: 0, perPack: 10, price: 0.5, shop: 'Quay' } : paper,
    )
    const short = { ...work, drawer: { ...work.drawer, papers } }
    const derived = results(short)
    const files = await listFiles(short, derived, faces)
    const rows = Papa.parse<Record<string, string>>(files.get('shopping.csv') as string, {
      header: true,
      skipEmptyLines: true,
    }).data
    const need = derived.needed.find(({ paper }) => paper.id === first!.paperId)!
    expect(rows.find((row) => row['name'] === need.paper.name)).toMatchObject({
      needed: '1',
      buy: '1',
      unit: 'packs of 10',
      cost: '5.00',
      used: '0.50',
      shop: 'Quay',
    })
    expect(rows.filter((row) => row['what'] === 'glue' || row['what'] === 'other')).toMatchObject([
      { name: 'clear solvent glue', unit: 'ml', 'at hand': '', buy: '' },
      { name: 'sticks', needed: '2' },
    ])
  })

  it('tell the steps in the order of their numbers, under what they belong to', async () => {
    const project = demo('kittiwake')
    const derived = results(project)
    const files = await listFiles(project, derived, faces)
    const text = await wordsOfPdf(files.get('build-sheet.pdf') as Uint8Array)
    const at = (words: string) => text.indexOf(words)
    const ordered = derived.assembly.steps.map(({ title }) => at(`${title}.`))
    expect(ordered.every((place) => place >= 0)).toBe(true)
    expect(ordered).toEqual(ordered.toSorted((a, b) => a - b))
    // Printed and dry before it is cut; folded before it is stuck.
    const order = ['Make the pieces: 10 loads', 'Print load 8', 'Score and fold', 'Cut load 8', 'Stick and finish', 'Fit everything dry'].map(at) // prettier-ignore
    expect(order).toEqual(order.toSorted((a, b) => a - b))
  })

  it.each(['kittiwake', 'dune-garden', 'regatta'] as const)(
    'of %s speak of inches alone where those are used',
    async (name) => {
      const project = { ...demo(name), unit: 'in' as const }
      const files = [...(await listFiles(project, results(demo(name)), faces)), ...testSquareFiles(project)]
      let told = 0
      for (const [file, content] of files) {
        const text = file.endsWith('.pdf') ? await wordsOfPdf(content as Uint8Array) : file.endsWith('.csv') ? String(content) : '' // prettier-ignore
        // Paper of printers has its metric name, and force goes by what cutters show.
        expect(text.match(/.{0,30}\d ?(?:mm|cm|m|mm²|cm²|mm\/s|°C|ml|kPa|N)\b.{0,20}/g), file).toBeNull()
        told += text.match(/\d in\b/g)?.length ?? 0
      }
      expect(told).toBeGreaterThan(20)
    },
  )

  it('are those of sticking and showing alone where all is cut', async () => {
    const project = demo('bon-voyage')
    const planned = { ...results(project), loads: [], needed: [] }
    const files = [...(await listFiles(project, planned, faces)).keys()]
    expect(files).toEqual(['pads-from-behind.pdf', 'build-sheet.pdf', 'layering-guide.pdf', 'shopping.csv'])
  })

  it('run nothing in a spreadsheet', () => expect(writeCsv([{ name: '=1+1' }])).toContain("'=1+1"))
})
