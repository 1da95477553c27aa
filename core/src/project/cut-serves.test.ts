// Cut pieces are of use for whatever asks for the like of them.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../test/stack'
import { groupBy } from '../base'
import {
  ellipse,
  mapRegion,
  pathToRegion,
  rectangle,
  rotation,
  signedArea,
  type Affine,
  type Polygon,
} from '../base/geometry'
import { mergeLayers, movePieces, splitOff } from '../stages/layers'
import { starterStock } from '../stages/paper'
import { askedFor, servedCuts, stillToCut } from './cut-serves'
import { goodCuts, lostCuts, markSpoilt, otherUses, outdatedCuts } from './cut-record'
import { cutLayers, moveParts, removeLayer, scaleParts, setLayer, type Layer, type Project } from './index'

const [paper, other] = starterStock()

/** Layers of one paper, each piece of them cut as often as it is asked for. */
function cutWhole(...layers: Layer[]): Project {
  const bare = stack('free', ...layers.map((layer) => ({ ...layer, paperId: paper!.id })))
  const project = { ...bare, drawer: { ...bare.drawer, papers: [paper!, other!] } }
  const pieces = cutLayers(project).flatMap((layer) =>
    layer.layer.pieces.flatMap((piece) =>
      Array.from({ length: askedFor(layer, piece) }, () => ({
        layerId: layer.id,
        pieceId: piece.id,
        layerName: layer.layer.name,
        path: piece.path,
        printed: layer.layer.print !== null,
        guestId: null,
        spoilt: null,
      })),
    ),
  )
  const sheet = { id: 's', number: 1, nthOfRun: 1, at: 1, paper, pieces } as unknown as Project['cut'][number]
  return { ...project, cut: [sheet] }
}

/** What is still to be cut, as layer/piece and how often. */
function left(project: Project): string[] {
  const still = stillToCut(project)
  return cutLayers(project).flatMap((layer) =>
    layer.layer.pieces.flatMap((piece) => {
      const n = still(layer, piece)
      return n > 0 ? [`${layer.id}/${piece.id} ${n}`] : []
    }),
  )
}

const two = () =>
  cutWhole(
    plate('low', 0, [0, 0, 90, 60], [100, 0, 30, 20], [140, 0, 25, 25]),
    plate('top', 2, [10, 10, 40, 40], [60, 10, 10, 12]),
  )

