// How layers are laid, on pads and on glue.
import { length, measured, say, sayAll, size as sizeOf, weight, type Said } from '../../../base/units'
import { regionBox, type Box } from '../../../base/geometry'
import {
  ASSUMED_PAPER,
  builtLayers,
  findLayer,
  foamUnder,
  folioOf,
  glueOf,
  layerBox,
  paperOf,
  pieceRegion,
  type Layer,
  type Project,
} from '../../../project'
import type { GlueAmount } from '../../depth'
import { centreMarks } from '../../layers'
import type { Ground, PadCount } from '../task'
import { UNNAMED_GLUE } from '../times'
import { capital, glueName, heed, plural, stackOf, type Of, type Words } from './common'

const PINS =
  'Pins prick: count them out and in, and keep them away from small children. Where a child may reach the work, glue it.'

const ALIGN = {
  'corner-jig': 'Lower the left edge into the corner jig, then let it drop.',
  'one-edge': 'Line up the lower edges, then let it drop.',
  'by-eye': 'Hover, check all round, then let it drop.',
}

/** Of so few pads none holds a corner while the others are peeled. */
const FEW_PADS = 4

const ON_WET =
  'The glue beneath is wet still: set it down straight, press lightly from above and push nothing aside.'

const ALIGN_FACE_DOWN = 'Lower edges together, then press lightly.'

/** Words for how a layer, or a part that is built already, is laid. */
export function atSticking(
  project: Project,
  about: Of<'start' | 'begin' | 'pad' | 'lay' | 'glue' | 'hold'>,
): Words {
  const { layer } = about
  const folio = folioOf(project, layer.id) ?? 0
  const paper = paperOf(project, layer)
  const part = 'asOne' in about ? about.asOne : undefined
  const what = part
    ? `“${part.name}” as one, its ${part.layers} layers stuck to each other`
    : `“${layer.name}”${paper ? `, ${paper.name}` : ''}`
  /** What is taken up: a layer, or a part that is built already. */
  const own = part ? `“${part.name}”` : `layer ${folio}`
  switch (about.step) {
    case 'begin':
      return {
        title: `Begin “${about.part}” with layer ${folio}`,
        detail: `${what}. Right side up, flat on the bench, beside the stack: “${about.part}” is built by itself and laid on as one.`,
      }
    case 'start':
      if (about.faceDown)
        return {
          title: `Lay ${own} face down`,
          detail: `${what}. Face down on a clean mat, its lower edge towards you.`,
        }
      if (about.ground !== 'bench') return startInPlace(project, about, folio)
      return {
        title: `Start with layer ${folio}`,
        detail:
          about.pads.length > 0
            ? say`${what}. ${padWords(about.pads)} on its back; it is stuck down when the stack is mounted.`
            : `${what}. Right side up, flat on the bench; it carries all the others.`,
      }
    case 'pad':
      return {
        title: `Put the pads on layer ${folio}`,
        detail: say`${padWords(about.pads)} on the back, as drawn. Leave the paper on until the layer lies right.`,
      }
    case 'lay': {
      const beside =
        about.glued > 0
          ? ` ${plural(about.glued, 'piece')} of it ${about.glued === 1 ? 'is' : 'are'} too narrow for a pad: ${glueOf(project, layer)?.name ?? 'glue'} under ${about.glued === 1 ? 'it' : 'each'}, flat on what is beneath.`
          : ''
      const flat = about.flat
        .map(
          ({ count, glue }) =>
            ` ${plural(count, 'piece')} of it ${count === 1 ? 'goes' : 'go'} flat on what is beneath, with ${glue?.name ?? 'glue'}.`,
        )
        .join('')
      const peel =
        about.pads < FEW_PADS
          ? ' Peel the paper off once it hovers right over its place. Press from the middle out.'
          : ' Peel the corner pads first; the rest once it lies right. Press from the middle out.'
      return {
        title: layTitle(own, about),
        detail: `${what}. ${alignment(project, about)}${about.pads > 0 ? peel : ''}${beside}${flat}${about.onWet ? ` ${ON_WET}` : ''}`,
        caution: heed(
          about.pads > 0 ? 'Foam sticks at once and cannot be moved.' : null,
          ...about.flat.map(({ glue }) => glue?.caution),
        ),
      }
    }
    case 'glue': {
      const { glue: adhesive } = about
      const watch: Said[] = [alignment(project, about)]
      if (adhesive && (paper?.gsm ?? ASSUMED_PAPER.gsm) < adhesive.bucklesBelowGsm)
        watch.push(say`It buckles card under ${weight(adhesive.bucklesBelowGsm)}: dots, not lines.`)
      const others = about.others
        .map(({ count, glue }) => `; ${count} of them with ${glue?.name ?? 'glue'}`)
        .join('')
      if (about.onWet) watch.push(ON_WET)
      const onFoam = layer.pieces.filter(({ id }) => foamUnder(layer, id) > 0).length
      if (onFoam > 0 && about.pads > 0)
        watch.push(
          `${plural(onFoam, 'piece')} of it ${onFoam === 1 ? 'has its pads' : 'have their pads'} in place of glue: peel the paper off once it hovers right over its place.`,
        )
      if (adhesive?.slides) watch.push('It slides while wet: check once more before it takes hold.')
      return {
        title: layTitle(own, about),
        detail: say`${what}, with ${adhesive?.name ?? 'glue'}: ${plural(layer.pieces.length - (about.pads > 0 ? onFoam : 0), 'part')}${glueWords(about.amount)}${others}. ${sayAll(watch)}`,
        caution:
          heed(adhesive?.caution, ...about.others.map(({ glue }) => glue?.caution)) ??
          `Number ${folio} right way up.`,
      }
    }
    case 'hold': {
      const { handleMin } = about.glue ?? UNNAMED_GLUE
      return {
        title: `Let layer ${folio} take hold`,
        detail: `${capital(about.glue?.name ?? 'Glue')}: ${handleMin} min until it can be handled. Keep it flat.`,
      }
    }
  }
}

