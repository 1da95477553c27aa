// Several projects on the same sheets: a host keeps a copy of what its guests have to cut.
import { fingerprint, fresh, type Memo } from '../base'
import { mapRegion, polygonToPath } from '../base/geometry'
import { pieceRegion } from './faces'
import { cutSoFar, wholePieces, withoutSpoilt } from './cut-elsewhere'
import { builtLayers, cutPieces, mirrorOf } from './lookup'
import { setPlan } from './set-plan'
import { MOST } from './limits'
import { picturesOf } from './prints'
import type { CutElsewhere, Guest, Layer, Paper, Project } from './schema'

/** A layer that is cut on a project's sheets: its own, or a guest's. */
export interface CutLayer {
  /** Unlike that of any other layer that is cut here; for own layers the layer's id. */
  id: string
  layer: Layer
  paper: Paper | undefined
  /** Number from the back; for guests with the guest's letter before it, such as A2. */
  folio: string
  /** How often every piece of it is cut. */
  copies: number
  guest: Guest | null
}

/** The letter a guest goes by on tabs and tags. */
export const guestLetter = (n: number): string => String.fromCharCode(65 + n)

/** Stands before the ids of a guest's layers among all that are cut. */
export const guestPrefix = (guest: Pick<Guest, 'projectId'>): string => `${guest.projectId}:`

/** A layer as the sheets have it: its blanks in place of what they become, mirrored where it is cut so. */
function asCut(layer: Layer, memo: Memo): Layer {
  if (layer.blanks.length === 0 && !layer.cutMirrored) return layer
  return memo('as cut', [layer], () => ({
    ...layer,
    pieces: layer.cutMirrored ? mirrored(layer) : cutPieces(layer),
  }))
}

function mirrored(layer: Layer): Layer['pieces'] {
  const mirror = mirrorOf(layer)
  return cutPieces(layer).map((piece) => ({
    ...piece,
    path: mapRegion(mirror, pieceRegion(piece)).map(polygonToPath).join(''),
  }))
}

/**
 * Everything that is cut on a project's sheets, its own layers first. None where it is cut along with another.
 * @param memo remembers layers that are cut mirrored
 */
export function cutLayers(project: Project, memo: Memo = fresh): CutLayer[] {
  const { plan, drawer } = project
  if (plan.cutWith) return []
  const own = builtLayers(project).map((layer, i): CutLayer => {
    const paper = drawer.papers.find((p) => p.id === layer.paperId)
    return {
      id: layer.id,
      layer: asCut(layer, memo),
      paper,
      folio: String(i + 1),
      copies: layer.copies * plan.batch,
      guest: null,
    }
  })
  const guests = plan.guests.flatMap((guest, n) =>
    guest.layers.map((layer, i): CutLayer => {
      const paper = [...drawer.papers, ...guest.papers].find((p) => p.id === layer.paperId)
      return {
        id: guestPrefix(guest) + layer.id,
        layer: asCut(layer, memo),
        paper,
        folio: `${guestLetter(n)}${i + 1}`,
        copies: layer.copies * guest.batch,
        guest,
      }
    }),
  )
  return [...own, ...guests]
}

/** What of a project goes along onto another's sheets: all of it, and what is cut of it already but for what that one has cut itself. */
export function guestOf(project: Project, hostId: string): Guest {
  const layers = builtLayers(project)
  const papers = project.drawer.papers
    .filter((paper) => layers.some((layer) => layer.paperId === paper.id))
    .map((paper) => ({ ...paper, offCuts: [] }))
  return {
    projectId: project.id,
    name: project.name,
    batch: project.plan.batch,
    mount: project.mount,
    layers,
    papers,
    pictures: picturesOf(project, layers),
    cut: cutSoFar(project, hostId),
    spoilt: project.cutElsewhere.find(({ projectId }) => projectId === hostId)?.spoilt ?? [],
  }
}

/** A guest as a project of its own, planned as its host is. */
export const guestProject = (host: Project, guest: Guest): Project => ({
  ...host,
  id: guest.projectId,
  name: guest.name,
  mount: guest.mount,
  layers: guest.layers,
  grown: [],
  pictures: guest.pictures,
  drawer: { ...host.drawer, papers: guest.papers },
  plan: { ...host.plan, pins: [], guests: [], cutWith: null },
  cut: [],
  cutElsewhere: [],
})

/** What one needs to know of a project on the shelf to tell who may be cut along with whom. */
export interface Shelved {
  id: string
  name: string
  /** How many layers it has. */
  layers: number
  guestIds: readonly string[]
}

/** What another project needs to know of this one to be cut along. */
export const shelved = (project: Project): Shelved => ({
  id: project.id,
  name: project.name,
  layers: builtLayers(project).length,
  guestIds: project.plan.guests.map((guest) => guest.projectId),
})

/** Those of a shelf that may go along onto a project's sheets: with layers, and nobody's guests or hosts. */
export function mayGoAlong<T extends Shelved>(host: Project, shelf: readonly T[]): T[] {
  if (host.plan.cutWith || host.plan.guests.length >= MOST.guests) return []
  const taken = new Set([shelved(host), ...shelf].flatMap(({ guestIds }) => guestIds))
  return shelf.filter(
    (other) =>
      other.id !== host.id && !taken.has(other.id) && other.guestIds.length === 0 && other.layers > 0,
  )
}

