// Which pads hold a piece: the fewest whose reach, measured along the card, leaves no point of it farther than the span; and such that
// its centre of mass lies between them.
import {
  convexHull,
  regionCentroid,
  ringContains,
  takesDisc,
  type Point,
  type Region,
} from '../../../base/geometry'
import { fresh, type Memo } from '../../../base'
import type { Plan, Project } from '../../../project'
import { allPads, type Footprint } from '../foam'
import type { PieceHeight } from '../heights'
import { bareSearch } from './bare'
import { CardField, type Ways } from './card-field'
import { fewestSets } from './cover'
import { padChords, padOutline, TIGHTEST, type Lie } from './lie'
import { keyOf, placesFor, SLACK_MM, type Concealed, type Place } from './places'
import { between, posesFor, posesNear, stepFor, type Pad } from './poses'

/** The pads of one piece. */
export interface PiecePads {
  pads: Pad[]
  /** Farthest that any point of the piece is from the middle of a pad, along the card, and where. */
  farthestMm: number
  farthestAt: [number, number] | null
  /** No pad fits anywhere. */
  noRoom: boolean
  /** Where a pad of the first size may lie: what the drawing hatches. */
  allowed: Region
}

/** Span in mm by thrift: the farthest any point may be from the middle of a pad, along the card. */
export const SPANS_MM = { sparing: 46, steady: 32, sale: 23 } as const

/** Span of a plan, mm. */
export const padSpan = ({ padSpanMm, thrift }: Pick<Plan, 'padSpanMm' | 'thrift'>): number =>
  padSpanMm ?? SPANS_MM[thrift]

/** Pads for one piece that lies on foam. Needs the geometry loaded. */
export function padsForPiece(project: Project, { piece, hidden }: Concealed, memo: Memo = fresh): PiecePads {
  const { thrift, padSpanMm } = project.plan
  const put = handPadsOf(project, piece)
  const free = project.plan.padFree.filter(({ layerId }) => layerId === piece.layer.id)
  const { places, allowed } = placesFor(project, { piece, hidden }, memo)
  // What lies beneath at another height than before changes nothing where no pad may lie on it.
  return memo(
    'pads',
    [piece.layer.id, piece.pieceId, piece.region, places, allowed, thrift, padSpanMm, put, free],
    () => {
      const none = { pads: [], farthestMm: 0, farthestAt: null, noRoom: true, allowed }
      if (places.length === 0 && put.length === 0) return none
      const spanMm = padSpan(project.plan)
      return { ...none, ...planPads({ piece, places, spanMm, put, free }) }
    },
  )
}

/** Pads that the maker put under a piece. Foams that are no longer in the drawer fall out of a stack. */
export function handPadsOf(project: Project, piece: PieceHeight): Pad[] {
  const { handPads } = project.plan
  const foams = new Map(allPads(project.drawer.foams).map((foam) => [foam.id, foam]))
  return handPads
    .filter(({ layerId, pieceId }) => layerId === piece.layer.id && pieceId === piece.pieceId)
    .flatMap(({ id, layerId, pieceId, x, y, rotation, bendMm, foamIds }): Pad[] => {
      const known = foamIds.flatMap((foamId) => foams.get(foamId) ?? [])
      const [first] = known
      if (!first) return []
      return [
        {
          layerId,
          pieceId,
          x,
          y,
          rotation,
          widthMm: first.widthMm,
          heightMm: first.heightMm,
          // Tighter than foam bends it is laid straight.
          ...(bendMm !== null && Math.abs(bendMm) >= TIGHTEST * Math.min(first.widthMm, first.heightMm)
            ? { bendMm }
            : {}),
          thicknessMm: known.reduce((sum, { thicknessMm }) => sum + thicknessMm, 0),
          foamIds: known.map((foam) => foam.id),
          handId: id,
        },
      ]
    })
}

/** A spot that no pad's middle may lie in, mm. */
interface FreeSpot {
  x: number
  y: number
  radiusMm: number
}

interface PadTask {
  piece: PieceHeight
  places: readonly Place[]
  spanMm: number
  /** Pads that are there already. */
  put: readonly Pad[]
  free: readonly FreeSpot[]
}

/** Whether a pad fits under a piece at all, told without planning any; null where only the plan can tell. */
export function hasRoom(project: Project, { piece, hidden }: Concealed, memo: Memo = fresh): boolean | null {
  const key = keyOf(project, { piece, hidden })
  return memo('room for pads', [key, project.plan.thrift], () => {
    const { places } = placesFor(project, { piece, hidden }, memo)
    // A disc round a pad fits: so does the pad. A disc within it does not: neither does the pad.
    const fits = (halfOf: (pad: Footprint) => number) =>
      places.some(({ region, footprint }) => takesDisc(region, halfOf(footprint)))
    if (fits(({ widthMm, heightMm }) => Math.hypot(widthMm, heightMm) / 2 + SLACK_MM)) return true
    return fits(({ widthMm, heightMm }) => Math.min(widthMm, heightMm) / 2 - SLACK_MM) ? null : false
  })
}

