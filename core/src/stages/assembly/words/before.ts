// What is done before anything is stuck: cutting, weeding, folding, colouring, fitting dry.
import { heat, length, say, sayAll } from '../../../base/units'
import { groupBy } from '../../../base'
import { cutPieces, glueOf, type Layer, type Project } from '../../../project'
import { scoredFace } from '../../layers'
import { bedWords, matWords, type Load } from '../../sheets'
import { BENCH } from '../times'
import { capital, glueName, heed, plural, type Of, type Words } from './common'
import { layReady } from './at-hand'
import { weedWords } from './weed'

const BLADE = 'Blades are sharp: keep fingers clear, cap what is not in use.'

const KNIFE =
  'A fresh blade on a cutting mat; cut away from fingers, along metal, and snap or cap it when you lay it down.'

const PLATE =
  'A hot plate burns and scorches card: try an off-cut first, keep to the labels of film and plate, never leave it on alone.'

/** Words for what is done before anything is stuck. */
export function beforeSticking(
  project: Project,
  about: Of<
    | 'prepare'
    | 'print'
    | 'ink'
    | 'cut'
    | 'weed'
    | 'score'
    | 'shape'
    | 'colour'
    | 'colour-dries'
    | 'press'
    | 'dry-fit'
  >,
): Words {
  switch (about.step) {
    case 'prepare':
      return layReady(project, about)
    case 'print':
      return {
        title: `Print load ${about.load.number}: ${about.load.paper.name}`,
        detail: `${plural(about.pieces, 'piece')} with ${about.pieces === 1 ? 'its picture' : 'their pictures'}, from the print sheet of this load at 100 %, on the side that is seen. Hold a ruler to its bar. Try it on plain paper first.`,
      }
    case 'ink':
      return {
        title: `Let the ink of load ${about.load.number} dry`,
        detail: `${BENCH.inkMinutes} min lying open, or as the printer’s paper says: fresh ink smears under mat and fingers.`,
      }
    case 'cut': {
      const { number, paper, folios, setting, change } = about.load
      if (setting.basis.from === 'hand') return cutByHand(about.load)
      const { mat, mind } = matWords(about.load)
      const minded = mind.length > 0 ? ` ${capital(mat)}: ${mind.join('; ')}.` : ''
      const passes = setting.passes > 1 ? `, ${setting.passes} passes` : ''
      const changed = change && !about.first ? ` Change: ${change}.` : ''
      const marked = about.load.pieces.some((piece) => piece.printed)
        ? ' Lay it by the printed corner marks: the corner without one is at the lower right.'
        : ''
      return {
        title: `Cut load ${number}: ${paper.name}`,
        detail: say`Layer ${folios.join(', ')}. ${capital(mat)}, setting “${setting.name}”${passes}.${minded}${sayAll(
          bedWords(about.load).map((words) => say` ${words}`),
          '',
        )}${changed}${marked}`,
        caution: BLADE,
      }
    }
    case 'weed':
      return weedWords(project, about)
    case 'score':
      return {
        title: `Score and fold “${about.layer.name}”`,
        detail: `${foldWords(about.layer)} Score with a blunt tool and a ruler on a soft mat, fold away from the scored line. Fold up along dashed lines, down along those of dashes and dots.`,
      }
    case 'shape':
      return shapingWords(project, about.layer)
    case 'colour': {
      const { layer, ink, edge } = about
      const { bleedMm, edgeMm } = layer.tint!
      return {
        title: `Colour “${layer.name}” with ${ink?.name ?? 'ink'}`,
        detail: say`Lying flat on scrap paper, from the middle of what shows to ${length(bleedMm)} past it, up to the dots, and over the edges of the card, so that no bare card peeps out.${
          edge
            ? say` Then ${edge.name} along the edges only, about ${length(edgeMm)} wide, drawn inwards.`
            : ''
        } Try it on an off-cut of the same card first.`,
        caution: 'Inks stain skin, cloth and bench; mind their label.',
      }
    }
    case 'colour-dries':
      return {
        title: `Let the colour of “${about.layer.name}” dry`,
        detail: `${about.minutes} min lying open. Damp card curls and tears; glue and pads hold only on dry ink.`,
      }
    case 'press':
      return pressWords(about)
    case 'dry-fit':
      if (project.mount.kind === 'garland')
        return {
          title: 'Lay the flags out',
          detail:
            'All of them side by side in the order of their numbers, nothing stuck. Look at it from the distance it will be seen from; change a colour now, not later.',
        }
      return {
        title: 'Fit everything dry',
        detail: `Lay ${about.layers === 1 ? 'the layer' : `all ${about.layers} layers on each other in order`} with nothing stuck.${about.aside > 0 ? ' Hold what the frame or the pane bears before it.' : ''} Look at it from the distance it will be seen from; change a colour now, not later.`,
      }
  }
}

