import { describe, expect, it } from 'vitest'
import { demo } from '../../demo'
import { results } from '../../../test/results'
import {
  driedOff,
  letDry,
  starterSupplies,
  stillToCut,
  cutLayers,
  tickTaking,
  untickAll,
  type Project,
} from '../../project'
import { freezeSheets, sheetOf } from '../sheets'
import { afterMishap, MISHAPS, mishapsOf, rescueFor, type Step } from './index'

/** A harbour that is cut, and built up to a layer. */
function builtTo(name: string): { project: Project; steps: Step[]; at: Step } {
  const { project, steps } = (cutOut ??= cut())
  const layer = project.layers.find((one) => one.name === name)!
  const at = steps.find(({ kind, layerId }) => kind === 'lay' && layerId === layer.id)!
  const held = steps
    .slice(0, steps.indexOf(at) + 1)
    .reduce((now, { id, takes = [] }) => tickTaking(now, id, { done: true, foams: takes }), {
      project,
      supplies: starterSupplies(),
    })
  return { project: held.project, steps, at }
}

/** Cut once for all tests: what is done with it makes another project. */
let cutOut: ReturnType<typeof cut> | undefined

function cut(): { project: Project; steps: Step[] } {
  const fresh = demo('harbour')
  const plan = results(fresh)
  const stock = fresh.drawer.papers
  const sheets = plan.loads.map((load) => sheetOf(fresh, load, { stock }))
  const { project } = freezeSheets({ project: fresh, stock }, { sheets, runs: plan.runs, kept: [], at: 1 })
  return { project, steps: results(project).assembly.steps }
}

