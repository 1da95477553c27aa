// Several projects on each other's sheets: taken along, cut, sent home and cut again, in any order. What is whole in any book is cut nowhere again.
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { Cache, seededRandom } from '../../base'
import { pathToRegion, polygonArea } from '../../base/geometry'
import { Planner } from '../../planner'
import {
  alsoCutBy,
  assignPaper,
  besideItself,
  builtLayers,
  cutForOthers,
  forgetCut,
  goodCuts,
  hasChanged,
  markSpoilt,
  mayGoAlong,
  outdatedCuts,
  piecesIn,
  refreshPapers,
  sendHome,
  setLayer,
  setPlan,
  shelved,
  spoilElsewhere,
  takeAlong,
  toldBy,
  transformLayers,
  uncut,
  wentBack,
  wholeElsewhere,
  type Paper,
  type Project,
} from '../../project'
import { nodes } from '../index'
import { starterStock } from '../paper'
import { freezeSheets, sheetOf } from './frozen'
import type { Load } from './loads/loads'

const PAPERS = starterStock().filter(({ finish }) => finish === 'smooth').slice(0, 2) // prettier-ignore

/** Projects that lie on one shelf, each as it is once it is opened. */
class Shelf {
  private readonly planner = new Planner(new Cache())
  private at = 1
  gone = new Map<string, Project>()
  /** Past versions of projects, and files of them. */
  past: Project[] = []
  stock: readonly Paper[] = PAPERS

  constructor(public there: Map<string, Project>) {
    this.freshen()
  }

  loads(project: Project): Load[] {
    this.planner.update({ project, stock: this.stock, found: new Map() })
    return this.planner.get(nodes.loads())
  }

  cut(project: Project, load: Load): void {
    this.planner.update({ project, stock: this.stock, found: new Map() })
    const runs = this.planner.get(nodes.nested())
    const sheets = [sheetOf(project, load, this)]
    const frozen = freezeSheets({ project, stock: this.stock }, { sheets, runs, kept: [], at: this.at++ })
    this.put(frozen.project, frozen.stock)
  }

  put(project: Project, stock = this.stock): void {
    this.stock = stock
    this.there.set(project.id, project)
    this.freshen()
  }

  /** Every project is opened once, and hosts take their guests anew. */
  freshen(): void {
    const all = () => [...this.there.values()]
    // Where two hosts have one guest each says so, and one sends it home.
    for (const host of all())
      for (const { projectId } of host.plan.guests)
        if (alsoCutBy(host, projectId, all().map(shelved)).length > 0)
          this.there.set(host.id, sendHome(this.there.get(host.id)!, projectId))
    const books = all()
    for (const project of books) {
      const told = toldBy(project, {
        books: books.filter((book) => cutForOthers(book).includes(project.id)),
        shelf: books.map(shelved),
        unread: new Set(),
      })
      this.there.set(project.id, refreshPapers(told, this.stock))
    }
    for (const host of all())
      for (const guest of host.plan.guests) {
        const now = this.there.get(guest.projectId)
        const held = this.there.get(host.id)!
        if (now && hasChanged(guest, now, host.id)) this.there.set(host.id, takeAlong(held, now))
      }
  }
}

/** A project whose pieces are all of one paper. */
function work(id: string, name: string, ...rects: [number, number, number, number][]): Project {
  const made = stack('free', plate('back', 0, ...rects), plate('top', 2, [0, 0, 40, 30], [60, 0, 25, 25]))
  const layers = made.layers.map((layer) => layer.id)
  return assignPaper({ ...made, id, name }, layers, { paper: PAPERS[0]!, stock: PAPERS })
}

const shelfOfThree = () =>
  new Shelf(
    new Map(
      [
        work('a', 'Anemone', [0, 0, 180, 180], [0, 190, 60, 60]),
        work('b', 'Beacon', [0, 0, 120, 90]),
        work('c', 'Conch', [0, 0, 90, 90], [100, 0, 90, 90]),
      ].map((project) => [project.id, project]),
    ),
  )

const areaOf = (path: string) => pathToRegion(path).reduce((sum, face) => sum + polygonArea(face), 0)

