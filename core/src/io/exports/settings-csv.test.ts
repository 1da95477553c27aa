import { describe, expect, it } from 'vitest'
import type { Setting } from '../../project'
import { settingsFromCsv, settingsToCsv } from './settings-csv'

const entry: Setting = {
  id: 'a',
  paper: 'Shell, “new”',
  finish: 'smooth',
  gsm: 216,
  cutter: '12 × 12 in mat',
  intricacy: 'lace',
  depthMm: 0.42,
  forceG: 160,
  speedMmPerS: 18.5,
  passes: 2,
  tack: 'low',
  outcome: 'corners hung',
  note: 'new blade; 2nd time',
  at: Date.UTC(2026, 10, 26, 9),
}

describe('the settings book as CSV', () => {
  it('comes back as it went out', () => {
    let n = 0
    const out = settingsToCsv([entry, { ...entry, outcome: 'cut through', note: '- try 3' }])
    const read = settingsFromCsv(out, [], () => `new-${n++}`)
    expect(read.wrong).toEqual([])
    expect(read.settings).toEqual([
      { ...entry, id: 'new-0' },
      { ...entry, id: 'new-1', outcome: 'cut through', note: '- try 3' },
    ])
  })

  it('adds nothing that the book has', () => {
    const more = { ...entry, id: 'b', paper: 'Gorse' }
    const out = settingsToCsv([entry, more])
    expect(settingsFromCsv(out, [entry], () => 'b')).toEqual({ settings: [entry, more], wrong: [] })
    expect(settingsFromCsv(out, [entry, more], () => 'c')).toEqual({
      settings: [entry, more],
      wrong: ['All of this table is in the book already.'],
    })
  })

  it('leaves out rows that cannot be read, and says which', () => {
    const text = `${settingsToCsv([entry]).trim()}\nX,smooth,heavy,m,plain,1,1,1,1,low,tore,,\nY,felt,100,m,plain,1,1,1,1,low,tore,,\nZ,smooth,100,m,plain,99,1,1,1,low,tore,,\nZ,smooth,100,m,plain,1,,1,1,low,tore,,\n`
    const read = settingsFromCsv(text, [], () => 'id')
    expect(read.settings).toHaveLength(1)
    expect(read.wrong).toEqual([
      'Row 3: “gsm” is “heavy”, which is no number.',
      expect.stringMatching(/^Row 4: “finish” is “felt”; it can be smooth, .* or craft foam\.$/),
      'Row 5: “blade out mm” is “99”; it is 50 or less.',
      'Row 6: “force g” is missing.',
    ])
    expect(settingsFromCsv('', [], () => 'id').wrong).toEqual([
      'There is no column “paper”: is this a table of settings?',
    ])
  })
})
