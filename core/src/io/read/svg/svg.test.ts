import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rectangle, regionArea, regionBox, regionContains, type Region } from '../../../base/geometry'
import { BadInput } from '../../../base'
import { readSvg, type Drawing } from '../index'

const PX = 25.4 / 96
const svg = (body: string, head = 'width="100mm" height="100mm" viewBox="0 0 100 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${head}>${body}</svg>`
const read = (body: string, head?: string): Drawing => readSvg(svg(body, head))
const areas = (drawing: Drawing) => drawing.shapes.map((s) => Number(regionArea(s.region).toFixed(1)))
const area = (body: string, head?: string) => areas(read(body, head)).reduce((a, b) => a + b, 0)

describe('shapes', () => {
  it.each([
    ['rect', '<rect x="10" y="10" width="30" height="20"/>', 600],
    ['rect with round corners', '<rect width="40" height="30" rx="5"/>', 40 * 30 - (4 - Math.PI) * 25],
    ['circle', '<circle cx="50" cy="50" r="20"/>', Math.PI * 400],
    ['ellipse', '<ellipse cx="50" cy="50" rx="20" ry="10"/>', Math.PI * 200],
    ['polygon', '<polygon points="0,0 40,0 0,30"/>', 600],
    ['polyline, filled as if closed', '<polyline points="0,0 40,0 0,30" fill="#000"/>', 600],
    ['path with curves', '<path d="M0 50a50 50 0 0 1 100 0z"/>', (Math.PI * 2500) / 2],
    ['path with relative and short commands', '<path d="m10 10h20v20h-20z"/>', 400],
  ])('%s', (_, body, wanted) => expect(area(body)).toBeCloseTo(wanted, -0.5))

  it('fill a ring in a ring by its rule', () => {
    const d = 'M0 0H60V60H0ZM20 20H40V40H20Z'
    expect(area(`<path d="${d}"/>`)).toBeCloseTo(3600, 1)
    expect(area(`<path fill-rule="evenodd" d="${d}"/>`)).toBeCloseTo(3200, 1)
    expect(area(`<path style="fill-rule:evenodd" d="${d}"/>`)).toBeCloseTo(3200, 1)
  })

  it('count strokes that are wide enough as card, hairlines as cut lines', () => {
    expect(area('<line x1="10" y1="10" x2="60" y2="10" stroke="#000" stroke-width="4"/>')).toBeCloseTo(200, 0)
    const both = read('<rect width="40" height="40" fill="#ff0000" stroke="#0000ff" stroke-width="2"/>')
    expect(both.shapes.map((s) => s.colour)).toEqual(['#ff0000', '#0000ff'])
    expect(areas(both)[1]).toBeCloseTo(42 * 42 - 38 * 38, 0)
    const hair = read(
      '<rect width="40" height="40" fill="#f00"/><line x1="0" y1="0" x2="60" y2="60" stroke="#000" stroke-width="0.1"/>',
    )
    expect(hair.leftOut).toEqual([{ what: 'cut line', count: 1 }])
  })

  it('take a drawing of hairlines alone as the outlines of its pieces', () => {
    const drawing = read('<rect width="40" height="40" fill="none" stroke="#f00" stroke-width="0.1"/>')
    expect(areas(drawing)).toEqual([1600])
  })
})

describe('outlines alone', () => {
  const pen = (content: string, width = 0.1) =>
    `<g fill="none" stroke="#000" stroke-width="${width}">${content}</g>`
  const box = (x: number, y: number, w: number, h = w) => `<path d="M${x} ${y}h${w}v${h}h${-w}z"/>`

  it('within another are its openings, as they are cut, whatever element each stands in', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(), { minLength: 4, maxLength: 40 }), (picks) => {
        // Each new square lies in one that is there, clear of the others in it.
        const squares = [{ x: 0, y: 0, side: 81, taken: [] as number[] }]
        for (const pick of picks) {
          const within = squares[pick % squares.length]!
          const cell = Math.floor(pick / squares.length) % 4
          if (within.taken.includes(cell) || within.side < 6) continue
          within.taken.push(cell)
          const side = within.side / 3
          squares.push({
            x: within.x + side / 4 + (cell % 2) * side * 1.4,
            y: within.y + side / 4 + Math.floor(cell / 2) * side * 1.4,
            side,
            taken: [],
          })
        }
        const { shapes, leftOut } = read(pen(squares.map(({ x, y, side }) => box(x, y, side)).join('')))
        expect(leftOut).toEqual([])
        const card = shapes.flatMap(({ region }) => region)
        for (const { x, y, side } of squares) {
          const [px, py] = [x + side / 20, y + side / 20]
          const round = squares.filter((s) => px > s.x && px < s.x + s.side && py > s.y && py < s.y + s.side)
          expect(regionContains(card, px, py)).toBe(round.length % 2 === 1)
        }
      }),
      { numRuns: 40 },
    )
  })

  it('are pieces of their own where they cross or touch, and once where they are drawn again', () => {
    expect(areas(read(pen(box(0, 0, 40) + box(20, 20, 40))))).toEqual([1600, 1600])
    const faces = (content: string) =>
      read(pen(content)).shapes.flatMap(({ region }) => region.map((face) => Math.round(regionArea([face]))))
    expect(faces(box(0, 0, 40) + box(40, 0, 40))).toEqual([1600, 1600])
    expect(faces(box(0, 0, 40) + box(40, 0, 40) + box(10, 10, 10) + box(45, 5, 20))).toEqual([1500, 1200])
    expect(areas(read(pen(box(0, 0, 40) + box(10, 10, 10) + box(10, 10, 10))))).toEqual([1500])
    // Sheets of one size with openings of their own.
    const sheet = (x: number) => `<path d="M0 0h60v60h-60zM${x} 10v20h20v-20z"/>`
    expect(areas(read(pen(sheet(10) + sheet(30))))).toEqual([3200, 3200])
    expect(
      areas(read(pen(`<g>${box(0, 0, 60)}${box(10, 10, 20)}</g><g>${box(0, 0, 60)}${box(30, 30, 10)}</g>`))),
    ).toEqual([3200, 3500])
  })

  it('go on from line to line, and are left out where they stay open', () => {
    const side = (d: string) => `<path d="${d}"/>`
    const square = side('M0 0L40 0') + side('M40 40L40 0') + side('M0 40L40 40') + side('M0 0L0 40')
    const drawing = read(pen(square + box(10, 10, 10) + side('M50 50L60 60')))
    expect(areas(drawing)).toEqual([1500])
    expect(drawing.leftOut).toEqual([{ what: 'cut line', count: 1 }])
  })

  it('are where the blade goes as long as no card could be as narrow as they are drawn', () => {
    for (const width of [0.1, 0.26, 0.55]) {
      const drawing = read(pen(box(0, 0, 40) + box(10, 10, 10), width))
      expect([areas(drawing), drawing.linesOnly]).toEqual([[1500], true])
    }
    const strips = read(pen(box(5, 5, 40), 0.8))
    expect(areas(strips)[0]).toBeCloseTo(4 * 40 * 0.8, 1)
    const asDrawn = readSvg(svg(pen(box(5, 5, 40), 0.26)), { outlines: 'lines' })
    expect(areas(asDrawn)[0]).toBeCloseTo(4 * 40 * 0.26, 1)
    expect(asDrawn.linesOnly).toBe(true)
    // Open lines hold nothing.
    expect(area(pen('<path d="M0 0H50"/>', 0.26))).toBeCloseTo(50 * 0.26, 1)
    // Beside card it is a line for the blade or a strip, by its width alone.
    expect(areas(read(`<rect width="9" height="9"/>${pen(box(20, 20, 40), 0.26)}`))[1]).toBeCloseTo(
      4 * 40 * 0.26,
      1,
    )
  })
})