/** Samples are so far apart, in parts of the span, within bounds (mm); what is measured in the end is measured on finer ones. */
const PITCH_SHARE = 1 / 11
const PITCH_MM = [0.8, 3] as const
const FINER = 0.6
/** Covered is what is reached within the span less this part of the pitch: points between samples are no farther than the span then. */
const BETWEEN = 0.45
/** The cover that places between are sought round gets this part of the tries. */
const COARSE_EFFORT = 0.4
/** So few pads are tried to be made fewer still. */
const FEW = 8
/** Pads keep apart so far, mm. */
const APART_MM = 0.5

/** A pad where it could lie, and the samples within its reach. */
interface Candidate {
  pad: Pad
  reach: Int32Array
}

function planPads({
  piece,
  places,
  spanMm,
  put,
  free,
}: PadTask): Pick<PiecePads, 'pads' | 'farthestMm' | 'farthestAt' | 'noRoom'> {
  const isFree = (pad: Pad) =>
    !free.some(({ x, y, radiusMm }) => Math.hypot(pad.x - x, pad.y - y) < radiusMm) &&
    !put.some((other) => overlaps(pad, other))
  const pitch = Math.min(PITCH_MM[1], Math.max(PITCH_MM[0], spanMm * PITCH_SHARE))
  const stepOf = stepFor(places, spanMm)
  const poses = posesFor(piece, places, stepOf)
  // Before it is said that there is no room.
  const fine = () => posesNear(piece, places, { spots: [{ x: 0, y: 0 }], reachMm: Infinity })
  const tried = (poses.length > 0 ? poses : fine()).filter(isFree)
  if (tried.length === 0 && put.length === 0)
    return { pads: [], farthestMm: 0, farthestAt: null, noRoom: true }
  const field = new CardField(piece.region, pitch)
  // Of equally many pads the larger ones: they hold better.
  const largest = tried.reduce((most, pad) => Math.max(most, pad.widthMm * pad.heightMm), 0)
  const coverOf = (list: readonly Candidate[], effort: number) =>
    fewestSets({
      effort,
      rows: field.count,
      sets: list.map(({ reach }) => reach),
      cost: Float64Array.from(list, ({ pad }) => 1 - (pad.widthMm * pad.heightMm) / largest),
    })
  /** What is measured on in the end. */
  let finer: CardField | null = null
  /** Samples within the span of a place and how far off each is. */
  const ways = new Map<Pad, Ways>()
  const waysFrom = (pad: Pad): Ways => {
    let own = ways.get(pad)
    if (!own) ways.set(pad, (own = field.around([[pad.x, pad.y]], spanMm)))
    return own
  }
  const padsForBare = bareSearch({
    field,
    posesNear: (spots, reachMm) => posesNear(piece, places, { spots, reachMm }).filter(isFree),
    reachOf: (pad, reachMm) => within(waysFrom(pad), reachMm),
  })
  const planWithin = (reachMm: number) => {
    // What pads of the maker hold needs no other.
    const held = new Uint8Array(field.count)
    for (const pad of put) for (const sample of within(waysFrom(pad), reachMm)) held[sample] = 1
    const reaching = (pad: Pad): Candidate => {
      const own = within(waysFrom(pad), reachMm)
      return { pad, reach: put.length > 0 ? own.filter((sample) => held[sample] === 0) : own }
    }
    let candidates = tried.map(reaching)
    const covered = held.slice()
    for (const { reach } of candidates) for (const sample of reach) covered[sample] = 1
    candidates = [...candidates, ...padsForBare(covered, reachMm).map(reaching)]
    let chosen = coverOf(candidates, COARSE_EFFORT)
    if (chosen.length > 2) {
      const coarse = chosen.map((k) => candidates[k]!.pad)
      candidates = [
        ...candidates,
        ...between(piece, { places, pads: coarse, stepMm: stepOf }).filter(isFree).map(reaching),
      ]
      const finer = coverOf(candidates, 1)
      if (finer.length <= chosen.length) chosen = finer
    }
    const pads = balanced(piece, [...put, ...apart(chosen, candidates, field.count)], candidates)
    finer ??= new CardField(piece.region, field.pitch * FINER)
    return { pads, ...farthestIn(finer, pads), noRoom: false }
  }
  const sure = planWithin(Math.max(spanMm * 0.5, spanMm - field.pitch * BETWEEN))
  if (sure.pads.length < 2 || sure.pads.length > FEW) return sure
  // A few pads may do with one less, where what lies between the samples happens to be within the span.
  const bold = planWithin(spanMm)
  return bold.pads.length < sure.pads.length && bold.farthestMm <= Math.max(spanMm, sure.farthestMm)
    ? bold
    : sure
}

/** Of samples those within a reach. */
function within({ samples, mm }: Ways, reachMm: number): Int32Array {
  const out = new Int32Array(samples.length)
  let n = 0
  for (let k = 0; k < samples.length; k++) if (mm[k]! <= reachMm) out[n++] = samples[k]!
  return out.subarray(0, n)
}

