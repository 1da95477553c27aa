import { rectangle, subtract, union, type Polygon } from '../base/geometry'
import { makeLayer } from '../stages/layers'
import { newProject, starterMount, type Project } from '../project'
import { ground, poly, stageSet, type Points } from './shapes'
import { withPapers } from './with-papers'

const SIZE = 200

/** A line of waves across the sheet: crests of uneven height, seeded by the phase. */
function waves({
  y,
  height,
  length,
  phase,
}: {
  y: number
  height: number
  length: number
  phase: number
}): Polygon[] {
  const points: [number, number][] = []
  for (let x = -length; x <= SIZE + length; x += length / 2) {
    const k = Math.round(x / (length / 2))
    const swell = Math.sin(phase + k * 1.7) * 0.35 + 1
    points.push([x, y + (k % 2 === 0 ? -height : height) * 0.5 * swell])
  }
  return ground(points, SIZE, SIZE)
}

const hills: Points = [
  [-10, 122],
  [20, 112],
  [52, 104],
  [84, 113],
  [112, 108],
  [146, 116],
  [176, 105],
  [210, 112],
]
const headland: Points = [
  [-10, 138],
  [30, 131],
  [64, 128],
  [96, 132],
  [124, 126],
  [140, 117],
  [158, 116],
  [178, 124],
  [210, 130],
]

function lighthouse(): Polygon[] {
  const tower = poly([
    [139, 124],
    [143.5, 70],
    [156.5, 70],
    [161, 124],
  ])
  const gallery = [rectangle([138.5, 65], 23, 5)]
  const lamp = subtract([rectangle([143, 51], 14, 15)], [rectangle([146.8, 55], 6.4, 7)])
  const roof = poly([
    [140.5, 51.5],
    [150, 41],
    [159.5, 51.5],
  ])
  return union(tower, gallery, lamp, roof)
}

function boat(): Polygon[] {
  const hull = poly([
    [80, 150],
    [122, 149],
    [115, 164],
    [88, 165],
  ])
  const mast = [rectangle([99, 96], 2.6, 56)]
  const main = poly([
    [101, 98],
    [123, 145],
    [101, 145],
  ])
  return union(hull, mast, main)
}

/** The jib is cut on its own: a loose bit to keep when weeding. */
const jib = (): Polygon[] =>
  poly([
    [97, 104],
    [97, 146],
    [80, 146],
  ])

function pier(): Polygon[] {
  const deck = [rectangle([14, 158], 74, 4.5)]
  const posts = [24, 44, 64, 82].map((x) => [rectangle([x, 158], 3.4, 34)])
  const rails = [rectangle([14, 149], 66, 2.4)]
  const stanchions = [18, 34, 50, 66, 77.6].map((x) => [rectangle([x, 149], 2.4, 11)])
  return union(deck, ...posts, rails, ...stanchions)
}

/** Harbour at dusk: a shadow box of eight layers in a 200 mm frame. Needs the geometry loaded. */
export function harbour(): Project {
  const foam = (gapMm: number) => ({ joint: { kind: 'foam' as const, gapMm, pinned: false } })
  const layers = [
    makeLayer({ id: 'sky', name: 'Sky' }, [rectangle([0, 0], SIZE, SIZE)], {
      role: 'backing',
      joint: { kind: 'glue', gapMm: 0, pinned: false },
      numbered: false,
    }),
    makeLayer(
      { id: 'far-hills', name: 'Far hills' },
      stageSet({ size: SIZE, inset: 31, head: 40 }, ground(hills, SIZE, SIZE)),
      foam(2),
    ),
    makeLayer(
      { id: 'headland', name: 'Headland light' },
      stageSet({ size: SIZE, inset: 28, head: 42 }, ground(headland, SIZE, SIZE), lighthouse()),
      foam(3),
    ),
    makeLayer(
      { id: 'open-sea', name: 'Open sea' },
      stageSet({ size: SIZE, inset: 25, head: 44 }, waves({ y: 144, height: 6, length: 36, phase: 0.4 })),
      foam(2),
    ),
    makeLayer(
      { id: 'swell', name: 'Swell' },
      [
        ...stageSet(
          { size: SIZE, inset: 22, head: 46 },
          waves({ y: 158, height: 8, length: 44, phase: 2.1 }),
          boat(),
        ),
        ...jib(),
      ],
      foam(2),
    ),
    makeLayer(
      { id: 'near-waves', name: 'Near waves' },
      stageSet({ size: SIZE, inset: 19, head: 48 }, waves({ y: 171, height: 8, length: 52, phase: 4.2 })),
      foam(2),
    ),
    makeLayer(
      { id: 'pier', name: 'Pier' },
      stageSet(
        { size: SIZE, inset: 16, head: 50 },
        waves({ y: 184, height: 4, length: 60, phase: 1.2 }),
        pier(),
      ),
      foam(2),
    ),
    makeLayer({ id: 'front-border', name: 'Front border' }, stageSet({ size: SIZE, inset: 13, head: 52 }), {
      role: 'border',
      numbered: false,
      ...foam(2),
    }),
  ]
  const papers = [
    'Shell',
    'Rose hip',
    'Heather dusk',
    'Sea holly',
    'Harbour blue',
    'Deep harbour',
    'Night tide',
    'Oyster',
  ]
  return withPapers(
    { ...newProject('demo-harbour', 'Harbour at dusk', starterMount('frame')), layers },
    papers,
  )
}
