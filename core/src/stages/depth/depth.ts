// The whole depth plan of a project: heights, pads, foam to buy, what is left to the glazing and what to shim it with.
import { fresh, type Memo } from '../../base'
import {
  builtLayers,
  depthAtHand,
  isOnPane,
  isStandOff,
  standsInFrame,
  unitsOfStack,
  type Foam,
  type Project,
} from '../../project'
import { bodyOf, placeBody, type Standing } from './bodies'
import { wholeOf } from './foam'
import { roomOf } from './gaps'
import { holdLayer, type HeldLayer, type LayerDepth } from './held'
import { levelOf, liftOnto, standOn, type Level, type On, type PieceHeight } from './heights'
import type { CardAt } from '../layers'
import { lipPadsFor, type LipPads } from './lip'
import { hidingRegion } from './pads/hiding'
import type { Pad } from './pads/poses'
import { pinsOf, type Pins } from './pins'
import { shimFor, type Shim } from './shim'

/** Foam of one kind: needed, to buy, and what the needed part of its packs costs. */
export interface FoamUse {
  foam: Foam
  needed: number
  /** Taken by steps that are ticked. */
  taken: number
  /** Packs to buy beyond what is at hand. */
  packs: number
  cost: number
}

/** Heights, pads and foam of the whole stack. Lengths in mm. */
export interface DepthPlan {
  pieces: PieceHeight[]
  pads: Pad[]
  layers: LayerDepth[]
  stackMm: number
  /** The same while it is pressed: foam gives. */
  pressedMm: number
  /** Upper side of the ring that stands the work off the pane; null where there is none. */
  standOffMm: number | null
  /** Depth for card, foam and glue; null where nothing limits it. */
  roomMm: number | null
  foamUse: FoamUse[]
  /** What holds the backmost sheet on fabric; null where it is not pinned. */
  pins: Pins | null
  /** What fills what is left behind the backing sheet; null where less than the thinnest foam is left, and outside of frames. */
  shim: Shim | null
  /** Pads that stand the work off the pane, under the lip; null where what is left is not to be filled so, or no pad fits there. */
  lip: LipPads | null
  /** Parts that are built on the bench and laid on the stack as one, by their ids. */
  apart: readonly string[]
}

/** Heights of every piece as it is built, back to front. Needs the geometry loaded. */
export const pieceHeights = (project: Project): PieceHeight[] => depthPlan(project).pieces

/** Computes heights and pads. Needs the geometry loaded. */
export function depthPlan(project: Project): DepthPlan {
  const held = new Map<string, HeldLayer>()
  const apart: string[] = []
  let below: Level | null = null
  const hold = ({ layer, standing }: Standing) => {
    const own = holdLayer(project, { layer, lifted: standing })
    held.set(layer.id, own)
    below = levelOf(layer, own.pieces, below)
  }
  for (const unit of unitsOfStack(project)) {
    const body = unit.part && bodyOf(project, unit, fresh)
    if (body) {
      apart.push(body.partId, ...body.inner)
      placeBody({ project, body, below, memo: fresh }, unit.layers).forEach(hold)
      continue
    }
    for (const layer of unit.layers) {
      const on: On = { project, layer, below }
      hold({ layer, standing: standOn(on, liftOnto(on)) })
    }
  }
  return sumUpDepth(project, { held: builtLayers(project).map(({ id }) => held.get(id)!), apart })
}