/** Film onto card by heat: by its label, press after press, and cool. */
function pressWords({ layer, onto, press, presses }: Of<'press'>): Words {
  const under = onto.length > 0 ? onto.map(({ name }) => `“${name}”`).join(' and ') : 'its card'
  const how = press
    ? say`${heat(press.tempC)} for ${press.seconds} s, as its label says`
    : 'As hot and as long as its label says'
  const often =
    presses > 1
      ? ` Set the plate down ${presses} times, each place a little over the last: it is smaller than the motif.`
      : ''
  const peel = {
    hot: 'Peel the carrier off while it is hot, flat and slowly.',
    warm: 'Let it cool until it is lukewarm, then peel the carrier off flat.',
    cold: 'Let it grow cold under something flat, then peel the carrier off.',
  }[press?.peel ?? 'cold']
  return {
    title: `Press “${layer.name}” on`,
    detail: say`Weed it from its carrier first: it was cut in the mirror, and lies shiny side down, carrier up, on ${under}, flat on the table and on no foam yet. A thin cloth or baking paper over it. ${how}, pressed, not rubbed.${often} ${peel} Where an edge comes along, lay it back and press once more.`,
    caution: PLATE,
  }
}

/** A load that a hand cuts along a template. */
function cutByHand({ number, paper, folios, setting, pieces }: Load): Words {
  const holes = pieces.reduce((total, piece) => total + piece.shape.holes.length, 0)
  const inner =
    holes > 0 ? ` The ${plural(holes, 'opening')} first, small ones before large ones, the outline last.` : ''
  const often =
    setting.passes > 1
      ? ` About ${setting.passes} light cuts along the same line, none with force.`
      : ' Turn the card, not the hand; straight lines along a metal ruler.'
  return {
    title: `Cut load ${number} by hand: ${paper.name}`,
    detail: `Layer ${folios.join(', ')}. The template on the back of the card, mirrored, fixed with tape that comes off; check its bar with a ruler.${inner}${often}`,
    caution: KNIFE,
  }
}

/** How hands form a layer. */
function shapingWords(project: Project, layer: Layer): Words {
  const { how, riseMm } = layer.shaping
  const n = cutPieces(layer).length * layer.copies
  const caution = heed(glueOf(project, layer)?.caution)
  switch (how) {
    case 'roll':
      return {
        title: `Roll “${layer.name}”`,
        detail: `${plural(n, 'strip')}: ${layer.folds.length > 0 ? 'fold lengthwise, then ' : ''}roll tight from one end round a thin tool, the uncut edge even. ${capital(glueName(project, layer))} along the last turn; hold until it holds, then press the fringe open from the middle.`,
        caution,
      }
    case 'cup':
      return {
        title: `Cup “${layer.name}”`,
        detail: say`${plural(n, 'piece')}: bring the flap under the slit and glue it there, so that the end rises by about ${length(riseMm)}.`,
        caution,
      }
    default:
      return {
        title: `Curl “${layer.name}”`,
        detail: say`${plural(n, 'piece')}: draw each petal over a round stick, then press the middle into a soft mat with a ball tool, until the tips rise by about ${length(riseMm)}.`,
      }
  }
}

/** “2 folds up by 30°, scored on the back; 1 down by 90°, scored on the front.” */
function foldWords({ folds }: Layer): string {
  const groups = groupBy(folds, ({ way, deg }) => `${way} ${Math.round(deg)}`)
  const parts = [...groups.values()].map((list, i) => {
    const { way, deg } = list[0]!
    return `${i === 0 ? plural(list.length, 'fold') : list.length} ${way} by ${Math.round(deg)}°, scored on the ${scoredFace(list[0]!)}`
  })
  return `${parts.join('; ')}.`
}
