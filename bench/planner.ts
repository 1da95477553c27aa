// The planner against the baseline that computes everything at every edit: times to the first figures of each stage and to
// all of them, edits one by one, and bytes of what goes to the page. `tsx bench/planner.ts [layers] [corners]`.
import { applyDelta, Cache, deltaOf } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { Planner, type Ref } from '@feuillet/core/planner'
import { builtLayers, setLayer, setPlan, tickStep, type Project } from '@feuillet/core/project'
import { nodes, SNAG_NODES, type NodeName } from '@feuillet/core/stages'
import { runIds } from '@feuillet/core/stages/sheets'
import { derive } from './derive'
import { benchStock, largeStack } from './large'

await loadGeometry()
const [layers, corners] = [Number(process.argv[2] ?? 50), Number(process.argv[3] ?? 200_000)]
const project = largeStack(layers, corners)
const stock = benchStock
const found = new Map()

const ms = (work: () => unknown): number => {
  const start = performance.now()
  work()
  return performance.now() - start
}
const share = (part: number, whole: number) => `1/${(whole / Math.max(part, 0.01)).toFixed(0)}`
const row = (name: string, planner: number, more = '') =>
  console.log(
    `${name.padEnd(34)} ${planner.toFixed(0).padStart(7)} ms = ${share(planner, baseline).padStart(7)}${more}`,
  )

/** What comes later, from cold, for a stage that is told in several parts. */
const later: [string, [NodeName, string?]][] = [
  ['what sheets and things cost', ['sheetCost']],
  ['all that it costs', ['cost']],
]

/** A copy with no identity in common, as a worker gets it. */
const sent = (p: Project): Project => structuredClone(p)

const picked = builtLayers(project).at(-1)!.id
/** What the page asks for on each stage, the first figures first. */
const asked: Record<string, [NodeName, string?][]> = {
  measure: [['measureSnags']],
  layers: [
    ['figures', picked],
    ['visible', picked],
    ['sound', picked],
  ],
  paper: [['visible', picked], ['paperSnags']],
  sheets: [['draft', runIds(project)[0]!], ['loads']],
  depth: [['levels'], ['padMap', picked]],
  assembly: [['orderOfWork']],
  // What was spent on paper, foam and hands is noted in the document itself; the planned cost follows from all of it.
  journal: [['journalSnags'], ['sheetCost'], ['cost']],
}
const ref = ([name, arg]: [NodeName, string?]) => nodes[name](arg) as Ref<unknown>
const everything = (p: Project): [NodeName, string?][] => [
  ...SNAG_NODES.map((name): [NodeName] => [name]),
  ...(
    [
      'levels',
      'depth',
      'nested',
      'loads',
      'needed',
      'left',
      'orderOfWork',
      'assembly',
      'cost',
      'sketches',
    ] as const
  ).map((name): [NodeName] => [name]),
  ...p.layers.flatMap((layer): [NodeName, string][] => [
    ['figures', layer.id],
    ['visible', layer.id],
    ['sound', layer.id],
  ]),
]

const baseline = ms(() => derive(sent(project), stock))
console.log(
  `${layers} layers, ${corners} corners; in shares of the ${baseline.toFixed(0)} ms that the baseline takes for everything\n`,
)
for (const [stage, list] of Object.entries(asked)) {
  const planner = new Planner(new Cache())
  const first = ms(() => {
    planner.update({ project: sent(project), stock, found })
    planner.get(ref(list[0]!))
  })
  row(`first figures: ${stage}`, first)
}
for (const [name, one] of later) {
  const planner = new Planner(new Cache())
  const time = ms(() => {
    planner.update({ project: sent(project), stock, found })
    planner.get(ref(one))
  })
  row(name, time)
}

const planner = new Planner(new Cache())
let held = sent(project)
const whole = ms(() => {
  planner.update({ project: held, stock, found })
  for (const one of everything(held)) planner.get(ref(one))
})
row('everything', whole)

const bytesOf = (value: unknown): number =>
  JSON.stringify(value, (_, v: unknown) =>
    ArrayBuffer.isView(v) ? Array.from(v as Float64Array) : v instanceof Map ? [...v] : v,
  ).length
const viewBytes = everything(project).reduce((sum, one) => {
  const { view } = ref(one).node
  return sum + (view ? bytesOf(view(planner.get(ref(one)))) : 0)
}, 0)
const allBytes = bytesOf(derive(project, stock))
console.log(
  `${'bytes to the page'.padEnd(34)} ${viewBytes} of ${allBytes} = 1/${(allBytes / viewBytes).toFixed(0)}\n`,
)

const middle = project.layers[Math.floor(layers / 2)]!
const edits: [string, (p: Project) => Project][] = [
  ['rename a layer', (p) => setLayer(p, middle.id, { name: 'Another name' })],
  ['hourly rate', (p) => setPlan(p, { hourlyRate: 13 })],
  ['glue', (p) => setPlan(p, { adhesiveId: 'glue-stick' })],
  ['order of loads', (p) => setPlan(p, { cutOrder: 'build' })],
  ['tick a step', (p) => tickStep(p, 'prepare', true)],
  ['one gap', (p) => setLayer(p, middle.id, { joint: { ...middle.joint, gapMm: 2 } })],
  ['a layer left out', (p) => setLayer(p, middle.id, { leftOut: true })],
]
for (const [name, edit] of edits) {
  const next = edit(project)
  derive(sent(project), stock)
  const old = ms(() => derive(sent(next), stock))
  let bytes = 0
  const now = ms(() => {
    // As it is sent: only what changed, and nothing that is there already.
    const delta = structuredClone(deltaOf(project, next))
    held = applyDelta(held, delta) as Project
    planner.update({ project: held, stock, found })
    for (const one of everything(held)) planner.get(ref(one))
    bytes = JSON.stringify(delta).length
  })
  row(
    `${name} (${bytes} bytes sent)`,
    now,
    `; ${share(now, old)} of what the baseline takes that has just computed all but this edit`,
  )
  held = applyDelta(held, structuredClone(deltaOf(next, project))) as Project
  planner.update({ project: held, stock, found })
}
