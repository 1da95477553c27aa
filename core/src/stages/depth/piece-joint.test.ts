import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { wordsIn } from '../../base/units'
import { mendProject } from '../mend'
import {
  setLayer,
  setPieceFoam,
  setPieceJoint,
  starterMount,
  starterSupplies,
  withoutSupply,
  type FrameMount,
  type Project,
} from '../../project'
import { fitGaps } from './fit'

const UNDER = plate('under', 0, [0, 0, 160, 100])
/** Two cards on 2 mm of foam beside each other, one small card over both of them in turn. */
const project = stack(
  'free',
  UNDER,
  plate('wings', 2, [10, 10, 60, 60], [80, 10, 60, 60]),
  plate('bud', 0, [20, 20, 30, 30]),
  plate('leaf', 0, [95, 20, 30, 30]),
)
const [left, right] = project.layers[1]!.pieces.map(({ id }) => id) as [string, string]
const glue = (name: string) => project.drawer.adhesives.find((one) => one.name.includes(name))!
const [tacky, tape] = [glue('tacky'), glue('tape')]
const heightOf = (of: Project, layerId: string, k = 0) =>
  results(of).depth.pieces.filter((piece) => piece.layer.id === layerId)[k]!
const flat = setPieceJoint(project, { layerId: 'wings', pieceIds: [left] }, null)

describe('a piece that is held otherwise than its layer', () => {
  it('lies on what is beneath, and what lies on it comes down with it', () => {
    const thickness = heightOf(project, 'under').topMm
    expect(heightOf(project, 'wings', 0).bottomMm).toBeCloseTo(thickness + 2, 6)
    expect(heightOf(flat, 'wings', 0).bottomMm).toBeCloseTo(thickness + tacky.thicknessMm, 6)
    expect(heightOf(flat, 'wings', 1).bottomMm).toBeCloseTo(thickness + 2, 6)
    const down = 2 - tacky.thicknessMm
    expect(heightOf(flat, 'bud').bottomMm).toBeCloseTo(heightOf(project, 'bud').bottomMm - down, 6)
    expect(heightOf(flat, 'leaf').bottomMm).toBeCloseTo(heightOf(project, 'leaf').bottomMm, 6)
  })

  it('has no pads and takes glue; the others keep theirs', () => {
    const padsOf = (of: Project, pieceId: string) =>
      results(of)
        .depth.pads.filter((pad) => pad.pieceId === pieceId)
        .map(({ x, y, foamIds }) => [x, y, ...foamIds])
    expect(padsOf(project, left).length).toBeGreaterThan(0)
    expect(padsOf(flat, left)).toEqual([])
    expect(padsOf(flat, right)).toEqual(padsOf(project, right))
    const own = results(flat).glue.find(({ layerId }) => layerId === 'wings')!
    expect(own.ml).toBeGreaterThan(0)
    // Only under that piece: 60 mm less a rim all round.
    expect(own.zone.flatMap(({ outer }) => [...outer]).every((v) => v < 70)).toBe(true)
    expect(results(project).glue.some(({ layerId }) => layerId === 'wings')).toBe(false)
  })

  it('is told at the step, which waits for its glue, and is no snag', () => {
    const { steps } = results(flat).assembly
    const step = steps.find(({ id }) => id === 'lay-wings')!
    expect(wordsIn(step.detail, 'mm')).toContain(
      `1 piece of it goes flat on what is beneath, with ${tacky.name}.`,
    )
    expect(steps.find(({ id }) => id === 'hold-wings')!.minutes).toBe(tacky.handleMin)
    expect(results(flat).snags.map(({ code }) => code)).toEqual(
      results(project).snags.map(({ code }) => code),
    )
  })

  it('may have a glue of its own, which is counted apart, in time and in cost', () => {
    const mixed = setPieceJoint(setLayer(project, 'wings', plate('wings', 0, [10, 10, 60, 60], [80, 10, 60, 60])), { layerId: 'wings', pieceIds: [right] }, tape.id) // prettier-ignore
    const own = results(mixed).glue.find(({ layerId }) => layerId === 'wings')!
    expect(own.mlOf.map(({ adhesiveId }) => adhesiveId)).toEqual([tacky.id, tape.id])
    expect(own.mlOf[0]!.ml).toBeCloseTo(own.mlOf[1]!.ml, 6)
    expect(own.ml).toBeCloseTo(own.mlOf[0]!.ml * 2, 6)
    // Each lies as high as its own glue is thick.
    expect(heightOf(mixed, 'wings', 1).bottomMm - heightOf(mixed, 'wings', 0).bottomMm).toBeCloseTo(
      tape.thicknessMm - tacky.thicknessMm,
      6,
    )
    const step = results(mixed).assembly.steps.find(({ id }) => id === 'glue-wings')!
    expect(wordsIn(step.detail, 'mm')).toContain(`1 of them with ${tape.name}`)
    const lines = results(mixed).cost.lines.filter(({ kind }) => kind === 'glue')
    expect(lines.map(({ what }) => what)).toEqual(expect.arrayContaining([tacky.name, tape.name]))
    // A glue that is taken out of the drawer is named by nobody.
    const without = withoutSupply({ project: mixed, supplies: starterSupplies() }, tape.id).project
    expect(without.layers[1]!.joint.pieces).toEqual([{ pieceId: right, adhesiveId: null }])
  })

  it('goes back to its layer, and nothing is kept of pieces that are gone', () => {
    expect(setPieceJoint(flat, { layerId: 'wings', pieceIds: [left] }, undefined).layers[1]!.joint).toEqual(
      project.layers[1]!.joint,
    )
    const gone = setLayer(flat, 'wings', { pieces: project.layers[1]!.pieces.slice(1) })
    const again = setPieceJoint(gone, { layerId: 'wings', pieceIds: [right] }, tape.id)
    expect(again.layers[1]!.joint.pieces).toEqual([{ pieceId: right, adhesiveId: tape.id }])
    expect(setPieceJoint(project, { layerId: 'none', pieceIds: [left] }, null)).toBe(project)
  })

  it('mends what is too narrow for a pad, one piece and not the whole layer', () => {
    const narrow = stack('free', UNDER, plate('wings', 2, [10, 10, 60, 60], [100, 10, 0.8, 60]))
    const snag = results(narrow).snags.find(({ code }) => code === 'some-without-pads')!
    expect(snag.mend!.label).toBe('Glue that piece')
    const mended = mendProject(narrow, snag.mend!.action, [])
    expect(results(mended).snags.some(({ code }) => code === 'some-without-pads')).toBe(false)
    expect(mended.layers[1]!.joint.kind).toBe('foam')
    expect(heightOf(mended, 'wings', 1).bottomMm).toBeCloseTo(heightOf(narrow, 'wings', 1).bottomMm, 6)
  })
})

