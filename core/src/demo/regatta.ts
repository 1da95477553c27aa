import { garlandRecipeSchema, newProject, setPlan, starterMount, type Project } from '../project'
import { grow, makeLayers } from '../stages/layers/makers'
import { withPapers } from './with-papers'

/** Regatta: a garland of nine swallowtail flags, mirrored in their colours about the middle. Needs the geometry loaded. */
export function regatta(): Project {
  const recipe = garlandRecipeSchema.parse({
    kind: 'garland',
    shape: 'swallowtail',
    flags: 9,
    flagWidthMm: 90,
    flagHeightMm: 115,
    gapMm: 15,
    endsMm: 350,
    order: 'mirrored',
    fixing: 'flap',
    colours: ['#2f426f', '#fbfaf5', '#c9463d', '#eebd3e', '#2f7682'],
  })
  const { flags, gapMm, endsMm } = recipe
  const project = grow(
    newProject('demo-regatta', 'Regatta', { ...starterMount('garland'), flags, gapMm, endsMm }),
    'demo-garland',
    { recipe, made: makeLayers(recipe) },
  )
  return setPlan(withPapers(project, ['Deep harbour', 'Chalk', 'Buoy', 'Gorse', 'Deep channel']), {
    alignment: 'by-eye',
    adhesiveId: 'glue-hot',
  })
}
