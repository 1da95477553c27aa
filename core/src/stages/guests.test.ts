import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../test/stack'
import { expectLegal } from '../../test/legal-layout'
import { demo } from '../demo'
import { cutFiles } from '../io/exports'
import { paperForGuests } from '../stages/journal'
import {
  guestOf,
  hasChanged,
  mayGoAlong,
  readProject,
  refreshHost,
  sendHome,
  setLayer,
  setPin,
  setPlan,
  shelved,
  takeAlong,
  writeProject,
  type Project,
} from '../project'
import { loadTag } from '../stages/sheets'
import { results } from '../../test/results'

const harbour = demo('harbour')
const boat: Project = { ...demo('bon-voyage'), name: 'Boat' }
const sheetsOf = (project: Project) => results(project).needed.reduce((sum, need) => sum + need.sheets, 0)

describe('a batch', () => {
  const one = results(harbour)
  const six = results(setPlan(harbour, { batch: 6 }))

  it('cuts every piece so often, on fewer sheets than each alone would take', () => {
    const pieces = (d: typeof one) => d.loads.reduce((sum, load) => sum + load.pieces.length, 0)
    expect(pieces(six)).toBe(6 * pieces(one))
    const boats = setPlan(boat, { batch: 4 })
    expect(sheetsOf(boats)).toBeLessThan(4 * sheetsOf(boat))
    for (const { run, layout } of results(boats).runs) expectLegal(run.instance, layout)
  })

  it('takes foam and hands for all, and dries all at once', () => {
    expect(six.depth.foamUse.map((use) => use.needed)).toEqual(one.depth.foamUse.map((use) => 6 * use.needed))
    expect(six.cost.foam).toBeCloseTo(6 * one.cost.foam, 9)
    const minutes = (d: typeof one, kind: string) =>
      d.assembly.steps.filter((step) => step.kind === kind).reduce((sum, step) => sum + step.minutes, 0)
    // Each of them a little quicker than the one before: n to the power of log2 0.92.
    const times = [1, 2, 3, 4, 5, 6].reduce((sum, n) => sum + n ** Math.log2(0.92), 0)
    for (const kind of ['pad', 'lay', 'dry-fit', 'close'])
      expect(minutes(six, kind)).toBeCloseTo(times * minutes(one, kind), 9)
    expect(minutes(six, 'dry')).toBe(minutes(one, 'dry'))
    expect(six.assembly.steps.find((step) => step.kind === 'lay')!.detail).toMatch(/For all 6\.$/)
  })
})

