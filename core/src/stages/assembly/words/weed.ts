// The wording of taking a sheet off its mat: what is waste, what is kept and of whom, and what is written on the backs.
import { polygonBox } from '../../../base/geometry'
import {
  bearsNumber,
  builtLayers,
  folioOf,
  guestPrefix,
  keepsPlaces,
  type Layer,
  type Project,
} from '../../../project'
import { flagNumber, flagsOf } from '../../layers'
import type { Load } from '../../sheets'
import type { About, Task } from '../task'
import { plural } from './common'

type Weed = Extract<About, { step: 'weed' }>

/** How a sheet is weeded. */
export function weedWords(
  project: Project,
  { load, pieces, holes, loose }: Weed,
): Pick<Task, 'title' | 'detail'> {
  const title = `Weed load ${load.number}: ${load.paper.name}`
  const layers = new Map(builtLayers(project).map((layer) => [layer.id, layer]))
  const own = load.pieces.flatMap(({ layerId }) => layers.get(layerId) ?? [])
  const guests = guestWords(project, load)
  if (own.length > 0 && own.every(keepsPlaces))
    return {
      title,
      detail: `Take away all that is not part of it, with a pick; its ${pieces === 1 ? 'part stays' : `${pieces} parts stay`} on the backing, as far from each other as they are.${guests}`,
    }
  const kept =
    loose === 0
      ? ''
      : loose === pieces
        ? ', drawn strong in the picture'
        : `; keep ${plural(loose, 'loose bit')}, drawn strong in the picture`
  // Card that is peeled off the mat curls, and thin parts tear: the mat is peeled off the card.
  const peel =
    load.setting.basis.from === 'hand'
      ? ''
      : load.setting.intricacy === 'plain'
        ? ' Turn the mat over and bend it away from the card, which stays flat.'
        : ' Turn the mat over and bend it slowly away from the card, thin tails held flat with a finger; openings first, while the sheet still holds them.'
  return {
    title,
    detail: `${plural(pieces, 'piece')}${holes > 0 ? `, ${plural(holes, 'opening')}` : ''}${kept}.${peel}${numberWords(project, load, layers)}${guests}`,
  }
}

/** What is written on pieces that bear no drawn number: the folio, or the place of a flag on its twine. */
function numberWords(project: Project, load: Load, layers: ReadonlyMap<string, Layer>): string {
  const bare = load.pieces.filter(({ numbered }) => !numbered)
  if (project.mount.kind === 'garland') return placeWords(project, load)
  const without = new Set(
    bare.flatMap(({ layerId }) => {
      const layer = layers.get(layerId)
      return layer && bearsNumber(layer) ? [layerId] : []
    }),
  )
  // Another piece of the layer bears it.
  for (const { layerId, numbered } of load.pieces) if (numbered) without.delete(layerId)
  const folios = [...without].flatMap((id) => folioOf(project, id) ?? []).toSorted((a, b) => a - b)
  if (folios.length === 0) return ''
  return ` Write the folio, ${folios.join(', ')}, on the back: there is no place for it that stays hidden in front.`
}

/** Places of flags on their twine. */
function placeWords(project: Project, load: Load): string {
  const flags = new Map(flagsOf(project).map((flag) => [`${flag.layer.id}/${flag.piece.id}`, flag]))
  const here = load.pieces
    .flatMap(({ layerId, pieceId, shape }) => {
      const flag = flags.get(`${layerId}/${pieceId}`)
      return flag ? [{ flag, x: polygonBox(shape).minX }] : []
    })
    .toSorted((a, b) => a.x - b.x)
  if (here.length === 0) return ''
  const isMarked = project.plan.numbers !== 'none' && here.every(({ flag }) => flagNumber(flag).length > 0)
  return isMarked
    ? ' The number on each flap is its place on the twine: it comes to lie at the back.'
    : ` Write their places on the twine on the backs, from the left of the sheet: ${here.map(({ flag }) => flag.nth).join(', ')}.`
}

/** Whose pieces lie on the sheet beside the project's own. */
function guestWords(project: Project, load: Load): string {
  const theirs = project.plan.guests.flatMap((guest) => {
    const n = load.pieces.filter(({ layerId }) => layerId.startsWith(guestPrefix(guest))).length
    return n > 0 ? [`${plural(n, 'piece')} of “${guest.name}”`] : []
  })
  return theirs.length > 0 ? ` Put aside ${theirs.join(' and ')}.` : ''
}
