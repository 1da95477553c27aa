import { useEffect, useRef } from 'react'
import { fromBase64 } from '@feuillet/core/stages/layers/makers'
import type { TonesRecipe } from '@feuillet/core/project'

/** The photo in greys, to compare. */
export function PhotoPicture({ recipe: { greys, pixelsWide, pixelsHigh } }: { recipe: TonesRecipe }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const context = canvas.current!.getContext('2d')!
    const image = context.createImageData(pixelsWide, pixelsHigh)
    fromBase64(greys).forEach((grey, i) => image.data.set([grey, grey, grey, 255], i * 4))
    context.putImageData(image, 0, 0)
  }, [greys, pixelsWide, pixelsHigh])
  return (
    <div className="grid min-w-0 flex-1 place-items-center pt-8">
      <canvas
        ref={canvas}
        width={pixelsWide}
        height={pixelsHigh}
        role="img"
        aria-label="The photo in greys"
        className="max-h-full max-w-full object-contain"
      />
    </div>
  )
}
