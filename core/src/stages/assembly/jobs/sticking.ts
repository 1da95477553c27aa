// Layers are tried on dry, and stuck from one side of the stack to the other; parts that are built apart first, each on the bench.
import {
  baseOf,
  glueOf,
  isPressed,
  isStacked,
  isStandOff,
  unitsOfStack,
  type Layer,
  type Unit,
} from '../../../project'
import type { Ground, PadCount, Untold } from '../task'
import { BENCH, UNNAMED_GLUE } from '../times'
import { isGlued, byGlue, othersOf, gluesOf, slowestOf, glueMinutes } from './glues'
import { isFolded, isShaped, afterColour, isInStack, groundOf } from './kinds'
import { type Known, job } from './known'
import { Lying } from './lying'
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
  const ground = groundOf(project, layers, known.carried)
  // Flags are not stuck to each other: they go onto the twine.
  const isGarland = project.mount.kind === 'garland'
  const stacked = unitsOfStack(project, ({ id }) => depth === null || depth.apart.includes(id)).filter(
    (unit) => isStacked(baseOf(unit)) && !(isGarland && baseOf(unit).joint.kind === 'none'),
  )
  const units = thinFirst(project, stacked)
  // Only a stack of sheets can be turned over: what lies in bits, or hangs on twine, is built where it stays.
  const faceDown = project.plan.direction === 'face-down' && ground === 'bench' && !isGarland
  const jobs = [dryFit(known, layers)]
  const pile = new Pile({ known, padsOf, part: null, faceDown, ground: isGarland ? null : ground }, jobs)
  for (const unit of faceDown ? units.toReversed() : units) pile.lay(unit)
  return jobs
}

