// Pictures as bytes: base64 in recipes, greys and colours of what a browser or a file gives.

const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** Bytes as base64; the core has neither Node's nor a page's own. */
export function toBase64(bytes: Uint8Array): string {
  let out = ''
  for (let i = 0; i < bytes.length; i += 3) {
    const n = (bytes[i]! << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0)
    out +=
      BASE64[n >> 18]! +
      BASE64[(n >> 12) & 63]! +
      (i + 1 < bytes.length ? BASE64[(n >> 6) & 63]! : '=') +
      (i + 2 < bytes.length ? BASE64[n & 63]! : '=')
  }
  return out
}

/** Bytes of a base64 text. Throws BadInput where it is none. */
export function fromBase64(text: string): Uint8Array {
  const clean = text.replace(/=+$/, '')
  const out = new Uint8Array(Math.floor((clean.length * 3) / 4))
  let bits = 0
  let value = 0
  let k = 0
  for (const sign of clean) {
    value = ((value << 6) | BASE64.indexOf(sign)) & 0xffffff
    bits += 6
    if (bits < 8) continue
    bits -= 8
    out[k++] = (value >> bits) & 255
  }
  return out
}

/** RGBA pixels as RGB, clear parts on white. */
export function coloursOf(rgba: ArrayLike<number>): Uint8Array {
  const out = new Uint8Array((rgba.length / 4) * 3)
  for (let i = 0; i < rgba.length / 4; i++) {
    const a = rgba[i * 4 + 3]! / 255
    for (let c = 0; c < 3; c++) out[i * 3 + c] = Math.round(rgba[i * 4 + c]! * a + 255 * (1 - a))
  }
  return out
}

/** Greys of RGBA pixels by luminance (Rec. 709), clear parts on white. */
export function greysOf(rgba: ArrayLike<number>): Uint8Array {
  const out = new Uint8Array(rgba.length / 4)
  for (let i = 0; i < out.length; i++) {
    const a = rgba[i * 4 + 3]! / 255
    out[i] = Math.round(
      (0.2126 * rgba[i * 4]! + 0.7152 * rgba[i * 4 + 1]! + 0.0722 * rgba[i * 4 + 2]!) * a + 255 * (1 - a),
    )
  }
  return out
}
