// Drawings that come in: what of them becomes layers, what a stop or a change meanwhile leaves as it was, and what is said.
import { strToU8, zipSync } from 'fflate'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { regionArea } from '@feuillet/core/base/geometry'
import { demo } from '@feuillet/core/demo'
import {
  layerBox,
  layerRegion,
  newProject,
  starterMount,
  writeProject,
  type Project,
} from '@feuillet/core/project'
import { edited } from '../../../state/document'
import { store } from '../../../state/store'
import { editor } from '../../../workers'
import {
  all,
  bring,
  choose,
  figure,
  file,
  fireEvent,
  layer,
  one,
  open,
  panel,
  pick,
  press,
  project,
  settled,
  shows,
  snags,
  soon,
  the,
  toast,
  toStage,
  type,
  undo,
  user,
  waitFor,
} from '../../../../test/screens'
import { smallFrame } from '../../../../test/small'

afterEach(() => void vi.restoreAllMocks())

const empty = (): Project => newProject('x', 'Empty', starterMount('frame'))
const svg = (content: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80">${content}</svg>`
const square = svg('<rect x="10" y="10" width="60" height="60" fill="#36a"/>')
const hairlines = svg(
  '<path d="M5 5H75V75H5ZM20 20H40V40H20Z" fill="none" stroke="#c00" stroke-width="0.05"/>',
)
const words = svg('<rect width="80" height="80"/><text x="9" y="9">low</text>')
const names = () => project().layers.map(({ name }) => name)
const said = () => all('status', /^/, panel()).map((note) => note.textContent)

const zip = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])))

/** A reading that ends when it is told to, in place of the worker's own. */
function heldReading() {
  let finish!: () => void
  const held = new Promise<void>((resolve) => (finish = resolve))
  const ask = editor.ask.bind(editor)
  vi.spyOn(editor, 'ask').mockImplementation(async (work) => {
    const answer = await ask(work as never)
    await held
    return answer as never
  })
  return finish
}

describe('files', () => {
  it('come in one after the other, each with what was left out; one that is damaged changes nothing', async () => {
    await open(empty(), 'layers')
    await bring(
      'Drawing files',
      file('tide.svg', square),
      file('cut-off.svg', '<svg xmlns="http://www.w3.org/2000/svg"><rect width="4"'),
      file('words.svg', words),
      file('notes.txt', 'what is this'),
    )
    // Their names bear no number: the most card lies behind.
    await waitFor(() => expect(names()).toEqual(['words', 'tide']))
    expect(said()).toEqual([
      'words.svg: 1 layer. Left out: 1 × text.',
      'tide.svg: 1 layer. Nothing was left out.',
    ])
    const bad = all('alert', /^/, panel()).map((note) => note.textContent)
    expect(bad).toHaveLength(2)
    expect(bad[0]).toMatch(/^■ cut-off.svg: the SVG breaks off or is damaged.*Nothing was changed\.$/)
    expect(bad[1]).toContain('notes.txt')
    // All of them are one step.
    await undo()
    expect(names()).toEqual([])
  })

  it('are dropped on the screen too', async () => {
    await open(empty(), 'layers')
    const target = [...document.querySelectorAll('h2')].find(
      ({ textContent }) => textContent === 'The first layer',
    )!
    const dropped = file('tide.svg', square)
    fireEvent.dragOver(target)
    fireEvent.drop(target, { dataTransfer: { files: [dropped] } })
    await waitFor(() => expect(names()).toEqual(['Blue']))
    await shows('Size', '60 × 60 mm')
  })

  it('may be a project: its layers come with their papers, those that are there already once', async () => {
    await open('bon-voyage', 'layers')
    const before = project()
    const other = demo('tide-rose')
    await bring('Drawing files', file('rose.json', writeProject(other)))
    await waitFor(() => expect(project().layers).toHaveLength(before.layers.length + other.layers.length))
    expect(said()[0]).toBe('rose.json: 6 layers, with their papers.')
    const papers = project().drawer.papers.map(({ id }) => id)
    expect(new Set(papers).size).toBe(papers.length)
    for (const { paperId } of project().layers) expect(papers).toContain(paperId)
    // No id twice, whatever both had.
    expect(new Set(project().layers.map(({ id }) => id)).size).toBe(project().layers.length)
  })
})

