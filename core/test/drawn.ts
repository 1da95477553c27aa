// Drawings made by chance, as makers bring them in: sheets with openings, hills, shapes strewn about, some of them past the page.
import { intake, takeIn } from '@feuillet/core/stages/layers'
import { readSvg } from '@feuillet/core/io/read'
import { newProject, starterMount, type MountKind, type Project } from '@feuillet/core/project'

const COLOURS = ['#f4efe6', '#2b3a4a', '#c94f3d', '#e8b33f', '#5b8c6e', '#8fb8c9']

type Random = () => number

/** A rough ring of corners round a place, as path data. */
function blob(random: Random, [x, y]: [number, number], radius: number): string {
  const n = 5 + Math.floor(random() * 6)
  const corners = Array.from({ length: n }, (_, k) => {
    const reach = radius * (0.6 + 0.4 * random())
    const angle = (k / n) * 2 * Math.PI
    return `${(x + reach * Math.cos(angle)).toFixed(2)} ${(y + reach * Math.sin(angle)).toFixed(2)}`
  })
  return `M${corners.join('L')}Z`
}

/** Path data of one colour on a page of the given size, mm. */
function shape(random: Random, [w, h]: [number, number]): string {
  const kind = Math.floor(random() * 3)
  const strewn = (most: number, share: number) =>
    Array.from({ length: 1 + Math.floor(random() * most) }, () =>
      blob(random, [w * random(), h * random()], Math.min(w, h) * (0.03 + share * random())),
    ).join('')
  if (kind === 0) return `M0 0H${w}V${h}H0Z${strewn(3, 0.25)}`
  const y = h * (0.2 + 0.6 * random())
  if (kind === 1)
    return `M-4 ${h + 4}V${y}C${w * 0.3} ${y - h * 0.2} ${w * 0.6} ${y + h * 0.2} ${w} ${y}V${h}Z`
  return strewn(5, 0.2)
}

/** A work of up to four colours in a mount, as large as its backing or not; papers are not chosen yet. */
export function drawn(random: Random, kind: MountKind): Project {
  const mount = starterMount(kind)
  const own = mount.kind === 'frame' ? mount.spacer : { widthMm: 150, heightMm: 110 }
  const scale = random() < 0.5 ? 1 : 0.5 + random()
  const size: [number, number] = [Math.round(own.widthMm * scale), Math.round(own.heightMm * scale)]
  const first = Math.floor(random() * COLOURS.length)
  const paths = Array.from({ length: 1 + Math.floor(random() * 4) }, (_, k) => {
    const colour = COLOURS[(first + k) % COLOURS.length]
    return `<path fill="${colour}" fill-rule="evenodd" d="${shape(random, size)}"/>`
  })
  const [w, h] = size
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${paths.join('')}</svg>`
  return takeIn(newProject('drawn', 'Drawn', mount), intake(readSvg(svg)))
}
