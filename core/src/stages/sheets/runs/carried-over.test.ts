// Small changes leave on the sheets what they do not touch.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectLegal } from '../../../../test/legal-layout'
import { plate, stack } from '../../../../test/stack'
import { Cache } from '../../../base'
import { Planner } from '../../../planner'
import {
  assignPaper,
  dropPin,
  scaleParts,
  setLayer,
  setPlan,
  transformLayers,
  type Project,
} from '../../../project'
import { nodes } from '../../index'
import { starterStock } from '../../paper'
import { pinAll, putPieces } from '../hand'
import type { NestLayout, Placement } from '../nest/instance'
import { Nester } from '../nest/nester'
import { noteLying } from './carried-over'
import { keptLayout, type KeptLayout } from './kept-layouts'
import type { NestedRun } from './paper-runs'

const stock = starterStock().slice(0, 1)

/** A page on which one project after the other is seen. */
class Page {
  private readonly planner = new Planner(new Cache())
  readonly kept: Map<string, unknown>

  constructor(found: readonly KeptLayout[] = []) {
    this.kept = new Map(found)
  }

  see(project: Project): NestedRun {
    this.planner.update({ project, stock, found: this.kept })
    const [nested] = this.planner.get(nodes.nested())
    expectLegal(nested!.run.instance, nested!.layout)
    noteLying(this.kept, [nested!])
    return nested!
  }

  /** What is kept beyond the day. */
  get found(): KeptLayout[] {
    return [...this.kept].filter(([name]) => !/^(last|from the start) /.test(name)) as KeptLayout[]
  }
}

/** The run as a page that was just opened has it. */
const laid = (project: Project, found: readonly KeptLayout[] = []): NestedRun => new Page(found).see(project)

/** The run once it was changed from another. */
function changed(from: Project, to: Project, found: readonly KeptLayout[]): NestedRun {
  const page = new Page(found)
  page.see(from)
  return page.see(to)
}

/** Nine layers of one paper, on two sheets. */
function nine(): Project {
  const layers = Array.from({ length: 9 }, (_, k) =>
    plate(`l${k}`, 0, [0, 0, 70 + 7 * k, 60 + 5 * ((k * 4) % 9)], [200, 0, 20 + k, 31 - k]),
  )
  const bare = stack('free', ...layers)
  return assignPaper(bare, layers.map(({ id }) => id), { paper: stock[0]!, stock }) // prettier-ignore
}

const without = (placements: readonly Placement[], layerId: string) =>
  placements.filter(({ id }) => !id.startsWith(`${layerId}/`))

/** What a search of some steps finds, to be kept. */
function searched(project: Project): KeptLayout {
  const { run } = laid(project)
  const nester = new Nester(run.instance, 9)
  for (let k = 0; k < 40; k++) nester.step()
  return keptLayout({ run, layout: nester.best })
}

describe('a layout that was kept', () => {
  const project = nine()
  const found = [searched(project)]
  const before = laid(project, found).layout

  it('holds for all that is as it was: another shape lies where the old one did, if it may', () => {
    for (const change of [
      scaleParts(project, ['l3'], 0.97),
      scaleParts(project, ['l5'], 0.93),
      transformLayers(project, [1, 0, 0, 0.9, 0, 0], ['l8']),
    ]) {
      const id = change.layers.find((layer, k) => layer !== project.layers[k])!.id
      const { layout } = changed(project, change, found)
      const stay = without(layout.placements, id)
      const old = before.placements.find((place) => place.id === `${id}/p1`)!
      expect(layout.placements.find((place) => place.id === old.id)!.sheet).toBe(old.sheet)
      expect(stay).toEqual(expect.arrayContaining(without(before.placements, id)))
      expect(stay).toHaveLength(without(before.placements, id).length)
      // It is not what is laid from the start.
      expect(without(laid(change).layout.placements, id)).not.toEqual(stay)
    }
    expect(laid(project, found).layout).toEqual(before)
  })

  it('changes nothing of what lay from the start: undone, all lies as it did, and so it does when the page is opened again', () => {
    const page = new Page()
    const first = page.see(project).layout
    const changed = scaleParts(project, ['l3'], 0.97)
    const second = page.see(changed)
    // A search finds another for it, which is kept.
    page.kept.set(...searched(changed))
    const better = new Page(page.found)
    expect(better.see(changed).layout).not.toEqual(second.layout)
    expect(better.see(scaleParts(changed, ['l3'], 0.97)).carried).toBe(true)
    expect(new Page(better.found).see(scaleParts(changed, ['l3'], 0.97)).layout).toEqual(better.see(scaleParts(changed, ['l3'], 0.97)).layout) // prettier-ignore
    expect(page.see(project).layout).toEqual(first)
    expect(new Page(better.found).see(project).layout).toEqual(first)
  })

  it('never costs a sheet more than laying all anew, nor more than a twentieth of one', () => {
    let stayed = 0
    const layer = fc.integer({ min: 0, max: 8 })
    fc.assert(
      fc.property(fc.array(fc.tuple(layer, fc.constantFrom(0.8, 0.95, 1.05, 1.2)), { minLength: 1, maxLength: 5 }), (acts) => {
        const change = acts.reduce((p, [k, by]) => scaleParts(p, [`l${k}`], by), project)
        const [carried, anew] = [changed(project, change, found).layout, laid(change).layout] as [NestLayout, NestLayout]
        expect(carried.sheets).toBeLessThanOrEqual(anew.sheets)
        expect(carried.score).toBeLessThanOrEqual(anew.score + 0.05 + 1e-9)
        if (carried.score !== anew.score) stayed++
      }), // prettier-ignore
      { numRuns: 12 },
    )
    expect(stayed).toBeGreaterThan(3)
  })

  it('is let go where the maker asks for another: another seed, gap or turn, sheets of their own, a pin that is taken out', () => {
    const seeds = setPlan(project, { layoutSeeds: { [stock[0]!.id]: 4 } })
    for (const change of [
      seeds,
      setPlan(project, { gapMm: 3 }),
      setPlan(project, { turns: 'fixed' }),
      setLayer(project, 'l1', { sharing: 'own-sheets' }),
      // Most of it is another.
      transformLayers(project, [1.1, 0, 0, 1.1, 0, 0], ['l0', 'l1', 'l2', 'l3', 'l4']),
    ])
      expect(changed(project, change, found).layout).toEqual(laid(change).layout)
    const nested = laid(project)
    const place = { ...nested.layout.placements[0]!, sheet: 3, x: 60, y: 60, rotation: 0 }
    const put = putPieces(project, { nested, places: [place] })
    if (!put.ok) throw new Error('this place is free')
    const pinned = pinAll(project, put.pins)
    const freed = dropPin(pinned, put.pins[0]!)
    expect(changed(pinned, freed, [put.found]).layout).toEqual(nested.layout)
    // What is pinned stays pinned, whatever else changes.
    const smaller = scaleParts(pinned, [put.pins[0]!.layerId === 'l8' ? 'l7' : 'l8'], 0.97)
    const there = changed(pinned, smaller, [put.found]).layout.placements.find(({ sheet }) => sheet === 3)
    expect(there).toMatchObject({ x: expect.closeTo(60, 6), y: expect.closeTo(60, 6) })
  })
})
