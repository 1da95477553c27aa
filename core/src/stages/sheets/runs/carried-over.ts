// What a kept layout is worth once a few of its pieces are others: the rest lies on as it lay, so that the minutes of a search, and files
// that were saved, outlast small changes.
import { fresh, type Memo } from '../../../base'
import { mapPoint, rotation } from '../../../base/geometry'
import { whyIllegal } from '../nest/exact/legal'
import type { NestLayout, Placement } from '../nest/instance'
import { Nester } from '../nest/nester'
import { summarise } from '../nest/summary'
import { keptLayout, laidOf, type Kept, type KeptLayout, type WhatWasLaid } from './kept-layouts'
import { inOwnFrames, placesInPicture } from './own-frames'
import type { NestedRun, PaperRun } from './paper-runs'

/** From this share of the pieces on that are as they were. */
const LEAST_SHARE = 0.5
/** So many others are tried where they were at most: each is held against all that lies there. */
const MOST_OTHERS = 40
/** By so much of a sheet it may take more than a layout from the start, which would move all. */
const STAY_SHARE = 0.05

/** Of what lay, and what was laid from the start, the one to show: as it lay, unless that costs a sheet or more than a twentieth of one. */
export const asItLay = (carried: NestLayout, anew: NestLayout): NestLayout =>
  carried.sheets <= anew.sheets && carried.score <= anew.score + STAY_SHARE ? carried : anew

/** What lay on a layout that was kept, places in the picture. */
export interface Lay {
  /** What is as it was. */
  same: Placement[]
  /** What has another shape now, with its middle where it was. */
  others: Placement[]
}

/** Under which the last layout of a run stands among those that are kept, where it was one of them. */
const lastOf = (runId: string): string => `last ${runId}`
/** Under which it stands that a run was laid from the start: so it lies whenever it is come back to. */
const fromStart = (fingerprint: string): string => `from the start ${fingerprint}`

/**
 * Notes among the kept layouts, in place, how all lies now: what changes next goes on from that. Gives what was carried over, which is to be
 * kept from now on.
 */
export function noteLying(
  kept: Map<string, unknown>,
  nested: readonly NestedRun[],
  memo: Memo = fresh,
): KeptLayout[] {
  return nested.flatMap((one): KeptLayout[] => {
    const { id, fingerprint } = one.run
    const isCarried = one.carried === true && !kept.has(fingerprint)
    if (!isCarried && !kept.has(fingerprint)) {
      kept.delete(lastOf(id))
      kept.set(fromStart(fingerprint), true)
      return []
    }
    const now = keptLayout(one, memo)
    kept.set(lastOf(id), now[1])
    if (!isCarried) return []
    const entry: KeptLayout = [fingerprint, { ...now[1], carried: true }]
    kept.set(...entry)
    return [entry]
  })
}

/**
 * What of a run lay when it was laid last: null where that layout was not kept, or half of the pieces are others, where other sheets, gaps or
 * turns are wanted, something was let go of its pin, or the run was laid from the start before.
 */
export function layOf(run: PaperRun, kept: ReadonlyMap<string, unknown>, memo: Memo = fresh): Lay | null {
  const { pieces } = run.instance
  const last = kept.get(lastOf(run.id)) as Kept | undefined
  // What shares no sheet with others, or one sheet with its layer, is laid as a whole.
  if (
    !last?.laid ||
    kept.has(fromStart(run.fingerprint)) ||
    pieces.some(({ sharing }) => sharing !== undefined)
  )
    return null
  const now = laidOf(run, memo)
  const was = last.laid
  if (!isSameTask(was, now)) return null
  const asked = pieces.reduce((sum, { qty }) => sum + qty, 0)
  const qtyOf = new Map(pieces.map(({ id, qty }) => [id, qty]))
  const isSame = ({ id }: Placement) => was.outlines[id]![0] === now.outlines[id]![0]
  const middled = last.placements
    .filter(({ id, copy }) => copy < (qtyOf.get(id) ?? 0))
    .map((place) => movedTo(place, was.outlines[place.id]!, now.outlines[place.id]!))
  const inPicture = placesInPicture(run.instance, middled)
  const same = inPicture.filter(isSame)
  if (same.length < Math.max(1, LEAST_SHARE * asked)) return null
  return { same, others: inPicture.filter((place) => !isSame(place)) }
}

type Outline = WhatWasLaid['outlines'][string]

/** Where a part has its middle where another had it that lay there. */
function movedTo(place: Placement, [, w, h]: Outline, [, width, height]: Outline): Placement {
  const [dx, dy] = mapPoint(rotation(place.rotation), (w - width) / 2, (h - height) / 2)
  return { ...place, x: place.x + dx, y: place.y + dy }
}

function isSameTask(was: WhatWasLaid, now: WhatWasLaid): boolean {
  const pinned = new Set(now.pinned)
  return was.runId === now.runId && was.task === now.task && was.pinned.every((key) => pinned.has(key))
}

const keyOf = ({ id, copy }: Pick<Placement, 'id' | 'copy'>): string => `${id}#${copy}`

const isAt = (place: Placement, at: Placement | undefined): boolean =>
  at?.sheet === place.sheet &&
  at.rotation === place.rotation &&
  Math.hypot(at.x - place.x, at.y - place.y) < 1e-6

/** A layout of a run in which what is as it was lies as it lay, the others there too where they may, else round them. Needs the geometry loaded. */
export function* laidRound(
  run: PaperRun,
  { lay: { same, others }, steps }: { lay: Lay; steps: number },
  memo: Memo = fresh,
): Generator<undefined, NestLayout> {
  const { instance, seed } = run
  const pins = instance.pinned ?? []
  const pinned = new Set(pins.map(keyOf))
  const free = (place: Placement) => !pinned.has(keyOf(place))
  // What is pinned elsewhere than it lay may lie on other things; these lie as they did among themselves.
  const was = new Map(same.map((place) => [keyOf(place), place]))
  const moved = pins.filter((pin) => !isAt(pin, was.get(keyOf(pin))))
  const stay = same.filter(
    (place) => free(place) && (moved.length === 0 || whyIllegal(instance, place, moved) === null),
  )
  const lying = [...pins, ...stay]
  for (const place of others.filter(free).slice(0, MOST_OTHERS)) {
    if (whyIllegal(instance, place, lying) === null) lying.push(place)
    yield
  }
  const held = { ...instance, pinned: lying }
  const nester = yield* Nester.inParts(inOwnFrames(held, memo), seed)
  const placements = placesInPicture(instance, (yield* nester.begin(steps)).placements)
  // To the last digit where it lay.
  const there = new Map(lying.map((place) => [keyOf(place), place]))
  return summarise(
    instance,
    placements.map((place) => there.get(keyOf(place)) ?? place),
  )
}
