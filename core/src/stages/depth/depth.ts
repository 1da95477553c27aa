// The whole depth plan of a project: heights, pads, foam to buy, what is left to the glazing and what to shim it with.
import type { Region } from '../../base/geometry'
import { builtLayers, findLayer, type Foam, type Project, type Snag } from '../../project'
import { builds, footprints } from './foam'
import { roomOf } from './gaps'
import { pieceHeights, type PieceHeight } from './heights'
import { hidingRegion, padSpan, padsForPiece, type Pad } from './pads'

export interface LayerDepth {
  layerId: string
  bottomMm: number
  topMm: number
  tiltMm: number
  pads: number
  /** Farthest that any point is from a pad; null where the layer is not on foam. */
  farthestMm: number | null
  farthestAt: [number, number] | null
  /** Pieces on foam for which no pad is narrow enough: they go on with glue. */
  glued: string[]
  floating: string[]
  allowed: Region
}

export interface FoamUse {
  foam: Foam
  needed: number
  /** Packs to buy beyond what is at hand. */
  packs: number
  cost: number
}

export interface DepthPlan {
  pieces: PieceHeight[]
  pads: Pad[]
  layers: LayerDepth[]
  stackMm: number
  /** Depth for card, foam and glue; null where nothing limits it. */
  roomMm: number | null
  foamUse: FoamUse[]
  /** Foam build that fills what is left behind the backing sheet; null where less than the thinnest foam is left. */
  shim: { mm: number; label: string } | null
}

/** Computes heights and pads. Needs the geometry loaded. */
export function depthPlan(project: Project): DepthPlan {
  const pieces = pieceHeights(project)
  const pads: Pad[] = []
  const layers = builtLayers(project).map((layer): LayerDepth => {
    const own = pieces.filter((piece) => piece.layer.id === layer.id)
    const onFoam = layer.joint.kind === 'foam' && layer.joint.gapMm > 0
    const result: LayerDepth = {
      layerId: layer.id,
      bottomMm: Math.min(...own.map((p) => p.bottomMm), Infinity),
      topMm: Math.max(...own.map((p) => p.topMm), 0),
      tiltMm: Math.max(0, ...own.map((p) => p.tiltMm)),
      pads: 0,
      farthestMm: onFoam ? 0 : null,
      farthestAt: null,
      glued: [],
      floating: own.filter((p) => p.floats).map((p) => p.pieceId),
      allowed: [],
    }
    if (!onFoam) return result
    const hidden = hidingRegion(project, layer.id)
    const allowed: Region[] = []
    for (const piece of own) {
      const planned = padsForPiece(project, piece, hidden)
      pads.push(...planned.pads)
      result.pads += planned.pads.length
      allowed.push(planned.allowed)
      if (planned.noRoom) result.glued.push(piece.pieceId)
      else if (planned.farthestMm > result.farthestMm!) {
        result.farthestMm = planned.farthestMm
        result.farthestAt = planned.farthestAt
      }
    }
    return { ...result, allowed: allowed.flat() }
  })
  const stackMm = Math.max(0, ...pieces.map((p) => p.topMm))
  const roomMm = roomOf(project)
  return {
    pieces,
    pads,
    layers,
    stackMm,
    roomMm,
    foamUse: foamUse(project, pads),
    shim: roomMm === null ? null : shimFor(project, roomMm - stackMm),
  }
}

/** Foam for the whole batch. */
function foamUse(project: Project, pads: readonly Pad[]): FoamUse[] {
  const counts = new Map<string, number>()
  for (const pad of pads)
    for (const id of pad.foamIds) counts.set(id, (counts.get(id) ?? 0) + project.plan.batch)
  return project.drawer.foams
    .filter((foam) => counts.has(foam.id))
    .map((foam) => {
      const needed = counts.get(foam.id)!
      const packs = Math.ceil(Math.max(0, needed - foam.count) / foam.perPack)
      return { foam, needed, packs, cost: (needed / foam.perPack) * foam.pricePerPack }
    })
}

/** The thickest foam build that goes into what is left. */
function shimFor(project: Project, leftMm: number): DepthPlan['shim'] {
  const all = footprints(project.drawer.foams).flatMap((size) => builds(size))
  const best = all
    .filter((b) => b.totalMm <= leftMm + 1e-9)
    .toSorted((a, b) => b.totalMm - a.totalMm || a.foams.length - b.foams.length)[0]
  return best ? { mm: best.totalMm, label: best.foams.map((foam) => foam.thicknessMm).join(' + ') } : null
}