describe('pieces that are cut', () => {
  it('stay cut when they are moved into another layer, split off, or merged', () => {
    const project = two()
    expect(left(project)).toEqual([])
    const moved = movePieces(project, 'low', { pieceIds: ['p2', 'p3'], toId: 'top' })
    const split = splitOff(project, 'low', ['p2'])
    const merged = mergeLayers(moveParts(project, ['top'], [200, 0]), ['low', 'top'])
    for (const after of [moved, split, merged]) {
      expect(after.layers.flatMap(({ pieces }) => pieces)).toHaveLength(5)
      expect(left(after)).toEqual([])
      expect(outdatedCuts(after)).toEqual([])
      expect(lostCuts(project, after)).toEqual({ spoilt: 0, idle: 0 })
    }
    expect([...goodCuts(moved)]).toEqual([['low', 1], ['top', 4]]) // prettier-ignore
    expect([...otherUses(moved)].map(([key, { layerName }]) => `${key} ${layerName}`)).toEqual(['s#1 top', 's#2 top']) // prettier-ignore
    expect(otherUses(project).size).toBe(0)
  })

  it('join what they touch, and are then to be cut again with it', () => {
    const project = cutWhole(
      plate('low', 0, [0, 0, 90, 60], [100, 0, 30, 20]),
      plate('top', 2, [95, 5, 10, 10]),
    )
    const joined = movePieces(project, 'low', { pieceIds: ['p2'], toId: 'top' })
    expect(left(joined)).toEqual(['top/p1 1'])
    expect(lostCuts(project, joined)).toEqual({ spoilt: 2, idle: 0 })
  })

  it('serve one other piece each, of the same paper and shape; mirrored it is another', () => {
    const shape = [[0, 0], [30, 0], [30, 8], [12, 20], [0, 20]] // prettier-ignore
    const ring = Float64Array.from(shape.flat())
    const at = (map: Affine) => mapRegion(map, [{ outer: ring, holes: [] }])
    const leaf = (id: string, ...maps: Affine[]) => card(id, 0, maps.flatMap(at))
    const cut = cutWhole(leaf('a', [1, 0, 0, 1, 0, 0]))
    const withMore = (layer: Layer, patch: Partial<Layer> = {}) => ({
      ...cut,
      layers: [setLayer(cut, 'a', { leftOut: true, optional: true }).layers[0]!, { ...layer, paperId: paper!.id, ...patch }],
    }) // prettier-ignore
    const [cos, sin, nsin, ncos] = rotation(37)
    const turned = leaf('b', [cos, sin, nsin, ncos, 80, 5])
    expect(left(withMore(turned))).toEqual([])
    expect(lostCuts(cut, withMore(turned))).toEqual({ spoilt: 0, idle: 0 })
    expect(left(withMore(turned, { copies: 2 }))).toEqual(['b/p1 1'])
    expect(left(withMore(leaf('b', [1, 0, 0, 1, 0, 0], [1, 0, 0, 1, 50, 50])))).toHaveLength(1)
    expect(left(withMore(turned, { paperId: other!.id }))).toEqual(['b/p1 1'])
    expect(left(withMore(leaf('b', [-1, 0, 0, 1, 80, 5])))).toEqual(['b/p1 1'])
    expect(left(withMore(leaf('b', [1.01, 0, 0, 1, 80, 5])))).toEqual(['b/p1 1'])
    // One with folds, slits or a picture of its own does not come of plain card.
    expect(left(withMore(turned, { slits: [[80, 5, 90, 9]] }))).toEqual(['b/p1 1'])
    // A layer that is there still keeps its own.
    const beside = { ...cut, layers: [cut.layers[0]!, { ...turned, paperId: paper!.id }] }
    expect(left(beside)).toEqual(['b/p1 1'])
    expect(otherUses(beside).size).toBe(0)
  })

  it('are torn where they are of use now', () => {
    const project = movePieces(two(), 'low', { pieceIds: ['p2'], toId: 'top' })
    const { at, serves } = servedCuts(project).find((one) => one.piece.pieceId === 'p2' && one.piece.layerId === 'low')! // prettier-ignore
    expect(serves!.layer.id).toBe('top')
    expect(left(markSpoilt(project, at!, 'torn'))).toEqual([`top/${serves!.piece.id} 1`])
  })

  it('are as many as there are of each shape, however layers are parted, merged, left out and made larger', () => {
    const rects = fc.array(fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 2 })), {
      minLength: 1,
      maxLength: 6,
    })
    const plates = fc.array(rects, { minLength: 2, maxLength: 4 }).map((lists) =>
      lists.map((list, k) => {
        // Few sizes, so that many are alike; each in a place of its own.
        const faces = list.map(([size, kind], n) => {
          const x = 60 * n
          const y = 100 * k
          return kind === 0 ? ellipse([x, y], 9 + size, 5) : rectangle([x, y], 8 + size, 10 * kind)
        })
        return card(`l${k}`, 2, faces)
      }),
    )
    const edits = fc.array(fc.tuple(fc.integer({ min: 0, max: 5 }), fc.nat(), fc.nat()), { maxLength: 6 })
    fc.assert(
      fc.property(plates, edits, (layers, acts) => {
        const before = cutWhole(...layers)
        let after = before
        for (const [act, one, two] of acts) {
          const { layers: now } = after
          if (now.length < 2) break
          const [a, b] = [now[one % now.length]!, now[two % now.length]!]
          const piece = a.pieces[two % Math.max(1, a.pieces.length)]
          if (act === 0 && piece) after = movePieces(after, a.id, { pieceIds: [piece.id], toId: b.id })
          if (act === 1 && piece) after = splitOff(after, a.id, [piece.id])
          if (act === 2) after = mergeLayers(after, [a.id, b.id])
          if (act === 3) after = scaleParts(after, [a.id], 1.25)
          if (act === 4) after = setLayer(after, a.id, { leftOut: !a.leftOut, optional: true })
          if (act === 5) after = removeLayer(after, a.id)
        }
        const asked = cutLayers(after).flatMap(({ layer }) => layer.pieces)
        // By hand: shapes are told by the way round and the area, at places where rounding changes neither.
        const kindOf = ({ path }: { path: string }) => {
          const [{ outer }] = pathToRegion(path) as [Polygon]
          const round = outer.reduce((sum, v, i) => sum + (i % 2 ? 0 : Math.hypot(v - outer.at(i - 2)!, outer[i + 1]! - outer.at(i - 1)!)), 0) // prettier-ignore
          return `${outer.length} ${Math.round(round * 5 + 0.237)} ${Math.round(signedArea(outer) + 0.237)}`
        }
        const counted = (list: readonly { path: string }[]) => groupBy(list, kindOf)
        const cards = counted(before.cut[0]!.pieces)
        const of = counted(asked)
        const possible = [...cards].reduce((n, [kind, list]) => n + Math.min(list.length, of.get(kind)?.length ?? 0), 0) // prettier-ignore
        const served = servedCuts(after).filter(({ serves }) => serves)
        expect(served).toHaveLength(possible)
        for (const { piece, serves } of served) expect(kindOf(piece)).toBe(kindOf(serves!.piece))
        const still = left(after).reduce((sum, line) => sum + Number(line.split(' ')[1]), 0)
        expect(still).toBe(asked.length - possible)
        // No card serves twice, and nothing is served twice.
        expect(new Set(served.map(({ at }) => at!.index)).size).toBe(served.length)
        const taken = served.map(({ serves }) => `${serves!.layer.id}/${serves!.piece.id}`)
        expect(new Set(taken).size).toBe(taken.length)
      }),
      { numRuns: 60 },
    )
  })
})
