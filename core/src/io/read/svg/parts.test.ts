// The smaller parts of SVG reading: lengths, transforms, style sheets, dashes.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parseSvg } from './document'
import { parseNumbers, parseSvgLength, parseTransform, parseViewBox, viewBoxMap } from './lengths'
import { dashLines, flattenPath } from './outline'
import { computeStyle, parseStyleSheet } from './style'

describe('lengths and numbers', () => {
  it.each([
    ['10', 10],
    ['10px', 10],
    ['1in', 96],
    ['25.4mm', 96],
    ['2.54cm', 96],
    ['72pt', 96],
    ['6pc', 96],
    ['50%', 100],
    ['.5e1', 5],
    ['-3', -3],
    [' 7 ', 7],
  ])('%s is %f user units of a whole of 200', (text, units) =>
    expect(parseSvgLength(text, 200)).toBeCloseTo(units, 6),
  )

  it('is undefined where nothing can be read', () => {
    for (const text of [undefined, '', 'auto', 'px', '1e999'])
      expect(parseSvgLength(text, 10)).toBeUndefined()
  })

  it('reads numbers however they are packed', () => {
    expect(parseNumbers('1-2.5.5e1,+3 4')).toEqual([1, -2.5, 5, 3, 4])
    expect(parseNumbers(undefined)).toEqual([])
  })
})

describe('transforms', () => {
  const apply = (text: string, x: number, y: number) => {
    const [a, b, c, d, e, f] = parseTransform(text)
    return [a * x + c * y + e, b * x + d * y + f].map((v) => Math.round(v * 1e6) / 1e6)
  }

  it('are done from the right, each in the world of those before', () => {
    expect(apply('translate(10 20) scale(2)', 1, 1)).toEqual([12, 22])
    expect(apply('scale(2) translate(10 20)', 1, 1)).toEqual([22, 42])
    expect(apply('rotate(90)', 1, 0)).toEqual([0, 1])
    expect(apply('rotate(90 5 5)', 5, 0)).toEqual([10, 5])
    expect(apply('matrix(1 2 3 4 5 6)', 1, 1)).toEqual([9, 12])
    expect(apply('skewX(45)', 0, 1)).toEqual([1, 1])
    expect(apply('translate(3)', 0, 0)).toEqual([3, 0])
  })

  it('end at the first that makes no sense', () =>
    expect(apply('translate(1 1) warp(3) scale(9)', 1, 1)).toEqual([2, 2]))

  it('fit a viewBox into any port by the stated rule, never out of proportion unless told', () => {
    const positive = fc.double({ min: 1, max: 500, noNaN: true })
    fc.assert(
      fc.property(
        positive,
        positive,
        positive,
        positive,
        fc.constantFrom('xMinYMin meet', 'xMidYMid meet', 'xMaxYMax slice'),
        (w, h, pw, ph, rule) => {
          const [a, b, c, d, e, f] = viewBoxMap({ x: 7, y: -3, w, h }, { x: 0, y: 0, w: pw, h: ph }, rule)
          expect([b, c]).toEqual([0, 0])
          expect(a).toBeCloseTo(d, 9)
          const [left, top, right, bottom] = [a * 7 + e, d * -3 + f, a * (7 + w) + e, d * (h - 3) + f]
          if (rule.endsWith('meet')) {
            expect(Math.min(left, top)).toBeGreaterThan(-1e-6)
            expect(right).toBeLessThan(pw + 1e-6)
            expect(bottom).toBeLessThan(ph + 1e-6)
          } else {
            expect(Math.max(left, top)).toBeLessThan(1e-6)
            expect(Math.min(right - pw, bottom - ph)).toBeGreaterThan(-1e-6)
          }
        },
      ),
    )
    expect(parseViewBox('0 0 10')).toBeUndefined()
    expect(parseViewBox('0 0 0 10')).toBeUndefined()
    expect(parseViewBox('1,2 3,4')).toEqual({ x: 1, y: 2, w: 3, h: 4 })
  })
})

