import { describe, expect, it } from 'vitest'
import { plate, stack } from '../../../test/stack'
import { assignPaper, colourOf, setPlan, type Project } from '../../project'
import { mendProject } from '..'
import { paperSnags, ramp, starterStock } from './index'
import { rampsOf } from './ramps'

const [plain] = starterStock()
/** Sheets in colours, and a stack of them back to front. */
const sheets = (colours: readonly string[]) =>
  colours.map((colour) => ({ ...plain!, id: `sheet-${colour.slice(1)}`, name: `Sheet ${colour}`, colour }))
const stackOf = (colours: readonly string[]): Project =>
  sheets(colours).reduce(
    (p, paper, i) => assignPaper(p, [`l${i}`], { paper }),
    meantAsRamp(
      stack('card', ...colours.map((_, i) => plate(`l${i}`, 1, [i * 3, i * 3, 60 - 6 * i, 60 - 6 * i]))),
    ),
  )
const meantAsRamp = (project: Project): Project =>
  setPlan(project, { ramps: [project.layers.map((layer) => layer.id)] })
const uneven = (project: Project, stock = sheets(ramp('#f2e9c9', '#1f3a5f', 9))) =>
  paperSnags(project, stock).filter((snag) => snag.code === 'uneven-ramp')

describe('colours that run on', () => {
  const even = ramp('#f2e9c9', '#1f3a5f', 6)

  it('are known as a ramp, and even ones are left alone', () => {
    expect(rampsOf(stackOf(even)).map((layers) => layers.length)).toEqual([6])
    expect(uneven(stackOf(even))).toEqual([])
    expect(uneven(stackOf(even.toReversed()))).toEqual([])
    // Nobody has said that these are one.
    expect(rampsOf(setPlan(stackOf(even), { ramps: [] }))).toEqual([])
  })

  it('have an uneven step found where it is, with the sheet that evens it', () => {
    // Nine even colours; the third of six is taken too near to the second.
    const nine = ramp('#f2e9c9', '#1f3a5f', 11)
    const odd = [nine[0]!, nine[2]!, nine[3]!, nine[6]!, nine[8]!, nine[10]!]
    const project = stackOf(odd)
    const [snag, ...more] = uneven(project, sheets(nine))
    expect(more).toEqual([])
    expect(['l2', 'l3']).toContain(snag!.layer)
    const mended = mendProject(project, snag!.mend!.action, sheets(nine))
    expect(uneven(mended, sheets(nine))).toEqual([])
    expect(colourOf(mended, mended.layers[2]!)).toBe(nine[4])
  })
})
