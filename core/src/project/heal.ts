// What can be put right in a damaged or foreign document, so that one bad part never takes the others along. First names
// and ids in the raw document, before the schema sees it; then shapes in the project.
import { BadInput, fingerprint } from '../base'
import {
  boxHeight,
  boxWidth,
  cornersOf,
  pathToRegion,
  polygonToPath,
  regionBox,
  type Region,
} from '../base/geometry'
import { LIMITS, MOST } from './limits'
import { pieceRegion } from './faces'
import {
  grownSchema,
  tieSchema,
  type Guest,
  type Layer,
  type Paper,
  type Piece,
  type Project,
} from './schema'

type Doc = Record<string, unknown>

const isDoc = (value: unknown): value is Doc =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Signs set upon a letter, beyond any script's need: they make a name that no screen can draw. */
const PILED_MARKS = /(\p{M}{4})\p{M}+/gu
/** Signs that control lines and the direction of reading; joiners stay, since scripts need them. */
const CONTROL = /[\p{Cc}\p{Zl}\p{Zp}\p{Cs}\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]+/gu

/** A name that can be drawn in one line and written to a file. */
export const tidyName = (name: string): string =>
  name
    .slice(0, 20 * MOST.name)
    .replace(CONTROL, ' ')
    .replace(PILED_MARKS, '$1')
    .trim()
    .slice(0, MOST.name)

const SAFE_ADDRESS = /^[A-Za-z0-9_-]{1,80}$/
const SAFE_ID = /^[\p{L}\p{N}_-][\p{L}\p{N}._:-]{0,119}$/u

/** Letters, figures and dashes of an id, with a short name of the whole so that it stays unlike others. */
const safeId = (id: string): string =>
  `${
    id
      .replace(/[^A-Za-z0-9_-]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'id'
  }-${fingerprint(id)}`

/** Gives the raw document names and ids that are safe, and drops recipes that no maker takes. Says what it did. */
export function tidyDocument(doc: Doc, healed: string[]): Doc {
  const renamed = { names: 0, ids: 0 }
  const name = (holder: Doc, fallback: string): Doc => {
    const { name: old } = holder
    if (typeof old !== 'string') return holder
    const tidy = tidyName(old) || fallback
    if (tidy === old) return holder
    if (tidy !== old.trim()) renamed.names++
    return { ...holder, name: tidy }
  }
  const id = (value: unknown): unknown => {
    if (typeof value !== 'string' || value === '' || SAFE_ID.test(value)) return value
    renamed.ids++
    return safeId(value)
  }
  const piece = (value: unknown): unknown => (isDoc(value) ? { ...value, id: id(value['id']) } : value)
  const paper = (value: unknown): unknown =>
    isDoc(value) ? name({ ...value, id: id(value['id']) }, 'Paper') : value
  let untied = 0
  /** Ties that can be read; the card of the others stays with the pieces. */
  const ties = (value: unknown): unknown => {
    if (!Array.isArray(value)) return value
    const sound = value.filter(isSoundTie)
    untied += value.length - sound.length
    return sound
  }
  // A fold was once its line alone.
  const fold = (value: unknown): unknown => (Array.isArray(value) ? { line: value } : value)
  const layer = (value: unknown): unknown =>
    isDoc(value)
      ? name(
          {
            ...value,
            id: id(value['id']),
            ...mapped(value, 'paperId', id),
            ...each(value, 'pieces', piece),
            ...each(value, 'folds', fold),
            ...mapped(value, 'ties', ties),
          },
          '',
        )
      : value
  const guest = (value: unknown): unknown =>
    isDoc(value)
      ? name(
          {
            ...value,
            ...mapped(value, 'projectId', id),
            ...each(value, 'layers', layer),
            ...each(value, 'papers', paper),
          },
          'Guest',
        )
      : value
  const pin = (value: unknown): unknown =>
    isDoc(value) ? { ...value, ...mapped(value, 'layerId', id), ...mapped(value, 'pieceId', id) } : value
  const plan = (value: unknown): unknown =>
    isDoc(value)
      ? {
          ...value,
          ...mapped(value, 'heroLayerId', id),
          ...each(value, 'pins', pin),
          ...each(value, 'guests', guest),
        }
      : value
  const drawer = (value: unknown): unknown =>
    isDoc(value) ? { ...value, ...each(value, 'papers', paper) } : value

  let tidy: Doc = name(
    { ...doc, ...each(doc, 'layers', layer), ...mapped(doc, 'plan', plan), ...mapped(doc, 'drawer', drawer) },
    'Untitled',
  )
  if (typeof tidy['id'] === 'string' && tidy['id'] !== '' && !SAFE_ADDRESS.test(tidy['id'])) {
    tidy = { ...tidy, id: safeId(tidy['id']) }
    renamed.ids++
  }
  if (renamed.names > 0)
    healed.push(
      `${counted(renamed.names, 'name')} that cannot be written in a line ${renamed.names === 1 ? 'was' : 'were'} shortened.`,
    )
  if (renamed.ids > 0)
    healed.push(
      `${counted(renamed.ids, 'id')} with signs that cannot stand in an address ${renamed.ids === 1 ? 'was' : 'were'} changed.`,
    )
  if (untied > 0)
    healed.push(
      `${counted(untied, 'tie')} could not be read and ${untied === 1 ? 'was' : 'were'} left out; the card stays.`,
    )
  if (!Array.isArray(tidy['grown'])) return tidy
  const sound = tidy['grown'].filter((entry) => grownSchema.safeParse(entry).success)
  const lost = tidy['grown'].length - sound.length
  if (lost > 0)
    healed.push(
      `${counted(lost, 'recipe')} of grown layers could not be read and ${lost === 1 ? 'was' : 'were'} left out; the layers stay.`,
    )
  return { ...tidy, grown: sound }
}

