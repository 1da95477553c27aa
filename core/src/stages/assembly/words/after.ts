// What comes once all is stuck: mounting, closing, hanging.
import { length, say, sayAll } from '../../../base/units'
import { builtLayers, glueOf, paperOf, stickGlueOf, thicknessOf, type Project } from '../../../project'
import { UNNAMED_GLUE } from '../times'
import { capital, glueName, heed, lit, plural, stackOf, type Of, type Words } from './common'

const GLASS = 'Glass edges cut: wear gloves and handle the pane by its edges.'

const FOOD =
  'Keep card, glue and foam off the icing with a food-safe sleeve; sticks without splinters. Sticks prick and small parts choke: they are not for small children. Follow the labels.'

const SHEDS = 'Glitter card sheds: tap and wipe it off, and keep it clear of all that is eaten.'

const CORD = 'Hang twine out of the reach of small children.'

const HANGING = 'Hang it on a fixing that suits the wall and the weight.'

/** Words for what is done once all is stuck. */
export function afterSticking(
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
      const ontoFabric = project.mount.kind === 'frame' && project.mount.back === 'fabric'
      return {
        title: 'Fix the stack to the back board',
        detail:
          packed ??
          (ontoFabric
            ? 'Backing sheet to the fabric with a glue that suits it; press until it holds.'
            : `Backing sheet to the board with ${mountGlue(project, 'glue')}; press until it holds.`),
        caution: packed || ontoFabric ? null : mountCaution(project),
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
        caution: heed(HANGING, lit(project)),
      }
    case 'mount-card':
      return {
        title: 'Fix the stack to the card',
        detail: say`Centre it on the panel. ${capital(mountGlue(project))} under the backmost layer, a rim away from its edges; press until it holds. With an envelope in mind: ${length(about.stackMm, 1)} high.`,
        caution: heed(mountCaution(project), lit(project)),
      }
    case 'mount-panel':
      return {
        title: about.surface === 'canvas' ? 'Fix the stack to the canvas' : 'Fix the stack to the wood',
        detail:
          about.surface === 'canvas'
            ? `Lay something firm under the canvas, so that it does not give. ${capital(mountGlue(project))} where the backmost layer lies; press until it holds.`
            : `Dust the panel. ${capital(mountGlue(project))} where the backmost layer lies; press until it holds.`,
        caution: heed(mountCaution(project), lit(project)),
      }
    case 'mount-sticks':
      return {
        title: `Fix ${plural(about.sticks, 'stick')} to the back`,
        detail: say`Topper face down. Hold ${about.sticks === 1 ? 'the stick' : 'the sticks'} in place before any glue, and look from the front. ${
          about.places.length > 0
            ? say`Middle of ${about.places.length === 1 ? 'the stick' : 'the sticks'} ${sayAll(
                about.places.map((mm) => say`${length(mm)}`),
                ', ',
              )} from the left edge as seen from the front: from behind, count from the right.`
            : 'Low on solid card, below the centre of mass.'
        } ${(stickGlueOf(project)?.name ?? 'Glue').replace(/^./, (first) => first.toUpperCase())} along all that lies on card.`,
        caution: heed(stickGlueOf(project)?.caution, FOOD, sheds(project) ? SHEDS : null),
      }
    case 'cover':
      return {
        title: `Glue “${about.layer.name}” over the sticks`,
        detail: `Its good side to the back. ${capital(glueName(project, about.layer))} round the sticks and along the edges; press over the sticks until it holds. Look from the front: nothing of it shows.`,
        caution: heed(glueOf(project, about.layer)?.caution),
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
        caution: heed(glueOf(project, layer)?.caution),
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
        detail: `Clean the pane and let it dry. Mark its middle on the ${inside ? 'outer' : 'inner'} side with a bit of tape that comes off. Weed, lay transfer sheet over all of it so that parts keep their distance, rub it down, and lift it from its backing. Hold the pane before the work and see where it will sit. Lower it from the middle out onto the ${inside ? 'inner' : 'outer'} side, ${layer.cutMirrored ? 'it is cut in the mirror and reads right from the front' : 'as it reads from the front'}; rub again, and peel the sheet off flat and slowly.`,
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
    caution: heed(glueOf(project, layer)?.caution, nth === 1 || nth === of ? CORD : null),
  }
}

/** What goes into a frame before its back, from the pane on. */
const closing = ({ ring, mat }: Of<'close'>): string => {
  const parts = [...(mat ? ['mat'] : []), ...(ring ? ['spacer'] : []), 'stack', 'board'].join(', ')
  return parts.charAt(0).toUpperCase() + parts.slice(1)
}

/** What holds the work to what it lives on is the joint of its backmost layer. */
const mountGlue = (project: Project, unnamed = 'Glue'): string =>
  glueName(project, builtLayers(project)[0], unnamed)

/** What is to be heeded of that glue. */
const mountCaution = (project: Project): string | null => {
  const [back] = builtLayers(project)
  return heed(back && glueOf(project, back)?.caution)
}

/** Whether glitter comes off the work. */
const sheds = (project: Project): boolean =>
  builtLayers(project).some((layer) => paperOf(project, layer)?.finish === 'glitter')
