// The vault of a page whose browser keeps nothing: all is remembered for as long as the page is open.
import {
  applyStockChanges,
  applySupplyChanges,
  starterSupplies,
  type Paper,
  type StockChanges,
  type Supplies,
  type SupplyChanges,
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

export class MemoryVault implements Vault {
  readonly lasting = false
  private readonly projects = new Map<string, KeptProject>()
  private readonly index = new Map<string, ShelfEntry>()
  private readonly past = new Map<string, PastVersion[]>()
  private stock: Paper[] = starterStock()
  private supplies: Supplies = starterSupplies()

  save({ kept, entry, keepVersion, stock, supplies }: ToSave): Promise<SaveAnswer> {
    const before = this.projects.get(kept.id)
    if (before && keepVersion) {
      const { savedAt, label, text } = before
      const picture = this.index.get(kept.id)?.picture ?? null
      const past = [...(this.past.get(kept.id) ?? []), { projectId: kept.id, savedAt, label, text, picture }]
      this.past.set(kept.id, past.slice(-MOST_VERSIONS))
    }
    this.projects.set(kept.id, kept)
    this.index.set(entry.id, entry)
    if (stock) this.stock = applyStockChanges(this.stock, stock)
    if (supplies) this.supplies = applySupplyChanges(this.supplies, supplies)
    return Promise.resolve({
      ok: true,
      stock: stock ? this.stock : null,
      supplies: supplies ? this.supplies : null,
    })
  }

  read = (id: string) => Promise.resolve(this.projects.get(id))

  remove(id: string): Promise<void> {
    this.projects.delete(id)
    this.index.delete(id)
    return Promise.resolve()
  }

  entries = () => Promise.resolve([...this.index.values()])
  ids = () => Promise.resolve([...this.projects.keys()])

  putEntry(entry: ShelfEntry): Promise<void> {
    this.index.set(entry.id, entry)
    return Promise.resolve()
  }

  versions = (id: string) => Promise.resolve(this.past.get(id) ?? [])
  drafts = (): Promise<Draft[]> => Promise.resolve([])
  putDraft = (): void => undefined
  dropDraft = () => Promise.resolve()
  readStock = (): Promise<Paper[] | undefined> => Promise.resolve(this.stock)

  changeStock(changes: StockChanges): Promise<Paper[]> {
    this.stock = applyStockChanges(this.stock, changes)
    return Promise.resolve(this.stock)
  }

  readSupplies = (): Promise<unknown> => Promise.resolve(this.supplies)

  changeSupplies(changes: SupplyChanges): Promise<Supplies> {
    this.supplies = applySupplyChanges(this.supplies, changes)
    return Promise.resolve(this.supplies)
  }

  putStock(stock: Paper[]): Promise<void> {
    this.stock = stock
    return Promise.resolve()
  }
}
