// Ties of the picked layer on the board: each is dragged whole or by an end, and moved by arrow keys.
import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { Point } from '@feuillet/core/base/geometry'
import type { DrawnStrip } from '@feuillet/core/stages/layers'
import { nudgeOf } from '../../../drawing/grips/use-grips'
import type { Bits, LaidTie } from './use-bits'

/** So much of a tie at either end is a grip for that end. */
const END = 0.25
interface Drag {
  tie: LaidTie
  grip: 'from' | 'to' | 'whole'
  start: Point
  by: Point
}

export function TieMarks({ bits, px }: { bits: Bits; px: number }) {
  const [drag, setDrag] = useState<Drag | null>(null)
  const placeOf = (event: PointerEvent<SVGGraphicsElement>): Point => {
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()!.inverse(),
    )
    return { x, y }
  }
  /** Lays it where it was dragged to; until it lies there it is drawn there. */
  const put = (done: Drag) => void bits.moveTie(done.tie, dragged(done)).finally(() => setDrag(null))
  return bits.ties.map((tie) => {
    const isPicked = tie.key === bits.pickedTie?.key
    const { from, to } = drag?.tie === tie ? dragged(drag) : tie
    return (
      <line
        key={tie.key}
        data-piece
        data-bit="tie"
        role="button"
        tabIndex={0}
        aria-label={tie.name}
        aria-pressed={isPicked}
        x1={from.x}
        y1={from.y}
        x2={to.x}
        y2={to.y}
        stroke="var(--color-plum)"
        strokeOpacity={isPicked ? 0.65 : 0.3}
        strokeWidth={Math.max(tie.widthMm, px * 6)}
        strokeLinecap="round"
        className="cursor-move outline-none focus-visible:[stroke-opacity:1]"
        onPointerDown={(event) => {
          event.stopPropagation()
          event.currentTarget.setPointerCapture(event.pointerId)
          const start = placeOf(event)
          setDrag({ tie, grip: gripAt(tie, start), start, by: { x: 0, y: 0 } })
        }}
        onPointerMove={(event) => {
          if (drag?.tie !== tie) return
          const { x, y } = placeOf(event)
          setDrag({ ...drag, by: { x: x - drag.start.x, y: y - drag.start.y } })
        }}
        onPointerUp={() => {
          if (drag?.tie !== tie) return
          if (Math.hypot(drag.by.x, drag.by.y) >= px * 3) return put(drag)
          setDrag(null)
          bits.pick(isPicked ? null : tie.key)
        }}
        onPointerCancel={() => setDrag(null)}
        onKeyDown={(event: KeyboardEvent) => {
          const [dx, dy] = nudgeOf(event.nativeEvent)
          if (dx !== 0 || dy !== 0) {
            event.preventDefault()
            const { x, y } = drag?.tie === tie ? drag.by : { x: 0, y: 0 }
            setDrag({ tie, grip: 'whole', start: tie.from, by: { x: x + dx, y: y + dy } })
          } else if (event.key === 'Delete' || event.key === 'Backspace') {
            event.preventDefault()
            void bits.moveTie(tie, null)
          } else if (event.key === 'Enter' || event.key === ' ') {
            event.preventDefault()
            bits.pick(isPicked ? null : tie.key)
          }
        }}
        // A key that is held down moves it on; it is laid once the key is let go.
        onKeyUp={(event) => event.key.startsWith('Arrow') && drag?.tie === tie && put(drag)}
      />
    )
  })
}

/** Which part of a tie is taken hold of. */
function gripAt({ from, to, lengthMm }: LaidTie, { x, y }: Point): Drag['grip'] {
  const along =
    ((x - from.x) * (to.x - from.x) + (y - from.y) * (to.y - from.y)) / Math.max(1e-9, lengthMm * lengthMm)
  return along < END ? 'from' : along > 1 - END ? 'to' : 'whole'
}

const dragged = ({ tie, grip, by }: Drag): DrawnStrip => moved(tie, grip, by)

function moved({ from, to, widthMm }: DrawnStrip, grip: Drag['grip'], by: Point): DrawnStrip {
  const shifted = ({ x, y }: Point): Point => ({ x: x + by.x, y: y + by.y })
  return { from: grip === 'to' ? from : shifted(from), to: grip === 'from' ? to : shifted(to), widthMm }
}
