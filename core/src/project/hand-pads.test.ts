import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../test/stack'
import { keepPadFree, letPadGo, padsToPlan, putPad } from './hand-pads'
import { transformLayers } from './edit'
import type { HandPad, Project } from './schema'

const pad = (id: string, layerId = 'a', more: Partial<HandPad> = {}): HandPad => ({
  id,
  layerId,
  pieceId: 'p1',
  x: 20,
  y: 30,
  rotation: 15,
  bendMm: null,
  foamIds: ['foam'],
  ...more,
})

const project = stack('frame', plate('a', 2, [0, 0, 80, 80]), plate('b', 2, [0, 0, 80, 80]))
const withPads = (...pads: HandPad[]): Project => pads.reduce(putPad, project)
const onlyPad = ({ plan }: Project): HandPad => {
  expect(plan.handPads).toHaveLength(1)
  return plan.handPads[0]!
}

describe('pads that the maker puts', () => {
  it('are put once, and moved where they were put before', () => {
    const moved = putPad(withPads(pad('1'), pad('2')), pad('1', 'a', { x: 50 }))
    expect(moved.plan.handPads.map(({ id, x }) => [id, x])).toEqual([
      ['2', 20],
      ['1', 50],
    ])
    expect(letPadGo(moved, '2').plan.handPads.map(({ id }) => id)).toEqual(['1'])
    expect(letPadGo(moved, 'none').plan.handPads).toHaveLength(2)
  })

  it('are forgotten with the spots of their layer, and of no other', () => {
    const spot = (layerId: string) => ({ layerId, x: 1, y: 2, radiusMm: 3 })
    const all = keepPadFree(keepPadFree(withPads(pad('1'), pad('2', 'b')), spot('a')), spot('b'))
    const { plan } = padsToPlan(all, 'a')
    expect(plan.handPads.map(({ id }) => id)).toEqual(['2'])
    expect(plan.padFree.map(({ layerId }) => layerId)).toEqual(['b'])
  })

  it('go along with their layer, and with no other', () => {
    const both = withPads(pad('1'), pad('2', 'b'))
    const { plan } = transformLayers(both, [1, 0, 0, 1, 5, -7], ['a'])
    expect(plan.handPads).toEqual([pad('1', 'a', { x: 25, y: 23, rotation: expect.closeTo(15, 9) as number }), pad('2', 'b')]) // prettier-ignore
  })

  it('turn with it', () => {
    // A quarter clockwise on screen.
    const turned = onlyPad(transformLayers(withPads(pad('1')), [0, 1, -1, 0, 100, 0], ['a']))
    expect(turned).toMatchObject({ x: 70, y: 20 })
    expect(turned.rotation).toBeCloseTo(105, 9)
  })

  it('are bent to their other side when it is mirrored, and wider when it is made larger', () => {
    const bent = withPads(pad('1', 'a', { bendMm: 40 }))
    const mirrored = onlyPad(transformLayers(bent, [-1, 0, 0, 1, 100, 0], ['a']))
    expect(mirrored).toMatchObject({ x: 80, y: 30 })
    expect(mirrored.bendMm).toBeCloseTo(-40, 9)
    expect(mirrored.rotation).toBeCloseTo(165, 9)
    expect(onlyPad(transformLayers(bent, [1.5, 0, 0, 1.5, 0, 0], ['a'])).bendMm).toBeCloseTo(60, 9)
  })
})
