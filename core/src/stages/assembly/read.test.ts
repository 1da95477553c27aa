// The plan of every demo, read at the table: every piece is in a step, and nothing is asked for that is not there.
import { describe, expect, it } from 'vitest'
import { pathToRegion, regionBox } from '../../base/geometry'
import { wordsIn } from '../../base/units'
import { demo, demoNames } from '../../demo'
import { builtLayers, isOnPane, isStandOff, layerBox, setPlan, takeAlong, type Project } from '../../project'
import { results } from '../../../test/results'
import { flagsOf } from '../layers'
import { freezeSheets, sheetOf } from '../sheets'

const says = (project: Project) => {
  const all = results(project)
  const steps = all.assembly.steps.map((step) => ({ ...step, words: wordsIn(step.detail, project.unit) }))
  return { ...all, steps }
}

describe.each(demoNames)('%s, read at the table', (name) => {
  const project = demo(name)
  const { steps, depth, glue, loads } = says(project)
  const layers = builtLayers(project)

  it('lays ready just the pads that it takes of the drawer', () => {
    const taken = depth.foamUse.reduce((sum, { needed }) => sum + needed, 0)
    const ready = /(\d+) foam pad/.exec(steps[0]!.words)
    expect(Number(ready?.[1] ?? 0)).toBe(taken)
  })

  it('has every layer in one step that puts it where it stays, and every piece held', () => {
    for (const layer of layers) {
      const own = steps.filter(
        ({ layerId, kind, id }) =>
          layerId === layer.id &&
          // With its hindmost layer a part is begun on the bench, and taken up.
          !id.startsWith('begin-') &&
          (['lay', 'glue', 'press'].includes(kind) ||
            id.startsWith('flag-') ||
            (kind === 'mount' && !id.startsWith('flag-'))),
      )
      const flags = flagsOf(project).filter((flag) => flag.layer === layer)
      if (isStandOff(layer)) continue
      expect(own.length, layer.name).toBe(Math.max(1, flags.length))
      if (layer.joint.kind !== 'foam' || isOnPane(layer)) continue
      const held = depth.layers.find(({ layerId }) => layerId === layer.id)!
      const padded = new Set(
        depth.pads.filter(({ layerId }) => layerId === layer.id).map(({ pieceId }) => pieceId),
      )
      for (const { id } of layer.pieces)
        expect(padded.has(id) || held.glued.includes(id), layer.name).toBe(true)
    }
    for (const { layerId, bare, dots, beads, coat } of glue) {
      expect(bare, layerId).toEqual([])
      expect(dots.length + beads.length + coat.length, layerId).toBeGreaterThan(0)
    }
  })

  it('is written in whole sentences, without a gap or a figure that is none', () => {
    for (const { title, words, caution } of steps)
      for (const text of [title, words, caution ?? 'Good.']) {
        expect(text).not.toMatch(/undefined|null|NaN|Infinity| {2}|\.\.|\s[.,;]/)
        expect(text).toMatch(/^[A-Z0-9“]/)
        if (text !== title) {
          expect(text).toMatch(/[.]$/)
          expect(text, text).not.toMatch(/[.!?] [a-z]/)
        }
      }
  })

  it('asks for a corner jig where a corner can lie in it, for a number where none is drawn, for a film as it is', () => {
    const [back] = layers
    const under = layerBox(back!)
    for (const { words, layerId, kind, loadId } of steps) {
      const layer = layers.find(({ id }) => id === layerId)
      if (words.includes('corner jig'))
        expect(
          layer!.pieces.some(({ path }) => {
            const box = regionBox(pathToRegion(path))
            return Math.abs(box.minX - under.minX) < 1.01 && Math.abs(box.maxY - under.maxY) < 1.01
          }),
          layer!.name,
        ).toBe(true)
      if (kind !== 'weed') continue
      const load = loads.find(({ id }) => id === loadId)!
      if (words.includes('Write the folio'))
        expect(load.pieces.every(({ marks }) => marks.number.length > 0)).toBe(false)
      if (load.pieces.some(({ layerId: id }) => layers.some((l) => l.id === id && isOnPane(l))))
        expect(words).not.toContain('loose bit')
    }
  })

  it('lets wet glue dry before the work stands up', () => {
    const mount = steps.find(({ id }) => id === 'mount')
    const close = steps.find(({ kind }) => kind === 'close')
    if (!mount || project.mount.kind === 'topper' || !/glue/i.test(mount.words)) return
    const dry = steps.find(({ id }) => id === 'dry-mount')!
    expect(dry.startMin).toBeGreaterThanOrEqual(mount.endMin - 1e-9)
    if (close) expect(close.startMin).toBeGreaterThanOrEqual(dry.endMin - 1e-9)
  })
})

describe('sheets that are shared', () => {
  it('say whose pieces are put aside when they are weeded', () => {
    const host = takeAlong(demo('tide-rose'), demo('bon-voyage'))
    const { steps } = says(host)
    const weeds = steps.filter(({ kind }) => kind === 'weed').map(({ words }) => words)
    expect(weeds.join(' ')).toContain('of “Bon voyage”')
    const { steps: alone } = says(demo('tide-rose'))
    expect(alone.map(({ words }) => words).join(' ')).not.toContain('Put aside')
  })

  it('ask and cost the same once they are cut', () => {
    const project = demo('harbour')
    const before = says(project)
    const { loads, runs } = before
    const stock = project.drawer.papers
    const sheets = loads.map((load) => sheetOf(project, load, { stock }))
    const { project: cut } = freezeSheets({ project, stock }, { sheets, runs, kept: [], at: 1 })
    expect(cut.cut).toHaveLength(before.loads.length)
    const after = says(cut)
    const weeding = ({ steps }: typeof before) =>
      steps.filter(({ kind }) => kind === 'weed').map(({ words }) => words.split('.').at(-2))
    expect(weeding(after).some((words) => words?.includes('Write'))).toBe(false)
    const wear = ({ cost }: typeof before) =>
      cost.lines.filter(({ kind }) => ['blade', 'mat', 'machine'].includes(kind)).map((line) => line.cost)
    wear(after).forEach((cost, k) => expect(cost).toBeCloseTo(wear(before)[k]!, 6))
  })

  it('tell to write a number that is not drawn', () => {
    const { steps } = says(setPlan(demo('harbour'), { numbers: 'none' }))
    const weeds = steps.filter(({ kind }) => kind === 'weed').map(({ words }) => words)
    expect(weeds.filter((words) => words.includes('Write the folio')).length).toBeGreaterThan(3)
  })
})
