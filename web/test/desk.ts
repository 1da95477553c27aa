// The store with an open project and its results, where the worker's answers are the core's own, given at once.
import { configureStore } from '@reduxjs/toolkit'
import { vi } from 'vitest'
import { starterStock } from '@feuillet/core/stages/paper'
import type { Mend, Paper, Project } from '@feuillet/core/project'
import {
  firstFree,
  settle,
  whyIllegal,
  type NestInstance,
  type NestLayout,
  type Placement,
} from '@feuillet/core/stages/sheets'
import { derive, mendAll } from '@feuillet/core/planner'
import results, { arrived } from '../src/plan/results'
import view from '../src/state/view'
import work, { opened } from '../src/state/document'

/** Stands in for the worker: the functions that the hand and the mends ask for. */
export const computeHere = {
  mend: vi.fn((project: Project, actions: readonly Mend[], stock: Paper[]) =>
    Promise.resolve(mendAll(project, actions, stock)),
  ),
  tryPlace: (instance: NestInstance, placement: Placement, others: Placement[]) =>
    Promise.resolve(whyIllegal(instance, placement, others)),
  settle: (instance: NestInstance, placements: Placement[], keys: string[]) =>
    Promise.resolve(settle(instance, placements, new Set(keys))),
  firstFree: (instance: NestInstance, placement: Placement, others: Placement[]) =>
    Promise.resolve(firstFree(instance, placement, others)),
}

/** Stands in for the browser's store. */
export function memoryStore() {
  const kept = new Map<string, unknown>()
  return {
    kept,
    getItem: <T>(key: string) => Promise.resolve((kept.get(key) as T | undefined) ?? null),
    setItem: <T>(key: string, value: T) => {
      kept.set(key, value)
      return Promise.resolve(value)
    },
  }
}

/** A store with the project open and its results there; `again` computes them anew, with layouts found meanwhile. */
export function deskWith(project: Project, stock: Paper[] = starterStock()) {
  const store = configureStore({
    reducer: { work, view, results },
    middleware: (base) => base({ serializableCheck: false, immutableCheck: false }),
  })
  const again = (found?: ReadonlyMap<string, NestLayout>) => {
    const open = store.getState().work
    const derived = derive(open.project!, open.stock, found)
    store.dispatch(arrived(derived))
    return derived
  }
  store.dispatch(opened({ project, stock }))
  again()
  return {
    store,
    again,
    project: () => store.getState().work.project!,
    derived: () => store.getState().results.derived!,
  }
}
