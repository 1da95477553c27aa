import { wordsIn, sayAll } from '../../../base/units'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sagMm } from '../sticks'
import { region } from '../../../../test/arbitrary'
import { stack } from '../../../../test/stack'
import {
  boxWidth,
  offset,
  rectangle,
  regionArea,
  regionBox,
  regionContains,
  regionToPath,
  subtract,
} from '../../../base/geometry'
import {
  ladderRecipeSchema,
  layerRegion,
  letteringRecipeSchema,
  mandalaRecipeSchema,
  rosetteRecipeSchema,
  setLayer,
  tonesRecipeSchema,
  type Layer,
} from '../../../project'
import { BadInput, fingerprint } from '../../../base'
import {
  bestThresholds,
  bridgeFaces,
  fromBase64,
  grow,
  growAgain,
  histogramOf,
  makeLayers,
  readFont,
  toBase64,
} from './index'

const areaOf = (layer: Layer) => regionArea(layerRegion(layer))
const require = createRequire(import.meta.url)
const font = (file: string) => readFont(readFileSync(require.resolve(`@expo-google-fonts/${file}`)))
const script = font('pacifico/400Regular/Pacifico_400Regular.ttf')
const round = font('fredoka/700Bold/Fredoka_700Bold.ttf')

describe('the ladder', () => {
  const square = regionToPath([rectangle([0, 0], 100, 80)])
  const ladder = (more: object, shape = square) =>
    makeLayers(
      ladderRecipeSchema.parse({ kind: 'ladder', shape, sheetWidthMm: 165, sheetHeightMm: 165, ...more }),
    )

  it('steps a silhouette in, exactly, on full sheets with a full backing', () => {
    const { layers } = ladder({ steps: 3, stepMm: 10, corners: 'sharp' })
    expect(layers.map((l) => l.name)).toEqual(['Backing', 'Step 3', 'Step 2', 'Step 1', 'Silhouette'])
    expect(layers.map((l) => Math.round(areaOf(l)))).toEqual([
      165 * 165,
      165 * 165 - 40 * 20,
      165 * 165 - 60 * 40,
      165 * 165 - 80 * 60,
      165 * 165 - 100 * 80,
    ])
  })

  it('steps out with round or sharp corners', () => {
    const sharp = ladder({ steps: 2, stepMm: 10, direction: 'outset', corners: 'sharp' }).layers
    expect(sharp.at(-1)!.name).toBe('Step 2')
    expect(areaOf(sharp.at(-1)!)).toBeCloseTo(165 * 165 - 140 * 120, 0)
    const rounded = ladder({ steps: 1, stepMm: 10, direction: 'outset' }).layers.at(-1)!
    expect(165 * 165 - areaOf(rounded)).toBeCloseTo(100 * 80 + 2 * 10 * 180 + Math.PI * 100, -0.5)
  })

  it('agrees with offsets of any silhouette taken one by one', () => {
    fc.assert(
      fc.property(region(100), fc.double({ min: 1, max: 4, noNaN: true }), (shape, stepMm) => {
        if (regionArea(shape) < 400) return
        let made
        try {
          made = ladder({ steps: 3, stepMm, speckMm2: 0 }, regionToPath(shape))
        } catch (error) {
          expect(error).toBeInstanceOf(BadInput)
          return
        }
        for (const layer of made.layers.filter((l) => l.name.startsWith('Step'))) {
          const k = Number(layer.name.slice(5))
          const expected = 165 * 165 - regionArea(offset(shape, -k * stepMm))
          expect(Math.abs(areaOf(layer) / expected - 1)).toBeLessThan(0.01)
        }
      }),
      { numRuns: 40 },
    )
  })

  it('says how many steps fit, and in one sentence what cannot be', () => {
    const made = ladder({ steps: 9, stepMm: 10 })
    expect(made.layers).toHaveLength(5)
    expect(made.figures[0]).toMatchObject({ name: 'Steps that fit', value: '3' })
    expect(made.remarks[0]).toContain('3 fit before the silhouette vanishes')
    expect(() => ladder({ stepMm: 60 })).toThrow(/vanishes before the first step/)
    expect(() => ladder({ sheetWidthMm: 90 })).toThrow(/make it smaller or the sheet larger/)
    expect(() => ladder({ borderMm: 90 })).toThrow(/border leaves no opening/)
  })

  it('drops specks and counts what stands free', () => {
    const withSpeck = regionToPath([rectangle([0, 0], 100, 80), rectangle([110, 0], 1, 1)])
    expect(areaOf(ladder({ steps: 1, stepMm: 5, speckMm2: 4 }, withSpeck).layers.at(-1)!)).toBeCloseTo(
      165 * 165 - 8000,
      0,
    )
    const ring = regionToPath(subtract([rectangle([0, 0], 100, 80)], [rectangle([30, 30], 20, 20)]))
    expect(ladder({ steps: 1, stepMm: 3 }, ring).remarks.at(-1)).toContain('2 loose bits')
  })
})

