import { describe, expect, it } from 'vitest'
import { demo } from '@feuillet/core/demo'
import { makeLayers } from '@feuillet/core/stages/layers/makers'
import {
  layerRegion,
  newProject,
  recipeSchema,
  starterMount,
  type Project,
  type RecipeKind,
} from '@feuillet/core/project'
import { boxWidth, pathToRegion, regionArea, regionBox } from '@feuillet/core/base/geometry'
import { makerNames, startRecipe, tonesOf } from './start'

const empty = (kind: 'frame' | 'card' | 'topper'): Project => newProject('p', 'New', starterMount(kind))

describe('what makers start from', () => {
  it.each(['frame', 'card', 'topper'] as const)('can be made at once in a new %s, and fits it', (kind) => {
    const project = empty(kind)
    for (const maker of ['rosette', 'mandala'] as const) {
      const recipe = startRecipe(maker, project, undefined)!
      expect(recipeSchema.parse(recipe)).toEqual(recipe)
      const made = makeLayers(recipe)
      const { mount } = project
      const room =
        mount.kind === 'frame' ? mount.opening.widthMm : mount.kind === 'card' ? mount.panel.widthMm : 300
      expect(
        Math.max(...made.layers.map((layer) => boxWidth(regionBox(layerRegion(layer))))),
      ).toBeLessThanOrEqual(room)
    }
    expect(startRecipe('lettering', project, undefined)).toMatchObject({
      kind: 'lettering',
      sheetWidthMm: mountWidth(project),
    })
  })

  it('is the picked layer for a ladder, on sheets of the measured size; nothing without one', () => {
    const project = demo('harbour')
    const pier = project.layers.find((layer) => layer.id === 'pier')!
    const recipe = startRecipe('ladder', project, pier)
    expect(recipe).toMatchObject({ kind: 'ladder', sheetWidthMm: 200, sheetHeightMm: 200 })
    expect(regionArea(pathToRegion((recipe as { shape: string }).shape))).toBeCloseTo(
      regionArea(layerRegion(pier)),
      3,
    )
    expect(startRecipe('ladder', project, undefined)).toBeNull()
    expect(startRecipe('ladder', project, { ...pier, pieces: [] })).toBeNull()
    expect(startRecipe('tones', project, pier)).toBeNull()
  })

  it('is a photo as large as the backing lets it be, proportions kept', () => {
    const wide = tonesOf({ greys: 'AAAA', pixelsWide: 400, pixelsHigh: 200 }, empty('frame'))
    const tall = tonesOf({ greys: 'AAAA', pixelsWide: 200, pixelsHigh: 400 }, empty('frame'))
    expect(wide).toMatchObject({ widthMm: mountWidth(empty('frame')) })
    expect(tall).toMatchObject({ widthMm: mountWidth(empty('frame')) / 2 })
  })

  it('has a title and a line for each', () => {
    for (const kind of ['ladder', 'lettering', 'tones', 'rosette', 'mandala'] satisfies RecipeKind[]) {
      expect(makerNames[kind].title).toMatch(/^[A-Z]/)
      expect(makerNames[kind].words).not.toMatch(/\.$/)
    }
  })
})

const mountWidth = ({ mount }: Project) =>
  mount.kind === 'frame' ? mount.spacer.widthMm : mount.kind === 'card' ? mount.panel.widthMm : 165
