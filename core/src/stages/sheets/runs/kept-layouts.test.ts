// What lies on the sheets stays there when layers are moved in the picture, and what was found for it is found again.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../../test/stack'
import { Cache } from '../../../base'
import { mapPolygon, rotation, type Polygon } from '../../../base/geometry'
import { demo } from '../../../demo'
import { Planner } from '../../../planner'
import { assignPaper, moveParts, setLayer, setPlan, turnParts, type Project } from '../../../project'
import { nodes } from '../../index'
import { splitOff } from '../../layers'
import { starterStock } from '../../paper'
import { pinAll, putPieces } from '../hand'
import { freezeSheets, sheetOf } from '../frozen'
import type { NestLayout, Placement } from '../nest/instance'
import { keptLayout } from './kept-layouts'
import { formerRunName } from './names'
import type { NestedRun } from './paper-runs'

const stock = starterStock().slice(0, 1)

/** Runs and loads as a browser that was just opened computes them. */
function laid(project: Project, found: readonly (readonly [string, NestLayout])[] = []) {
  const planner = new Planner(new Cache())
  planner.update({ project, stock, found: new Map(found) })
  return { runs: planner.get(nodes.nested()), loads: planner.get(nodes.loads()) }
}

const placedAt = ({ x, y, rotation: turn }: Placement, shape: Polygon): number[] => {
  const [cos, sin] = rotation(turn)
  const { outer } = mapPolygon([cos, sin, -sin, cos, x, y], shape)
  return [...outer].map((v) => Math.round(v * 1e4) / 1e4 + 0)
}

/** Every piece of every sheet where it lies, mm. */
const onSheets = ({ runs }: { runs: readonly NestedRun[] }) =>
  runs.map(({ run, layout }) => {
    const shapes = new Map(run.instance.pieces.map(({ id, shape }) => [id, shape]))
    return layout.placements.map((place) => [
      place.id,
      place.copy,
      place.sheet,
      placedAt(place, shapes.get(place.id)!),
    ])
  })

const small = (): Project => {
  const bare = stack(
    'free',
    plate('a', 0, [0, 0, 90, 70], [100, 0, 33, 21]),
    plate('b', 0, [7.125, 3, 51.3, 40], [80, 80, 12, 64.021]),
  )
  return assignPaper(setPlan(bare, { batch: 3 }), ['a', 'b'], { paper: stock[0]!, stock })
}

describe('layers that are moved in the picture', () => {
  it('lie on their sheets as they lay, to the last digit', () => {
    const project = demo('dune-garden')
    const before = laid(project)
    const ids = project.layers.map(({ id }) => id)
    // A move by more digits than outlines have, as of a hand or of sixteenths of an inch.
    const moved = moveParts(moveParts(project, ids, [1.5875, -38.1]), [ids[2]!], [-0.123456, 2.7182818])
    const after = laid(moved)
    expect(after.runs.map(({ run }) => run.fingerprint)).toEqual(
      before.runs.map(({ run }) => run.fingerprint),
    )
    expect(onSheets(after)).toEqual(onSheets(before))
  })

  it('stay where they are pinned, however turned, and keep what was found for them', () => {
    const project = small()
    const { runs } = laid(project)
    const [nested] = runs as [NestedRun]
    let held = 0
    fc.assert(
      fc.property(
        fc.double({ min: -300, max: 300, noNaN: true }),
        fc.double({ min: -300, max: 300, noNaN: true }),
        fc.integer({ min: 0, max: 359 }),
        (dx, dy, turn) => {
          const place = { ...nested.layout.placements.at(-1)!, sheet: 5, x: 150, y: 150, rotation: turn }
          const put = putPieces(project, { nested, places: [place] })
          if (!put.ok) return
          held++
          const pinned = pinAll(project, put.pins)
          const found = [put.found] as const
          const { layerId } = put.pins[0]!
          const moved = moveParts(pinned, [layerId], [dx, dy])
          expect(onSheets(laid(moved, found))).toEqual(onSheets(laid(pinned, found)))
          expect(onSheets(laid(moved, found))[0]!.find(([, , sheet]) => sheet === 5)).toBeDefined()
          // Undone or moved back, the pin holds it where it did.
          expect(moveParts(moved, [layerId], [-dx, -dy]).plan.pins[0]!.x).toBeCloseTo(put.pins[0]!.x, 6)
          expect(turnParts(pinned, [layerId], 30).plan.pins).toEqual([])
        },
      ),
      { numRuns: 15 },
    )
    expect(held).toBeGreaterThan(5)
  })

  it('keep what a longer search found; under its name of before it is found too', () => {
    const project = small()
    const [nested] = laid(project).runs as [NestedRun]
    const better = { ...nested.layout, score: -1 }
    const moved = moveParts(project, ['b'], [10, 20])
    const [there] = laid(moved, [keptLayout({ ...nested, layout: better })]).runs
    expect(there!.layout.score).toBe(-1)
    const former = formerRunName(nested.run, new Cache().memo)
    expect(laid(project, [[former, better]]).runs[0]!.layout).toEqual(better)
    expect(laid(moved, [[former, better]]).runs[0]!.layout.score).not.toBe(-1)
  })

  it('are laid anew where their shapes or what is asked of them change', () => {
    const project = small()
    const nameOf = (p: Project) => laid(p).runs[0]!.run.fingerprint
    const others = [
      turnParts(project, ['a'], 30),
      setPlan(project, { gapMm: 7 }),
      setPlan(project, { batch: 2 }),
      setLayer(project, 'a', { copies: 2 }),
      setLayer(project, 'a', { sharing: 'one-sheet' }),
      setPlan(project, { layoutSeeds: { [stock[0]!.id]: 2 } }),
      setPlan(project, { turns: project.plan.turns === 'free' ? 'fixed' : 'free' }),
    ].map(nameOf)
    expect(new Set([nameOf(project), ...others]).size).toBe(others.length + 1)
  })

  it('leave the other sheets as they lie once all of them is cut, whatever is done to them that asks for nothing', () => {
    const project = setLayer(small(), 'b', { sharing: 'own-sheets' })
    const { runs, loads } = laid(project)
    const own = loads.filter(({ pieces }) => pieces.every(({ layerId }) => layerId === 'b'))
    const sheets = own.map((load) => sheetOf(project, load, { stock }))
    const cut = freezeSheets({ project, stock }, { sheets, runs, kept: [], at: 1 })
    const left = laid(cut.project, cut.found)
    expect(left.runs[0]!.run.instance.pieces.map(({ id }) => id)).toEqual(['a/p1', 'a/p2'])
    const others = [moveParts(cut.project, ['b'], [5, 5]), turnParts(cut.project, ['b'], 40), splitOff(cut.project, 'b', ['p2'])] // prettier-ignore
    for (const after of others) {
      const there = laid(after, cut.found)
      expect(there.runs[0]!.run.fingerprint).toBe(left.runs[0]!.run.fingerprint)
      expect(onSheets(there)).toEqual(onSheets(left))
    }
  })
})
