import { hashText } from '@feuillet/core/base'
import { LIMITS, MOST, tidyName, type Picture } from '@feuillet/core/project'

/** More pixels than these a side do not print finer on card of a hand's size. */
const MOST_PIXELS = 5000
const QUALITY = 0.94

/** A picture file as it is kept and printed, turned as its camera says. A sentence where it cannot be. */
export async function readPicture(file: File): Promise<Picture | string> {
  let bitmap: ImageBitmap
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
  } catch {
    return 'this is not a PNG, JPEG or WebP picture that can be read'
  }
  const scale = Math.min(1, MOST_PIXELS / Math.max(bitmap.width, bitmap.height))
  const [pixelsWide, pixelsHigh] = [bitmap.width, bitmap.height].map((side) =>
    Math.max(LIMITS.pixels[0], Math.round(side * scale)),
  ) as [number, number]
  const canvas = new OffscreenCanvas(pixelsWide, pixelsHigh)
  const context = canvas.getContext('2d')!
  context.imageSmoothingQuality = 'high'
  // Clear parts come out white on card.
  context.fillStyle = '#ffffff'
  context.fillRect(0, 0, pixelsWide, pixelsHigh)
  context.drawImage(bitmap, 0, 0, pixelsWide, pixelsHigh)
  bitmap.close()
  const type = 'image/jpeg'
  const data = await base64Of(await canvas.convertToBlob({ type, quality: QUALITY }))
  if (data.length > MOST.pictureCharacters)
    return `it takes more than ${Math.round((MOST.pictureCharacters * 3) / 4e6)} MB: make it smaller first`
  return {
    id: `picture-${hashText(data)}`,
    name: tidyName(file.name) || 'Picture',
    type,
    data,
    pixelsWide,
    pixelsHigh,
  }
}

const base64Of = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => resolve((reader.result as string).split(',')[1]!)
    reader.onerror = () => reject(new Error('the picture could not be packed'))
    reader.readAsDataURL(blob)
  })