describe('tones', () => {
  /** A picture: light, with a dark disc in a grey one. */
  const picture = (w: number, h: number, tone: (x: number, y: number) => number) =>
    Uint8Array.from({ length: w * h }, (_, i) => tone(i % w, Math.floor(i / w)))
  const discs = picture(120, 90, (x, y) =>
    Math.hypot(x - 60, y - 45) < 18 ? 30 : Math.hypot(x - 60, y - 45) < 36 ? 130 : 230,
  )
  const tones = (greys: Uint8Array, [w, h]: readonly [number, number], more: object = {}) =>
    makeLayers(
      tonesRecipeSchema.parse({
        kind: 'tones',
        greys: toBase64(greys),
        pixelsWide: w,
        pixelsHigh: h,
        widthMm: 120,
        ...more,
      }),
    )

  it('part a picture where its greys part, each layer wholly on the one beneath', () => {
    const { layers, heightMm } = tones(discs, [120, 90], { levels: 3, smoothMm: 0.3 })
    expect(heightMm).toBeCloseTo(90, 6)
    const drawn = [120 * 90, Math.PI * 36 * 36, Math.PI * 18 * 18]
    layers.forEach((layer, k) => expect(Math.abs(areaOf(layer) / drawn[k]! - 1)).toBeLessThan(0.03))
    expect(layers.map((l) => l.colour)).toEqual(['#e6e6e6', '#828282', '#1e1e1e'])
    for (let k = 1; k < layers.length; k++)
      expect(regionArea(subtract(layerRegion(layers[k]!), layerRegion(layers[k - 1]!)))).toBeLessThan(0.5)
  })

  it('can start from the dark, at thresholds set by hand, cropped', () => {
    const dark = tones(discs, [120, 90], { levels: 3, back: 'dark' })
    expect(dark.layers.map((l) => l.colour)).toEqual(['#1e1e1e', '#828282', '#e6e6e6'])
    const oval = tones(discs, [120, 90], { levels: 2, thresholds: [80], crop: 'oval' })
    expect(areaOf(oval.layers[0]!)).toBeCloseTo(Math.PI * 60 * 45, -1)
    expect(areaOf(oval.layers[1]!)).toBeCloseTo(Math.PI * 18 * 18, -2)
  })

  it('of any picture are supported: nothing of a layer hangs beyond the one beneath', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 24 * 16, maxLength: 24 * 16 }),
        fc.integer({ min: 2, max: 6 }),
        (greys, levels) => {
          let made
          try {
            made = tones(greys, [24, 16], { levels, smoothMm: 4, speckMm2: 2 })
          } catch (error) {
            expect(error).toBeInstanceOf(BadInput)
            return
          }
          for (let k = 1; k < made.layers.length; k++)
            expect(
              regionArea(subtract(layerRegion(made.layers[k]!), layerRegion(made.layers[k - 1]!))),
            ).toBeLessThan(0.5)
        },
      ),
      { numRuns: 25 },
    )
  })

  it('are tied to one piece each where the maker wants it, never beyond the layer beneath', () => {
    const eyes = picture(120, 90, (x, y) =>
      Math.hypot(x - 40, y - 45) < 10 || Math.hypot(x - 80, y - 45) < 10
        ? 20
        : Math.hypot(x - 60, y - 45) < 40
          ? 120
          : 240,
    )
    const loose = tones(eyes, [120, 90], { levels: 3 })
    expect(loose.layers[2]!.pieces).toHaveLength(2)
    const made = tones(eyes, [120, 90], { levels: 3, tieMm: 2 })
    expect(made.layers[2]!.pieces).toHaveLength(1)
    expect(made.remarks.join(' ')).toContain('1 strip ties')
    expect(regionArea(subtract(layerRegion(made.layers[2]!), layerRegion(made.layers[1]!)))).toBeLessThan(0.5)
  })

  it('keep fewer points where less detail is asked for', () => {
    const points = (detailMm: number) =>
      tones(discs, [120, 90], { levels: 3, detailMm }).layers.reduce(
        (n, l) => n + l.pieces.reduce((m, p) => m + p.path.split('L').length, 0),
        0,
      )
    expect(points(1)).toBeLessThan(points(0.05) / 2)
  })

  it('refuse a picture of one tone', () =>
    expect(() => tones(new Uint8Array(200).fill(90), [20, 10])).toThrow(/single tone/))

  it('find the thresholds of least spread: no others do better', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(255), { minLength: 3, maxLength: 60 }), (greys) => {
        const bins = histogramOf(greys)
        const spread = (cuts: number[]) => {
          const edges = [0, ...cuts, 256]
          return edges.slice(1).reduce((sum, to, k) => {
            const own = greys.filter((g) => g >= edges[k]! && g < to)
            const mean = own.reduce((a, b) => a + b, 0) / (own.length || 1)
            return sum + own.reduce((s, g) => s + (g - mean) ** 2, 0)
          }, 0)
        }
        const [a, b] = bestThresholds(bins, 3)
        const best = spread([a!, b!])
        for (let i = 0; i <= 256; i += 3)
          for (let j = i; j <= 256; j += 3) expect(best).toBeLessThanOrEqual(spread([i, j]) + 1e-6)
      }),
      { numRuns: 15 },
    )
  })

  it('keep a picture as text and back', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ maxLength: 40 }),
        (bytes) => void expect(fromBase64(toBase64(bytes))).toEqual(bytes),
      ),
    )
    expect(toBase64(Uint8Array.of(72, 105, 33))).toBe('SGkh')
  })
})

