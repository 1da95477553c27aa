import { describe, expect, it } from 'vitest'
import { CAKES, starterMount, type Mount } from '@feuillet/core/project'
import { topperScene } from './topper-scene'

const mount = (over: Partial<Extract<Mount, { kind: 'topper' }>>) => ({
  ...(starterMount('topper') as Extract<Mount, { kind: 'topper' }>),
  ...over,
})

describe('a topper where it will stand', () => {
  it('is over a cake of the size typed, its sticks in it as deep as typed', () => {
    const scene = topperScene(mount({ cake: { ...CAKES.large }, sticks: 2 }), null)
    expect(scene.cake.maxX - scene.cake.minX).toBe(250)
    expect(scene.cake.minY).toBeCloseTo(scene.topper.maxY + 40, 9)
    expect(scene.sticks.map(({ x }) => x)).toEqual([50, 100])
    for (const stick of scene.sticks) {
      expect(stick.toY - scene.cake.minY).toBe(60)
      expect(stick.fromY).toBeLessThan(scene.topper.maxY)
      expect(stick.widthMm).toBe(4)
    }
  })

  it('takes the design as it lies, and a stick longer than the cake shows below it', () => {
    const design = { minX: 10, minY: 5, maxX: 60, maxY: 45 }
    const scene = topperScene(mount({ cake: { ...CAKES.cupcake }, sticks: 1 }), design)
    expect(scene.topper).toEqual(design)
    expect(scene.isCupcake).toBe(true)
    expect(scene.sticks[0]!.x).toBe(35)
    expect(scene.box.maxY).toBe(45 + 40 + 60)
  })

  it('has as many sticks as are asked for, or none', () => {
    for (const sticks of [0, 1, 3, 4])
      expect(topperScene(mount({ sticks }), null).sticks).toHaveLength(sticks)
  })
})
