// Steps from the joints: cut and weed, fit dry, then stick from one side of the stack to the other, dry, mount. Each
// step names those that must be done before it; the schedule puts times to them.
import {
  adhesiveOf,
  builtLayers,
  folioOf,
  layerRegion,
  paperOf,
  type Adhesive,
  type Layer,
  type Project,
} from '../../project'
import { regionPerimeter } from '../../base/geometry'
import type { DepthPlan } from '../depth'
import type { Turn } from '../layers'
import type { Load } from '../sheets'
import { schedule } from './schedule'

export type StepKind =
  | 'prepare'
  | 'cut'
  | 'weed'
  | 'score'
  | 'dry-fit'
  | 'pad'
  | 'glue'
  | 'lay'
  | 'dry'
  | 'mount'
  | 'glaze'
  | 'close'
export type Resource = 'cutter' | 'hands'

export interface Task {
  id: string
  kind: StepKind
  title: string
  /** What to do and to watch, for the bench. */
  detail: string
  after: string[]
  /** What is busy with it; a drying step needs nothing. */
  needs: Resource[]
  minutes: number
  layerId: string | null
  loadId: string | null
  /** The usual caution where someone can be hurt or a sheet lost. */
  caution: string | null
}

export interface Step extends Task {
  startMin: number
  endMin: number
}

export interface AssemblyPlan {
  /** In the order in which they start. */
  steps: Step[]
  /** From the first step to the end of the last, drying included. */
  minutes: number
  /** Minutes of the maker's hands. */
  handsMinutes: number
}

// Bench times: starting values that the log will correct.
const PAD_MIN = 8 / 60
const GLUE_PART_MIN = 10 / 60
const GLUE_CM_MIN = 1 / 60
const HOLE_MIN = 1.5 / 60
const LOOSE_MIN = 5 / 60
const LAY_MIN = 0.75
const SCORE_MIN = 0.25

const BLADE = 'Blades are sharp: keep fingers clear, cap what is not in use.'
const GLASS = 'Glass edges cut: wear gloves and handle the pane by its edges.'
const FOOD =
  'Keep card, glue and foam off the icing with a food-safe sleeve; small parts and sticks are not for small children. Follow the labels.'

/** All steps with times. `turns` are the ways of laying each layer that look right (by id). Needs nothing but the results of the earlier stages. */
export function planAssembly(
  project: Project,
  loads: readonly Load[],
  depth: DepthPlan,
  turns: ReadonlyMap<string, readonly Turn[]> = new Map(),
): AssemblyPlan {
  const layers = builtLayers(project)
  if (layers.length === 0) return { steps: [], minutes: 0, handsMinutes: 0 }
  const { batch } = project.plan
  const tasks = [
    ...cutting(project, loads, depth),
    ...[
      ...scoring(layers, loads),
      ...sticking(project, layers, loads, depth),
      ...finishing(project, layers, depth),
    ].map((t) => forBatch(t, batch)),
  ]
  const steps = schedule(tasks.map((t) => withTurnWarning(t, turns)))
  return {
    steps,
    minutes: Math.max(0, ...steps.map((s) => s.endMin)),
    handsMinutes: steps.filter((s) => s.needs.includes('hands')).reduce((sum, s) => sum + s.minutes, 0),
  }
}

/** A step of the hands as often as the work is made, one after the other; drying goes on for all at once. */
const forBatch = (step: Task, batch: number): Task =>
  batch === 1 || !step.needs.includes('hands')
    ? step
    : { ...step, minutes: step.minutes * batch, detail: `${step.detail} For all ${batch}.` }

/** Says on the step that lays a layer which wrong way of laying it looks right. */
function withTurnWarning(step: Task, turns: ReadonlyMap<string, readonly Turn[]>): Task {
  if ((step.kind !== 'lay' && step.kind !== 'glue') || step.layerId === null) return step
  const near = (turns.get(step.layerId) ?? []).filter((turn) => !turn.exact)
  const [first] = near
  if (!first) return step
  const way =
    `${first.flipped ? 'face down' : ''}${first.turnDeg ? ` turned ${Math.round(first.turnDeg)}°` : ''}`.trim()
  return {
    ...step,
    detail: `${step.detail} It looks right ${way} as well${near.length > 1 ? `, and ${near.length - 1} more ways` : ''}: check before it touches.`,
  }
}

