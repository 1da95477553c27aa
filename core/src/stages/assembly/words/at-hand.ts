// What is laid ready before work begins: sheets, pads, what the work goes onto, tools, inks, glue.
import { metres, say, sayAll, type Said } from '../../../base/units'
import { builtLayers, glueOf, isPressed, keepsPlaces, stickGlueOf, type Project } from '../../../project'
import { measure } from '../../measure'
import { capital, glueName, lit, plural, type Of, type Words } from './common'

/** All that the steps after it take, in the order in which they ask for it. */
export function layReady(project: Project, { sheets, pads }: Of<'prepare'>): Words {
  const { cutWith, batch, litFromBehind } = project.plan
  const others = new Set([
    ...(cutWith ? [cutWith.name] : []),
    ...project.cutElsewhere.map(({ name }) => name),
  ])
  const card = [
    ...(sheets > 0 || others.size === 0 ? [`${plural(sheets, 'sheet')} in cutting order`] : []),
    ...[...others].map((name) => `the pieces that were cut with “${name}”`),
  ]
  const all: Said[] = [
    capital(card.join(', ')),
    ...(pads > 0 ? [plural(pads, 'foam pad')] : []),
    ...mountAtHand(project),
    ...(litFromBehind ? [batch > 1 ? `${batch} lights` : 'the light'] : []),
    ...toolsAtHand(project),
    ...inksAtHand(project),
    gluesAtHand(project),
  ]
  return { title: 'Lay everything ready', detail: say`${sayAll(all, ', ')}.`, caution: lit(project) }
}

/** Tools for cutting, folding, forming, film and prints, as far as there are any. */
function toolsAtHand(project: Project): string[] {
  const layers = builtLayers(project)
  const forms = new Set(layers.map(({ shaping }) => shaping.how))
  const byHand = project.drawer.cutter.tool === 'knife'
  const folded = layers.some(({ folds }) => folds.length > 0)
  const printed = layers.some(({ print }) => print !== null)
  return [
    'tweezers',
    ...(byHand ? ['a fresh blade', 'a cutting mat', 'a metal ruler'] : ['a weeding pick']),
    ...(folded ? ['a blunt tool to score with'] : []),
    ...((folded || printed) && !byHand ? ['a ruler'] : []),
    ...(forms.has('curl') ? ['a round stick, a ball tool and a soft mat'] : []),
    ...(forms.has('roll') ? ['a thin tool to roll round'] : []),
    ...(layers.some(isPressed) ? ['a heat press or an iron, a thin cloth'] : []),
    ...(layers.some((layer) => keepsPlaces(layer) && !isPressed(layer)) ? ['transfer sheet'] : []),
  ]
}

/** Inks that layers are coloured with, each once. */
function inksAtHand(project: Project): string[] {
  const used = builtLayers(project).flatMap(({ tint }) => (tint ? [tint.inkId, tint.edgeInkId] : []))
  return project.drawer.inks.filter(({ id }) => used.includes(id)).map(({ name }) => `${name} ink`)
}

/** What the work goes onto or into; what carries it is finished before anything is stuck on. */
function mountAtHand(project: Project): Said[] {
  const { mount, plan } = project
  const { batch } = plan
  const some = (one: string, many: string) => [batch > 1 ? `${batch} ${many}` : one]
  switch (mount.kind) {
    case 'frame':
      return some('the frame taken apart', 'frames taken apart')
    case 'panel':
      return mount.surface === 'canvas'
        ? some('the canvas taut on its frame', 'canvases taut on their frames')
        : some('the panel', 'panels')
    case 'card':
      return some('the card', 'cards')
    case 'topper':
      return mount.sticks > 0 ? [plural(mount.sticks * batch, 'stick')] : []
    case 'garland': {
      const { stringMm } = measure(project)
      return [stringMm === null ? 'twine' : say`${metres((batch * stringMm) / 1000)} of twine`]
    }
    case 'free':
      return []
  }
}

/** All glues that the work takes, as they are to be laid ready; the project's where no joint names another. */
function gluesAtHand(project: Project): string {
  const layers = builtLayers(project).filter(({ joint }) => joint.kind === 'glue' || joint.kind === 'tab')
  const used = [
    ...layers.map((layer) => glueOf(project, layer)),
    ...builtLayers(project).flatMap((layer) =>
      (layer.joint.pieces ?? []).map(({ pieceId }) => glueOf(project, layer, pieceId)),
    ),
    ...(project.mount.kind === 'topper' ? [stickGlueOf(project)] : []),
  ]
  const names = new Set(used.flatMap((one) => one?.name ?? []))
  return names.size > 0 ? [...names].join(', ') : glueName(project, undefined, 'glue')
}
