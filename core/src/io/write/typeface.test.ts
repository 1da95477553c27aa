import { PDFDocument } from '@cantoo/pdf-lib'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { faces } from '../../../test/faces'
import { Typeface } from './typeface'

it('breaks lines between words, within a word that is wider by itself, and loses no sign', async () => {
  const type = await Typeface.in(await PDFDocument.create(), faces, ['abcdefghijklmnopqrstuvwxyz …'])
  const word = fc.string({ unit: fc.constantFrom(...'abcimw'), minLength: 1, maxLength: 40 })
  fc.assert(
    fc.property(
      fc.array(word, { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 20, max: 200 }),
      (words, width) => {
        const lines = type.wrap(words.join(' '), 8, width)
        expect(lines.join('').replaceAll(' ', '')).toBe(words.join(''))
        for (const line of lines) expect(type.width(line, 8)).toBeLessThanOrEqual(width)
        // A word that fits a line stands in one.
        for (const one of words)
          if (type.width(one, 8) <= width)
            expect(lines.some((line) => line.split(' ').includes(one))).toBe(true)
      },
    ),
  )
})
