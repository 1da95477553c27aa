// Layers are tried on dry, and stuck from one side of the stack to the other; parts that are built apart first, each on the bench.
import { boxesMeet, joinBoxes, type Box } from '../../../base/geometry'
import {
  baseOf,
  glueOf,
  isPressed,
  isStacked,
  isStandOff,
  layerBox,
  unitsOfStack,
  type Layer,
  type Unit,
} from '../../../project'
import type { Ground, PadCount, Untold } from '../task'
import { BENCH, UNNAMED_GLUE } from '../times'
import { isGlued, byGlue, othersOf, gluesOf, slowestOf, glueMinutes } from './glues'
import { isFolded, isShaped, afterColour, isInStack, groundOf } from './kinds'
import { type Known, job } from './known'
import { settingMinutes, foamOf, sum } from './pads'
import { isWithThin, thinFirst } from './thin'

/**
 * The layers of the stack, tried on dry, then laid one after the other with their pads or glue, and what holds meanwhile.
 * @param padsOf pads of each layer by its id
 */
export function sticking(
  known: Known,
  layers: readonly Layer[],
  padsOf: ReadonlyMap<string, PadCount[]>,
): Untold[] {
  const { project, depth } = known
  const ground = groundOf(project, layers)
  // Flags are not stuck to each other: they go onto the twine.
  const isGarland = project.mount.kind === 'garland'
  const stacked = unitsOfStack(project, ({ id }) => depth === null || depth.apart.includes(id)).filter(
    (unit) => isStacked(baseOf(unit)) && !(isGarland && baseOf(unit).joint.kind === 'none'),
  )
  const units = thinFirst(project, stacked)
  // Only a stack of sheets can be turned over: what lies in bits is built where it stays.
  const faceDown = project.plan.direction === 'face-down' && ground === 'bench'
  const jobs = [dryFit(known, layers)]
  const pile = new Pile({ known, padsOf, part: null, faceDown, ground: isGarland ? null : ground }, jobs)
  for (const unit of faceDown ? units.toReversed() : units) pile.lay(unit)
  return jobs
}

function dryFit({ loads }: Known, layers: readonly Layer[]): Untold {
  return job(
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
  )
}

/** What is laid on each other in one place. */
interface Place {
  known: Known
  padsOf: ReadonlyMap<string, PadCount[]>
  /** The name of the part that is built here; null for the stack itself. */
  part: { id: string; name: string } | null
  faceDown: boolean
  /** What its first is laid on; null where nothing is. */
  ground: Ground | null
}

/** The stack, or a part on the bench, while it grows: what is laid goes into the list of jobs. */
class Pile {
  /** What must be done before the next can be laid. */
  private before: string[] = ['dry-fit']
  private last: Unit | null = null
  private readonly lying: string[] = []
  /** Wet joints, and where they are: what lies beside one need not wait for it, unless the maker would rather. */
  private readonly wet: { id: string; box: Box }[] = []

  constructor(
    private readonly place: Place,
    private readonly jobs: Untold[],
  ) {}

  /** Lays a layer, or a part that is built first. */
  lay(unit: Unit): void {
    const ready = unit.part ? this.build(unit) : []
    if (this.last || !this.place.ground) this.stick(unit, ready)
    else this.begin(unit, ready)
    this.last = unit
    this.lying.push(...unit.layers.map(({ id }) => id))
  }

  /** Builds a part on a pile of its own; gives what must be done before it can be taken up. */
  private build({ part, units }: Unit): string[] {
    const { known, padsOf } = this.place
    const { id, name } = part!
    const own = new Pile({ known, padsOf, part: { id, name }, faceDown: false, ground: 'bench' }, this.jobs)
    for (const unit of units) if (isStacked(baseOf(unit))) own.lay(unit)
    return [...own.before, ...own.wet.map((joint) => joint.id)]
  }

  private begin(unit: Unit, ready: readonly string[]): void {
    const { known, padsOf, part, faceDown, ground } = this.place
    const layer = baseOf(unit)
    const after = [...new Set([...this.before, ...ready])]
    if (part) {
      // A part that it is begun with lies there already; what is only to take up something thin is begun with that.
      const begins = !unit.part && !isWithThin(part)
      this.before = begins ? [`begin-${part.id}`] : unit.part ? [...ready] : ['dry-fit']
      if (begins)
        this.jobs.push(
          job(
            `begin-${part.id}`,
            'lay',
            { step: 'begin', layer, part: part.name },
            { after, minutes: BENCH.layMinutes, ...this.of(unit) },
          ),
        )
      return
    }
    const pads = faceDown ? [] : (padsOf.get(layer.id) ?? [])
    const pins = ground === 'fabric' ? (known.depth?.pins?.at.length ?? 0) : 0
    this.jobs.push(
      job(
        `lay-${layer.id}`,
        'lay',
        { step: 'start', layer, faceDown, pads, ground: ground!, pins, ...asOne(unit) },
        {
          after,
          minutes: BENCH.layMinutes + settingMinutes(pads) + pins * BENCH.pinMinutes,
          ...this.of(unit),
          ...(pads.length > 0 ? foamOf(known, layer.id) : {}),
        },
      ),
    )
    this.before = [`lay-${layer.id}`]
  }

