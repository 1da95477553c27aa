import { useEffect, useRef, useSyncExternalStore } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { commandOf, type CommandId } from './list'

type Run = (event?: KeyboardEvent) => void

/** Who can do what at the moment: the last that said so. */
const able = new Map<CommandId, Run[]>()
const listeners = new Set<() => void>()
let snapshot: readonly CommandId[] = []

function tell(): void {
  snapshot = [...able.keys()]
  for (const listen of listeners) listen()
}

function enlist(id: CommandId, run: Run): () => void {
  able.set(id, [...(able.get(id) ?? []), run])
  tell()
  return () => {
    const rest = able.get(id)!.filter((other) => other !== run)
    if (rest.length > 0) able.set(id, rest)
    else able.delete(id)
    tell()
  }
}

/** Says that a command can be done while the component stands, by its keys and from every list. */
export function useCommand(id: CommandId, run: Run, { enabled = true }: { enabled?: boolean } = {}): void {
  const { keys, bySign } = commandOf(id)
  const latest = useRef(run)
  useEffect(() => {
    latest.current = run
  })
  useEffect(() => (enabled ? enlist(id, (event) => latest.current(event)) : undefined), [id, enabled])
  useHotkeys(
    keys ?? '',
    (event) => latest.current(event),
    {
      enabled: enabled && keys !== undefined,
      useKey: bySign ?? false,
      preventDefault: true,
      // Keys with Ctrl work while a text is typed where they mean nothing to it.
      enableOnFormTags: id === 'find' ? true : ['radio'],
      ignoreEventWhen: (event) =>
        bySign === true && (event.ctrlKey || event.metaKey) && !event.getModifierState('AltGraph'),
    },
    [id, enabled],
  )
}

/** Commands that can be done now. */
export const useAbleCommands = (): readonly CommandId[] =>
  useSyncExternalStore(
    (listen) => {
      listeners.add(listen)
      return () => listeners.delete(listen)
    },
    () => snapshot,
  )

/** Does a command, where somebody can. */
export const doCommand = (id: CommandId): void => able.get(id)?.at(-1)?.()
