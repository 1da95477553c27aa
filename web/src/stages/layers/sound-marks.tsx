import { polygonToPath } from '@feuillet/core/geometry'
import { NUMBER_MM, type Soundness } from '@feuillet/core/layers'
import type { Layer } from '@feuillet/core/project'

/** Narrow places and loose bits of the picked layer, and where its number can hide. */
export function SoundMarks({ sound, layer, looseBits, px }: { sound: Soundness; layer: Layer; looseBits: readonly string[]; px: number }) {
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
          <path key={piece.id} d={piece.path} fill="none" stroke="var(--color-ochre)" strokeWidth={px * 2} strokeDasharray={`${px * 5} ${px * 3}`} />
        ))}
      {sound.necks.map((neck, i) => (
        <path key={i} d={polygonToPath(neck.region)} fill="var(--color-crimson)" stroke="#fff" strokeWidth={px} fillRule="evenodd" data-neck={neck.kind} />
      ))}
      {sound.numberAt && (
        <g data-number-place>
          <circle cx={sound.numberAt.x} cy={sound.numberAt.y} r={NUMBER_MM / 2} fill="none" stroke="#fff" strokeWidth={px * 3} />
          <circle
            cx={sound.numberAt.x}
            cy={sound.numberAt.y}
            r={NUMBER_MM / 2}
            fill="none"
            stroke="var(--color-plum)"
            strokeWidth={px * 1.5}
            strokeDasharray={`${px * 3} ${px * 2}`}
          />
        </g>
      )}
    </g>
  )
}
