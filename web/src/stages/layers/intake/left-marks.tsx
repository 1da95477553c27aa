import type { LeftMark } from './read-file'

/** Where a drawing held what could not become card: a crossed square with its name. */
export function LeftMarks({ marks, px }: { marks: readonly LeftMark[]; px: number }) {
  return (
    <g pointerEvents="none">
      {marks.map(({ what, x, y }, i) => (
        <g key={i} transform={`translate(${x} ${y})`} data-left={what}>
          <rect
            x={-px * 9}
            y={-px * 9}
            width={px * 18}
            height={px * 18}
            fill="#fff"
            stroke="var(--color-ochre)"
            strokeWidth={px * 1.5}
          />
          <path
            d={`M${-px * 9} ${-px * 9}l${px * 18} ${px * 18}m0 ${-px * 18}l${-px * 18} ${px * 18}`}
            stroke="var(--color-ochre)"
            strokeWidth={px * 1.5}
          />
          <text
            x={px * 14}
            y={px * 4}
            fontSize={px * 12}
            fill="var(--color-ink)"
            stroke="#fff"
            strokeWidth={px * 3}
            paintOrder="stroke"
          >
            {what}
          </text>
        </g>
      ))}
    </g>
  )
}