const task = (
  id: string,
  kind: StepKind,
  title: string,
  detail: string,
  after: string[],
  needs: Resource[],
  minutes: number,
  more: Partial<Task> = {},
): Task => ({
  id,
  kind,
  title,
  detail,
  after,
  needs,
  minutes,
  layerId: null,
  loadId: null,
  caution: null,
  ...more,
})

const plural = (n: number, one: string, many = one + 's'): string => `${n} ${n === 1 ? one : many}`

/** “12 pads of 2 mm, 3 of 4.3 mm”. */
function padWords(depth: DepthPlan, layerId: string): string {
  const counts = new Map<number, number>()
  for (const pad of depth.pads)
    if (pad.layerId === layerId) counts.set(pad.thicknessMm, (counts.get(pad.thicknessMm) ?? 0) + 1)
  return [...counts]
    .toSorted((a, b) => b[1] - a[1])
    .map(([mm, n]) => `${plural(n, 'pad')} of ${Number(mm.toFixed(2))} mm`)
    .join(', ')
}

function cutting(project: Project, loads: readonly Load[], depth: DepthPlan): Task[] {
  const sheets = loads.length
  const foam = depth.pads.length * project.plan.batch
  const { cutWith } = project.plan
  const card = cutWith
    ? `The pieces that were cut with “${cutWith.name}”`
    : `${plural(sheets, 'sheet')} in cutting order`
  const tasks = [
    task(
      'prepare',
      'prepare',
      'Lay everything ready',
      `${card}${foam > 0 ? `, ${plural(foam, 'foam pad')}` : ''}, tweezers, a weeding pick, ${adhesiveOf(project)?.name ?? 'glue'}.`,
      [],
      ['hands'],
      3,
    ),
  ]
  loads.forEach((load, i) => {
    const folios = load.folios.join(', ')
    const loose = load.pieces.filter((p) => p.loose).length
    const holes = load.pieces.reduce((sum, p) => sum + p.shape.holes.length, 0)
    const passes = load.setting.passes > 1 ? `, ${load.setting.passes} passes` : ''
    tasks.push(
      task(
        `cut-${load.id}`,
        'cut',
        `Cut load ${load.number}: ${load.paper.name}`,
        `Layer ${folios}. ${load.setting.tack} tack mat, setting “${load.setting.name}”${passes}.${load.change && i > 0 ? ` Change: ${load.change}.` : ''}`,
        i === 0 ? ['prepare'] : [`cut-${loads[i - 1]!.id}`],
        ['cutter'],
        load.minutes,
        { loadId: load.id, caution: BLADE },
      ),
      task(
        `weed-${load.id}`,
        'weed',
        `Weed load ${load.number}: ${load.paper.name}`,
        `${plural(load.pieces.length, 'piece')}, ${plural(holes, 'opening')}${loose > 0 ? `; keep ${plural(loose, 'loose bit')}` : ''}. Write the folio on a hidden corner.`,
        [`cut-${load.id}`],
        ['hands'],
        0.3 + holes * HOLE_MIN + loose * LOOSE_MIN,
        { loadId: load.id },
      ),
    )
  })
  return tasks
}

/** Folds are scored while a piece lies flat, before anything is tried on. */
const scoring = (layers: readonly Layer[], loads: readonly Load[]): Task[] =>
  layers
    .filter((layer) => layer.folds.length > 0)
    .map((layer) =>
      task(
        `score-${layer.id}`,
        'score',
        `Score and fold “${layer.name}”`,
        `${plural(layer.folds.length, 'fold')}, along the dashed lines of the drawing: score with a blunt tool and a ruler on a soft mat, fold away from the scored line.`,
        loads
          .filter((load) => load.pieces.some((piece) => piece.layerId === layer.id))
          .map((load) => `weed-${load.id}`),
        ['hands'],
        0.3 + layer.folds.length * SCORE_MIN,
        { layerId: layer.id },
      ),
    )

const ALIGN: Record<Project['plan']['alignment'], string> = {
  'corner-jig': 'Lower the left edge into the corner jig, then let it drop.',
  'centre-mark': 'Bring the centre marks over each other, then let it drop.',
  'one-edge': 'Line up the lower edges, then let it drop.',
  'by-eye': 'Hover, check all round, then let it drop.',
}

