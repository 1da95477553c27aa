// Files as they were when they were last looked at: a change of a single figure shows. After a wanted change,
// `npx vitest run golden -u` writes them anew; look at the difference before it is kept.
import { PDFDocument, PDFRawStream } from '@cantoo/pdf-lib'
import fontkit from '@pdf-lib/fontkit'
import { readFileSync } from 'node:fs'
import { inflateSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { rectangle, subtract } from '../../base/geometry'
import { setPlan } from '../../project'
import { card, stack } from '../../../test/stack'
import { results } from '../../../test/results'
import { beside, faces } from '../../../test/faces'
import { wordsOfPdf } from '../../../test/pdf-words'
import { cutFiles, listFiles } from './index'

/** A backing, a ring with a fold and a small square, on one sheet. */
const ring = subtract([rectangle([10, 10], 60, 40)], [rectangle([25, 20], 30, 20)])
const project = setPlan(
  {
    ...stack('card', card('back', 0, [rectangle([0, 0], 80, 60)]), {
      ...card('ring', 2, ring),
      folds: [{ line: [10, 15, 70, 15], way: 'up', deg: 30 }],
    }),
    name: 'Golden',
  },
  { numbers: 'drawn' },
)
const derived = results(project)

/** What is drawn on the pages of a PDF: its content streams, unpacked. */
async function drawnIn(bytes: Uint8Array): Promise<string> {
  const pdf = await PDFDocument.load(bytes)
  return (
    pdf.context
      .enumerateIndirectObjects()
      .flatMap(([, object]) => {
        if (!(object instanceof PDFRawStream) || object.dict.toString().includes('/Type')) return []
        const raw = object.getContents()
        const text = Buffer.from(raw[0] === 0x78 ? inflateSync(raw) : raw).toString('latin1')
        return /\b(re|Tj|l|m)\b/.test(text) && !/begincmap/.test(text) ? [text] : []
      })
      .join('\n--\n')
      // Names of embedded faces end in a number of chance.
      .replace(/-\d{6,}/g, '')
  )
}

describe('a small project as files', () => {
  const files = cutFiles(project, derived.loads)
  const made = listFiles(project, derived, faces)

  it.each([...files.keys()])('%s', async (name) => {
    await expect(files.get(name)).toMatchFileSnapshot(`../../../test/golden/${name}`)
  })

  it.each(['templates-mirrored.pdf', 'sheet-tags.pdf', 'build-sheet.pdf'])('%s', async (name) => {
    const lists = await made
    const drawn = await drawnIn(lists.get(name) as Uint8Array)
    await expect(drawn).toMatchFileSnapshot(`../../../test/golden/${name}.txt`)
  })

  it.each(['shopping.csv', 'cut-list.csv'])('%s', async (name) => {
    const lists = await made
    await expect(lists.get(name)).toMatchFileSnapshot(`../../../test/golden/${name}`)
  })

  it.each([
    ['Greek', 'Καράβι στο λιμάνι'],
    ['Cyrillic', 'Кораблик у пристани'],
    ['Vietnamese', 'Thuyền buồm'],
    ['Polish', 'Żółta łódź'],
    ['Armenian', 'Նավակ'],
  ])('a name in %s stands on lists and templates as it is', async (_, name) => {
    const lists = await listFiles({ ...project, name }, derived, faces)
    for (const file of ['build-sheet.pdf', 'templates-mirrored.pdf'])
      expect(await wordsOfPdf(lists.get(file) as Uint8Array)).toContain(name)
  })

  it.each([
    ['Chinese and Japanese', '港口的灯笼カモメ', '@embedpdf/fonts-sc', 'NotoSansHans-Regular.otf'],
    ['Korean', '저녁항구', '@embedpdf/fonts-kr', 'NotoSansKR-Regular.otf'],
  ])('a name in %s is drawn as the outlines of its face', async (_, name, pack, file) => {
    const lists = await listFiles({ ...project, name }, derived, faces)
    const bytes = lists.get('build-sheet.pdf') as Uint8Array
    // Not embedded: a list stays a small file.
    expect(bytes.length).toBeLessThan(2_000_000)
    const font = fontkit.create(readFileSync(beside(pack, file)))
    const drawn = await drawnIn(bytes)
    // Each sign begins where its outline begins, y turned; the page scales it.
    for (const glyph of font.layout(name).glyphs) {
      const [start] = /-?[\d.]+ -?[\d.]+/.exec(glyph.path.toSVG())!
      const [x, y] = start.split(' ').map(Number)
      expect(drawn).toMatch(new RegExp(`(^|\\s)${x} ${-y!} m\\b`))
    }
  })
})
