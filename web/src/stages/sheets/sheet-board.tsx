// One sheet, large: pick pieces (Shift picks several), drag, turn or nudge them. A place that may not be says why and
// does not stick.
import { useCommand } from '../../commands/use-command'
import { wordsIn, type Said } from '@feuillet/core/base/units'
import { useRef, useState, type PointerEvent } from 'react'
import { joinBoxes } from '@feuillet/core/base/geometry'
import type { LoadView, PieceView } from '@feuillet/core/stages/sheets'
import { usePlan } from '../../plan'
import { selectProject, selectUnit, selectView } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked } from '../../state/view'
import { Board } from '../../drawing/board'
import { inkOn } from '../../ui/folio-tab'
import { middleOf, placePieces, type Move } from './place-pieces'
import { PieceShape, pieceKey, SheetDrawing } from '../../drawing/sheet'

interface Drag {
  kind: 'move' | 'turn'
  startX: number
  startY: number
  dx: number
  dy: number
  deg: number
}

/** Which way each arrow moves. */
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

const STILL: Drag = { kind: 'move', startX: 0, startY: 0, dx: 0, dy: 0, deg: 0 }

export function SheetBoard({ load }: { load: LoadView }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { partKeys } = useAppSelector(selectView)
  const [drag, setDrag] = useState<Drag | null>(null)
  const [why, setWhy] = useState<Said | null>(null)
  const group = useRef<SVGGElement>(null)
  const drawn = usePlan('sheet', load.id) ?? null
  const ink = inkOn(load.paper.colour)
  const picked = load.pieces.filter((piece) => partKeys.includes(pieceKey(piece)))
  const middle = picked.length > 0 ? middleOf(picked) : { x: 0, y: 0 }

  const place = async (pieces: readonly PieceView[], move: Move) => {
    setWhy(await dispatch(placePieces(load, pieces, move)))
    setDrag(null)
  }
  useCommand('pick-all', () => dispatch(looked({ partKeys: load.pieces.map(pieceKey) })))
  useCommand(
    'turn-piece',
    (event) => void place(picked, { dx: 0, dy: 0, turnDeg: event?.shiftKey ? -90 : 90 }),
    {
      enabled: picked.length > 0,
    },
  )
  useCommand(
    'nudge-piece',
    (event) => {
      const step = event?.shiftKey ? 10 : 1
      const [dx, dy] = ARROWS[event?.key ?? ''] ?? [0, 0]
      void place(picked, { dx: dx * step, dy: dy * step, turnDeg: 0 })
    },
    { enabled: picked.length > 0 },
  )

  const at = (event: PointerEvent) => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      group.current!.getScreenCTM()!.inverse(),
    )
    return [point.x, point.y] as const
  }
  /** Picks a piece; with others, or lets it go where it is one of them. */
  const pick = (piece: PieceView, along: boolean) => {
    const key = pieceKey(piece)
    const others = partKeys.filter((other) => other !== key)
    if (!along) dispatch(looked({ partKeys: [key], layerId: piece.layerId }))
    else dispatch(looked({ partKeys: partKeys.includes(key) ? others : [...others, key] }))
  }
  const down = (event: PointerEvent, piece: PieceView) => {
    setWhy(null)
    if (event.shiftKey) {
      pick(piece, true)
      return
    }
    const [startX, startY] = at(event)
    event.currentTarget.setPointerCapture(event.pointerId)
    if (!partKeys.includes(pieceKey(piece))) pick(piece, false)
    setDrag({ ...STILL, startX, startY })
  }
  const grip = (event: PointerEvent) => {
    const [startX, startY] = at(event)
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    setWhy(null)
    setDrag({ ...STILL, kind: 'turn', startX, startY })
  }
  const move = (event: PointerEvent) => {
    if (!drag) return
    const [x, y] = at(event)
    if (drag.kind === 'move') setDrag({ ...drag, dx: x - drag.startX, dy: y - drag.startY })
    else {
      const angle = (px: number, py: number) => (Math.atan2(py - middle.y, px - middle.x) * 180) / Math.PI
      const free = angle(x, y) - angle(drag.startX, drag.startY)
      // Whole degrees; quarter turns where the plan asks for them.
      const unitDeg = project.plan.turns === 'free' ? 1 : 90
      setDrag({ ...drag, deg: Math.round(free / unitDeg) * unitDeg })
    }
  }
  const up = () => {
    if (drag && (Math.hypot(drag.dx, drag.dy) > 0.5 || drag.deg !== 0))
      void place(picked, { dx: drag.dx, dy: drag.dy, turnDeg: drag.deg })
    else setDrag(null)
  }
  const moving = drag && `translate(${drag.dx} ${drag.dy}) rotate(${drag.deg} ${middle.x} ${middle.y})`
  return (
    <div className="relative h-full">
      <Board
        name="sheet"
        box={{ minX: 0, minY: 0, maxX: load.widthMm, maxY: load.heightMm }}
        unit={unit}
        label={`Load ${load.number}, ${load.paper.name}`}
        interactive
        onPointerDown={(event) =>
          (event.target as Element).closest('[data-piece], [data-grip]') === null &&
          dispatch(looked({ partKeys: [] }))
        }
      >
        {(px) => (
          <g ref={group} onPointerMove={drag ? move : undefined} onPointerUp={drag ? up : undefined}>
            <SheetDrawing load={load} drawn={drawn} rimMm={project.drawer.cutter.rimMm} px={px}>
              {load.pieces.map((piece, k) => {
                const key = pieceKey(piece)
                const isPicked = partKeys.includes(key)
                return (
                  <g
                    key={`${key} ${k}`}
                    transform={isPicked && moving ? moving : undefined}
                    role="button"
                    tabIndex={0}
                    aria-pressed={isPicked}
                    aria-label={`Piece of ${piece.layerName}`}
                    className="outline-none focus-visible:[&>path]:stroke-plum"
                    style={{ cursor: isPicked && drag ? 'grabbing' : 'grab' }}
                    onPointerDown={(event) => down(event, piece)}
                    onKeyDown={(event) => {
                      if (event.key !== 'Enter' && event.key !== ' ') return
                      event.preventDefault()
                      pick(piece, event.shiftKey)
                    }}
                  >
                    <PieceShape
                      piece={piece}
                      drawn={drawn?.pieces[k]}
                      px={isPicked ? px * 2 : px}
                      ink={ink}
                    />
                  </g>
                )
              })}
              {picked.length > 0 && (
                <g transform={moving ?? undefined}>
                  <PickedMark
                    pieces={picked}
                    px={px}
                    ink={ink}
                    turns={project.plan.turns !== 'fixed' && !load.paper.oneWay}
                    onGrip={grip}
                  />
                </g>
              )}
            </SheetDrawing>
          </g>
        )}
      </Board>
      {why && (
        <p
          role="alert"
          className="absolute bottom-2 left-1/2 -translate-x-1/2 border border-crimson bg-crimson-pale px-3 py-1.5 text-[13.5px]"
        >
          ■ It cannot lie there: it {wordsIn(why, unit)}.
        </p>
      )}
    </div>
  )
}

