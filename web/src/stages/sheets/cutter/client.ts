// The cutter behind the local server: what it says of itself, and the commands it takes.
import { useEffect, useState } from 'react'

export type Fault = 'slip' | 'blunt' | 'power'

/** What the cutter reports; lengths in mm from the sheet's top left corner. */
export interface CutterState {
  status: 'idle' | 'asking' | 'cutting' | 'paused' | 'slipped' | 'off' | 'done' | 'cancelled'
  load: { id: string; name: string; tag: string; colour: string; passesNeeded: number } | null
  tool: { x: number; y: number; down: boolean } | null
  /** Moves of the plot that are done in this pass: every way of the tool is a lift and then its points. */
  movesDone: number
  share: number
  secondsLeft: number
  pass: number
  passes: number
  speed: number
  faults: Record<Fault, boolean>
  outcome: 'cut' | 'partly' | null
  ranS: number
  startedAt: number | null
  endedAt: number | null
}

/** The cutter's state as it changes; null while it is looked for, `absent` where none answers. */
export function useCutter(): CutterState | 'absent' | null {
  const [state, setState] = useState<CutterState | 'absent' | null>(null)
  useEffect(() => {
    let stream: EventSource | undefined
    let gone = false
    // Asked once in the plain way first: a stream to nowhere would be tried again and again.
    fetch('/api/cutter')
      .then(async (response) => {
        if (!response.ok || !response.headers.get('Content-Type')?.includes('json')) throw new Error('absent')
        const first = (await response.json()) as CutterState
        if (gone) return
        setState(first)
        stream = new EventSource('/api/cutter/events')
        stream.onmessage = (event: MessageEvent<string>) => setState(JSON.parse(event.data) as CutterState)
        stream.onerror = () => setState('absent')
        stream.onopen = () => setState((old) => (old === 'absent' ? first : old))
      })
      .catch(() => !gone && setState('absent'))
    return () => {
      gone = true
      stream?.close()
    }
  }, [])
  return state
}

/** Sends a command. Gives the reason where it is refused, null where it is done. */
export async function tellCutter(command: string, body: object = {}): Promise<string | null> {
  try {
    const response = await fetch(`/api/cutter/${command}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (response.ok) return null
    return ((await response.json()) as { why?: string }).why ?? 'the cutter refused'
  } catch {
    return 'the cutter does not answer: is the local server still running?'
  }
}
