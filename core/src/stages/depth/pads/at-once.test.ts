// What is told at a glance is never other than what planning the pads tells.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { card, plate, stack } from '../../../../test/stack'
import { ellipse, rectangle, subtract, union, type Region } from '../../../base/geometry'
import { demo, demoNames } from '../../../demo'
import { layersInOrder, type Project } from '../../../project'
import { gluedAtOnce, gluedPieces } from '../held'
import { levelOf, liftOnto, standOn, type Level, type Lifted, type PieceHeight } from '../heights'
import { padsForPiece } from './pads'
import { takesPadAtOnce } from './at-once'

const num = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const spot = fc.record({ x: num(0, 120), y: num(0, 90), r: num(3, 34) })

/** Card of a plate and discs with round openings, often narrow. */
const shape = fc
  .tuple(fc.array(spot, { maxLength: 4 }), fc.array(spot, { maxLength: 6 }))
  .map(([blobs, holes]): Region => {
    const round = (list: typeof blobs) => union(...list.map(({ x, y, r }): Region => [ellipse([x, y], r)]))
    return subtract(union([rectangle([10, 10], 80, 50)], round(blobs)), round(holes))
  })
  .filter((region) => region.length > 0)

/** Every layer's pieces on what lies below: as they are lifted, and with what carries them. */
function laidOf(project: Project) {
  const out: { below: Level | null; lifted: Lifted[]; standing: PieceHeight[] }[] = []
  let below: Level | null = null
  for (const layer of project.layers) {
    const on = { project, layer, below }
    const lifted = liftOnto(on)
    const standing = standOn(on, lifted)
    out.push({ below, lifted, standing })
    below = levelOf(layer, standing, below)
  }
  return out
}

describe('a pad that fits at once', () => {
  it('fits when pads are planned', () => {
    let fits = 0
    fc.assert(
      fc.property(shape, shape, shape, fc.constantFrom(1, 2, 3), num(0, 45), (a, b, c, gap, viewingDeg) => {
        const plain = stack('frame', card('a', 0, a), card('b', gap, b), card('c', 2, c))
        const project = { ...plain, plan: { ...plain.plan, viewingDeg } }
        for (const { below, lifted, standing } of laidOf(project).slice(1))
          lifted.forEach((piece, i) => {
            if (!takesPadAtOnce(project, piece, below)) return
            fits++
            expect(padsForPiece(project, { piece: standing[i]!, hidden: null }).noRoom).toBe(false)
          })
      }),
      { numRuns: 40 },
    )
    expect(fits).toBeGreaterThan(30)
  })

  it('is seen under a wide sheet, and not under a thin frame or a small bit', () => {
    const base = plate('base', 0, [0, 0, 150, 110])
    const taken = (region: Region) => {
      const project = stack('frame', base, card('top', 2, region))
      const { below, lifted } = laidOf(project)[1]!
      return lifted.map((piece) => takesPadAtOnce(project, piece, below))
    }
    expect(taken([rectangle([5, 5], 120, 90)])).toEqual([true])
    expect(taken([rectangle([5, 5], 4, 4)])).toEqual([false])
    expect(taken(subtract([rectangle([5, 5], 120, 90)], [rectangle([8, 8], 114, 84)]))).toEqual([false])
  })
})

describe('pieces that are glued, told at once', () => {
  it.each(demoNames)('are those that are glued once all is known: %s', (id) => {
    const project = { ...demo(id), layers: [...layersInOrder(demo(id))] }
    laidOf(project).forEach(({ below, lifted, standing }, k) => {
      const layer = project.layers[k]!
      const told = gluedAtOnce(project, { layer, lifted }, below)
      if (told) expect(told).toEqual(gluedPieces(project, { layer, lifted: standing }))
    })
  })
})
