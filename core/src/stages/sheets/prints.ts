// Pictures on the sheets: where each lies that is printed before a load is cut, and the marks that the cut goes by.
import {
  boxesMeet,
  compose,
  growBox,
  joinBoxes,
  offset,
  polygonBox,
  regionBox,
  rotation,
  subtract,
  translation,
  type Affine,
  type Box,
  type Polygon,
} from '../../base/geometry'
import {
  guestPrefix,
  guestProject,
  mirrorOf,
  pictureOf,
  type Layer,
  type Picture,
  type Project,
} from '../../project'
import type { LaidPiece, Load } from './loads/loads'

/** A picture as it is printed on a sheet. */
export interface SheetPrint {
  picture: Picture
  /** From its pixels to mm from the sheet's corner. */
  map: Affine
  /** What is inked: the piece with its bleed, other pieces left out. */
  inked: Polygon[]
}

/** Arms of a mark, and how far it stands off what is inked, mm. */
const ARM_MM = 6
const OFF_MM = 2
/** Printers leave so much of a sheet's edge free, mm. */
const PRINTER_RIM_MM = 5

/** Whose project a piece belongs to, and its layer there. */
function ownerOf(
  project: Project,
  { layerId, guestId }: Pick<LaidPiece, 'layerId' | 'guestId'>,
): { owner: Project; layer: Layer } | null {
  const guest = project.plan.guests.find((one) => one.projectId === guestId)
  const owner = guest ? guestProject(project, guest) : project
  const id = guest ? layerId.slice(guestPrefix(guest).length) : layerId
  const layer = owner.layers.find((one) => one.id === id)
  return layer ? { owner, layer } : null
}

/** The picture of a piece that lies on a sheet and its map there; null for plain card. */
export function printOfPiece(
  project: Project,
  piece: Pick<LaidPiece, 'layerId' | 'guestId' | 'placement' | 'printed'>,
): { picture: Picture; map: Affine; bleedMm: number } | null {
  const own = piece.printed ? ownerOf(project, piece) : null
  if (!own?.layer.print) return null
  const picture = pictureOf(own.owner, own.layer)
  if (!picture) return null
  const { x, y, rotation: deg } = piece.placement
  const laid = compose(translation(x, y), rotation(deg))
  const { map, bleedMm } = own.layer.print
  return {
    picture,
    map: compose(laid, own.layer.cutMirrored ? compose(mirrorOf(own.layer), map) : map),
    bleedMm,
  }
}

/** Pictures of a load, with what of each is inked. Needs the geometry loaded. */
export function printsOf(project: Project, load: Pick<Load, 'pieces'>): SheetPrint[] {
  const boxes = load.pieces.map(({ shape }) => polygonBox(shape))
  return load.pieces.flatMap((piece, k): SheetPrint[] => {
    const print = printOfPiece(project, piece)
    if (!print) return []
    const whole = offset([piece.shape], print.bleedMm)
    const reach = regionBox(whole)
    const others = load.pieces.filter((_, i) => i !== k && boxesMeet(boxes[i]!, reach))
    const inked =
      others.length > 0
        ? subtract(
            whole,
            others.map(({ shape }) => shape),
          )
        : whole
    return [{ picture: print.picture, map: print.map, inked }]
  })
}

/**
 * Corner marks round all pieces of a printed load, as open lines in mm from the sheet's corner: three of them, so that a
 * sheet laid the wrong way round is seen. They stand clear of every piece, and where printers still print.
 */
export function cuttingMarks(
  load: Pick<Load, 'pieces' | 'widthMm' | 'heightMm'>,
  inked: readonly Polygon[],
): Float64Array[] {
  const all = joinBoxes([...load.pieces.map(({ shape }) => polygonBox(shape)), ...inked.map(polygonBox)])
  const b = within(growBox(all, OFF_MM), load)
  const corner = ([x, y]: readonly [number, number], across: number, down: number) =>
    Float64Array.of(x + across * ARM_MM, y, x, y, x, y + down * ARM_MM)
  return [corner([b.minX, b.minY], 1, 1), corner([b.maxX, b.minY], -1, 1), corner([b.minX, b.maxY], 1, -1)]
}

const within = (b: Box, { widthMm, heightMm }: Pick<Load, 'widthMm' | 'heightMm'>): Box => ({
  minX: Math.max(b.minX, Math.min(PRINTER_RIM_MM, b.minX + OFF_MM)),
  minY: Math.max(b.minY, Math.min(PRINTER_RIM_MM, b.minY + OFF_MM)),
  maxX: Math.min(b.maxX, Math.max(widthMm - PRINTER_RIM_MM, b.maxX - OFF_MM)),
  maxY: Math.min(b.maxY, Math.max(heightMm - PRINTER_RIM_MM, b.maxY - OFF_MM)),
})
