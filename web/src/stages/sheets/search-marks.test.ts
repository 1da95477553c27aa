import { describe, expect, it } from 'vitest'
import { gainWords, marked, type GainMark } from './search-marks'

const told = (list: readonly [number, number][]) =>
  list.reduce<readonly GainMark[]>(
    (marks, [atS, sheets]) => marked(marks, { atS, sheets }),
    [{ atS: 0, sheets: 7.42 }],
  )

/** Its words with plain spaces. */
const plain = (marks: readonly GainMark[]) => gainWords(marks).replaceAll('\u00a0', ' ')

describe('what a search has gained', () => {
  it('is marked at 10 s, 30 s, and each minute, and where it stands', () => {
    const marks = told([
      [2, 7.4],
      [9, 7.35],
      [11, 7.3],
      [29.5, 7.3],
      [31, 7.21],
      [61, 7.2],
      [75, 7.12],
    ])
    expect(marks.map(({ atS, sheets }) => [atS, sheets])).toEqual([
      [0, 7.42],
      [10, 7.35],
      [30, 7.3],
      [60, 7.21],
      [75, 7.12],
    ])
    expect(plain(marks)).toBe(
      'Sheets by share: 7.42 at first · 10 s 7.35 · 30 s 7.30 · 1 min 7.21 · 1 min 15 s 7.12',
    )
  })

  it('says where nothing was gained, and ends on a full mark without a second one', () => {
    expect(plain(told([[4, 7.42]]))).toBe('Sheets by share: 7.42 at first · 4 s 7.42 · nothing gained yet')
    const ended = told([
      [9.9, 7.4],
      [10, 7.31],
    ])
    expect(ended.map(({ atS }) => atS)).toEqual([0, 10])
  })

  it('is told anew at most once a second where nothing changes', () => {
    const marks = told([[3, 7.4]])
    expect(marked(marks, { atS: 3.2, sheets: 7.4 })).toBe(marks)
    expect(marked(marks, { atS: 3.2, sheets: 7.39 }).at(-1)).toEqual({ atS: 3.2, sheets: 7.39 })
    expect(marked(marks, { atS: 4.1, sheets: 7.4 }).at(-1)).toEqual({ atS: 4.1, sheets: 7.4 })
  })
})
