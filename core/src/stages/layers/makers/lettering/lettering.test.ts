// Words of every shipped font: truly joined, as wide as asked for; and what holds them up.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  boxWidth,
  ellipse,
  intersect,
  joinBoxes,
  offset,
  rectangle,
  regionArea,
  regionBox,
  subtract,
  union,
} from '../../../../base/geometry'
import { layerRegion, letteringRecipeSchema } from '../../../../project'
import { bridgeFaces, stripRegion } from '../bridge'
import { readFont, shapesOf } from '../font'
import type { Made } from '../made'
import { makeLayers } from '../index'
import { makeLettering } from './lettering'
import { sagMm, sagOf, stickPlaces } from '../../sticks'
import { typeset } from './typeset'

const require = createRequire(import.meta.url)
const FONTS = [
  'alfa-slab-one/400Regular/AlfaSlabOne_400Regular',
  'baloo-2/700Bold/Baloo2_700Bold',
  'dancing-script/700Bold/DancingScript_700Bold',
  'fredoka/700Bold/Fredoka_700Bold',
  'great-vibes/400Regular/GreatVibes_400Regular',
  'lobster/400Regular/Lobster_400Regular',
  'londrina-outline/400Regular/LondrinaOutline_400Regular',
  'pacifico/400Regular/Pacifico_400Regular',
  'righteous/400Regular/Righteous_400Regular',
  'zilla-slab/700Bold/ZillaSlab_700Bold',
]
const recipe = (more: object) => letteringRecipeSchema.parse({ kind: 'lettering', text: 'x', ...more })

describe.each(FONTS)('words in %s', (file) => {
  const font = readFont(readFileSync(require.resolve(`@expo-google-fonts/${file}.ttf`)))

  it.each(['Hi', 'Élan & Noël', 'jib\nbay', '2026'])('%s: one piece, as wide as asked for', (text) => {
    for (const backingMm of [0, 4]) {
      const made = makeLayers(recipe({ text, widthMm: 130, backingMm }), font)
      const words = union(layerRegion(made.layers.at(-1)!))
      // On a backing words may stand apart from each other, and their letters never.
      expect(words.length).toBeLessThanOrEqual(backingMm > 0 ? text.split(/\s/).length : 1)
      expect(boxWidth(regionBox(layerRegion(made.layers[0]!)))).toBeCloseTo(130, 1)
    }
  })

  it('hold together by the joint that was asked for: drawn in by half of it, neighbours still touch', () => {
    for (const joinMm of [1.2, 2]) {
      const { joints } = typeset(
        { font, recipe: recipe({ text: 'bon voyage', joinMm }), fonts: new Map() },
        130,
      )
      for (const { letters } of joints) {
        const [a, b] = letters.map((letter) => offset(letter, -joinMm / 2 + 0.02))
        expect(intersect(a!, b!).length).toBeGreaterThan(0)
      }
    }
  })
})

describe('a font whose tables cannot be read', () => {
  const font = readFont(readFileSync(require.resolve(`@expo-google-fonts/${FONTS[7]}.ttf`)))

  it('is set sign by sign', () => {
    const broken = Object.create(font) as typeof font
    broken.stringToGlyphs = () => {
      throw new Error('lookup type 6 is not supported')
    }
    broken.getKerningValue = () => {
      throw new Error('no')
    }
    expect(makeLayers(recipe({ text: 'harbour', backingMm: 0 }), broken).layers[0]!.pieces).toHaveLength(1)
  })
})

describe('strips between faces', () => {
  it('join what touches in a point, as wide as asked for', () => {
    const corners = [rectangle([0, 0], 10, 10), rectangle([10, 10], 10, 10)]
    const { region } = bridgeFaces(corners, 2)
    expect(region).toHaveLength(1)
    expect(offset(region, -0.95)).toHaveLength(1)
    const at = { x: 5, y: 5 }
    expect(regionArea(stripRegion(at, at, { widthMm: 2 }))).toBeGreaterThan(Math.PI)
  })
})