/** The chosen pads, none on another: what would lie on one gives way to the pad that best makes up for it. */
function apart(chosen: readonly number[], candidates: readonly Candidate[], rows: number): Pad[] {
  const taken: number[] = []
  const covered = new Uint8Array(rows)
  const clashes = (k: number) => taken.some((other) => overlaps(candidates[k]!.pad, candidates[other]!.pad))
  const take = (k: number) => {
    taken.push(k)
    for (const r of candidates[k]!.reach) covered[r] = 1
  }
  const late: number[] = []
  for (const k of chosen) {
    if (clashes(k)) late.push(k)
    else take(k)
  }
  for (const k of late) {
    const bare = candidates[k]!.reach.filter((r) => covered[r] === 0)
    if (bare.length === 0) continue
    const wanted = new Set(bare)
    let best = -1
    let most = 0
    candidates.forEach(({ reach }, other) => {
      if (clashes(other)) return
      let gains = 0
      for (const r of reach) if (wanted.has(r)) gains++
      if (gains > most) {
        most = gains
        best = other
      }
    })
    if (best >= 0) take(best)
  }
  return taken.map((k) => candidates[k]!.pad)
}

/** Whether two pads lie on each other or too near: by the discs round them, then by their sides (separating axes). */
export function overlaps(a: Pad, b: Pad): boolean {
  if (a.bendMm === undefined && b.bendMm === undefined) return overlapStraight(a, b)
  const theirs = padChords(b)
  return padChords(a).some((own) => theirs.some((other) => overlapStraight(own, other)))
}

function overlapStraight(a: Lie, b: Lie): boolean {
  const reach = (Math.hypot(a.widthMm, a.heightMm) + Math.hypot(b.widthMm, b.heightMm)) / 2 + APART_MM
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  if (dx * dx + dy * dy >= reach * reach) return false
  for (const { rotation } of [a, b])
    for (const turn of [0, 90]) {
      const t = ((rotation + turn) * Math.PI) / 180
      const [ux, uy] = [Math.cos(t), Math.sin(t)]
      if (Math.abs(dx * ux + dy * uy) >= halfAlong(a, ux, uy) + halfAlong(b, ux, uy) + APART_MM) return false
    }
  return true
}

/** Half of a pad's shadow on a direction. */
function halfAlong({ widthMm, heightMm, rotation }: Lie, ux: number, uy: number): number {
  const t = (rotation * Math.PI) / 180
  return (
    (Math.abs(Math.cos(t) * ux + Math.sin(t) * uy) * widthMm +
      Math.abs(-Math.sin(t) * ux + Math.cos(t) * uy) * heightMm) /
    2
  )
}

/** One pad more where the centre of mass would lie outside all of them: the one that brings it well between. */
function balanced(piece: PieceHeight, pads: Pad[], candidates: readonly Candidate[]): Pad[] {
  const centre = regionCentroid(piece.region)
  if (pads.length === 0 || holdsUp(pads, centre)) return pads
  const free = candidates
    .map(({ pad }) => pad)
    .filter((pad) => !pads.some((other) => overlaps(pad, other)))
    .toSorted(
      (a, b) => Math.hypot(a.x - centre.x, a.y - centre.y) - Math.hypot(b.x - centre.x, b.y - centre.y),
    )
  // A lone pad may do as well nearer to the middle.
  if (pads.length === 1 && pads[0]!.handId === undefined) {
    const [alone] = pads
    const reachOf = (pad: Pad) => candidates.find((one) => one.pad === pad)!.reach.length
    const nearer = candidates.find(({ pad }) => holdsUp([pad], centre) && reachOf(pad) >= reachOf(alone!))
    if (nearer) return [nearer.pad]
  }
  const more = free.find((pad) => holdsUp([...pads, pad], centre))
  return more ? [...pads, more] : pads
}

/** Whether a point lies between pads. */
function holdsUp(pads: readonly Pad[], { x, y }: Point): boolean {
  const hull = convexHull(pads.flatMap((pad) => [...padOutline(pad)]))
  return hull.length >= 6 && ringContains(hull, x, y)
}

/** The point of a region that is farthest from the middle of a pad, along the card; parts without a pad are as far as their size. */
export const farthestOf = (region: Region, pads: readonly Point[], pitchMm: number): Farthest =>
  farthestIn(new CardField(region, pitchMm), pads)

type Farthest = Pick<PiecePads, 'farthestMm' | 'farthestAt'>

function farthestIn(field: CardField, pads: readonly Point[]): Farthest {
  if (pads.length === 0) return { farthestMm: 0, farthestAt: null }
  const { samples, mm } = field.around(
    pads.map(({ x, y }) => [x, y] as const),
    Infinity,
  )
  let last = -1
  for (let k = 0; k < samples.length; k++) if (last < 0 || mm[k]! > mm[last]!) last = k
  return last < 0
    ? { farthestMm: 0, farthestAt: null }
    : { farthestMm: mm[last]!, farthestAt: [field.x[samples[last]!]!, field.y[samples[last]!]!] }
}
