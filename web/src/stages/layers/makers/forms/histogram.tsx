import { Slider } from 'radix-ui'
import { thresholdsOf } from '@feuillet/core/stages/layers/makers'
import type { TonesRecipe } from '@feuillet/core/project'
import { Button } from '../../../../ui'

/** The greys of the picture with the thresholds between tones, to be moved by hand or by arrow keys. */
export function Histogram({
  recipe,
  bins,
  onChange,
}: {
  recipe: TonesRecipe
  /** How many of each grey there are. */
  bins: readonly number[]
  onChange: (thresholds: number[]) => void
}) {
  const cuts = thresholdsOf(recipe, Float64Array.from(bins))
  const most = Math.max(1, ...bins.toSorted((a, b) => b - a).slice(3, 4))
  return (
    <div>
      <svg viewBox="0 0 256 60" className="h-16 w-full bg-sheet" preserveAspectRatio="none" aria-hidden>
        {bins.map((n, i) => (
          <rect
            key={i}
            x={i}
            width={1}
            y={60 - Math.min(60, (n / most) * 56)}
            height={60}
            fill={`rgb(${i} ${i} ${i})`}
          />
        ))}
        {cuts.map((cut, k) => (
          <line key={k} x1={cut} x2={cut} y1={0} y2={60} stroke="var(--color-plum)" strokeWidth={1.5} />
        ))}
      </svg>
      <Slider.Root
        className="relative flex h-5 w-full touch-none items-center"
        min={1}
        max={255}
        step={1}
        minStepsBetweenThumbs={2}
        value={cuts.map(Math.round)}
        onValueChange={onChange}
        aria-label="Thresholds between tones"
      >
        <Slider.Track className="h-1 flex-1 bg-line" />
        {cuts.map((_, k) => (
          <Slider.Thumb
            key={k}
            aria-label={`Threshold ${k + 1}, grey 0 to 255`}
            className="block h-4 w-3 bg-plum"
          />
        ))}
      </Slider.Root>
      {recipe.thresholds.length > 0 && (
        <Button look="quiet" className="mt-1" onClick={() => onChange([])}>
          Take the best thresholds again
        </Button>
      )}
    </div>
  )
}