describe.each(['straight', 'flared', 'bowed'] as const)('a %s strip', (shape) => {
  it('joins two faces and is nowhere narrower than asked for, whichever way it runs', () => {
    for (const [dx, dy] of [
      [25, 0],
      [-25, 4],
      [6, 22],
      [3, -24],
    ] as const) {
      const faces = [rectangle([0, 0], 10, 10), rectangle([dx, dy], 10, 10)]
      const { region, strips } = bridgeFaces(faces, 2, { shape })
      expect(strips).toHaveLength(1)
      expect(region).toHaveLength(1)
      // Drawn in by nearly half its width it still holds; by more than the widest place of a straight one it parts.
      expect(offset(region, -0.96)).toHaveLength(1)
      if (shape === 'straight') expect(offset(region, -1.05).length).toBeGreaterThan(1)
    }
  })

  it('takes as much card as its shape asks for', () => {
    const area = regionArea(stripRegion({ x: 0, y: 0 }, { x: 30, y: 0 }, { widthMm: 2, shape }))
    const plain = regionArea(stripRegion({ x: 0, y: 0 }, { x: 30, y: 0 }, { widthMm: 2 }))
    if (shape === 'straight') expect(area).toBeCloseTo(plain, 6)
    // Of a parabola from 1 to 2.4 half widths the mean is 1 + 1.4/3.
    else if (shape === 'flared') expect(area).toBeGreaterThan(2 * 30 * (1 + 1.4 / 3) * 0.98)
    else expect(area).toBeGreaterThan(plain * 1.1)
  })
})

describe('what holds words up', () => {
  const strip = [rectangle([0, 0], 120, 20)]

  it('sags as a plain strip where it is one, and more where a joint is narrow', () => {
    expect(Math.abs(sagOf(strip, [60], 0.3) / sagMm(60, 0.3) - 1)).toBeLessThan(0.02)
    const necked = subtract(strip, [rectangle([63, 3], 4, 20), rectangle([53, 3], 4, 20)])
    expect(sagOf(necked, [60], 0.3)).toBeGreaterThan(1.3 * sagOf(strip, [60], 0.3))
    // Twice as thick, a quarter of the sag.
    expect(sagOf(strip, [60], 0.6) / sagOf(strip, [60], 0.3)).toBeCloseTo(0.25, 6)
  })

  it.each([1, 2, 3, 4])(
    'puts %i sticks on card that is wide enough for each, apart from each other',
    (sticks) => {
      const { at, remarks } = stickPlaces(strip, recipe({ sticks, stickMm: 4 }))
      expect(at).toHaveLength(sticks)
      expect(remarks).toEqual([])
      for (const [i, x] of at.entries()) {
        const own = intersect(strip, [rectangle([x - 2, 0], 4, 20)])
        expect(regionArea(own)).toBeCloseTo(80, 6)
        if (i > 0) expect(x - at[i - 1]!).toBeGreaterThan(8)
      }
    },
  )

  it('asks for card twice as high as the stick is wide over all of its width, and says what finds none', () => {
    // A slanted foot: each column has card enough, all of them together have not.
    const slanted = [{ outer: Float64Array.of(0, 0, 60, 40, 60, 49, 0, 9), holes: [] }]
    expect(stickPlaces(slanted, recipe({ sticks: 1, stickMm: 4 })).at).toHaveLength(0)
    const rings = subtract([ellipse([30, 20], 30, 20)], [ellipse([30, 20], 27, 17)])
    expect(stickPlaces(rings, recipe({ sticks: 2, stickMm: 4 })).remarks[0]).toContain('wide enough')
  })
})

