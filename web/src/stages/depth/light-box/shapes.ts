// Card as solids: outlines in mm become bodies of the card's thickness, folded and curled where they rise. x to the right, y up, z towards the eye.
import { ExtrudeGeometry, Float32BufferAttribute, Path, Shape, type BufferGeometry } from 'three'
import { pathToRegion, type Affine } from '@feuillet/core/base/geometry'
import type { SpacePart } from '@feuillet/core/stages/depth'

/** A part as a solid, its foot at 0. Flat faces are group 0, cut edges group 1. */
export function solidOf(part: SpacePart): BufferGeometry {
  const shapes = pathToRegion(part.path).map(({ outer, holes }) => {
    const shape = ringInto(new Shape(), outer)
    shape.holes = holes.map((hole) => ringInto(new Path(), hole))
    return shape
  })
  const solid = new ExtrudeGeometry(shapes, {
    depth: part.thicknessMm,
    bevelEnabled: false,
    // What curls is bent between its corners too.
    steps: 1,
  })
  if (part.riseMm > 0) bend(solid, part)
  return solid
}

function ringInto<T extends Path>(path: T, ring: Float64Array): T {
  path.moveTo(ring[0]!, -ring[1]!)
  for (let i = 2; i < ring.length; i += 2) path.lineTo(ring[i]!, -ring[i + 1]!)
  path.closePath()
  return path
}

/** Lifts corners by how far they are from the fold, or from the middle that stays flat. */
function bend(solid: BufferGeometry, { hinge, round, riseMm }: SpacePart): void {
  const at = solid.getAttribute('position')
  const away = (x: number, y: number): number => {
    if (hinge) {
      const [x1, y1, x2, y2] = hinge
      return Math.abs((x - x1) * (y2 - y1) - (y - y1) * (x2 - x1)) / (Math.hypot(x2 - x1, y2 - y1) || 1)
    }
    return round ? Math.max(0, Math.hypot(x - round.x, y - round.y) - round.fromMm) : 1
  }
  let farthest = 1e-6
  for (let i = 0; i < at.count; i++) farthest = Math.max(farthest, away(at.getX(i), -at.getY(i)))
  // A rolled strip stands up as a whole: its upper face goes up.
  if (!hinge && !round) {
    for (let i = 0; i < at.count; i++) if (at.getZ(i) > 0) at.setZ(i, at.getZ(i) + riseMm)
  } else
    for (let i = 0; i < at.count; i++) {
      const share = away(at.getX(i), -at.getY(i)) / farthest
      at.setZ(i, at.getZ(i) + riseMm * (hinge ? share : share * share))
    }
  solid.computeVertexNormals()
}

/** Puts a picture on a solid: where each corner lies in it, by its map from pixels to mm. */
export function printOnto(
  solid: BufferGeometry,
  [a, b, c, d, e, f]: Affine,
  { wide, high }: { wide: number; high: number },
): void {
  const at = solid.getAttribute('position')
  const uv = new Float32Array(at.count * 2)
  const det = a * d - b * c || 1
  for (let i = 0; i < at.count; i++) {
    const [x, y] = [at.getX(i) - e, -at.getY(i) - f]
    uv[i * 2] = (d * x - c * y) / det / wide
    uv[i * 2 + 1] = 1 - (a * y - b * x) / det / high
  }
  solid.setAttribute('uv', new Float32BufferAttribute(uv, 2))
}
