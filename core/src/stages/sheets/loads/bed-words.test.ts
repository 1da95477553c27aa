import { describe, expect, it } from 'vitest'
import { wordsIn } from '../../../base/units'
import { demo, demoNames } from '../../../demo'
import { starterCutters, type Cutter } from '../../../project'
import { results } from '../../../../test/results'
import { bedWords, onTheBed } from './bed-words'

const bare = (widthMm: number, heightMm: number): Cutter => ({
  ...starterCutters[0]!,
  tool: 'machine',
  mats: [],
  bedWidthMm: widthMm,
  bedHeightMm: heightMm,
})
const a3 = { widthMm: 297, heightMm: 420 }
const said = (sheet: typeof a3, cutter: Cutter) =>
  bedWords({ lies: onTheBed(sheet, cutter), ...sheet }).map((words) => wordsIn(words, 'mm'))

describe('a sheet on the bed', () => {
  it('that is larger hangs over, by hand', () => {
    expect(onTheBed(a3, bare(305, 305))).toEqual({ turned: false, overMm: 115, widthMm: 297, heightMm: 305 })
    expect(said(a3, bare(305, 305))).toEqual([
      '115 mm of the sheet hang over the bed and are not cut: hold them up while it runs.',
    ])
  })

  it('goes in a quarter turned where more of it can be cut so', () => {
    expect(onTheBed(a3, bare(610, 305))).toEqual({ turned: true, overMm: 0, ...a3 })
    expect(said(a3, bare(610, 305))).toEqual([
      'It goes in a quarter turned, its side of 420 mm across the bed.',
    ])
  })

  it('that lies there as it is drawn, or is cut by knife, needs no word', () => {
    expect(onTheBed({ widthMm: 305, heightMm: 305 }, bare(305, 305))).toBeNull()
    // Laid by hand, a sheet of the bed's own size is never so true.
    expect(onTheBed({ widthMm: 305.3, heightMm: 304.8 }, bare(305, 305))).toBeNull()
    expect(onTheBed(a3, { ...bare(305, 305), tool: 'knife' })).toBeNull()
  })

  it('is told in the step of its load', () => {
    const project = demo('harbour')
    const { drawer } = project
    const small = { ...project, drawer: { ...drawer, cutter: { ...drawer.cutter, mats: [], bedWidthMm: 300, bedHeightMm: 300 } } } // prettier-ignore
    const { assembly, loads } = results(small)
    expect(loads[0]!.lies!.overMm).toBeCloseTo(4.8, 6)
    expect(JSON.stringify(assembly.steps.find(({ kind }) => kind === 'cut')!.detail)).toContain('hang over')
  })

  it.each(demoNames)('of %s lies there as it is drawn', (name) => {
    expect(results(demo(name)).loads.filter(({ lies }) => lies !== null)).toEqual([])
  })
})
