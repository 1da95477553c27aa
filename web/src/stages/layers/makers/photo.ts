import { coloursOf, greysOf, toBase64 } from '@feuillet/core/stages/layers/makers'
import type { TonesRecipe } from '@feuillet/core/project'

/** Pixels that a picture is brought down to: more than card can show. */
const MOST_PIXELS = 640

export type Photo = Pick<TonesRecipe, 'greys' | 'colours' | 'pixelsWide' | 'pixelsHigh'>

/** A picture file as greys and colours, turned as its camera says. Null where the browser cannot read it. */
export async function readPhoto(file: Blob): Promise<Photo | null> {
  try {
    const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const scale = Math.min(1, MOST_PIXELS / Math.max(bitmap.width, bitmap.height))
    const [w, h] = [
      Math.max(2, Math.round(bitmap.width * scale)),
      Math.max(2, Math.round(bitmap.height * scale)),
    ]
    const canvas = new OffscreenCanvas(w, h)
    const context = canvas.getContext('2d')!
    context.imageSmoothingQuality = 'high'
    context.drawImage(bitmap, 0, 0, w, h)
    bitmap.close()
    const { data } = context.getImageData(0, 0, w, h)
    return {
      greys: toBase64(greysOf(data)),
      colours: toBase64(coloursOf(data)),
      pixelsWide: w,
      pixelsHigh: h,
    }
  } catch {
    return null
  }
}
