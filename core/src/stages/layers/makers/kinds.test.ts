// Makers of what folds, stands and hangs, against hand calculations.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { describe, expect, it } from 'vitest'
import {
  boxHeight,
  boxWidth,
  intersect,
  mapRegion,
  offset,
  pathToRegion,
  rectangle,
  regionArea,
  regionBox,
  regionToPath,
  subtract,
  union,
  ellipse,
} from '../../../base/geometry'
import {
  garlandRecipeSchema,
  layerBox,
  layerRegion,
  newProject,
  sceneRecipeSchema,
  starterMount,
  wingsRecipeSchema,
} from '../../../project'
import { wordsIn } from '../../../base/units'
import { planAssembly } from '../../assembly'
import { depthPlan, pieceHeights } from '../../depth'
import { flagNumber, flagsOf } from '../marks'
import { folded } from '../folds'
import { readFont } from './font'
import { flagColours, grow, makeLayers, scallops, standsMm, twineOf } from './index'

const garland = (more: object) => garlandRecipeSchema.parse({ kind: 'garland', ...more })
const wings = (more: object) => wingsRecipeSchema.parse({ kind: 'wings', ...more })
const scene = (more: object) => sceneRecipeSchema.parse({ kind: 'scene', ...more })

describe('flags in their order', () => {
  const recipe = garland({ flags: 7, order: 'mirrored', fixing: 'flap', flapMm: 12, text: 'AB DE' })
  const project = grow(newProject('p', 'P', { kind: 'garland', flags: 7, gapMm: 20, endsMm: 300 }), 'g', {
    recipe,
    made: makeLayers(recipe),
  })

  it('stand from left to right, whatever sheet each is of', () => {
    const flags = flagsOf(project)
    expect(flags.map(({ nth }) => nth)).toEqual([1, 2, 3, 4, 5, 6, 7])
    const left = flags.map(({ piece }) => regionBox(pathToRegion(piece.path)).minX)
    expect(left.every((x, i) => i === 0 || x > left[i - 1]! + 100)).toBe(true)
    const colours = flagColours(recipe)
    flags.forEach(({ layer }, i) => expect(layer.colour).toBe(colours[i]))
  })

  it('bear their numbers on the flap, upside down, so that they are read from behind once it is folded', () => {
    for (const flag of flagsOf(project)) {
      const lines = flagNumber(flag)
      expect(lines.length).toBeGreaterThan(0)
      const box = regionBox(pathToRegion(flag.piece.path))
      for (const line of lines)
        for (let k = 0; k < line.length; k += 2) {
          expect(line[k + 1]!).toBeGreaterThan(box.minY + 1)
          expect(line[k + 1]!).toBeLessThan(box.minY + 12 - 1)
          expect(Math.abs(line[k]! - (box.minX + box.maxX) / 2)).toBeLessThan(4)
        }
    }
    // A seven has its bar at the top; half a turn brings it to the bottom.
    const seven = flagNumber(flagsOf(project)[6]!)
    const ys = seven.flatMap((line) => [...line].filter((_, k) => k % 2 === 1))
    const bar = seven[0]!
    expect(Math.max(bar[1]!, bar[3]!)).toBeCloseTo(Math.max(...ys), 6)
    const eyelets = garland({ flags: 3, fixing: 'eyelets' })
    const other = grow(newProject('q', 'Q', starterMount('garland')), 'g', {
      recipe: eyelets,
      made: makeLayers(eyelets),
    })
    expect(flagsOf(other).flatMap(flagNumber)).toEqual([])
  })

  it('go onto the twine one after the other', () => {
    const { steps } = planAssembly({ project, loads: [], depth: depthPlan(project) })
    const own = steps.filter(({ id }) => id.startsWith('flag-'))
    expect(own.map(({ title }) => title)).toEqual(
      Array.from({ length: 7 }, (_, k) => `Flag ${k + 1} of 7 onto the twine`),
    )
    expect(wordsIn(own[0]!.detail, 'mm')).toContain('300 mm of twine free before')
    expect(wordsIn(own[6]!.detail, 'mm')).toContain('300 mm free behind')
    own.forEach((step, k) => {
      if (k > 0) expect(step.after).toContain(`flag-${k}`)
    })
  })

  it('carry a letter each, in its middle and as large as the flag allows; a blank leaves one without', () => {
    const face = '@expo-google-fonts/fredoka/700Bold/Fredoka_700Bold.ttf'
    const font = readFont(readFileSync(createRequire(import.meta.url).resolve(face)))
    const made = makeLayers(recipe, font)
    const letters = made.layers.at(-1)!
    expect(letters.name).toBe('Letters')
    const boxes = letters.pieces.map(({ path }) => regionBox(pathToRegion(path)))
    const flagAt = (x: number) => Math.floor(x / (110 + 20))
    expect([...new Set(boxes.map((b) => flagAt((b.minX + b.maxX) / 2)))].toSorted()).toEqual([0, 1, 3, 4])
    for (const b of boxes) {
      const k = flagAt((b.minX + b.maxX) / 2)
      expect((b.minX + b.maxX) / 2).toBeCloseTo(k * 130 + 55, 0)
      expect(Math.max(boxWidth(b) / (110 * 0.5), boxHeight(b) / (140 * 0.5))).toBeCloseTo(1, 1)
    }
    expect(letters.joint.kind).toBe('glue')
  })
})

