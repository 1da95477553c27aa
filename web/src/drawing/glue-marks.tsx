import type { ViewOf } from '@feuillet/core/stages'

type GlueMap = NonNullable<ViewOf<'glueMap'>>

/** Where glue may go under a layer, and the dots, beads and coats of it. Lengths in mm of the drawing. */
export function GlueMarks({ glue, px, ink }: { glue: GlueMap; px: number; ink: string }) {
  return (
    <g data-glue pointerEvents="none">
      <path
        d={glue.zonePath}
        fillRule="evenodd"
        fill="none"
        stroke={ink}
        strokeWidth={px}
        strokeDasharray={`${px * 3} ${px * 3}`}
        opacity={0.7}
      />
      <path d={glue.coatPath} fillRule="evenodd" fill="#fff" opacity={0.45} />
      {glue.beadPaths.map((d) => (
        <g key={d} fill="none" strokeLinejoin="round">
          <path d={d} stroke="#1e2126" strokeWidth={glue.beadMm + px * 1.6} opacity={0.6} />
          <path d={d} stroke="#fffdf4" strokeWidth={Math.max(glue.beadMm, px * 1.4)} data-bead />
        </g>
      ))}
      {glue.dotsAt.map(([x, y]) => (
        <circle
          key={`${x} ${y}`}
          cx={x}
          cy={y}
          r={Math.max(glue.dotMm / 2, px * 1.6)}
          fill="#fffdf4"
          stroke="#1e2126"
          strokeWidth={px * 0.8}
          data-dot
        />
      ))}
    </g>
  )
}
