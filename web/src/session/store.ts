// The vault of this page: the browser's store where there is one, else a memory; with what an older Feuillet kept brought over.
import localforage from 'localforage'
import { BadInput } from '@feuillet/core/base'
import {
  openProject,
  paperSchema,
  schemaVersionOf,
  SCHEMA_VERSION,
  writeProject,
  soundSupplies,
  type Paper,
  type Project,
  type Supplies,
} from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import { entryInTrouble, entryOf } from './entry'
import { openVault } from './indexed-vault'
import { MemoryVault } from './memory-vault'
import type { KeptProject, SaveAnswer, ShelfEntry, ToSave, Vault } from './vault'

let opening: Promise<Vault> | undefined

/** Why nothing lasts, in a sentence; null where the browser keeps what it is given. */
export let whyNotLasting: string | null = null

/** The vault; opened once. */
export function vault(): Promise<Vault> {
  opening ??= openVault()
    .then(async (opened) => {
      await bringOver(opened).catch(() => undefined)
      return opened
    })
    .catch((error: unknown) => {
      whyNotLasting =
        error instanceof Error && /does not answer/.test(error.message)
          ? 'The browser’s store does not answer: projects last only until this page is closed. Save them as files.'
          : 'This browser blocks storage for this page: projects last only until it is closed. Save them as files.'
      return new MemoryVault()
    })
  return opening
}

/** What the browser would not take in the midst of things: kept for as long as the page is open, before what it holds. */
const held = new MemoryVault()

/** Holds what could not be kept, so that going to the shelf and back loses nothing. */
export const hold = (what: ToSave): Promise<SaveAnswer> => held.save({ ...what, base: null })

/** Lets go of what is kept after all. */
export const letGo = (id: string): Promise<void> => held.remove(id)

/** A kept project, from wherever its last state is. */
export const readKept = async (id: string): Promise<KeptProject | undefined> =>
  (await held.read(id)) ?? (await (await vault()).read(id))

/** The shared drawer; papers that an older Feuillet kept get today's fields. */
export async function loadStock(): Promise<Paper[]> {
  const store = await vault()
  const kept = await store.readStock().catch(() => undefined)
  return Array.isArray(kept) ? soundPapers(kept) : starterStock()
}

/** Foams and glues of the shared drawer. */
export const loadSupplies = async (): Promise<Supplies> =>
  soundSupplies(await (await vault()).readSupplies().catch(() => undefined))

/** A drawer that is damaged in part keeps the rest. */
const soundPapers = (list: readonly unknown[]): Paper[] =>
  list.flatMap((paper) => paperSchema.safeParse(paper).data ?? [])

/** Everything on the shelf, the last saved first: by the index alone, and what it lacks read anew. */
export async function loadShelf(): Promise<ShelfEntry[]> {
  const store = await vault()
  const [entries, ids] = await Promise.all([store.entries(), store.ids()])
  const there = new Set(ids)
  const known = new Map(
    entries.filter((e) => isEntry(e) && there.has(e.id)).map((entry) => [entry.id, entry]),
  )
  const lacking = ids.filter((id) => !known.has(id))
  for (const id of lacking) {
    const entry = await entryAnew(store, id)
    known.set(id, entry)
    await store.putEntry(entry).catch(() => undefined)
  }
  for (const entry of await held.entries()) known.set(entry.id, entry)
  return [...known.values()].map(newerMarked).sort((a, b) => b.savedAt - a.savedAt)
}

const isEntry = (value: unknown): value is ShelfEntry =>
  typeof value === 'object' &&
  value !== null &&
  'id' in value &&
  typeof value.id === 'string' &&
  'name' in value &&
  typeof value.name === 'string' &&
  'savedAt' in value &&
  typeof value.savedAt === 'number' &&
  'guestIds' in value &&
  Array.isArray(value.guestIds) &&
  'cutForIds' in value &&
  Array.isArray(value.cutForIds)

const NEWER = 'It was written by a newer Feuillet: it can be looked at and exported, not changed.'

