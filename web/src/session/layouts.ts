// Layouts that a longer search or the maker's hand found, by the fingerprint of their run: derived, so never part of a
// project, but worth keeping between visits.
import type { Kept } from '@feuillet/core/stages/sheets'
import { smallThings } from './small-things'

const KEEP = 60
/** Of those that edits carried over: a width that is drawn from one to another has many on its way. */
const KEEP_CARRIED = 12
let known: Map<string, Kept> | undefined

export async function foundLayouts(): Promise<Map<string, Kept>> {
  if (!known) {
    try {
      known = new Map((await smallThings.getItem<[string, Kept][]>('layouts')) ?? [])
    } catch {
      known = new Map()
    }
  }
  return known
}

export async function keepLayouts(found: readonly (readonly [string, Kept])[]): Promise<void> {
  if (found.length === 0) return
  const map = await foundLayouts()
  for (const [fingerprint, layout] of found) {
    map.delete(fingerprint)
    map.set(fingerprint, layout)
  }
  const forget = (keys: readonly string[], most: number) => {
    for (const key of keys.slice(0, Math.max(0, keys.length - most))) map.delete(key)
  }
  const carried = [...map].flatMap(([key, layout]) => (layout.carried ? [key] : []))
  forget(carried, KEEP_CARRIED)
  forget([...map.keys()], KEEP)
  await smallThings.setItem('layouts', [...map]).catch(() => undefined)
}
