// Pieces keep their names when others of their layer are worked on: what is cut of them stays cut.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { ellipse, rectangle, regionArea, union } from '../../base/geometry'
import {
  cutLayers,
  layerRegion,
  pieceRegion,
  recipeSchema,
  stillToCut,
  type Piece,
  type Project,
} from '../../project'
import { drawStrip, makeLayer } from './index'
import { keptPieces } from './kept-pieces'
import { grow, growAgain } from './makers'
import { reshaped } from './reshaped'

type Rect = [number, number, number, number]
const pieces = (...rects: Rect[]): Piece[] => plate('a', 0, ...rects).pieces
const named = (list: readonly Piece[]) =>
  Object.fromEntries(list.map((piece) => [piece.id, Math.round(regionArea(pieceRegion(piece)))]))

/** All of a layer cut as it is. */
const cutAll = (project: Project): Project => ({
  ...project,
  cut: [
    {
      id: 's',
      number: 1,
      nthOfRun: 1,
      at: 1,
      paper: { id: 'x', name: 'X' },
      pieces: project.layers.flatMap((layer) =>
        layer.pieces.map(({ id, path }) => ({
          layerId: layer.id,
          pieceId: id,
          path,
          spoilt: null,
          guestId: null,
        })),
      ),
    } as unknown as Project['cut'][number],
  ],
})
const toCut = (project: Project, id: string) => {
  const layer = cutLayers(project).find((one) => one.id === id)!
  return layer.layer.pieces.filter((piece) => stillToCut(project)(layer, piece) > 0).map((piece) => piece.id)
}

describe('pieces of a layer that is shaped anew', () => {
  const before = pieces([0, 0, 10, 10], [20, 0, 9, 9], [40, 0, 8, 8])

  it('keep their names, also where one grows past the others', () => {
    expect(named(before)).toEqual({ p1: 100, p2: 81, p3: 64 })
    expect(named(keptPieces(before, pieces([0, 0, 10, 10], [20, 0, 9, 9], [40, 0, 12, 12])))).toEqual({ p1: 100, p2: 81, p3: 144 }) // prettier-ignore
    // One is gone, and its name with it; another is new and has a name of its own.
    expect(named(keptPieces(before, pieces([0, 0, 10, 10], [40, 0, 8, 8], [60, 0, 20, 20])))).toEqual({ p1: 100, p3: 64, p4: 400 }) // prettier-ignore
    // Of two parts of one the larger has its name; what two become has that of the larger.
    expect(named(keptPieces(before, pieces([0, 0, 3, 10], [4, 0, 6, 10], [20, 0, 28, 8])))).toEqual({ p1: 60, p2: 224, p4: 30 }) // prettier-ignore
    // Moved together, each is still itself.
    expect(named(keptPieces(before, pieces([9, 5, 10, 10], [29, 5, 9, 9], [49, 5, 8, 8])))).toEqual(
      named(before),
    )
    expect(keptPieces([], before)).toEqual(before)
  })

  it('are the very same where nothing was done to them, however their outlines came back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 6, max: 28 }), fc.integer({ min: 6, max: 28 })), {
          minLength: 2,
          maxLength: 8,
        }),
        fc.nat(),
        fc.boolean(),
        (sizes, pick, cut) => {
          const rects = sizes.map(([w, h], k): Rect => [40 * k, 0, w, h])
          const project = cutAll(stack('free', plate('a', 0, ...rects)))
          const own = project.layers[0]!.pieces
          const at = pick % own.length
          const [x, , w, h] = rects[at]!
          const [from, to] = [
            { x: x + w / 2, y: -3 },
            { x: x + w / 2, y: h + 3 },
          ]
          const after = drawStrip(project, 'a', { from, to, widthMm: 2, cut })
          const changed = own.find((piece) => regionArea(pieceRegion(piece)) === w * h && piece.path.startsWith(`M${x} `)) // prettier-ignore
          for (const piece of own) if (piece !== changed) expect(after.layers[0]!.pieces).toContain(piece)
          const ids = after.layers[0]!.pieces.map(({ id }) => id)
          expect(new Set(ids).size).toBe(ids.length)
          expect(ids).toContain(changed!.id)
          // Cut in two, the larger half has the name, and the other one of its own.
          expect(toCut(after, 'a')).toEqual(cut ? [changed!.id, `p${own.length + 1}`] : [changed!.id])
        },
      ),
      { numRuns: 30 },
    )
  })

  it('are changed where a strip lies elsewhere between the same edges', () => {
    const tied = (x: number) => makeLayer({ id: 'a', name: 'A' }, union([rectangle([0, 0], 60, 10)], [rectangle([0, 30], 60, 10)], [rectangle([x, 9], 3, 22)])).pieces // prettier-ignore
    expect(keptPieces(tied(5), tied(5))).toEqual(tied(5))
    expect(keptPieces(tied(5), tied(40))).toEqual(tied(40))
  })

  it('stay where they are pinned and held as they are', () => {
    const base = stack('free', plate('a', 0, [0, 0, 10, 10], [20, 0, 9, 9]))
    const pin = (pieceId: string) => ({
      layerId: 'a',
      pieceId,
      copy: 0,
      sheet: 0,
      on: 'r',
      x: 0,
      y: 0,
      rotation: 0,
    })
    const pinned: Project = {
      ...base,
      plan: { ...base.plan, pins: [pin('p1'), pin('p2')] },
    }
    const region = union(layerRegion(base.layers[0]!), [ellipse([30, 4], 4)])
    const after = reshaped(pinned, pinned.layers[0]!, { region })
    expect(after.plan.pins.map(({ pieceId }) => pieceId)).toEqual(['p1'])
  })

  it('that are grown anew are what they were, where they only move aside', () => {
    const recipe = recipeSchema.parse({ kind: 'lettering', text: 'x' })
    const made = (...rects: Rect[]) => ({ layers: [makeLayer({ id: 'words', name: 'Words' }, rects.map(([x, y, w, h]) => rectangle([x, y], w, h)))], figures: [], remarks: [], widthMm: 100, heightMm: 20 }) // prettier-ignore
    const first = grow(stack('free'), 'g', {
      recipe,
      made: made([0, 0, 10, 20], [15, 0, 8, 12], [30, 0, 9, 14]),
    })
    const cut = cutAll(first)
    // One more before them, larger than all: they move to the right.
    const again = growAgain(cut, 'g', { recipe, made: made([0, 0, 30, 20], [35, 0, 10, 20], [50, 0, 8, 12], [65, 0, 9, 14]) }) // prettier-ignore
    expect(toCut(again, again.layers[0]!.id)).toEqual(['p4'])
  })
})
