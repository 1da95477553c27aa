/** A short name for a text: equal texts have equal names (FNV-1a and a relative of it, 32 bits each). */
export function hashText(text: string): string {
  let a = 0x811c9dc5
  let b = 0x1000193
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 0x01000193)
    b = Math.imul(b ^ c, 0x85ebca6b) ^ (b >>> 13)
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36)
}

/** A short name for a value made of plain data: equal values have equal names. */
export const fingerprint = (value: unknown): string => hashText(JSON.stringify(value))