function sticking(
  project: Project,
  layers: readonly Layer[],
  loads: readonly Load[],
  depth: DepthPlan,
): Task[] {
  const adhesive = adhesiveOf(project)
  const faceDown = project.plan.direction === 'face-down'
  const order = faceDown ? layers.toReversed() : layers
  const tasks: Task[] = [
    task(
      'dry-fit',
      'dry-fit',
      'Fit everything dry',
      `Lay all ${layers.length} layers on each other in order with nothing stuck. Look at it from the distance it will be seen from; change a colour now, not later.`,
      [
        'prepare',
        ...loads.map((load) => `weed-${load.id}`),
        ...layers.filter((layer) => layer.folds.length > 0).map((layer) => `score-${layer.id}`),
      ],
      ['hands'],
      2 + layers.length * 0.25,
    ),
  ]
  let before = 'dry-fit'
  order.forEach((layer, i) => {
    const folio = folioOf(project, layer.id) ?? 0
    const paper = paperOf(project, layer)
    const what = `“${layer.name}”${paper ? `, ${paper.name}` : ''}`
    // Face down, a layer is stuck to by the foam on the back of the layer in front of it.
    const jointLayer = faceDown ? order[i - 1] : layer
    if (i === 0) {
      const start = faceDown
        ? task(
            `lay-${layer.id}`,
            'lay',
            `Lay layer ${folio} face down`,
            `${what}. Face down on a clean mat, its lower edge towards you.`,
            [before],
            ['hands'],
            LAY_MIN,
            { layerId: layer.id },
          )
        : firstLayer(layer, folio, what, before, depth)
      tasks.push(start)
      before = start.id
      return
    }
    const pads = depth.pads.filter((pad) => pad.layerId === jointLayer!.id).length
    const glues = jointLayer!.joint.kind === 'glue' || (jointLayer!.joint.kind === 'foam' && pads === 0)
    const ready: string[] = [before]
    if (pads > 0) {
      const on = faceDown ? `layer ${folioOf(project, jointLayer!.id)}` : `layer ${folio}`
      tasks.push(
        task(
          `pad-${jointLayer!.id}`,
          'pad',
          `Put the pads on ${on}`,
          `${padWords(depth, jointLayer!.id)} on the back, as drawn. Leave the paper on until the layer lies right.`,
          faceDown ? [before] : ['dry-fit'],
          ['hands'],
          pads * PAD_MIN,
          { layerId: jointLayer!.id },
        ),
      )
      ready.push(`pad-${jointLayer!.id}`)
    }
    const align = faceDown ? 'Lower edges together, then press lightly.' : ALIGN[project.plan.alignment]
    const verb = faceDown ? `Lay layer ${folio} face down on the stack` : `Lay layer ${folio} on the stack`
    if (glues) {
      tasks.push(glueTask(layer, folio, verb, what, align, ready, adhesive, paper?.gsm ?? 216))
      before = `glue-${layer.id}`
      const wait = adhesive?.handleMin ?? 10
      if (wait > 0) {
        tasks.push(
          task(
            `hold-${layer.id}`,
            'dry',
            `Let layer ${folio} take hold`,
            `${adhesive?.name ?? 'Glue'}: ${wait} min until it can be handled. Keep it flat.`,
            [before],
            [],
            wait,
            { layerId: layer.id },
          ),
        )
        before = `hold-${layer.id}`
      }
    } else {
      const caution = pads > 0 ? 'Foam sticks at once and cannot be moved.' : null
      tasks.push(
        task(
          `lay-${layer.id}`,
          'lay',
          verb,
          `${what}. ${align}${pads > 0 ? ' Peel the corner pads first; the rest once it lies right. Press from the middle out.' : ''}`,
          ready,
          ['hands'],
          LAY_MIN,
          { layerId: layer.id, caution },
        ),
      )
      before = `lay-${layer.id}`
    }
  })
  return tasks
}

function firstLayer(layer: Layer, folio: number, what: string, before: string, depth: DepthPlan): Task {
  const pads = depth.pads.filter((pad) => pad.layerId === layer.id).length
  const detail =
    pads > 0
      ? `${what}. ${padWords(depth, layer.id)} on its back; it is stuck down when the stack is mounted.`
      : `${what}. Right side up, flat on the bench; it carries all the others.`
  return task(
    `lay-${layer.id}`,
    'lay',
    `Start with layer ${folio}`,
    detail,
    [before],
    ['hands'],
    LAY_MIN + pads * PAD_MIN,
    { layerId: layer.id },
  )
}

