// Findings about pictures that are printed on layers.
import { offset, polygonArea, regionArea, subtract, type Polygon } from '../../base/geometry'
import { length, say } from '../../base/units'
import {
  builtLayers,
  layerRegion,
  pictureOf,
  printCorners,
  printDpi,
  type Layer,
  type Project,
  type Snag,
} from '../../project'

/** Under so many pixels an inch the grain of a print is seen at arm's length. */
export const FINE_DPI = 150
/** So much of a layer and its bleed may be bare before it is told, mm². */
const BARE_MM2 = 0.5

/** What of a layer, its bleed included, the picture leaves bare. Empty for plain card. Needs the geometry loaded. */
export function bareOf(project: Pick<Project, 'pictures'>, layer: Layer): Polygon[] {
  const picture = pictureOf(project, layer)
  if (!layer.print || !picture) return []
  const corners: Polygon = { outer: printCorners(layer.print.map, picture), holes: [] }
  const outer = polygonArea(corners) > 0 ? corners.outer : turned(corners.outer)
  return subtract(offset(layerRegion(layer), layer.print.bleedMm), [{ outer, holes: [] }])
}

/** A ring the other way round. */
function turned(ring: Float64Array): Float64Array {
  const out = new Float64Array(ring.length)
  for (let i = 0; i < ring.length; i += 2) out.set(ring.subarray(ring.length - 2 - i, ring.length - i), i)
  return out
}

/** How large a design may become before a picture on it is coarse. */
export interface PrintLimit {
  layerId: string
  /** Factor on the size that it has now. */
  scale: number
  /** Pixels an inch as it is now. */
  dpi: number
}

/** The picture that is the first to come out coarse when all is made larger; null where nothing is printed. */
export const printLimit = (project: Project): PrintLimit | null =>
  builtLayers(project)
    .flatMap((layer): PrintLimit[] => {
      if (!layer.print || !pictureOf(project, layer)) return []
      const dpi = printDpi(layer.print.map)
      return [{ layerId: layer.id, scale: dpi / FINE_DPI, dpi }]
    })
    .toSorted((a, b) => a.scale - b.scale)[0] ?? null

/** Prints that come out coarse, leave card bare, or have lost their picture. Needs the geometry loaded. */
export function printSnags(project: Project): Snag[] {
  return project.layers.flatMap((layer): Snag[] => {
    if (!layer.print) return []
    const about = { stage: 'layers' as const, severity: 'caution' as const, layer: layer.id, at: null }
    if (!pictureOf(project, layer))
      return [
        {
          ...about,
          code: 'print-gone',
          message: `The picture that “${layer.name}” is printed with is not in this project: bring it in again.`,
          mend: { label: 'Leave it plain', action: { kind: 'take-off-print', layerId: layer.id } },
        },
      ]
    const snags: Snag[] = []
    const dpi = printDpi(layer.print.map)
    if (dpi < FINE_DPI)
      snags.push({
        ...about,
        code: 'print-coarse',
        message: `“${layer.name}” is printed at ${Math.round(dpi)} dpi: under ${FINE_DPI} its grain shows. A picture with more pixels, or a smaller one, comes out finer.`,
      })
    if (regionArea(bareOf(project, layer)) > BARE_MM2)
      snags.push({
        ...about,
        code: 'print-bare',
        message: say`The picture does not reach over all of “${layer.name}” and ${length(layer.print.bleedMm)} of bleed: white card shows.`,
        mend: { label: 'Let it cover all', action: { kind: 'cover-with-print', layerId: layer.id } },
      })
    return snags
  })
}
