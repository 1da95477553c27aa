// Small spots that stand out, as the light in an eye: they are kept where other specks of their size are dropped.
import {
  ringBox,
  ringContains,
  signedArea,
  type Point,
  type Polygon,
  type Region,
  type Ring,
} from '../../../../base/geometry'
import type { Picture } from './picture'

/** A small spot that was kept: its middle in mm, and whether it is lighter than what is round it. */
export interface Spot extends Point {
  areaMm2: number
  bright: boolean
}

/** It stands out by so many greys from what is round it. */
const STANDS_OUT = 55
/** Smaller than this nobody cuts or weeds it, mm². */
const LEAST_MM2 = 0.8
/** So many of a layer: more of them are a pattern, no features. */
const MOST = 12

/** A layer's faces and openings over a size, and of the smaller ones those that stand out; these are added to `spots`. */
export function withSpots(
  region: Region,
  mm2: number,
  { picture, spots }: { picture: Picture; spots: Spot[] },
): Polygon[] {
  const areaOf = (ring: Ring) => Math.abs(signedArea(ring))
  const small = region.flatMap((face) => [face.outer, ...face.holes]).filter((ring) => areaOf(ring) < mm2)
  const standing = small
    .filter((ring) => areaOf(ring) >= LEAST_MM2)
    .map((ring) => [ring, standsOut(ring, picture)] as const)
    .filter(([, by]) => Math.abs(by) >= STANDS_OUT)
  const kept = new Map(standing.length <= MOST ? standing : [])
  for (const [ring, by] of kept) {
    const { minX, minY, maxX, maxY } = ringBox(ring)
    const spot = { x: (minX + maxX) / 2, y: (minY + maxY) / 2, areaMm2: areaOf(ring), bright: by > 0 }
    const near = spots.find((one) => Math.hypot(one.x - spot.x, one.y - spot.y) < 1)
    if (near) near.areaMm2 = Math.max(near.areaMm2, spot.areaMm2)
    else spots.push(spot)
  }
  const stays = (ring: Ring) => areaOf(ring) >= mm2 || kept.has(ring)
  return region
    .filter((face) => stays(face.outer))
    .map((face) => ({ outer: face.outer, holes: face.holes.filter(stays) }))
}

/** By how many greys the inside of a ring (mm) is lighter than what is round it. */
function standsOut(ring: Ring, { greys, w, h, mmPerPixel }: Picture): number {
  const box = ringBox(ring)
  const reach = Math.max(box.maxX - box.minX, box.maxY - box.minY) / 2 + mmPerPixel
  const pixel = (mm: number, most: number) => Math.max(0, Math.min(most - 1, Math.floor(mm / mmPerPixel)))
  let [inside, insides, around, arounds] = [0, 0, 0, 0]
  for (let y = pixel(box.minY - reach, h); y <= pixel(box.maxY + reach, h); y++)
    for (let x = pixel(box.minX - reach, w); x <= pixel(box.maxX + reach, w); x++) {
      const grey = greys[y * w + x]!
      if (ringContains(ring, (x + 0.5) * mmPerPixel, (y + 0.5) * mmPerPixel)) {
        inside += grey
        insides++
      } else {
        around += grey
        arounds++
      }
    }
  return insides && arounds ? inside / insides - around / arounds : 0
}