/** What is cut twice or missing, of all that is on the shelf. */
function faultsOf(shelf: Shelf): string[] {
  const faults: string[] = []
  const books = [...shelf.there.values(), ...shelf.gone.values()]
  const laid = [...shelf.there.values()].flatMap((host) =>
    shelf
      .loads(host)
      .flatMap(({ pieces }) =>
        pieces.map((piece) =>
          piece.guestId === null
            ? `${host.id}:${piece.layerId}/${piece.pieceId}`
            : `${piece.layerId}/${piece.pieceId}`,
        ),
      ),
  )
  for (const project of shelf.there.values())
    for (const layer of builtLayers(project))
      for (const piece of layer.pieces) {
        const good = books.flatMap((book) =>
          book.cut
            .filter(({ paper }) => paper.id === layer.paperId)
            .flatMap(({ pieces }) => pieces)
            .filter((one) => one.spoilt === null && one.pieceId === piece.id)
            .filter((one) =>
              book.id === project.id
                ? one.guestId === null && one.layerId === layer.id
                : one.guestId === project.id && one.layerId === `${project.id}:${layer.id}`,
            )
            .filter((one) => Math.abs(areaOf(one.path) / areaOf(piece.path) - 1) < 1e-6),
        ).length
        const spoilt = project.cutElsewhere
          .flatMap((one) => one.spoilt)
          .filter(
            (one) => one.layerId === layer.id && one.pieceId === piece.id && one.paperId === layer.paperId,
          )
          .filter((one) => Math.abs(areaOf(one.path) / areaOf(piece.path) - 1) < 1e-6).length
        const id = `${project.id}:${layer.id}/${piece.id}`
        const wanted = Math.max(0, layer.copies * project.plan.batch - (good - spoilt))
        const there = laid.filter((one) => one === id).length
        if (there !== wanted) faults.push(`${id}: ${there} on the sheets for ${wanted}`)
      }
  for (const paper of shelf.stock) {
    const sheets = books.flatMap(({ cut }) => cut.filter((one) => one.paper.id === paper.id))
    const taken = sheets.reduce((sum, { took }) => sum + took.sheets, 0)
    const { count } = PAPERS.find(({ id }) => id === paper.id)!
    if (paper.count + taken !== count) faults.push(`${paper.name}: ${paper.count} left, ${taken} taken`)
  }
  return faults
}

type One = <T>(list: readonly T[]) => T | undefined

/** One step of the walk, and what it is called. */
const STEPS: ((shelf: Shelf, one: One) => string)[] = [
  (shelf, one) => {
    const host = one([...shelf.there.values()])!
    const id = one(mayGoAlong(host, [...shelf.there.values()].map(shelved)))?.id
    const other = id === undefined ? undefined : shelf.there.get(id)
    if (other) shelf.put(takeAlong(host, other))
    return `${host.id} takes ${id} along`
  },
  (shelf, one) => {
    const host = one([...shelf.there.values()])!
    const guest = one(host.plan.guests)
    if (guest) shelf.put(sendHome(host, guest.projectId))
    return `${host.id} sends ${guest?.projectId} home`
  },
  ...[1, 2].map(() => (shelf: Shelf, one: One) => {
    const project = one([...shelf.there.values()])!
    const load = one(shelf.loads(project))
    if (load) shelf.cut(project, load)
    return `${project.id} cuts ${load?.id}`
  }),
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const sheet = one(project.cut)
    if (sheet) {
      const back = uncut({ project, stock: shelf.stock }, sheet.id)
      shelf.put(back.project, back.stock)
    }
    return `${project.id} takes ${sheet?.id} back`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const sheet = one(project.cut)
    const index = one(sheet?.pieces.map((_, k) => k) ?? []) ?? 0
    const what = one(['torn', 'lost', null] as const)!
    if (sheet) shelf.put(markSpoilt(project, { sheetId: sheet.id, index }, what))
    return `${project.id} has piece ${index} of ${sheet?.id} ${what ?? 'whole'}`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const piece = one(project.cutElsewhere.flatMap(wholeElsewhere).flatMap(({ pieces }) => pieces))
    const spoilt = piece && spoilElsewhere(project, { ...piece, why: 'torn' })
    if (spoilt) shelf.put(spoilt)
    return `${project.id} tears ${piece?.layerId}/${piece?.pieceId}, cut elsewhere`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const layer = one(project.layers)!
    const by = one([0.9, 1 / 0.9])!
    shelf.put(transformLayers(project, [by, 0, 0, by, 0, 0], [layer.id]))
    return `${project.id} scales ${layer.id}`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const layer = one(project.layers)!
    shelf.put(transformLayers(project, [0, 1, -1, 0, 200, 3], [layer.id]))
    return `${project.id} turns ${layer.id}`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const layer = one(project.layers)!
    shelf.put(setLayer(setPlan(project, { batch: one([1, 2, 3])! }), layer.id, { copies: one([1, 2])! }))
    return `${project.id} is made otherwise often`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    const layer = one(project.layers)!
    shelf.put(assignPaper(project, [layer.id], { paper: one(PAPERS)!, stock: [...shelf.stock] }))
    return `${project.id} has another paper for ${layer.id}`
  },
  (shelf, one) => {
    const project = one([...shelf.there.values()])!
    shelf.past.push(project)
    return `${project.id} is kept as version ${shelf.past.length - 1}`
  },
  (shelf, one) => {
    const past = one(shelf.past)
    const now = past && shelf.there.get(past.id)
    if (now) shelf.put(wentBack(past, now))
    return `back to version ${past ? shelf.past.indexOf(past) : 'none'}`
  },
  (shelf, one) => {
    const past = one(shelf.past)
    if (!past || shelf.there.size + shelf.gone.size > 3) return 'nothing is opened'
    const id = `${past.id}-${shelf.past.indexOf(past)}`
    shelf.put(besideItself(past, id))
    return `version ${shelf.past.indexOf(past)} is opened as ${id}`
  },
  (shelf, one) => {
    const back = one([...shelf.gone.values()])
    if (back) {
      shelf.gone.delete(back.id)
      shelf.put(back)
      return `${back.id} is put back`
    }
    const project = one([...shelf.there.values()])!
    shelf.there.delete(project.id)
    shelf.gone.set(project.id, project)
    shelf.freshen()
    return `${project.id} is off the shelf`
  },
]