describe('where things lie', () => {
  it('what lies wholly outside the page is not seen, and stays out unless that is all there is', () => {
    const [on, over, off] = [
      [10, 10],
      [90, 90],
      [120, 10],
    ].map(([x, y]) => `<rect x="${x}" y="${y}" width="20" height="20"/>`)
    const drawing = read(`${on}${over}${off}`)
    expect(areas(drawing)).toEqual([400, 400])
    expect(drawing.leftOut).toEqual([{ what: 'shape outside the page', count: 1 }])
    expect(areas(readSvg(svg(`${on}${off}`), { unseen: ['outside'] }))).toEqual([400, 400])
    expect(read(off!).leftOut).toEqual([])
    expect(areas(read(off!))).toEqual([400])
  })

  it('transforms nest in order', () => {
    const { shapes } = read(
      '<g transform="translate(10 20)"><g transform="scale(2)"><rect transform="rotate(90)" width="10" height="5"/></g></g>',
    )
    const b = regionBox(shapes[0]!.region)
    expect([b.minX, b.minY, b.maxX, b.maxY].map((v) => Math.round(v * 100) / 100)).toEqual([0, 20, 10, 40])
  })

  it.each([
    ['width="4in" height="2in" viewBox="0 0 100 50"', 101.6, 50.8],
    ['width="100" height="50"', 100 * PX, 50 * PX],
    ['viewBox="0 0 96 48"', 25.4, 12.7],
    ['width="10cm" height="5cm"', 100, 50],
    ['width="72pt" height="6pc"', 25.4, 25.4],
  ])('%s is a page of %f × %f mm', (head, w, h) => {
    const drawing = read('<rect width="10" height="10"/>', head)
    expect([drawing.widthMm, drawing.heightMm]).toEqual([expect.closeTo(w, 4), expect.closeTo(h, 4)])
  })

  it('keeps proportions where page and viewBox differ in shape', () => {
    const b = regionBox(
      read('<rect width="10" height="10"/>', 'width="200mm" height="100mm" viewBox="0 0 10 10"').shapes[0]!
        .region,
    )
    expect([b.minX, b.maxX, b.minY, b.maxY]).toEqual(
      [50, 150, 0, 100].map((v) => expect.closeTo(v, 3) as number),
    )
    const stretched = regionBox(
      read(
        '<rect width="10" height="10"/>',
        'width="200mm" height="100mm" viewBox="0 0 10 10" preserveAspectRatio="none"',
      ).shapes[0]!.region,
    )
    expect(stretched.maxX).toBeCloseTo(200, 3)
  })

  it('takes what is drawn as the page where none is given', () => {
    const drawing = read('<rect x="50" y="50" width="96" height="48"/>', '')
    expect([drawing.widthMm, drawing.heightMm]).toEqual([expect.closeTo(25.4, 3), expect.closeTo(12.7, 3)])
  })

  it('follows use, symbol, nested svg and clip paths', () => {
    expect(
      area('<defs><rect id="r" width="10" height="10"/></defs><use href="#r"/><use xlink:href="#r" x="20"/>'),
    ).toBeCloseTo(200, 1)
    expect(
      area(
        '<symbol id="s" viewBox="0 0 1 1"><rect width="1" height="1"/></symbol><use href="#s" width="20" height="20"/>',
      ),
    ).toBeCloseTo(400, 1)
    expect(
      area('<svg x="10" y="10" width="20" height="20" viewBox="0 0 1 1"><rect width="5" height="5"/></svg>'),
    ).toBeCloseTo(400, 1)
    expect(
      area(
        '<clipPath id="c"><rect width="10" height="50"/></clipPath><rect width="50" height="50" clip-path="url(#c)"/>',
      ),
    ).toBeCloseTo(500, 1)
  })
})

