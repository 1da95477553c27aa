// What the maker chose holds for every sentence: no length in mm in an inch project, and none in inches in a mm project.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wordsIn, type Said, type Unit } from '../base/units'
import { demo, demoNames } from '../demo'
import { listFiles } from '../io/exports'
import {
  ladderRecipeSchema,
  mandalaRecipeSchema,
  rosetteRecipeSchema,
  setLayer,
  setPlan,
  type Project,
} from '../project'
import { faces } from '../../test/faces'
import { results } from '../../test/results'
import { makeLayers } from './layers/makers'

const OTHER: Record<Unit, RegExp> = { mm: /\d\s*(in|ft|inches|″|")(?![a-z])/, in: /\d\s*(mm|cm|m)\b/ }
const units: Unit[] = ['mm', 'in']

/** Everything that is said of a project: findings with their mends, and steps. */
function saidOf(project: Project): Said[] {
  const { snags, assembly } = results(project)
  return [
    ...snags.flatMap(({ message, mend }) => (mend ? [message, mend.label] : [message])),
    ...assembly.steps.flatMap(({ title, detail, caution }) => [title, detail, caution ?? '']),
  ]
}

function expectOnly(unit: Unit, texts: readonly Said[]): void {
  for (const said of texts) {
    const text = wordsIn(said, unit)
    expect(text).not.toMatch(OTHER[unit])
    expect(text).not.toContain('object Object')
  }
}

describe.each(units)('a project in %s', (unit) => {
  it('words findings and steps in that unit alone, whatever is wrong with it', { timeout: 60_000 }, () => {
    const changes = fc.record({
      name: fc.constantFrom(...demoNames),
      depthMm: fc.double({ min: 3, max: 60, noNaN: true }),
      gapMm: fc.double({ min: 0.5, max: 9, noNaN: true }),
      openingMm: fc.double({ min: 20, max: 330, noNaN: true }),
      padSpanMm: fc.option(fc.double({ min: 8, max: 60, noNaN: true })),
      noPaper: fc.boolean(),
    })
    fc.assert(
      fc.property(changes, ({ name, depthMm, gapMm, openingMm, padSpanMm, noPaper }) => {
        let project: Project = { ...demo(name), unit }
        const { mount } = project
        if (mount.kind === 'frame') {
          const opening = { widthMm: openingMm, heightMm: openingMm }
          project = { ...project, mount: { ...mount, depthMm, opening } }
        }
        for (const layer of project.layers.slice(1, 3))
          project = setLayer(project, layer.id, {
            joint: { kind: 'foam', gapMm, pinned: false },
            ...(noPaper ? { paperId: null } : {}),
          })
        expectOnly(unit, saidOf(setPlan(project, { padSpanMm })))
      }),
      { numRuns: 5 },
    )
  })

  it('words what makers tell in that unit alone', () => {
    const recipes = [
      rosetteRecipeSchema.parse({ kind: 'rosette', centreMm: 20 }),
      mandalaRecipeSchema.parse({ kind: 'mandala' }),
      ladderRecipeSchema.parse({
        kind: 'ladder',
        shape: 'M0 0L60 0L60 60L0 60Z',
        steps: 3,
        stepMm: 4,
        sheetWidthMm: 100,
        sheetHeightMm: 100,
      }),
    ]
    for (const recipe of recipes) {
      const { figures, remarks } = makeLayers(recipe)
      const told = figures.flatMap(({ name, value, basis }) => [name, value, basis ?? ''])
      expectOnly(unit, [...remarks, ...told])
    }
  })

  it('has lists in that unit alone', async () => {
    for (const demoName of ['bon-voyage', 'regatta'] as const) {
      const project: Project = { ...demo(demoName), unit }
      const known = results(project)
      const lists = await listFiles(project, known, faces)
      for (const name of ['shopping.csv', 'cut-list.csv'])
        expectOnly(unit, (lists.get(name) as string).split(/[\n,"]+/))
      expectOnly(
        unit,
        known.cost.lines.map(({ basis }) => basis),
      )
    }
  })
})
