import type { ViewOf } from '@feuillet/core/stages'

type ColouringMap = NonNullable<ViewOf<'colouringMap'>>

/** Where a layer is coloured by hand: the wash, darker edges, and the dots up to which it goes. */
export function ColouringMarks({
  map,
  px,
  ink,
  edgeInk,
}: {
  map: ColouringMap
  px: number
  ink: string
  edgeInk: string
}) {
  return (
    <g data-colouring pointerEvents="none">
      <path d={map.washPath} fillRule="evenodd" fill={ink} opacity={0.55} />
      <path d={map.edgePath} fillRule="evenodd" fill={edgeInk} opacity={0.6} />
      {map.dots.map(([x, y]) => (
        <circle key={`${x} ${y}`} cx={x} cy={y} r={px * 1.6} fill="#1e2126" />
      ))}
    </g>
  )
}
