// A drawing in mm with rulers along its top and left edge. At first all of it is in sight; it can be zoomed and moved.
import { Maximize2, Minus, Plus } from 'lucide-react'
import { useEffect, useId, useMemo, useState, type PointerEvent, type ReactNode } from 'react'
import type { Box } from '@feuillet/core/base/geometry'
import type { Unit } from '@feuillet/core/base/units'
import { Tip } from '../ui'
import { Ruler } from './ruler'
import { useSize } from './use-size'
import { useZoom } from './use-zoom'

interface Props {
  /** Of the place that is kept: one a stage. */
  name: string
  /** What to show, mm. */
  box: Box
  unit: Unit
  label: string
  /** Draws in mm; `px` is the size of a CSS pixel in mm. */
  children: (px: number) => ReactNode
  onPointerDown?: (event: PointerEvent) => void
  /** What is in it can be picked. */
  interactive?: boolean
  /** Figures along its edges; left away where the drawing is looked at and not measured. */
  rulers?: boolean
  /** A place to bring into sight with its surroundings, mm; anew whenever it is another. */
  at?: readonly [number, number] | null
}

const RULER = 34
const RIGHT = 30
const BOTTOM = 10
/** Round a place that is shown so much of the drawing is in sight. */
const SURROUNDINGS = 0.3
const OVERVIEW_PX = 74

export function Board({
  name,
  box,
  unit,
  label,
  children,
  onPointerDown,
  interactive = false,
  rulers = true,
  at,
}: Props) {
  const [ref, { width, height }] = useSize()
  const id = useId()
  const w = Math.max(1, box.maxX - box.minX)
  const h = Math.max(1, box.maxY - box.minY)
  const fitted = Math.max(0.01, Math.min((width - RULER - RIGHT) / w, (height - RULER - BOTTOM) / h))
  const fitLeft = RULER + Math.max(0, (width - RULER - RIGHT - w * fitted) / 2)
  const fitTop = RULER + Math.max(0, (height - RULER - BOTTOM - h * fitted) / 2)
  const [attach, zoom] = useZoom(
    name,
    { width, height },
    (target) => target.closest('[data-piece], [data-grip]') === null,
  )
  const { k, x, y } = zoom.transform
  const scale = fitted * k
  const left = fitLeft * k + x
  const top = fitTop * k + y
  // While it moves, lines keep the width that they had: nothing is drawn anew until it rests.
  const [restPx, setRestPx] = useState(1 / scale)
  const px = zoom.moving ? restPx : 1 / scale
  if (!zoom.moving && restPx !== px) setRestPx(px)
  const drawn = useMemo(() => children(px), [children, px])
  const place = at ? `${at[0]} ${at[1]}` : null
  useEffect(() => {
    if (!at || width === 0) return
    const span = { w: w * fitted * SURROUNDINGS, h: h * fitted * SURROUNDINGS }
    const [cx, cy] = [fitLeft + (at[0] - box.minX) * fitted, fitTop + (at[1] - box.minY) * fitted]
    zoom.show({ x: cx - span.w / 2, y: cy - span.h / 2, ...span })
    // Only where another place is pointed at, not whenever the board is drawn.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [place, width > 0])
  const inSight = {
    minX: Math.max(box.minX, box.minX + (RULER - left) / scale),
    maxX: Math.min(box.maxX, box.minX + (width - left) / scale),
    minY: Math.max(box.minY, box.minY + (RULER - top) / scale),
    maxY: Math.min(box.maxY, box.minY + (height - top) / scale),
  }
  return (
    <div
      ref={ref}
      className="relative h-full min-h-0 w-full min-w-0"
      role="group"
      tabIndex={0}
      aria-label={`${label}. Plus and minus zoom, 0 shows all, arrows move.`}
      onKeyDown={zoom.onKeyDown}
    >
      {width > 0 && (
        <>
          <svg
            ref={attach}
            role={interactive ? 'group' : 'img'}
            aria-label={label}
            className="absolute inset-0 h-full w-full touch-none select-none"
            // As large as its place; where that is another on paper, drawn to that.
            viewBox={`0 0 ${width} ${height}`}
            style={{ cursor: k > 1 ? 'grab' : undefined }}
            onPointerDown={onPointerDown}
          >
            <clipPath id={id}>
              <rect x={RULER - 6} y={RULER - 6} width={width - RULER + 6} height={height - RULER + 6} />
            </clipPath>
            <g clipPath={`url(#${id})`}>
              <g
                transform={`translate(${left - box.minX * scale} ${top - box.minY * scale}) scale(${scale})`}
                data-board
              >
                {/* So that the board takes the pointer, and has a size of its own. */}
                <rect x={box.minX} y={box.minY} width={w} height={h} fill="transparent" />
                {drawn}
              </g>
            </g>
            {rulers && (
              <>
                <Ruler
                  from={inSight.minX}
                  to={inSight.maxX}
                  zero={left - box.minX * scale}
                  scale={scale}
                  unit={unit}
                  at={Math.max(RULER, top) - 6}
                  across
                />
                <Ruler
                  from={inSight.minY}
                  to={inSight.maxY}
                  zero={top - box.minY * scale}
                  scale={scale}
                  unit={unit}
                  at={Math.max(RULER, left) - 6}
                />
              </>
            )}
          </svg>
          <div className="absolute right-0 bottom-0 flex items-end gap-1" data-screen-only>
            {k > 1.01 && <Overview w={w} h={h} box={box} inSight={inSight} />}
            <div className="flex flex-col border border-line bg-panel/90 text-ink">
              <ZoomButton label="Zoom in" onPress={() => zoom.by(1.5)}>
                <Plus size={14} />
              </ZoomButton>
              <ZoomButton label="Zoom out" disabled={k <= 1} onPress={() => zoom.by(1 / 1.5)}>
                <Minus size={14} />
              </ZoomButton>
              <ZoomButton label="Show all" disabled={k <= 1} onPress={zoom.reset}>
                <Maximize2 size={12} />
              </ZoomButton>
            </div>
          </div>
        </>
      )}
    </div>
  )
}

function ZoomButton({
  label,
  disabled = false,
  onPress,
  children,
}: {
  label: string
  disabled?: boolean
  onPress: () => void
  children: ReactNode
}) {
  return (
    <Tip text={label}>
      <button
        type="button"
        aria-label={label}
        disabled={disabled}
        onClick={onPress}
        className="grid size-6 place-content-center hover:bg-sheet"
      >
        {children}
      </button>
    </Tip>
  )
}

/** Which part of the drawing is in sight. */
function Overview({ w, h, box, inSight }: { w: number; h: number; box: Box; inSight: Box }) {
  const scale = OVERVIEW_PX / Math.max(w, h)
  return (
    <svg
      aria-hidden
      width={w * scale + 2}
      height={h * scale + 2}
      className="border border-line bg-panel/90"
      viewBox={`${box.minX} ${box.minY} ${w} ${h}`}
    >
      <rect
        x={inSight.minX}
        y={inSight.minY}
        width={Math.max(0, inSight.maxX - inSight.minX)}
        height={Math.max(0, inSight.maxY - inSight.minY)}
        fill="var(--color-plum)"
        fillOpacity={0.2}
        stroke="var(--color-plum)"
        strokeWidth={1.5 / scale}
      />
    </svg>
  )
}
