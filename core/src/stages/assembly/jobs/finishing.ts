// It dries and goes onto or into what it lives on.
import {
  adhesiveOf,
  isOnPane,
  isStacked,
  isStandOff,
  thicknessOf,
  glueOf,
  isGluedFlat,
  standsInFrame,
  layerBox,
  stickGlueOf,
  type Layer,
} from '../../../project'
import { coverOf, topperHold } from '../../depth'
import { flagsOf } from '../../layers'
import type { About, PadCount, StepKind, Untold } from '../task'
import { BENCH, UNNAMED_GLUE } from '../times'
import { isGlued, gluesOf, slowestOf, glueMinutes } from './glues'
import { isFolded, groundOf } from './kinds'
import { type Known, job, lastOf } from './known'
import { foamsOfShim, namesOf, shimMinutes, sum } from './pads'

/** Pieces that the frame holds by folded bars, the hindmost first. */
function standing(
  layers: readonly Layer[],
  add: (id: string, kind: StepKind, { about, minutes }: { about: About; minutes: number }) => void,
) {
  layers
    .filter(standsInFrame)
    .toSorted((a, b) => a.joint.gapMm - b.joint.gapMm)
    .forEach((layer) =>
      add(`stand-${layer.id}`, 'mount', { about: { step: 'stand', layer }, minutes: BENCH.standMinutes }),
    )
}

