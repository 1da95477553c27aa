// Frames that were measured once: kept for the next work, told again, changed, and put into a drawer that another project changed meanwhile.
import { describe, expect, it } from 'vitest'
import {
  applySupplyChanges,
  keepMeasured,
  measuredAs,
  soundSupplies,
  starterMount,
  starterSupplies,
  supplyChanges,
  type Mount,
} from './index'

type Frame = Extract<Mount, { kind: 'frame' }>
const frame = (depthMm: number): Frame => ({ ...(starterMount('frame') as Frame), depthMm })

describe('what was measured before', () => {
  const empty = starterSupplies()
  const one = keepMeasured(empty, { id: 'a', name: 'deep, square', mount: frame(40) })

  it('is known again, in whatever order its measures stand', () => {
    const turned = Object.fromEntries(Object.entries(frame(40)).toReversed()) as unknown as Frame
    expect(measuredAs(one, turned).same).toMatchObject({ id: 'a', name: 'deep, square' })
    expect(measuredAs(one, frame(41))).toMatchObject({ alike: [{ id: 'a' }], same: null })
    expect(measuredAs(one, starterMount('panel'))).toEqual({ alike: [], same: null })
  })

  it('is measured anew under its name, and another of that name where it is another kind', () => {
    const anew = keepMeasured(one, { id: 'b', name: 'deep, square', mount: frame(38) })
    expect(anew.measured.map(({ id, mount }) => [id, (mount as Frame).depthMm])).toEqual([['a', 38]])
    const other = keepMeasured(one, { id: 'c', name: 'deep, square', mount: starterMount('panel') })
    expect(other.measured.map(({ id }) => id)).toEqual(['a', 'c'])
  })

  it('goes into what another project kept meanwhile, and out again', () => {
    const elsewhere = keepMeasured(empty, { id: 'z', name: 'long', mount: frame(20) })
    const kept = applySupplyChanges(elsewhere, supplyChanges(empty, one)!)
    expect(kept.measured.map(({ id }) => id)).toEqual(['z', 'a'])
    const forgot = applySupplyChanges(kept, supplyChanges(one, empty)!)
    expect(forgot.measured.map(({ id }) => id)).toEqual(['z'])
    // A drawer of before knows of none; one that cannot be read is left out.
    const old = Object.fromEntries(Object.entries(one).filter(([key]) => key !== 'measured'))
    expect(soundSupplies(old).measured).toEqual([])
    expect(soundSupplies({ ...one, measured: [...one.measured, { id: 'x', name: 'x', mount: { kind: 'tent' } }] }).measured).toEqual(one.measured) // prettier-ignore
  })
})