describe('lettering', () => {
  const letter = (text: string, more: object = {}, face = round) =>
    makeLayers(letteringRecipeSchema.parse({ kind: 'lettering', text, ...more }), face)
  const words = (made: ReturnType<typeof letter>) => made.layers.at(-1)!

  it('joins letters to one piece of the wanted width', () => {
    for (const [text, face] of [
      ['harbour', round],
      ['voyage', script],
    ] as const) {
      const made = letter(text, { widthMm: 120, backingMm: 0 }, face)
      expect(words(made).pieces).toHaveLength(1)
      expect(boxWidth(regionBox(layerRegion(words(made))))).toBeCloseTo(120, 0)
    }
  })

  it('joins neighbours by the safe width at least: drawn in by half of it they still hang together', () => {
    const made = letter('moon', { widthMm: 120, backingMm: 0, joinMm: 2 })
    expect(offset(layerRegion(words(made)), -0.98)).toHaveLength(1)
    const weakest = (joinMm: number) =>
      parseFloat(
        wordsIn(made0(joinMm).figures.find((f) => f.name === 'Weakest joint')!.value, 'mm').split(', ')[1]!,
      )
    const made0 = (joinMm: number) => letter('moon', { widthMm: 120, backingMm: 0, joinMm })
    for (const mm of [1, 2, 3]) expect(Math.abs(weakest(mm) - mm)).toBeLessThan(0.15)
    expect(letter('m', { backingMm: 0 }).figures.map((f) => f.name)).not.toContain('Weakest joint')
    const looser = letter('moon', { widthMm: 120, backingMm: 0, joinMm: 1 })
    expect(regionArea(layerRegion(words(looser)))).not.toBeCloseTo(regionArea(layerRegion(words(made))), 0)
  })

  it('joins dots and accents, moved or by a strip', () => {
    for (const dots of ['moved', 'strip'] as const)
      expect(words(letter('jijé', { dots, backingMm: 0, widthMm: 110 })).pieces).toHaveLength(1)
  })

  it('lays words on a backing that reaches out evenly and holds all of them', () => {
    const made = letter('bon\nvoyage', { backingMm: 5, backingSteps: 2, widthMm: 140 })
    expect(made.layers.map((l) => l.name)).toEqual(['Backing 1', 'Backing 2', 'Words'])
    const [low, high, top] = made.layers.map(layerRegion)
    expect(regionArea(subtract(offset(top!, 4.9), high!))).toBeLessThan(1)
    expect(regionArea(subtract(offset(high!, 4.9), low!))).toBeLessThan(1)
    expect(low).toHaveLength(1)
  })

  it('ties words apart by a strip where there is no backing', () => {
    const made = letter('so far', { backingMm: 0 })
    expect(words(made).pieces).toHaveLength(1)
    expect(made.remarks.join(' ')).toContain('1 strip ties')
  })

  it('leaves letters apart on their backing, as the font sets them', () => {
    const made = letter('joy', { style: 'apart', widthMm: 120 })
    // Three letters and the dot of the j.
    expect(words(made).pieces).toHaveLength(4)
    expect(made.layers[0]!.pieces).toHaveLength(1)
    expect(regionArea(subtract(layerRegion(words(made)), layerRegion(made.layers[0]!)))).toBeLessThan(0.01)
    expect(letter('joy', { style: 'apart', backingMm: 0 }).remarks.join(' ')).toContain('4 pieces stand free')
    const lines = (lineGap: number) => letter('low\ntide', { style: 'apart', lineGap, widthMm: 120 }).heightMm
    expect(lines(1.5)).toBeGreaterThan(lines(1) * 1.2)
  })

  it('cuts words out of full sheets, wider from sheet to sheet', () => {
    const made = letter('tide', {
      style: 'cut-out',
      widthMm: 110,
      cutSteps: 2,
      cutStepMm: 4,
      sheetWidthMm: 200,
      sheetHeightMm: 150,
    })
    expect(made.layers.map((l) => l.name)).toEqual(['Backing', 'Words', 'Step 1', 'Step 2'])
    const sheet = [rectangle([0, 0], 200, 150)]
    const [opening, , widest] = made.layers.slice(1).map((layer) => subtract(sheet, layerRegion(layer)))
    expect(boxWidth(regionBox(opening!))).toBeCloseTo(110, 0)
    expect(boxWidth(regionBox(widest!))).toBeCloseTo(126, 0)
    expect(regionArea(subtract(offset(opening!, 7.9), widest!))).toBeLessThan(1)
    expect(() => letter('tide', { style: 'cut-out', widthMm: 210, sheetWidthMm: 200 })).toThrow(
      /words are .* the sheet 200/,
    )
  })

  it('puts sticks on solid card below the centre of mass', () => {
    const made = letter('seaside', { sticks: 2, backingMm: 6 })
    const card = layerRegion(made.layers[0]!)
    const at = made.figures
      .filter((f) => wordsIn(f.name, 'mm').startsWith('Stick'))
      .map((f) => parseFloat(wordsIn(f.value, 'mm')))
    expect(at).toHaveLength(2)
    const b = regionBox(card)
    for (const x of at) {
      let y = b.maxY
      while (!regionContains(card, x, y)) y -= 0.5
      for (const dx of [-2, 0, 2]) expect(regionContains(card, x + dx, y - 4)).toBe(true)
    }
  })

  it('draws chosen letters in the other shape that a font has', () => {
    const area = (alternates: string) =>
      regionArea(layerRegion(words(letter('baker', { alternates, backingMm: 0 }, script))))
    expect(area('b')).not.toBeCloseTo(area(''), 1)
    expect(letter('baker', { alternates: '*' }).remarks.join(' ')).toContain('no alternate signs')
  })

  it('says what is not possible', () => {
    expect(() => letter('   ')).toThrow(/type a word/)
    expect(() => letter('ok', { backingMm: 70 })).toThrow(/backing takes all/)
    expect(() => letter('漢字')).toThrow(/no sign for “漢”, “字”/)
    expect(wordsIn(sayAll(letter('thin', { joinMm: 9, widthMm: 60, backingMm: 0 }).remarks), 'mm')).toMatch(
      /narrower than 9 mm/,
    )
    expect(() => readFont(Uint8Array.of(1, 2, 3, 4))).toThrow(BadInput)
  })
})

