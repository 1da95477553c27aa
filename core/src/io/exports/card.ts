// The card of a project: what it is and how it is kept.
import { formatSize } from '../../base/units'
import { boxHeight, boxWidth, intersect, joinBoxes, polygonBox, type Region } from '../../base/geometry'
import {
  builtLayers,
  colourOf,
  isOnPane,
  layerBox,
  layerRegion,
  paperOf,
  viewBox,
  windowOf,
  type Project,
} from '../../project'
import type { Priced } from '../../stages/journal'
import { writeCatalogueCard, type Faces } from '../write'

const CARE: Record<Project['mount']['kind'], string[]> = {
  frame: ['Keep it dry and out of the sun; dust the pane with a dry cloth.'],
  card: ['Stand it where it is dry; what stands up bends when it is pressed.'],
  panel: ['Keep it dry and out of the sun; dust it with a soft brush.'],
  topper: ['Take it off before the cake is cut; wipe the sticks, keep the card dry.'],
  garland: ['For indoors; fold it flag on flag.'],
  free: ['Keep it dry and out of the sun.'],
}
const CAUTIONS: Partial<Record<Project['mount']['kind'], string>> = {
  frame: 'Hang it on a fixing that suits the wall and the weight.',
  topper: 'Not to be eaten; small parts and sticks are not for small children.',
  garland: 'Cord: keep it out of the reach of small children.',
}
const LIT =
  'Light it with cool, low-voltage LED only, as their label says; never with a candle or a hot lamp.'

/** A page of A6 with the first photo, or the stack as it is drawn. Needs the geometry loaded. */
export async function catalogueCard(
  project: Project,
  priced: Priced | null,
  faces: Faces,
): Promise<Uint8Array> {
  const layers = builtLayers(project).filter(({ pieces }) => pieces.length > 0)
  const opening = windowOf(project)
  // What the lip of a frame hides is not on the card.
  const seen = (region: Region) => (opening ? intersect(region, [opening]) : region)
  const box = opening
    ? polygonBox(opening)
    : layers.length > 0
      ? joinBoxes(layers.map(layerBox))
      : viewBox(project)
  const { mount, unit, rights, plan, drawer, journal } = project
  const papers = new Set(layers.flatMap((layer) => paperOf(project, layer)?.name ?? []))
  const photo = journal.photos[0]
  const caution = CAUTIONS[mount.kind]
  return writeCatalogueCard(
    {
      title: project.name,
      picture: {
        box,
        shapes: layers
          .filter((layer) => !isOnPane(layer) || layer.lives === 'behind-pane')
          .map((layer) => ({ region: seen(layerRegion(layer)), colour: colourOf(project, layer) })),
      },
      photo: photo ? Uint8Array.from(atob(photo.data), (sign) => sign.charCodeAt(0)) : null,
      facts: [
        `${formatSize(boxWidth(box), boxHeight(box), unit)}${opening ? ', as it is seen in the frame' : ''}`,
        `${layers.length} ${layers.length === 1 ? 'layer' : 'layers'} of cut card${papers.size > 1 ? `, ${papers.size} papers` : ''}, put together by hand`,
      ],
      care: CARE[mount.kind],
      cautions: [...(caution ? [caution] : []), ...(plan.litFromBehind ? [LIT] : [])],
      credit: rights.use === 'may be sold' ? rights.credit : '',
      price: priced?.price ? `${priced.price.toFixed(2)} ${drawer.currency}` : null,
    },
    faces,
  )
}
