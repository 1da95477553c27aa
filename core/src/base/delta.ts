// What turns one version of a document into the next. Documents share all that did not change, so that is told by reference
// and never sent; the other side keeps its own copies and shares in the same way.

/** The same as before; a new value; the parts of a list or of an object, each by a delta of its own. */
export type Delta =
  | { kind: 'same' }
  | { kind: 'value'; value: unknown }
  | { kind: 'list'; parts: readonly (Delta & { from?: number })[] }
  | { kind: 'object'; parts: Readonly<Record<string, Delta>> }

const SAME: Delta = { kind: 'same' }

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype

/** The delta between two versions. In lists, items that moved are found by reference or by their `id`. */
export function deltaOf(before: unknown, after: unknown): Delta {
  if (Object.is(before, after)) return SAME
  if (Array.isArray(before) && Array.isArray(after)) return listDelta(before, after)
  if (isPlain(before) && isPlain(after)) {
    const parts: Record<string, Delta> = {}
    for (const [key, value] of Object.entries(after))
      parts[key] = Object.hasOwn(before, key) ? deltaOf(before[key], value) : { kind: 'value', value }
    return { kind: 'object', parts }
  }
  return { kind: 'value', value: after }
}

function listDelta(before: readonly unknown[], after: readonly unknown[]): Delta {
  const byReference = new Map<unknown, number>()
  const byId = new Map<unknown, number>()
  before.forEach((item, i) => {
    if (typeof item !== 'object' || item === null) return
    byReference.set(item, i)
    if ('id' in item) byId.set(item.id, i)
  })
  return {
    kind: 'list',
    parts: after.map((item, i) => {
      if (typeof item !== 'object' || item === null)
        return Object.is(before[i], item) ? { kind: 'same', from: i } : { kind: 'value', value: item }
      const same = byReference.get(item)
      if (same !== undefined) return { kind: 'same', from: same }
      const from = 'id' in item ? byId.get(item.id) : i < before.length ? i : undefined
      return from === undefined ? { kind: 'value', value: item } : { ...deltaOf(before[from], item), from }
    }),
  }
}

/** The version after a delta; shares with the version before all that is the same. */
export function applyDelta(before: unknown, delta: Delta): unknown {
  switch (delta.kind) {
    case 'same':
      return before
    case 'value':
      return delta.value
    case 'list': {
      const list = before as readonly unknown[]
      return delta.parts.map((part, i) => applyDelta(list[part.from ?? i], part))
    }
    case 'object': {
      const old = before as Record<string, unknown>
      return Object.fromEntries(
        Object.entries(delta.parts).map(([key, part]) => [key, applyDelta(old[key], part)]),
      )
    }
  }
}

/**
 * A copy that came from elsewhere, sharing with a version all parts that are equal to it: what a worker gives back is then
 * as light to keep as an edit made here.
 */
export function share<T>(mine: unknown, theirs: T): T {
  if (Object.is(mine, theirs)) return theirs
  if (Array.isArray(mine) && Array.isArray(theirs)) {
    const byId = new Map(
      mine.flatMap((item) => (isPlain(item) && 'id' in item ? [[item['id'], item] as const] : [])),
    )
    let same = mine.length === theirs.length
    const list = theirs.map((item: unknown, i) => {
      const old = isPlain(item) && 'id' in item ? byId.get(item['id']) : (mine as unknown[])[i]
      const shared = share(old, item)
      same &&= Object.is(shared, (mine as unknown[])[i])
      return shared
    })
    return (same ? mine : list) as T
  }
  if (isPlain(mine) && isPlain(theirs)) {
    const keys = Object.keys(theirs)
    let same = keys.length === Object.keys(mine).length
    const out: Record<string, unknown> = {}
    for (const key of keys) {
      out[key] = share(mine[key], theirs[key])
      same &&= Object.hasOwn(mine, key) && Object.is(out[key], mine[key])
    }
    return (same ? mine : out) as T
  }
  return theirs
}