  private stick(unit: Unit, ready: readonly string[]): void {
    const { known, padsOf, part, faceDown } = this.place
    const { project } = known
    const layer = baseOf(unit)
    const own = this.of(unit)
    const which = { ...asOne(unit), ...(part ? { on: part.name } : {}) }
    // Face down, a layer is stuck to by the foam on the back of the layer in front of it.
    const held = faceDown ? baseOf(this.last!) : layer
    const counts = padsOf.get(held.id) ?? []
    const pads = sum(counts)
    const box = boxRound(unit)
    const { glueWait } = project.plan
    const touched = this.wet.filter((joint) => boxesMeet(joint.box, box))
    const awaited = { 'go on': [], touching: touched, each: this.wet }[glueWait]
    const after = [...new Set([...this.before, ...ready, ...awaited.map(({ id }) => id)])]
    const onWet = glueWait === 'go on' && touched.length > 0
    if (pads > 0) {
      const padding = job(
        `pad-${held.id}`,
        'pad',
        { step: 'pad', layer: held, pads: counts },
        {
          after: faceDown ? [...after] : ready.length > 0 ? [...ready] : ['dry-fit'],
          minutes: settingMinutes(counts),
          ...this.of(faceDown ? this.last! : unit),
          ...foamOf(known, held.id),
        },
      )
      this.jobs.push(padding)
      after.push(padding.id)
    }
    // Of a padded layer, pieces that no pad fits, and those that are to be glued.
    const depth = known.depth?.layers.find((one) => one.layerId === held.id)
    const glued = depth?.glued.length ?? 0
    const flat = byGlue(project, held, depth?.gluedFlat ?? [])
    if (!isGlued(known, held, pads)) {
      const minutes = BENCH.layMinutes + ((glued + sum(flat)) * BENCH.gluePartSeconds) / 60
      const about = { step: 'lay', layer, faceDown, pads, glued, flat, onWet, ...which } as const
      this.jobs.push(job(`lay-${layer.id}`, 'lay', about, { after, minutes, ...own }))
      this.before = [`lay-${layer.id}`]
      if (flat.length > 0) this.hold(unit, held, box)
      return
    }
    const glue = glueOf(project, held) ?? null
    const amount = known.glue?.find(({ layerId }) => layerId === held.id) ?? null
    const others = othersOf(project, held)
    const about = { step: 'glue', layer, glue, amount, faceDown, others, pads, onWet, ...which } as const
    this.jobs.push(job(`glue-${layer.id}`, 'glue', about, { after, minutes: glueMinutes(layer), ...own }))
    this.before = [`glue-${layer.id}`]
    this.hold(unit, held, box)
  }

  /** What a job of a unit is about, and where it is done. */
  private of({ part, layers }: Unit): Pick<Untold, 'layerId' | 'asOne' | 'onBench'> {
    return {
      layerId: layers[0]!.id,
      ...(part ? { asOne: { partId: part.id, layerIds: layers.map(({ id }) => id) } } : {}),
      ...(this.place.part ? { onBench: [...this.lying] } : {}),
    }
  }

  /** The glue under a layer takes hold; the slowest of those that are used. */
  private hold(unit: Unit, held: Layer, box: Box): void {
    const layer = baseOf(unit)
    const used = slowestOf(gluesOf(this.place.known.project, held), 'handleMin')
    const { handleMin } = used ?? UNNAMED_GLUE
    if (handleMin === 0) return
    this.wet.push({ id: `hold-${layer.id}`, box })
    this.jobs.push(
      job(
        `hold-${layer.id}`,
        'dry',
        { step: 'hold', layer, glue: used },
        { after: [...this.before], needs: [], minutes: handleMin, ...this.of(unit) },
      ),
    )
  }
}

/** Of a part its name, and how many layers it has. */
const asOne = ({ part, layers }: Unit) => (part ? { asOne: { name: part.name, layers: layers.length } } : {})

/** The box round a unit. */
const boxRound = ({ layers }: Unit): Box => joinBoxes(layers.map(layerBox))