describe('a garland', () => {
  it('takes twine for its flags, gaps and both ends, and droops as a chain does', () => {
    const twine = twineOf(garland({ flags: 9, flagWidthMm: 110, gapMm: 20, endsMm: 300, spanMm: 1000 }))
    expect(twine.hungMm).toBe(9 * 110 + 8 * 20)
    expect(twine.wholeMm).toBe(1150 + 600)
    // The chain of 1150 mm over 1000 mm, by steps along it: equal pulls sideways, weight downwards.
    const arc = (a: number) => 2 * a * Math.sinh(1000 / (2 * a))
    let a = 100
    while (arc(a) > 1150) a += 0.001
    const n = 20_000
    let drop = 0
    for (let k = 0; k < n; k++) drop += Math.sinh(((k + 0.5) / n) * (500 / a)) * (500 / n)
    expect(Math.abs(twine.droopMm - drop)).toBeLessThan(0.1)
    // Taut it does not droop; hooks wider apart than the twine are refused.
    expect(twineOf(garland({ flags: 9, spanMm: 1150 })).droopMm).toBeCloseTo(0, 3)
    expect(() => twineOf(garland({ flags: 2, endsMm: 10, spanMm: 900 }))).toThrow(/hooks are/)
  })

  it('gives flags their colours as listed, repeating, or mirrored about the middle', () => {
    const of = (order: string, flags: number) =>
      flagColours(garland({ flags, order, colours: ['#aa0000', '#00aa00', '#0000aa'] }))
        .map((colour) => 'rgb'[[1, 3, 5].findIndex((at) => colour.slice(at, at + 2) === 'aa')])
        .join('')
    expect(of('repeating', 7)).toBe('rgbrgbr')
    expect(of('mirrored', 7)).toBe('rgbrbgr')
    expect(of('list', 5)).toBe('rgbbb')
  })

  it('is cut with flaps or eyelets, every flag a piece at its place', () => {
    const flap = makeLayers(garland({ flags: 5, shape: 'banner', flagWidthMm: 100, flagHeightMm: 80, flapMm: 20, colours: ['#112233'] })) // prettier-ignore
    const [flags] = flap.layers
    expect(flags!.pieces).toHaveLength(5)
    expect(flags!.folds).toHaveLength(5)
    expect(regionArea(layerRegion(flags!))).toBeCloseTo(5 * (100 * 80 + 98 * 20), -1)
    expect(boxWidth(layerBox(flags!))).toBeCloseTo(5 * 100 + 4 * 20, 6)
    const { flaps } = folded(pathToRegion(flags!.pieces[0]!.path), flags!)
    // Folded right over it lies flat again.
    expect(flaps.map(({ riseMm }) => Math.abs(riseMm) < 0.01)).toEqual([true])
    const eyelets = makeLayers(garland({ flags: 3, fixing: 'eyelets', shape: 'banner', eyeletMm: 4 }))
    expect(eyelets.layers.flatMap(layerRegion).reduce((n, face) => n + face.holes.length, 0)).toBe(6)
    for (const layer of eyelets.layers)
      expect(offset(layerRegion(layer), -0.9)).toHaveLength(layer.pieces.length)
  })

  it('has scallops that come out even along the edge', () => {
    expect(scallops(110, 22)).toEqual({ count: 5, eachMm: 22, leftMm: 0 })
    expect(scallops(112, 22)).toEqual({ count: 5, eachMm: 22.4, leftMm: 2 })
    const { layers } = makeLayers(garland({ flags: 1, shape: 'scalloped', flagWidthMm: 112, flagHeightMm: 100, fixing: 'eyelets' })) // prettier-ignore
    const full = 112 * (100 - 11.2) + (5 * Math.PI * 11.2 ** 2) / 2 - 2 * Math.PI * 4
    expect(regionArea(layerRegion(layers[0]!)) / full).toBeCloseTo(1, 2)
  })
})

