// Card as solids: their volume is that of the card, and folds and curls rise as far as they are said to.
import { describe, expect, it } from 'vitest'
import type { BufferGeometry } from 'three'
import { pathToRegion, regionArea } from '@feuillet/core/base/geometry'
import type { SpacePart } from '@feuillet/core/stages/depth'
import { printOnto, solidOf } from './shapes'

const part = (path: string, more: Partial<SpacePart> = {}): SpacePart => ({
  path,
  bottomMm: 0,
  thicknessMm: 0.5,
  riseMm: 0,
  hinge: null,
  round: null,
  ...more,
})
const SQUARE = 'M0 0L40 0L40 20L0 20Z'
const FRAME = 'M0 0L40 0L40 20L0 20ZM10 5L10 15L30 15L30 5Z'

/** By the tetrahedra between the middle and each of the faces. */
function volumeOf(solid: BufferGeometry): number {
  const at = solid.getAttribute('position')
  const corner = (k: number) => [at.getX(k), at.getY(k), at.getZ(k)] as const
  let sum = 0
  for (let k = 0; k < at.count; k += 3) {
    const [[ax, ay, az], [bx, by, bz], [cx, cy, cz]] = [corner(k), corner(k + 1), corner(k + 2)]
    sum += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx)
  }
  return sum / 6
}

/** Heights of all corners at a place of the drawing. */
function heightsAt(solid: BufferGeometry, x: number, y: number): number[] {
  const at = solid.getAttribute('position')
  return Array.from({ length: at.count }, (_, k) => k)
    .filter((k) => Math.hypot(at.getX(k) - x, -at.getY(k) - y) < 1e-4)
    .map((k) => at.getZ(k))
}

describe('a solid', () => {
  it.each([
    ['a square', SQUARE],
    ['a frame', FRAME],
    ['two pieces', 'M0 0L10 0L10 10ZM20 0L30 0L30 10L20 10Z'],
  ])('of %s is as large as its card is thick', (_, path) => {
    const area = regionArea(pathToRegion(path))
    expect(area).toBeGreaterThan(0)
    expect(volumeOf(solidOf(part(path)))).toBeCloseTo(area * 0.5, 4)
  })

  it('stands with its foot at nothing, faces and cut edges apart', () => {
    const solid = solidOf(part(FRAME))
    solid.computeBoundingBox()
    const { min, max } = solid.boundingBox!
    expect([min.x, max.x, min.y, max.y, min.z, max.z].map((v) => Math.round(v * 1e4) / 1e4)).toEqual([
      0, 40, -20, 0, 0, 0.5,
    ])
    expect(solid.groups.map(({ materialIndex }) => materialIndex)).toEqual([0, 1])
  })

  it('turned about a fold stays at the fold and rises to what it is said to at its farthest', () => {
    const solid = solidOf(part(SQUARE, { riseMm: 8, hinge: [0, 0, 0, 20] }))
    expect(Math.min(...heightsAt(solid, 0, 0))).toBeCloseTo(0, 6)
    expect(Math.min(...heightsAt(solid, 40, 20))).toBeCloseTo(8, 6)
    expect(Math.max(...heightsAt(solid, 40, 0))).toBeCloseTo(8.5, 6)
  })

  it('that rises all round stays flat in its middle', () => {
    const solid = solidOf(
      part('M0 0L20 0L20 10L40 10L40 20L0 20Z', { riseMm: 5, round: { x: 0, y: 0, fromMm: 20 } }),
    )
    expect(Math.min(...heightsAt(solid, 20, 0))).toBeCloseTo(0, 6)
    // The farthest corner is 44.7 mm away; 41.2 mm is a share of the rest by its square.
    expect(Math.min(...heightsAt(solid, 40, 20))).toBeCloseTo(5, 6)
    const share = (Math.hypot(40, 10) - 20) / (Math.hypot(40, 20) - 20)
    expect(Math.min(...heightsAt(solid, 40, 10))).toBeCloseTo(5 * share * share, 5)
  })

  it('of a rolled strip stands up as a whole', () => {
    const solid = solidOf(part(SQUARE, { riseMm: 6 }))
    expect(volumeOf(solid)).toBeCloseTo(800 * 6.5, 3)
  })
})

describe('a picture on a solid', () => {
  it('lies where its map puts it, its head up', () => {
    const solid = solidOf(part(SQUARE))
    // Of 80 by 40 pixels, half a millimetre each.
    printOnto(solid, [0.5, 0, 0, 0.5, 0, 0], { wide: 80, high: 40 })
    const [at, uv] = [solid.getAttribute('position'), solid.getAttribute('uv')]
    for (let k = 0; k < at.count; k++) {
      expect(uv.getX(k)).toBeCloseTo(at.getX(k) / 40, 5)
      expect(uv.getY(k)).toBeCloseTo(1 + at.getY(k) / 20, 5)
    }
  })

  it('that is turned by a quarter and moved is read through its map', () => {
    const solid = solidOf(part(SQUARE))
    // Pixels to the right go down, pixels down go to the left, from the corner at 40, 0 on.
    printOnto(solid, [0, 1, -1, 0, 40, 0], { wide: 20, high: 40 })
    const [at, uv] = [solid.getAttribute('position'), solid.getAttribute('uv')]
    for (let k = 0; k < at.count; k++) {
      expect(uv.getX(k)).toBeCloseTo(-at.getY(k) / 20, 5)
      expect(uv.getY(k)).toBeCloseTo(1 - (40 - at.getX(k)) / 40, 5)
    }
  })
})