it('layers of one work, a file each, lie as their pages do, in the order of their numbers', async () => {
  await open(empty(), 'layers')
  const onPage = (content: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="190mm" height="190mm" viewBox="0 0 190 190">${content}</svg>`
  await bring(
    'Drawing files',
    file('Night 10 moon.svg', onPage('<circle cx="150" cy="40" r="15"/>')),
    file('Night 2 hills.svg', onPage('<path d="M0 100L95 60L190 120V190H0Z"/>')),
    file('Night 1 sky.svg', onPage('<rect width="190" height="190"/>')),
  )
  await waitFor(() => expect(names()).toEqual(['Night 1 sky', 'Night 2 hills', 'Night 10 moon']))
  // Sheets of 190 mm in the middle of 200 mm: 5 mm round them, and the moon where it was drawn.
  const [sky, hills, moon] = project().layers.map(layerBox)
  expect(sky).toEqual({ minX: 5, minY: 5, maxX: 195, maxY: 195 })
  expect([hills!.minY, hills!.maxY]).toEqual([65, 195])
  expect([(moon!.minX + moon!.maxX) / 2, (moon!.minY + moon!.maxY) / 2]).toEqual([
    expect.closeTo(155, 2),
    expect.closeTo(45, 2),
  ])
  // One more on such a page lies as its page does too; where it would lie far outside it is another drawing.
  await bring('Drawing files', file('star.svg', onPage('<rect x="20" y="30" width="10" height="10"/>')))
  await waitFor(() => expect(project().layers).toHaveLength(4))
  const placed = { minX: 25, minY: 35, maxX: 35, maxY: 45 }
  expect(layerBox(project().layers[3]!)).toEqual(placed)
  // Read otherwise it lies where it lay.
  const read = project().layers[3]!
  await type('Lines are card from', '0.4')
  await waitFor(() => expect(project().layers[3]).not.toBe(read))
  expect(layerBox(project().layers[3]!)).toEqual(placed)
  await bring('Drawing files', file('note.svg', onPage('<rect x="20" y="230" width="10" height="10"/>')))
  await waitFor(() => expect(project().layers).toHaveLength(5))
  expect(layerBox(project().layers[4]!)).toEqual({ minX: 95, minY: 95, maxX: 105, maxY: 105 })
})

describe('a zip', () => {
  it('of one drawing is that drawing; of none says what it holds', async () => {
    await open(empty(), 'layers')
    await bring('Drawing files', file('tide.zip', zip({ 'Tide/tide.svg': square, 'Tide/tide.dxf': 'x' })))
    await waitFor(() => expect(said()).toEqual(['tide.svg: 1 layer. Nothing was left out.']))
    expect(names()).toEqual(['Blue'])
    await bring('Drawing files', file('pictures.zip', zip({ 'a.png': 'x', 'b.pdf': 'x' })))
    await waitFor(() =>
      expect(the('alert', /^/, panel()).textContent).toBe(
        '■ pictures.zip: it holds no drawing (SVG or DXF), only PDF and PNG files. Nothing was changed.',
      ),
    )
  })

  it('of several lets the maker pick which of them come in', async () => {
    await open(empty(), 'layers')
    const tide = zip({ 'Tide/2 sand.svg': square, 'Tide/1 sea.svg': square, 'Tide/terms.svg': words })
    await bring('Drawing files', file('tide.zip', tide))
    const boxes = () => all('checkbox', /^Tide/).map((box) => box.getAttribute('aria-label'))
    await waitFor(() => expect(boxes()).toEqual(['Tide/1 sea.svg', 'Tide/2 sand.svg', 'Tide/terms.svg']))
    expect(project().layers).toEqual([])
    await press('Tick none')
    expect(the('button', 'Bring in 0 drawings')).toHaveProperty('disabled', true)
    await press('Tick all')
    await press('Tide/terms.svg', 'checkbox')
    await press('Bring in 2 drawings')
    await waitFor(() => expect(names()).toEqual(['1 sea', '2 sand']))
    expect(boxes()).toEqual([])
    await undo()
    await bring('Drawing files', file('tide.zip', tide))
    await soon('button', 'Leave them')
    await press('Leave them')
    expect(boxes()).toEqual([])
    expect(names()).toEqual([])
  })
})

describe('a drawing that does not say how large it is', () => {
  it('tells what its size rests on, and is as large as the maker says', async () => {
    await open(empty(), 'layers')
    const open96 =
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 360 360"><rect width="360" height="360"/></svg>'
    await bring('Drawing files', file('tide.svg', open96))
    await waitFor(() =>
      expect(said()).toEqual([
        'tide.svg: 1 layer. Nothing was left out.',
        'tide.svg does not say how large it is: with 1/96 in to a unit it is 95.3 × 95.3 mm.',
      ]),
    )
    await choose('One unit of the SVG is', /^1\/72 in/)
    await waitFor(() => expect(said()[1]).toContain('with 1/72 in to a unit it is 127 × 127 mm.'))
    expect(layerBox(project().layers[0]!)).toEqual({ minX: 36.5, minY: 36.5, maxX: 163.5, maxY: 163.5 })
  })

  it('may be several, which lie by their coordinates, the most card behind', async () => {
    await open(empty(), 'layers')
    const dxf = (x: number, y: number, w: number, h: number) =>
      `0\nSECTION\n2\nENTITIES\n0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n${[
        [x, y],
        [x + w, y],
        [x + w, y + h],
        [x, y + h],
      ]
        .map(([a, b]) => `10\n${a}\n20\n${b}\n`)
        .join('')}0\nENDSEC\n0\nEOF\n`
    await bring('Drawing files', file('moon.dxf', dxf(6, 6, 1, 1)), file('sky.dxf', dxf(1, 1, 7, 7)))
    await waitFor(() => expect(names()).toEqual(['sky', 'moon']))
    await choose('One unit of the DXF is', /^1 in/)
    await waitFor(() => expect(layerBox(project().layers[0]!).maxX).toBeCloseTo(188.9, 1))
    const [sky, moon] = project().layers.map(layerBox)
    expect(moon!.minX - sky!.minX).toBeCloseTo(127, 3)
    expect(moon!.minY - sky!.minY).toBeCloseTo(25.4, 3)
  })
})

it('what lies outside the page stays out until it is asked for', async () => {
  await open(empty(), 'layers')
  const stray =
    '<rect x="10" y="10" width="60" height="60" fill="#36a"/><rect x="-40" y="10" width="20" height="20" fill="#a33"/>'
  await bring('Drawing files', file('tide.svg', svg(stray)))
  await waitFor(() => expect(said()).toEqual(['tide.svg: 1 layer. Left out: 1 × shape outside the page.']))
  await press('With what lies outside the page', 'switch')
  await waitFor(() => expect(said()).toEqual(['tide.svg: 2 layers. Nothing was left out.']))
  await press('With what lies outside the page', 'switch')
  await waitFor(() => expect(names()).toHaveLength(1))
})

it('what is hidden in a drawing is counted, and comes in when it is asked for', async () => {
  await open(empty(), 'layers')
  const hill = '<g id="hill"><rect x="10" y="10" width="60" height="60" fill="#36a"/></g>'
  const moon =
    '<g id="moon" style="display:none"><rect x="20" y="20" width="20" height="20" fill="#fc0"/></g>'
  await bring('Drawing files', file('tide.svg', svg(`${hill}${moon}`)))
  await waitFor(() => expect(said()).toEqual(['tide.svg: 1 layer. Left out: 1 × hidden shape.']))
  expect(all('switch', 'With what lies outside the page', panel())).toEqual([])
  await press('With what is hidden in the drawing', 'switch')
  await waitFor(() => expect(names()).toEqual(['hill', 'moon']))
  expect(said()).toEqual(['tide.svg: 2 layers. Nothing was left out.'])
})

it('a folder is no file', async () => {
  await open(empty(), 'layers')
  const folder = file('Tide', '')
  folder.arrayBuffer = () => Promise.reject(new Error('NotReadableError'))
  await bring('Drawing files', folder)
  await waitFor(() =>
    expect(the('alert', /^/, panel()).textContent).toBe(
      '■ Tide cannot be read: of a folder, bring in the files. Nothing was changed.',
    ),
  )
})

describe('while a drawing is read', () => {
  it('a stop changes nothing and says so', async () => {
    await open(empty(), 'layers')
    const finish = heldReading()
    await bring('Drawing files', file('tide.svg', square), file('more.svg', square))
    expect(await soon('button', 'Reading…')).toHaveProperty('disabled', true)
    await press('Stop')
    await waitFor(() => expect(said()).toEqual(['more.svg: stopped. Nothing was changed.']))
    finish()
    expect(names()).toEqual([])
    vi.restoreAllMocks()
    // The next reading finds a worker again.
    await bring('Drawing files', file('tide.svg', square))
    await waitFor(() => expect(names()).toEqual(['Blue']))
  })

  it('what is changed meanwhile stays', async () => {
    await open(empty(), 'layers')
    const finish = heldReading()
    await bring('Drawing files', file('tide.svg', square))
    store.dispatch(edited({ label: 'a name', project: { ...project(), name: 'Named meanwhile' } }))
    finish()
    await waitFor(() => expect(names()).toEqual(['Blue']))
    expect(project().name).toBe('Named meanwhile')
    await undo()
    expect(project().name).toBe('Named meanwhile')
    expect(names()).toEqual([])
  })

  it.each([
    ['a drawing', 'tide.svg', square],
    ['a zip', 'tide.zip', zip({ 'tide.svg': square })],
  ])('another project that was opened gets nothing of %s', async (_, name, content) => {
    await open(empty(), 'layers')
    const finish = heldReading()
    await bring('Drawing files', file(name, content))
    vi.restoreAllMocks()
    await open('bon-voyage', 'layers')
    const before = project().layers
    finish()
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(project().layers).toBe(before)
  })

  it('a worker that ends is told of', async () => {
    await open(empty(), 'layers')
    const finish = heldReading()
    await bring('Drawing files', file('tide.svg', square))
    editor.end()
    await waitFor(() => expect(all('alert', /^/, panel()).map((note) => note.textContent)).toEqual(['■ tide.svg: reading it broke off. Nothing was changed.'])) // prettier-ignore
    finish()
    expect(names()).toEqual([])
  })
})

describe('read otherwise', () => {
  it('hairlines are outlines of pieces, or lines, in place of what was read before', async () => {
    await open(empty(), 'layers')
    await bring('Drawing files', file('cut.svg', hairlines))
    // 70 × 70 less 20 × 20 mm.
    await shows('Card', '45.0 cm²')
    await press('thin lines', 'radio')
    await waitFor(() => expect(figure('Card')).not.toBe('45.0 cm²'))
    expect(names()).toHaveLength(1)
    await press('outlines of pieces', 'radio')
    await shows('Card', '45.0 cm²')
    expect(names()).toHaveLength(1)
  })

  it('is not offered where the project was changed since, until that is undone', async () => {
    await open(empty(), 'layers')
    await bring('Drawing files', file('cut.svg', hairlines))
    await shows('Card', '45.0 cm²')
    await type('Copies to cut', '3')
    await waitFor(() => expect(all('radio', 'thin lines')).toEqual([]))
    await undo()
    await soon('radio', 'thin lines')
  })

  it('a font that is none is told, and the text stays left out', async () => {
    await open(empty(), 'layers')
    await bring('Drawing files', file('words.svg', words))
    await soon('status', /Left out: 1 × text/, panel())
    await waitFor(() => one('[data-left=text]'))
    await bring('Font for the text', file('odd.ttf', 'no font'))
    await waitFor(() =>
      expect(document.body.textContent).toContain('odd.ttf: this is not a TTF, OTF or WOFF font'),
    )
    one('[data-left=text]')
  })
})

describe('what is found wrong with a drawing', () => {
  it('colours let in beside each other go on under those in front at one press, or one by one', async () => {
    await open(empty(), 'layers')
    const inlay =
      '<path fill="#246" fill-rule="evenodd" d="M0 0H80V80H0ZM20 20H60V60H20Z"/><rect x="20" y="20" width="20" height="40" fill="#a33"/><rect x="40" y="20" width="20" height="40" fill="#eda"/>'
    await bring('Drawing files', file('inlay.svg', svg(inlay)))
    await waitFor(() => expect(snags('mosaic')).toHaveLength(1))
    await pick(project().layers[1]!.id)
    await press('Go on under what is in front')
    await shows('Card', '16.0 cm²')
    await undo()
    await press('Let each go on under those in front')
    await waitFor(() => expect(snags('mosaic')).toEqual([]))
    const sizes = project().layers.map((one) => Math.round(regionArea(layerRegion(one))))
    expect(sizes).toEqual([6400, 1600, 800])
  })

  it('a weak neck is shown where it is, and one press makes it wide enough', async () => {
    await open(empty(), 'layers')
    const weak = 'M0 0H40V20.6H80V0H120V40H80V21.2H40V40H0Z'
    await bring(
      'Drawing files',
      file(
        'weak.svg',
        `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><path fill="#36a" d="${weak}"/></svg>`,
      ),
    )
    const note = await waitFor(() => one('[data-snag=weak-neck]', panel()))
    expect(note.textContent).toContain('one strip under 1.2 mm, the narrowest 0.6 mm; one will tear')
    await shows('All strips pass at', /× 2/)
    await pick(project().layers[0]!.id)
    await waitFor(() => expect(document.querySelectorAll('[data-neck=neck]')).toHaveLength(1))
    await user.click(the('button', 'Make it 1.2 mm wide', one('[data-snag=weak-neck]', panel())))
    await waitFor(() => expect(snags('weak-neck')).toEqual([]))
    await undo()
    await waitFor(() => expect(snags('weak-neck')).toHaveLength(1))
  })

  it('a cartoon painted shape by shape: outlines gathered, a sheet put behind, specks dropped all at once', async () => {
    await open(empty(), 'layers')
    const tiles = ['#c22', '#2a2', '#22c', '#ca2'].map((fill, i) => {
      const x = 10 + i * 30
      return `<rect x="${x}" y="20" width="30" height="40" fill="${fill}" stroke="#111" stroke-width="3"/><rect x="${x + 10}" y="70" width="1" height="1" fill="${fill}"/>`
    })
    await bring(
      'Drawing files',
      file(
        'tiles.svg',
        `<svg xmlns="http://www.w3.org/2000/svg" width="150mm" height="90mm" viewBox="0 0 150 90">${tiles.join('')}</svg>`,
      ),
    )
    const strewn = await waitFor(() => one('[data-snag=strewn-colour]', panel()))
    expect(strewn.textContent).toContain('comes in 4 layers')
    await user.click(the('button', 'Gather them in one layer', strewn))
    await waitFor(() => expect(project().layers).toHaveLength(5))
    const behind = await waitFor(() => one('[data-snag=board-shows]', panel()))
    await user.click(the('button', 'Put a full sheet behind', behind))
    await waitFor(() => expect(names()[0]).toBe('Backing'))
    await waitFor(() => expect(snags('board-shows')).toEqual([]))
    // Three and more of a kind stand as one.
    await user.click(await soon('button', '3 more of this kind', panel()))
    expect(snags('specks')).toHaveLength(4)
    await user.click(the('button', 'Mend all 4 of this kind', panel()))
    await waitFor(() => expect(snags('specks')).toEqual([]))
    await undo()
    await soon('button', '3 more of this kind', panel())
  })

  it('sheets beside each other, as they are cut, come to lie on each other at one press', async () => {
    const side = 200
    const sheet = (k: number) =>
      `<path id="S${k}" fill="${['#135', '#479', '#8bd'][k]}" fill-rule="evenodd" d="M${210 * k} 0h${side}v${side}h-${side}Z${k > 0 ? `M${210 * k + 50} ${60 - 10 * k}h60v80h-60Z` : ''}"/>`
    const row = `<svg xmlns="http://www.w3.org/2000/svg" width="630mm" height="210mm" viewBox="0 0 630 210">${[0, 1, 2].map(sheet).join('')}<text x="5" y="208">back</text></svg>`
    await open(empty(), 'layers')
    await bring('Drawing files', file('row.svg', row))
    await waitFor(() => expect(snags('laid-out')).toHaveLength(1))
    for (const code of ['board-shows', 'hidden-layer']) expect(snags(code)).toEqual([])
    await waitFor(() => one('[data-left=text]'))
    expect(one('[data-snag=laid-out]', panel()).textContent).toContain(
      '3 sheets beside each other, 620 × 200 mm',
    )
    await press('Lay them on each other')
    await waitFor(() => expect(snags('laid-out')).toEqual([]))
    const lies = () => project().layers.map((each) => layerBox(each).minX)
    expect(lies()).toEqual([0, 0, 0])
    // The text that was left out lay beside a sheet that lies elsewhere now.
    await waitFor(() => expect(document.querySelector('[data-left=text]')).toBeNull())
    await undo()
    expect(new Set(lies()).size).toBe(3)
    await waitFor(() => one('[data-left=text]'))
    // Measure says nothing of its size yet, and offers the same.
    await toStage('measure')
    await waitFor(() => expect(snags('laid-out')).toHaveLength(1))
    expect(panel().textContent).not.toContain('Fit to size')
    await user.click(all('button', 'Lay them on each other').at(-1)!)
    await waitFor(() => expect(snags('laid-out')).toEqual([]))
    expect(lies()).toEqual([0, 0, 0])
  })
})

describe('the picked layer', () => {
  it('is renamed, but not to nothing; plays its part; and each is a step of its own', async () => {
    await open(smallFrame(), 'layers')
    await pick('swell')
    await type('Name', 'High swell')
    expect(layer('swell').name).toBe('High swell')
    await type('Name', '   ')
    expect(layer('swell').name).toBe('High swell')
    await choose('Role', 'accent')
    await choose('On the sheets', 'all on one sheet')
    await type('Spares of small bits', '4')
    await press('Bears its number', 'switch')
    expect(layer('swell')).toMatchObject({ role: 'accent', sharing: 'one-sheet', spares: 4, numbered: false })
    await shows('Number', 'bears none')
    for (let k = 0; k < 5; k++) await undo()
    expect(layer('swell')).toEqual(smallFrame().layers.find(({ id }) => id === 'swell'))
  })

  it('behind the pane is cut in the mirror, and in the stack again is not', async () => {
    await open(smallFrame(), 'layers')
    await pick('swell')
    await choose('Where it is', 'behind the pane')
    expect(layer('swell')).toMatchObject({ lives: 'behind-pane', cutMirrored: true })
    await choose('Where it is', 'in the stack')
    expect(layer('swell')).toMatchObject({ lives: 'stack', cutMirrored: false })
  })

  it('can be left out only while it is optional', async () => {
    await open(smallFrame(), 'layers')
    await pick('swell')
    expect(all('switch', 'Leave it out this time')).toEqual([])
    await press('Optional: reads without it too', 'switch')
    await press('Leave it out this time', 'switch')
    expect(layer('swell')).toMatchObject({ optional: true, leftOut: true })
    await press('Optional: reads without it too', 'switch')
    expect(layer('swell')).toMatchObject({ optional: false, leftOut: false })
  })

  it('goes forward, back, into the one below, and away', async () => {
    await open(smallFrame(), 'layers')
    const order = () => project().layers.map(({ id }) => id)
    const before = order()
    const at = before.indexOf('swell')
    await pick('swell')
    await press('Forward')
    expect(order().indexOf('swell')).toBe(at + 1)
    await press('Back')
    await press('Back')
    expect(order().indexOf('swell')).toBe(at - 1)
    await undo()
    expect(order()).toEqual(before)
    const area = () => waitFor(() => Number.parseFloat(figure('Card')))
    const own = await area()
    await press('Merge with below')
    await waitFor(() => expect(order()).toHaveLength(before.length - 1))
    await settled()
    // One sheet of both covers no less than the larger of them.
    await pick(order()[at - 1]!)
    expect(await area()).toBeGreaterThanOrEqual(own - 0.1)
    await undo()
    await pick('swell')
    await press('Remove')
    expect(order()).toEqual(before.filter((id) => id !== 'swell'))
  })

  it('has copies of its shape: larger, smaller, cut out of another', async () => {
    await open(smallFrame(), 'layers')
    await pick('swell')
    const area = Number.parseFloat(figure('Card'))
    const count = project().layers.length
    await type('All round by', '2')
    await press('Larger behind')
    await waitFor(() => expect(project().layers).toHaveLength(count + 1))
    // Behind it, and picked by its row.
    const copy = project().layers[project().layers.findIndex(({ id }) => id === 'swell') - 1]!
    await settled()
    await pick(copy.id)
    await waitFor(() => expect(Number.parseFloat(figure('Card'))).toBeGreaterThan(area))
    await undo()
    expect(project().layers).toHaveLength(count)
    await type('Fill openings under', '0.1')
    await press('Fill them')
    await toast(/has no opening as small\. Nothing was changed\./)
  })

  it('is cut as openings in what it lies on', async () => {
    await open(smallFrame(), 'layers')
    const before = project().layers
    await pick('swell')
    await press('all behind it', 'radio')
    await press('Openings in place of it')
    await waitFor(() => expect(project().layers).toHaveLength(before.length - 1))
    const areas = (layers: typeof before) =>
      layers.filter(({ id }) => id !== 'swell').map((layer) => Math.round(regionArea(layerRegion(layer))))
    const [was, is] = [areas(before), areas(project().layers)]
    const at = before.findIndex(({ id }) => id === 'swell')
    expect(is.slice(at)).toEqual(was.slice(at))
    expect(is.slice(0, at).every((area, i) => area < was[i]!)).toBe(true)
  })
})

it('sheets are saved by layers that are left out: those stay of which most is seen', async () => {
  await open(smallFrame(), 'layers')
  const count = project().layers.length
  await press('Leave the others out')
  const built = project().layers.filter(({ leftOut }) => !leftOut)
  expect(built).toHaveLength(3)
  expect(project().layers).toHaveLength(count)
  // The backmost stays.
  expect(built[0]!.id).toBe(project().layers[0]!.id)
  await toStage('sheets')
  await waitFor(() => expect(the('heading', /^\d+ loads?$/, panel()).textContent).toBe('3 loads'))
})