describe('wings', () => {
  it.each(['gull', 'butterfly'] as const)(
    '%s: one piece, two folds, tips that rise by span and angle',
    (wing) => {
      const { layers } = makeLayers(wings({ wing, spanMm: 100, heightMm: 60, bodyMm: 10, deg: 30 }))
      const [layer] = layers
      expect(layer!.pieces).toHaveLength(1)
      const b = layerBox(layer!)
      expect([boxWidth(b), boxHeight(b)].map(Math.round)).toEqual([100, 60])
      const { body, flaps } = folded(layerRegion(layer!), layer!)
      expect(boxWidth(regionBox(body))).toBeCloseTo(10, 0)
      expect(flaps).toHaveLength(2)
      for (const { riseMm } of flaps) expect(riseMm).toBeCloseTo(45 * 0.5, 0)
      // The left wing is the right one in the mirror.
      const mirrored = layerRegion(layer!).map(({ outer }) => outer.map((v, i) => (i % 2 ? v : 100 - v)))
      const both = union(layerRegion(layer!), mirrored.map((outer) => ({ outer: outer.reverse().map((_, i, all) => all[i % 2 ? i - 1 : i + 1]!), holes: [] }))) // prettier-ignore
      expect(regionArea(both) / regionArea(layerRegion(layer!))).toBeCloseTo(1, 2)
    },
  )

  it('refuse a body that leaves no wings, and a half that does not reach it', () => {
    expect(() => makeLayers(wings({ spanMm: 20, bodyMm: 18 }))).toThrow(/leaves no wings/)
    const own = regionToPath([ellipse([0, 0], 10)])
    const round = makeLayers(wings({ wing: 'own', own, spanMm: 60, bodyMm: 4 }))
    expect(round.layers[0]!.pieces).toHaveLength(1)
  })
})

