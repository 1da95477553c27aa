import { Cache } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { Planner } from '@feuillet/core/planner'
import { nodes } from '@feuillet/core/stages'
import { benchStock, largeStack } from './large'
await loadGeometry()
const project = largeStack(50, 200000)
const planner = new Planner(new Cache()) as any
planner.update({ project, stock: benchStock, found: new Map() })
const self = new Map<string, number>(),
  count = new Map<string, number>()
const old = planner.compute.bind(planner)
planner.compute = function* (ref: any, values: any) {
  const g = old(ref, values)
  let t = performance.now(),
    sum = 0
  for (;;) {
    t = performance.now()
    const s = g.next()
    sum += performance.now() - t
    if (s.done) {
      self.set(ref.node.name, (self.get(ref.node.name) ?? 0) + sum)
      count.set(ref.node.name, (count.get(ref.node.name) ?? 0) + 1)
      return s.value
    }
    yield s.value
  }
}
let t0 = performance.now()
for (const name of (process.argv[2] ?? 'cost').split(',')) planner.get((nodes as any)[name]())
console.log(performance.now() - t0)
console.log(
  [...self]
    .sort((a, b) => b[1] - a[1])
    .map(([n, t]) => `${n} ${t.toFixed(0)} ms ×${count.get(n)}`)
    .join('\n'),
)
