import { describe, expect, it } from 'vitest'
import { decodeTable, readTable } from './index'

const bytes = (list: readonly number[]) => Uint8Array.from(list)
/** Letters as single bytes: what western Windows writes for those up to U+00FF. */
const single = (text: string) => bytes([...text].map((letter) => letter.charCodeAt(0)))
const double = (text: string) =>
  bytes([0xff, 0xfe, ...[...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])])

describe('tables of a spreadsheet', () => {
  it('are read in the letters that they were saved in', () => {
    const text = 'name;note\nCrème brûlée;304 × 304\n'
    for (const saved of [new TextEncoder().encode(text), single(text), double(text)])
      expect(decodeTable(saved)).toBe(text)
  })

  it('have columns in small letters, trimmed cells, no empty rows, and any separator', () => {
    for (const by of [',', ';', '\t'])
      expect(readTable(`\ufeff Name ${by}Count\r\n Shell ${by}2\r\n${by}\r\n'-x${by}'quoted\r\n`)).toEqual({
        columns: ['name', 'count'],
        rows: [
          { name: 'Shell', count: '2' },
          { name: '-x', count: "'quoted" },
        ],
      })
  })
})
