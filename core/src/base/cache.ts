// Results that are remembered by the content of what they came from. A cache is made by whoever owns the work and handed
// down, so that two runs with caches of their own share nothing.
import { LRUCache } from 'lru-cache'
import { hashText } from './hash'

/** Remembers what a computation gives for its inputs; `cache.memo` is one, `fresh` remembers nothing. */
export type Memo = <T>(name: string, inputs: readonly unknown[], make: () => T) => T

/** Computes each time anew. */
export const fresh: Memo = (_name, _inputs, make) => make()

/** About so many bytes of results are kept; the longest unused go first. */
const MOST_BYTES = 400_000_000

/** Results by key, the longest unused dropped first; also names values by their content. */
export class Cache {
  private readonly kept: LRUCache<string, { value: unknown }>
  private readonly names = new WeakMap<object, string>()
  private readonly weighed = new WeakSet()
  private count = 0

  constructor(mostBytes = MOST_BYTES) {
    this.kept = new LRUCache({
      maxSize: mostBytes,
      sizeCalculation: ({ value }, key) => key.length + this.weightOf(value),
    })
  }

  /**
   * A short name of a value: values of equal content have equal names. Objects are named once, so they must never be
   * changed in place. Shapes (typed arrays), maps and sets are named by identity.
   */
  nameOf(value: unknown): string {
    if (typeof value === 'string') return value.length < 40 ? `"${value}"` : `"${hashText(value)}`
    if (typeof value !== 'object' || value === null) return String(value)
    let name = this.names.get(value)
    if (name === undefined) this.names.set(value, (name = this.newName(value)))
    return name
  }

  private newName(value: object): string {
    if (Array.isArray(value)) return `[${hashText(value.map((part) => this.nameOf(part)).join(','))}`
    if (Object.getPrototypeOf(value) !== Object.prototype) return `#${this.count++}`
    let text = ''
    for (const [key, part] of Object.entries(value))
      if (part !== undefined) text += `${key}:${this.nameOf(part)},`
    return `{${hashText(text)}`
  }

  has(key: string): boolean {
    return this.kept.has(key)
  }

  get(key: string): { value: unknown } | undefined {
    return this.kept.get(key)
  }

  set(key: string, value: unknown): void {
    this.kept.set(key, { value })
  }

  readonly memo: Memo = (name, inputs, make) => {
    const key = `${name} ${this.nameOf(inputs)}`
    const known = this.kept.get(key)
    if (known) return known.value as ReturnType<typeof make>
    const value = make()
    this.set(key, value)
    return value
  }

  /** About how many bytes a result takes beyond what was counted with others. */
  private weightOf(value: unknown, depth = 0): number {
    if (typeof value === 'string') return 2 * value.length
    if (typeof value !== 'object' || value === null) return 8
    if (this.weighed.has(value)) return 8
    this.weighed.add(value)
    if (ArrayBuffer.isView(value)) return value.byteLength + 64
    if (depth > 8) return 64
    let sum = 64
    const parts = Array.isArray(value)
      ? value
      : value instanceof Map
        ? [...value.values()]
        : Object.values(value)
    for (const part of parts) sum += this.weightOf(part, depth + 1)
    return sum
  }
}
