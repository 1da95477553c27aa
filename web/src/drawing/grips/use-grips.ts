// What lies on a board is moved by a drag, turned and sized by grips; what comes of it is a map, handed on when it is let go.
import { useRef, useState, type PointerEvent } from 'react'
import { growBox, rotation, scaling, translation, type Affine, type Box } from '@feuillet/core/base/geometry'
import { aboutMiddle, snapped, snapsOf, type Snap } from '@feuillet/core/project'

/** What a drag has done so far. */
export interface Drag {
  kind: 'move' | 'turn' | 'scale'
  start: readonly [number, number]
  map: Affine
  lines: readonly Snap[]
}

export interface Grips {
  /** Round what is held, mm; empty (minX > maxX) where nothing is. */
  box: Box
  /** Null while nothing is dragged. */
  drag: Drag | null
  begin: (kind: Drag['kind'], event: PointerEvent) => void
  onMove: (event: PointerEvent, px: number) => void
  onUp: () => void
}

/** Steps of a turn with Shift, degrees. */
export const TURN_DEG = 15
/** Steps of the arrow keys, mm: alone, with Shift, with Alt. */
const STEP_MM = { plain: 0.5, shift: 5, alt: 0.1 }
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
/** Within so many pixels a box is drawn to a line. */
const SNAP_PX = 6
const STILL: Affine = [1, 0, 0, 1, 0, 0]
const LEAST_SCALE = 0.05

/** How far an arrow key moves, mm. */
export function nudgeOf(event?: KeyboardEvent): readonly [number, number] {
  const step = STEP_MM[event?.altKey ? 'alt' : event?.shiftKey ? 'shift' : 'plain']
  const [dx, dy] = ARROWS[event?.key ?? ''] ?? [0, 0]
  return [dx * step, dy * step]
}

/**
 * Grips round a box. Drags are measured in the frame of the nearest `g[data-placing]`.
 * @param snapTo boxes to whose edges and middles it is drawn
 */
export function useGrips(
  box: Box,
  snapTo: () => readonly Box[],
  onPut: (kind: Drag['kind'], map: Affine) => void,
): Grips {
  const [drag, setDrag] = useState<Drag | null>(null)
  const group = useRef<SVGGElement | null>(null)
  const at = (event: PointerEvent): readonly [number, number] => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      group.current!.getScreenCTM()!.inverse(),
    )
    return [point.x, point.y]
  }
  return {
    box,
    drag,
    begin: (kind, event) => {
      group.current = (event.currentTarget as SVGElement).closest('g[data-placing]')
      event.stopPropagation()
      ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
      setDrag({ kind, start: at(event), map: STILL, lines: [] })
    },
    onMove: (event, px) => {
      if (!drag) return
      const [x, y] = at(event)
      const [sx, sy] = drag.start
      if (drag.kind === 'move') {
        const [dx, dy] = [x - sx, y - sy]
        const moved = {
          minX: box.minX + dx,
          maxX: box.maxX + dx,
          minY: box.minY + dy,
          maxY: box.maxY + dy,
        }
        // With Alt it goes where it is put.
        const snap = event.altKey
          ? { dx: 0, dy: 0, lines: [] }
          : snapped(moved, snapsOf(snapTo()), SNAP_PX * px)
        setDrag({ ...drag, map: translation(dx + snap.dx, dy + snap.dy), lines: snap.lines })
        return
      }
      const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2]
      if (drag.kind === 'turn') {
        const free = ((Math.atan2(y - cy, x - cx) - Math.atan2(sy - cy, sx - cx)) * 180) / Math.PI
        const step = event.altKey ? 0.1 : event.shiftKey ? TURN_DEG : 1
        setDrag({ ...drag, map: aboutMiddle(box, rotation(Math.round(free / step) * step)) })
      } else {
        const factor = Math.hypot(x - cx, y - cy) / Math.max(1e-6, Math.hypot(sx - cx, sy - cy))
        setDrag({ ...drag, map: aboutMiddle(box, scaling(Math.max(LEAST_SCALE, factor))) })
      }
    },
    onUp: () => {
      if (!drag) return
      setDrag(null)
      const [a, b, , , e, f] = drag.map
      if (Math.abs(a - 1) + Math.abs(b) + Math.abs(e) + Math.abs(f) < 1e-9) return
      onPut(drag.kind, drag.map)
    },
  }
}

/** Room for the grips round what is held. */
export const gripBox = (box: Box, px: number): Box => growBox(box, px * 5)
