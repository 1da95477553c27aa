import { describe, expect, it, vi } from 'vitest'
import { demo, type DemoName } from '@feuillet/core/demo'
import { setPlan, type Project } from '@feuillet/core/project'
import { nodes } from '@feuillet/core/stages'
import type { AssemblyPlan } from '@feuillet/core/stages/assembly'
import type { DepthView } from '@feuillet/core/stages/depth'
import { deskWith, planHere } from '../../../test/desk'

vi.mock('../../plan', () => ({ ...planHere, usePlan: () => undefined }))
const { mountPictureOf } = await import('./bench-mounts')

/** The picture of each step that has one of its own, by the step's id. */
function picturesOf(project: Project): Record<string, string> {
  const desk = deskWith(project)
  const { steps } = desk.viewOf<AssemblyPlan, AssemblyPlan>(nodes.assembly())
  const depth = desk.viewOf<unknown, DepthView>(nodes.depth())
  return Object.fromEntries(
    steps.flatMap((step) => {
      const picture = mountPictureOf(project, step, depth)
      return picture ? [[step.id, picture]] : []
    }),
  )
}
const of = (name: DemoName) => picturesOf(demo(name))

describe('the pictures of mounting', () => {
  it('show the pads behind a stack, the sticks of a topper, and a frame from the side', () => {
    expect(of('harbour')).toEqual({ mount: 'shims', glaze: 'frame', close: 'frame' })
    expect(of('bon-voyage')).toEqual({ mount: 'sticks' })
  })

  it('are the stack itself where no pads lie behind it, and of flags their twine', () => {
    expect(of('lantern-street')).toEqual({ glaze: 'frame', close: 'frame' })
    expect(of('regatta')).toEqual({})
  })

  it('are the same for each of a batch that is made one by one', () => {
    const two = picturesOf(setPlan(demo('harbour'), { batch: 2, batchWay: 'one by one' }))
    expect(two).toMatchObject({ mount: 'shims', 'mount-of-2': 'shims', 'close-of-2': 'frame' })
  })
})
