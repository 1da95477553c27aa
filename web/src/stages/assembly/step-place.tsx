// Where a step stands among the others: its leeway, what it waits for, and moving it.
import { useState } from 'react'
import { letStepGo, moveStep, type Leeway, type Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button } from '../../ui'

export function StepPlace({
  step,
  steps,
  leeway,
}: {
  step: Step
  steps: readonly Step[]
  leeway: Leeway | undefined
}) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const [refused, setRefused] = useState<{ id: string; why: string } | null>(null)
  const titles = new Map(steps.map(({ id, title }) => [id, title]))
  const waits = step.after.flatMap((id) => titles.get(id) ?? [])
  const isMoved = project.plan.stepOrder.some(({ first, then }) => first === step.id || then === step.id)
  const move = (way: 'earlier' | 'later') => {
    const moved = moveStep(project, steps, { id: step.id, way })
    setRefused(moved.ok ? null : { id: step.id, why: moved.why })
    if (moved.ok)
      dispatch(
        change(`${step.title} ${way}`, (p) => {
          const again = moveStep(p, steps, { id: step.id, way })
          return again.ok ? again.project : p
        }),
      )
  }
  return (
    <div className="mt-2 text-[13.5px]">
      <p className="text-soft">
        {waits.length > 0
          ? `Waits for ${waits.map((title) => `“${title}”`).join(', ')}. `
          : 'Waits for nothing. '}
        {leeway &&
          (leeway.slackMin < 1e-6
            ? 'It may not be late, or the end is later.'
            : `It may be ${formatMinutes(leeway.slackMin)} late before the end is.`)}
      </p>
      {step.needs.length > 0 && (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button small onClick={() => move('earlier')} title="Before the step that comes before it">
            Earlier
          </Button>
          <Button small onClick={() => move('later')} title="Behind the step that comes after it">
            Later
          </Button>
          {isMoved && (
            <Button
              small
              look="quiet"
              onClick={() =>
                dispatch(change(`leave ${step.title} to the plan`, (p) => letStepGo(p, step.id)))
              }
            >
              Leave it to the plan
            </Button>
          )}
        </div>
      )}
      {refused?.id === step.id && (
        <p role="alert" className="mt-1 text-ochre">
          ▲ Not moved: {refused.why}.
        </p>
      )}
    </div>
  )
}
