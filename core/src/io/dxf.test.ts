import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { region } from '../../test/arbitrary'
import { regionArea, regionBox } from '../base/geometry'
import { BadInput } from '../base'
import { readDxf } from './read'
import { writeDxf } from './write'

/** A DXF of entities given as code, value pairs. */
const dxf = (entities: string, header = '') =>
  `0\nSECTION\n2\nHEADER\n${header}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`
const line = ([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number], layer = '0') =>
  `0\nLINE\n8\n${layer}\n10\n${x1}\n20\n${y1}\n11\n${x2}\n21\n${y2}\n`
const poly = (points: [number, number, number?][], layer = '0', colour = 7) =>
  `0\nLWPOLYLINE\n8\n${layer}\n62\n${colour}\n90\n${points.length}\n70\n1\n${points.map(([x, y, b]) => `10\n${x}\n20\n${y}\n${b ? `42\n${b}\n` : ''}`).join('')}`
const square: [number, number][] = [[0, 0], [40, 0], [40, 30], [0, 30]] // prettier-ignore

describe('DXF', () => {
  it('comes back as it was written', () => {
    fc.assert(
      fc.property(region(150), (shape) => {
        if (regionArea(shape) < 5) return
        const text = writeDxf({
          title: 't',
          widthMm: 200,
          heightMm: 200,
          pieces: shape.map((face) => ({ layerName: 'a', folio: '1', shape: face, lines: [] })),
          ways: [],
        })
        const read = readDxf(text)
        expect(read.shapes.reduce((sum, s) => sum + regionArea(s.region), 0)).toBeCloseTo(
          regionArea(shape),
          0,
        )
        const b = regionBox(shape)
        expect(read.widthMm).toBeCloseTo(b.maxX - b.minX, 2)
      }),
      { numRuns: 30 },
    )
  })

  it('is as large as its unit makes it, which it may leave open', () => {
    const inUnits = (n: number) => dxf(poly(square), `9\n$INSUNITS\n70\n${n}\n`)
    expect(readDxf(inUnits(1), { unitMm: 7 })).toMatchObject({ widthMm: 1016, heightMm: 762, unitMm: null })
    expect(readDxf(inUnits(4))).toMatchObject({ widthMm: 40, heightMm: 30, unitMm: null })
    for (const open of [inUnits(0), inUnits(99), dxf(poly(square))]) {
      expect(readDxf(open)).toMatchObject({ widthMm: 40, heightMm: 30, unitMm: 1 })
      expect(readDxf(open, { unitMm: 25.4 })).toMatchObject({ widthMm: 1016, heightMm: 762, unitMm: 25.4 })
    }
  })

  it('chains lines and arcs that meet end to end, whichever way they run', () => {
    const arc = '0\nARC\n8\n0\n10\n40\n20\n15\n40\n15\n50\n270\n51\n90\n'
    const { shapes, leftOut } = readDxf(
      dxf(
        line([0, 0], [40, 0]) +
          line([0, 30], [0, 0]) +
          line([40, 30], [0, 30]) +
          arc +
          line([100, 0], [120, 0]),
      ),
    )
    expect(regionArea(shapes[0]!.region)).toBeCloseTo(1200 + (Math.PI * 225) / 2, 0)
    expect(leftOut).toEqual([{ what: 'open line', count: 1 }])
  })

  it('keeps closed outlines that touch apart, and takes one that is drawn again once', () => {
    const beside = square.map(([x, y]): [number, number] => [x + 40, y])
    const hole = square.map(([x, y]): [number, number] => [10 + x / 4, 10 + y / 3])
    const faces = (text: string) =>
      readDxf(text).shapes.flatMap(({ region }) => region.map((face) => Math.round(regionArea([face]))))
    expect(faces(dxf(poly(square) + poly(beside) + poly(hole)))).toEqual([1100, 1200])
    expect(faces(dxf(poly(square) + poly(square) + poly(hole)))).toEqual([1100])
  })

  it('reads bulges, circles, ellipses and splines', () => {
    const round: [number, number, number][] = [[0, 0, 1], [20, 0, 1]] // prettier-ignore
    expect(regionArea(readDxf(dxf(poly(round))).shapes[0]!.region)).toBeCloseTo(Math.PI * 100, 0)
    expect(regionArea(readDxf(dxf('0\nCIRCLE\n8\n0\n10\n5\n20\n5\n40\n10\n')).shapes[0]!.region)).toBeCloseTo(
      Math.PI * 100,
      0,
    )
    expect(
      regionArea(
        readDxf(dxf('0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n20\n21\n0\n40\n0.5\n41\n0\n42\n6.283185307\n'))
          .shapes[0]!.region,
      ),
    ).toBeCloseTo(Math.PI * 200, -0.5)
    // A straight-sided quadratic spline is the square of its control points with rounded corners: between the two areas.
    const control = [[0, 0], [20, 0], [40, 0], [40, 20], [40, 40], [20, 40], [0, 40], [0, 20], [0, 0]] // prettier-ignore
    const knots = [0, 0, 0, 1, 2, 3, 4, 5, 6, 7, 7, 7]
    const spline = `0\nSPLINE\n8\n0\n70\n8\n71\n2\n72\n${knots.length}\n73\n${control.length}\n${knots.map((k) => `40\n${k}\n`).join('')}${control.map(([x, y]) => `10\n${x}\n20\n${y}\n30\n0\n`).join('')}`
    const area = regionArea(readDxf(dxf(spline)).shapes[0]!.region)
    expect(area).toBeGreaterThan(1300)
    expect(area).toBeLessThan(1600)
  })

  it('makes layers by name, else by colour, with holes where rings lie in rings', () => {
    const named = readDxf(dxf(poly(square, 'Sea', 5) + poly([[10, 10], [20, 10], [20, 20], [10, 20]], 'Sea', 5) + poly(square, 'Sky', 4))) // prettier-ignore
    expect(named.shapes.map((s) => [s.group, Math.round(regionArea(s.region))])).toEqual([
      ['Sea', 1100],
      ['Sky', 1200],
    ])
    expect(readDxf(dxf(poly(square, '0', 1) + poly(square, '0', 3))).shapes.map((s) => s.colour)).toEqual([
      '#d03a3a',
      '#3a9a4a',
    ])
  })

  it('counts what is switched off, and takes it where it is asked to or nothing else is drawn', () => {
    const layer = (name: string, colour: number, flags = 0) =>
      `0\nLAYER\n2\n${name}\n70\n${flags}\n62\n${colour}\n`
    const table = `0\nENDSEC\n0\nSECTION\n2\nTABLES\n${layer('Sea', 5)}${layer('Off', -3)}${layer('Frozen', 2, 5)}`
    const hidden =
      poly(square, 'Off') + poly(square, 'Frozen') + poly(square, 'Sea').replace('8\n', '60\n1\n8\n')
    const groups = (text: string, unseen?: ['hidden']) =>
      readDxf(text, { unseen }).shapes.map(({ group }) => group)
    const text = dxf(poly(square, 'Sea') + hidden, table)
    expect(readDxf(text)).toMatchObject({
      leftOut: [{ what: 'hidden line', count: 3 }],
      unseen: ['hidden'],
    })
    expect(groups(text)).toEqual(['Sea'])
    expect(groups(text, ['hidden'])).toEqual(['Sea', 'Off', 'Frozen'])
    expect(groups(dxf(hidden, table))).toEqual(['Off', 'Frozen', 'Sea'])
    expect(readDxf(dxf(hidden, table))).toMatchObject({ leftOut: [], unseen: [] })
  })

  it('keeps to the units of the file, y upwards', () => {
    const inches = readDxf(dxf(poly([[0, 0], [1, 0], [1, 3], [0, 3]]), '9\n$INSUNITS\n70\n1\n')) // prettier-ignore
    expect([inches.widthMm, inches.heightMm]).toEqual([expect.closeTo(25.4, 4), expect.closeTo(76.2, 4)])
    const flag = readDxf(dxf(poly([[0, 0], [10, 0], [0, 10]]))) // prettier-ignore
    // The right angle is at the lower left of the file, so at the lower left of the page, where y is greatest.
    expect([...flag.shapes[0]!.region[0]!.outer]).toEqual(expect.arrayContaining([0, 10]))
  })

  it.each([
    ['nothing', ''],
    ['an SVG', '<svg xmlns="http://www.w3.org/2000/svg"/>'],
    ['cut-off data', dxf(poly(square)).slice(0, 60)],
    ['open lines alone', dxf(line([0, 0], [5, 5]))],
  ])('refuses %s in one sentence', (_, text) => expect(() => readDxf(text)).toThrow(BadInput))

  it('whatever is done to a file, it is read or refused in one line', () => {
    const good = dxf(poly(square, 'A', 1) + line([0, 0], [40, 0]) + '0\nCIRCLE\n8\nB\n10\n5\n20\n5\n40\n10\n')
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.nat(good.length),
            fc.nat(9),
            fc.constantFrom('\n', '0\n', 'NaN', '-1', 'EOF', '1e400', 'SPLINE\n', 'INSERT\n'),
          ),
          {
            minLength: 1,
            maxLength: 4,
          },
        ),
        (cuts) => {
          const text = cuts.reduce(
            (s, [at, length, token]) => s.slice(0, at) + token + s.slice(at + length),
            good,
          )
          try {
            for (const shape of readDxf(text).shapes) expect(regionArea(shape.region)).toBeGreaterThan(0)
          } catch (error) {
            expect(error, text).toBeInstanceOf(BadInput)
          }
        },
      ),
      { numRuns: 300 },
    )
  })

  it('takes dashed lines, and those of layers named so, as folds', () => {
    const hidden = line([10, 0], [10, 30]).replace('LINE\n', 'LINE\n6\nHIDDEN\n')
    const { folds, shapes } = readDxf(dxf(poly(square) + hidden + line([30, 0], [30, 30], 'Score lines')))
    expect(shapes).toHaveLength(1)
    expect(folds.map(({ line: l }) => l.map((v) => Math.round(v)))).toEqual([
      [10, 30, 10, 0],
      [30, 30, 30, 0],
    ])
  })
})
