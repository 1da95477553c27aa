import { useMemo } from 'react'
import { formatLength, formatSize, wordsIn, type Said } from '@feuillet/core/base/units'
import { selectUnit } from './selectors'
import { useAppSelector } from './store'

/** Words for values in the maker's unit. */
export function useWords() {
  const unit = useAppSelector(selectUnit)
  return useMemo(
    () => ({
      unit,
      words: (said: Said) => wordsIn(said, unit),
      length: (mm: number, digits?: number) => formatLength(mm, unit, digits),
      size: (wMm: number, hMm: number) => formatSize(wMm, hMm, unit),
    }),
    [unit],
  )
}
