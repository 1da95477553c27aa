/**
 * A project's life in the page: opened, changed, kept, left (session.ts), between several tabs (tabs.ts), in the browser's store
 * (vault.ts and its two kinds) or in memory where the browser keeps nothing. The shelf reads an index (store.ts).
 */
import { toast } from 'sonner'
import { readProject, toldBy, type Project } from '@feuillet/core/project'
import { store } from '../state/store'
import { booksOn } from './books'
import { Session } from './session'
import { hold, letGo, loadShelf, loadStock, loadSupplies, readKept, vault } from './store'
import { browserTabs } from './tabs'

export { keepProject, loadShelf, loadStock, loadSupplies, readKept, vault, whyNotLasting } from './store'
export type { OpenAnswer } from './session'
export type { PastVersion, Picture, ShelfEntry } from './vault'

const page = crypto.randomUUID()
const tabs = browserTabs()

/** A kept project, knowing what of it was cut on others' sheets; null where there is none that can be read. */
export async function readWithBooks(id: string): Promise<Project | null> {
  try {
    const kept = await readKept(id)
    if (!kept) return null
    return toldBy({ ...readProject(kept.text), id }, await booksOn(id, await loadShelf(), readKept))
  } catch {
    return null
  }
}

/** Does something with a kept project that no tab has open; false where one has. */
export async function whileFree(id: string, work: () => Promise<void>): Promise<boolean> {
  const claim = await tabs.claim(id, () => undefined)
  if (!claim.held) return false
  try {
    await work()
  } finally {
    claim.release()
  }
  return true
}

/** The session of this page. */
export const session = new Session({
  document: () => store.getState().document,
  dispatch: (action) => store.dispatch(action),
  vault,
  readKept,
  hold,
  letGo,
  loadStock,
  loadSupplies,
  loadShelf,
  tabs,
  page,
  now: () => Date.now(),
  newId: () => crypto.randomUUID(),
  tell: (sentence, kind) =>
    kind === 'trouble' ? toast.error(sentence, { duration: 12_000 }) : toast(sentence),
})

// Whatever changes the document, from wherever, is kept.
let seen = store.getState().document.revision
store.subscribe(() => {
  const { revision } = store.getState().document
  if (revision === seen) return
  seen = revision
  session.changed()
})

// A page that is hidden may never be shown again.
addEventListener('pagehide', () => session.leaveInHaste())
document.addEventListener('visibilitychange', () => {
  if (document.visibilityState === 'hidden') session.leaveInHaste()
})