describe('a line or a letter set by itself', () => {
  const fontAt = (file: string) => readFont(readFileSync(require.resolve(`@expo-google-fonts/${file}.ttf`)))
  const font = fontAt('fredoka/700Bold/Fredoka_700Bold')
  const script = fontAt('pacifico/400Regular/Pacifico_400Regular')
  const fonts = new Map([['script', script]])
  const boxOf = (made: Made, line: number, at: number) => {
    const { box } = made.letters!.find((one) => one.line === line && one.at === at)!
    return { ...box, wide: box.maxX - box.minX, high: box.maxY - box.minY }
  }
  const apart = (more: object) => makeLettering(recipe({ text: 'tide\npool', style: 'apart', backingMm: 0, ...more }), font, fonts) // prettier-ignore
  let plain: Made
  beforeAll(() => {
    plain = apart({})
  })

  it('stands where it says: every letter in its box, all boxes filling the words', () => {
    expect(plain.letters!.map(({ sign }) => sign).join('')).toBe('tidepool')
    const words = regionBox(layerRegion(plain.layers.at(-1)!))
    const all = joinBoxes(plain.letters!.map(({ box }) => box))
    for (const side of ['minX', 'maxX', 'minY', 'maxY'] as const)
      expect(all[side]).toBeCloseTo(words[side], 2)
  })

  it('a larger line is larger by so much against the other', () => {
    const ratio = (made: Made) => boxOf(made, 1, 1).high / boxOf(made, 0, 2).high
    expect(ratio(apart({ lines: [{ line: 1, size: 1.5 }] })) / ratio(plain)).toBeCloseTo(1.5, 2)
    const wider = apart({ lines: [{ line: 1, stretch: 0.5 }] })
    const shape = (made: Made) => boxOf(made, 1, 1).wide / boxOf(made, 1, 1).high
    expect(shape(wider) / shape(plain)).toBeCloseTo(0.5, 2)
  })

  it('a letter is larger, raised, turned, in another font; the rest stays as it was', () => {
    const scaleOf = (made: Made) => boxOf(made, 1, 0).high / boxOf(plain, 1, 0).high
    const large = apart({ letters: [{ line: 0, at: 2, size: 2 }] })
    expect(boxOf(large, 0, 2).high / boxOf(plain, 0, 2).high / scaleOf(large)).toBeCloseTo(2, 2)
    expect(boxOf(large, 0, 0).high / boxOf(plain, 0, 0).high / scaleOf(large)).toBeCloseTo(1, 2)
    const up = apart({ letters: [{ line: 0, at: 2, upMm: 3 }] })
    const rise = (made: Made) => boxOf(made, 0, 0).maxY - boxOf(made, 0, 2).maxY
    expect(rise(up) - rise(plain)).toBeCloseTo(3, 1)
    const other = apart({ letters: [{ line: 0, at: 2, font: 'script' }] })
    expect(regionArea(layerRegion(other.layers.at(-1)!))).not.toBeCloseTo(regionArea(layerRegion(plain.layers.at(-1)!)), 0) // prettier-ignore
    expect(() => apart({ lines: [{ line: 0, font: 'gone' }] })).toThrow(/font “gone”/)
  })

  it('is joined all the same', () => {
    const made = makeLettering(
      recipe({
        text: 'tide',
        joinMm: 1.6,
        backingMm: 0,
        letters: [
          { line: 0, at: 1, size: 1.4, upMm: 4 },
          { line: 0, at: 2, turnDeg: 12 },
        ],
      }),
      font,
    )
    const words = layerRegion(made.layers.at(-1)!)
    expect(words).toHaveLength(1)
    expect(offset(words, -0.79)).toHaveLength(1)
  })

  it('takes every other shape that a font has of a sign', () => {
    const shapes = shapesOf(script, 'b')
    expect(shapes.length).toBeGreaterThan(1)
    expect(new Set(shapes).size).toBe(shapes.length)
    const set = (shape: number) =>
      makeLettering(recipe({ text: 'abba', style: 'apart', letters: [{ line: 0, at: 2, shape }] }), script)
    const [own, other] = [set(0), set(1)].map((made) => made.letters!.map(({ box }) => box.maxX - box.minX))
    expect(own![1]! / own![0]!).toBeCloseTo(other![1]! / other![0]!, 2)
    expect(own![2]! / own![0]!).not.toBeCloseTo(other![2]! / other![0]!, 3)
  })
})
