import type { TopperHold } from '@feuillet/core/stages/depth'

/** Sticks behind a topper, and its centre of mass. */
export function StickDrawing({ held, px, footMm }: { held: TopperHold; px: number; footMm: number }) {
  const { x, y } = held.centre
  return (
    <g pointerEvents="none">
      {held.sticks.map((stick) => (
        <rect
          key={stick.x}
          x={stick.x - stick.widthMm / 2}
          y={stick.headMm}
          width={stick.widthMm}
          height={Math.max(0, footMm - stick.headMm)}
          fill="#e2d8c2"
          fillOpacity={0.75}
          stroke={stick.isHeld ? 'var(--color-ink)' : 'var(--color-crimson)'}
          strokeWidth={px * 1.2}
          data-stick
        />
      ))}
      <g stroke="var(--color-plum)" strokeWidth={px * 1.6} fill="none" data-centre>
        <circle cx={x} cy={y} r={px * 6} fill="#fff" fillOpacity={0.8} />
        <path d={`M${x - px * 10} ${y}h${px * 20}M${x} ${y - px * 10}v${px * 20}`} />
      </g>
    </g>
  )
}
