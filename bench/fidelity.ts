// How true intake is: layers stacked again against an independent renderer (librsvg's rsvg-convert, from Debian's
// librsvg2-bin) on drawings that nobody here drew (a folder of SVG files, such as Debian's openclipart-svg).
// `tsx bench/fidelity.ts FOLDER [every-nth] [list]`; prints the share within 2 % of the pixels at 400 px, and ms per MB, with the
// time that the renderer takes to paint the same files (a start of its program each) as the baseline.
import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Resvg } from '@resvg/resvg-js'
import { readSvg } from '@feuillet/core/io/read'
import { loadGeometry, regionToPath } from '@feuillet/core/base/geometry'
import { intake } from '@feuillet/core/stages/layers'
import { layerRegion } from '@feuillet/core/project'
import { BadInput } from '@feuillet/core/base'
import { PNG } from 'pngjs'

const SIZE = 400
/** A channel may differ by so much before a pixel counts as wrong: edges are smoothed differently. */
const CHANNEL = 64
const SHARE = 0.02

const [folder, nth = '40', list] = process.argv.slice(2)
if (!folder) {
  console.error('usage: tsx bench/fidelity.ts FOLDER [every-nth] [list]')
  process.exit(2)
}

const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.svg'))
  .toSorted()
  .filter((_, i) => i % Number(nth) === 0)

/** The drawing as the independent renderer shows it, on white; null where it shows nothing. */
function reference(file: string): PNG | null {
  const { stdout, status } = spawnSync(
    'rsvg-convert',
    ['-w', String(SIZE), '-h', String(SIZE), '-a', '-b', 'white', file],
    { maxBuffer: 1 << 26 },
  )
  if (status !== 0 || stdout.length === 0) return null
  const png = PNG.sync.read(stdout)
  return png.data.some((v) => v !== 255) ? png : null
}

function stacked(bytes: Uint8Array, width: number, height: number) {
  const taken = intake(readSvg(bytes, { outlines: 'lines' }))
  const paths = taken.layers.map(
    (layer) => `<path fill="${layer.colour}" fill-rule="evenodd" d="${regionToPath(layerRegion(layer))}"/>`,
  )
  // The same scale as the renderer's, which rounds the picture's size up to whole pixels.
  const scale = Math.min(SIZE / taken.widthMm, SIZE / taken.heightMm)
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width / scale} ${height / scale}"><rect width="100%" height="100%" fill="#fff"/>${paths.join('')}</svg>`
  return { pixels: new Resvg(svg).render(), taken }
}

await loadGeometry()
const kinds = { flat: [0, 0], other: [0, 0] } as Record<string, [number, number]>
let ms = 0
let baselineMs = 0
let megabytes = 0
for (const name of files) {
  const file = join(folder, name)
  const begun = performance.now()
  const wanted = reference(file)
  if (!wanted) continue
  baselineMs += performance.now() - begun
  const bytes = readFileSync(file)
  let wrong = 1
  let left: string
  const start = performance.now()
  try {
    const { pixels, taken } = stacked(bytes, wanted.width, wanted.height)
    left = taken.leftOut.map((l) => l.what).join(', ')
    const got = pixels.pixels
    let count = 0
    for (let i = 0; i < wanted.data.length; i += 4)
      if (
        Math.max(
          Math.abs(got[i]! - wanted.data[i]!),
          Math.abs(got[i + 1]! - wanted.data[i + 1]!),
          Math.abs(got[i + 2]! - wanted.data[i + 2]!),
        ) > CHANNEL
      )
        count++
    wrong = count / (wanted.width * wanted.height)
  } catch (error) {
    if (!(error instanceof BadInput)) throw error
    left = error.message
  }
  ms += performance.now() - start
  megabytes += bytes.length / 1e6
  const kind = /gradient|pattern|text|picture|filter|mask|foreign/.test(left) ? 'other' : 'flat'
  kinds[kind]![1]++
  if (wrong <= SHARE) kinds[kind]![0]++
  else if (list)
    console.log(`${(wrong * 100).toFixed(1).padStart(5)} %  ${kind.padEnd(5)} ${name}  (${left})`)
}
const [flat, other] = [kinds['flat']!, kinds['other']!]
const share = ([good, all]: [number, number]) =>
  `${good} of ${all} (${((good / Math.max(1, all)) * 100).toFixed(1)} %)`
console.log(`flat colours only:          ${share(flat)} within ${SHARE * 100} % of the pixels`)
console.log(`with gradients, text, …:    ${share(other)}`)
console.log(`all drawable files:         ${share([flat[0] + other[0], flat[1] + other[1]])}`)
console.log(
  `reading, layering, drawing: ${(ms / megabytes).toFixed(0)} ms per MB; the renderer ${(baselineMs / megabytes).toFixed(0)}, ratio ${(ms / baselineMs).toFixed(2)}`,
)
