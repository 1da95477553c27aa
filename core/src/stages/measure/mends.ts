import {
  boxHeight,
  boxWidth,
  joinBoxes,
  mapRing,
  polygonBox,
  polygonToPath,
  ringBox,
} from '../../base/geometry'
import {
  findLayer,
  layerRegion,
  openingRect,
  pieceRegion,
  scaleAndMove,
  setLayer,
  type MendTable,
  type Project,
} from '../../project'
import { fitDesign, fitSheet } from './measure'
import { rescaled, type Measure } from './slips'

declare module '../../project/snag' {
  interface Mends {
    'fit-design': object
    'fit-sheet': { layerId: string }
    'fit-opening': { layerId: string }
    'leave-spacer': object
    'set-opening': { widthMm: number; heightMm: number }
    'other-unit': { measure: Measure; factor: number }
  }
}

/** Mends of the measure stage. */
export const measureMends: MendTable<
  'fit-design' | 'fit-sheet' | 'fit-opening' | 'leave-spacer' | 'set-opening' | 'other-unit'
> = {
  'fit-design': (project) => fitDesign(project),
  'fit-sheet': (project, { layerId }) => fitSheet(project, layerId),
  'fit-opening': (project, { layerId }) => fitOpening(project, layerId),
  'leave-spacer': (project) =>
    project.mount.kind === 'frame'
      ? { ...project, mount: { ...project.mount, ring: { ...project.mount.ring, kept: false } } }
      : project,
  'set-opening': (project, { widthMm, heightMm }) =>
    project.mount.kind === 'frame'
      ? {
          ...project,
          mount: { ...project.mount, opening: { widthMm, heightMm }, openingShift: { xMm: 0, yMm: 0 } },
        }
      : project,
  'other-unit': (project, { measure, factor }) => ({
    ...project,
    mount: rescaled(project.mount, measure, factor),
  }),
}

/** Draws the openings of a sheet in, together and with proportions locked, until they leave the air asked for; its outline stays. */
function fitOpening(project: Project, layerId: string): Project {
  const layer = findLayer(project, layerId)
  const opening = openingRect(project)
  const holes = layer ? layerRegion(layer).flatMap((face) => face.holes) : []
  if (!layer || !opening || project.mount.kind !== 'frame' || holes.length === 0) return project
  const seen = polygonBox(opening)
  const box = joinBoxes(holes.map(ringBox))
  const { airMm } = project.mount
  const room = [boxWidth(seen) - 2 * airMm, boxHeight(seen) - 2 * airMm] as const
  const factor = Math.min(1, room[0] / boxWidth(box), room[1] / boxHeight(box))
  if (!(factor > 0)) return project
  const map = scaleAndMove(
    factor,
    { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 },
    { x: (seen.minX + seen.maxX) / 2, y: (seen.minY + seen.maxY) / 2 },
  )
  return setLayer(project, layerId, {
    pieces: layer.pieces.map((piece) => ({
      ...piece,
      path: pieceRegion(piece)
        .map((face) =>
          polygonToPath({ outer: face.outer, holes: face.holes.map((hole) => mapRing(map, hole)) }),
        )
        .join(''),
    })),
  })
}