/**
 * Who else of a shelf cuts the pieces of a host's guest, as when the host was off the shelf for a while: another host, or the guest itself where it
 * has guests of its own.
 */
export const alsoCutBy = <T extends Shelved>(host: Project, projectId: string, shelf: readonly T[]): T[] =>
  shelf.filter(({ id, guestIds }) =>
    id === projectId ? guestIds.length > 0 : id !== host.id && guestIds.includes(projectId),
  )

/** Takes a project's pieces along, or takes them anew as they are now. */
export function takeAlong(host: Project, other: Project): Project {
  const guest = guestOf(other, host.id)
  const at = host.plan.guests.findIndex((g) => g.projectId === guest.projectId)
  const guests = at < 0 ? [...host.plan.guests, guest] : host.plan.guests.with(at, guest)
  return setPlan(host, { guests })
}

/** Lets a guest go; pins of its pieces go with it. */
export const sendHome = (host: Project, projectId: string): Project =>
  setPlan(host, {
    guests: host.plan.guests.filter((guest) => guest.projectId !== projectId),
    pins: host.plan.pins.filter((pin) => !pin.layerId.startsWith(guestPrefix({ projectId }))),
  })

/** Whether a guest is no longer what its host holds of it. */
export const hasChanged = (guest: Guest, now: Project, hostId: string): boolean => {
  const fresh = guestOf(now, hostId)
  const known = ({ name, batch, mount, layers, papers, cut, spoilt }: Guest) => {
    // How it is stuck or shown on screen changes nothing on the sheets.
    const shapes = layers.map((layer) => ({ ...layer, joint: null, hidden: null }))
    return fingerprint([
      name,
      batch,
      mount,
      shapes,
      papers.map(({ id, widthMm, heightMm }) => [id, widthMm, heightMm]),
      cut.map(({ paper, pieces }) => [paper.id, pieces]),
      spoilt,
    ])
  }
  return known(guest) !== known(fresh)
}

/** A project knowing whose sheets it is cut from, by what is on the shelf now. One with guests has sheets of its own. */
export function refreshHost(project: Project, shelf: readonly Shelved[]): Project {
  const isHost = project.plan.guests.length > 0
  const host = isHost
    ? undefined
    : shelf.find((other) => other.id !== project.id && other.guestIds.includes(project.id))
  const now = project.plan.cutWith
  if ((now?.projectId ?? null) === (host?.id ?? null) && (now?.name ?? null) === (host?.name ?? null))
    return project
  return setPlan(project, { cutWith: host ? { projectId: host.id, name: host.name } : null })
}

/** What a host's book has of a project's pieces: those that are whole, under its own layers' names. */
function cutFor(host: Project, { id, layers, cutElsewhere }: Project): CutElsewhere {
  const prefix = guestPrefix({ projectId: id })
  const sheets = wholePieces(host.cut, (piece) => {
    if (piece.guestId !== id) return null
    const layerId = piece.layerId.slice(prefix.length)
    return { layerId, layerName: layers.find((layer) => layer.id === layerId)?.name ?? piece.layerName }
  })
  const { spoilt = [] } = cutElsewhere.find(({ projectId }) => projectId === host.id) ?? {}
  // What the book no longer has, or has as spoilt itself, is of no account.
  const whole = sheets.flatMap(({ paper, pieces }) =>
    pieces.map((piece) => ({ ...piece, paperId: paper.id })),
  )
  const moot = new Set(withoutSpoilt(spoilt, whole))
  return { projectId: host.id, name: host.name, sheets, spoilt: spoilt.filter((one) => !moot.has(one)) }
}

/** Counts no longer what was cut with another: it is laid again. */
export const forgetCut = (project: Project, hostId: string): Project => ({
  ...project,
  cutElsewhere: project.cutElsewhere.filter(({ projectId }) => projectId !== hostId),
})

/** What tells of a project. */
export interface Books {
  /** Projects on the shelf that have cut pieces of it. */
  books: readonly Project[]
  /** All that is there, as its index has it. */
  shelf: readonly Shelved[]
  /** What of it cannot be read: what was known of it stays. */
  unread: ReadonlySet<string>
}

/** A project knowing whose sheets it is cut from, and what of it was cut on others' sheets; the same where it knew. */
export const toldBy = (project: Project, { books, shelf, unread }: Books): Project =>
  refreshHost(
    refreshCutElsewhere(project, { books, shelf: shelf.filter(({ id }) => !unread.has(id)) }),
    shelf,
  )

/**
 * A project knowing what of it was cut on others' sheets. What a book tells that can be read counts; of one that is no longer there, what was
 * known of it.
 */
export function refreshCutElsewhere(
  project: Project,
  { books, shelf }: { books: Books['books']; shelf: readonly Pick<Shelved, 'id'>[] },
): Project {
  const there = new Set(shelf.map(({ id }) => id))
  const told = books
    .filter(({ id }) => id !== project.id)
    .map((book) => cutFor(book, project))
    .filter(({ sheets }) => sheets.length > 0)
  const ids = new Set(told.map(({ projectId }) => projectId))
  const lost = project.cutElsewhere.filter(({ projectId }) => !there.has(projectId) && !ids.has(projectId))
  // In one order, whichever was saved last.
  const cutElsewhere = [...lost, ...told].toSorted((a, b) => (a.projectId < b.projectId ? -1 : 1))
  return fingerprint(cutElsewhere) === fingerprint(project.cutElsewhere)
    ? project
    : { ...project, cutElsewhere }
}
