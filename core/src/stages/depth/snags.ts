// Findings of the depth stage.
import { say, length, type Said } from '../../base/units'
import type { Region } from '../../base/geometry'
import {
  baseOf,
  builtLayers,
  buildOrder,
  depthAtHand,
  findLayer,
  hasBoardBehind,
  standsInFrame,
  thicknessOf,
  type Assembly,
  type Project,
  type Snag,
  type Unit,
} from '../../project'
import { BACK_ROUND } from '../layers'
import type { DepthPlan } from './depth'
import { gapChoices, madeGap, stacksOf } from './foam'
import { leastStackMm } from './gaps'
import { leanOf, type Lean } from './heights'
import { Lifts } from './lifts'
import { padSpan } from './pads/pads'
import type { WhyNot } from './pads/why-not'
import { liesUnderLip, MOST_SHEETS, RING_GIVES, standOffLayers } from './stand-off'

/** A gap that comes out otherwise than typed by no more is as it was typed (mm). */
const TYPED_MM = 0.02

/** What reaches farther past its last pad, in parts of the span, is told. */
const FLAPS = 1.3

/** Findings of the depth stage. */
export function depthSnags(project: Project, plan: DepthPlan): Snag[] {
  const snags: Snag[] = []
  const name = (id: string) => findLayer(project, id)?.name ?? id
  const stacks = stacksOf(project.drawer.foams)
  const lifts = new Lifts(project)
  const { apart } = buildOrder(project)
  if (plan.roomMm !== null && plan.stackMm > plan.roomMm + 1e-6) {
    const givesMm = plan.stackMm - plan.pressedMm
    const goesIn = plan.pressedMm <= plan.roomMm + 1e-6
    // What stands in the frame by its tabs stays as high as it is.
    const standing = plan.pieces.filter(({ layer }) => standsInFrame(layer)).map(({ topMm }) => topMm)
    const leastMm = Math.max(leastStackMm(project), ...standing)
    const fits = leastMm <= plan.roomMm + 1e-6
    snags.push({
      code: 'stack-too-deep',
      stage: 'depth',
      severity: goesIn ? 'caution' : 'stop',
      layer: null,
      at: null,
      message: say`The stack is ${length(plan.stackMm, 1)} high; ${length(plan.roomMm, 1)} are there (depth less clearance): ${length(plan.stackMm - plan.roomMm, 1)} too much${goesIn ? say`. Foam gives ${length(givesMm, 1)} under a press, so that it goes in with less air` : givesMm > 0 ? say`, and foam gives only ${length(givesMm, 1)}` : ''}.${fits ? '' : say` At the least it is ${length(leastMm, 1)}: ${standing.length > 0 ? 'bring down what stands by its tabs' : 'leave a layer out'}, or give it more depth.`}`,
      ...(leastMm < plan.stackMm - TYPED_MM && {
        mend: {
          label: say`Fit the gaps to ${length(Math.max(leastMm, plan.roomMm), 1)}`,
          action: { kind: 'fit-gaps' as const },
        },
      }),
    })
  }
  snags.push(...frontSnags(project, plan))
  // A board holds whatever lies on it, and one card behind the flags of a garland would be no garland.
  const isBackedByCard =
    !hasBoardBehind(project.mount) && !project.grown.some(({ recipe }) => recipe.kind === 'garland')
  for (const layer of plan.layers) {
    const push = (code: string, message: Said, more: Partial<Snag> = {}) =>
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
        say`A piece of “${name(layer.layerId)}” lies ${length(layer.tiltMm, 1)} out of level${leanWords(leanOf(lifts, worst))}: what is under it differs in height, and ${layer.pads > 0 ? 'no foam matches' : 'glue fills no gap'}.`,
        {
          at: firstPoint(worst.region),
        },
      )
    }
    if (layer.floating.length > 0) {
      const piece = own.find((p) => p.pieceId === layer.floating[0])!
      push(
        'nothing-beneath',
        layer.floating.length === 1
          ? `A piece of “${name(layer.layerId)}” has nothing beneath to hold it.`
          : `${layer.floating.length} pieces of “${name(layer.layerId)}” have nothing beneath to hold them.`,
        {
          severity: 'stop',
          at: firstPoint(piece.region),
          ...(isBackedByCard && {
            mend: BACK_ROUND,
          }),
        },
      )
    }
    for (const { handId, why, at } of layer.misfits)
      push('hand-pad', `A pad that you put under “${name(layer.layerId)}” ${AGAINST[why]}.`, {
        at,
        mend: { label: 'Leave its place to the plan', action: { kind: 'let-pad-go', padId: handId } },
      })
    const joint = findLayer(project, layer.layerId)?.joint
    const made = joint?.kind === 'foam' && joint.gapMm > 0 ? madeGap(stacks, joint.gapMm) : null
    const glueThem = (pieceIds: readonly string[]) => ({
      label: pieceIds.length === 1 ? 'Glue that piece' : `Glue those ${pieceIds.length} pieces`,
      action: { kind: 'glue-pieces' as const, layerId: layer.layerId, pieceIds: [...pieceIds] },
    })
    const noFoam = joint?.kind === 'foam' && joint.gapMm > 0 && made === null
    const to = (gapMm: number) => ({
      label: gapMm > 0 ? say`Take ${length(gapMm)}` : 'Glue it',
      action: {
        kind: 'set-joint' as const,
        layerId: layer.layerId,
        joint: gapMm > 0 ? ('foam' as const) : ('glue' as const),
        gapMm,
      },
    })
    if (joint && noFoam) {
      const near = gapChoices(project.drawer.foams)
        .map(({ gapMm }) => gapMm)
        .toSorted((a, b) => Math.abs(a - joint.gapMm) - Math.abs(b - joint.gapMm))[0]
      push(
        'no-foam-of-height',
        say`No foam at hand makes the ${length(joint.gapMm)} under “${name(layer.layerId)}”${near === undefined ? '' : say`; ${length(near)} is the nearest`}.`,
        { mend: to(near ?? 0) },
      )
    } else if (joint && made !== null && Math.abs(made - joint.gapMm) > TYPED_MM)
      push(
        'gap-not-made',
        say`${length(joint.gapMm, 2)} are asked for under “${name(layer.layerId)}”; the foam at hand makes ${length(made, 2)}, and heights are of that.`,
        { mend: to(made) },
      )
    const lacking = joint?.pieces?.find(({ gapMm = 0 }) => gapMm > 0 && madeGap(stacks, gapMm) === null)
    if (lacking)
      push(
        'no-foam-of-height',
        say`No foam at hand makes the ${length(lacking.gapMm!)} under a piece of “${name(layer.layerId)}”.`,
        { mend: glueThem([lacking.pieceId]) },
      )
    if (noFoam) {
      // Said above: it is not for want of room.
    } else if (layer.glued.length > 0 && layer.pads === 0)
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
          mend: glueThem(layer.glued),
        },
      )
    if (layer.tips.length > 0)
      push(
        'tips',
        `${layer.tips.length === 1 ? 'A piece' : `${layer.tips.length} pieces`} of “${name(layer.layerId)}” ${layer.tips.length === 1 ? 'has its centre of mass' : 'have their centres of mass'} outside the pads and will tip: put a pad there by hand, or glue.`,
        { at: layer.tips[0]!.at, mend: glueThem(layer.tips.map(({ pieceId }) => pieceId)) },
      )
    const spanMm = padSpan(project.plan)
    const part = partBuilt(apart.get(layer.layerId), plan, layer.layerId)
    // On the bench nothing but the part itself is under its layers: in its place there may be.
    const mend =
      project.plan.thrift === 'sparing'
        ? {
            label: 'Plan pads the steady way',
            action: { kind: 'set-thrift' as const, thrift: 'steady' as const },
          }
        : part && {
            label: `Build “${part.name}” in its place`,
            action: { kind: 'build-in-place' as const, partId: part.id },
          }
    if (layer.farthestMm !== null && layer.farthestMm > spanMm * FLAPS)
      push(
        'flaps',
        say`“${name(layer.layerId)}” reaches ${length(layer.farthestMm, 0)} past its last pad along the card (more than ${length(spanMm * FLAPS, 0)}) and may flap or sag there.`,
        {
          at: layer.farthestAt,
          ...(mend ? { mend } : {}),
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
        message: say`${use.needed} pads of ${use.foam.name} (${length(use.foam.thicknessMm)}) needed, ${use.foam.count} at hand: buy ${use.packs} ${use.packs === 1 ? 'pack' : 'packs'}.`,
      })
  return snags
}

