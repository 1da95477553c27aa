// Damages real files at random and reads them: every reader must give shapes or one sentence, in time. `tsx bench/fuzz.ts
// [seconds] [seed]` prints what went wrong with the seed that repeats it, and how many files were tried.
import { gzipSync, zipSync } from 'fflate'
import { readdirSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { fileURLToPath } from 'node:url'
import { demo } from '@feuillet/core/demo'
import { drawingsIn, readDrawing, readDxf, readSvg } from '@feuillet/core/io/read'
import { writeDxf } from '@feuillet/core/io/write'
import { loadGeometry, regionArea } from '@feuillet/core/base/geometry'
import { intake } from '@feuillet/core/stages/layers'
import { glyphOutlines, readFont } from '@feuillet/core/stages/layers/makers'
import { readProject, writeProject } from '@feuillet/core/project'
import { BadInput, seededRandom } from '@feuillet/core/base'
import { paperRuns, readInstance } from '@feuillet/core/stages/sheets'

const SLOW_MS = 5000

await loadGeometry()
const seconds = Number(process.argv[2] ?? 60)
const first = Number(process.argv[3] ?? 1)
const folder = fileURLToPath(new URL('../core/test/drawings/', import.meta.url))
const latin = (text: string) => Uint8Array.from(Buffer.from(text, 'utf8'))
const piece = paperRuns(demo('bon-voyage'))[0]!.instance.pieces[0]!
const fontFile = createRequire(import.meta.url).resolve(
  '@expo-google-fonts/righteous/400Regular/Righteous_400Regular.ttf',
)

/** Outlines alone, some within others, some parted into lines. */
const outlines = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 90"><g fill="none" stroke="#000" stroke-width="0.2">${[
  'M0 0h40v40h-40z',
  'M5 5h20v20h-20z',
  'M40 0h40v40h-40z',
  'M0 50h30',
  'M30 50v30',
  'M30 80h-30',
  'M0 80v-30',
  'M50 50a15 15 0 1 0 30 0a15 15 0 1 0 -30 0z',
  'M60 50a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z',
]
  .map((d) => `<path d="${d}"/>`)
  .join('')}</g></svg>`

const readers: { name: string; good: Uint8Array[]; read: (bytes: Uint8Array) => void }[] = [
  {
    name: 'svg',
    good: [
      ...readdirSync(folder).map((file) => new Uint8Array(readFileSync(folder + file))),
      latin(outlines),
    ],
    read: (bytes) => {
      for (const layer of intake(readSvg(bytes)).layers)
        if (layer.pieces.length === 0) throw new Error('a layer without pieces')
    },
  },
  {
    name: 'outlines',
    good: [latin(outlines)],
    read: (bytes) => void intake(readSvg(bytes)),
  },
  {
    name: 'zip',
    good: [zipSync({ 'a/1.svg': latin(outlines), 'a/1.png': latin('x'), 'b.dxf': latin('0\nEOF\n') })],
    read: (bytes) => {
      for (const { name, bytes: own } of drawingsIn(bytes)) readDrawing(name, own)
    },
  },
  {
    name: 'svgz',
    good: [gzipSync(latin(outlines))],
    read: (bytes) => void readDrawing('a.svgz', bytes),
  },
  {
    name: 'dxf',
    good: [
      latin(
        writeDxf({
          title: 't',
          widthMm: 200,
          heightMm: 200,
          pieces: [{ layerName: 'a', folio: '1', shape: piece.shape, lines: [] }],
          ways: [],
        }),
      ),
    ],
    read: (bytes) => {
      for (const { region } of readDxf(new TextDecoder().decode(bytes)).shapes)
        if (!(regionArea(region) > 0)) throw new Error('a shape without area')
    },
  },
  {
    name: 'project',
    good: [latin(writeProject(demo('bon-voyage')))],
    read: (bytes) => void readProject(new TextDecoder().decode(bytes)),
  },
  {
    name: 'instance',
    good: [latin(JSON.stringify({ sheet: { w: 300, h: 300, margin: 5 }, gap: 2, pieces: [{ id: 'a', outer: [[0, 0], [50, 0], [50, 50]], qty: 3 }] }))], // prettier-ignore
    read: (bytes) => void readInstance(new TextDecoder().decode(bytes)),
  },
  {
    name: 'font',
    good: [new Uint8Array(readFileSync(fontFile))],
    read: (bytes) => void glyphOutlines(readFont(bytes), 'Harbour'),
  },
]

const tokens = [
  'NaN',
  '1e999',
  '-',
  '"',
  '<',
  '>',
  '&',
  '#',
  '0',
  '\n',
  '\0',
  'z',
  '{',
  '}',
  ']',
  'url(#a)',
  'matrix(0 0 0 0 0 0)',
  '999999999999',
  'EOF',
  '﻿',
].map(latin)

function damaged(bytes: Uint8Array, random: () => number): Uint8Array {
  let out = bytes
  for (let k = 1 + Math.floor(random() * 5); k > 0; k--) {
    const at = Math.floor(random() * out.length)
    const kind = random()
    const cut = kind < 0.3 ? Math.floor(random() * 40) : 0
    const add =
      kind < 0.15
        ? new Uint8Array()
        : kind < 0.8
          ? tokens[Math.floor(random() * tokens.length)]!
          : Uint8Array.of(Math.floor(random() * 256))
    if (kind > 0.97) out = out.slice(0, at)
    else
      out = Uint8Array.from([
        ...out.subarray(0, at),
        ...add,
        ...out.subarray(Math.min(out.length, at + cut + (kind >= 0.8 ? 1 : 0))),
      ])
  }
  return out
}

let tried = 0
let bad = 0
const start = performance.now()
for (let seed = first; performance.now() - start < seconds * 1000; seed++) {
  const random = seededRandom(seed)
  const reader = readers[seed % readers.length]!
  const bytes = damaged(reader.good[Math.floor(random() * reader.good.length)]!, random)
  const began = performance.now()
  let trouble = ''
  try {
    reader.read(bytes)
  } catch (error) {
    if (!(error instanceof BadInput))
      trouble =
        error instanceof Error
          ? (error.stack ?? error.message).split('\n').slice(0, 4).join(' | ')
          : String(error)
    else if (error.message.includes('\n') || error.message.length > 400)
      trouble = `not one line: ${error.message}`
  }
  const ms = performance.now() - began
  if (ms > SLOW_MS) trouble ||= `took ${ms.toFixed(0)} ms`
  tried++
  if (trouble) {
    bad++
    console.log(`${reader.name}, seed ${seed}: ${trouble}`)
  }
}
console.log(`${tried} damaged files in ${seconds} s: ${bad} read wrongly`)
