/**
 * Makers: layers grown from less – a silhouette, words, a picture, a petal, or nothing but numbers. Each takes a recipe
 * (kept in the project, so that it can be adjusted later) and gives layers back to front, or says in one sentence why a
 * setting is not possible.
 */
import { type Recipe } from '../../../project'
import { BadInput } from '../../../base'
import { asRefusal } from './beyond'
import type { Font } from './font'
import { makeLadder } from './ladder'
import { makeLettering, type Fonts } from './lettering'
import type { Made } from './made'
import { makeGarland } from './garland'
import { makeMandala } from './mandala'
import { makeRosette } from './rosette'
import { makeScene } from './scene'
import { makeOrnaments } from './scene-ornaments'
import { makeTones } from './tones'
import { makeWindow } from './window'
import { makeWings } from './wings'

export { glyphsOf as glyphOutlines, outlineWords, readFont, shapesOf, type Font } from './font'
export { ladderStep, stepsThatFit } from './ladder'
export { bestThresholds, coloursOf, fromBase64, greysOf, histogramOf, thresholdsOf, toBase64 } from './tones'
export { flagColours, scallops, twineOf, type Twine } from './garland'
export { standsMm } from './scene'
export { rolledDiameter, stripLength } from './rosette'
export { bridgeFaces, closestPoints, stripRegion, type Strip } from './bridge'
export { grow, growAgain, withMadePapers } from './grow'
export type { Made } from './made'

/**
 * Layers of any recipe. Lettering needs its font, and those of lines and letters that differ by their names. Throws BadInput with one
 * sentence. Needs the geometry loaded.
 */
export function makeLayers(recipe: Recipe, font?: Font, fonts?: Fonts): Made {
  try {
    const made = layersOf(recipe, font, fonts)
    // A border or a band may come to nothing.
    const layers = made.layers.filter(({ pieces }) => pieces.length > 0)
    if (layers.length === 0) throw new BadInput('these settings leave no card at all')
    return layers.length === made.layers.length ? made : { ...made, layers }
  } catch (error) {
    throw asRefusal(error)
  }
}

function layersOf(recipe: Recipe, font?: Font, fonts?: Fonts): Made {
  switch (recipe.kind) {
    case 'ladder':
      return makeLadder(recipe)
    case 'lettering':
      if (!font) throw new BadInput('the font of these words is not at hand: choose one')
      return makeLettering(recipe, font, fonts)
    case 'tones':
      return makeTones(recipe)
    case 'rosette':
      return makeRosette(recipe)
    case 'mandala':
      return makeMandala(recipe)
    case 'garland':
      return makeGarland(recipe, font)
    case 'wings':
      return makeWings(recipe)
    case 'scene':
      return recipe.hold === 'adorns' ? makeOrnaments(recipe) : makeScene(recipe)
    case 'window':
      return makeWindow(recipe)
  }
}
