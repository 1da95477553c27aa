// What dries by itself: a clock each, that runs on whatever is done meanwhile and rings when the time is over, after a reload too.
import { useEffect, useState } from 'react'
import { driedOff } from '@feuillet/core/project'
import { change } from '../state/edits'
import { useAppDispatch, useAppSelector } from '../state/store'
import { Button } from '../ui'

const RINGS_EVERY_MS = 4000
const RINGS = 30

/** The clocks of the open project, in a corner; nothing where nothing dries. */
export function DryingTimers({ dark = false }: { dark?: boolean }) {
  const dispatch = useAppDispatch()
  const drying = useAppSelector((state) => state.document.project?.progress.drying)
  const now = useSeconds((drying?.length ?? 0) > 0)
  const over = (drying ?? []).filter(({ endsAt }) => endsAt <= now).map(({ stepId }) => stepId)
  useRinging(over.join('\n'))
  if (!drying || drying.length === 0) return null
  const end = (stepId: string, title: string, done: boolean) =>
    dispatch(change(done ? `dry: ${title}` : `no longer wait: ${title}`, (p) => driedOff(p, stepId, done)))
  return (
    <ul
      aria-label="What dries"
      className={`fixed bottom-4 left-4 z-20 grid gap-2 text-[14px] ${dark ? 'text-ink' : ''}`}
    >
      {drying
        .toSorted((a, b) => a.endsAt - b.endsAt)
        .map(({ stepId, title, endsAt }) => {
          const isOver = endsAt <= now
          return (
            <li
              key={stepId}
              data-over={isOver || undefined}
              className={`flex max-w-[420px] items-center gap-3 border px-3 py-2 ${isOver ? 'border-ochre bg-ochre-pale' : 'border-ink bg-sheet'}`}
            >
              <span role={isOver ? 'alert' : undefined} className="min-w-0 flex-1">
                {isOver ? '▲ ' : ''}
                {title}
              </span>
              <span className="measure font-semibold">{isOver ? 'over' : left(endsAt - now)}</span>
              <Button small look={isOver ? 'main' : undefined} onClick={() => end(stepId, title, true)}>
                It is dry
              </Button>
              <Button small look="quiet" onClick={() => end(stepId, title, false)}>
                Stop
              </Button>
            </li>
          )
        })}
    </ul>
  )
}

/** “1:05:09”, “9:30”. */
function left(ms: number): string {
  const seconds = Math.ceil(ms / 1000)
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60]
  const two = (n: number) => String(n).padStart(2, '0')
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}

function useSeconds(isOn: boolean): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (!isOn) return
    const tick = () => setNow(Date.now())
    tick()
    const timer = setInterval(tick, 1000)
    return () => clearInterval(timer)
  }, [isOn])
  return now
}

/** Rings while something is over; `over` names what. Where the browser allows no sound yet, what is seen has to do. */
function useRinging(over: string): void {
  useEffect(() => {
    if (!over) return
    let rung = 0
    ring()
    const timer = setInterval(() => (++rung < RINGS ? ring() : clearInterval(timer)), RINGS_EVERY_MS)
    return () => clearInterval(timer)
  }, [over])
}

/** Two soft notes, one after the other. */
function ring(): void {
  try {
    const audio = new AudioContext()
    for (const [at, hertz] of [
      [0, 660],
      [0.28, 880],
    ] as const) {
      const note = audio.createOscillator()
      const loud = audio.createGain()
      const from = audio.currentTime + at
      note.frequency.value = hertz
      loud.gain.setValueAtTime(0.0001, from)
      loud.gain.exponentialRampToValueAtTime(0.25, from + 0.03)
      loud.gain.exponentialRampToValueAtTime(0.0001, from + 0.45)
      note.connect(loud).connect(audio.destination)
      note.start(from)
      note.stop(from + 0.5)
    }
    setTimeout(() => void audio.close(), 1200)
  } catch {
    // No sound on this machine: the clock is seen.
  }
}