const ON: Record<Exclude<Ground, 'bench' | 'bench in its place'>, string> = {
  board: 'the back board',
  card: 'the card',
  fabric: 'the fabric',
  canvas: 'the canvas, something firm under it,',
  wood: 'the wood, dusted,',
}

/** The first of pieces that no one sheet carries: they go to where they stay. */
function startInPlace(
  project: Project,
  { layer, pads, ground, pins, asOne }: Of<'start'>,
  folio: number,
): Words {
  const own = asOne ? `“${asOne.name}”` : `layer ${folio}`
  if (ground === 'fabric')
    return {
      title: `Pin layer ${folio} to the fabric`,
      detail: `“${layer.name}” flat on the fabric, its edges true to the frame. ${plural(pins, 'pin')} with flat heads straight through it at the marked places: layers above will hide them. No glue: it comes off again with the pins drawn.`,
      caution: PINS,
    }
  const what = asOne
    ? `${own} as one, its ${asOne.layers} layers stuck to each other`
    : `“${layer.name}”, ${plural(layer.pieces.length * layer.copies, 'piece')}`
  if (ground === 'bench in its place' || ground === 'bench')
    return {
      title: `Lay out ${own}`,
      detail: `${what}, right side up on a clean mat, as far from each other as they are drawn.`,
    }
  const held =
    pads.length > 0 ? say`${padWords(pads)} on the back` : say`${glueName(project, layer)} on the back`
  return {
    title: `${asOne ? own : `Layer ${folio}`} onto ${ON[ground].split(',')[0]}`,
    detail: say`${what}: lay ${asOne ? 'it' : 'all of it out'} on ${ON[ground]} first and look. Then ${held}${asOne ? '' : ', piece by piece'}; nothing else holds it.`,
    caution: pads.length > 0 ? 'Foam sticks at once and cannot be moved.' : null,
  }
}

const layTitle = (own: string, { faceDown, on }: Of<'lay' | 'glue'>): string =>
  faceDown ? `Lay ${own} face down on the stack` : `Lay ${own} on ${on ? `“${on}”` : 'the stack'}`

