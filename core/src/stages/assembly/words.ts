// The wording of jobs: what to do, what to watch and the usual caution, for the bench.
import { length, say, sayAll, size as sizeOf, type Said } from '../../base/units'
import { groupBy } from '../../base'
import { regionBox, type Box } from '../../base/geometry'
import {
  adhesiveOf,
  ASSUMED_PAPER,
  builtLayers,
  cutPieces,
  findLayer,
  foamUnder,
  folioOf,
  glueOf,
  layerBox,
  paperOf,
  pieceRegion,
  stickGlueOf,
  thicknessOf,
  type Layer,
  type Project,
} from '../../project'
import type { GlueAmount } from '../depth'
import { centreMarks, scoredFace, type Turn } from '../layers'
import { bedWords, matWords, type Load } from '../sheets'
import type { About, Ground, PadCount, Task, Untold } from './task'
import { BENCH, UNNAMED_GLUE } from './times'
import { capital, plural, weedWords } from './weed-words'

type Words = Pick<Task, 'title' | 'detail'> & { caution?: string | null }

const BLADE = 'Blades are sharp: keep fingers clear, cap what is not in use.'
const KNIFE =
  'A fresh blade on a cutting mat; cut away from fingers, along metal, and snap or cap it when you lay it down.'
const GLASS = 'Glass edges cut: wear gloves and handle the pane by its edges.'
const FOOD =
  'Keep card, glue and foam off the icing with a food-safe sleeve; small parts and sticks are not for small children. Follow the labels.'
const HOT = 'A hot nozzle and fresh hot glue burn: keep fingers off the bead.'
const PLATE =
  'A hot plate burns and scorches card: try an off-cut first, keep to the labels of film and plate, never leave it on alone.'
const PINS =
  'Pins prick: count them out and in, and keep them away from small children. Where a child may reach the work, glue it.'
const CORD = 'Hang twine out of the reach of small children.'
const HANGING = 'Hang it on a fixing that suits the wall and the weight.'

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

/** Puts words to the jobs of a project. `turns` are the ways of laying each layer that look right, by id. */
export function tell(
  project: Project,
  jobs: readonly Untold[],
  turns: ReadonlyMap<string, readonly Turn[]>,
): Task[] {
  const { batch } = project.plan
  return jobs.map(({ about, ...job }): Task => {
    const { title: plain, detail, caution = null } = wordsFor(project, about)
    const title = job.nth === undefined ? plain : `${plain} (${job.nth} of ${batch})`
    const all: Said[] = [detail]
    // What is cut is cut for the whole batch; hands do the rest once for each.
    const once = about.step === 'prepare' || about.step === 'weed'
    if (batch > 1 && job.nth === undefined && job.needs.includes('hands') && !once)
      all.push(`For all ${batch}.`)
    if ('layer' in about && (job.kind === 'lay' || job.kind === 'glue'))
      all.push(...turnWarning(turns.get(about.layer.id) ?? []))
    return { ...job, title, detail: sayAll(all), caution }
  })
}

function wordsFor(project: Project, about: About): Words {
  switch (about.step) {
    case 'prepare':
    case 'print':
    case 'ink':
    case 'cut':
    case 'weed':
    case 'score':
    case 'shape':
    case 'colour':
    case 'colour-dries':
    case 'press':
    case 'dry-fit':
      return beforeSticking(project, about)
    case 'start':
    case 'begin':
    case 'pad':
    case 'lay':
    case 'glue':
    case 'hold':
      return atSticking(project, about)
    default:
      return afterSticking(project, about)
  }
}

type Of<Step extends About['step']> = Extract<About, { step: Step }>

