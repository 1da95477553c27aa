// Gone back to a past version, and opened beside itself: what is cut stays cut, and is counted once.
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../test/stack'
import { cutSheetSchema, type CutSheet, type Project } from './schema'
import { starterStock } from '../stages/paper'
import { cutForOthers } from './cut-elsewhere'
import { uncut } from './cut-record'
import { besideItself, wentBack } from './states'

const paper = starterStock()[0]!
const path = 'M0 0L10 0L10 10Z'
const sheetOf = (id: string, guestId: string | null): CutSheet =>
  cutSheetSchema.parse({
    id,
    number: 1,
    at: 5,
    paper,
    onOffCut: null,
    outline: 'M0 0L90 0L90 90Z',
    minutes: 3,
    pieces: [{ layerId: 'back', pieceId: 'p1', folio: '1', layerName: 'Back', guestId, loose: false, printed: false, path, x: 1, y: 1, rotation: 0 }], // prettier-ignore
    took: { sheets: 1, offCut: { id: 'strip', label: 'strip', path }, keptIds: ['kept'] },
  })

const drawn = stack('frame', plate('back', 0, [0, 0, 50, 50]))
const now: Project = {
  ...drawn,
  name: 'now',
  cut: [sheetOf('s-1', null)],
  progress: { ...drawn.progress, done: ['cut-s-1'] },
  journal: { ...drawn.journal, note: 'went well' },
  drawer: { ...drawn.drawer, papers: [{ ...paper, count: 3 }] },
}

describe('a past version that is gone back to', () => {
  const past: Project = {
    ...drawn,
    name: 'past',
    cut: [sheetOf('s-9', null)],
    journal: { ...drawn.journal, note: 'begun' },
    drawer: {
      ...drawn.drawer,
      papers: [
        { ...paper, count: 4 },
        { ...paper, id: 'gone-since' },
      ],
    },
  }

  it('has the design of then and what was done up to now', () => {
    const back = wentBack(past, now)
    expect(back.name).toBe('past')
    expect(back.cut).toBe(now.cut)
    expect(back.progress).toBe(now.progress)
    expect(back.journal.note).toBe('went well')
    expect(back.drawer.papers.map(({ id, count }) => [id, count])).toEqual([
      [paper.id, 3],
      ['gone-since', paper.count],
    ])
    expect(wentBack(past, { ...now, journal: drawn.journal }).journal.note).toBe('begun')
    // A paper that only the project has, and came later, takes back what was cut of it.
    const before = { ...past, drawer: { ...past.drawer, papers: [] } }
    const after = uncut({ project: wentBack(before, now), stock: [] }, 's-1').project
    expect(after.drawer.papers.map(({ id, count }) => [id, count])).toEqual([[paper.id, 4]])
  })
})

describe('a file that is opened beside its own project', () => {
  const beside = besideItself({ ...now, cut: [sheetOf('s-1', 'guest')] }, 'other')

  it('knows what is cut, and tells no guest of it a second time', () => {
    expect(beside.cut.map(({ id, pieces }) => [id, pieces.length])).toEqual([['s-1', 0]])
    const alone = besideItself(now, 'other')
    expect(alone.cut.map(({ id, pieces }) => [id, pieces.length])).toEqual([['s-1', 1]])
    expect(cutForOthers(beside)).toEqual([])
  })

  it('keeps of its own what the other does not know of', () => {
    const took = ['pad-1', 'pad-2'].map((stepId) => ({ stepId, foams: [], things: [] }))
    const both = {
      ...now,
      cut: [sheetOf('s-1', 'guest'), sheetOf('s-2', 'guest')],
      progress: { ...now.progress, took },
    }
    const book = { cut: [sheetOf('s-1', null)], progress: { ...now.progress, took: took.slice(0, 1) } }
    const { cut, progress } = besideItself(both, 'other', book)
    expect(progress.took.map(({ stepId }) => stepId)).toEqual(['pad-2'])
    expect(cut.map(({ took, pieces }) => [took.sheets, pieces.length])).toEqual([[0, 0], [1, 1]]) // prettier-ignore
  })

  it('gives nothing back to the drawer that it did not take', () => {
    const stock = [{ ...paper, count: 3 }]
    const after = uncut({ project: beside, stock }, 's-1')
    expect(after.project.cut).toEqual([])
    expect(after.stock).toEqual(stock)
  })
})
