import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ruleFigure, ruleSteps } from './rule-steps'

const wanted = fc.record({
  unit: fc.constantFrom('mm' as const, 'in' as const),
  // From a frame of a metre on a small board to a millimetre over the whole of a large one.
  scale: fc.double({ min: 0.4, max: 400, noNaN: true }),
  boardPx: fc.integer({ min: 300, max: 2200 }),
})

describe('the steps of a rule', () => {
  it('leave room for marks and put at least two figures in sight, at any zoom', () => {
    fc.assert(
      fc.property(wanted, ({ unit, scale, boardPx }) => {
        const lengthMm = boardPx / scale
        const { mm, figure } = ruleSteps({ unit, scale, lengthMm, markPx: 6, figurePx: 44 })
        expect(figure).toBeGreaterThanOrEqual(1)
        expect(mm * scale).toBeGreaterThanOrEqual(6)
        // Sixteenths and tenths of a mm are the finest that a rule has: closer than that one figure may fill the board.
        if (lengthMm > (unit === 'mm' ? 0.3 : 4)) expect(mm * figure * 2).toBeLessThanOrEqual(lengthMm + 1e-9)
      }),
    )
  })

  it('bear a figure each inch as long as there is room', () => {
    for (const scale of [2, 3, 4, 5, 8]) {
      const { mm, figure } = ruleSteps({ unit: 'in', scale, lengthMm: 300, markPx: 6, figurePx: 44 })
      expect(mm * figure).toBeCloseTo(25.4, 9)
    }
  })

  it('bear figures that a ruler has', () => {
    expect([0, 6.35, 12.7, 25.4, 34.925, 4.7625].map((mm) => ruleFigure(mm, 'in'))).toEqual([
      '0',
      '¼',
      '½',
      '1',
      '1⅜',
      '3/16',
    ])
    expect([0, 0.5, 120].map((mm) => ruleFigure(mm, 'mm'))).toEqual(['0', '0.5', '120'])
    // Beside what is drawn from nought on.
    expect([-0.1, -12.7, -25.4, -34.925, -4.7625].map((mm) => ruleFigure(mm, 'in'))).toEqual([
      '0',
      '-½',
      '-1',
      '-1⅜',
      '-3/16',
    ])
    expect(ruleFigure(-20, 'mm')).toBe('-20')
  })
})
