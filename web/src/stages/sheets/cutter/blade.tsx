import type { CutterState } from './use-cutter'

/** The blade where it is: up it is a wide ring, down a full dot. */
export function Blade({ tool, px }: { tool: NonNullable<CutterState['tool']>; px: number }) {
  const { x, y, down } = tool
  const r = px * (down ? 7 : 10)
  return (
    <g data-blade transform={`translate(${x} ${y})`} pointerEvents="none">
      <path d={`M0 ${-px * 22}V${px * 22}M${-px * 22} 0H${px * 22}`} stroke="#fff" strokeWidth={px * 3.5} />
      <circle r={r} fill={down ? 'var(--color-plum)' : '#fff'} stroke="#fff" strokeWidth={px * 3} />
      <circle r={r} fill="none" stroke="var(--color-plum)" strokeWidth={px * 1.6} />
      <path
        d={`M0 ${-px * 22}V${-r}M0 ${r}V${px * 22}M${-px * 22} 0H${-r}M${r} 0H${px * 22}`}
        stroke="var(--color-plum)"
        strokeWidth={px * 1.2}
      />
    </g>
  )
}
