// What the shelf shows of a project, made when it is saved: a line of facts and a small picture.
import { plainPath } from '@feuillet/core/base/geometry'
import {
  builtLayers,
  colourOf,
  cutForOthers,
  layerRegion,
  viewBox,
  type Project,
} from '@feuillet/core/project'
import type { Picture, ShelfEntry } from './vault'

/** Pixels a picture is drawn across on the shelf, and points it may have in all. */
const ACROSS_PX = 220
const MOST_POINTS = 6000

/** A small picture of the stack: as fine as the shelf shows it, coarser where there is much. */
export function pictureOf(project: Project): Picture | null {
  const layers = builtLayers(project).filter((layer) => !layer.hidden)
  if (layers.length === 0) return null
  const { minX, minY, maxX, maxY } = viewBox(project)
  const [w, h] = [maxX - minX, maxY - minY]
  if (!(w > 0 && h > 0)) return null
  const corners = layers.reduce(
    (n, layer) => n + layerRegion(layer).reduce((m, face) => m + face.outer.length, 0),
    0,
  )
  const px = (Math.max(w, h) / ACROSS_PX) * Math.max(1, Math.min(6, corners / 2 / MOST_POINTS))
  const least = (2 * px) ** 2
  return {
    box: [minX, minY, w, h],
    shapes: layers.map((layer) => ({
      fill: colourOf(project, layer),
      path: layerRegion(layer)
        .filter(({ outer }) => outer.length > 0 && sizeOf(outer) > least)
        .map((face) => plainPath(face, px * 0.4))
        .join(''),
    })),
  }
}

/** Width times height of a ring's box. */
function sizeOf(ring: Float64Array): number {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = 0; i < ring.length; i += 2) {
    x0 = Math.min(x0, ring[i]!)
    x1 = Math.max(x1, ring[i]!)
    y0 = Math.min(y0, ring[i + 1]!)
    y1 = Math.max(y1, ring[i + 1]!)
  }
  return (x1 - x0) * (y1 - y0)
}

export function entryOf(project: Project, revision: number, savedAt: number): ShelfEntry {
  const { minX, minY, maxX, maxY } = viewBox(project)
  return {
    id: project.id,
    name: project.name,
    kind: project.mount.kind,
    widthMm: maxX - minX,
    heightMm: maxY - minY,
    unit: project.unit,
    layers: project.layers.length,
    savedAt,
    revision,
    picture: pictureOf(project),
    guestIds: project.plan.guests.map((guest) => guest.projectId),
    cutForIds: cutForOthers(project),
    cutWith: project.plan.cutWith?.projectId ?? null,
    schemaVersion: project.schemaVersion,
    trouble: null,
  }
}

/** The entry of a project that cannot be read: shown, exported, and left as it is. */
export const entryInTrouble = (
  id: string,
  trouble: NonNullable<ShelfEntry['trouble']>,
  known?: Partial<ShelfEntry>,
): ShelfEntry => ({
  name: 'A project that cannot be read',
  kind: 'free',
  widthMm: 0,
  heightMm: 0,
  unit: 'mm',
  layers: 0,
  savedAt: 0,
  revision: 0,
  picture: null,
  guestIds: [],
  cutForIds: [],
  cutWith: null,
  schemaVersion: 0,
  ...known,
  id,
  trouble,
})
