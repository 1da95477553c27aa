import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { Box } from '@feuillet/core/base/geometry'
import { TieMarks } from './tie-marks'
import type { Bits } from './use-bits'

const SURFACE = {
  lay: 'Drag a strip of card',
  cut: 'Drag a strip to cut away',
  fold: 'Drag a line to fold along',
}

/** The pieces, openings and weak strips of a layer to be picked, and the strip that is being dragged. */
export function BitsMarks({ bits, room, px }: { bits: Bits; room: Box; px: number }) {
  const { list, picked, pick, tool, layer, stripMm, turn, act, setFolds } = bits
  const [line, setLine] = useState<[number, number, number, number] | null>(null)
  const placeOf = (event: PointerEvent<SVGGraphicsElement>) =>
    new DOMPoint(event.clientX, event.clientY).matrixTransform(event.currentTarget.getScreenCTM()!.inverse())
  if (tool !== 'pick')
    return (
      <g>
        {line && (
          <line
            x1={line[0]}
            y1={line[1]}
            x2={line[2]}
            y2={line[3]}
            stroke={tool === 'cut' ? 'var(--color-crimson)' : 'var(--color-plum)'}
            strokeOpacity={0.6}
            strokeWidth={tool === 'fold' ? px * 2 : stripMm}
            strokeLinecap="round"
          />
        )}
        <rect
          data-grip="strip"
          aria-label={SURFACE[tool]}
          x={room.minX}
          y={room.minY}
          width={room.maxX - room.minX}
          height={room.maxY - room.minY}
          fill="transparent"
          style={{ cursor: 'crosshair' }}
          onPointerDown={(event) => {
            event.stopPropagation()
            event.currentTarget.setPointerCapture(event.pointerId)
            const { x, y } = placeOf(event)
            setLine([x, y, x, y])
          }}
          onPointerMove={(event) => {
            if (!line) return
            const { x, y } = placeOf(event)
            setLine([line[0], line[1], x, y])
          }}
          onPointerUp={() => {
            setLine(null)
            if (!line || Math.hypot(line[2] - line[0], line[3] - line[1]) < px * 3) return
            if (tool === 'fold') {
              setFolds('fold of', [...layer.folds, { line, ...turn }])
              return
            }
            act(tool === 'lay' ? 'lay a strip in' : 'cut a strip out of', {
              kind: 'draw-strip',
              layerId: layer.id,
              cut: tool === 'cut',
              from: { x: line[0], y: line[1] },
              to: { x: line[2], y: line[3] },
              widthMm: stripMm,
            })
          }}
          onPointerCancel={() => setLine(null)}
        />
      </g>
    )
  return (
    <g>
      {list.map((bit) => {
        const isPicked = bit.key === picked?.key
        return (
          <path
            key={bit.key}
            d={bit.path}
            data-piece
            data-bit={bit.kind}
            role="button"
            tabIndex={0}
            aria-label={bit.name}
            aria-pressed={isPicked}
            fill={
              isPicked ? 'var(--color-plum)' : bit.kind === 'strip' ? 'var(--color-crimson)' : 'transparent'
            }
            fillOpacity={isPicked ? 0.35 : 0.7}
            stroke="var(--color-plum)"
            strokeWidth={px * (isPicked ? 2.5 : bit.kind === 'opening' ? 0.8 : 1.4)}
            strokeDasharray={bit.kind === 'opening' ? `${px * 3} ${px * 2}` : undefined}
            className="cursor-pointer outline-none focus-visible:[stroke-width:4px] focus-visible:[vector-effect:non-scaling-stroke]"
            onPointerDown={(event) => event.stopPropagation()}
            onClick={() => pick(isPicked ? null : bit.key)}
            onKeyDown={(event: KeyboardEvent) => {
              if (event.key !== 'Enter' && event.key !== ' ') return
              event.preventDefault()
              pick(isPicked ? null : bit.key)
            }}
          />
        )
      })}
      <TieMarks bits={bits} px={px} />
    </g>
  )
}
