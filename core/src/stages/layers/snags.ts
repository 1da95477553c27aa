// Findings of the layers stage.
import { say, length, area } from '../../base/units'
import { intersect, regionArea, type Region } from '../../base/geometry'
import { folded } from './folds'
import { SPECK_MM, type LayerFigures } from './figures'
import type { Soundness } from './soundness'
import { scattered } from './visibility/merge'
import { isSeeThrough, type VisibleArea } from './visibility/shows'
import {
  backingRect,
  builtLayers,
  findLayer,
  hasBoardBehind,
  layerRegion,
  pieceRegion,
  windowOf,
  type Layer,
  type Project,
  type Snag,
  isStandOff,
} from '../../project'

/** Narrow in so much of its area, a layer is narrow as a whole. */
const ALL_OVER = 0.8
/** So much of the opening may be bare by intent. */
const BARE_SHARE = 0.02

/** Below this share of the safe strip card tears. */
const TEARS = 0.6

/** Strips of each layer that are narrower than its paper survives. */
export function neckSnags(project: Project, sound: readonly Soundness[]): Snag[] {
  return sound.flatMap(({ id, safeMm, necks }): Snag[] => {
    const weak = necks.filter((neck) => neck.kind === 'neck')
    if (weak.length === 0) return []
    const layer = findLayer(project, id)
    const name = layer?.name ?? id
    const narrowMm2 = regionArea(weak.flatMap((neck) => neck.region ?? []))
    const allOver = layer !== undefined && narrowMm2 > regionArea(layerRegion(layer)) * ALL_OVER
    const tearing = weak.filter((neck) => neck.widthMm < safeMm * TEARS).length
    const worst = weak[0]!
    const many = weak.length === 1 ? 'one strip' : `${weak.length} strips`
    return [
      {
        code: 'weak-neck',
        stage: 'layers',
        severity: tearing > 0 ? 'stop' : 'caution',
        layer: id,
        at: [worst.at.x, worst.at.y],
        message: allOver
          ? say`“${name}” is narrower than ${length(safeMm)} nearly everywhere, ${length(worst.widthMm, 2)} at the least${tearing > 0 ? '; it will tear' : ''}.`
          : say`“${name}” has ${many} under ${length(safeMm)}, the narrowest ${length(worst.widthMm, 2)}${tearing > 0 ? `; ${tearing === 1 ? 'one' : tearing} will tear` : ''}.${worst.hangingMm2 > 0 ? say` ${area(worst.hangingMm2)} hang on it.` : ''}`,
        // What is cut flat and becomes something else is its maker's to mend.
        ...(layer?.blanks.length === 0 && {
          mend: {
            label: say`Make ${weak.length === 1 || allOver ? 'it' : 'them'} ${length(safeMm)} wide`,
            action: { kind: 'thicken-layer' as const, layerId: id, safeMm },
          },
        }),
      },
    ]
  })
}

/** Layers that lie beside each other like a mosaic, in one finding. */
export const mosaicSnags = (layerIds: readonly string[]): Snag[] =>
  layerIds.length === 0
    ? []
    : [
        {
          code: 'mosaic',
          stage: 'layers',
          severity: 'caution',
          layer: null,
          at: null,
          message:
            'The layers lie beside each other like a mosaic, none on another: all of it is one level, and each is held by what is behind alone. Going on under those in front, each has something to stand on.',
          mend: {
            label: 'Let each go on under those in front',
            action: { kind: 'fill-under', layerIds: [...layerIds] },
          },
        },
      ]

