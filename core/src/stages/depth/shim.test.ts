import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { plate, stack } from '../../../test/stack'
import { demo } from '../../demo'
import { starterStock } from '../paper'
import {
  builtLayers,
  findLayer,
  setLayer,
  standsInFrame,
  type FrameMount,
  type Paper,
  type Project,
} from '../../project'

/** A frame of 20 mm with a sheet and what stands on 2 mm of foam over its middle. */
function framed(depthMm: number, rest: Partial<Project['layers'][number]> = {}): Project {
  const project = stack('frame', plate('sheet', 0, [0, 0, 200, 200]), plate('top', 2, [60, 60, 80, 80]))
  const mount: FrameMount = { ...(project.mount as FrameMount), depthMm, clearanceMm: 2 }
  return setLayer({ ...project, mount }, 'sheet', rest)
}

describe('what fills the depth that is left', () => {
  it('is the thickest build that leaves the air, on all of the sheet', () => {
    const { depth } = results(framed(12))
    const left = 10 - depth.stackMm
    const heights = depth.shim!.partsMm.reduce((sum, mm) => sum + mm, 0)
    expect(depth.shim!.mm).toBeCloseTo(heights, 9)
    expect(depth.shim!.mm).toBeLessThanOrEqual(left + 1e-9)
    expect(left - depth.shim!.mm).toBeLessThan(1)
    for (const [x, y] of depth.shim!.at) {
      expect(x - depth.shim!.widthMm / 2).toBeGreaterThanOrEqual(0)
      expect(y + depth.shim!.heightMm / 2).toBeLessThanOrEqual(200)
    }
  })

  it('is nothing where less than the thinnest foam is left', () => {
    const { stackMm } = results(framed(12)).depth
    expect(results(framed(stackMm + 2 + 0.3)).depth.shim).toBeNull()
  })

  it('is nothing behind a sheet that lets all light through and hides no pad', () => {
    const bare = framed(12)
    const acetate: Paper = { ...starterStock()[0]!, id: 'clear', finish: 'acetate' }
    const clear = { ...bare, drawer: { ...bare.drawer, papers: [acetate] } }
    const { depth, assembly } = results(setLayer(clear, 'sheet', { paperId: acetate.id }))
    const spots = depth.shim?.at ?? []
    // Only under the lip or behind what lies on it.
    const { opening, spacer } = clear.mount as FrameMount
    const [lipX, lipY] = [(spacer.widthMm - opening.widthMm) / 2, (spacer.heightMm - opening.heightMm) / 2]
    for (const [x, y] of spots) {
      const underLip = x < lipX || y < lipY || x > spacer.widthMm - lipX || y > spacer.heightMm - lipY
      expect(underLip || (x > 60 && x < 140 && y > 60 && y < 140)).toBe(true)
    }
    expect(assembly.steps.some(({ id }) => id === 'mount')).toBe(true)
  })

  it('does not push the stack into what stands in the frame, and how far that stands is no snag', () => {
    const street = demo('lantern-street')
    const { depth, snags, assembly } = results(street)
    expect(builtLayers(street).some(standsInFrame)).toBe(true)
    expect(depth.shim).toBeNull()
    expect(snags.some(({ code }) => code === 'floats')).toBe(false)
    const at = (id: string) => depth.layers.find(({ layerId }) => layerId === id)!
    expect(at('far-row').bottomMm).toBeGreaterThan(at('arch').topMm)
    expect(assembly.steps.find(({ id }) => id === 'mount')!.takes ?? []).toEqual([])
    // Without what stands there is a shim as before.
    const rows = street.layers.filter((layer) => standsInFrame(findLayer(street, layer.id)!))
    const bare = { ...street, layers: street.layers.filter((layer) => !rows.includes(layer)) }
    expect(results(bare).depth.shim).not.toBeNull()
  })
})
