// A fixed sample of public-domain drawings that nobody here drew (metadata taken out), against an independent renderer.
// The whole corpus is measured in bench/fidelity.ts.
import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { readSvg } from '@feuillet/core/io/read'
import { regionToPath } from '@feuillet/core/base/geometry'
import { intake } from '@feuillet/core/stages/layers'
import { layerRegion } from '@feuillet/core/project'

const folder = fileURLToPath(new URL('../../core/test/drawings/', import.meta.url))
const SIZE = 400

const render = (svg: string) =>
  new Resvg(svg, { background: 'white', fitTo: { mode: 'width', value: SIZE } }).render()

describe('drawings from elsewhere', () => {
  it.each(readdirSync(folder))('%s: the layers stacked show what it showed', (file) => {
    const text = readFileSync(folder + file, 'utf8')
    const wanted = render(text)
    const { layers, widthMm, heightMm } = intake(readSvg(text, { outlines: 'lines' }))
    const scale = SIZE / widthMm
    const paths = layers.map(
      (layer) => `<path fill="${layer.colour}" fill-rule="evenodd" d="${regionToPath(layerRegion(layer))}"/>`,
    )
    const got = render(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${wanted.height}" viewBox="0 0 ${widthMm} ${wanted.height / scale}">${paths.join('')}</svg>`,
    )
    expect(heightMm * scale).toBeCloseTo(wanted.height, -0.5)
    const [a, b] = [wanted.pixels, got.pixels]
    let wrong = 0
    for (let i = 0; i < a.length; i += 4)
      if (
        Math.max(Math.abs(a[i]! - b[i]!), Math.abs(a[i + 1]! - b[i + 1]!), Math.abs(a[i + 2]! - b[i + 2]!)) >
        64
      )
        wrong++
    expect(wrong / (a.length / 4)).toBeLessThan(0.02)
  })
})
