import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { afterAll, describe, expect, it } from 'vitest'
import { regionArea } from '@feuillet/core/base/geometry'
import { demo } from '@feuillet/core/demo'
import { layerRegion, readProject } from '@feuillet/core/project'
import { run as runHere } from './run'

const root = fileURLToPath(new URL('../..', import.meta.url))
const folder = mkdtempSync(join(tmpdir(), 'feuillet-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const at = (name: string) => join(folder, name)
const write = (name: string, text: string) => {
  writeFileSync(at(name), text)
  return at(name)
}
/** A command line in this process: what it says, and its exit code. */
const run = async (...args: string[]) => {
  let stdout = ''
  const lines: string[] = []
  const status = await runHere(args, { print: (text) => (stdout += text), error: (line) => lines.push(line) })
  return { status, stdout, stderr: lines.join('\n') }
}
const json = async <T>(...args: string[]): Promise<T> => {
  const { status, stdout, stderr } = await run(...args)
  expect(stderr).toBe('')
  expect(status).toBe(0)
  return JSON.parse(stdout) as T
}

const harbour = at('harbour.feuillet.json')
await run('demo', 'harbour', '-o', harbour)

describe('the program', () => {
  const start = (...args: string[]) =>
    spawnSync(process.execPath, ['--import', 'tsx', 'headless/src/main.ts', ...args], {
      cwd: root,
      encoding: 'utf8',
    })

  it('prints what was asked for and ends with 0', () => {
    const { status, stdout, stderr } = start('demo', 'list')
    expect([status, stderr]).toEqual([0, ''])
    expect(JSON.parse(stdout)).toContain('harbour')
  })

  it('says what is wrong on standard error and ends with 3', () => {
    const { status, stdout, stderr } = start('check', 'nowhere.json')
    expect([status, stdout, stderr]).toEqual([3, '', 'nowhere.json: there is no such file\n'])
  })
})

describe('each command', () => {
  it('demo lists and writes projects', async () => {
    expect(await json('demo', 'list')).toEqual(expect.arrayContaining(['harbour', 'tide-rose', 'bon-voyage']))
    expect(readProject(readFileSync(harbour, 'utf8')).layers).toHaveLength(8)
  })

  it('import gives layers in the page’s frame', async () => {
    const file = write(
      'a.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="10cm" height="5cm" viewBox="0 0 100 50"><rect x="10" y="10" width="20" height="20" fill="#f00"/><text>x</text></svg>',
    )
    expect(await json('import', file)).toEqual({
      layers: [
        {
          name: 'Red',
          colour: '#ff0000',
          areaMm2: 400,
          pieces: 1,
          bounds: [10, 10, 30, 30],
          path: expect.stringMatching(/^M[\d .LM-]+Z$/) as string,
        },
      ],
      leftOut: [{ what: 'text', count: 1 }],
      widthMm: 100,
      heightMm: 50,
    })
  })

  it('plans back from a date, over evenings', async () => {
    interface Dated {
      steps: { id: string; needs: string[]; startAt: string; endAt: string; after: string[] }[]
      readyAt: string
    }
    const evenings = ['--by', '2026-12-20T18:00', '--evening', '19:00-21:30', '--days', 'mon,wed,sat']
    const dated = await json<Dated>('plan', harbour, ...evenings)
    for (const { needs, startAt, endAt } of dated.steps) {
      if (needs.length === 0) continue
      expect([1, 3, 6]).toContain(new Date(`${startAt}Z`).getUTCDay())
      expect(startAt.slice(11) >= '19:00').toBe(true)
      expect(endAt.slice(11) <= '21:30:00').toBe(true)
    }
    expect(dated.readyAt <= '2026-12-20T18:00').toBe(true)
    for (const wrong of [
      ['--by', 'soon'],
      ['--days', 'mon'],
      ['--by', '2026-12-20T18:00', '--days', 'x'],
    ])
      expect((await run('plan', harbour, ...wrong)).status).toBe(2)
  })

  it('shows from aside what lies at its own height', async () => {
    interface Shown {
      layers: { id: string; visibleMm2: number }[]
    }
    const straight = await json<Shown>('shows', harbour)
    const aside = await json<Shown>('shows', harbour, '--aside', '30', '--towards', '90')
    expect(aside.layers.map(({ id }) => id)).toEqual(straight.layers.map(({ id }) => id))
    expect(aside.layers).not.toEqual(straight.layers)
    expect(await json<Shown>('shows', harbour, '--aside', '0')).toEqual(straight)
    expect((await run('shows', harbour, '--aside', '95')).status).toBe(2)
  })

  it('check, shows, depth and plan speak of the same project', async () => {
    const { snags } = await json<{ snags: Record<string, unknown>[] }>('check', harbour)
    expect(snags.map((s) => Object.keys(s))).toEqual(
      snags.map(() => ['code', 'stage', 'layer', 'message', 'at']),
    )
    const { layers } = await json<{
      layers: { id: string; areaMm2: number; visibleMm2: number; visiblePath: string }[]
    }>('shows', harbour)
    expect(layers.map((l) => l.id)).toEqual(
      readProject(readFileSync(harbour, 'utf8')).layers.map((l) => l.id),
    )
    for (const l of layers) expect(l.visibleMm2).toBeLessThanOrEqual(l.areaMm2)
    const depth = await json<{
      pieces: { topMm: number }[]
      pads: { thicknessMm: number }[]
      stackMm: number
      roomMm: number
      buy: unknown[]
    }>('depth', harbour)
    expect(depth.stackMm).toBeCloseTo(Math.max(...depth.pieces.map((p) => p.topMm)), 3)
    expect(depth.roomMm).toBe(22)
    expect(depth.pads.length).toBeGreaterThan(50)
    const plan = await json<{
      steps: { id: string; after: string[]; startMin: number; endMin: number }[]
      minutes: number
    }>('plan', harbour)
    expect(plan.minutes).toBeCloseTo(Math.max(...plan.steps.map((s) => s.endMin)), 2)
    for (const step of plan.steps)
      for (const id of step.after) expect(plan.steps.some((s) => s.id === id)).toBe(true)
  })

  it('grow makes a project of any recipe, and lists what each takes', async () => {
    const { recipes } = await json<{ recipes: { kind: string; needs: string[] }[] }>('grow', 'list')
    expect(recipes.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining([
        'ladder',
        'lettering',
        'tones',
        'rosette',
        'mandala',
        'garland',
        'wings',
        'scene',
        'window',
      ]),
    )
    const recipe = (settings: object) => write('recipe.json', JSON.stringify(settings))
    for (const { kind, needs } of recipes) {
      if (needs.length > 0) continue
      const file = recipe({ kind })
      const { status, stdout } = await run('grow', file)
      expect([kind, status]).toEqual([kind, 0])
      expect(readProject(stdout).grown[0]!.recipe.kind).toBe(kind)
    }
    // A picture comes along with its recipe, and the print sheet out with the cut files.
    const picture = demo('kittiwake').pictures[0]!
    const { id, pixelsWide, pixelsHigh } = picture
    const window = recipe({ kind: 'window', picture: { id, pixelsWide, pixelsHigh }, pictures: [picture] })
    const printed = readProject((await run('grow', window)).stdout)
    expect(printed.pictures).toEqual([picture])
    expect(printed.layers[0]!.print!.pictureId).toBe(id)
    expect(printed.drawer.papers.map(({ finish }) => finish)).toContain('acetate')
    const bad = recipe({ kind: 'garland', flags: 0 })
    expect(await run('grow', bad)).toMatchObject({
      status: 3,
      stderr: expect.stringContaining('flags: ') as string,
    })
  })

  it('ladder, letter and tones give whole projects', async () => {
    const file = write(
      'disc.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80"><circle cx="40" cy="40" r="35"/></svg>',
    )
    const areas = (project: unknown) =>
      readProject(JSON.stringify(project)).layers.map((layer) => regionArea(layerRegion(layer)))
    const ladder = areas(await json('ladder', file, '--steps', '3', '--step-mm', '5', '--sheet', '100x100'))
    ladder
      .slice(1)
      .forEach((area, i) =>
        expect(Math.abs(area / (10000 - Math.PI * (20 + 5 * i) ** 2) - 1)).toBeLessThan(0.01),
      )
    const font = createRequire(import.meta.url).resolve(
      '@expo-google-fonts/fredoka/700Bold/Fredoka_700Bold.ttf',
    )
    const words = await json<{ layers: { name: string }[] }>(
      'letter',
      'hi',
      '--font',
      font,
      '--width-mm',
      '90',
    )
    expect(words.layers.map((layer) => layer.name)).toEqual(['Backing', 'Words'])
    const picture = fileURLToPath(new URL('../../docs/screenshots/bench.png', import.meta.url))
    const tones = await json<{ layers: unknown[]; mount: { spacer: { widthMm: number; heightMm: number } } }>(
      'tones',
      picture,
      '--levels',
      '3',
      '--width-mm',
      '160',
    )
    expect(tones.layers).toHaveLength(3)
    expect(tones.mount.spacer).toEqual({ widthMm: 160, heightMm: 100 })
  })

  it('nest lays every copy and takes the same seed to the same layout', async () => {
    const square = [[0, 0], [40, 0], [40, 40], [0, 40]] // prettier-ignore
    const file = write(
      'instance.json',
      JSON.stringify({
        sheet: { w: 100, h: 100, margin: 5 },
        gap: 2,
        pieces: [{ id: 'sq', outer: square, holes: [], qty: 5, rotation: 'quarter' }],
      }),
    )
    const result = await json<{
      placements: { id: string; copy: number; sheet: number; x: number; y: number; rotation: number }[]
      sheets: number
      utilisation: number
    }>('nest', file, '--seconds', '0.3')
    expect(result.placements.map((p) => p.copy).toSorted()).toEqual([0, 1, 2, 3, 4])
    expect(result.sheets).toBe(2)
    expect(result.utilisation).toBeCloseTo((5 * 1600) / (2 * 10000), 4)
  })

  it('export writes whole sets of files', async () => {
    const out = at('out')
    const { files } = await json<{ files: string[] }>('export', harbour, '-o', out)
    expect(readdirSync(out).toSorted()).toEqual(files.toSorted())
    expect(files.filter((f) => f.endsWith('.svg'))).toHaveLength(8)
    for (const ending of ['.dxf', '.hpgl', '.png', '.pdf', '.csv'])
      expect(
        files.some((f) => f.endsWith(ending)),
        ending,
      ).toBe(true)
    expect(
      [
        ...readFileSync(
          join(
            out,
            files.find((f) => f.endsWith('.png'))!,
          ),
        ).subarray(1, 4),
      ]
        .map((b) => String.fromCharCode(b))
        .join(''),
    ).toBe('PNG')
  })
})

describe('what is wrong', () => {
  it.each([
    ['no command', []],
    ['an unknown one', ['fold']],
    ['too few words', ['import']],
    ['too many', ['check', 'a', 'b']],
    ['an unknown option', ['check', 'a', '--fast']],
    ['a number that is none', ['nest', 'a', '--seconds', 'ten']],
    ['an unknown demo', ['demo', 'mountain']],
    ['an export to nowhere', ['export', 'a']],
    ['a sheet that is none', ['ladder', 'a', '--sheet', 'large']],
    ['a sheet larger than any', ['ladder', 'a', '--sheet', '5001x100']],
    ['letters without a font', ['letter', 'hi']],
  ])('with %s: exit 2', async (_, args) => {
    const { status, stdout, stderr } = await run(...args)
    expect(status).toBe(2)
    expect(stdout).toBe('')
    expect(stderr).toMatch(/usage/)
  })

  it.each([
    ['of one pixel', 1, 1, 'too small'],
    ['far higher than wide', 2, 400, 'more than 5000 mm high'],
    ['far wider than high', 5000, 4, 'too narrow'],
  ])('in a picture %s: exit 3 and a sentence', async (_, width, height, said) => {
    const file = at(`${width}x${height}.png`)
    await sharp({ create: { width, height, channels: 3, background: '#777' } })
      .png()
      .toFile(file)
    const { status, stderr } = await run('tones', file, '--width-mm', '180')
    expect(status).toBe(3)
    expect(stderr).toContain(`${file}: `)
    expect(stderr).toContain(said)
  })

  it.each([
    ['a file that is not there', 'import', 'nowhere.svg', null],
    ['a damaged drawing', 'import', 'cut.svg', '<svg xmlns="http://www.w3.org/2000/svg"><rect'],
    ['a project that is none', 'check', 'no.json', '{"hello":1}'],
    ['a picture that is none', 'tones', 'no.png', 'PNG'],
    ['a cut-off DXF', 'import', 'cut.dxf', '0\nSECTION\n2\nENTITIES\n'],
    [
      'a silhouette larger than its sheet',
      'ladder',
      'wide.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="9mm"><rect width="100%" height="100%"/></svg>',
    ],
    [
      'an instance that cannot be',
      'nest',
      'big.json',
      '{"sheet":{"w":10,"h":10},"pieces":[{"id":"a","outer":[[0,0],[50,0],[50,50]]}]}',
    ],
  ])('in %s: exit 3, one line, nothing half-written', async (_, command, name, text) => {
    const file = text === null ? at(name) : write(name, text)
    const out = at(`${name}.out`)
    const { status, stdout, stderr } = await run(command, file, '-o', out)
    expect(status).toBe(3)
    expect(stdout).toBe('')
    expect(stderr.split('\n')).toHaveLength(1)
    expect(stderr.startsWith(`${file}: `)).toBe(true)
    expect(existsSync(out) || existsSync(`${out}.part`)).toBe(false)
  })
})