describe('projects on each other’s sheets', () => {
  it.each([1, 2, 3, 4])('cut no piece twice and miss none, whoever’s sheets it was on (seed %i)', (seed) => {
    const random = seededRandom(seed)
    const one: One = (list) => list[Math.floor(random() * list.length)]
    const shelf = shelfOfThree()
    const told: string[] = []
    for (let k = 0; k < 40; k++) {
      told.push(one(STEPS)!(shelf, one))
      expect(faultsOf(shelf), told.join('; ')).toEqual([])
    }
  })

  it('say nothing of pieces that another book has, and of those at home what spoils them', () => {
    const shelf = shelfOfThree()
    const of = (id: string) => shelf.there.get(id)!
    shelf.cut(of('b'), shelf.loads(of('b'))[0]!)
    shelf.put(takeAlong(of('a'), of('b')))
    // What it cut itself stays of use while it is cut along.
    expect(of('b').plan.cutWith).toEqual({ projectId: 'a', name: 'Anemone' })
    expect(outdatedCuts(of('b'))).toEqual([])
    shelf.put(setPlan(of('b'), { batch: 2 }))
    while (shelf.loads(of('a')).length > 0) shelf.cut(of('a'), shelf.loads(of('a'))[0]!)
    expect(cutForOthers(of('a'))).toEqual(['b'])
    shelf.put(sendHome(of('a'), 'b'))
    expect(outdatedCuts(of('a'))).toEqual([])
    expect(of('b').cutElsewhere.map(({ name, sheets }) => [name, piecesIn(sheets)])).toEqual([['Anemone', 3]])
    expect(goodCuts(of('b')).get('top')).toBe(4)
    shelf.put(transformLayers(of('b'), [0.9, 0, 0, 0.9, 0, 0], ['top']))
    expect(outdatedCuts(of('b'))).toEqual([{ layerId: 'top', layerName: 'top', pieces: 4, why: 'shape' }])
    expect(goodCuts(of('b')).has('top')).toBe(false)
  })

  it('keep what a host cut that is gone, until it is to be cut again', () => {
    const shelf = shelfOfThree()
    shelf.put(takeAlong(shelf.there.get('a')!, shelf.there.get('b')!))
    const host = () => shelf.there.get('a')!
    while (shelf.loads(host()).length > 0) shelf.cut(host(), shelf.loads(host())[0]!)
    shelf.put(sendHome(host(), 'b'))
    const guest = () => shelf.there.get('b')!
    expect(shelf.loads(guest())).toEqual([])
    shelf.gone.set('a', host())
    shelf.there.delete('a')
    shelf.freshen()
    expect(shelf.loads(guest())).toEqual([])
    shelf.put(forgetCut(guest(), 'a'))
    expect(shelf.loads(guest()).flatMap(({ pieces }) => pieces)).toHaveLength(3)
  })
})