describe('something went wrong', () => {
  it('every mishap of every step has something to say', () => {
    const { project, steps } = builtTo('Open sea')
    for (const step of steps)
      for (const mishap of mishapsOf(step))
        expect(rescueFor(project, steps, { step, mishap }).save.join(' ').length, `${step.id} ${mishap}`).toBeGreaterThan(60) // prettier-ignore
    expect(new Set(steps.flatMap(mishapsOf))).toEqual(new Set(MISHAPS))
  })

  it('takes back what is stuck on a layer, the last first, and nothing that is beneath it', () => {
    const { project, steps } = builtTo('Swell')
    const under = project.layers.find(({ name }) => name === 'Far hills')!
    const step = steps.find(({ kind, layerId }) => kind === 'lay' && layerId === under.id)!
    const { undo } = rescueFor(project, steps, { step, mishap: 'torn' })
    const names = (kind: string) =>
      undo.filter((one) => one.kind === kind).map(({ layerId }) => project.layers.find(({ id }) => id === layerId)!.name) // prettier-ignore
    expect(names('lay')).toEqual(['Swell', 'Open sea', 'Headland light', 'Far hills'])
    expect(names('pad')).toEqual(['Far hills'])
  })

  it('cuts the torn piece again, uses up its foam, and goes on from there', () => {
    const { project, steps, at } = builtTo('Open sea')
    const layer = cutLayers(project).find(({ id }) => id === at.layerId)!
    const piece = layer.layer.pieces[0]!
    expect(stillToCut(project)(layer, piece)).toBe(0)
    const supplies = starterSupplies()
    const mended = afterMishap({ project, supplies }, steps, {
      step: at,
      mishap: 'torn',
      pieceIds: [piece.id],
    })
    expect(mended.recut).toBe(1)
    expect(stillToCut(mended.project)(layer, piece)).toBe(1)
    expect(mended.project.progress.done).not.toContain(at.id)
    const after = results(mended.project)
    // One sheet more, with that piece alone.
    expect(
      after.loads.flatMap(({ pieces }) => pieces.map(({ layerId, pieceId }) => [layerId, pieceId])),
    ).toEqual([[layer.id, piece.id]])
    const { assembly } = after
    const open = assembly.steps.filter(({ id }) => !mended.project.progress.done.includes(id))
    expect(open[0]!.kind).toBe('cut')
    // Its pads were stuck and are spent; done again the step takes as many more.
    const pad = steps.find(({ kind, layerId }) => kind === 'pad' && layerId === layer.id)!
    const count = (one: Project) =>
      one.progress.took.filter(({ stepId }) => stepId.startsWith(pad.id)).flatMap(({ foams }) => foams).reduce((n, foam) => n + foam.count, 0) // prettier-ignore
    const again = tickTaking({ project: mended.project, supplies }, pad.id, { done: true, foams: pad.takes! })
    expect(count(again.project)).toBe(2 * count(project))
  })

  it('stops the clocks of what comes off, and no other', () => {
    const { project, steps, at } = builtTo('Open sea')
    const beneath = steps.find(({ kind, layerId }) => kind === 'lay' && layerId !== at.layerId)!
    const drying = [at, beneath].reduce(
      (now, { id, title }) => letDry(now, { stepId: id, title, endsAt: 9 }),
      project,
    )
    const held = { project: drying, supplies: starterSupplies() }
    const clocks = (mishap: 'stuck askew' | 'glue shows') =>
      afterMishap(held, steps, { step: at, mishap, pieceIds: [] }).project.progress.drying.map(
        ({ stepId }) => stepId,
      )
    expect(clocks('stuck askew')).toEqual([beneath.id])
    expect(clocks('glue shows')).toEqual([at.id, beneath.id])
  })

  it('has a piece cut again that was cut with another project', () => {
    const fresh = demo('harbour')
    const layer = fresh.layers.find(({ name }) => name === 'Open sea')!
    const { id: pieceId, path } = layer.pieces[0]!
    const paper = fresh.drawer.papers.find(({ id }) => id === layer.paperId)!
    const pieces = [{ layerId: layer.id, pieceId, layerName: layer.name, path }]
    const project: Project = {
      ...fresh,
      cutElsewhere: [{ projectId: 'host', name: 'Host', sheets: [{ paper, pieces }], spoilt: [] }],
    }
    const steps = results(project).assembly.steps
    const step = steps.find(({ kind, layerId }) => kind === 'lay' && layerId === layer.id)!
    const toCut = (one: Project) => results(one).loads.flatMap((load) => load.pieces.filter((piece) => piece.layerId === layer.id)).length // prettier-ignore
    expect(toCut(project)).toBe(layer.pieces.length - 1)
    const held = { project, supplies: starterSupplies() }
    const mended = afterMishap(held, steps, { step, mishap: 'torn', pieceIds: [pieceId] })
    expect(mended.recut).toBe(1)
    expect(toCut(mended.project)).toBe(layer.pieces.length)
    // There was one of them alone.
    expect(afterMishap({ ...held, project: mended.project }, steps, { step, mishap: 'torn', pieceIds: [pieceId] }).recut).toBe(0) // prettier-ignore
  })

  it('leaves foam that was stuck spent when all ticks are taken back', () => {
    const { project, steps, at } = builtTo('Open sea')
    const full = starterSupplies()
    const taken = (one: Project) => one.progress.took.flatMap(({ foams }) => foams).reduce((n, { count }) => n + count, 0) // prettier-ignore
    const mended = afterMishap({ project, supplies: full }, steps, { step: at, mishap: 'torn', pieceIds: [] }) // prettier-ignore
    const pads = mended.project.progress.took.filter(({ stepId }) => / spent 1$/.test(stepId))
    expect(pads.length).toBeGreaterThan(0)
    const back = untickAll(mended)
    expect(back.project.progress.took).toEqual(pads)
    const inDrawer = ({ foams }: typeof full) => foams.reduce((n, { count }) => n + count, 0)
    expect(inDrawer(back.supplies)).toBe(inDrawer(full) + taken(project) - taken(back.project))
  })

  it('says that a foam ran out, and takes nothing back', () => {
    const { project, steps } = builtTo('Open sea')
    const step = steps.find(({ kind }) => kind === 'pad')!
    const foamId = step.takes![0]!.foamId
    const { project: next, supplies } = afterMishap({ project, supplies: starterSupplies() }, steps, {
      step,
      mishap: 'foam ran out',
      pieceIds: [],
      foamIds: [foamId],
    })
    expect(supplies.foams.find(({ id }) => id === foamId)!.count).toBe(0)
    expect(next.drawer.foams.find(({ id }) => id === foamId)!.count).toBe(0)
    expect(next.progress.done).toEqual(project.progress.done)
  })
})

describe('what dries', () => {
  it('is noted until it is dry, once a step', () => {
    const project = demo('bon-voyage')
    const drying = letDry(letDry(project, { stepId: 'hold-a', title: 'A', endsAt: 5 }), { stepId: 'hold-a', title: 'A', endsAt: 9 }) // prettier-ignore
    expect(drying.progress.drying).toEqual([{ stepId: 'hold-a', title: 'A', endsAt: 9 }])
    const dry = driedOff(drying, 'hold-a', true)
    expect(dry.progress).toMatchObject({ drying: [], done: ['hold-a'] })
    expect(driedOff(drying, 'hold-a', false).progress).toMatchObject({ drying: [], done: [] })
  })
})