/** Findings of the depth stage. */
export function depthSnags(project: Project, plan: DepthPlan): Snag[] {
  const snags: Snag[] = []
  const name = (id: string) => findLayer(project, id)?.name ?? id
  if (plan.roomMm !== null && plan.stackMm > plan.roomMm + 1e-6)
    snags.push({
      code: 'stack-too-deep',
      stage: 'depth',
      severity: 'stop',
      layer: null,
      at: null,
      message: `The stack is ${plan.stackMm.toFixed(1)} mm high; ${plan.roomMm.toFixed(1)} mm are there (depth less clearance): ${(plan.stackMm - plan.roomMm).toFixed(1)} mm too much.`,
      mend: { label: `Fit the gaps to ${plan.roomMm.toFixed(1)} mm`, action: { kind: 'fit-gaps' } },
    })
  for (const layer of plan.layers) {
    const push = (code: string, message: string, more: Partial<Snag> = {}) =>
      snags.push({
        code,
        stage: 'depth',
        severity: 'caution',
        layer: layer.layerId,
        at: null,
        message,
        ...more,
      })
    const own = plan.pieces.filter((p) => p.layer.id === layer.layerId)
    if (layer.tiltMm > 0) {
      const worst = own.toSorted((a, b) => b.tiltMm - a.tiltMm)[0]!
      push(
        'tilt',
        `A piece of “${name(layer.layerId)}” lies ${layer.tiltMm.toFixed(1)} mm out of level: what is under it differs in height and no foam matches.`,
        {
          at: firstPoint(worst.region),
        },
      )
    }
    if (layer.floating.length > 0) {
      const piece = own.find((p) => p.pieceId === layer.floating[0])!
      push(
        'nothing-beneath',
        `${layer.floating.length === 1 ? 'A piece' : `${layer.floating.length} pieces`} of “${name(layer.layerId)}” has nothing beneath to hold it.`,
        {
          severity: 'stop',
          at: firstPoint(piece.region),
        },
      )
    }
    if (layer.glued.length > 0 && layer.pads === 0)
      push(
        'no-room-for-pads',
        `No part of “${name(layer.layerId)}” is wide enough to hide a pad: it should be glued.`,
        {
          mend: {
            label: 'Glue it',
            action: { kind: 'set-joint', layerId: layer.layerId, joint: 'glue', gapMm: 0 },
          },
        },
      )
    else if (layer.glued.length > 0)
      push(
        'some-without-pads',
        `${layer.glued.length} ${layer.glued.length === 1 ? 'piece' : 'pieces'} of “${name(layer.layerId)}” ${layer.glued.length === 1 ? 'is' : 'are'} too narrow to hide a pad and would hang loose.`,
        {
          at: firstPoint(own.find((p) => p.pieceId === layer.glued[0])!.region),
          mend: {
            label: 'Glue the layer',
            action: { kind: 'set-joint', layerId: layer.layerId, joint: 'glue', gapMm: 0 },
          },
        },
      )
    const { insideMm } = padSpan(project.plan)
    if (layer.farthestMm !== null && layer.farthestMm > insideMm * 1.3)
      push(
        'flaps',
        `“${name(layer.layerId)}” reaches ${layer.farthestMm.toFixed(0)} mm past its last pad (more than ${(insideMm * 1.3).toFixed(0)} mm) and may flap or sag there.`,
        {
          at: layer.farthestAt,
          ...(project.plan.thrift === 'sparing'
            ? {
                mend: {
                  label: 'Plan pads the steady way',
                  action: { kind: 'set-thrift' as const, thrift: 'steady' as const },
                },
              }
            : {}),
        },
      )
  }
  for (const use of plan.foamUse)
    if (use.packs > 0)
      snags.push({
        code: 'short-of-foam',
        stage: 'depth',
        severity: 'caution',
        layer: null,
        at: null,
        message: `${use.needed} pads of ${use.foam.name} needed, ${use.foam.count} at hand: buy ${use.packs} ${use.packs === 1 ? 'pack' : 'packs'}.`,
      })
  return snags
}

const firstPoint = (region: Region): [number, number] => [region[0]!.outer[0]!, region[0]!.outer[1]!]
