// The planner's worker by itself: what it posts for which revision, what it listens to meanwhile, what it gives when asked.
import { beforeEach, describe, expect, it } from 'vitest'
import { deltaOf } from '@feuillet/core/base'
import { demo } from '@feuillet/core/demo'
import { assignPaper, scaleParts, starterSupplies, type Project } from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import type { KeptLayout, LoadView, NestLayout } from '@feuillet/core/stages/sheets'
import { apiOf } from '../../test/page-workers'
import { waitFor } from '../../test/screens'
import type { PlannerApi, Report, Watched } from './planner.worker'

const stock = starterStock()
const api = (await apiOf('planner')) as unknown as PlannerApi
let reports: Report[] = []
let revision = 0

const boat = demo('bon-voyage')
const inputsOf = (project: Project) => ({ project, stock, supplies: starterSupplies() })
/** What of a node was posted last. */
const last = (name: string): unknown =>
  reports.flatMap(({ views }) => views).findLast(([of]) => of === name)?.[1]
const settled = (at = revision) =>
  waitFor(() => expect(reports.some((one) => one.revision === at && one.doing === null)).toBe(true))

async function open(project: Project, watched: Watched[], without: string[] = []): Promise<void> {
  api.close()
  reports = []
  api.listen((report) => void reports.push(structuredClone(report)), without)
  api.open(++revision, inputsOf(project), [])
  api.watch(watched)
  await settled()
}
function revise(from: Project, to: Project): void {
  api.revise(++revision, deltaOf(inputsOf(from), inputsOf(to)))
}
const withCopies = (copies: number): Project => ({
  ...boat,
  layers: boat.layers.map((layer) => (layer.id === 'backing' ? { ...layer, copies } : layer)),
})
const loads = () => last('loads') as LoadView[]

beforeEach(() => void (reports = []))

describe('what is watched', () => {
  it('comes in the order in which it is asked for, each once, and is told to be fresh', async () => {
    await open(boat, [{ node: 'levels' }, { node: 'loads' }, { node: 'assembly' }])
    const names = reports.flatMap(({ views }) => views.map(([name]) => name))
    expect(names).toEqual(['levels', 'loads', 'assembly'])
    expect(new Set(reports.flatMap(({ fresh }) => fresh))).toEqual(new Set(names))
    expect(reports.every((report) => report.failed.length === 0)).toBe(true)
  })

  it('is not posted again where an edit does not touch it', async () => {
    await open(boat, [{ node: 'levels' }, { node: 'loads' }])
    reports = []
    revise(boat, { ...boat, name: 'Another name' })
    await settled()
    expect(reports.flatMap(({ views }) => views)).toEqual([])
    expect(new Set(reports.flatMap(({ fresh }) => fresh))).toEqual(new Set(['levels', 'loads']))
  })

  it('is that of the newest revision, however fast they come', async () => {
    await open(boat, [{ node: 'loads' }])
    let before = boat
    for (const copies of [2, 3, 4, 5, 6]) {
      const next = withCopies(copies)
      revise(before, next)
      before = next
    }
    await settled()
    const backings = loads()
      .flatMap(({ pieces }) => pieces)
      .filter(({ layerId }) => layerId === 'backing')
    expect(backings).toHaveLength(6)
    // Nothing that was outdated was posted as fresh of a later revision.
    for (const { revision: of, doing } of reports)
      if (doing === null) expect(of).toBeLessThanOrEqual(revision)
  })

  it('of what is watched no more nothing is posted, and watched anew it comes again', async () => {
    await open(boat, [{ node: 'loads' }])
    api.watch([{ node: 'levels' }])
    await waitFor(() => expect(last('levels')).toBeTruthy())
    reports = []
    api.watch([{ node: 'loads' }])
    await waitFor(() => expect(loads()).toHaveLength(3))
  })

  it('is gone on without where it hung before', async () => {
    await open(boat, [{ node: 'depth' }, { node: 'loads' }], ['depth'])
    expect(reports.flatMap(({ failed }) => failed)).toContainEqual(['depth', 'it took too long'])
    expect(loads()).toHaveLength(3)
    expect(last('depth')).toBeUndefined()
  })

  it('of one layer is of that layer', async () => {
    await open(boat, [
      { node: 'figures', arg: 'words' },
      { node: 'figures', arg: 'nobody' },
    ])
    const words = boat.layers.find(({ id }) => id === 'words')!
    expect(last('figures words')).toMatchObject({ pieces: words.pieces.length })
    // One that is not there says so by itself, and the others come all the same.
    const failed = reports.flatMap((report) => report.failed)
    expect(failed.map(([name]) => name)).toEqual(['figures nobody'])
    expect(failed[0]![1]).toBeTruthy()
  })

  it('nothing is posted of a project that was closed', async () => {
    await open(boat, [{ node: 'loads' }])
    api.close()
    reports = []
    api.watch([{ node: 'loads' }])
    await new Promise((resolve) => setTimeout(resolve, 60))
    expect(reports.flatMap(({ views }) => views)).toEqual([])
    expect(() => api.revise(99, deltaOf(1, 2))).toThrow('no project is open')
  })
})

