import { PIN_HEAD_MM } from '@feuillet/core/stages/depth'

/** Heads of pins as they are seen from the front, at their true size. */
export function PinMarks({ at, px }: { at: readonly (readonly [number, number])[]; px: number }) {
  return (
    <g data-pins={at.length} pointerEvents="none">
      {at.map(([x, y], i) => (
        <g key={i}>
          <circle
            cx={x}
            cy={y}
            r={PIN_HEAD_MM.across / 2}
            fill="#d9dbe0"
            stroke="#1e2126"
            strokeWidth={px * 1.4}
          />
          <circle
            cx={x}
            cy={y}
            r={PIN_HEAD_MM.across * 1.5}
            fill="none"
            stroke="var(--color-plum)"
            strokeWidth={px * 1.2}
            strokeDasharray={`${px * 3} ${px * 2}`}
          />
        </g>
      ))}
    </g>
  )
}
