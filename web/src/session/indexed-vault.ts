// The vault in IndexedDB. Each save is one transaction, durable before it is called kept, and refused where the store holds a
// later revision than the one it goes on from (decision 0013).
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import {
  applyStockChanges,
  applySupplyChanges,
  soundSupplies,
  type Paper,
  type Supplies,
} from '@feuillet/core/project'
import { starterStock } from '@feuillet/core/stages/paper'
import {
  MOST_VERSIONS,
  type Draft,
  type KeptProject,
  type PastVersion,
  type SaveAnswer,
  type ShelfEntry,
  type ToSave,
  type Vault,
} from './vault'

interface Stores extends DBSchema {
  projects: { key: string; value: KeptProject }
  index: { key: string; value: ShelfEntry }
  versions: { key: [string, number]; value: PastVersion; indexes: { byProject: string } }
  drafts: { key: string; value: Draft; indexes: { byProject: string } }
  shared: { key: 'papers' | 'supplies'; value: Paper[] | Supplies }
}

const papersOf = (kept: unknown): Paper[] => (Array.isArray(kept) ? (kept as Paper[]) : starterStock())

const DURABLE = { durability: 'strict' } as const

const LOOKS = 10

/** Opens the browser's store. Rejects where it is blocked, and where it does not answer in time. */
export async function openVault(name = 'feuillet-vault', patienceMs = 5000): Promise<Vault> {
  const opening = openDB<Stores>(name, 1, {
    upgrade(db) {
      db.createObjectStore('projects', { keyPath: 'id' })
      db.createObjectStore('index', { keyPath: 'id' })
      db.createObjectStore('versions', { keyPath: ['projectId', 'savedAt'] }).createIndex(
        'byProject',
        'projectId',
      )
      db.createObjectStore('drafts', { keyPath: 'key' }).createIndex('byProject', 'id')
      db.createObjectStore('shared')
    },
    // A later Feuillet in another tab may bring its own store up to date.
    blocking: (_was, _blocked, event) => (event.target as IDBDatabase).close(),
  })
  let timer: ReturnType<typeof setInterval> | undefined
  const late = new Promise<never>((_, reject) => {
    // Looked for several times: a page that stood still itself has one look less, and no answer to miss.
    let looks = 0
    timer = setInterval(() => {
      if (++looks >= LOOKS) reject(new Error('the browser’s store does not answer'))
    }, patienceMs / LOOKS)
  })
  try {
    return new IndexedVault(await Promise.race([opening, late]))
  } finally {
    clearInterval(timer)
  }
}

class IndexedVault implements Vault {
  readonly lasting = true

  constructor(private readonly db: IDBPDatabase<Stores>) {}

  async save({ kept, entry, base, keepVersion, stock, supplies }: ToSave): Promise<SaveAnswer> {
    const tx = this.db.transaction(
      ['projects', 'index', 'versions', 'drafts', 'shared'],
      'readwrite',
      DURABLE,
    )
    const projects = tx.objectStore('projects')
    const before = await projects.get(kept.id)
    if (before && base !== null && before.revision !== base) {
      tx.abort()
      await tx.done.catch(() => undefined)
      return { ok: false, revision: before.revision }
    }
    if (before && keepVersion) {
      const versions = tx.objectStore('versions')
      const { savedAt, label, text } = before
      const picture = (await tx.objectStore('index').get(kept.id))?.picture ?? null
      await versions.put({ projectId: kept.id, savedAt, label, text, picture })
      const keys = await versions.index('byProject').getAllKeys(kept.id)
      for (const key of keys.slice(0, Math.max(0, keys.length - MOST_VERSIONS))) await versions.delete(key)
    }
    await projects.put(kept)
    await tx.objectStore('index').put(entry)
    const shared = tx.objectStore('shared')
    let papers: Paper[] | null = null
    if (stock) {
      papers = applyStockChanges(papersOf(await shared.get('papers')), stock)
      await shared.put(papers, 'papers')
    }
    let rest: Supplies | null = null
    if (supplies) {
      rest = applySupplyChanges(soundSupplies(await shared.get('supplies')), supplies)
      await shared.put(rest, 'supplies')
    }
    await tx.done
    return { ok: true, stock: papers, supplies: rest }
  }

  read = (id: string) => this.db.get('projects', id)

  async remove(id: string): Promise<void> {
    const tx = this.db.transaction(['projects', 'index'], 'readwrite', DURABLE)
    await Promise.all([tx.objectStore('projects').delete(id), tx.objectStore('index').delete(id), tx.done])
  }

  entries = () => this.db.getAll('index')
  ids = () => this.db.getAllKeys('projects')

  async putEntry(entry: ShelfEntry): Promise<void> {
    await this.db.put('index', entry)
  }

  versions = (id: string) => this.db.getAllFromIndex('versions', 'byProject', id)
  async drafts(id: string): Promise<Draft[]> {
    const kept = await this.db.getAllFromIndex('drafts', 'byProject', id)
    const stashed = stashedDrafts().filter((draft) => draft.id === id)
    return [...stashed, ...kept.filter(({ key }) => !stashed.some((draft) => draft.key === key))]
  }

  putDraft(draft: Draft): void {
    // The one is written before the page is gone, but takes little; the other takes much, and may come too late.
    stash(draft)
    try {
      // A store that no save waits for, so that this waits for none.
      const tx = this.db.transaction('drafts', 'readwrite', DURABLE)
      void tx.store.put(draft).catch(() => undefined)
      tx.commit()
      void tx.done.catch(() => undefined)
    } catch {
      // The page is being closed and the store with it: nothing more can be done here.
    }
  }

  async dropDraft(key: string): Promise<void> {
    dropStashed(key)
    await this.db.delete('drafts', key)
  }

  readStock = async () => (await this.db.get('shared', 'papers')) as Paper[] | undefined
  readSupplies = () => this.db.get('shared', 'supplies')

  async changeSupplies(changes: Parameters<Vault['changeSupplies']>[0]): Promise<Supplies> {
    const tx = this.db.transaction('shared', 'readwrite', DURABLE)
    const supplies = applySupplyChanges(soundSupplies(await tx.store.get('supplies')), changes)
    await tx.store.put(supplies, 'supplies')
    await tx.done
    return supplies
  }

  async changeStock(changes: Parameters<Vault['changeStock']>[0]): Promise<Paper[]> {
    const tx = this.db.transaction('shared', 'readwrite', DURABLE)
    const papers = applyStockChanges(papersOf(await tx.store.get('papers')), changes)
    await tx.store.put(papers, 'papers')
    await tx.done
    return papers
  }

  async putStock(stock: Paper[]): Promise<void> {
    await this.db.put('shared', stock, 'papers')
  }
}

const STASH = 'feuillet draft '

/** Whether there is storage that is written while the page still stands. */
const local = (): Storage | null => {
  try {
    return globalThis.localStorage ?? null
  } catch {
    return null
  }
}

function stash(draft: Draft): void {
  try {
    local()?.setItem(STASH + draft.key, JSON.stringify(draft))
  } catch {
    // It takes no more: the store’s own draft must do.
  }
}

const dropStashed = (key: string): void => local()?.removeItem(STASH + key)

function stashedDrafts(): Draft[] {
  const storage = local()
  if (!storage) return []
  const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? '')
  return keys
    .filter((key) => key.startsWith(STASH))
    .flatMap((key): Draft[] => {
      try {
        return [JSON.parse(storage.getItem(key) ?? '') as Draft]
      } catch {
        return []
      }
    })
}