function beforeSticking(
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
    case 'prepare': {
      const { cutWith } = project.plan
      const card = cutWith
        ? `The pieces that were cut with “${cutWith.name}”`
        : `${plural(about.sheets, 'sheet')} in cutting order`
      const foam = about.pads > 0 ? `, ${plural(about.pads, 'foam pad')}` : ''
      return {
        title: 'Lay everything ready',
        detail: `${card}${foam}, tweezers, a weeding pick, ${gluesAtHand(project)}.`,
      }
    }
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
    ? `${press.tempC} °C for ${press.seconds} s, as its label says`
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
    detail: `Weed it from its carrier first: it was cut in the mirror, and lies shiny side down, carrier up, on ${under}, flat on the table and on no foam yet. A thin cloth or baking paper over it. ${how}, pressed, not rubbed.${often} ${peel} Where an edge comes along, lay it back and press once more.`,
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

function atSticking(project: Project, about: Of<'start' | 'begin' | 'pad' | 'lay' | 'glue' | 'hold'>): Words {
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
        caution:
          [
            about.pads > 0 ? 'Foam sticks at once and cannot be moved.' : '',
            ...about.flat.map(({ glue }) => glue?.caution ?? ''),
          ]
            .filter(Boolean)
            .join(' ') || null,
      }
    }
    case 'glue': {
      const { glue: adhesive } = about
      const watch = [alignment(project, about)]
      if (adhesive && (paper?.gsm ?? ASSUMED_PAPER.gsm) < adhesive.bucklesBelowGsm)
        watch.push(`It buckles card under ${adhesive.bucklesBelowGsm} gsm: dots, not lines.`)
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
        detail: say`${what}, with ${adhesive?.name ?? 'glue'}: ${plural(layer.pieces.length - (about.pads > 0 ? onFoam : 0), 'part')}${glueWords(about.amount)}${others}. ${watch.join(' ')}`,
        caution:
          [adhesive, ...about.others.map(({ glue }) => glue)]
            .flatMap((one) => one?.caution || [])
            .join(' ') || `Number ${folio} right way up.`,
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

function afterSticking(
  project: Project,
  about: Of<
    | 'dry'
    | 'mount-frame'
    | 'glaze'
    | 'close'
    | 'mount-card'
    | 'mount-panel'
    | 'mount-sticks'
    | 'cover'
    | 'dry-sticks'
    | 'stand'
    | 'flag'
    | 'stand-off'
    | 'lip-pads'
    | 'on-pane'
  >,
): Words {
  switch (about.step) {
    case 'dry':
      return {
        title: 'Let the glue dry',
        detail: `${capital(about.glue?.name ?? 'Glue')}: ${(about.glue ?? UNNAMED_GLUE).dryMin} min, lying flat under a light weight. A wet joint slides when the work is stood up.`,
      }
    case 'mount-frame': {
      const { shim } = about
      const packed = shim
        ? say`${plural(shim.at.length, 'pad')} of ${length(shim.mm)} (${sayAll(
            shim.partsMm.map((mm) => say`${length(mm)}`),
            ' + ',
          )}) behind the backing sheet, along its edges and over the middle, hold it and bring it up to the glazing’s air.`
        : null
      return {
        title: 'Fix the stack to the back board',
        detail:
          project.mount.kind === 'frame' && project.mount.back === 'fabric'
            ? (packed ?? 'Backing sheet to the fabric with a glue that suits it; press until it holds.')
            : (packed ??
              `Backing sheet to the board with ${mountGlue(project, 'glue')}; press until it holds.`),
      }
    }
    case 'glaze':
      return {
        title: 'Clean and set the glazing',
        ...(project.mount.kind === 'frame' && project.mount.pane.kind === 'plastic'
          ? { detail: 'Brush dust off the stack first. Peel the film off both sides of the pane.' }
          : {
              detail: builtLayers(project).some(({ lives }) => lives === 'behind-pane')
                ? 'Brush dust off the stack first. Wipe the inside of the pane round what is on it, not over it.'
                : 'Brush dust off the stack first. Clean the inside of the pane.',
              caution: GLASS,
            }),
      }
    case 'close':
      return {
        title: 'Close the frame',
        detail: say`${closing(about)}; bend the tabs. Check that ${length(about.airMm)} of air stays in front.${about.hanger ? ' Fix the hanger.' : ''}`,
        caution: HANGING,
      }
    case 'mount-card':
      return {
        title: 'Fix the stack to the card',
        detail: say`Centre it on the panel. ${capital(mountGlue(project))} under the backmost layer, a rim away from its edges; press until it holds. With an envelope in mind: ${length(about.stackMm, 1)} high.`,
      }
    case 'mount-panel':
      return {
        title: about.surface === 'canvas' ? 'Fix the stack to the canvas' : 'Fix the stack to the wood',
        detail:
          about.surface === 'canvas'
            ? `Lay something firm under the canvas, so that it does not give. ${capital(mountGlue(project))} where the backmost layer lies; press until it holds.`
            : `Dust the panel. ${capital(mountGlue(project))} where the backmost layer lies; press until it holds.`,
      }
    case 'mount-sticks':
      return {
        title: `Fix ${plural(about.sticks, 'stick')} to the back`,
        detail: say`Topper face down. ${
          about.places.length > 0
            ? say`Middle of ${about.places.length === 1 ? 'the stick' : 'the sticks'} ${sayAll(
                about.places.map((mm) => say`${length(mm)}`),
                ', ',
              )} from the left edge as seen from the front: from behind, count from the right.`
            : 'Low on solid card, below the centre of mass.'
        } ${(stickGlueOf(project)?.name ?? 'Glue').replace(/^./, (first) => first.toUpperCase())} along all that lies on card.`,
        caution: FOOD,
      }
    case 'cover':
      return {
        title: `Glue “${about.layer.name}” over the sticks`,
        detail: `Its good side to the back. ${capital(glueName(project, about.layer))} round the sticks and along the edges; press over the sticks until it holds. Look from the front: nothing of it shows.`,
      }
    case 'stand': {
      const { layer } = about
      const fromPaneMm =
        project.mount.kind === 'frame'
          ? project.mount.depthMm - layer.joint.gapMm - thicknessOf(project, layer)
          : 0
      return {
        title: `Set “${layer.name}” into the frame`,
        detail: say`Try it in place first. ${capital(glueName(project, layer))} on the folded bars only; press each to the inside of the frame, the piece ${length(fromPaneMm)} behind the pane, and hold until it holds.`,
      }
    }
    case 'stand-off':
      return {
        title: 'Build the stand-off ring',
        detail: say`${about.sheets === 1 ? 'One sheet' : `${about.sheets} sheets, stuck on each other with their edges true`}: ${length(about.sheets * about.thicknessMm)} high. Lay the ring on the inside of the ${about.mat ? 'mat' : 'pane'}, along the lip, and look from the front: nothing of it shows.`,
      }
    case 'lip-pads':
      return {
        title: 'Pads along the lip',
        detail: say`${plural(about.count, 'pad')} of ${stackOf(about.foams)}, ${length(about.mm, 2)} high, on the frontmost sheet, all round where the lip will hide them. Look from the front before the pane goes in: nothing of them shows.`,
      }
    case 'on-pane': {
      const { layer } = about
      const inside = layer.lives === 'behind-pane'
      return {
        title: `Bring “${layer.name}” onto the pane`,
        detail: `Clean the pane and let it dry. Mark its middle on the ${inside ? 'outer' : 'inner'} side with a bit of tape that comes off. Weed, lay transfer sheet over all of it so that parts keep their distance, rub it down, and lift it from its backing. Lower it from the middle out onto the ${inside ? 'inner' : 'outer'} side, ${layer.cutMirrored ? 'it is cut in the mirror and reads right from the front' : 'as it reads from the front'}; rub again, and peel the sheet off flat and slowly.`,
        caution: project.mount.kind === 'frame' && project.mount.pane.kind === 'glass' ? GLASS : null,
      }
    }
    case 'flag':
      return flagWords(project, about)
    case 'dry-sticks':
      return {
        title: 'Let the sticks dry',
        detail: `${(stickGlueOf(project) ?? UNNAMED_GLUE).dryMin} min, lying flat.`,
      }
  }
}

/** One flag onto the twine: how far from the one before, how it is held, what is left free at the ends. */
function flagWords(project: Project, about: Of<'flag'>): Words {
  const { layer, nth, of, gapMm, endsMm, isFolded } = about
  const glue = glueName(project, layer)
  const from =
    nth === 1
      ? say`Leave ${length(endsMm, 0)} of twine free before it.`
      : say`${length(gapMm)} of twine after flag ${nth - 1}.`
  const held = isFolded
    ? say`Lay the twine in the fold, a bead of ${glue} along it, close the flap over it and press until it holds.`
    : say`Through its left eyelet to the back, through the right one to the front; a dot of ${glue} behind each keeps it there.`
  const end = nth === of ? say` Leave ${length(endsMm, 0)} free behind it.` : ''
  return {
    title: `Flag ${nth} of ${of} onto the twine`,
    detail: say`“${layer.name}”${paperOf(project, layer) ? `, ${paperOf(project, layer)!.name}` : ''}. ${from} ${held}${end}`,
    caution: nth === 1 || nth === of ? CORD : null,
  }
}

/** How hands form a layer. */
function shapingWords(project: Project, layer: Layer): Words {
  const { how, riseMm } = layer.shaping
  const n = cutPieces(layer).length * layer.copies
  switch (how) {
    case 'roll':
      return {
        title: `Roll “${layer.name}”`,
        detail: `${plural(n, 'strip')}: ${layer.folds.length > 0 ? 'fold lengthwise, then ' : ''}roll tight from one end round a thin tool, the uncut edge even. ${capital(glueName(project, layer))} along the last turn; hold until it holds, then press the fringe open from the middle.`,
        caution: HOT,
      }
    case 'cup':
      return {
        title: `Cup “${layer.name}”`,
        detail: say`${plural(n, 'piece')}: bring the flap under the slit and glue it there, so that the end rises by about ${length(riseMm)}.`,
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

/** What goes into a frame before its back, from the pane on. */
const closing = ({ ring, mat }: Of<'close'>): string => {
  const parts = [...(mat ? ['mat'] : []), ...(ring ? ['spacer'] : []), 'stack', 'board'].join(', ')
  return parts.charAt(0).toUpperCase() + parts.slice(1)
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

/** The name of a layer's glue; of the project's where no layer is meant. */
const glueName = (project: Project, layer: Layer | undefined, unnamed = 'Glue'): string =>
  (layer ? glueOf(project, layer) : adhesiveOf(project))?.name ?? unnamed

/** What holds the work to what it lives on is the joint of its backmost layer. */
const mountGlue = (project: Project, unnamed = 'Glue'): string =>
  glueName(project, builtLayers(project)[0], unnamed)

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

/** “thick squares on thin squares”, “narrow strips, 3 on each other”. */
const stackOf = (foams: readonly string[]): string =>
  foams.length > 1 && new Set(foams).size === 1
    ? `${foams[0]}, ${foams.length} on each other`
    : foams.join(' on ')

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
    ? say`, ${sayAll(parts, '; ')}, ${amount.ml < 0.01 ? 'a trace' : `about ${amount.ml.toFixed(amount.ml < 1 ? 2 : 1)} ml`}, as drawn`
    : ''
}

/** Which wrong way of laying a layer looks right, where there is one. */
function turnWarning(turns: readonly Turn[]): string[] {
  const near = turns.filter((turn) => !turn.exact)
  const [first] = near
  if (!first) return []
  const turned = Math.round(first.turnDeg) % 360
  const way = `${first.flipped ? 'face down' : ''}${turned > 0 ? ` turned ${turned}°` : ''}`.trim()
  const more = near.length > 1 ? `, and ${near.length - 1} more ways` : ''
  return [`It looks right ${way} as well${more}: check before it touches.`]
}