describe('paint', () => {
  const colours = (body: string) => read(body).shapes.map((s) => s.colour)

  it('comes from attributes, styles, sheets and parents, in the right order', () => {
    expect(colours('<g fill="teal"><rect width="9" height="9"/></g>')).toEqual(['#008080'])
    expect(colours('<rect fill="red" style="fill:#0f0" width="9" height="9"/>')).toEqual(['#00ff00'])
    expect(
      colours(
        '<style>.a{fill:#123456} rect{fill:red}</style><rect class="a" fill="blue" width="9" height="9"/>',
      ),
    ).toEqual(['#123456'])
    expect(colours('<g color="#abcdef"><rect fill="currentColor" width="9" height="9"/></g>')).toEqual([
      '#abcdef',
    ])
    expect(colours('<rect fill="rgb(100%, 0%, 50%)" width="9" height="9"/>')[0]).toMatch(/^#ff00(7f|80)$/)
  })

  it('leaves out what is not drawn', () => {
    const hidden =
      '<rect width="9" height="9" display="none"/><g visibility="hidden"><rect width="9" height="9"/></g><rect width="9" height="9" fill="none"/>'
    expect(areas(read(`${hidden}<rect width="10" height="10"/>`))).toEqual([100])
  })

  it('counts what is switched off, and takes it where it is asked to or nothing else is drawn', () => {
    const off = '<g style="display:none"><path d="M0 0H9V9H0Z"/><circle r="3" cx="5" cy="5" fill="none"/></g>'
    const invisible = '<g visibility="hidden"><rect width="8" height="8"/></g>'
    const on = '<rect width="10" height="10"/>'
    expect(read(`${off}${invisible}${on}`)).toMatchObject({
      leftOut: [{ what: 'hidden shape', count: 2 }],
      unseen: ['hidden'],
    })
    expect(areas(readSvg(svg(`${off}${invisible}${on}`), { unseen: ['hidden'] }))).toEqual([81, 64, 100])
    expect(areas(read(`${off}${invisible}`))).toEqual([81, 64])
    expect(read(`${off}${invisible}`)).toMatchObject({ leftOut: [], unseen: [] })
  })

  it('does not count what is switched off and there to be used, or paints nothing', () => {
    const store = '<g display="none"><rect id="leaf" width="4" height="4"/></g><use href="#leaf" x="9"/>'
    const drawing = read(`${store}<g display="none"><path d="M0 0H9" fill="none"/></g>`)
    expect(drawing).toMatchObject({ leftOut: [], unseen: [] })
    expect(areas(drawing)).toEqual([16])
    expect(areas(readSvg(svg(store), { unseen: ['hidden'] }))).toEqual([16])
  })

  it('shows through as the colour then seen', () => {
    const drawing = read(
      '<rect width="20" height="20" fill="#000000"/><rect x="10" width="20" height="20" fill="#ffffff" fill-opacity="0.5"/>',
    )
    expect(drawing.shapes.map((s) => s.colour)).toEqual(['#000000', '#808080', '#ffffff'])
    expect(areas(drawing)).toEqual([400, 200, 200])
  })

  it('names groups that a person named', () => {
    const drawing = read(
      '<g id="Sea"><rect width="9" height="9"/></g><g id="g123"><rect width="9" height="9"/></g><g id="Far_x20_hills"><rect width="9" height="9"/></g>',
    )
    expect(drawing.shapes.map((s) => s.group)).toEqual(['Sea', null, 'Far hills'])
  })

  it('lists what it cannot take', () => {
    const drawing = read(
      '<text>Hi</text><text>Ho</text><image href="x.png"/><linearGradient id="g"><stop stop-color="#fff"/><stop offset="1"/></linearGradient><rect width="9" height="9" fill="url(#g)"/>',
    )
    expect(drawing.leftOut).toEqual(
      expect.arrayContaining([
        { what: 'text', count: 2 },
        { what: 'picture', count: 1 },
        { what: 'gradient', count: 1 },
      ]),
    )
    expect(drawing.shapes[0]!.colour).toMatch(/^#(7f7f7f|808080)$/)
  })
})

describe('text', () => {
  const box = (w: number): Region => [rectangle([0, -700], w, 700)]
  /** A font of one sign: half an em wide, a plain block. */
  const outlineText = (words: string) => ({ region: box(words.length * 500), advance: words.length * 500 })

  it('is left out with its place, or set in the font that is given', () => {
    const body =
      '<rect width="9" height="9"/><text x="20" y="50" font-size="10">abcd<tspan x="60" y="80" text-anchor="end" fill="#f00">ef</tspan></text>'
    const without = read(body)
    expect(without.leftOut).toEqual([{ what: 'text', count: 1 }])
    expect(without.leftAt).toEqual([{ what: 'text', at: { x: 20, y: 50 } }])
    const { shapes, leftOut } = readSvg(svg(body), { outlineText })
    expect(leftOut).toEqual([])
    const boxes = shapes.slice(1).map((s) => Object.values(regionBox(s.region)).map((v) => Math.round(v)))
    // 0.7 em high above the baseline; four signs of half an em from x = 20, two that end at x = 60.
    expect(boxes).toEqual([
      [20, 43, 40, 50],
      [50, 73, 60, 80],
    ])
    expect(shapes.at(-1)!.colour).toBe('#ff0000')
  })
})

describe('old and odd files', () => {
  it('reads other encodings, entities and prefixes', () => {
    const latin = Uint8Array.from(
      [
        ...`<?xml version="1.0" encoding="iso-8859-1"?>${svg('<g id="Mer"><rect width="9" height="9"/></g><g id="For\u00eat"><rect width="9" height="9"/></g>')}`,
      ].map((c) => c.charCodeAt(0)),
    )
    expect(readSvg(latin).shapes[1]!.group).toBe('Forêt')
    const wide = new Uint8Array(
      new Uint16Array([...`\ufeff${svg('<rect width="10" height="10"/>')}`].map((c) => c.charCodeAt(0)))
        .buffer,
    )
    expect(areas(readSvg(wide))).toEqual([100])
    const entity = `<!DOCTYPE svg [<!ENTITY red "fill:#ff0000">]>${svg('<rect style="&red;" width="9" height="9"/>')}`
    expect(readSvg(entity).shapes[0]!.colour).toBe('#ff0000')
    expect(
      readSvg(
        '<s:svg xmlns:s="http://www.w3.org/2000/svg" width="10" height="10"><s:rect width="5" height="5"/></s:svg>',
      ).shapes,
    ).toHaveLength(1)
  })

  it.each([
    ['nothing', '', /not an SVG/],
    ['a picture', '\u0089PNG\r\n', /not an SVG/],
    ['a web page', '<html><body/></html>', /not an SVG/],
    ['cut-off data', svg('<rect width="9" height="9"/>').slice(0, -9), /breaks off or is damaged/],
    ['nothing drawn', svg(''), /empty/],
    ['text only', svg('<text>Hi</text>'), /left out: 1 × text/],
    ['groups without end', svg('<g>'.repeat(500) + '</g>'.repeat(500)), /nests more than 400/],
    ['itself', svg('<g id="a"><use href="#a"/></g>'), /empty/],
    [
      'repeats beyond counting',
      svg(
        `<g id="a"><rect width="1" height="1"/></g>${'bcdefghijklm'
          .split('')
          .map((n, i) => `<g id="${n}">${`<use href="#${'abcdefghijklm'[i]}"/>`.repeat(9)}</g>`)
          .join('')}`,
      ),
      /too often|more than/,
    ],
  ])('refuses %s in one sentence', (_, text, sentence) => {
    expect(() => readSvg(text)).toThrow(BadInput)
    expect(() => readSvg(text)).toThrow(sentence)
  })

  it('takes a pen of absurd width in its stride', () => {
    const wide = read(
      '<rect width="9" height="9" stroke="#00f" stroke-width="99999999999910" stroke-linejoin="round"/>',
    )
    expect(wide.shapes.map((s) => s.colour)).toEqual(['#000000', '#0000ff'])
    // The clipper is still alive.
    expect(areas(read('<rect width="10" height="10"/>'))).toEqual([100])
  })

  it('does not expand entities within entities', () => {
    const bomb = `<!DOCTYPE svg [<!ENTITY a "xxxxxxxxxx">${'bcdefgh'
      .split('')
      .map((n, i) => `<!ENTITY ${n} "${`&${'abcdefgh'[i]};`.repeat(10)}">`)
      .join('')}]>${svg('<rect id="&h;" width="9" height="9"/>')}`
    expect(areas(readSvg(bomb))).toEqual([81])
  })

  it('whatever is done to a file, it is read or refused in one line', () => {
    const good = svg(
      '<g id="A" transform="rotate(10)"><path d="M0 0C10 0 20 10 30 30A5 5 0 0 1 9 9z" style="fill:#123;stroke:red;stroke-width:2"/></g><use href="#A" x="3"/><circle r="4"/>',
    )
    const tokens = [
      'NaN',
      '1e999',
      '-',
      '"',
      '<',
      '>',
      '&',
      'url(#A)',
      'matrix(0 0 0 0 0 0)',
      'Infinity',
      '0',
      '%',
      'z',
      '\u0000',
      ' ',
      'scale(1e-30)',
      'stroke-dasharray:0 0',
    ]
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(good.length), fc.nat(12), fc.constantFrom(...tokens)), {
          minLength: 1,
          maxLength: 4,
        }),
        (cuts) => {
          const text = cuts.reduce(
            (s, [at, length, token]) => s.slice(0, at) + token + s.slice(at + length),
            good,
          )
          try {
            for (const shape of readSvg(text).shapes) expect(regionArea(shape.region)).toBeGreaterThan(0)
          } catch (error) {
            expect(error, text).toBeInstanceOf(BadInput)
            expect((error as Error).message.length).toBeLessThan(300)
          }
        },
      ),
      { numRuns: 400 },
    )
  })
})

