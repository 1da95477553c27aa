// The minutes that loads are planned with against those that the simulated machine takes, which tells times its own way.
import { beforeAll, describe, expect, it } from 'vitest'
import { Cache } from '@feuillet/core/base'
import { loadGeometry } from '@feuillet/core/base/geometry'
import { demo, type DemoName } from '@feuillet/core/demo'
import { plotOf } from '@feuillet/core/io/exports'
import { Planner } from '@feuillet/core/planner'
import { nodes } from '@feuillet/core/stages'
import { loadTag } from '@feuillet/core/stages/sheets'
import { Cutter } from '../../server/src/cutter/machine'

beforeAll(() => loadGeometry())

describe('planned and run', () => {
  it.each(['harbour', 'tide-rose', 'kittiwake'] as DemoName[])('times of %s agree within 10 %%', (name) => {
    const project = demo(name)
    const planner = new Planner(new Cache())
    planner.update({ project, stock: project.drawer.papers, found: new Map() })
    const { cutter } = project.drawer
    for (const load of planner.get(nodes.loads())) {
      const machine = new Cutter()
      machine.take({
        id: load.id,
        name: load.paper.name,
        tag: loadTag(load),
        colour: load.paper.colour,
        plot: plotOf(project, load),
        sheet: { widthMm: load.widthMm, heightMm: load.heightMm, rimMm: 0 },
        setting: load.setting,
        passesNeeded: load.setting.passes,
        pace: { ...cutter, speedMmPerS: load.setting.speedMmPerS },
      })
      machine.confirm(loadTag(load), 0)
      machine.tick(36_000_000)
      const { ranS, status } = machine.state()
      expect(status).toBe('done')
      const plannedS = (load.minutes - cutter.loadMin) * 60
      expect(Math.abs(ranS - plannedS) / ranS, `${name}, load ${load.number}`).toBeLessThan(0.1)
    }
  })
})