/** The whole stack of held layers, back to front, with the parts that were built apart: its height, the foam it takes, what is left to the glazing. */
export function sumUpDepth(
  project: Project,
  { held, apart }: { held: readonly HeldLayer[]; apart: readonly string[] },
  memo: Memo = fresh,
): DepthPlan {
  // What is on the pane is no part of the stack's height.
  const inStack = held.filter(({ pieces }) => !pieces.some((p) => isOnPane(p.layer) || isStandOff(p.layer)))
  const stackMm = inStack.reduce((most, { layer }) => Math.max(most, layer.topMm), 0)
  const pressedMm = inStack
    .flatMap(({ pieces }) => pieces)
    .reduce((most, { topMm, givesMm }) => Math.max(most, topMm - givesMm), 0)
  const ring = held.filter(({ pieces }) => pieces.some((p) => isStandOff(p.layer)))
  const standOffMm = ring.length > 0 ? Math.max(...ring.map(({ layer }) => layer.topMm)) : null
  const roomMm = roomOf(project)
  const layers = held.map(({ layer }) => layer)
  const backmost = held[0]?.pieces.map(({ region }) => region).flat() ?? []
  // A ring reaches to the pane itself, and keeps the air in front of the work.
  const depthMm = depthAtHand(project.mount)?.depthMm ?? 0
  const leftMm =
    roomMm === null ? 0 : Math.min(roomMm - stackMm, standOffMm === null ? Infinity : depthMm - standOffMm)
  const pieces = held.flatMap((own) => own.pieces)
  const pins = pinsOf(project, pieces, memo)
  // Pins hold a sheet on the fabric itself: there is no foam behind it. Before what stands in the frame the stack stays where it is.
  const stands = held.some(({ pieces: own }) => own.some(({ layer }) => standsInFrame(layer)))
  const wantsLip = project.plan.fill === 'lip' && standOffMm === null && !stands && pieces.length > 0
  const lip = wantsLip ? lipPadsFor(project, pieces) : null
  // Only a frame has a pane to bring the work up to; what a card or a panel has room for is no more than a limit.
  const shim =
    project.mount.kind !== 'frame' || pins || stands || lip
      ? null
      : shimFor(project, leftMm, {
          card: backmost,
          hidden: held[0] ? hidingRegion(project, held[0].layer.layerId, memo) : null,
        })
  return {
    pieces,
    pins,
    pads: held.flatMap(({ pads }) => pads),
    layers,
    stackMm,
    pressedMm,
    standOffMm,
    roomMm,
    foamUse: foamUse(project, layers, [shim, lip]),
    shim,
    lip,
    apart,
  }
}

/** Foam for the whole batch. */
function foamUse(
  project: Project,
  layers: readonly LayerDepth[],
  filled: readonly ((Pick<Shim, 'foamIds'> & { at: readonly unknown[] }) | null)[],
): FoamUse[] {
  const counts = new Map<string, number>()
  for (const { foams } of layers)
    for (const { foamId, count } of foams)
      counts.set(foamId, (counts.get(foamId) ?? 0) + count * project.plan.batch)
  for (const one of filled)
    for (const id of one?.foamIds ?? []) {
      const { foamId, share } = wholeOf(id)
      counts.set(foamId, (counts.get(foamId) ?? 0) + Math.ceil(one!.at.length * share) * project.plan.batch)
    }
  const taken = new Map<string, number>()
  for (const { foams } of project.progress.took)
    for (const { foamId, count } of foams) taken.set(foamId, (taken.get(foamId) ?? 0) + count)
  return project.drawer.foams
    .filter((foam) => counts.has(foam.id))
    .map((foam) => {
      const needed = counts.get(foam.id)!
      // What ticked steps took is no longer at hand, nor wanted.
      const packs = Math.ceil(Math.max(0, needed - (taken.get(foam.id) ?? 0) - foam.count) / foam.perPack)
      return {
        foam,
        needed,
        taken: taken.get(foam.id) ?? 0,
        packs,
        cost: (needed / foam.perPack) * foam.pricePerPack,
      }
    })
}

/** All card at the heights where it comes to lie, for eyes that look from aside. */
export const cardsAt = ({ pieces }: Pick<DepthPlan, 'pieces'>): CardAt[] =>
  pieces.flatMap(({ layer, parts }) =>
    parts.map(({ region, topMm }) => ({ layerId: layer.id, region, topMm })),
  )
