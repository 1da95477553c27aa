// Pieces that are larger than what is cut of a sheet, put together of parts that are not.
import {
  intersect,
  mapRegion,
  pathToRegion,
  polygonArea,
  rectangle,
  regionBox,
  type Affine,
  type Polygon,
  type Region,
} from '../../base/geometry'
import { findLayer, layerRegion, pieceRegion, type Project } from '../../project'
import { partedIn, TOLERANCE_MM, type Size } from '../measure'
import { reshaped } from './reshaped'
import { cardAt } from './sticks'
import { shows } from './visibility/shows'

/** Places for a seam are so far apart, mm. */
const STEP_MM = 2
/** What hides a seam reaches so far past it on both sides, mm. */
const BEHIND_MM = 1
/** A part is at least so much of its even share. */
const LEAST_SHARE = 0.3
/** A part that is a millimetre off its even share counts as so much of a seam that shows, mm. */
const EVENNESS = 0.01
/** Less than this (mm²) comes of rounding. */
const CRUMB_MM2 = 0.05

/** Cuts each piece of a layer that passes the reach in parts that do not, by straight seams where least of them shows. Needs the geometry loaded. */
export function cutInParts(project: Project, layerId: string, reach: Size): Project {
  const layer = findLayer(project, layerId)
  if (!layer) return project
  const shown = pathToRegion(shows(project).find(({ id }) => id === layerId)?.visiblePath ?? '')
  const faces = layer.pieces.flatMap((piece) => {
    const region = pieceRegion(piece)
    const parts = partedIn(layer, regionBox(region), reach)
    return !parts || parts[0] * parts[1] === 1
      ? region
      : inParts(region, parts, { reach, shown: intersect(region, shown) })
  })
  return faces.length > layerRegion(layer).length ? reshaped(project, layer, { region: faces }) : project
}

interface Cut {
  reach: Size
  /** What is seen of the piece from straight ahead. */
  shown: Region
}

function inParts(region: Region, [across, down]: [number, number], { reach, shown }: Cut): Polygon[] {
  const box = regionBox(region)
  const turned = mapRegion(TRANSPOSED, shown)
  // A sheet lies as it is or turned: the way at which less of the seams shows.
  const [best] = [reach, { widthMm: reach.heightMm, heightMm: reach.widthMm }]
    .flatMap(({ widthMm, heightMm }) => {
      const x = seamsOf([box.minX, box.maxX], { parts: across, mostMm: widthMm, shown })
      const y = seamsOf([box.minY, box.maxY], { parts: down, mostMm: heightMm, shown: turned })
      return x && y ? [{ xs: x.at, ys: y.at, cost: x.cost + y.cost }] : []
    })
    .toSorted((a, b) => a.cost - b.cost)
  const { xs, ys } = best!
  return xs.slice(1).flatMap((right, i) =>
    ys.slice(1).flatMap((bottom, j) => {
      const cell = rectangle([xs[i]!, ys[j]!], right - xs[i]!, bottom - ys[j]!)
      return intersect(region, [cell]).filter((face) => polygonArea(face) > CRUMB_MM2)
    }),
  )
}

const TRANSPOSED: Affine = [0, 1, 1, 0, 0, 0]

interface Seams {
  /** Ends and seams in between, mm. */
  at: number[]
  cost: number
}

/**
 * Where a stretch is parted so that no part is longer than it may be: of all such places on a grid those of which the least shows, then the
 * most even ones (dynamic programming over the seams). Null where so many parts are too few.
 */
function seamsOf(
  [from, to]: [number, number],
  { parts, mostMm, shown }: { parts: number; mostMm: number; shown: Region },
): Seams | null {
  const even = (to - from) / parts
  if (even > mostMm + TOLERANCE_MM) return null
  if (parts === 1) return { at: [from, to], cost: 0 }
  // A multiple of the parts, so that even ones are among the places.
  const n = parts * Math.max(4, Math.ceil(even / STEP_MM))
  const at = Array.from({ length: n + 1 }, (_, k) => from + ((to - from) * k) / n)
  const shows = at.map((x) => Math.max(cardAt(shown, x - BEHIND_MM), cardAt(shown, x + BEHIND_MM)))
  const fits = (a: number, b: number) => {
    const mm = at[b]! - at[a]!
    return mm <= mostMm + TOLERANCE_MM && mm >= even * LEAST_SHARE
  }
  const costOf = (a: number, b: number) =>
    Math.abs(at[b]! - at[a]! - even) * EVENNESS + (b < n ? shows[b]! : 0)
  let ended = new Map<number, Seams>([[0, { at: [from], cost: 0 }]])
  for (let p = 1; p <= parts; p++) {
    const next = new Map<number, Seams>()
    for (const [a, { at: seams, cost }] of ended)
      for (let b = p === parts ? n : a + 1; b <= n; b++) {
        const sum = cost + costOf(a, b)
        if (fits(a, b) && sum < (next.get(b)?.cost ?? Infinity))
          next.set(b, { at: [...seams, at[b]!], cost: sum })
      }
    ended = next
  }
  return ended.get(n)!
}
