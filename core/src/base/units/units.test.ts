import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  formatInches,
  formatKept,
  formatLength,
  formatMinutes,
  formatMm,
  formatSize,
  length,
  lengthForEditing,
  measured,
  parseLength,
  say,
  sayAll,
  shownAs,
  size,
  wordsIn,
} from './index'

describe('lengths as makers type them', () => {
  it.each([
    ['8 1/2', 215.9],
    ['8-1/2', 215.9],
    ['8.5 in', 215.9],
    ['8½"', 215.9],
    ['1/4', 6.35],
    ['216', 216],
    ['21.6cm', 216],
    ['21,6 cm', 216],
    ['.5 in', 12.7],
    ['1 ft', 304.8],
    [' 12 inches ', 304.8],
  ])('%s is %f mm', (text, mm) => expect(parseLength(text, 'mm')).toBeCloseTo(mm, 6))

  it.each([
    // Half of 5 3/8 is 2 11/16.
    ['5 3/8 / 2', 2.6875 * 25.4],
    ['5 3/8 in : 2', 2.6875 * 25.4],
    ['5⅜ ÷ 2', 2.6875 * 25.4],
    ['20.5 : 10', 2.05],
    ['100 / 3', 100 / 3],
    ['2 × 5 3/8', 10.75 * 25.4],
    ['4 x 12.5', 50],
    ['4*12,5 mm', 50],
    ['1/4 × 20 mm', 5],
    ['12 in - 2 × 1/4 in', 11.5 * 25.4],
    ['12 - 5', 7],
    ['216 + 1 cm', 226],
    ['216 − 10 + 4', 210],
    ['8 - 1/2', 8 - 12.7],
  ])('reckons %s as %f mm', (text, mm) => expect(parseLength(text, 'mm')).toBeCloseTo(mm, 9))

  it.each([
    '5 / 0',
    '2 in × 3 in',
    '5 / 2 in',
    '5 -',
    '+ 5',
    '5 + + 2',
    '5 x',
    '2 × abc',
    '5 + abc',
    '1 in / 1/0',
  ])('cannot reckon “%s”', (text) => expect(parseLength(text, 'mm')).toBeNull())

  it('takes a bare number in the unit that is shown', () => {
    expect(parseLength('12 - 2 × 1/4', 'in')).toBeCloseTo(11.5 * 25.4, 9)
    expect(parseLength('5 3/8 / 2', 'in')).toBeCloseTo(2.6875 * 25.4, 9)
    expect(parseLength('8', 'in')).toBeCloseTo(203.2, 6)
    expect(parseLength('8', 'mm')).toBe(8)
  })

  it.each(['', 'abc', '1/0', '8 2', '3 furlongs', '1/2/3', '--5', 'NaN', 'Infinity'])(
    'refuses “%s”',
    (text) => expect(parseLength(text, 'mm')).toBeNull(),
  )

  it('reads back what it shows for editing, to a thirty-second of an inch or a hundredth of a mm', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 2000, noNaN: true }), (mm) => {
        expect(parseLength(lengthForEditing(mm, 'mm'), 'mm')).toBeCloseTo(mm, 1)
        expect(Math.abs(parseLength(lengthForEditing(mm, 'in'), 'in')! - mm)).toBeLessThanOrEqual(
          25.4 / 64 + 1e-9,
        )
      }),
    )
  })
})

describe('lengths as makers read them', () => {
  it('shows fractions that a ruler has', () => {
    expect(formatInches(215.9)).toBe('8 1/2')
    expect(formatInches((4.75 / 2) * 25.4)).toBe('2 3/8')
    expect(formatInches(25.4 * 0.999)).toBe('1')
    expect(formatInches(-6.35)).toBe('-1/4')
  })

  it('shows card and foam as decimals of an inch', () => {
    expect(formatLength(0.29, 'in')).toBe('0.011 in')
    expect(formatLength(2, 'in')).toBe('0.08 in')
    expect(formatLength(0.29, 'mm')).toBe('0.29 mm')
    expect(formatLength(200, 'in')).toBe('7 7/8 in')
    expect(formatMm(216.04)).toBe('216')
    expect(formatMm(-0.01)).toBe('0')
    expect(formatSize(304.8, 279.4, 'in')).toBe('12 × 11 in')
  })

  it('shows how fast a tool goes, and gathers speed', () => {
    expect(formatKept(60, 'mm/s', 'mm')).toBe('60 mm/s')
    // 60 / 25.4 = 2.3622…
    expect(formatKept(60, 'mm/s', 'in')).toBe('2.36 in/s')
    expect(formatKept(600, 'mm/s²', 'mm')).toBe('600 mm/s²')
    expect(formatKept(600, 'mm/s²', 'in')).toBe('23.6 in/s²')
    expect(254 * shownAs('mm/s', 'in').one).toBeCloseTo(10, 12)
  })

  it('shows glue, weights and forces as the maker’s bottles and scales have them', () => {
    expect(formatKept(0.312, 'ml', 'mm')).toBe('0.31 ml')
    // A bottle of four fluid ounces; a dot of 2 mm, half a ball, holds 0.0021 ml.
    expect(formatKept(118.294, 'ml', 'in')).toBe('4 fl oz')
    expect(formatKept(0.25, 'ml', 'in')).toBe('0.008 fl oz')
    expect(formatKept(14.17476, 'g', 'in')).toBe('0.5 oz')
    // A pound is 453.59237 g, and falls with 9.80665 m/s²; upon a square inch of 645.16 mm² that is 6.894757 kPa.
    expect(formatKept(0.45359237 * 9.80665, 'N', 'in')).toBe('1 lbf')
    expect(formatKept(6.894757, 'kPa', 'in')).toBe('1 psi')
    const said = say`about ${measured(2.96, 'ml')}`
    expect([wordsIn(said, 'mm'), wordsIn(said, 'in')]).toEqual(['about 2.96 ml', 'about 0.1 fl oz'])
  })

  it('words the lengths of a sentence in either unit', () => {
    const said = say`${size(304.8, 2)} on ${'foam'} of ${length(2.04)}, ${3} times, ${say`up to ${length(25.4)}`}.`
    expect(wordsIn(said, 'mm')).toBe('304.8 × 2 mm on foam of 2 mm, 3 times, up to 25.4 mm.')
    expect(wordsIn(said, 'in')).toBe('12 × 0.08 in on foam of 0.08 in, 3 times, up to 1 in.')
    expect(say`plain ${1}`).toBe('plain 1')
    expect(wordsIn(sayAll(['a.', say`${length(1)}.`]), 'mm')).toBe('a. 1 mm.')
  })

  it('shows minutes at a glance', () => {
    expect([0.75, 4 + 10 / 60, 9.999, 55.4, 125].map(formatMinutes)).toEqual([
      '45 s',
      '4 min 10',
      '10 min',
      '55 min',
      '2 h 05',
    ])
  })
})
