import { compose, ellipse, mapPoint, rotation, subtract, translation, type Affine } from '../base/geometry'
import {
  addLayers,
  layerRegion,
  newProject,
  rosetteRecipeSchema,
  setPlan,
  starterMount,
  transformLayers,
  type Layer,
  type Project,
} from '../project'
import { makeLayer } from '../stages/layers'
import { makeLayers } from '../stages/layers/makers'
import { withPapers } from './with-papers'

const SIZE = 220
const MIDDLE = SIZE / 2
/** Blossoms sit on a circle of this radius. */
const WREATH = 68

/** A place on the wreath, turned so that no two blossoms look alike. */
const place = (deg: number, acrossMm: number): Affine => {
  const { x, y } = pointAt(WREATH, deg)
  return compose(translation(x, y), compose(rotation(deg * 0.7), translation(-acrossMm / 2, -acrossMm / 2)))
}

/** A point at a radius and an angle about the middle of the panel. */
const pointAt = (radius: number, deg: number) => {
  const [x, y] = mapPoint(compose(translation(MIDDLE, MIDDLE), rotation(deg)), radius, 0)
  return { x, y }
}

/** One blossom at several places: each of its rings is a layer with a piece at every place. */
function blossoms(
  name: string,
  acrossMm: number,
  { more, degs }: { more: object; degs: readonly number[] },
): Layer[] {
  const recipe = rosetteRecipeSchema.parse({ kind: 'rosette', diameterMm: acrossMm, leaves: 0, ...more })
  const { layers } = makeLayers(recipe)
  const blank = newProject('made', 'Made', { kind: 'free' })
  const placed = degs.map((deg) => transformLayers({ ...blank, layers }, place(deg, acrossMm)).layers)
  return layers.map((layer, k): Layer => {
    const own = placed.map((list) => list[k]!)
    const named = (key: 'pieces' | 'blanks') =>
      own.flatMap((one, n) => one[key].map((piece) => ({ ...piece, id: `${piece.id}-${n + 1}` })))
    return {
      ...layer,
      id: `${name}-${layer.id}`,
      name: `${name === 'large' ? 'Large' : 'Small'} ${layer.name.toLowerCase()}`,
      pieces: named('pieces'),
      blanks: named('blanks'),
      folds: own.flatMap((one) => one.folds),
      slits: own.flatMap((one) => one.slits),
    }
  })
}

/** A leaf whose fold runs on from its tip to its other end: no one flower keeps that flat. */
function foldedAlong(leaf: Layer): Layer {
  const [tipX, tipY] = leaf.folds[0]!.line
  const { outer } = layerRegion(leaf)[0]!
  const ends = Array.from({ length: outer.length / 2 }, (_, i) => [outer[2 * i]!, outer[2 * i + 1]!] as const)
  const far = ([x, y]: readonly [number, number]) => Math.hypot(x - tipX, y - tipY)
  const [x, y] = ends.toSorted((a, b) => far(b) - far(a))[0]!
  return { ...leaf, folds: [{ ...leaf.folds[0]!, line: [x, y, tipX, tipY] }] }
}

/** Leaves in pairs between the blossoms, folded along their middle. */
function leaves(): Layer {
  const recipe = rosetteRecipeSchema.parse({
    kind: 'rosette',
    diameterMm: 70,
    leaves: 1,
    centreMm: 0,
    sizes: 1,
  })
  const leaf = foldedAlong(makeLayers(recipe).layers[0]!)
  const blank = newProject('made', 'Made', { kind: 'free' })
  const at = [20, 74, 128, 180, 232, 284, 338].map((deg, i) =>
    compose(
      translation(pointAt(WREATH - 6, deg).x, pointAt(WREATH - 6, deg).y),
      compose(rotation(deg + (i % 2 ? 200 : -20)), translation(-62, -45)),
    ),
  )
  const placed = at.map((map) => transformLayers({ ...blank, layers: [leaf] }, map).layers[0]!)
  return {
    ...leaf,
    pieces: placed.flatMap((one, n) => one.pieces.map((piece) => ({ ...piece, id: `leaf-${n + 1}` }))),
    folds: placed.flatMap((one) => one.folds),
  }
}

/** Dune garden: a wreath of three large and four small blossoms with leaves, on a round of card upon a wooden panel. Needs the geometry loaded. */
export function duneGarden(): Project {
  const round = makeLayer(
    { id: 'round', name: 'Round of sand' },
    subtract([ellipse([MIDDLE, MIDDLE], 104)], [ellipse([MIDDLE, MIDDLE], 34)]),
    {
      role: 'backing',
      numbered: false,
      joint: { kind: 'glue', gapMm: 0, pinned: false },
    },
  )
  const project = addLayers(
    newProject('demo-dune-garden', 'Dune garden', {
      ...starterMount('panel'),
      panel: { widthMm: SIZE, heightMm: SIZE },
      surface: 'wood',
    }),
    [
      round,
      leaves(),
      ...blossoms('small', 38, { more: { sizes: 2, fall: 'step', stepMm: 9, petals: 5, curlMm: 4, centreMm: 7, fringeMm: 6, petal: 'heart' }, degs: [48, 150, 206, 312] }), // prettier-ignore
      ...blossoms('large', 62, { more: { sizes: 3, fall: 'step', stepMm: 13, petals: 6, curlMm: 7, centreMm: 11, fringeMm: 8 }, degs: [0, 102, 258] }), // prettier-ignore
    ],
  )
  return setPlan(
    withPapers(project, [
      ...['Sandbar', 'Samphire'],
      ...['Gorse', 'Lifeboat', 'Gorse', 'Lifeboat', 'Driftwood'],
      ...['Rose hip', 'Shell', 'Rose hip', 'Shell', 'Rose hip', 'Oyster', 'Gorse'],
    ]),
    { alignment: 'by-eye', adhesiveId: 'glue-hot', turns: 'free' },
  )
}
