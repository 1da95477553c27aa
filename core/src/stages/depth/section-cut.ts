// A section through the stack: what a straight cut across or down it meets, with the heights of what it meets.
import { pathToRegion, type Region } from '../../base/geometry'
import { padOutline } from './pads/lie'
import type { Space, SpacePart } from './space'

/** Across from left to right at a height of the picture, or down from its top. */
export interface CutLine {
  way: 'across' | 'down'
  /** Where it lies, mm in the project's frame: y of a cut across, x of one down. */
  atMm: number
}

/** Card where the cut meets it: from mm to mm along the cut, with the height of its underside at both ends. */
export interface CutCard {
  layerId: string
  pieceId: string
  fromMm: number
  toMm: number
  bottomMm: readonly [number, number]
  thicknessMm: number
}

/** A pad where the cut meets it. */
export interface CutPad {
  layerId: string
  fromMm: number
  toMm: number
  bottomMm: number
  thicknessMm: number
}

/** All that a cut meets, back to front. */
export interface SectionCut {
  cards: CutCard[]
  pads: CutPad[]
}

/** What rises is drawn in steps of so much, mm. */
const STEP_MM = 1.5

/** A part with what its cuts follow from. */
interface Cuttable extends SpacePart {
  region: Region
  /** How far it reaches from where it begins to rise, mm. */
  farthestMm: number
}

/** What straight cuts through one work meet, cut after cut. Lengths in mm, heights over the board. */
export function cutterOf({ pieces, pads }: Space): (line: CutLine) => SectionCut {
  const parts = pieces.flatMap(({ layerId, pieceId, parts: own }) =>
    own.map((part) => ({ layerId, pieceId, part: cuttable(part) })),
  )
  const outlines = pads.map((pad) => ({ pad, region: [{ outer: padOutline(pad), holes: [] }] }))
  return (line) => ({
    cards: parts
      .flatMap(({ layerId, pieceId, part }) =>
        stretchesOf(part.region, line).flatMap(([fromMm, toMm]) =>
          pointsOf(part, fromMm, toMm).map(([a, b]): CutCard => ({
            layerId,
            pieceId,
            fromMm: a,
            toMm: b,
            bottomMm: [part.bottomMm + riseAt(part, line, a), part.bottomMm + riseAt(part, line, b)],
            thicknessMm: part.thicknessMm,
          })),
        ),
      )
      .toSorted((a, b) => a.bottomMm[0] - b.bottomMm[0]),
    pads: outlines.flatMap(({ pad: { layerId, bottomMm, thicknessMm }, region }) =>
      stretchesOf(region, line).map(([fromMm, toMm]): CutPad => ({
        layerId,
        fromMm,
        toMm,
        bottomMm,
        thicknessMm,
      })),
    ),
  })
}

function cuttable(spacePart: SpacePart): Cuttable {
  const { hinge, round, riseMm, thicknessMm } = spacePart
  // What turns about no line and rises round no middle, such as a roll, stands on its place and is so much higher.
  const part = hinge || round ? spacePart : { ...spacePart, riseMm: 0, thicknessMm: thicknessMm + riseMm }
  const region = pathToRegion(part.path)
  let farthestMm = 0
  for (const { outer } of part.riseMm === 0 ? [] : region)
    for (let i = 0; i < outer.length; i += 2)
      farthestMm = Math.max(farthestMm, awayFrom(part, outer[i]!, outer[i + 1]!))
  return { ...part, region, farthestMm }
}

/** From where to where a line is inside a region (even-odd). */
function stretchesOf(region: Region, { way, atMm }: CutLine): [number, number][] {
  const [along, across] = way === 'across' ? [0, 1] : [1, 0]
  const met: number[] = []
  for (const { outer, holes } of region)
    for (const ring of [outer, ...holes])
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [a, b] = [ring[j + across]!, ring[i + across]!]
        // An end that lies on the line counts with the edge below it only.
        if (a > atMm === b > atMm) continue
        const t = (atMm - a) / (b - a)
        met.push(ring[j + along]! + t * (ring[i + along]! - ring[j + along]!))
      }
  met.sort((a, b) => a - b)
  return Array.from({ length: met.length >> 1 }, (_, k) => [met[2 * k]!, met[2 * k + 1]!])
}

/** A stretch as it is drawn: whole where it lies flat, in short steps where it rises. */
function pointsOf({ riseMm }: SpacePart, from: number, to: number): [number, number][] {
  const steps = riseMm > 0 ? Math.max(1, Math.ceil((to - from) / STEP_MM)) : 1
  const at = (k: number) => from + ((to - from) * k) / steps
  return Array.from({ length: steps }, (_, k) => [at(k), at(k + 1)])
}

/** How far a part has risen over the flat at a place of the cut, mm. */
function riseAt(part: Cuttable, { way, atMm }: CutLine, mm: number): number {
  if (part.riseMm === 0) return 0
  const [x, y] = way === 'across' ? [mm, atMm] : [atMm, mm]
  const away = awayFrom(part, x, y)
  const share = Math.min(1, away / (part.farthestMm || 1))
  // A fold is straight, a curl steeper and steeper.
  return part.riseMm * (part.hinge ? share : share * share)
}

/** From the line that a part turns about, or from the middle that stays flat. */
function awayFrom({ hinge, round }: SpacePart, x: number, y: number): number {
  if (hinge) {
    const [x1, y1, x2, y2] = hinge
    const long = Math.hypot(x2 - x1, y2 - y1) || 1
    return Math.abs((x - x1) * (y2 - y1) - (y - y1) * (x2 - x1)) / long
  }
  return round ? Math.max(0, Math.hypot(x - round.x, y - round.y) - round.fromMm) : 0
}
