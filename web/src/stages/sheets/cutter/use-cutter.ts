// The cutter behind the local server: what it says of itself, and the commands it takes.
import { useEffect, useState } from 'react'
import {
  refusalSchema,
  stateSchema,
  type CommandBody,
  type CutterCommand,
  type CutterState,
} from '@feuillet/cutter-protocol'

export type { CutterState, Fault } from '@feuillet/cutter-protocol'

/** The cutter's state as it changes; null while it is looked for, `absent` where none answers. */
export function useCutter(): CutterState | 'absent' | null {
  const [state, setState] = useState<CutterState | 'absent' | null>(null)
  useEffect(() => {
    let stream: EventSource | undefined
    let gone = false
    const hear = () => {
      stream?.close()
      // Pages in the background hold no stream: a browser has only a few connections for all of them.
      if (gone || document.visibilityState === 'hidden') return
      stream = new EventSource('/api/cutter/events')
      stream.onmessage = ({ data }: MessageEvent<string>) => {
        const told = stateSchema.safeParse(JSON.parse(data))
        setState(told.success ? told.data : 'absent')
      }
      stream.onerror = () => setState('absent')
    }
    // Asked once in the plain way first: a stream to nowhere would be tried again and again.
    void askCutter().then((first) => {
      if (gone) return
      setState(first ?? 'absent')
      if (!first) return
      hear()
      document.addEventListener('visibilitychange', hear)
    })
    return () => {
      gone = true
      document.removeEventListener('visibilitychange', hear)
      stream?.close()
    }
  }, [])
  return state
}

/** What the machine says of itself just now; null where none answers. */
export async function askCutter(): Promise<CutterState | null> {
  try {
    const response = await fetch('/api/cutter')
    return stateSchema.safeParse(response.ok ? await response.json() : null).data ?? null
  } catch {
    return null
  }
}

/** A run is under way: the machine has a load and is not done with it. */
export const isBusy = ({ status }: CutterState): boolean =>
  ['asking', 'cutting', 'paused', 'slipped', 'off'].includes(status)

/** Sends a command. Gives the reason where it is refused, null where it is done. */
export async function tellCutter<Name extends CutterCommand>(
  command: Name,
  body: CommandBody<Name>,
): Promise<string | null> {
  try {
    const response = await fetch(`/api/cutter/${command}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (response.ok) return null
    return refusalSchema.safeParse(await response.json()).data?.why ?? 'the cutter refused'
  } catch {
    return 'the cutter does not answer: is the local server still running?'
  }
}
