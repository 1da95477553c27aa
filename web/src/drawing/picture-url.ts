// Addresses of pictures, for drawings: a picture is unpacked once, the last few are kept.
import type { Picture } from '@feuillet/core/project'

const KEPT = 24
const urls = new Map<string, string>()

/** An address that holds while few others are asked for. An id stands for one picture for good. */
export function pictureUrl({ id, type, data }: Pick<Picture, 'id' | 'type' | 'data'>): string {
  const known = urls.get(id)
  if (known) return known
  const bytes = Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0))
  const url = URL.createObjectURL(new Blob([bytes], { type }))
  urls.set(id, url)
  for (const [old, address] of urls) {
    if (urls.size <= KEPT) break
    URL.revokeObjectURL(address)
    urls.delete(old)
  }
  return url
}