describe('every setting', () => {
  const square = regionToPath([rectangle([0, 0], 100, 80), rectangle([20, 100], 1.5, 1.5)])
  const hill = toBase64(
    Uint8Array.from(
      { length: 48 * 48 },
      (_, i) => ((i % 48) * 5 + Math.floor(i / 48) * 3 + (i % 7 === 0 ? 60 : 0)) % 256,
    ),
  )
  const makers = {
    ladder: {
      make: (r: object) =>
        makeLayers(
          ladderRecipeSchema.parse({
            kind: 'ladder',
            shape: square,
            sheetWidthMm: 165,
            sheetHeightMm: 165,
            ...r,
          }),
        ),
    },
    lettering: {
      make: (r: object) =>
        makeLayers(
          letteringRecipeSchema.parse({ kind: 'lettering', text: 'jib\nbay', widthMm: 120, ...r }),
          script,
        ),
    },
    tones: {
      make: (r: object) =>
        makeLayers(
          tonesRecipeSchema.parse({
            kind: 'tones',
            greys: hill,
            pixelsWide: 48,
            pixelsHigh: 48,
            widthMm: 100,
            ...r,
          }),
        ),
    },
    rosette: { make: (r: object) => makeLayers(rosetteRecipeSchema.parse({ kind: 'rosette', ...r })) },
    mandala: {
      make: (r: object) =>
        makeLayers(mandalaRecipeSchema.parse({ kind: 'mandala', fold: 6, layers: 2, diameterMm: 70, ...r })),
    },
  }
  const settings: [keyof typeof makers, string, unknown, object?][] = [
    ['ladder', 'steps', 2],
    ['ladder', 'stepMm', 3],
    ['ladder', 'direction', 'outset'],
    ['ladder', 'corners', 'sharp', { direction: 'outset' }],
    ['ladder', 'speckMm2', 0],
    ['ladder', 'sheetWidthMm', 200],
    ['ladder', 'sheetHeightMm', 200],
    ['ladder', 'borderMm', 10],
    ['lettering', 'text', 'jib'],
    ['lettering', 'alternates', 'b'],
    ['lettering', 'widthMm', 90],
    ['lettering', 'style', 'apart'],
    ['lettering', 'style', 'cut-out', { widthMm: 80 }],
    ['lettering', 'cutSteps', 5, { style: 'cut-out', widthMm: 80 }],
    ['lettering', 'cutStepMm', 2, { style: 'cut-out', widthMm: 80 }],
    ['lettering', 'sheetWidthMm', 220, { style: 'cut-out', widthMm: 80 }],
    ['lettering', 'sheetHeightMm', 220, { style: 'cut-out', widthMm: 80 }],
    ['lettering', 'lineGap', 1.4, { style: 'apart' }],
    ['lettering', 'joinMm', 3],
    ['lettering', 'dots', 'strip'],
    ['lettering', 'backingMm', 6],
    ['lettering', 'backingSteps', 2],
    ['lettering', 'fillGapsMm', 9],
    ['lettering', 'sticks', 1],
    ['tones', 'levels', 3],
    ['tones', 'thresholds', [60, 120, 200]],
    ['tones', 'back', 'dark'],
    ['tones', 'widthMm', 80],
    ['tones', 'smoothMm', 3],
    ['tones', 'speckMm2', 60],
    ['tones', 'detailMm', 1],
    ['tones', 'tieMm', 2],
    ['tones', 'crop', 'oval'],
    ['tones', 'crop', 'rounded'],
    ['tones', 'filter', 'edges'],
    ['tones', 'contrast', 0.6],
    ['tones', 'matMm', 12],
    ['tones', 'strokes', [{ tone: 1, widthMm: 20, points: [50, 50] }]],
    ['tones', 'outline', { points: [20, 20, 80, 20, 50, 80], looseMm: 5 }],
    ['rosette', 'petal', 'heart'],
    ['rosette', 'shape', square],
    ['rosette', 'petals', 8],
    ['rosette', 'diameterMm', 60],
    ['rosette', 'sizes', 2],
    ['rosette', 'ratio', 0.7],
    ['rosette', 'centreMm', 20],
    ['rosette', 'fringeMm', 20],
    ['rosette', 'paperMm', 0.5],
    ['rosette', 'leaves', 0],
    ['rosette', 'fall', 'step'],
    ['rosette', 'stepMm', 7, { fall: 'step' }],
    ['rosette', 'curlMm', 8],
    ['rosette', 'strip', 'single'],
    ['rosette', 'fringeDepth', 0.4],
    ['rosette', 'slitMm', 3],
    ['rosette', 'longestMm', 120],
    ['rosette', 'leafRatio', 0.8],
    ['rosette', 'leaf', 'cupped'],
    ['rosette', 'cupDeg', 50, { leaf: 'cupped' }],
    ['rosette', 'flapMm', 9, { leaf: 'cupped' }],
    ['mandala', 'fold', 8],
    ['mandala', 'layers', 3],
    ['mandala', 'diameterMm', 90],
    ['mandala', 'stripMm', 3],
    ['mandala', 'seed', 2],
  ]

  it.each(settings)('of the %s changes what is made: %s to %j', (kind, key, value, base = {}) => {
    const [before, after] = [makers[kind].make(base), makers[kind].make({ ...base, [key]: value })]
    const drawn = ({ layers, sticks, figures }: typeof before) =>
      fingerprint([
        layers.map(({ pieces, blanks, folds, slits, shaping }) => [pieces, blanks, folds, slits, shaping]),
        sticks,
        figures,
      ])
    expect(drawn(after)).not.toBe(drawn(before))
  })
})