const newerMarked = (entry: ShelfEntry): ShelfEntry =>
  entry.trouble === null && entry.schemaVersion > SCHEMA_VERSION
    ? { ...entry, trouble: { kind: 'newer', sentence: NEWER } }
    : entry

async function entryAnew(store: Vault, id: string): Promise<ShelfEntry> {
  const kept = await store.read(id).catch(() => undefined)
  const text = textOf(kept)
  if (kept === undefined || text === null)
    return entryInTrouble(id, { kind: 'damaged', sentence: 'What the browser kept of it cannot be read.' })
  return entryOfText(id, text, kept)
}

/** The text of a record, whatever became of the record. */
export const textOf = (kept: KeptProject | undefined): string | null =>
  typeof kept?.text === 'string' ? kept.text : null

/** The entry of a text: of a project that can be read, or of one that cannot, and why. */
export function entryOfText(
  id: string,
  text: string,
  kept: Pick<KeptProject, 'revision' | 'savedAt'>,
): ShelfEntry {
  const known = { savedAt: kept.savedAt, revision: kept.revision }
  try {
    return entryOf({ ...openProject(text).project, id }, kept.revision, kept.savedAt)
  } catch (error) {
    const version = schemaVersionOf(text)
    if (version !== null && version > SCHEMA_VERSION)
      return entryInTrouble(
        id,
        { kind: 'newer', sentence: NEWER },
        { ...known, ...namedIn(text), schemaVersion: version },
      )
    const why = error instanceof BadInput ? error.message : 'it cannot be read'
    return entryInTrouble(
      id,
      { kind: 'damaged', sentence: `It is damaged: ${why}.` },
      { ...known, ...namedIn(text) },
    )
  }
}

/** The name that a text bears, where one can be made out. */
function namedIn(text: string): { name?: string } {
  const found = /"name"\s*:\s*"((?:[^"\\]|\\.){1,200})"/.exec(text)
  return found ? { name: found[1]! } : {}
}

/**
 * Keeps a project that is not open: a new one, a copy, one from a file. It replaces what has its id, or follows upon it where it is the next
 * state of that; what was there then is kept as a past version unless that is not wanted.
 */
export async function keepProject(
  project: Project,
  label: string,
  { isNext = false, keepsPast = isNext }: { isNext?: boolean; keepsPast?: boolean } = {},
): Promise<void> {
  const store = await vault()
  const savedAt = Date.now()
  const revision = isNext ? ((await store.read(project.id))?.revision ?? 0) + 1 : 1
  await store.save({
    kept: { id: project.id, revision, text: writeProject(project), savedAt, label, page: '', seq: 0 },
    entry: entryOf(project, revision, savedAt),
    base: null,
    keepVersion: keepsPast,
    stock: null,
  })
}

const BROUGHT = 'brought over'

/** Projects and drawer of an older Feuillet, which kept them otherwise; they stay where they are as well. */
async function bringOver(store: Vault): Promise<void> {
  const of = (storeName: string) => localforage.createInstance({ name: 'feuillet', storeName })
  const shared = of('shared')
  if (await shared.getItem(BROUGHT)) return
  const there = new Set(await store.ids())
  const old = new Map<string, { text: string; savedAt: number }>()
  for (const name of ['aside', 'projects']) {
    await of(name).iterate<{ text?: unknown; savedAt?: unknown }, undefined>((kept, id) => {
      if (typeof kept.text === 'string')
        old.set(id, { text: kept.text, savedAt: typeof kept.savedAt === 'number' ? kept.savedAt : 0 })
    })
  }
  for (const [id, { text, savedAt }] of old) {
    if (there.has(id)) continue
    const kept = { id, revision: 1, text, savedAt, label: '', page: '', seq: 0 }
    await store.save({
      kept,
      entry: entryOfText(id, text, kept),
      base: null,
      keepVersion: false,
      stock: null,
    })
  }
  const papers = await shared.getItem<unknown[]>('papers')
  if (Array.isArray(papers) && !(await store.readStock())) await store.putStock(soundPapers(papers))
  await shared.setItem(BROUGHT, true)
}