describe('several projects on the same sheets', () => {
  const both = takeAlong(harbour, boat)
  const derived = results(both)

  it('lie together, each piece once, the guest under its letter', () => {
    for (const { run, layout } of derived.runs) expectLegal(run.instance, layout)
    const guestPieces = derived.loads.flatMap((load) =>
      load.pieces.filter((piece) => piece.guestId === boat.id),
    )
    expect(guestPieces).toHaveLength(boat.layers.reduce((sum, layer) => sum + layer.pieces.length, 0))
    expect(new Set(guestPieces.map((piece) => piece.folio[0]))).toEqual(new Set(['A']))
    expect(guestPieces[0]!.layerName).toMatch(/^Boat: /)
    expect(new Set(derived.loads.map(loadTag)).size).toBe(derived.loads.length)
    expect(sheetsOf(both)).toBeLessThanOrEqual(sheetsOf(harbour) + sheetsOf(boat))
  })

  it('share a sheet where they are of one paper', () => {
    const host = stack('free', plate('a', 0, [0, 0, 60, 60]))
    const guest = { ...stack('free', plate('a', 0, [0, 0, 50, 50])), id: 'q', name: 'Tag' }
    const { loads } = results(takeAlong(host, guest))
    expect(loads).toHaveLength(1)
    expect(loads[0]!.folios).toEqual(['1', 'A1'])
  })

  it('bear numbers with their letter, and go out in the cut files', () => {
    const marked = derived.loads.flatMap((load) =>
      load.pieces.filter((piece) => piece.guestId !== null && piece.marks.number.length > 0),
    )
    expect(marked.length).toBeGreaterThan(0)
    // A letter and a figure are more strokes than the figure alone.
    const alone = results(boat).loads.flatMap((load) =>
      load.pieces.filter((piece) => piece.marks.number.length > 0),
    )
    expect(marked[0]!.marks.number.length).toBeGreaterThan(alone[0]!.marks.number.length)
    expect(
      [...cutFiles(both, derived.loads).values()].some((text) => String(text).includes('id="layer-A1"')),
    ).toBe(true)
  })

  it('leave the stack, its depth and its steps to the host alone', () => {
    expect(derived.depth).toEqual(results(harbour).depth)
    expect(derived.assembly.steps.filter((step) => step.kind === 'lay')).toHaveLength(
      results(harbour).assembly.steps.filter((step) => step.kind === 'lay').length,
    )
    expect(derived.cost.paper).toBeGreaterThan(results(harbour).cost.paper)
    expect(paperForGuests(derived.loads)).toBeGreaterThan(0)
    expect(paperForGuests(results(harbour).loads)).toBe(0)
  })

  it("are the guest's to make without sheets of its own", () => {
    const home = refreshHost(boat, [both, boat].map(shelved))
    expect(home.plan.cutWith).toEqual({ projectId: harbour.id, name: harbour.name })
    const alone = results(home)
    expect(alone.loads).toEqual([])
    expect(alone.cost.paper).toBe(0)
    expect(alone.assembly.steps[0]!.detail).toContain(`cut with “${harbour.name}”`)
    expect(alone.assembly.steps.some((step) => step.kind === 'cut')).toBe(false)
    expect(refreshHost(home, [sendHome(both, boat.id)].map(shelved)).plan.cutWith).toBeNull()
    expect(refreshHost(boat, [harbour].map(shelved))).toBe(boat)
  })

  it("are offered while they are nobody's guests or hosts", () => {
    expect(mayGoAlong(harbour, [harbour, boat].map(shelved)).map((p) => p.id)).toEqual([boat.id])
    const third = { ...demo('tide-rose'), id: 'third' }
    expect(mayGoAlong(third, [both, boat].map(shelved))).toEqual([])
    expect(mayGoAlong(refreshHost(boat, [both].map(shelved)), [third].map(shelved))).toEqual([])
  })

  it('know when the guest has changed, and take it anew in its place', () => {
    const [guest] = both.plan.guests
    expect(hasChanged(guest!, boat, harbour.id)).toBe(false)
    const first = boat.layers[0]!
    const onThickerFoam = setLayer(boat, first.id, { joint: { ...first.joint, gapMm: 5 } })
    expect(hasChanged(guest!, onThickerFoam, harbour.id)).toBe(false)
    const more = setLayer(boat, first.id, { copies: 3 })
    expect(hasChanged(guest!, more, harbour.id)).toBe(true)
    expect(takeAlong(both, more).plan.guests).toEqual([guestOf(more, harbour.id)])
  })

  it('survive the file, and pins of a guest go when it goes', () => {
    expect(readProject(writeProject(both))).toEqual(both)
    const piece = derived.loads.flatMap((load) => load.pieces).find((p) => p.guestId !== null)!
    const pinned = setPin(both, {
      layerId: piece.layerId,
      pieceId: piece.pieceId,
      copy: 0,
      sheet: 0,
      on: '',
      x: 0,
      y: 0,
      rotation: 0,
    })
    // Pinned into the rim: said, and not as one of the host's own layers.
    expect(results(pinned).snags.find((snag) => snag.code === 'pin-illegal')).toMatchObject({ layer: null })
    expect(sendHome(pinned, boat.id)).toEqual(harbour)
  })
})
