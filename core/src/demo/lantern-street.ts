import { ellipse, rectangle, subtract } from '../base/geometry'
import {
  addLayers,
  newProject,
  sceneRecipeSchema,
  setPlan,
  starterMount,
  type Layer,
  type Project,
} from '../project'
import { makeLayer } from '../stages/layers'
import { makeLayers } from '../stages/layers/makers'
import { stageSet } from './shapes'
import { withPapers } from './with-papers'

/** Vellum for the sky comes in sheets hardly larger. */
const SIZE = 190
const DEPTH_MM = 46

/** A row of houses on the floor of the frame. */
function row(id: string, name: string, more: object): Layer {
  const recipe = sceneRecipeSchema.parse({
    kind: 'scene',
    frameWidthMm: SIZE,
    frameHeightMm: SIZE,
    frameDepthMm: DEPTH_MM,
    thicknessMm: 0.35,
    gsm: 270,
    ...more,
  })
  return { ...makeLayers(recipe).layers[0]!, id, name }
}

/** Lantern street: two rows of houses that stand in a deep frame before a pale sky, lit from behind. Needs the geometry loaded. */
export function lanternStreet(): Project {
  const foam = (gapMm: number) => ({ joint: { kind: 'foam' as const, gapMm, pinned: false } })
  const sky = makeLayer({ id: 'sky', name: 'Sky that glows' }, [rectangle([0, 0], SIZE, SIZE)], {
    role: 'backing',
    numbered: false,
    joint: { kind: 'glue', gapMm: 0, pinned: false },
  })
  const moon = makeLayer({ id: 'moon', name: 'Night with a moon' }, subtract([rectangle([0, 0], SIZE, SIZE)], [ellipse([142, 56], 17)]), { numbered: false, ...foam(2) }) // prettier-ignore
  const project = addLayers(
    newProject('demo-lantern-street', 'Lantern street', {
      ...starterMount('frame'),
      spacer: { widthMm: SIZE, heightMm: SIZE },
      opening: { widthMm: SIZE - 14, heightMm: SIZE - 14 },
      depthMm: DEPTH_MM,
    }),
    [
      sky,
      moon,
      makeLayer({ id: 'arch', name: 'Archway' }, stageSet({ size: SIZE, inset: 16, head: 60 }), {
        numbered: false,
        ...foam(3),
      }),
      row('far-row', 'Far row', { seed: 4, widthMm: 166, heightMm: 105, barMm: 8, fromPaneMm: 30 }),
      row('near-row', 'Near row', { seed: 9, widthMm: 166, heightMm: 70, barMm: 8, fromPaneMm: 14 }),
    ],
  )
  return setPlan(withPapers(project, ['Sea mist', 'Sea holly', 'Deep harbour', 'Night tide', 'Tar']), {
    litFromBehind: true,
    alignment: 'one-edge',
  })
}