function alignment(project: Project, { layer: { id: layerId }, faceDown, on }: Of<'lay' | 'glue'>): string {
  const layer = findLayer(project, layerId)
  if (!layer) return ALIGN['by-eye']
  const { alignment: chosen } = project.plan
  // Jig and edge are those of the stack; on the bench only marks that the part itself has help.
  const way = on && chosen !== 'centre-mark' ? 'by-eye' : chosen
  const large = layer.pieces.filter((piece) => reachesEdges(project, regionBox(pieceRegion(piece)), way))
  // What lies inside the sheet has no edge that a jig could take.
  if (large.length === 0 || layer.pieces.length - large.length > large.length) return inPlace(project, layer)
  const bits = layer.pieces.length - large.length
  const beside =
    bits > 0
      ? ` ${bits === 1 ? 'The loose piece goes' : `The ${bits} loose pieces go`} to ${bits === 1 ? 'its place' : 'their places'} as drawn, by eye.`
      : ''
  if (faceDown) return ALIGN_FACE_DOWN + beside
  if (way !== 'centre-mark') return ALIGN[way] + beside
  const mark = centreMarks(project).get(layerId)
  return mark
    ? `Run a pin through its middle and the centre mark on layer ${folioOf(project, mark.underId)}, then slide it down.${beside}`
    : ALIGN['by-eye'] + beside
}

/** An edge that lies as near to that of the backmost sheet is lined up with it, mm. */
const FLUSH_MM = 1

/** Whether a piece has what a jig, an edge or a centre mark lines it up by. */
function reachesEdges(project: Project, box: Box, way: Project['plan']['alignment']): boolean {
  const [back] = builtLayers(project)
  if (!back || way === 'by-eye') return true
  const under = layerBox(back)
  const flush = (a: number, b: number) => Math.abs(a - b) <= FLUSH_MM
  const low = flush(box.maxY, under.maxY)
  if (way === 'one-edge') return low
  if (way === 'corner-jig') return low && flush(box.minX, under.minX)
  return (
    flush((box.minX + box.maxX) / 2, (under.minX + under.maxX) / 2) &&
    flush((box.minY + box.maxY) / 2, (under.minY + under.maxY) / 2)
  )
}

/** What lies somewhere on the stack: by crosses where they are drawn, else as the picture shows it. */
function inPlace(project: Project, { pieces }: Layer): string {
  const each = pieces.length > 1 ? 'Each to its place' : 'To its place'
  return project.plan.placeMarks
    ? `${each}: its middle over the small cross that it hides. Hover, check all round, then let it drop.`
    : `${each} as drawn: hover, check all round against the picture, then let it drop.`
}

/** “12 pads of small squares, 5 × 5 mm, 2 mm high; 3 of small squares, thick + small squares, 5 × 5 mm, 5 mm high”. */
const padWords = (pads: readonly PadCount[]): Said =>
  sayAll(
    pads.map(
      ({ mm, count, size, foams, bent }) =>
        say`${plural(count, 'pad')} of ${stackOf(foams)}, ${sizeOf(...size)}, ${length(mm, 2)} high${bent ? ', bent along the curve' : ''}`,
    ),
    '; ',
  )

/** “, 12 dots of 2 mm, a bead of 340 mm, about 0.3 ml”. */
function glueWords(amount: GlueAmount | null): Said {
  if (!amount) return ''
  const parts: Said[] = []
  if (amount.dots > 0) parts.push(say`${plural(amount.dots, 'dot')} of ${length(amount.dotMm)}`)
  if (amount.beadLengthMm > 0)
    parts.push(say`a bead of ${length(amount.beadMm)}, ${length(amount.beadLengthMm, 0)} of it in all`)
  if (amount.coatMm2 > 0) parts.push('a thin coat drawn out with a brush')
  return parts.length > 0
    ? say`, ${sayAll(parts, '; ')}, ${amount.ml < 0.01 ? 'a trace' : say`about ${measured(amount.ml, 'ml')}`}, as drawn`
    : ''
}
