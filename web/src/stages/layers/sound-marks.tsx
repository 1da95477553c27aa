import { looksRightWrong, NUMBER_MM, numberStrokes, type SoundView } from '@feuillet/core/stages/layers'
import type { Layer } from '@feuillet/core/project'

/** Narrow places and loose bits of the picked layer, and where its number can hide. */
export function SoundMarks({
  sound,
  weakPaths,
  layer,
  folio,
  looseBits,
  px,
}: {
  sound: SoundView
  /** Its weak places as they are drawn. */
  weakPaths: readonly string[]
  layer: Layer
  folio: number
  looseBits: readonly string[]
  px: number
}) {
  return (
    <g pointerEvents="none">
      {layer.pieces
        .filter((piece) => looseBits.includes(piece.id))
        .map((piece) => (
          <path key={piece.id} d={piece.path} fill="none" stroke="#fff" strokeWidth={px * 4} data-loose />
        ))}
      {layer.pieces
        .filter((piece) => looseBits.includes(piece.id))
        .map((piece) => (
          <path
            key={piece.id}
            d={piece.path}
            fill="none"
            stroke="var(--color-ochre)"
            strokeWidth={px * 2}
            strokeDasharray={`${px * 5} ${px * 3}`}
          />
        ))}
      {weakPaths.map((path, i) => (
        <path
          key={i}
          d={path}
          fill="var(--color-crimson)"
          stroke="#fff"
          strokeWidth={px}
          fillRule="evenodd"
          data-neck={sound.necks[i]?.kind}
        />
      ))}
      {sound.sign &&
        ['#fff', 'var(--color-plum)'].map((colour, k) => (
          <circle
            key={colour}
            cx={sound.sign!.x}
            cy={sound.sign!.y}
            r={px * 13}
            fill="none"
            stroke={colour}
            strokeWidth={px * (k === 0 ? 4 : 2)}
            strokeDasharray={k === 0 ? undefined : `${px * 4} ${px * 3}`}
            data-sign
          />
        ))}
      {sound.numberAt &&
        numberStrokes(String(folio), sound.numberAt, {
          radiusMm: NUMBER_MM / 2,
          roof: looksRightWrong(sound),
        }).flatMap((line, i) =>
          ['#fff', 'var(--color-plum)'].map((colour, k) => (
            <polyline
              key={`${i} ${k}`}
              points={line.join(' ')}
              fill="none"
              stroke={colour}
              strokeWidth={px * (k === 0 ? 4 : 1.8)}
              strokeLinecap="round"
              strokeLinejoin="round"
              data-number-place
            />
          )),
        )}
    </g>
  )
}
