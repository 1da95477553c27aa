// Every maker at settings that are odd, but within their bounds: it gives layers, or says in one sentence why not.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { BadInput } from '../../../base'
import { pathToRegion } from '../../../base/geometry'
import { wordsIn } from '../../../base/units'
import { recipeSchema, recipeSettings } from '../../../project'
import { makeLayers } from './index'

interface Setting {
  type?: string
  enum?: string[]
  minimum?: number
  maximum?: number
  default?: unknown
}

const SHAPE = 'M10 10L70 10L80 40L60 90L20 80Z'

/** A setting at one of its bounds, or at a size that a maker could mean. */
function settingOf(key: string, { type, enum: choices, minimum = -100, maximum = 1000 }: Setting) {
  if (choices) return fc.constantFrom(...choices)
  if (type === 'boolean') return fc.boolean()
  if (type === 'string') return fc.constant(/shape|own/.test(key) ? SHAPE : 'Hi')
  if (type !== 'integer' && type !== 'number') return null
  const within = (v: number) => Math.min(maximum, Math.max(minimum, v))
  const plausible = fc.double({ min: 0, max: 300, noNaN: true }).map(within)
  return fc
    .oneof({ weight: 1, arbitrary: fc.constantFrom(minimum, maximum) }, { weight: 3, arbitrary: plausible })
    .map((v) => (type === 'integer' ? within(Math.round(v)) : v))
}

const PICTURE = { greys: btoa(String.fromCharCode(...Array.from({ length: 400 }, (_, i) => (i * 37) % 256))), pixelsWide: 20, pixelsHigh: 20, by: 'greys', colours: undefined } // prettier-ignore

const recipes = fc.oneof(
  ...recipeSettings()
    .filter(({ kind }) => kind !== 'lettering')
    .map(({ kind, needs, settings }) =>
      fc
        .record(
          Object.fromEntries(
            Object.entries(settings).flatMap(([key, setting]) => {
              const own = settingOf(key, setting as Setting)
              return own ? [[key, own] as const] : []
            }),
          ),
          { requiredKeys: needs },
        )
        .map((given) => ({ kind, ...given, ...(kind === 'tones' ? PICTURE : {}) })),
    ),
)

it('gives layers, or one sentence', { timeout: 60_000 }, () => {
  fc.assert(
    fc.property(recipes, (given) => {
      const read = recipeSchema.safeParse(given)
      if (!read.success) return
      try {
        const { layers } = makeLayers(read.data)
        expect(layers.length).toBeGreaterThan(0)
        // Each of them, and all that it is cut of, is some card.
        for (const { pieces, blanks } of layers) {
          expect(pieces.length).toBeGreaterThan(0)
          for (const { path } of [...pieces, ...blanks]) expect(pathToRegion(path)).not.toEqual([])
        }
      } catch (error) {
        if (!(error instanceof BadInput)) throw error
        expect(wordsIn(error.said, 'mm')).toMatch(/^[^\n{}[\]]+$/)
      }
    }),
    { numRuns: 80 },
  )
})