describe('a piece on foam of its own', () => {
  const doubled = setPieceFoam(project, { layerId: 'wings', pieceIds: [left] }, 4)

  it('stands so high, on pads of that height, and lifts what lies on it; the others stay', () => {
    const card = heightOf(project, 'under').topMm
    expect(heightOf(doubled, 'wings', 0).bottomMm).toBeCloseTo(card + 4, 6)
    expect(heightOf(doubled, 'wings', 1).bottomMm).toBeCloseTo(card + 2, 6)
    expect(heightOf(doubled, 'bud').bottomMm - heightOf(project, 'bud').bottomMm).toBeCloseTo(2, 6)
    const { pads } = results(doubled).depth
    const heights = (id: string) =>
      new Set(pads.flatMap((pad) => (pad.pieceId === id ? [pad.thicknessMm] : [])))
    expect([...heights(left)]).toEqual([4])
    expect([...heights(right)]).toEqual([2])
  })

  it('may be one of a glued layer: it alone has pads, the others glue', () => {
    const glued = setPieceFoam(
      setLayer(project, 'wings', { joint: { kind: 'glue', gapMm: 0, pinned: false } }),
      { layerId: 'wings', pieceIds: [right] },
      3,
    )
    const { depth, glue, assembly } = results(glued)
    expect(heightOf(glued, 'wings', 0).bottomMm).toBeCloseTo(heightOf(project, 'under').topMm, 6)
    expect(heightOf(glued, 'wings', 1).bottomMm).toBeCloseTo(heightOf(project, 'under').topMm + 3, 6)
    expect(
      new Set(depth.pads.filter(({ layerId }) => layerId === 'wings').map(({ pieceId }) => pieceId)),
    ).toEqual(new Set([right]))
    const own = glue.find(({ layerId }) => layerId === 'wings')!
    expect(own.zone.flatMap(({ outer }) => [...outer]).every((v) => v < 75)).toBe(true)
    const [pad, lay] = ['pad-wings', 'glue-wings'].map((id) => assembly.steps.find((step) => step.id === id)!)
    expect(pad!.endMin).toBeLessThanOrEqual(lay!.startMin)
    expect(wordsIn(lay!.detail, 'mm')).toContain('1 part')
    expect(wordsIn(lay!.detail, 'mm')).toContain('1 piece of it has its pads in place of glue')
  })

  it('keeps its foam when gaps are fitted, and is told where no foam makes it', () => {
    const fitted = fitGaps({ ...doubled, mount: { ...starterMount('frame') } })
    expect(fitted.layers[1]!.joint.pieces).toEqual(doubled.layers[1]!.joint.pieces)
    const odd = setPieceFoam(project, { layerId: 'wings', pieceIds: [left] }, 47)
    const snag = results(odd).snags.find(({ code }) => code === 'no-foam-of-height')!
    expect(wordsIn(snag.message, 'mm')).toContain('47')
    expect(mendProject(odd, snag.mend!.action, []).layers[1]!.joint.pieces).toEqual([
      { pieceId: left, adhesiveId: null },
    ])
    expect(setPieceFoam(project, { layerId: 'none', pieceIds: [left] }, 4)).toBe(project)
  })
})

describe('gaps that are fitted', () => {
  it('leave alone what is glued flat: it adds nothing to the height', () => {
    // Only the piece that is glued flat carries the bud.
    const high = stack('frame', UNDER, plate('wings', 2, [10, 10, 60, 60], [80, 10, 20, 20]), plate('bud', 2, [20, 20, 30, 30])) // prettier-ignore
    const [first] = high.layers[1]!.pieces
    const down = setPieceJoint(high, { layerId: 'wings', pieceIds: [first!.id] }, null)
    const room = (of: Project) => ({
      ...of,
      mount: { ...(of.mount as FrameMount), depthMm: 9, clearanceMm: 2 },
    })
    const bud = (of: Project) => fitGaps(room(of)).layers[2]!.joint.gapMm
    expect(bud(down)).toBeGreaterThan(bud(high))
    expect(results(fitGaps(room(down))).depth.stackMm).toBeLessThanOrEqual(7 + 1e-9)
  })
})
