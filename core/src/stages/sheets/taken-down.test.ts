import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { demo } from '../../demo'
import { setPlan, transformLayers, type Project } from '../../project'
import { starterStock } from '../paper'
import { lieAlike, takeDown, toNote, type WhatIsCut } from './taken-down'

const stock = starterStock()
const harbour = demo('harbour')
const toppers = setPlan(demo('bon-voyage'), { batch: 6 })
const loadsOf = (project: Project) => results(project, stock).loads
const takenFrom = (project: Project) => loadsOf(project).map((load) => takeDown(project, load, stock))
/** Whether each load of a project has its like in another, by its id. */
const alike = (a: Project, b: Project) =>
  takenFrom(a).map(({ sheet }) => {
    const other = takenFrom(b).find((one) => one.sheet.id === sheet.id)
    return other !== undefined && lieAlike(sheet, other.sheet)
  })

describe('a load that was taken down', () => {
  it('lies as it did where the work was only named, or a layer moved in it', () => {
    expect(alike(harbour, { ...harbour, name: 'another' })).not.toContain(false)
    const ids = harbour.layers.map(({ id }) => id)
    const moved = transformLayers(harbour, [1, 0, 0, 1, 3.3, -1.7], [ids[2]!])
    expect(moved.layers[2]!.pieces[0]!.path).not.toBe(harbour.layers[2]!.pieces[0]!.path)
    expect(alike(harbour, moved)).not.toContain(false)
  })

  it('lies otherwise with another outline, gap or number, and tells which', () => {
    const { id } = harbour.layers[0]!
    const scaled = transformLayers(harbour, [0.97, 0, 0, 0.97, 0, 0], [id])
    const its = loadsOf(harbour).map(({ pieces }) => pieces.some(({ layerId }) => layerId === id))
    expect(alike(harbour, scaled)).toEqual(its.map((one) => !one))
    expect(alike(harbour, setPlan(harbour, { batch: 2 }))).toContain(false)
    expect(alike(toppers, setPlan(toppers, { gapMm: toppers.plan.gapMm + 4 }))).toContain(false)
  })

  it('is the same sheet whatever the order of its pieces, and not with one turned or gone', () => {
    const { sheet } = takenFrom(toppers).find((one) => one.sheet.pieces.length > 2)!
    expect(lieAlike(sheet, { ...sheet, pieces: sheet.pieces.toReversed() })).toBe(true)
    expect(lieAlike(sheet, { ...sheet, pieces: sheet.pieces.slice(1) })).toBe(false)
    const [first, ...rest] = sheet.pieces
    const turned = { ...first!, rotation: first!.rotation + 90 }
    expect(lieAlike(sheet, { ...sheet, pieces: [turned, ...rest] })).toBe(false)
    expect(lieAlike(sheet, { ...sheet, pieces: [first!, first!, ...rest.slice(1)] })).toBe(false)
  })
})

describe('what is noted of loads that are cut', () => {
  const now = setPlan(harbour, { batch: 2 })
  const saved = takenFrom(harbour)
  const noted = (what: WhatIsCut, project = now) => {
    const { loads, left } = results(project, stock)
    return toNote({ project, stock }, { loads, left }, what)
  }
  const ids = loadsOf(now).map(({ id }) => id)
  const changed = saved.filter(
    ({ sheet }) => !noted({ loadIds: ids }).sheets.some((one) => lieAlike(one, sheet)),
  )

  it('is their file where they lie otherwise now, with the off-cuts of the file', () => {
    expect(changed.length).toBeGreaterThan(0)
    const { sheets, kept, asSaved } = noted({ loadIds: ids, saved })
    expect(asSaved.toSorted()).toEqual(changed.map(({ sheet }) => sheet.id).sort())
    for (const { sheet, kept: clean } of changed) {
      expect(sheets.find(({ id }) => id === sheet.id)).toEqual(sheet)
      expect(kept.filter(({ loadId }) => loadId === sheet.id)).toEqual(clean)
    }
    expect(sheets.map(({ id }) => id).sort()).toEqual(ids.toSorted())
  })

  it('is how they lie where nothing was saved, where it lies as saved, or where single pieces are named', () => {
    expect(noted({ loadIds: ids }).asSaved).toEqual([])
    expect(noted({ loadIds: ids, saved: takenFrom(now) }).asSaved).toEqual([])
    const [first] = changed
    expect(noted({ loadIds: [first!.sheet.id], saved, whole: [] }).asSaved).toEqual([])
  })

  it('is what was sent, and nothing where that is noted', () => {
    const [sent] = saved
    expect(noted({ loadIds: [], sent: sent! }).sheets).toEqual([sent!.sheet])
    expect(noted({ loadIds: [], sent: sent! }, { ...now, cut: [sent!.sheet] }).sheets).toEqual([])
  })
})
