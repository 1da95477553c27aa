import { describe, expect, it } from 'vitest'
import { inflateSync } from 'node:zlib'
import { PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib'
import { faces } from '../../../test/faces'
import { card, stack } from '../../../test/stack'
import { cutSheet, printFiles } from '../../io/exports'
import { demo } from '../../demo'
import {
  intersect,
  mapPoint,
  offset,
  pathToRegion,
  polygonArea,
  polygonBox,
  rectangle,
  regionArea,
  rotation,
  scaling,
  subtract,
} from '../../base/geometry'
import {
  coveringMap,
  coverWithPrint,
  findLayer,
  keepPictures,
  mapOfPrint,
  moveParts,
  placeOfPrint,
  printCorners,
  printDpi,
  printOn,
  setLayer,
  takeOffPrint,
  transformLayers,
  type Picture,
  type Project,
} from '../../project'
import { printLimit, printSnags } from '../layers/prints'
import { planLoads } from './loads/loads'
import { cuttingMarks, printOfPiece, printsOf } from './prints'
import { nestProject } from './runs/nest-runs'

const EVENING = demo('kittiwake').pictures[0]!
/** The demo's picture under another name, 4:3 by what it says of itself. */
const wide: Picture = { ...EVENING, id: 'wide', pixelsWide: 1200, pixelsHigh: 900 }
const loadsOf = (project: Project) => planLoads(project, { runs: nestProject(project, 0) })
const twoSquares = printOn(
  stack(
    'card',
    card('back', 0, [rectangle([0, 0], 80, 60)]),
    card('square', 2, [rectangle([20, 20], 30, 20)]),
  ),
  'square',
  wide,
)

describe('where a picture lies', () => {
  it.each([
    [{ middle: { x: 40, y: -12 }, widthMm: 75, turnDeg: 0, mirrored: false }],
    [{ middle: { x: 0, y: 0 }, widthMm: 20, turnDeg: 37, mirrored: false }],
    [{ middle: { x: -3, y: 90 }, widthMm: 140, turnDeg: -120, mirrored: true }],
  ])('reads back as it was put: %o', (place) => {
    const read = placeOfPrint(mapOfPrint(place, wide), wide)
    expect(read.middle.x).toBeCloseTo(place.middle.x, 6)
    expect(read.middle.y).toBeCloseTo(place.middle.y, 6)
    expect([read.widthMm, read.turnDeg]).toEqual([
      expect.closeTo(place.widthMm, 6),
      expect.closeTo(place.turnDeg, 6),
    ])
    expect(read.mirrored).toBe(place.mirrored)
    expect(read.heightMm).toBeCloseTo((place.widthMm * 900) / 1200, 6)
  })

  it('covers a box and its bleed, and touches them on two sides', () => {
    const map = coveringMap({ minX: 10, minY: 10, maxX: 40, maxY: 50 }, 3, wide)
    const corners = printCorners(map, wide)
    const ys = [corners[1]!, corners[5]!]
    expect(ys).toEqual([expect.closeTo(7, 9), expect.closeTo(53, 9)])
    expect(corners[0]).toBeLessThan(7)
    expect(corners[4]).toBeGreaterThan(43)
  })

  it('counts pixels an inch where they are fewest, by the stretch of a unit circle', () => {
    const map = [0.31, 0.1, -0.05, 0.2, 5, 6] as [number, number, number, number, number, number]
    let most = 0
    for (let t = 0; t < 3600; t++) {
      const [x, y] = mapPoint([map[0], map[1], map[2], map[3], 0, 0], Math.cos(t / 500), Math.sin(t / 500))
      most = Math.max(most, Math.hypot(x, y))
    }
    expect(printDpi(map)).toBeCloseTo(25.4 / most, 3)
  })

  it('goes along with its layer when that is moved, turned and mirrored', () => {
    const moved = moveParts(twoSquares, ['square'], [7, -4])
    const [before, after] = [twoSquares, moved].map((p) =>
      placeOfPrint(findLayer(p, 'square')!.print!.map, wide),
    )
    expect([after!.middle.x - before!.middle.x, after!.middle.y - before!.middle.y]).toEqual([
      expect.closeTo(7, 9),
      expect.closeTo(-4, 9),
    ])
    const turned = transformLayers(twoSquares, rotation(30), ['square'])
    expect(placeOfPrint(findLayer(turned, 'square')!.print!.map, wide).turnDeg).toBeCloseTo(30, 9)
    expect(printSnags(turned)).toEqual(printSnags(twoSquares))
  })

  it('is let go with the last layer that it is on', () => {
    expect(twoSquares.pictures).toHaveLength(1)
    expect(takeOffPrint(twoSquares, 'square').pictures).toEqual([])
  })
})

describe('what is told of a print', () => {
  const codes = (project: Project) => printSnags(project).map(({ code }) => code)
  const put = (patch: object) =>
    setLayer(twoSquares, 'square', { print: { ...findLayer(twoSquares, 'square')!.print!, ...patch } })
  const place = placeOfPrint(findLayer(twoSquares, 'square')!.print!.map, wide)

  it('nothing where it covers and is fine; coarse under 150 dpi, to the pixel', () => {
    expect(codes(twoSquares)).toEqual([])
    // 1200 pixels over 203.2 mm are 150 an inch.
    expect(codes(put({ map: mapOfPrint({ ...place, widthMm: 203.1 }, wide) }))).toEqual([])
    expect(codes(put({ map: mapOfPrint({ ...place, widthMm: 203.3 }, wide) }))).toEqual(['print-coarse'])
  })

  it('how large all of it may become before that, by the coarsest', () => {
    const at = (widthMm: number) => printLimit(put({ map: mapOfPrint({ ...place, widthMm }, wide) }))!
    expect(at(203.2)).toMatchObject({
      layerId: 'square',
      dpi: expect.closeTo(150, 6),
      scale: expect.closeTo(1, 6),
    })
    expect(at(101.6).scale).toBeCloseTo(2, 6)
    // At the size that it names the finding is just not raised yet.
    const larger = transformLayers(
      put({ map: mapOfPrint({ ...place, widthMm: 101.6 }, wide) }),
      scaling(1.999),
    )
    expect(codes(larger)).toEqual([])
    expect(codes(transformLayers(larger, scaling(1.01)))).toContain('print-coarse')
    expect(printLimit(takeOffPrint(twoSquares, 'square'))).toBeNull()
  })

  it('white card where it falls short of the bleed, mended by covering', () => {
    const short = put({
      map: mapOfPrint({ ...place, middle: { x: place.middle.x + 3, y: place.middle.y } }, wide),
    })
    expect(codes(short)).toEqual(['print-bare'])
    expect(codes(coverWithPrint(short, 'square'))).toEqual([])
    expect(codes(put({ pictureId: 'gone' }))).toEqual(['print-gone'])
  })
})

describe('print sheets', () => {
  it('ink every piece and its bleed where the cut file has the piece, and no other piece', async () => {
    // Six printed squares, packed 1 mm apart, whose bleed of 2 mm would run into each other.
    const six = setLayer(twoSquares, 'square', { copies: 6, paperId: null })
    const project = { ...six, plan: { ...six.plan, gapMm: 1 } }
    const load = loadsOf(project).find(({ pieces }) => pieces.some((piece) => piece.printed))!
    const printed = load.pieces.filter((piece) => piece.printed)
    const prints = printsOf(project, load)
    expect(prints).toHaveLength(6)
    prints.forEach(({ inked, map }, k) => {
      const { shape } = printed[k]!
      expect(regionArea(subtract([shape], inked))).toBeLessThan(1e-3)
      expect(regionArea(subtract(inked, offset([shape], 2.001)))).toBeLessThan(1e-3)
      for (const other of load.pieces)
        if (other !== printed[k]) expect(regionArea(intersect(inked, [other.shape]))).toBeLessThan(1e-3)
      // The same spot of the picture as on the board: the piece's middle is the picture's.
      const b = polygonBox(shape)
      const [x, y] = mapPoint(map, 600, 450)
      expect([x, y]).toEqual([
        expect.closeTo((b.minX + b.maxX) / 2, 6),
        expect.closeTo((b.minY + b.maxY) / 2, 6),
      ])
    })
    const [name, bytes] = [...(await printFiles(project, [load], faces))][0]!
    expect(name).toMatch(/^load-\d\d-.*-print\.pdf$/)
    const { images, clips, marks } = await read(bytes as Uint8Array)
    const page = load.heightMm
    expect(images).toHaveLength(6)
    // The clip of each picture is what is inked, in points with y up.
    clips.forEach((area, k) => expect(area).toBeCloseTo(regionArea(prints[k]!.inked), 1))
    images.forEach(([a, b, c, d, e, f], k) => {
      const [x, y] = [(a + c) / 2 + e, (b + d) / 2 + f].map((pt) => (pt * 25.4) / 72) as [number, number]
      const box = polygonBox(printed[k]!.shape)
      expect([x, page - y]).toEqual([
        expect.closeTo((box.minX + box.maxX) / 2, 3),
        expect.closeTo((box.minY + box.maxY) / 2, 3),
      ])
    })
    // Marks of print and cut file are the same lines.
    const sheet = cutSheet(project, load)
    expect(sheet.marks).toHaveLength(3)
    expect(marks).toBe(3)
    for (const mark of sheet.marks!)
      for (const piece of load.pieces)
        for (let i = 0; i < mark.length; i += 2) {
          const b = polygonBox(piece.shape)
          const [x, y] = [mark[i]!, mark[i + 1]!]
          expect(x > b.minX && x < b.maxX && y > b.minY && y < b.maxY).toBe(false)
        }
  })

  it('turn with a piece that lies turned, and are mirrored with one that is cut so', () => {
    const mirrored = setLayer(twoSquares, 'square', { cutMirrored: true })
    for (const project of [twoSquares, mirrored]) {
      const load = loadsOf(project).find(({ pieces }) => pieces.some((piece) => piece.printed))!
      const piece = load.pieces.find((one) => one.printed)!
      const turned = { ...piece, placement: { ...piece.placement, rotation: 90, x: 100, y: 0 } }
      const own = placeOfPrint([...printOfPiece(project, turned)!.map] as never, wide)
      expect((own.turnDeg + 360) % 180).toBeCloseTo(90, 6)
      expect(own.mirrored).toBe(project === mirrored)
    }
  })

  it('keep marks where printers print', () => {
    const load = { pieces: [{ shape: rectangle([1, 1], 98, 98) }] as never, widthMm: 100, heightMm: 100 }
    for (const mark of cuttingMarks(load, [])) for (const at of mark) expect(at > 0 && at < 100).toBe(true)
  })
})

describe('film on the pane', () => {
  it('is cut in its places, as one, with every part as far from the others as on the drawing', () => {
    const project = demo('kittiwake')
    const layer = findLayer(project, 'name')!
    const load = loadsOf(project).find(({ pieces }) => pieces.some((piece) => piece.layerId === 'name'))!
    expect(load.pieces).toHaveLength(layer.pieces.length)
    const centre = (b: { minX: number; maxX: number; minY: number; maxY: number }) => [
      (b.minX + b.maxX) / 2,
      (b.minY + b.maxY) / 2,
    ]
    const drawn = layer.pieces.map(({ path }) => centre(polygonBox(pathToRegion(path)[0]!)))
    const laid = load.pieces.map(({ shape }) => centre(polygonBox(shape)))
    const apart = (list: number[][]) =>
      list.flatMap(([x, y], i) => list.slice(i + 1).map(([u, v]) => Math.hypot(u! - x!, v! - y!)))
    apart(laid).forEach((mm, k) => expect(mm).toBeCloseTo(apart(drawn)[k]!, 6))
    const area = load.pieces.reduce((sum, { shape }) => sum + polygonArea(shape), 0)
    expect(area).toBeCloseTo(regionArea(layer.pieces.flatMap(({ path }) => pathToRegion(path))), 3)
  })
})

it('keeps each picture once', () => {
  expect(keepPictures(twoSquares, [wide, wide]).pictures).toHaveLength(1)
})

/** Pictures of a page with their matrices, the areas of their clips (mm²), and how many open lines of three points are drawn. */
async function read(bytes: Uint8Array) {
  const pdf = await PDFDocument.load(bytes)
  const text = pdf.context
    .enumerateIndirectObjects()
    .flatMap(([, object]) => {
      if (!(object instanceof PDFRawStream) || object.dict.has(PDFName.of('Type'))) return []
      const raw = object.getContents()
      const own = Buffer.from(raw[0] === 0x78 ? inflateSync(raw) : raw).toString('latin1')
      return /\bW\*? n\b|\bW\*\s+n\b|\bl\b/.test(own) && !/begincmap/.test(own) ? [own] : []
    })
    .join('\n')
  const images = [...text.matchAll(/((?:-?[\d.e-]+ ){6})cm\s+\/Picture\S* Do/g)].map(
    ([, numbers]) =>
      numbers!.trim().split(' ').map(Number) as [number, number, number, number, number, number],
  )
  const clips = text
    .split(/\bW\*/)
    .slice(0, -1)
    .map((part) => {
      const points = [
        ...part
          .split(/\bq\s/)
          .at(-1)!
          .matchAll(/(-?[\d.]+) (-?[\d.]+) [ml]\b/g),
      ]
      const ring = points.map(([, x, y]) => [Number(x), Number(y)] as const)
      let twice = 0
      ring.forEach(([x, y], i) => {
        const [u, v] = ring[(i + 1) % ring.length]!
        twice += x * v - u * y
      })
      return Math.abs(twice / 2) * (25.4 / 72) ** 2
    })
  const marks = [...text.matchAll(/ m\n[^\n]* l\n[^\n]* l\n(?:S|[^\n]*\nS)/g)].length
  return { images, clips, marks }
}