/** The part that a layer is laid with and not the hindmost of, where its layers hold each other. */
const partBuilt = (
  unit: Unit | undefined,
  { apart }: Pick<DepthPlan, 'apart'>,
  layerId: string,
): Assembly | null =>
  unit?.part && apart.includes(unit.part.id) && baseOf(unit).id !== layerId ? unit.part : null

/** What speaks against a pad. */
const AGAINST: Record<WhyNot, string> = {
  edge: 'lies so near the edge that it is seen from aside, or past it',
  beneath: 'has not enough card beneath',
  height: 'is not of the height that is wanted there',
  shows: 'shows through',
  'on-another': 'lies on another',
}

/** More air than this before a work is told (mm). */
const FLOATS_MM = 3

/** Findings about the gap between the work and the pane. */
function frontSnags(project: Project, { roomMm, stackMm, standOffMm, shim, lip }: DepthPlan): Snag[] {
  const limit = depthAtHand(project.mount)
  if (project.mount.kind !== 'frame' || roomMm === null || !limit || stackMm === 0) return []
  const about = { stage: 'depth', severity: 'caution', layer: null, at: null } as const
  if (standOffMm !== null) {
    const rings = standOffLayers(project)
    const [ring] = rings
    const offMm = limit.depthMm - (shim?.mm ?? 0) - standOffMm
    const sheetMm = ring ? thicknessOf(project, ring) : 1
    const isHigh = offMm < -rings.length * sheetMm * RING_GIVES - 1e-6
    const isHidden = liesUnderLip(project, rings)
    if (!isHigh && isHidden && offMm < sheetMm) return []
    return [
      {
        ...about,
        code: 'ring-off',
        message: !isHidden
          ? 'The stand-off ring does not lie under the lip as the frame is now: it would show, or not go in.'
          : isHigh
            ? say`The stand-off ring is ${length(-offMm, 1)} higher than what is left before the pane: the frame would not close.`
            : say`${length(offMm, 1)} are left before the stand-off ring: it no longer keeps the work in place.`,
        ...((isHigh || !isHidden || rings.length < MOST_SHEETS) && {
          mend: { label: 'Make it anew', action: { kind: 'add-stand-off' } },
        }),
      },
    ]
  }
  // How far what stands in the frame is from the pane was chosen.
  if (builtLayers(project).some(standsInFrame)) return []
  if (lip) return []
  const leftMm = roomMm - stackMm - (shim?.mm ?? 0)
  if (project.plan.fill === 'lip' && leftMm + (shim?.mm ?? 0) > 0)
    return [
      {
        ...about,
        code: 'no-lip-pads',
        message: say`No pad finds room under the lip before the work: it hides too little, nothing lies under it, or the foam at hand is too thick. What is left is filled behind.`,
        mend: { label: 'Fill it behind', action: { kind: 'fill-behind' } },
      },
    ]
  return leftMm > FLOATS_MM
    ? [
        {
          ...about,
          code: 'floats',
          message: say`${length(leftMm, 1)} of air are left before the work beyond what is wanted: it floats far behind the pane, and no foam behind it fills that.`,
          mend: { label: 'Stand it off from the pane by a ring', action: { kind: 'add-stand-off' } },
        },
      ]
    : []
}

const firstPoint = (region: Region): [number, number] => [region[0]!.outer[0]!, region[0]!.outer[1]!]

/** “, 2.3° down to the lower left”. */
const leanWords = (lean: Lean | null): string =>
  lean ? `, ${lean.deg.toFixed(lean.deg < 10 ? 1 : 0)}° down to the ${lean.towards}` : ''
