import { useEffect, useRef } from 'react'
import { fromBase64 } from '@feuillet/core/stages/layers/makers'
import type { TonesRecipe } from '@feuillet/core/project'

/** The photo as it is parted, in greys or colours, to compare. */
export function PhotoPicture({ recipe }: { recipe: TonesRecipe }) {
  const { greys, pixelsWide, pixelsHigh } = recipe
  const colours = recipe.by === 'greys' ? undefined : recipe.colours
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const context = canvas.current!.getContext('2d')!
    const image = context.createImageData(pixelsWide, pixelsHigh)
    if (colours)
      fromBase64(colours).forEach((value, i) => (image.data[Math.floor(i / 3) * 4 + (i % 3)] = value))
    else fromBase64(greys).forEach((grey, i) => image.data.set([grey, grey, grey], i * 4))
    for (let i = 3; i < image.data.length; i += 4) image.data[i] = 255
    context.putImageData(image, 0, 0)
  }, [greys, colours, pixelsWide, pixelsHigh])
  return (
    <div className="grid min-w-0 flex-1 place-items-center pt-8">
      <canvas
        ref={canvas}
        width={pixelsWide}
        height={pixelsHigh}
        role="img"
        aria-label={colours ? 'The photo' : 'The photo in greys'}
        className="max-h-full max-w-full object-contain"
      />
    </div>
  )
}
