// Ornaments that lie beside each other on one sheet: neither waits for the other.
import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { setPlan, tickStep, type MountKind, type Project } from '../../project'
import { rescueFor } from './mishap'
import { moveStep, waitsFor } from './order'

/** A sheet with two towers of two layers each, and a bridge over both. */
const towers = (kind: MountKind = 'card', bridge = true): Project =>
  stack(
    kind,
    plate('sheet', 0, [0, 0, 120, 80]),
    plate('left', 0, [5, 5, 40, 60]),
    plate('left-roof', 2, [10, 10, 30, 30]),
    plate('right', 0, [75, 5, 40, 60]),
    plate('right-roof', 2, [80, 10, 30, 30]),
    ...(bridge ? [plate('bridge', 2, [20, 20, 80, 8])] : []),
  )

const stepsOf = (project: Project) => results(project).assembly.steps

describe('what lies side by side', () => {
  const project = towers()
  const steps = stepsOf(project)
  const at = (id: string) => steps.find((step) => step.id === id)!
  const waits = (id: string, before: string) => waitsFor(steps, id).has(before)

  it('waits for what carries it and not for its neighbour; what lies over both waits for both', () => {
    expect(waits('glue-right', 'lay-sheet')).toBe(true)
    for (const id of ['glue-left', 'hold-left', 'lay-left-roof']) expect(waits('glue-right', id)).toBe(false)
    expect(waits('lay-right-roof', 'hold-left')).toBe(false)
    for (const roof of ['lay-left-roof', 'lay-right-roof']) expect(waits('lay-bridge', roof)).toBe(true)
    expect(at('lay-bridge').onto!.toSorted()).toEqual(['left-roof', 'right-roof', 'sheet'])
    expect(at('glue-left').onto).toEqual(['sheet'])
    // While one joint takes hold the hands go on at the other.
    const [left, right] = [at('hold-left'), at('glue-right')]
    expect(right.startMin).toBeLessThan(left.endMin)
  })

  it('changes places when the maker wants it, within what carries what', () => {
    const order = (of: Project) => stepsOf(of).filter(({ kind }) => kind === 'glue').map(({ id }) => id) // prettier-ignore
    expect(order(project)).toEqual(['glue-left', 'glue-right'])
    const moved = moveStep(project, steps, { id: 'glue-right', way: 'earlier' })
    expect(moved.ok && order(moved.project)).toEqual(['glue-right', 'glue-left'])
    const bridge = moveStep(project, steps, { id: 'lay-bridge', way: 'earlier' })
    expect(!bridge.ok && bridge.why).toMatch(/waits for/)
  })

  it('stays where it is when its neighbour comes off', () => {
    const built = steps.reduce((now, { id }) => tickStep(now, id, true), project)
    const off = (id: string) =>
      rescueFor(built, steps, { step: at(id), mishap: 'torn' })
        .undo.filter(({ kind }) => kind === 'lay' || kind === 'glue')
        .map(({ id: own }) => own)
    expect(off('glue-left').toSorted()).toEqual(['glue-left', 'lay-bridge', 'lay-left-roof'])
    expect(off('lay-right-roof').toSorted()).toEqual(['lay-bridge', 'lay-right-roof'])
    // Waiting for each joint is no lying on it.
    const each = setPlan(built, { glueWait: 'each' })
    const waiting = stepsOf(each)
    const glued = waiting.find(({ id }) => id === 'glue-left')!
    expect(rescueFor(each, waiting, { step: glued, mishap: 'torn' }).undo.map(({ id }) => id)).not.toContain(
      'glue-right',
    )
  })

  it('is all laid, and holds, before the whole is taken up', () => {
    const apart = stepsOf(towers('card', false))
    for (const id of ['lay-left-roof', 'lay-right-roof', 'hold-left', 'hold-right'])
      expect(waitsFor(apart, 'mount').has(id), id).toBe(true)
  })

  it('on a board, nothing waits for what it does not lie on', () => {
    const bits = stack('frame', plate('one', 0, [0, 0, 30, 30]), plate('two', 0, [60, 0, 30, 30]))
    const onBoard = stepsOf(bits)
    expect(waitsFor(onBoard, 'lay-two').has('lay-one')).toBe(false)
    const two = onBoard.find(({ id }) => id === 'lay-two')!
    expect(two.onto).toEqual([])
    expect(two.title).toBe('Layer 2 onto the back board')
    expect(waitsFor(onBoard, 'glaze').has('hold-two')).toBe(true)
  })

  it('of a batch made one by one the next begins when all of the one before is laid', () => {
    const batch = stepsOf(setPlan(towers('card', false), { batch: 2, batchWay: 'one by one' }))
    const first = batch.find(({ id }) => id === 'dry-fit-of-2')!
    for (const { id, needs, nth } of batch)
      if (nth === 1 && needs.includes('hands')) expect(waitsFor(batch, first.id).has(id), id).toBe(true)
  })
})