function dryFit({ loads }: Known, layers: readonly Layer[]): Untold {
  return job({
    id: 'dry-fit',
    kind: 'dry-fit',
    about: {
      step: 'dry-fit',
      layers: layers.filter(isInStack).length,
      aside: layers.filter((layer) => !isInStack(layer) && !isStandOff(layer)).length,
    },

    after: [
      'prepare',
      ...loads.map((load) => `weed-${load.id}`),
      ...layers.flatMap(afterColour),
      ...layers.filter(isFolded).map((layer) => `score-${layer.id}`),
      ...layers.filter(isShaped).map((layer) => `shape-${layer.id}`),
      ...layers.filter(isPressed).map((layer) => `press-${layer.id}`),
    ],
    minutes: BENCH.dryFitMinutes + layers.length * BENCH.dryFitLayerMinutes,
  })
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
  private last: Unit | null = null
  private readonly lying = new Lying<Unit>()
  /** The job by which each unit came to lie there; of one that merely lies on the bench what went before. */
  private readonly laidBy = new Map<Unit, readonly string[]>()
  /** Wet joints, and of what: what lies beside one need not wait for it, unless the maker would rather. */
  private readonly wet: { id: string; unit: Unit }[] = []

  constructor(
    private readonly place: Place,
    private readonly jobs: Untold[],
  ) {}

  /** Lays a layer, or a part that is built first. */
  lay(unit: Unit): void {
    const ready = unit.part ? this.build(unit) : []
    this.lying.lay(unit, unit.layers)
    const by = this.begins(unit) ? this.begin(unit, ready) : this.stick(unit, ready)
    this.laidBy.set(unit, by)
    this.last = unit
  }

  /** Whether a unit is laid on the ground itself: the first, and where no sheet carries all, whatever lies beside the rest. */
  private begins(unit: Unit): boolean {
    const { ground } = this.place
    if (!ground || !this.last) return ground !== null
    // Pins hold the first alone: what lies beside it on fabric is put true to it.
    return ground !== 'bench' && ground !== 'fabric' && this.lying.onto(unit).length === 0
  }

  /** What must be done before a unit can be laid. */
  private before(unit: Unit): string[] {
    const { last } = this
    if (!last) return ['dry-fit']
    const onto = this.lying.onto(unit)
    // Face down each is stuck to what lies above it; and what lies beside all else on the bench is put true to the first.
    const to = this.place.faceDown ? [last] : onto.length > 0 || !this.place.ground ? onto : this.first()
    return to.length > 0 ? [...new Set(to.flatMap((one) => this.laidBy.get(one)!))] : ['dry-fit']
  }

  /** What the pile was begun with; none while nothing lies there. */
  private first(): Unit[] {
    return [...this.laidBy.keys()].slice(0, 1)
  }

  /** Builds a part on a pile of its own; gives what must be done before it can be taken up. */
  private build({ part, units }: Unit): string[] {
    const { known, padsOf } = this.place
    const { id, name } = part!
    const own = new Pile({ known, padsOf, part: { id, name }, faceDown: false, ground: 'bench' }, this.jobs)
    for (const unit of units) if (isStacked(baseOf(unit))) own.lay(unit)
    return [
      ...new Set(own.lying.tops().flatMap((unit) => own.laidBy.get(unit)!)),
      ...own.wet.map((joint) => joint.id),
    ]
  }

  /** Lays what lies on the ground; gives the job that did, or what went before where nothing was to do. */
  private begin(unit: Unit, ready: readonly string[]): readonly string[] {
    const { known, padsOf, part, faceDown, ground } = this.place
    const layer = baseOf(unit)
    const after = ['dry-fit', ...ready]
    if (part) {
      // A part that it is begun with lies there already; what is only to take up something thin is begun with that.
      if (unit.part) return ready
      if (isWithThin(part)) return ['dry-fit']
      this.jobs.push(
        job({
          id: `begin-${part.id}`,
          kind: 'lay',
          about: { step: 'begin', layer, part: part.name },
          after,
          minutes: BENCH.layMinutes,
          ...this.of(unit),
        }),
      )
      return [`begin-${part.id}`]
    }
    const pads = faceDown ? [] : (padsOf.get(layer.id) ?? [])
    const pins = ground === 'fabric' ? (known.depth?.pins?.at.length ?? 0) : 0
    const inPlace = ground !== 'bench' && ground !== 'bench in its place' && ground !== 'fabric'
    const glued = inPlace && isGlued(known, layer, sum(pads))
    this.jobs.push(
      job({
        id: `lay-${layer.id}`,
        kind: 'lay',
        about: { step: 'start', layer, faceDown, pads, ground: ground!, pins, ...asOne(unit) },

        after,
        minutes:
          (glued ? glueMinutes(layer) : BENCH.layMinutes) + settingMinutes(pads) + pins * BENCH.pinMinutes,
        ...this.of(unit),
        ...(pads.length > 0 ? foamOf(known, layer.id) : {}),
      }),
    )
    if (glued) this.hold(unit, layer, `lay-${layer.id}`)
    return [`lay-${layer.id}`]
  }

  /** Sticks one onto what lies there; gives the job that did. */
  private stick(unit: Unit, ready: readonly string[]): readonly string[] {
    const { known, padsOf, part, faceDown } = this.place
    const { project } = known
    const layer = baseOf(unit)
    const own = this.of(unit)
    const which = { ...asOne(unit), ...(part ? { on: part.name } : {}) }
    // Face down, a layer is stuck to by the foam on the back of the layer in front of it.
    const held = faceDown ? baseOf(this.last!) : layer
    const counts = padsOf.get(held.id) ?? []
    const pads = sum(counts)
    const { glueWait } = project.plan
    const touched = this.wet.filter((joint) => this.lying.isOver(joint.unit, unit))
    const awaited = { 'go on': [], touching: touched, each: this.wet }[glueWait]
    const after = [...new Set([...this.before(unit), ...ready, ...awaited.map(({ id }) => id)])]
    const onWet = glueWait === 'go on' && touched.length > 0
    if (pads > 0) {
      const padding = job({
        id: `pad-${held.id}`,
        kind: 'pad',
        about: { step: 'pad', layer: held, pads: counts },

        after: faceDown ? [...after] : ready.length > 0 ? [...ready] : ['dry-fit'],
        minutes: settingMinutes(counts),
        ...this.of(faceDown ? this.last! : unit),
        ...foamOf(known, held.id),
      })
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
      this.jobs.push(job({ id: `lay-${layer.id}`, kind: 'lay', about, after, minutes, ...own }))
      if (flat.length > 0) this.hold(unit, held, `lay-${layer.id}`)
      return [`lay-${layer.id}`]
    }
    const glue = glueOf(project, held) ?? null
    const amount = known.glue?.find(({ layerId }) => layerId === held.id) ?? null
    const others = othersOf(project, held)
    const about = { step: 'glue', layer, glue, amount, faceDown, others, pads, onWet, ...which } as const
    this.jobs.push(
      job({ id: `glue-${layer.id}`, kind: 'glue', about, after, minutes: glueMinutes(layer), ...own }),
    )
    this.hold(unit, held, `glue-${layer.id}`)
    return [`glue-${layer.id}`]
  }

  /** What a job of a unit is about, and where it is done. */
  private of(unit: Unit): Pick<Untold, 'layerId' | 'asOne' | 'onto' | 'onBench'> {
    const { part, layers } = unit
    const under = this.lying.under(unit)
    return {
      layerId: layers[0]!.id,
      onto: [...new Set([...under.slice(0, 1), ...this.lying.onto(unit)].map(topOf))],
      ...(part ? { asOne: { partId: part.id, layerIds: idsOf(unit) } } : {}),
      ...(this.place.part ? { onBench: (under.length > 0 ? under : this.first()).flatMap(idsOf) } : {}),
    }
  }

  /** The glue under a layer takes hold; the slowest of those that are used. */
  private hold(unit: Unit, held: Layer, after: string): void {
    const layer = baseOf(unit)
    const used = slowestOf(gluesOf(this.place.known.project, held), 'handleMin')
    const { handleMin } = used ?? UNNAMED_GLUE
    if (handleMin === 0) return
    this.wet.push({ id: `hold-${layer.id}`, unit })
    this.jobs.push(
      job({
        id: `hold-${layer.id}`,
        kind: 'dry',
        about: { step: 'hold', layer, glue: used },
        after: [after],
        needs: [],
        minutes: handleMin,
        ...this.of(unit),
      }),
    )
  }
}

/** Of a part its name, and how many layers it has. */
const asOne = ({ part, layers }: Unit) => (part ? { asOne: { name: part.name, layers: layers.length } } : {})

/** Of a part that lies there its frontmost layer. */
const topOf = ({ layers }: Unit): string => layers.at(-1)!.id

const idsOf = ({ layers }: Unit): string[] => layers.map(({ id }) => id)