/** Dry, then onto the board, the card or the sticks; each after the last. */
export function finishing(
  known: Known,
  {
    layers,
    stuck,
    padsOf,
  }: { layers: readonly Layer[]; stuck: readonly Untold[]; padsOf: ReadonlyMap<string, PadCount[]> },
): Untold[] {
  const { project, depth } = known
  const { mount } = project
  const ground = groundOf(project, layers, known.carried)
  const jobs: Untold[] = []
  const idsOf = (of: (one: Untold) => boolean) => stuck.filter(of).map(({ id }) => id)
  const laid = lastOf(stuck.filter(({ kind }) => kind !== 'dry'))
  const holds = idsOf(({ about }) => about.step === 'hold')
  // Nothing is taken up before all of it holds; drying begins with the glue, not once it holds.
  const afterLast = (kind: StepKind): string[] => {
    if (jobs.length === 0)
      return [...laid, ...(kind === 'dry' ? idsOf(({ about }) => about.step === 'glue') : holds)]
    return jobs.length === 1 && jobs[0]!.kind === 'dry' ? [jobs[0]!.id, ...holds] : [jobs.at(-1)!.id]
  }
  const add = (id: string, kind: StepKind, { about, minutes }: { about: About; minutes: number }) =>
    jobs.push(
      job({
        id,
        kind,
        about,
        after: [...new Set(afterLast(kind))],
        needs: kind === 'dry' ? [] : ['hands'],
        minutes,
        layerId: 'layer' in about ? about.layer.id : null,
      }),
    )
  // Of several glues the one that takes longest.
  const wet = layers
    .filter(isStacked)
    // The backmost is stuck to nothing yet, unless it was begun where it stays.
    .slice(mount.kind === 'garland' || ground !== 'bench' ? 0 : 1)
    .filter(
      (layer) =>
        isGlued(known, layer, sum(padsOf.get(layer.id) ?? [])) ||
        layer.pieces.some(({ id }) => isGluedFlat(layer, id)),
    )
  const glue = slowestOf(
    wet.flatMap((layer) => {
      const named = gluesOf(project, layer)
      // One that goes on with glue since no pad fits takes the layer's.
      return named.length > 0 ? named : (glueOf(project, layer) ?? [])
    }),
    'dryMin',
  )
  const { dryMin: longest } = glue ?? UNNAMED_GLUE
  if (wet.length > 0 && longest > 0) add('dry', 'dry', { about: { step: 'dry', glue }, minutes: longest })
  /** What holds the stack to what it lives on dries before the work is stood up. */
  const dryMount = () => {
    const own = layers[0] ? glueOf(project, layers[0]) : adhesiveOf(project)
    const { dryMin } = own ?? UNNAMED_GLUE
    if (dryMin > 0) add('dry-mount', 'dry', { about: { step: 'dry', glue: own ?? null }, minutes: dryMin })
  }
  if (mount.kind === 'frame') {
    const shim = depth?.shim ?? null
    // What was built on the board is fixed to it already.
    if (ground === 'bench') {
      add('mount', 'mount', {
        about: { step: 'mount-frame', shim },
        minutes: BENCH.frameMinutes + (shim ? shimMinutes(project, shim) : 0),
      })
      if (shim) jobs.at(-1)!.takes = foamsOfShim(shim)
      else dryMount()
    }
    standing(layers, add)
    for (const layer of layers.filter(isOnPane))
      add(`pane-${layer.id}`, 'mount', { about: { step: 'on-pane', layer }, minutes: BENCH.paneMinutes })
    const ring = layers.filter(isStandOff)
    if (ring.length > 0)
      add('stand-off', 'mount', {
        about: {
          step: 'stand-off',
          sheets: ring.length,
          thicknessMm: thicknessOf(project, ring[0]!),
          mat: mount.mat !== null,
        },
        minutes: BENCH.paneMinutes,
      })
    if (depth?.lip) {
      const { at, mm, foamIds } = depth.lip
      const about = { step: 'lip-pads', count: at.length, mm, foams: namesOf(project, foamIds) } as const
      add('lip-pads', 'mount', { about, minutes: shimMinutes(project, depth.lip) })
      jobs.at(-1)!.takes = foamsOfShim(depth.lip)
    }
    if (mount.pane.kind !== 'none')
      add('glaze', 'glaze', { about: { step: 'glaze' }, minutes: BENCH.frameMinutes })
    const inside = { ring: mount.ring.kept, mat: mount.mat !== null, hanger: mount.hanger !== 'none' }
    add('close', 'close', {
      about: { step: 'close', airMm: mount.clearanceMm, ...inside },
      minutes: BENCH.frameMinutes,
    })
  } else if (mount.kind === 'card') {
    if (ground === 'bench') {
      add('mount', 'mount', {
        about: { step: 'mount-card', stackMm: depth?.stackMm ?? 0 },
        minutes: BENCH.cardMinutes,
      })
      dryMount()
    }
  } else if (mount.kind === 'garland') {
    const flags = flagsOf(project)
    flags.forEach(({ layer, piece, nth }) => {
      const { gapMm, endsMm } = mount
      const about = { nth, of: flags.length, gapMm, endsMm, isFolded: isFolded(layer) }
      add(`flag-${nth}`, 'mount', {
        about: { step: 'flag', layer, ...about },
        minutes: BENCH.flagMinutes * layer.copies,
      })
      jobs.at(-1)!.pieceId = piece.id
    })
  } else if (mount.kind === 'panel') {
    if (ground === 'bench') {
      add('mount', 'mount', {
        about: { step: 'mount-panel', surface: mount.surface },
        minutes: BENCH.cardMinutes,
      })
      dryMount()
    }
  } else if (mount.kind === 'topper' && mount.sticks > 0) {
    const { sticks } = mount
    const held = topperHold(project)
    const left = held ? Math.min(...layers.map((layer) => layerBox(layer).minX)) : 0
    const places = held ? held.sticks.map(({ x }) => x - left) : []
    add('mount', 'mount', {
      about: { step: 'mount-sticks', sticks, places },
      minutes: BENCH.stickMinutes * sticks,
    })
    const own = (stickGlueOf(project) ?? UNNAMED_GLUE).dryMin
    if (own > 0) add('dry-sticks', 'dry', { about: { step: 'dry-sticks' }, minutes: own })
    const cover = coverOf(project)
    if (cover)
      add(`cover-${cover.id}`, 'glue', {
        about: { step: 'cover', layer: cover },
        minutes: glueMinutes(cover),
      })
  }
  return jobs
}
