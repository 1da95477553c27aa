import { tickTaking } from '@feuillet/core/project'
import type { Step } from '@feuillet/core/stages/assembly'
import { changeSupplies } from '../../state/edits'

/** Ticks a step off, and takes the foam it uses for the whole batch out of the drawer; or takes the tick back, and gives it back. */
export const tick = (step: Step, done: boolean) =>
  changeSupplies(`${done ? 'tick' : 'untick'} “${step.title}”`, (held) => {
    const { batch } = held.project.plan
    const foams = (step.takes ?? []).map(({ foamId, count }) => ({ foamId, count: count * batch }))
    return tickTaking(held, step.id, { done, foams })
  })
