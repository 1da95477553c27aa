import { describe, expect, it } from 'vitest'
import { results } from '../../../test/results'
import { regionArea, regionBox, type Region } from '../../base/geometry'
import { demo, type DemoName } from '../../demo'
import { stepPicture } from '../../io/exports/step-pictures'
import { builtLayers, setPlan, type FrameMount, type Project } from '../../project'
import { mountPictureOf } from './mounting'

const known = new Map<Project, ReturnType<typeof results>>()
const resultsOf = (project: Project) => {
  if (!known.has(project)) known.set(project, results(project))
  return known.get(project)!
}
const [harbour, topper] = [demo('harbour'), demo('bon-voyage')]

/** The picture of each step that has one of its own, by the step's id. */
function picturesOf(project: Project): Record<string, string> {
  const { assembly, depth } = resultsOf(project)
  return Object.fromEntries(
    assembly.steps.flatMap((step) => {
      const picture = mountPictureOf(project, step, depth)
      return picture ? [[step.id, picture]] : []
    }),
  )
}
const of = (name: DemoName) => picturesOf(demo(name))

/** What is printed beside a step. */
function printed(project: Project, id: string) {
  const { assembly, depth, glue, loads } = resultsOf(project)
  const step = assembly.steps.find((one) => one.id === id)!
  return { depth, picture: stepPicture(project, step, { loads, depth, glue })! }
}
const areaOf = (shape: { region: Region } | undefined) => regionArea(shape!.region)

describe('the pictures of mounting', () => {
  it('show the pads behind a stack, the sticks of a topper, and a frame from the side', () => {
    expect(picturesOf(harbour)).toEqual({ mount: 'shims', glaze: 'frame', close: 'frame' })
    expect(picturesOf(topper)).toEqual({ mount: 'sticks' })
  })

  it('are the stack itself where no pads lie behind it, and of flags their twine', () => {
    expect(of('lantern-street')).toEqual({ glaze: 'frame', close: 'frame' })
    expect(of('regatta')).toEqual({})
  })

  it('are the same for each of a batch that is made one by one', () => {
    const two = picturesOf(setPlan(demo('harbour'), { batch: 2, batchWay: 'one by one' }))
    expect(two).toMatchObject({ mount: 'shims', 'mount-of-2': 'shims', 'close-of-2': 'frame' })
  })
})

describe('printed beside its step', () => {
  it('a shim is as many pads as it has', () => {
    const { depth, picture } = printed(harbour, 'mount')
    const { at, widthMm, heightMm } = depth.shim!
    expect(picture.shapes).toHaveLength(2)
    expect(areaOf(picture.shapes[1])).toBeCloseTo(at.length * widthMm * heightMm, 3)
  })

  it('sticks lie behind the topper and reach below it', () => {
    const { picture } = printed(topper, 'mount')
    const sticks = picture.shapes.at(-1)!
    expect(sticks.region).toHaveLength(topper.mount.kind === 'topper' ? topper.mount.sticks : 0)
    const card = picture.shapes.slice(0, -1).flatMap(({ region }) => region)
    expect(regionBox(sticks.region).maxY).toBeGreaterThan(regionBox(card).maxY)
  })

  it('a frame has its board below, its layers at their heights, and the pane on top', () => {
    const { picture, depth } = printed(harbour, 'close')
    const boxes = picture.shapes.map(({ region }) => regionBox(region))
    const top = (k: number) => boxes.at(k)!.minY
    expect(Math.max(...boxes.map(({ minY }) => minY))).toBe(top(0))
    expect(Math.min(...boxes.map(({ minY }) => minY))).toBe(top(-1))
    // Heights are to one scale: from the board up to each layer as its own height over it.
    const shimMm = depth.shim!.mm
    const layers = boxes.slice(-1 - builtLayers(harbour).length, -1)
    const scale = (top(0) - layers[0]!.minY) / (depth.layers[0]!.topMm + shimMm)
    layers.forEach((b, k) =>
      expect(top(0) - b.minY).toBeCloseTo((depth.layers[k]!.topMm + shimMm) * scale, 6),
    )
    const { pane, depthMm } = harbour.mount as FrameMount
    expect(top(0) - top(-1)).toBeCloseTo((depthMm + (pane.kind === 'none' ? 0 : pane.thicknessMm)) * scale, 6)
  })

  it('what goes onto a card or a panel is all of it', () => {
    const tide = demo('tide-rose')
    expect(printed(tide, 'mount').picture.shapes).toHaveLength(builtLayers(tide).length)
  })
})