/** Findings that are about no one layer: bare board about the design, a colour strewn over many layers. */
export function stackSnags(project: Project, visible: readonly VisibleArea[]): Snag[] {
  const snags: Snag[] = []
  const opening = windowOf(project)
  const board = backingRect(project)
  // Where an opening passes the board, no sheet can fill it: that is told where it is measured.
  const shownMm2 = opening && board ? regionArea(intersect([opening], [board])) : 0
  // Board shows through clear sheets.
  const clear = new Set(project.layers.filter((layer) => isSeeThrough(project, layer)).map(({ id }) => id))
  const seenMm2 = visible.reduce((sum, v) => sum + (clear.has(v.id) ? 0 : v.visibleMm2), 0)
  const covered = seenMm2 / Math.max(1, shownMm2)
  if (shownMm2 > 0 && visible.length > 0 && covered < 1 - BARE_SHARE)
    snags.push({
      code: 'board-shows',
      stage: 'layers',
      severity: 'caution',
      layer: null,
      at: null,
      message: `Bare board shows in ${Math.round((1 - covered) * 100)} % of the opening: no layer fills the frame behind the design.`,
      mend: { label: 'Put a full sheet behind', action: { kind: 'add-backing' } },
    })
  for (const ids of scattered(project, visible)) {
    const front = findLayer(project, ids.at(-1)!)!
    snags.push({
      code: 'strewn-colour',
      stage: 'layers',
      severity: 'caution',
      layer: front.id,
      at: null,
      message: `The colour of “${front.name}” comes in ${ids.length} layers with others between. One in front, cut to what shows, looks the same.`,
      mend: { label: 'Gather them in one layer', action: { kind: 'gather-layers', layerIds: ids } },
    })
  }
  return snags
}

/** Whether pieces in front of a layer lie on nothing else: without it nothing would hold them. */
function carriesAlone(project: Project, layer: Layer): boolean {
  if (hasBoardBehind(project.mount)) return false
  const layers = builtLayers(project)
  const at = layers.findIndex(({ id }) => id === layer.id)
  if (at < 0) return false
  const own = layerRegion(layer)
  return layers.slice(at + 1).some((front, k) => {
    const others = layers.slice(0, at + 1 + k).filter((one) => one !== layers[at])
    return front.pieces.some((piece) => {
      // What is folded up or curled rests on nothing.
      const region = folded(pieceRegion(piece), front).body
      const liesOn = (under: Region) => regionArea(intersect(region, under)) > 0
      return liesOn(own) && !others.some((other) => liesOn(layerRegion(other)))
    })
  })
}

/** Findings about single layers. */
export function layerSnags(
  project: Project,
  figures: readonly LayerFigures[],
  visible: readonly VisibleArea[],
): Snag[] {
  const snags: Snag[] = []
  for (const layer of project.layers) {
    const figure = figures.find((f) => f.id === layer.id)!
    if (layer.pieces.length === 0)
      snags.push({
        code: 'empty-layer',
        stage: 'layers',
        severity: 'caution',
        layer: layer.id,
        at: null,
        message: `“${layer.name}” has no pieces.`,
      })
    if (figure.specks.length > 0) {
      const first = layer.pieces.find((piece) => piece.id === figure.specks[0])!
      const { outer } = pieceRegion(first)[0]!
      snags.push({
        code: 'specks',
        stage: 'layers',
        severity: 'caution',
        layer: layer.id,
        at: [outer[0]!, outer[1]!],
        message: say`“${layer.name}” has ${figure.specks.length} ${figure.specks.length === 1 ? 'piece' : 'pieces'} under ${length(SPECK_MM)}: too small to weed or to stick.`,
        mend: {
          label: 'Drop them',
          action: { kind: 'drop-specks', layerId: layer.id, pieceIds: figure.specks },
        },
      })
    }
    const seen = visible.find((v) => v.id === layer.id)
    // A cover is seen from behind, a ring from nowhere.
    if (
      layer.role !== 'cover' &&
      !isStandOff(layer) &&
      seen &&
      seen.areaMm2 > 0 &&
      seen.visibleMm2 < seen.areaMm2 * 0.001
    )
      snags.push({
        code: 'hidden-layer',
        stage: 'layers',
        severity: 'caution',
        layer: layer.id,
        at: null,
        message: `Nothing of “${layer.name}” shows from the front: a plain sheet would do, or none.`,
        ...(!carriesAlone(project, layer) && {
          mend: { label: 'Leave it out', action: { kind: 'leave-out' as const, layerId: layer.id } },
        }),
      })
  }
  return snags
}