describe('bridges', () => {
  it('join all faces by the shortest lines, as wide as asked', () => {
    const islands = [rectangle([0, 0], 20, 20), rectangle([25, 0], 20, 20), rectangle([25, 30], 20, 20)]
    const { region: joined, strips } = bridgeFaces(islands, 2)
    expect(joined).toHaveLength(1)
    expect(strips.map((s) => Math.round(s.lengthMm)).toSorted((a, b) => a - b)).toEqual([5, 10])
    expect(regionArea(joined) - 1200).toBeGreaterThan(25)
    expect(offset(joined, -0.95)).toHaveLength(1)
  })

  it('say which of them a higher layer hides', () => {
    const two = [rectangle([0, 0], 20, 20), rectangle([30, 0], 20, 20)]
    expect(bridgeFaces(two, 2, { cover: [rectangle([15, -5], 20, 30)] }).strips[0]!.hidden).toBeCloseTo(1, 1)
    expect(bridgeFaces(two, 2, { cover: [rectangle([100, 0], 5, 5)] }).strips[0]!.hidden).toBe(0)
  })
})

describe('made layers in a project', () => {
  const recipe = mandalaRecipeSchema.parse({ kind: 'mandala', layers: 3, diameterMm: 100 })

  it('are centred, and keep paper and joint when they are made again', () => {
    const project = grow(stack('frame'), 'm', { recipe, made: makeLayers(recipe) })
    const b = regionBox(layerRegion(project.layers[0]!))
    expect((b.minX + b.maxX) / 2).toBeCloseTo(100, 1)
    const chosen = setLayer(project, project.layers[1]!.id, {
      joint: { kind: 'foam', gapMm: 3, pinned: true },
    })
    const larger = { ...recipe, layers: 4, diameterMm: 120 }
    const again = growAgain(chosen, 'm', { recipe: larger, made: makeLayers(larger) })
    expect(again.layers).toHaveLength(4)
    expect(again.layers[1]!.joint).toEqual({ kind: 'foam', gapMm: 3, pinned: true })
    expect(boxWidth(regionBox(layerRegion(again.layers[0]!)))).toBeCloseTo(120, 0)
    expect(again.grown).toEqual([{ id: 'm', recipe: larger, layerIds: again.layers.map((l) => l.id) }])
  })
})

describe('sag of card', () => {
  it('grows with the fourth power of the reach and falls with the square of the thickness', () => {
    expect(sagMm(80, 0.29)).toBeCloseTo(2.1, 0)
    expect(sagMm(160, 0.29) / sagMm(80, 0.29)).toBeCloseTo(16, 6)
    expect(sagMm(80, 0.29) / sagMm(80, 0.58)).toBeCloseTo(4, 6)
  })
})
