/**
 * A field of objects that never change: read from its object at the first asking, kept with it and gone with it. It must follow from the
 * object alone, and cost less to keep than to read again; whatever follows from more goes into a cache that is handed in (`Memo`).
 */
export function lazily<Of extends object, T>(read: (of: Of) => T): (of: Of) => T {
  const known = new WeakMap<Of, { value: T }>()
  return (of) => {
    let field = known.get(of)
    if (!field) known.set(of, (field = { value: read(of) }))
    return field.value
  }
}
