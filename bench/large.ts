// A large stack of our own making, for measuring: full sheets with wavy openings, as many corners as asked for.
import { newProject, starterMount, type Layer, type Project } from '@feuillet/core/project'
import { assignNearest, starterStock } from '@feuillet/core/stages/paper'

/** Papers of which a full sheet of the frame can be cut. */
export const benchStock = starterStock().filter((paper) => Math.min(paper.widthMm, paper.heightMm) > 300)

export function largeStack(layers = 50, corners = 200_000): Project {
  const holes = 4
  const perHole = Math.floor((corners / layers - 4) / holes)
  const list = Array.from({ length: layers }, (_, i): Layer => {
    const radius = 12 + 24 * (i / layers)
    const rings = Array.from({ length: holes }, (_, h) => {
      const [cx, cy] = [55 + 90 * (h % 2), 55 + 90 * Math.floor(h / 2)]
      let d = ''
      for (let k = 0; k < perHole; k++) {
        const a = (k / perHole) * Math.PI * 2
        const r = radius + 2.2 * Math.sin(a * (9 + (i % 7)) + i) + 0.5 * Math.sin(a * 61 + h)
        d += `${k ? 'L' : 'M'}${(cx + r * Math.cos(a)).toFixed(3)} ${(cy - r * Math.sin(a)).toFixed(3)}`
      }
      return d + 'Z'
    })
    return {
      id: `layer-${i + 1}`,
      name: `Layer ${i + 1}`,
      role: 'plain',
      pieces: [{ id: 'p1', path: `M0 0L200 0L200 200L0 200Z${rings.join('')}` }],
      folds: [],
      ties: [],
      slits: [],
      lives: 'stack',
      inOne: false,
      cutMirrored: false,
      print: null,
      tint: null,
      blanks: [],
      shaping: { how: 'flat', riseMm: 0, flatMm: 0 },
      colour: `#${(0x303030 + i * 0x030302).toString(16)}`,
      paperId: null,
      joint: { kind: i ? 'foam' : 'glue', gapMm: i ? 1 : 0, pinned: false },
      optional: i % 3 === 0,
      leftOut: false,
      hidden: false,
      copies: 1,
      spares: 0,
      sharing: 'any',
      numbered: null,
      assemblyId: null,
    }
  })
  const mount = { ...starterMount('frame'), depthMm: 90 } as Project['mount']
  return assignNearest(
    { ...newProject('large', 'Large', mount), layers: list },
    list.map((layer) => layer.id),
    benchStock,
  )
}
