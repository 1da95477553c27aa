// What is kept in the browser, and how: one record a project with its revision, an index for the shelf, past versions,
// drafts of pages that were left in haste, and the shared drawer. The same for a browser that keeps it and for a page that
// can only remember it.
import type { Paper, Project, StockChanges, Supplies, SupplyChanges } from '@feuillet/core/project'

/** A shape of a small picture: path data in mm, and its colour. */
export interface PictureShape {
  path: string
  fill: string
}

export interface Picture {
  /** x, y, width, height in mm. */
  box: [number, number, number, number]
  shapes: PictureShape[]
}

/** A project as it is kept: its text, and which revision it is of. */
export interface KeptProject {
  id: string
  revision: number
  text: string
  savedAt: number
  /** What was changed last. */
  label: string
  /** The page that kept it, and which of its states it is: what a draft of that page is measured against. */
  page: string
  seq: number
}

/** What the shelf shows of a project without reading it. */
export interface ShelfEntry {
  id: string
  name: string
  kind: Project['mount']['kind']
  widthMm: number
  heightMm: number
  unit: Project['unit']
  layers: number
  savedAt: number
  revision: number
  picture: Picture | null
  /** Ids of the projects whose pieces it cuts along. */
  guestIds: string[]
  /** Ids of other projects of which pieces are on its cut sheets. */
  cutForIds: string[]
  /** The project that cuts its pieces along; null where it has sheets of its own. */
  cutWith: string | null
  schemaVersion: number
  /** Why it cannot be changed: damaged, or of a newer version; null where it can. */
  trouble: { kind: 'damaged' | 'newer'; sentence: string } | null
}

export interface PastVersion {
  projectId: string
  savedAt: number
  label: string
  text: string
  picture: Picture | null
}

/** The last state of a page that was left before it could be saved. */
export interface Draft {
  key: string
  id: string
  /** The revision it goes on from. */
  base: number
  page: string
  seq: number
  text: string
  savedAt: number
  label: string
  stock: StockChanges | null
  supplies?: SupplyChanges | null
}

export interface ToSave {
  kept: KeptProject
  entry: ShelfEntry
  /** The revision in the store that this one goes on from; null where it is new, or is to replace whatever is there. */
  base: number | null
  /** Puts what was there before among the past versions. */
  keepVersion: boolean
  stock: StockChanges | null
  supplies?: SupplyChanges | null | undefined
}

export type SaveAnswer =
  /** The drawer as it is with what was changed; null of what was not. */
  | { ok: true; stock: Paper[] | null; supplies: Supplies | null }
  /** The store holds a later revision. */
  | { ok: false; revision: number }

export interface Vault {
  /** Whether what is kept outlives the page. */
  readonly lasting: boolean
  save(what: ToSave): Promise<SaveAnswer>
  read(id: string): Promise<KeptProject | undefined>
  remove(id: string): Promise<void>
  entries(): Promise<ShelfEntry[]>
  /** Ids of all kept projects, in the index or not. */
  ids(): Promise<string[]>
  putEntry(entry: ShelfEntry): Promise<void>
  versions(id: string): Promise<PastVersion[]>
  drafts(id: string): Promise<Draft[]>
  /** Begins to write at once, and does not wait: for pages that are being closed. */
  putDraft(draft: Draft): void
  dropDraft(key: string): Promise<void>
  readStock(): Promise<Paper[] | undefined>
  changeStock(changes: StockChanges): Promise<Paper[]>
  putStock(stock: Paper[]): Promise<void>
  /** As it was kept, of whatever version; undefined where nothing is. */
  readSupplies(): Promise<unknown>
  changeSupplies(changes: SupplyChanges): Promise<Supplies>
}

/** So many past versions of a project are kept; one is kept at the most every so often (ms). */
export const MOST_VERSIONS = 10
export const VERSION_EVERY_MS = 10 * 60_000
