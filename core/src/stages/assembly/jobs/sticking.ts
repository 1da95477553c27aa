// Layers are tried on dry, and stuck from one side of the stack to the other.
import { boxesMeet, type Box } from '../../../base/geometry'
import { isPressed, isStandOff, glueOf, layerBox, type Layer } from '../../../project'
import type { PadCount, Untold } from '../task'
import { BENCH, UNNAMED_GLUE } from '../times'
import { isGlued, byGlue, othersOf, gluesOf, slowestOf, glueMinutes } from './glues'
import { isFolded, isShaped, afterColour, isStacked, isInStack, groundOf } from './kinds'
import { type Known, job } from './known'
import { settingMinutes, foamOf, sum } from './pads'

/**
 * The layers of the stack, tried on dry, then laid one after the other with their pads or glue, and what holds meanwhile.
 * @param padsOf pads of each layer by its id
 */
export function sticking(
  known: Known,
  layers: readonly Layer[],
  padsOf: ReadonlyMap<string, PadCount[]>,
): Untold[] {
  const { project, loads } = known
  const ground = groundOf(project, layers)
  // Only a stack of sheets can be turned over: what lies in bits is built where it stays.
  const faceDown = project.plan.direction === 'face-down' && ground === 'bench'
  // Flags are not stuck to each other: they go onto the twine.
  const isGarland = project.mount.kind === 'garland'
  const stacked = layers.filter((layer) => isStacked(layer) && !(isGarland && layer.joint.kind === 'none'))
  const order = faceDown ? stacked.toReversed() : stacked
  const jobs = [
    job(
      'dry-fit',
      'dry-fit',
      {
        step: 'dry-fit',
        layers: layers.filter(isInStack).length,
        aside: layers.filter((layer) => !isInStack(layer) && !isStandOff(layer)).length,
      },
      {
        after: [
          'prepare',
          ...loads.map((load) => `weed-${load.id}`),
          ...layers.flatMap(afterColour),
          ...layers.filter(isFolded).map((layer) => `score-${layer.id}`),
          ...layers.filter(isShaped).map((layer) => `shape-${layer.id}`),
          ...layers.filter(isPressed).map((layer) => `press-${layer.id}`),
        ],
        minutes: BENCH.dryFitMinutes + layers.length * BENCH.dryFitLayerMinutes,
      },
    ),
  ]
  const add = (next: Untold) => jobs.push(next)
  /** What was laid last: the order of the stack. */
  let before = 'dry-fit'
  /** Wet joints, and where they are: what lies beside one need not wait for it, unless the maker would rather. */
  const wet: { id: string; box: Box }[] = []
  const { glueWait } = project.plan
  order.forEach((layer, i) => {
    const own = { layerId: layer.id }
    if (i === 0 && !isGarland) {
      const pads = faceDown ? [] : (padsOf.get(layer.id) ?? [])
      const pins = ground === 'fabric' ? (known.depth?.pins?.at.length ?? 0) : 0
      const minutes = BENCH.layMinutes + settingMinutes(pads) + pins * BENCH.pinMinutes
      add(
        job(
          `lay-${layer.id}`,
          'lay',
          { step: 'start', layer, faceDown, pads, ground, pins },
          { after: [before], minutes, ...own, ...(pads.length > 0 ? foamOf(known, layer.id) : {}) },
        ),
      )
      before = `lay-${layer.id}`
      return
    }
    // Face down, a layer is stuck to by the foam on the back of the layer in front of it.
    const held = faceDown ? order[i - 1]! : layer
    const counts = padsOf.get(held.id) ?? []
    const pads = sum(counts)
    const box = layerBox(layer)
    const touched = wet.filter((joint) => boxesMeet(joint.box, box))
    const awaited = { 'go on': [], touching: touched, each: wet }[glueWait]
    const after = [before, ...awaited.map(({ id }) => id)]
    const onWet = glueWait === 'go on' && touched.length > 0
    if (pads > 0) {
      const padding = job(
        `pad-${held.id}`,
        'pad',
        { step: 'pad', layer: held, pads: counts },
        {
          after: faceDown ? [...after] : ['dry-fit'],
          minutes: settingMinutes(counts),
          layerId: held.id,
          ...foamOf(known, held.id),
        },
      )
      add(padding)
      after.push(padding.id)
    }
    // Of a padded layer, pieces that no pad fits, and those that are to be glued.
    const depth = known.depth?.layers.find((one) => one.layerId === held.id)
    const glued = depth?.glued.length ?? 0
    const flat = byGlue(project, held, depth?.gluedFlat ?? [])
    const hold = () => {
      const used = slowestOf(gluesOf(project, held), 'handleMin')
      if ((used ?? UNNAMED_GLUE).handleMin === 0) return
      wet.push({ id: `hold-${layer.id}`, box })
      add(
        job(
          `hold-${layer.id}`,
          'dry',
          { step: 'hold', layer, glue: used },
          { after: [before], needs: [], minutes: (used ?? UNNAMED_GLUE).handleMin, ...own },
        ),
      )
    }
    if (!isGlued(known, held, pads)) {
      add(
        job(
          `lay-${layer.id}`,
          'lay',
          { step: 'lay', layer, faceDown, pads, glued, flat, onWet },
          {
            after,
            minutes: BENCH.layMinutes + ((glued + sum(flat)) * BENCH.gluePartSeconds) / 60,
            ...own,
          },
        ),
      )
      before = `lay-${layer.id}`
      if (flat.length > 0) hold()
      return
    }
    add(
      job(
        `glue-${layer.id}`,
        'glue',
        {
          step: 'glue',
          layer,
          glue: glueOf(project, held) ?? null,
          amount: known.glue?.find(({ layerId }) => layerId === held.id) ?? null,
          faceDown,
          others: othersOf(project, held),
          pads,
          onWet,
        },
        { after, minutes: glueMinutes(layer), ...own },
      ),
    )
    before = `glue-${layer.id}`
    hold()
  })
  return jobs
}