describe('a standing piece', () => {
  const shape = regionToPath([rectangle([0, 0], 40, 30)])

  it('has two feet folded opposite ways, and stands where it was put', () => {
    const made = makeLayers(
      scene({ shape, widthMm: 80, heightMm: 40, barMm: 8, fromPaneMm: 10, frameDepthMm: 30 }),
    )
    const [layer] = made.layers
    // Seen it is as high as it was asked for, on the floor of the frame; it is cut with its feet.
    expect(layerBox(layer!)).toMatchObject({ maxY: expect.closeTo(200, 2) as number })
    expect(boxHeight(layerBox(layer!))).toBeCloseTo(40, 1)
    expect(boxHeight(layerBox({ pieces: layer!.blanks }))).toBeCloseTo(48, 1)
    expect(layer!.folds.map(({ way, deg }) => `${way} ${deg}`)).toEqual(['up 90', 'down 90'])
    const { flaps } = folded(layerRegion({ pieces: layer!.blanks }), { ...layer!, blanks: [] })
    expect(flaps.map(({ riseMm }) => Math.round(riseMm)).toSorted((a, b) => a - b)).toEqual([-8, 8])
    expect(layer!.joint).toMatchObject({ kind: 'tab', gapMm: 30 - 10 - 0.3 })
    const project = grow(newProject('p', 'P', starterMount('frame')), 'g', { recipe: scene({ shape }), made })
    expect(pieceHeights(project)[0]!.bottomMm).toBeCloseTo(19.7, 6)
  })

  it('hangs from one bar; a bar that finds no room is refused', () => {
    const made = makeLayers(scene({ shape, hold: 'hangs', widthMm: 80, heightMm: 40, barMm: 12 }))
    expect(made.layers[0]!.folds.map(({ way }) => way)).toEqual(['down'])
    expect(made.layers[0]!.pieces).toHaveLength(1)
    expect(() => makeLayers(scene({ shape, hold: 'hangs', barMm: 25 }))).toThrow(/longer than/)
    // A gable touches the bar in its point: by a strip it hangs on more than that.
    for (const barMm of [0.5, 8]) {
      const houses = makeLayers(scene({ hold: 'hangs', barMm }))
      expect(houses.remarks.join()).toMatch(/1 strip ties/)
      const cut = layerRegion({ pieces: houses.layers[0]!.blanks })
      expect(cut).toHaveLength(1)
      expect(boxHeight(regionBox(cut))).toBeCloseTo(60 + barMm, 1)
      expect(regionArea(intersect(cut, [rectangle([0, 1], 200, 0.1)]))).toBeGreaterThan(1.9 * 0.1)
    }
    expect(() => makeLayers(scene({ shape, barMm: 9, fromPaneMm: 5 }))).toThrow(/need as much room/)
  })

  it('adorns corners and sides: mirrored about the frame, bars on the outer edges, every fold on one', () => {
    const at = (places: string, more = {}) =>
      makeLayers(
        scene({
          hold: 'adorns',
          places,
          widthMm: 50,
          heightMm: 40,
          barMm: 6,
          frameWidthMm: 200,
          frameHeightMm: 160,
          ...more,
        }),
      ).layers[0]!
    const four = at('four corners')
    const b = layerBox(four)
    expect([b.minX, b.minY, b.maxX, b.maxY].map((mm) => Math.round(mm * 100) / 100)).toEqual([0, 0, 200, 160])
    expect(four.folds).toHaveLength(8)
    // Each fold lies on a wall of the frame.
    for (const {
      line: [x1, y1, x2, y2],
    } of four.folds)
      expect(
        [x1, x2].every((x) => Math.abs(x) < 1e-6 || Math.abs(x - 200) < 1e-6) ||
          [y1, y2].every((y) => Math.abs(y) < 1e-6 || Math.abs(y - 160) < 1e-6),
      ).toBe(true)
    // Cut is what shows and eight bars.
    const shown = regionArea(layerRegion(four))
    const cut = regionArea(four.blanks.flatMap(({ path }) => pathToRegion(path)))
    expect(cut - shown).toBeCloseTo(4 * 6 * (50 + 40), 0)
    expect(four.blanks).toHaveLength(4)
    // The same from either side, and turned over.
    const over = mapRegion([-1, 0, 0, 1, 200, 0], layerRegion(four))
    expect(regionArea(subtract(over, layerRegion(four)))).toBeLessThan(0.01)
    const one = at('left side')
    expect(one.folds).toHaveLength(1)
    expect(one.folds[0]!.line[0]).toBeCloseTo(0, 6)
    expect(layerBox(one).minY).toBeCloseTo(60, 3)
    expect(one.joint).toMatchObject({ kind: 'tab' })
    expect(() => at('upper corners', { widthMm: 120 })).toThrow(/do not fit/)
    expect(() => at('upper corners', { barMm: 40 })).toThrow(/longer than/)
  })

  it('ties what would stand alone', () => {
    const two = regionToPath([rectangle([0, 0], 10, 30), rectangle([30, 0], 10, 30)])
    const made = makeLayers(scene({ shape: two, widthMm: 80, heightMm: 40, barMm: 6 }))
    expect(made.layers[0]!.pieces).toHaveLength(1)
    expect(JSON.stringify(made.remarks)).toContain('1 strip ties')
  })

  it('as a band goes round the inside of the frame, in strips that a sheet holds', () => {
    const made = makeLayers(
      scene({ hold: 'wraps', frameWidthMm: 200, frameHeightMm: 150, thicknessMm: 0.3, flapMm: 12, longestMm: 280, barMm: 20, fromPaneMm: 5 }), // prettier-ignore
    )
    const [band] = made.layers
    const strips = band!.blanks.map(({ path }) => regionBox(pathToRegion(path)))
    const flaps = strips.length * 12
    expect(strips.reduce((sum, b) => sum + boxWidth(b), 0)).toBeCloseTo(2 * (200 + 150) - 8 * 0.3 + flaps, 6)
    for (const b of strips) {
      expect(boxWidth(b)).toBeLessThanOrEqual(280)
      expect(boxHeight(b)).toBeCloseTo(20, 6)
    }
    expect(() => makeLayers(scene({ hold: 'wraps', frameWidthMm: 300, longestMm: 280 }))).toThrow(
      /longer than/,
    )
  })

  it('says how high its card stands by itself', () => {
    // Greenhill: (7.837 · 3e9 · t³/12 / w)^(1/3), halved; 0.3 mm of 250 gsm.
    const w = 0.25 * 9.81
    const metres = ((7.837 * 3e9 * (0.0003 ** 3 / 12)) / w) ** (1 / 3)
    expect(standsMm(0.3, 250)).toBeCloseTo((metres * 1000) / 2, 6)
    expect(standsMm(0.6, 500)).toBeGreaterThan(standsMm(0.3, 250))
    expect(JSON.stringify(makeLayers(scene({ shape, heightMm: 190, barMm: 6 })).remarks)).toContain(
      'is high for this card',
    )
  })
})
