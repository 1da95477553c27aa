import {
  compose,
  ellipse,
  mapRegion,
  pathToRegion,
  rectangle,
  regionBox,
  rotation,
  subtract,
  translation,
  type Region,
} from '../base/geometry'
import {
  addLayers,
  keepPictures,
  newProject,
  place,
  starterMount,
  windowRecipeSchema,
  wingsRecipeSchema,
  type Picture,
  type Project,
} from '../project'
import { makeLayer } from '../stages/layers'
import { grow, makeLayers } from '../stages/layers/makers'
import { EVENING, NAME } from './kittiwake-art'
import { blob, poly } from './shapes'
import { withPapers } from './with-papers'

const SIZE = 200
const DEPTH_MM = 42
/** Middle of the porthole, and its opening. */
const PORT = { x: 92, y: 92, radius: 46 }
const RING_MM = 11
const BOLTS = 8

const PICTURE: Picture = {
  id: 'picture-evening-at-sea',
  name: 'Evening at sea',
  type: 'image/jpeg',
  data: EVENING,
  pixelsWide: 960,
  pixelsHigh: 960,
}

/** A shape about the middle of a box, moved to a place and turned. */
const putAt = (shape: Region, [x, y]: readonly [number, number], deg = 0) => {
  const b = regionBox(shape)
  const toMiddle = translation(-(b.minX + b.maxX) / 2, -(b.minY + b.maxY) / 2)
  return mapRegion(compose(translation(x, y), compose(rotation(deg), toMiddle)), shape)
}

const glue = { joint: { kind: 'glue' as const, gapMm: 0, pinned: false } }
const foam = (gapMm: number) => ({ joint: { kind: 'foam' as const, gapMm, pinned: false } })

/** Kittiwake: a gull with fold-up wings before a porthole that holds a picture; the boat's name as film on the pane. Needs the geometry loaded. */
export function kittiwake(): Project {
  const hull = makeLayer({ id: 'hull', name: 'Hull' }, [rectangle([0, 0], SIZE, SIZE)], {
    role: 'backing',
    numbered: false,
    ...glue,
  })
  const empty = newProject('demo-kittiwake', 'Kittiwake', {
    ...starterMount('frame'),
    spacer: { widthMm: SIZE, heightMm: SIZE },
    opening: { widthMm: SIZE - 14, heightMm: SIZE - 14 },
    depthMm: DEPTH_MM,
  })
  const recipe = windowRecipeSchema.parse({
    kind: 'window',
    widthMm: 2 * PORT.radius,
    heightMm: 2 * PORT.radius,
    ringMm: RING_MM,
    underMm: 6,
    picture: PICTURE,
  })
  const window = grow(keepPictures(addLayers(empty, [hull]), [PICTURE]), 'porthole', {
    recipe: { ...recipe, picture: { id: PICTURE.id, pixelsWide: 960, pixelsHigh: 960 } },
    made: makeLayers(recipe),
  })
  const ported = place(window, window.grown[0]!.layerIds, translation(PORT.x - SIZE / 2, PORT.y - SIZE / 2))
  const ringMiddle = PORT.radius + RING_MM / 2
  const bolts = Array.from({ length: BOLTS }, (_, i) => {
    const turn = ((i + 0.5) * 2 * Math.PI) / BOLTS
    return ellipse([PORT.x + ringMiddle * Math.cos(turn), PORT.y + ringMiddle * Math.sin(turn)], 3)
  })
  const plate = subtract(
    [rectangle([0, 0], SIZE, SIZE)],
    [ellipse([PORT.x, PORT.y], PORT.radius + RING_MM + 4)],
  )
  const wings = makeLayers(
    wingsRecipeSchema.parse({ kind: 'wings', wing: 'gull', spanMm: 92, heightMm: 42, bodyMm: 9, deg: 25 }),
  ).layers[0]!
  const gullAt = { x: 138, y: 138, deg: -18 }
  const body = blob([[4, 0], [6.6, 4], [7.6, 14], [6.4, 30], [7.4, 44], [4, 42], [0.6, 44], [1.6, 30], [0.4, 14], [1.4, 4]]) // prettier-ignore
  const beak = poly([[0, 6], [1.6, 0], [3.2, 6]]) // prettier-ignore
  // A little above the middle of the wings, so that its head stands out.
  const along = (mm: number) => {
    const turn = (gullAt.deg * Math.PI) / 180
    return [gullAt.x - mm * Math.sin(-turn), gullAt.y - mm * Math.cos(turn)] as const
  }
  const gull = addLayers(ported, [
    makeLayer({ id: 'bolts', name: 'Bolts' }, bolts, { numbered: false, ...glue }),
    makeLayer({ id: 'plate', name: 'Plate round the porthole' }, plate, {
      role: 'border',
      numbered: false,
      ...foam(3),
    }),
  ])
  const flying = addLayers(gull, [{ ...wings, id: 'wings', name: 'Wings', ...foam(2) }])
  const box = regionBox(wings.pieces.flatMap(({ path }) => pathToRegion(path)))
  const placed = place(
    flying,
    ['wings'],
    compose(
      translation(gullAt.x, gullAt.y),
      compose(rotation(gullAt.deg), translation(-(box.minX + box.maxX) / 2, -(box.minY + box.maxY) / 2)),
    ),
  )
  const whole = addLayers(placed, [
    makeLayer({ id: 'body', name: 'Gull' }, putAt(body, along(7), gullAt.deg), {
      numbered: false,
      ...glue,
    }),
    makeLayer({ id: 'beak', name: 'Beak' }, putAt(beak, along(32), gullAt.deg), {
      numbered: false,
      ...glue,
    }),
    makeLayer({ id: 'name', name: 'Name on the pane' }, putAt(pathToRegion(NAME), [74, 172]), {
      role: 'overlay',
      numbered: false,
      lives: 'behind-pane',
      cutMirrored: true,
      joint: { kind: 'none', gapMm: 0, pinned: false },
    }),
  ])
  return withPapers(
    {
      ...whole,
      layers: whole.layers.map((layer) =>
        layer.id === 'window-ring' ? { ...layer, name: 'Brass ring' } : layer,
      ),
    },
    ['Deep channel', 'Print card', 'Clear pane', 'Gorse', 'Wet sand', 'Lagoon', 'Foam crest', 'Chalk', 'Lifeboat', 'Window film'], // prettier-ignore
  )
}