describe('style sheets', () => {
  const fillOf = (css: string, body: string, id = 'it') => {
    const doc = parseSvg(`<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`)
    const rules = parseStyleSheet(css)
    const chain = []
    for (let up = doc.byId.get(id) ?? null; up; up = up.parent) chain.unshift(up)
    return chain.reduce(
      (style, element) => computeStyle(element, style, rules),
      {} as Record<string, string>,
    )['fill']
  }

  it.each([
    ['a class before a type', '.a{fill:red} rect{fill:blue}', '<rect id="it" class="a"/>', 'red'],
    ['an id before a class', '#it{fill:red} .a{fill:blue}', '<rect id="it" class="a"/>', 'red'],
    ['the later of equals', '.a{fill:red} .b{fill:blue}', '<rect id="it" class="a b"/>', 'blue'],
    ['a descendant', 'g rect{fill:red}', '<g><g><rect id="it"/></g></g>', 'red'],
    ['a child only', 'g > rect{fill:red} rect{fill:blue}', '<g><a><rect id="it"/></a></g>', 'blue'],
    ['a list of selectors', 'circle, rect{fill:red}', '<rect id="it"/>', 'red'],
    ['all', '*{fill:red}', '<rect id="it"/>', 'red'],
    ['the style attribute before all', '#it{fill:red}', '<rect id="it" style="fill:blue"/>', 'blue'],
    ['a parent where nothing else speaks', '', '<g fill="red"><rect id="it"/></g>', 'red'],
    [
      'rules it knows among those it does not',
      'rect:hover{fill:blue} @media print{rect{fill:blue}} rect{fill:red}',
      '<rect id="it"/>',
      'red',
    ],
  ])('take %s', (_, css, body, fill) => expect(fillOf(css, body)).toBe(fill))

  it('of many rules give each element what a search through all of them gives', () => {
    const names = ['a', 'b', 'c']
    const part = fc.oneof(
      fc.constantFrom('rect', '*', '.a', '.b', 'rect.a', '.a.b', '#it', 'g .c', 'g > .a', '.c rect'),
      fc.constantFrom('.b', 'g', 'g rect'),
    )
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 12 }),
        fc.subarray(names),
        (selectors, classes) => {
          const css = selectors.map((selector, i) => `${selector}{fill:f${i}}`).join('')
          const body = `<g class="c"><rect id="it" class="${classes.join(' ')}"/></g>`
          const fits: Record<string, boolean> = {
            rect: true,
            '*': true,
            '.a': classes.includes('a'),
            '.b': classes.includes('b'),
            'rect.a': classes.includes('a'),
            '.a.b': classes.includes('a') && classes.includes('b'),
            '#it': true,
            'g .c': classes.includes('c'),
            'g > .a': classes.includes('a'),
            '.c rect': true,
            g: false,
            'g rect': true,
          }
          const weight = (s: string) =>
            (s.match(/#/g)?.length ?? 0) * 10_000 +
            (s.match(/\./g)?.length ?? 0) * 100 +
            (s.match(/(^|[\s>])[a-z]/g)?.length ?? 0)
          const best = selectors
            .map((selector, i) => ({ selector, i }))
            .filter(({ selector }) => fits[selector])
            .toSorted((a, b) => weight(a.selector) - weight(b.selector) || a.i - b.i)
            .at(-1)
          if (best) expect(fillOf(css, body)).toBe(`f${best.i}`)
        },
      ),
    )
  })

  it('survive anything', () => {
    fc.assert(
      fc.property(fc.string(), (css) => {
        // Whatever stands before it, a rule of its own line is still read, or the shape stays unpainted.
        expect(['red', undefined]).toContain(
          fillOf(
            `${css}
#it{fill:red}`,
            '<rect id="it"/>',
          ),
        )
      }),
    )
  })
})

describe('dashes', () => {
  const lengthOf = (points: Float64Array) => {
    let sum = 0
    for (let i = 2; i < points.length; i += 2)
      sum += Math.hypot(points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!)
    return sum
  }

  it('cover the share of the line that the pattern says', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (on, off, shift) => {
          const [line] = flattenPath('M0 0H400', [1, 0, 0, 1, 0, 0])
          const drawn = dashLines([line!], [on, off], shift).reduce(
            (sum, dash) => sum + lengthOf(dash.points),
            0,
          )
          expect(Math.abs(drawn - (400 * on) / (on + off))).toBeLessThan(on + off)
        },
      ),
    )
  })

  it('are none where the pattern makes no sense', () => {
    const lines = flattenPath('M0 0H10', [1, 0, 0, 1, 0, 0])
    for (const pattern of [[], [0, 0], [-1, 2]]) expect(dashLines(lines, pattern, 0)).toEqual(lines)
  })
})

describe('path data', () => {
  it('keeps what stands before a mistake', () => {
    const lines = flattenPath('M0 0H10V10 L oops 5', [1, 0, 0, 1, 0, 0])
    expect([...lines[0]!.points]).toEqual([0, 0, 10, 0, 10, 10])
  })

  it('keeps chords near their curves', () => {
    const [line] = flattenPath('M0 0A50 50 0 0 1 100 0', [1, 0, 0, 1, 0, 0])
    for (let i = 0; i < line!.points.length; i += 2)
      expect(Math.hypot(line!.points[i]! - 50, line!.points[i + 1]!)).toBeCloseTo(50, 1)
  })
})
