// Bytes of a file as text.

/** Part of every platform that the core runs on. */
declare const TextDecoder: new (
  label?: string,
  options?: { fatal?: boolean },
) => { decode(bytes: Uint8Array): string }

/** The encoding that the first bytes of a file say; null where they say none. */
export function markedEncoding([a, b]: Uint8Array): string | null {
  if (a === 0xff && b === 0xfe) return 'utf-16le'
  return a === 0xfe && b === 0xff ? 'utf-16be' : null
}

/** Text in an encoding; null where there is none of that name, or, where it is to be `strict`, where bytes are none of its letters. */
export function textIn(encoding: string, bytes: Uint8Array, { strict = false } = {}): string | null {
  try {
    return new TextDecoder(encoding, { fatal: strict }).decode(bytes)
  } catch {
    return null
  }
}
