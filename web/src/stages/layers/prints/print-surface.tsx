import { pictureOf } from '@feuillet/core/project'
import { selectProject } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { pictureUrl } from '../../../drawing/picture-url'
import type { PrintPlacing } from './use-print-place'

/** All of the picture that is placed, pale where no card is under it, to be taken hold of. */
export function PrintSurface({ printing: { layer, grips, map } }: { printing: PrintPlacing }) {
  const project = useAppSelector(selectProject)
  const picture = pictureOf(project, layer)
  if (!picture) return null
  const { pixelsWide, pixelsHigh } = picture
  return (
    <g
      transform={`matrix(${map.join(' ')})`}
      style={{ cursor: 'move' }}
      onPointerDown={(event) => event.button === 0 && grips.begin('move', event)}
      data-piece
      data-picture
    >
      <image
        href={pictureUrl(picture)}
        width={pixelsWide}
        height={pixelsHigh}
        preserveAspectRatio="none"
        opacity={0.35}
      />
      <rect
        width={pixelsWide}
        height={pixelsHigh}
        fill="none"
        stroke="var(--color-plum)"
        strokeWidth={1.4}
        vectorEffect="non-scaling-stroke"
      />
    </g>
  )
}
