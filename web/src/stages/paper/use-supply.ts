import { useCallback } from 'react'
import type { Supplies } from '@feuillet/core/project'
import { changeSupplies } from '../../state/edits'
import { useAppDispatch, useAppSelector } from '../../state/store'

/** A list of the shared drawer, and how a table changes it: each change is a step of the history. */
export function useSupply<K extends 'foams' | 'adhesives' | 'inks' | 'things' | 'settings'>(key: K) {
  type One = Supplies[K][number]
  const dispatch = useAppDispatch()
  const list: readonly One[] = useAppSelector((state) => state.document.supplies[key])
  const edit = useCallback(
    (label: string, change: (list: readonly One[]) => readonly One[]) =>
      dispatch(
        changeSupplies(label, (held) => ({
          ...held,
          supplies: { ...held.supplies, [key]: change(held.supplies[key]) },
        })),
      ),
    [dispatch, key],
  )
  const set = useCallback(
    (id: string, label: string, patch: Partial<One>) =>
      edit(label, (records) => records.map((one) => (one.id === id ? { ...one, ...patch } : one))),
    [edit],
  )
  return { list, edit, set }
}
