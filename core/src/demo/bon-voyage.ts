import {
  mapRegion,
  offset,
  polygonArea,
  rectangle,
  regionBox,
  scaleRegion,
  smoothLine,
  strokeRegion,
  translation,
  union,
  type Polygon,
  type Region,
} from '../base/geometry'
import { makeLayer } from '../stages/layers'
import { newProject, setPlan, starterMount, type Project } from '../project'
import { poly, type Points } from './shapes'
import { withPapers } from './with-papers'

/** Pen strokes of a letter; 10 units are the height of an x, y runs down, the baseline is 0. */
interface Letter {
  width: number
  strokes: readonly Points[]
}

const bowl: Points = [
  [9.6, -5],
  [8.2, -1.5],
  [5, 0],
  [1.7, -1.4],
  [0.4, -5],
  [1.7, -8.6],
  [5, -10],
  [8.2, -8.5],
  [9.6, -5],
]

const letters: Record<string, Letter> = {
  b: {
    width: 9.6,
    strokes: [
      [
        [0.8, -16],
        [0.8, -1],
      ],
      [
        [0.8, -6],
        [2.8, -9.2],
        [5.6, -10],
        [8.6, -8.2],
        [9.6, -5],
        [8.4, -1.6],
        [5.4, 0],
        [2.6, -0.8],
        [0.8, -3],
      ],
    ],
  },
  o: { width: 9.8, strokes: [bowl] },
  n: {
    width: 9.4,
    strokes: [
      [
        [0.8, -10],
        [0.8, 0],
      ],
      [
        [0.8, -6.4],
        [2.6, -9],
        [5.2, -10],
        [8, -8.8],
        [9, -6],
        [9, 0],
      ],
    ],
  },
  v: {
    width: 9.6,
    strokes: [
      [
        [0.4, -10],
        [5, 0],
        [9.4, -10],
      ],
    ],
  },
  y: {
    width: 9.6,
    strokes: [
      [
        [0.4, -10],
        [5, -0.5],
      ],
      [
        [9.4, -10],
        [5, -0.5],
        [3.2, 3.6],
        [0.6, 5.4],
      ],
    ],
  },
  a: {
    width: 10.2,
    strokes: [
      bowl,
      [
        [9.6, -10],
        [9.6, 0],
      ],
    ],
  },
  g: {
    width: 10.2,
    strokes: [
      bowl,
      [
        [9.6, -10],
        [9.6, 1.6],
        [8, 4.8],
        [5, 6],
        [1.6, 4.8],
      ],
    ],
  },
  e: {
    width: 9.6,
    strokes: [
      [
        [0.8, -5.4],
        [9.2, -5.4],
        [8.6, -8.2],
        [5.4, -10],
        [1.8, -8.6],
        [0.4, -5],
        [1.8, -1.4],
        [5.4, 0],
        [8.8, -1.6],
      ],
    ],
  },
}

const PEN = 2.7
const SPACE = 15
const TIGHT = 1.1

function words(text: string): { region: Polygon[]; gapAt: number; width: number } {
  const lines: { points: Float64Array; closed: boolean }[] = []
  let x = 0
  let gapAt = 0
  for (const sign of text) {
    if (sign === ' ') {
      gapAt = x + SPACE / 2
      x += SPACE
      continue
    }
    const letter = letters[sign]!
    for (const stroke of letter.strokes) {
      const moved = stroke.map(([px, py]) => [px + x, py] as const)
      // Straight strokes stay straight: a smooth line through two or three points would bulge.
      const straight = stroke.length <= 3
      lines.push({ points: straight ? Float64Array.from(moved.flat()) : smoothLine(moved), closed: false })
    }
    x += letter.width + TIGHT
  }
  const wave: [number, number][] = []
  for (let k = 0; k * 5 <= x + 6; k++) wave.push([k * 5 - 3, 1.2 + (k % 2 === 0 ? 0.55 : -0.55)])
  lines.push({ points: smoothLine(wave), closed: false })
  return { region: strokeRegion(lines, { widthMm: PEN, cap: 'round', join: 'round' }), gapAt, width: x }
}

function boat(x: number): Polygon[] {
  const hull = poly([
    [x - 6.5, -4.6],
    [x + 6.5, -4.6],
    [x + 4.2, -0.6],
    [x - 4.4, -0.6],
  ])
  const mast = [rectangle([x - 0.6, -16.5], 1.2, 12.4)]
  const sail = poly([
    [x + 0.2, -16],
    [x + 6, -6.2],
    [x + 0.2, -6.2],
  ])
  const jib = poly([
    [x - 0.2, -14],
    [x - 0.2, -6.2],
    [x - 4.6, -6.2],
  ])
  return union(hull, mast, sail, jib)
}

/** Fills holes smaller than an area, as a backing should have no pin-holes. */
const withoutPinholes = (region: Region, mm2: number): Polygon[] =>
  region.map((face) => ({
    outer: face.outer,
    holes: face.holes.filter((hole) => -polygonArea({ outer: hole, holes: [] }) >= mm2),
  }))

/** Bon voyage: a joined-word cake topper with an offset backing and a small boat. The letters are drawn here as the way of one round pen; a wave under the words joins them into one piece. Needs the geometry loaded. */
export function bonVoyage(): Project {
  const WIDTH = 150
  const { region, gapAt } = words('bon voyage')
  const BACKING_MM = 3.5
  const raw = regionBox(region)
  const scale = (WIDTH - 2 * BACKING_MM) / (raw.maxX - raw.minX)
  const place = (r: Region): Polygon[] =>
    mapRegion(translation(BACKING_MM - raw.minX * scale, 30), scaleRegion(r, scale))
  const word = place(region)
  const ship = place(boat(gapAt - 1))
  const backing = withoutPinholes(offset(union(word, ship), BACKING_MM), 60)
  const top = regionBox(backing).minY
  const lift = (r: Region): Polygon[] => mapRegion(translation(0, -top), r)
  const layers = [
    makeLayer({ id: 'backing', name: 'Backing' }, lift(backing), {
      role: 'backing',
      numbered: true,
      joint: { kind: 'glue', gapMm: 0, pinned: false },
    }),
    makeLayer({ id: 'words', name: 'Words' }, lift(word), {
      role: 'overlay',
      numbered: false,
      joint: { kind: 'glue', gapMm: 0, pinned: false },
    }),
    makeLayer({ id: 'boat', name: 'Small boat' }, lift(ship), {
      role: 'accent',
      numbered: false,
      optional: true,
      joint: { kind: 'glue', gapMm: 0, pinned: false },
    }),
  ]
  const project = {
    ...newProject('demo-bon-voyage', 'Bon voyage', { ...starterMount('topper'), depthMm: 3 }),
    layers,
  }
  return setPlan(withPapers(project, ['Deep channel', 'Chalk', 'Buoy']), {
    alignment: 'by-eye',
    turns: 'free',
    adhesiveId: 'glue-solvent',
    padMarginMm: 0.5,
  })
}
