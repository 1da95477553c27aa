import { proxy } from 'comlink'
import type { NestLayout } from '@feuillet/core/stages/sheets'
import { Progress } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import { planner, usePlan } from '../../plan'
import { gained, searching } from '../../plan/plan'
import { keepLayouts } from '../../session/layouts'
import { useAppDispatch, useAppSelector, useAppStore } from '../../state/store'
import { Button, Select } from '../../ui'
import { WorkerGone } from '../../workers'
import type { SearchProgress } from '../../workers/search'
import { gainWords, marked, type GainMark } from './search-marks'

const LENGTHS = [
  { seconds: 10, words: '10 s' },
  { seconds: 60, words: '1 min' },
  { seconds: 300, words: '5 min' },
]

/** While the maker presses or types, the search stands aside for so long (ms): until a button is let go, and a little longer. */
const REST_MS = 300
const HELD_MS = 20_000
const HANDS_ON = ['pointerdown', 'pointerup', 'pointercancel', 'keydown', 'wheel'] as const

/** A longer search for fewer sheets, in workers of its own: progress, a pause, and a stop that keeps the best so far. */
export function SearchButton() {
  const dispatch = useAppDispatch()
  const store = useAppStore()
  const runs = usePlan('nested') ?? []
  const search = useAppSelector((state) => state.plan.search)
  const gains = useAppSelector((state) => state.plan.gains)
  const [seconds, setSeconds] = useState(10)
  const [paused, setPaused] = useState(false)
  /** What was told of the last search is of the sheets as they are. */
  const isAsFound =
    gains.length > 1 && Math.abs(runs.reduce((sum, run) => sum + run.score, 0) - gains.at(-1)!.sheets) < 0.005
  const start = async () => {
    const projectId = store.getState().document.project?.id
    /** Reports may arrive after the end, or when another project is open. */
    let under = true
    const here = () => under && store.getState().document.project?.id === projectId
    let isHeld = false
    const standAside = ({ type }: Event) => {
      if (type.startsWith('pointer')) isHeld = type === 'pointerdown'
      const ms = isHeld ? HELD_MS : REST_MS
      void planner.host.ask((api) => api.searchRest(ms)).catch(() => undefined)
    }
    /** Found, but not shown yet: only who looks at the sheets has them change meanwhile. */
    const toShow = new Map<string, NestLayout>()
    const keep = (found: readonly [string, NestLayout][]) => {
      for (const [fingerprint, layout] of found) toShow.set(fingerprint, layout)
      return keepLayouts(found)
    }
    const show = () => {
      if (toShow.size > 0) planner.takeLayouts([...toShow])
      toShow.clear()
    }
    for (const kind of HANDS_ON) window.addEventListener(kind, standAside, { capture: true, passive: true })
    setPaused(false)
    let marks: readonly GainMark[] = [{ atS: 0, sheets: runs.reduce((sum, run) => sum + run.score, 0) }]
    const mark = (at: GainMark) => {
      const more = marked(marks, at)
      if (more !== marks) dispatch(gained((marks = more)))
    }
    dispatch(searching({ share: 0, steps: 0 }))
    dispatch(gained(marks))
    try {
      const found = await planner.host.ask((api) =>
        api.search(
          seconds,
          proxy(({ share, score, steps, found: better }: SearchProgress) => {
            void keep(better)
            if (!here()) return
            if (planner.isAt('sheets')) show()
            dispatch(searching({ share, steps }))
            mark({ atS: share * seconds, sheets: score })
          }),
        ),
      )
      await keep(found)
      if (here()) {
        show()
        toast(
          found.length > 0
            ? `A closer layout was found for ${found.length} ${found.length === 1 ? 'paper' : 'papers'}.`
            : 'No closer layout was found in this time.',
        )
      }
    } catch (error) {
      // That the planner broke off was said where it was started anew.
      if (!(error instanceof WorkerGone))
        toast.error(`The search broke off: ${error instanceof Error ? error.message : String(error)}`)
    } finally {
      if (here()) dispatch(searching(null))
      under = false
      for (const kind of HANDS_ON) window.removeEventListener(kind, standAside, { capture: true })
    }
  }
  const pause = () => {
    setPaused(!paused)
    void planner.host.ask((api) => api.searchPause(!paused)).catch(() => undefined)
  }
  const stop = () => void planner.host.ask((api) => api.searchStop()).catch(() => undefined)
  if (!search)
    return (
      <span className="flex flex-wrap items-center gap-1.5">
        <Button
          disabled={runs.length === 0}
          onClick={() => void start()}
          title="Tries to lie closer in the background; you can go on working"
        >
          Search
        </Button>
        <Select
          label="How long to search"
          className="w-19"
          value={String(seconds)}
          options={LENGTHS.map((length) => ({ value: String(length.seconds), label: length.words }))}
          onChange={(value) => setSeconds(Number(value))}
        />
        {isAsFound && <Gains marks={gains} />}
      </span>
    )
  return (
    <div className="flex w-full flex-wrap items-center gap-2">
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
      <Button small onClick={stop}>
        Stop
      </Button>
      <Gains marks={gains} />
    </div>
  )
}

/** What the time has gained so far. */
function Gains({ marks }: { marks: readonly GainMark[] }) {
  return (
    <p className="measure w-full text-[12px] text-soft" data-testid="search-gains">
      {gainWords(marks)}
    </p>
  )
}
