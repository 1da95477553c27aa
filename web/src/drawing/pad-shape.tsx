import { padShape, type Lie } from '@feuillet/core/stages/depth'

interface Props {
  pad: Lie
  round?: boolean
  fill?: string
  stroke: string
  strokeWidth: number
}

/** A pad about its own middle, unturned: a rectangle, a dot, or a strip bent along its arc. */
export function PadShape({ pad, round = false, fill = '#fff', stroke, strokeWidth }: Props) {
  const look = { fill, stroke, strokeWidth }
  if (round) return <circle r={pad.widthMm / 2} {...look} />
  const outline = padShape(pad)
  let d = ''
  for (let i = 0; i < outline.length; i += 2) d += `${i ? 'L' : 'M'}${outline[i]} ${outline[i + 1]}`
  return <path d={`${d}Z`} {...look} />
}

/** Where a pad lies, as SVG says it. */
export const padPlace = ({ x, y, rotation }: Lie): string => `translate(${x} ${y}) rotate(${rotation})`
