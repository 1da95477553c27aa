import type { Box } from '@feuillet/core/base/geometry'
import { gripBox, type Grips } from './use-grips'

/** The frame round what is held, with grips to turn and size it, and the lines it is drawn to. */
export function GripMarks({ grips, room, px }: { grips: Grips; room: Box; px: number }) {
  const { box, drag } = grips
  if (box.minX > box.maxX) return null
  const b = gripBox(box, px)
  const map = drag ? `matrix(${drag.map.join(' ')})` : undefined
  const turnAt = { x: (b.minX + b.maxX) / 2, y: b.minY - px * 18 }
  return (
    <g>
      {drag?.lines.map(({ axis, at }, i) => (
        <line
          key={i}
          {...(axis === 'x'
            ? { x1: at, x2: at, y1: room.minY, y2: room.maxY }
            : { x1: room.minX, x2: room.maxX, y1: at, y2: at })}
          stroke="var(--color-plum)"
          strokeWidth={px}
          strokeDasharray={`${px * 6} ${px * 4}`}
          data-snap
        />
      ))}
      <g transform={map} data-picked-frame>
        {['#fff', 'var(--color-plum)'].map((colour, k) => (
          <rect
            key={colour}
            x={b.minX}
            y={b.minY}
            width={b.maxX - b.minX}
            height={b.maxY - b.minY}
            fill="none"
            stroke={colour}
            strokeWidth={px * (k === 0 ? 3 : 1.4)}
            strokeDasharray={k === 0 ? undefined : `${px * 3} ${px * 3}`}
            pointerEvents="none"
          />
        ))}
        <g data-grip="turn" style={{ cursor: 'alias' }} onPointerDown={(event) => grips.begin('turn', event)}>
          <title>Drag to turn; Shift by steps of 15°</title>
          <line
            x1={turnAt.x}
            x2={turnAt.x}
            y1={turnAt.y}
            y2={b.minY}
            stroke="var(--color-plum)"
            strokeWidth={px}
          />
          <circle
            cx={turnAt.x}
            cy={turnAt.y}
            r={px * 6.5}
            fill="#fff"
            stroke="var(--color-plum)"
            strokeWidth={px * 1.6}
          />
        </g>
        {(
          [
            [b.minX, b.minY],
            [b.maxX, b.minY],
            [b.maxX, b.maxY],
            [b.minX, b.maxY],
          ] as const
        ).map(([x, y], i) => (
          <path
            key={i}
            d={`M${x - px * 5.5} ${y}L${x} ${y - px * 5.5}L${x + px * 5.5} ${y}L${x} ${y + px * 5.5}Z`}
            fill="#fff"
            stroke="var(--color-plum)"
            strokeWidth={px * 1.4}
            style={{ cursor: i % 2 ? 'nesw-resize' : 'nwse-resize' }}
            data-grip="scale"
            onPointerDown={(event) => grips.begin('scale', event)}
          >
            <title>Drag to size it, proportions locked</title>
          </path>
        ))}
      </g>
    </g>
  )
}
