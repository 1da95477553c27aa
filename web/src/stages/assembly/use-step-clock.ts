import { useEffect, useRef, useState } from 'react'

/** The clock of one step: how long it has been at hand, pauses taken out. */
export interface StepClock {
  /** Minutes so far. */
  minutes: () => number
  isPaused: boolean
  pause: () => void
}

interface Run {
  stepId: string | undefined
  /** ms that were worked before the last pause. */
  before: number
  /** Since when it runs; null while it is paused. */
  since: number | null
}

/** A clock that begins anew with each step. */
export function useStepClock(stepId: string | undefined): StepClock {
  const run = useRef<Run>({ stepId, before: 0, since: null })
  const [pausedAt, setPausedAt] = useState<string | null>(null)
  useEffect(() => {
    run.current = { stepId, before: 0, since: Date.now() }
  }, [stepId])
  const worked = () => {
    const { before, since } = run.current
    return before + (since === null ? 0 : Math.max(0, Date.now() - since))
  }
  return {
    minutes: () => worked() / 60_000,
    isPaused: pausedAt !== null && pausedAt === stepId,
    pause: () => {
      run.current = {
        ...run.current,
        before: worked(),
        since: run.current.since === null ? Date.now() : null,
      }
      setPausedAt(run.current.since === null ? (stepId ?? null) : null)
    },
  }
}
