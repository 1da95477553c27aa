import { proxy } from 'comlink'
import { Progress } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import type { NestLayout } from '@feuillet/core/stages/sheets'
import { derivedAgain } from '../../plan/derive-again'
import { keepLayout } from '../../session/layouts'
import { searching } from '../../plan/results'
import { selectDerived } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button } from '../../ui/index'
import { nestWorkers } from '../../workers/compute'

const LENGTHS = [
  { seconds: 10, words: '10 s' },
  { seconds: 60, words: '1 min' },
  { seconds: 300, words: '5 min' },
]

/** While the maker presses or types, the search stands aside for so long (ms). */
const REST_MS = 300
const HANDS_ON = ['pointerdown', 'pointerup', 'keydown', 'wheel'] as const

/** A longer search for fewer sheets, in workers of its own: progress, a pause, and a stop that keeps the best so far. */
export function SearchButton() {
  const dispatch = useAppDispatch()
  const derived = useAppSelector(selectDerived)
  const search = useAppSelector((state) => state.results.search)
  const [seconds, setSeconds] = useState(10)
  const [paused, setPaused] = useState(false)
  const runs = derived?.runs ?? []
  const start = async () => {
    const task = runs.map(({ run, layout }) => ({
      fingerprint: run.fingerprint,
      instance: run.instance,
      layout,
    }))
    const best = new Map<string, NestLayout>(task.map(({ fingerprint, layout }) => [fingerprint, layout]))
    const before = task.reduce((sum, { layout }) => sum + layout.score, 0)
    const steps = nestWorkers().map(() => 0)
    let under = true
    const standAside = () => nestWorkers().forEach((worker) => void worker.rest(REST_MS))
    for (const kind of HANDS_ON) window.addEventListener(kind, standAside, { capture: true, passive: true })
    setPaused(false)
    dispatch(searching({ share: 0, score: before, steps: 0 }))
    const better = (fingerprint: string, layout: NestLayout) => {
      if (layout.score < best.get(fingerprint)!.score) best.set(fingerprint, layout)
    }
    await Promise.all(
      nestWorkers().map((worker, i) =>
        worker.search(
          task,
          seconds,
          1 + i * 7919,
          proxy((progress) => {
            steps[i] = progress.steps
            // Reports may arrive after the end.
            if (under) dispatch(searching({ ...progress, steps: steps.reduce((a, b) => a + b, 0) }))
          }),
          proxy(better),
        ),
      ),
    )
    under = false
    for (const kind of HANDS_ON) window.removeEventListener(kind, standAside, { capture: true })
    const found = task.filter(({ fingerprint, layout }) => best.get(fingerprint) !== layout)
    for (const { fingerprint } of found) await keepLayout(fingerprint, best.get(fingerprint)!)
    dispatch(searching(null))
    await dispatch(derivedAgain())
    toast(
      found.length > 0
        ? `A closer layout was found for ${found.length} ${found.length === 1 ? 'paper' : 'papers'}.`
        : 'No closer layout was found in this time.',
    )
  }
  const pause = () => {
    setPaused(!paused)
    for (const worker of nestWorkers()) void worker.pause(!paused)
  }
  if (!search)
    return (
      <span className="flex items-center gap-1.5">
        <Button
          disabled={runs.length === 0}
          onClick={() => void start()}
          title="Tries to lie closer in the background; you can go on working"
        >
          Search
        </Button>
        <select
          aria-label="How long to search"
          className="w-19"
          value={seconds}
          onChange={(event) => setSeconds(Number(event.target.value))}
        >
          {LENGTHS.map((length) => (
            <option key={length.seconds} value={length.seconds}>
              {length.words}
            </option>
          ))}
        </select>
      </span>
    )
  return (
    <div className="flex w-full items-center gap-2">
      <Progress.Root
        value={Math.round(search.share * 100)}
        aria-label="Search for fewer sheets"
        className="h-2.5 flex-1 border border-ink bg-sheet"
      >
        <Progress.Indicator
          className="h-full bg-plum"
          style={{ width: `${Math.min(100, search.share * 100)}%` }}
        />
      </Progress.Root>
      <span className="measure text-[12px]">{search.steps} tried</span>
      <Button small onClick={pause}>
        {paused ? 'Go on' : 'Pause'}
      </Button>
      <Button small onClick={() => nestWorkers().forEach((worker) => void worker.stop())}>
        Stop
      </Button>
    </div>
  )
}
