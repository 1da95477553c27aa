// Drawings that come packed: by zip with all that is handed on beside them, or each by gzip. What is packed comes from another library's side
// of the same format where it can: node's own zlib.
import { strToU8, zipSync, type Zippable } from 'fflate'
import { gzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { BadInput } from '../../base'
import { drawingsIn, readDrawing } from '.'

const svg =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><rect width="40" height="30"/></svg>'
const zip = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])) as Zippable)
const paths = (files: Record<string, string>) => drawingsIn(zip(files)).map(({ path }) => path)
const fault = (bytes: Uint8Array): string => {
  try {
    drawingsIn(bytes)
  } catch (error) {
    expect(error).toBeInstanceOf(BadInput)
    return String((error as BadInput).said)
  }
  return ''
}

describe('a zip', () => {
  it('gives its drawings in the order of their numbers, and nothing of what lies beside them', () => {
    expect(
      paths({
        'Tide/SVG/tide 10.svg': svg,
        'Tide/SVG/tide 9.svg': svg,
        'Tide/DXF/TIDE 9.dxf': 'x',
        'Tide/DXF/stand.dxf': 'x',
        'Tide/PNG/tide 9.png': 'x',
        'Tide/terms.pdf': 'x',
        '__MACOSX/Tide/SVG/._tide 9.svg': 'x',
        'Tide/.hidden.svg': 'x',
      }),
    ).toEqual(['Tide/DXF/stand.dxf', 'Tide/SVG/tide 9.svg', 'Tide/SVG/tide 10.svg'])
    expect(new TextDecoder().decode(drawingsIn(zip({ 'a.svg': svg }))[0]!.bytes)).toBe(svg)
  })

  it('says what it holds instead, and where it is damaged', () => {
    expect(fault(zip({ 'a.png': 'x', 'b.PDF': 'x', 'c.eps': 'x' }))).toBe(
      'it holds no drawing (SVG or DXF), only EPS, PDF and PNG files',
    )
    expect(fault(zip({ readme: 'x' }))).toBe('it holds no drawing (SVG or DXF)')
    expect(fault(zip({}))).toBe('it holds no drawing (SVG or DXF)')
    const whole = zip({ 'a.svg': svg.repeat(50) })
    expect(fault(whole.slice(0, whole.length - 30))).toBe('the zip is damaged, or locked')
  })

  it('is not unpacked where it says that it would come to too much', () => {
    const large = zip({ 'a.svg': svg })
    const entry = Buffer.from(large.buffer).indexOf('PK\x01\x02')
    new DataView(large.buffer).setUint32(entry + 24, 90_000_000, true)
    expect(fault(large)).toContain('too large')
  })
})

describe('a drawing packed by itself', () => {
  it('is read as what it is', () => {
    const { shapes, widthMm } = readDrawing('tide.svgz', new Uint8Array(gzipSync(svg)))
    expect([shapes.length, widthMm]).toEqual([1, expect.closeTo(40, 6)])
  })

  it('says where it breaks off, or would be too large', () => {
    const packed = new Uint8Array(gzipSync(svg))
    expect(() => readDrawing('tide.svgz', packed.slice(0, 60))).toThrow(BadInput)
    expect(() => readDrawing('tide.svgz', packed.slice(0, 2))).toThrow(BadInput)
    const long = packed.slice()
    long.set([0xff, 0xff, 0xff, 0x7f], long.length - 4)
    expect(() => readDrawing('tide.svgz', long)).toThrow('80 MB')
  })
})

describe('a drawing that does not say how large it is', () => {
  const head = (attributes: string) =>
    new TextEncoder().encode(
      `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}><rect width="72" height="36"/></svg>`,
    )
  it.each([
    ['width="144" height="72" viewBox="0 0 144 72"', 25.4 / 72, [50.8, 25.4]],
    ['width="144px" height="72px"', 1, [144, 72]],
    ['viewBox="0 0 144 72"', undefined, [38.1, 19.05]],
    ['width="100%" viewBox="0 0 144 72"', 25.4, [3657.6, 1828.8]],
  ] as const)('with %s is as large as its unit makes it', (attributes, unitMm, [w, h]) => {
    const drawing = readDrawing('a.svg', head(attributes), unitMm ? { unitMm } : {})
    expect(drawing.unitMm).toBeCloseTo(unitMm ?? 25.4 / 96, 9)
    expect([drawing.widthMm, drawing.heightMm]).toEqual([expect.closeTo(w, 6), expect.closeTo(h, 6)])
    const { box } = drawing.shapes[0]!
    expect([box.maxX - box.minX, box.maxY - box.minY]).toEqual([
      expect.closeTo(w / 2, 2),
      expect.closeTo(h / 2, 2),
    ])
  })

  it.each([
    'width="2in" height="1in" viewBox="0 0 144 72"',
    'height="25.4mm" viewBox="0 0 144 72"',
    'width="144pt" height="72pt"',
  ])('is none with %s', (attributes) => {
    const drawing = readDrawing('a.svg', head(attributes), { unitMm: 1 })
    expect(drawing.unitMm).toBeNull()
    expect(drawing.heightMm).toBeCloseTo(25.4, 6)
  })
})