interface MarkProps {
  pieces: readonly PieceView[]
  px: number
  ink: string
  turns: boolean
  onGrip: (event: PointerEvent) => void
}

/** A frame round what is picked, with a grip to turn it by. */
function PickedMark({ pieces, px, ink, turns, onGrip }: MarkProps) {
  const { minX, minY, maxX, maxY } = joinBoxes(pieces.map((piece) => piece.box))
  const corner = { x: maxX + px * 12, y: minY - px * 12 }
  return (
    <g>
      <rect
        x={minX - px * 4}
        y={minY - px * 4}
        width={maxX - minX + px * 8}
        height={maxY - minY + px * 8}
        fill="none"
        stroke={ink}
        strokeWidth={px}
        strokeDasharray={`${px * 2} ${px * 3}`}
        pointerEvents="none"
      />
      {turns && (
        <g data-grip onPointerDown={onGrip} style={{ cursor: 'alias' }}>
          <title>Drag to turn</title>
          <circle
            cx={corner.x}
            cy={corner.y}
            r={px * 8}
            fill="#fff"
            stroke="var(--color-plum)"
            strokeWidth={px * 2}
          />
          <path
            d={`M${corner.x - px * 4} ${corner.y + px * 1}a${px * 4} ${px * 4} 0 1 1 ${px * 4} ${px * 3.4}`}
            fill="none"
            stroke="var(--color-plum)"
            strokeWidth={px * 1.6}
          />
        </g>
      )}
    </g>
  )
}
