// Weights of card and heat, as makers read and type them.
import { describe, expect, it } from 'vitest'
import {
  celsiusOf,
  degreesIn,
  formatHeat,
  formatWeight,
  heat,
  parseWeight,
  say,
  weight,
  wordsIn,
} from './index'

describe('what card weighs', () => {
  // Cover pounds times 2.704, text pounds times 1.48.
  it.each([
    ['216', 216],
    [' 216 gsm', 216],
    ['216,5 g/m²', 216.5],
    ['65 lb', 176],
    ['80lb', 216],
    ['80# cover', 216],
    ['100 lbs cardstock', 270],
    ['50 lb text', 74],
    ['60# Text', 89],
  ])('reads %s', (typed, gsm) => expect(parseWeight(typed)).toBe(gsm))

  it.each(['', 'heavy', '80 kg', 'lb', '1.2.3', '-80', '80 lb bond'])('reads no weight in “%s”', (typed) =>
    expect(parseWeight(typed)).toBeNull(),
  )

  it('is told with the pounds that packs bear where inches are used', () => {
    expect([75, 104, 176, 216, 250, 270, 300, 350].map((gsm) => formatWeight(gsm, 'in'))).toEqual([
      '75 gsm (50 lb text)',
      '104 gsm (70 lb text)',
      '176 gsm (65 lb)',
      '216 gsm (80 lb)',
      '250 gsm (92 lb)',
      '270 gsm (100 lb)',
      '300 gsm (110 lb)',
      '350 gsm (130 lb)',
    ])
    expect(formatWeight(216, 'mm')).toBe('216 gsm')
  })
})

describe('how hot a plate is', () => {
  it('is told in the degrees of the label, and comes back as it was', () => {
    expect([formatHeat(150, 'mm'), formatHeat(150, 'in'), formatHeat(160, 'in')]).toEqual(['150 °C', '302 °F', '320 °F']) // prettier-ignore
    for (const unit of ['mm', 'in'] as const)
      expect(celsiusOf(degreesIn(154, unit), unit)).toBeCloseTo(154, 9)
    for (let f = 140; f <= 446; f++) expect(formatHeat(celsiusOf(f, 'in'), 'in')).toBe(`${f} °F`)
  })

  it('is a value of a sentence, as weight is', () => {
    const said = say`${weight(216)} at ${heat(150)}`
    expect([wordsIn(said, 'mm'), wordsIn(said, 'in')]).toEqual([
      '216 gsm at 150 °C',
      '216 gsm (80 lb) at 302 °F',
    ])
  })
})
