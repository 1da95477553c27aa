import { useId } from 'react'
import type { Affine } from '@feuillet/core/base/geometry'
import type { Picture } from '@feuillet/core/project'
import { pictureUrl } from './picture-url'

interface Props {
  picture: Picture
  /** From its pixels to mm. */
  map: Affine
  /** What of it is seen, as path data. */
  within: string
}

/** A picture as it is printed on card. */
export function Printed({ picture, map, within }: Props) {
  const id = useId()
  return (
    <g pointerEvents="none" data-print>
      <clipPath id={id}>
        <path d={within} clipRule="evenodd" />
      </clipPath>
      <g clipPath={`url(#${id})`}>
        <image
          href={pictureUrl(picture)}
          width={picture.pixelsWide}
          height={picture.pixelsHigh}
          preserveAspectRatio="none"
          transform={`matrix(${map.join(' ')})`}
        />
      </g>
    </g>
  )
}