function glueTask(
  layer: Layer,
  folio: number,
  verb: string,
  what: string,
  align: string,
  ready: string[],
  adhesive: Adhesive | undefined,
  gsm: number,
): Task {
  const outlineCm = regionPerimeter(layerRegion(layer)) / 10
  const buckles =
    adhesive !== undefined && gsm < adhesive.bucklesBelowGsm
      ? ` It buckles card under ${adhesive.bucklesBelowGsm} gsm: use dots, not lines.`
      : ''
  const slides = adhesive?.slides ? ' It slides while wet: check once more before it takes hold.' : ''
  return task(
    `glue-${layer.id}`,
    'glue',
    verb,
    `${what}, with ${adhesive?.name ?? 'glue'}: ${plural(layer.pieces.length, 'part')}. ${align}${buckles}${slides}`,
    ready,
    ['hands'],
    layer.pieces.length * GLUE_PART_MIN + Math.min(240, outlineCm) * GLUE_CM_MIN,
    { layerId: layer.id, caution: adhesive?.caution || `Number ${folio} right way up.` },
  )
}

function finishing(project: Project, layers: readonly Layer[], depth: DepthPlan): Task[] {
  const { mount } = project
  const adhesive = adhesiveOf(project)
  const anyGlue = layers.some(
    (layer, i) =>
      i > 0 && (layer.joint.kind === 'glue' || depth.layers.find((d) => d.layerId === layer.id)?.pads === 0),
  )
  const last = lastSticking(project, layers, depth)
  const tasks: Task[] = []
  let before = last
  const dryMin = adhesive?.dryMin ?? 60
  if (anyGlue && dryMin > 0) {
    tasks.push(
      task(
        'dry',
        'dry',
        'Let the glue dry',
        `${adhesive?.name ?? 'Glue'}: ${dryMin} min, lying flat under a light weight. A wet joint slides when the work is stood up.`,
        [before],
        [],
        dryMin,
      ),
    )
    before = 'dry'
  }
  const next = (t: Task) => {
    tasks.push(t)
    before = t.id
  }
  if (mount.kind === 'frame') {
    const shim =
      depth.shim && depth.roomMm !== null && depth.roomMm - depth.stackMm > 1
        ? ` ${depth.shim.mm} mm of foam (${depth.shim.label}) behind the backing sheet brings it up to the glazing’s air.`
        : ''
    next(
      task(
        'mount',
        'mount',
        'Fix the stack to the back board',
        `Backing sheet to the board with ${adhesive?.name ?? 'glue'} or foam.${shim}`,
        [before],
        ['hands'],
        3,
      ),
    )
    next(
      task(
        'glaze',
        'glaze',
        'Clean and set the glazing',
        'Brush dust off the stack first. Clean the inside of the pane.',
        [before],
        ['hands'],
        3,
        {
          caution: GLASS,
        },
      ),
    )
    next(
      task(
        'close',
        'close',
        'Close the frame',
        `Spacer, stack, board; bend the tabs. Check that ${mount.clearanceMm} mm of air stays in front.`,
        [before],
        ['hands'],
        3,
        {
          caution: 'Hang it on a fixing that suits the wall and the weight.',
        },
      ),
    )
  } else if (mount.kind === 'card') {
    next(
      task(
        'mount',
        'mount',
        'Fix the stack to the card',
        `Centre it on the panel. With an envelope in mind: ${depth.stackMm.toFixed(1)} mm high.`,
        [before],
        ['hands'],
        2,
      ),
    )
  } else if (mount.kind === 'topper' && mount.sticks > 0) {
    const sticks = plural(mount.sticks, 'stick')
    next(
      task(
        'mount',
        'mount',
        `Fix ${sticks} to the back`,
        `Low on solid card, below the centre of mass, with ${adhesive?.name ?? 'glue'}; card over the ends keeps the back tidy.`,
        [before],
        ['hands'],
        2 * mount.sticks,
        { caution: FOOD },
      ),
    )
    if (dryMin > 0)
      next(
        task('dry-sticks', 'dry', 'Let the sticks dry', `${dryMin} min, lying flat.`, [before], [], dryMin),
      )
  }
  return tasks
}

/** The step after which the whole stack hangs together. */
function lastSticking(project: Project, layers: readonly Layer[], depth: DepthPlan): string {
  const tasks = sticking(project, layers, [], depth)
  return tasks.at(-1)!.id
}