/** One key of a document changed, where it is there. */
const mapped = (doc: Doc, key: string, change: (value: unknown) => unknown): Doc =>
  key in doc && doc[key] !== null ? { [key]: change(doc[key]) } : {}

const each = (doc: Doc, key: string, change: (value: unknown) => unknown): Doc => {
  const list = doc[key]
  return Array.isArray(list) ? { [key]: list.map(change) } : {}
}

const counted = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`

const LEAST_MM2 = 1e-6

/** Whether card could be cut to a shape: it has faces, and lies where card may lie. */
function canBeCut(region: Region): boolean {
  if (region.length === 0) return false
  const b = regionBox(region)
  const [least, most] = LIMITS.coordinateMm
  return (
    b.minX >= least &&
    b.minY >= least &&
    b.maxX <= most &&
    b.maxY <= most &&
    boxWidth(b) * boxHeight(b) > LEAST_MM2
  )
}

/** Whether a tie of a raw document says where it lies and what card it added. */
function isSoundTie(value: unknown): boolean {
  const { success, data } = tieSchema.safeParse(value)
  if (!success) return false
  try {
    return canBeCut(pathToRegion(data.added))
  } catch {
    return false
  }
}

/**
 * Takes out pieces and off-cuts without a face, parts pieces of several faces, and gives equal ids of pieces new ones; each is told in
 * `healed`. Throws BadInput where outlines cannot be read, or have more corners than can be planned together.
 */
export function healProject(project: Project, healed: string[]): Project {
  let corners = 0
  const layers = (list: readonly Layer[], of: string): Layer[] =>
    list.map((layer) => {
      const pieces = soundPieces(layer, of, healed)
      for (const piece of pieces)
        corners += pieceRegion(piece).reduce((sum, face) => sum + cornersOf(face), 0)
      return pieces === layer.pieces ? layer : { ...layer, pieces }
    })
  const papers = (list: Paper[]): Paper[] => list.map((paper) => soundPaper(paper, healed))
  const guests = project.plan.guests.map((guest): Guest => ({
    ...guest,
    layers: layers(guest.layers, ` of “${guest.name}”`),
    papers: papers(guest.papers),
  }))
  const next: Project = {
    ...project,
    layers: layers(project.layers, ''),
    drawer: { ...project.drawer, papers: papers(project.drawer.papers) },
    plan: { ...project.plan, guests },
  }
  if (corners > MOST.corners)
    throw new BadInput(
      `its outlines have ${corners} corners, more than the ${MOST.corners} that can be planned together`,
    )
  return next
}

function soundPieces(layer: Layer, of: string, healed: string[]): Piece[] {
  const ids = new Set<string>()
  const out: Piece[] = []
  let lost = 0
  let parted = 0
  for (const piece of layer.pieces) {
    const faces = facesOrThrow(layer, piece)
    if (!canBeCut(faces)) {
      lost++
      continue
    }
    if (faces.length > 1) parted++
    const parts =
      faces.length === 1
        ? [piece]
        : faces.map((face, i) => ({ ...piece, id: `${piece.id}-${i + 1}`, path: polygonToPath(face) }))
    for (const part of parts) {
      let { id } = part
      for (let n = 2; ids.has(id); n++) id = `${part.id}-${n}`
      ids.add(id)
      out.push(id === part.id ? part : { ...part, id })
    }
  }
  if (lost > 0)
    healed.push(
      `${counted(lost, 'piece')} of layer “${layer.name}”${of} had no face that card could be cut to and ${lost === 1 ? 'was' : 'were'} left out.`,
    )
  if (parted > 0)
    healed.push(
      `${counted(parted, 'piece')} of layer “${layer.name}”${of} ${parted === 1 ? 'was' : 'were'} of several parts, which are pieces of their own now.`,
    )
  return out.length === layer.pieces.length && out.every((piece, i) => piece === layer.pieces[i])
    ? layer.pieces
    : out
}

function facesOrThrow(layer: Layer, piece: Piece): Region {
  try {
    return pieceRegion(piece)
  } catch (error) {
    throw new BadInput(`layer “${layer.name}”, piece ${piece.id}: ${(error as Error).message}`)
  }
}

function soundPaper(paper: Paper, healed: string[]): Paper {
  const offCuts = paper.offCuts.filter((offCut) => {
    try {
      return canBeCut(pieceRegion(offCut))
    } catch {
      return false
    }
  })
  const lost = paper.offCuts.length - offCuts.length
  if (lost === 0) return paper
  healed.push(
    `${counted(lost, 'off-cut')} of ${paper.name} could not be read and ${lost === 1 ? 'was' : 'were'} left out.`,
  )
  return { ...paper, offCuts }
}