describe('dashed hairlines', () => {
  const dashed = 'fill="none" stroke="#000" stroke-width="0.1" stroke-dasharray="2 1"'

  it('are lines to fold along, each straight stretch one, where there is card', () => {
    const { folds, shapes, leftOut } = read(
      `<rect x="10" y="10" width="60" height="40"/><g id="flap"><path d="M10 20H70M30 10V30V50L40 50" ${dashed}/></g>`,
    )
    expect(shapes).toHaveLength(1)
    expect(leftOut).toEqual([])
    expect(folds.map(({ line }) => line.map((v) => Math.round(v)))).toEqual([
      [10, 20, 70, 20],
      [30, 10, 30, 50],
      [30, 50, 40, 50],
    ])
  })

  it('are kept up to a limit that is said', () => {
    const many = Array.from(
      { length: 2100 },
      (_, i) => `M${10 + (i % 50)} ${10 + Math.floor(i / 50) / 2}h3`,
    ).join('')
    const { folds, leftOut } = read(
      `<rect x="10" y="10" width="60" height="40"/><path d="${many}" ${dashed}/>`,
    )
    expect(folds).toHaveLength(2000)
    expect(leftOut).toEqual([{ what: 'fold line', count: 100 }])
  })

  it('are outlines like others where the drawing is nothing but thin lines that are to be shown', () => {
    const line = `<path d="M10 20H70" ${dashed}/>`
    expect(readSvg(svg(line), { outlines: 'lines' }).shapes).toHaveLength(1)
  })
})