describe('what is asked for', () => {
  beforeEach(() => open(boat, [{ node: 'loads' }]))

  it('what is sent and pictures are of a load by its id', async () => {
    const [first] = loads()
    const { plot, sent } = await api.send(first!.id, stock)
    expect(plot).toMatch(/^IN;|^PA|PU/m)
    expect(sent.ways.length).toBeGreaterThan(0)
    expect(sent.load).toEqual(first)
    expect(await api.picture(first!.id)).toContain('<svg xmlns')
    await expect(api.send('nobody', stock)).rejects.toThrow('this load is no longer there')
  })

  it('what was sent is frozen as it was, once, however it lies now', async () => {
    const [first] = loads()
    const { sent } = await api.send(first!.id, stock)
    const what = { loadIds: [first!.id], at: 5, sent }
    const changed = withCopies(3)
    revise(boat, changed)
    await settled()
    const { project } = (await api.freeze(changed, stock, what))!
    expect(project.cut).toEqual([
      { ...sent.sheet, at: 5, took: { ...sent.sheet.took, keptIds: expect.any(Array) } },
    ])
    expect(await api.freeze(project, stock, what)).toBeNull()
  })

  it('a load lies as in its file until the plan is another', async () => {
    const { loads: taken } = await api.files(stock)
    const like = () => Promise.all(taken.map((one) => api.liesAs(one, stock)))
    expect(await like()).toEqual(taken.map(() => true))
    revise(boat, withCopies(3))
    await settled()
    expect(await like()).toContain(false)
    expect(await api.liesAs({ ...taken[0]!, sheet: { ...taken[0]!.sheet, id: 'gone' } }, stock)).toBeNull()
  })

  it('what was searched for, and what files were saved of, lies on where another layer changes', async () => {
    const [first] = stock
    const onePaper = assignPaper(boat, boat.layers.map(({ id }) => id), { paper: first!, stock }) // prettier-ignore
    revise(boat, onePaper)
    await settled()
    const [[name, layout]] = (await Promise.resolve(api.hold())) as [KeptLayout]
    // Elsewhere than any layout from the start has them.
    const aside = layout.placements.map((place) => ({ ...place, x: place.x + 3, y: place.y + 2 }))
    api.takeLayouts([[name, { ...layout, placements: aside }]])
    const lying = () => loads().flatMap(({ pieces }) => pieces.flatMap(({ layerId, placement: { x, y } }) => layerId === 'boat' ? [] : [[layerId, x, y]])) // prettier-ignore
    await waitFor(() => expect(lying()[0]![1]).toBeCloseTo(layout.placements[0]!.x + 3, 0))
    const before = lying()
    const { loads: taken } = await api.files(stock)
    api.hold()
    const smaller = scaleParts(onePaper, ['boat'], 0.9)
    revise(onePaper, smaller)
    await settled()
    expect(lying()).toEqual(before)
    expect(taken).toHaveLength(1)
    // Its own load is another than in its file.
    expect(await api.liesAs(taken[0]!, stock)).toBe(false)
  })

  it('files hold a cut file for each load, lists and tags', async () => {
    const { files, loads: taken } = await api.files(stock)
    expect(taken.map(({ sheet }) => sheet.id)).toEqual(loads().map(({ id }) => id))
    const names = [...files.keys()]
    expect(names.filter((name) => /^load-\d\d-.*\.svg$/.test(name))).toHaveLength(loads().length)
    expect(names).toContain('sheet-tags.pdf')
    expect(names.some((name) => name.endsWith('.csv'))).toBe(true)
  }, 60_000)

  it('loads are frozen only in the project that asks', async () => {
    const loadIds = [loads()[0]!.id]
    expect(await api.freeze({ ...boat, id: 'another' }, stock, { loadIds, at: 5 })).toBeNull()
    expect(await api.freeze(boat, stock, { loadIds: ['nobody'], at: 5 })).toBeNull()
    const frozen = (await api.freeze(boat, stock, { loadIds, at: 5 }))!
    expect(frozen.project.cut.map(({ id, at }) => [id, at])).toEqual([[loadIds[0], 5]])
    const paper = loads()[0]!.paper.id
    const count = (of: readonly { id: string; count: number }[]) => of.find(({ id }) => id === paper)!.count
    expect(count(frozen.stock)).toBe(count(stock) - 1)
  })

  it('pieces slide, are put and sent, and are told no where they may not lie', () => {
    const [first] = loads()
    const [piece] = first!.pieces
    const key = `${piece!.layerId}/${piece!.pieceId}#${piece!.placement.copy}`
    const { placement } = piece!
    const near = api.place(first!.id, [placement])
    expect(near).toMatchObject({ ok: true })
    const far = api.place(first!.id, [{ ...placement, x: placement.x + 5000 }])
    expect(far).toMatchObject({ ok: false })
    expect(Array.isArray(api.settle(first!.id, [key]))).toBe(true)
    expect(api.sendTo(first!.id, [placement], 1)).toHaveLength(1)
  })

  it('another project is counted without touching the open one', async () => {
    const before = loads()
    const counted = (await api.candidate(demo('regatta'), stock))!
    expect(counted.name).toBe('Regatta')
    expect(await api.candidate({ ...boat, layers: [] }, stock)).toBeNull()
    reports = []
    revise(boat, withCopies(2))
    await settled()
    expect(loads().length).toBeGreaterThanOrEqual(before.length)
  })

  it('a layout of a run that is not there changes nothing', async () => {
    const before = loads()
    reports = []
    const layout = { score: 9, placements: [], sheets: 9, utilisation: 0 } as unknown as NestLayout
    api.takeLayouts([['no such run', layout]])
    await settled()
    expect(last('loads') ?? before).toEqual(before)
  })
})
