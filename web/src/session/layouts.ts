// Layouts that a longer search or the maker's hand found, by the fingerprint of their run: derived, so never part of a
// project, but worth keeping between visits.
import type { NestLayout } from '@feuillet/core/stages/sheets'
import { smallThings } from './small-things'

const KEEP = 60
let known: Map<string, NestLayout> | undefined

export async function foundLayouts(): Promise<Map<string, NestLayout>> {
  if (!known) {
    try {
      known = new Map((await smallThings.getItem<[string, NestLayout][]>('layouts')) ?? [])
    } catch {
      known = new Map()
    }
  }
  return known
}

export async function keepLayouts(found: readonly (readonly [string, NestLayout])[]): Promise<void> {
  if (found.length === 0) return
  const map = await foundLayouts()
  for (const [fingerprint, layout] of found) {
    map.delete(fingerprint)
    map.set(fingerprint, layout)
  }
  for (const key of [...map.keys()].slice(0, Math.max(0, map.size - KEEP))) map.delete(key)
  await smallThings.setItem('layouts', [...map]).catch(() => undefined)
}
