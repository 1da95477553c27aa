import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { assignPaper, colourOf, type Paper, type Project } from '../../project'
import { assignContrast, colourDifference, contrastPapers, starterStock } from './index'

const [plain] = starterStock()
const sheet = (colour: string, own: Partial<Paper> = {}): Paper => ({
  ...plain!,
  id: `sheet-${colour.slice(1)}`,
  name: colour,
  colour,
  ...own,
})
const stackOf = (colours: readonly string[]): Project =>
  colours.reduce(
    (p, colour, i) => assignPaper(p, [`l${i}`], { paper: sheet(colour) }),
    stack('card', ...colours.map((_, i) => plate(`l${i}`, 1, [i * 3, i * 3, 60 - 6 * i, 60 - 6 * i]))),
  )
const idsOf = (project: Project) => project.layers.map(({ id }) => id)

/** All ways of giving some layers papers, no more than so many different ones. */
function* allWays(layers: number, papers: readonly Paper[], most: number): Generator<Paper[]> {
  if (layers === 0) return yield []
  for (const rest of allWays(layers - 1, papers, most))
    for (const paper of papers) if (new Set([...rest, paper]).size <= most) yield [...rest, paper]
}

describe('papers that set layers off', () => {
  const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)

  it('are the best of all choices: steps as large as can be, then colours as near as can be', () => {
    fc.assert(
      fc.property(
        fc.array(hex, { minLength: 2, maxLength: 4 }),
        fc.uniqueArray(hex, { minLength: 1, maxLength: 4 }),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: 1, max: 4 }),
        (own, shades, takesPart, most) => {
          const project = stackOf(own)
          const stock = shades.map((colour) => sheet(colour))
          const layerIds = idsOf(project).filter((_, i) => takesPart[i])
          const found = contrastPapers(project, { layerIds, stock, most })
          if (layerIds.length === 0) {
            expect(found.papers).toEqual([])
            return
          }
          const judge = (papers: readonly Paper[]) => {
            const colours = own.map((colour, i) => papers[layerIds.indexOf(`l${i}`)]?.colour ?? colour)
            // What lies between two layers that stay is as it is.
            const steps = colours
              .slice(1)
              .map((colour, i) =>
                takesPart[i] || takesPart[i + 1] ? colourDifference(colours[i]!, colour) : Infinity,
              )
            const change = colours.reduce((sum, colour, i) => sum + colourDifference(own[i]!, colour), 0)
            return { least: Math.min(25, ...steps), change }
          }
          const mine = judge(found.papers.map(({ paper }) => paper))
          for (const way of allWays(layerIds.length, stock, most)) {
            const other = judge(way)
            expect(mine.least).toBeGreaterThanOrEqual(other.least - 1e-6)
            if (other.least > mine.least - 1e-9) expect(mine.change).toBeLessThanOrEqual(other.change + 1e-6)
          }
          expect(new Set(found.papers.map(({ paper }) => paper.id)).size).toBeLessThanOrEqual(most)
        },
      ),
      { numRuns: 150 },
    )
  })

  it('take turns where there are two, and leave alone what does not take part', () => {
    const project = stackOf(['#808080', '#858585', '#8a8a8a', '#8f8f8f', '#949494'])
    const stock = [sheet('#111111'), sheet('#eeeeee'), sheet('#777777', { count: 0 })]
    const two = assignContrast(project, { layerIds: idsOf(project), stock, most: 2 })
    const colours = two.layers.map((layer) => colourOf(two, layer))
    expect(colours).toEqual(['#eeeeee', '#111111', '#eeeeee', '#111111', '#eeeeee'])
    const some = assignContrast(project, { layerIds: ['l1', 'l3'], stock, most: 5 })
    // That two which stay are alike keeps no other from being set off.
    const alike = stackOf(['#777777', '#777777', '#777777'])
    expect(contrastPapers(alike, { layerIds: ['l2'], stock, most: 1 }).leastStep).toBeGreaterThan(25)
    expect(some.layers.filter(({ id }) => !['l1', 'l3'].includes(id)).map((layer) => colourOf(some, layer))).toEqual(['#808080', '#8a8a8a', '#949494']) // prettier-ignore
  })

  it('are no ramp any more, and a large drawer is looked at in no time', () => {
    const project = stackOf(Array.from({ length: 12 }, (_, i) => `#${(i * 20 + 16).toString(16).repeat(3)}`))
    const layerIds = idsOf(project)
    const ramped = { ...project, plan: { ...project.plan, ramps: [layerIds] } }
    const many = Array.from({ length: 700 }, (_, i) =>
      sheet(`#${((i * 7919 * 131) % 0xffffff).toString(16).padStart(6, '0')}`, { id: `m${i}` }),
    )
    for (const most of [3, 12]) {
      const done = assignContrast(ramped, { layerIds, stock: many, most })
      expect(done.plan.ramps).toEqual([])
      const { leastStep } = contrastPapers(project, { layerIds, stock: many, most })
      expect(leastStep).toBeGreaterThan(25)
    }
  })
})
