// One sheet, large: pick a piece, drag or turn it. A place that may not be says why and does not stick.
import { useEffect, useRef, useState, type PointerEvent } from 'react'
import { polygonBox } from '@feuillet/core/geometry'
import type { LaidPiece, Load } from '@feuillet/core/sheets'
import { selectProject, selectUnit, selectView } from '../../app/selectors'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { looked } from '../../app/view'
import { Board } from '../../drawing/board'
import { inkOn } from '../../ui/folio-tab'
import { placePiece } from './place-piece'
import { PieceShape, pieceKey, SheetDrawing } from './sheet-drawing'

interface Drag {
  key: string
  startX: number
  startY: number
  dx: number
  dy: number
}

export function SheetBoard({ load }: { load: Load }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { partKey } = useAppSelector(selectView)
  const [drag, setDrag] = useState<Drag | null>(null)
  const [why, setWhy] = useState<string | null>(null)
  const group = useRef<SVGGElement>(null)
  const ink = inkOn(load.paper.colour)
  const picked = load.pieces.find((piece) => pieceKey(piece) === partKey)

  const place = async (piece: LaidPiece, dx: number, dy: number, turnDeg: number) => {
    setWhy(await dispatch(placePiece(load, piece, dx, dy, turnDeg)))
    setDrag(null)
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!picked || event.ctrlKey || event.metaKey || (event.target as HTMLElement).matches('input, select')) return
      const step = event.shiftKey ? 10 : 1
      const moves: Record<string, [number, number, number]> = {
        ArrowLeft: [-step, 0, 0],
        ArrowRight: [step, 0, 0],
        ArrowUp: [0, -step, 0],
        ArrowDown: [0, step, 0],
        r: [0, 0, 90],
        R: [0, 0, 90],
      }
      const move = moves[event.key]
      if (!move) return
      event.preventDefault()
      void place(picked, ...move)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })

  const at = (event: PointerEvent) => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(group.current!.getScreenCTM()!.inverse())
    return [point.x, point.y] as const
  }
  const down = (event: PointerEvent, piece: LaidPiece) => {
    const [startX, startY] = at(event)
    event.currentTarget.setPointerCapture(event.pointerId)
    dispatch(looked({ partKey: pieceKey(piece), layerId: piece.layerId }))
    setWhy(null)
    setDrag({ key: pieceKey(piece), startX, startY, dx: 0, dy: 0 })
  }
  const move = (event: PointerEvent) => {
    if (!drag) return
    const [x, y] = at(event)
    setDrag({ ...drag, dx: x - drag.startX, dy: y - drag.startY })
  }
  const up = (piece: LaidPiece) => {
    if (drag && Math.hypot(drag.dx, drag.dy) > 0.5) void place(piece, drag.dx, drag.dy, 0)
    else setDrag(null)
  }
  return (
    <div className="relative h-full">
      <Board box={{ minX: 0, minY: 0, maxX: load.paper.widthMm, maxY: load.paper.heightMm }} unit={unit} label={`Load ${load.number}, ${load.paper.name}`}>
        {(px) => (
          <g ref={group}>
            <SheetDrawing load={load} rimMm={project.drawer.cutter.rimMm} px={px}>
              {load.pieces.map((piece) => {
                const key = pieceKey(piece)
                const moving = drag?.key === key
                const isPicked = key === partKey
                return (
                  <g
                    key={key}
                    transform={moving ? `translate(${drag.dx} ${drag.dy})` : undefined}
                    style={{ cursor: moving ? 'grabbing' : 'grab' }}
                    onPointerDown={(event) => down(event, piece)}
                    onPointerMove={moving ? move : undefined}
                    onPointerUp={() => up(piece)}
                  >
                    <PieceShape piece={piece} px={isPicked ? px * 2 : px} ink={ink} />
                    {isPicked && <PickedMark piece={piece} px={px} ink={ink} />}
                  </g>
                )
              })}
            </SheetDrawing>
          </g>
        )}
      </Board>
      {why && (
        <p role="alert" className="absolute bottom-2 left-1/2 -translate-x-1/2 border border-crimson bg-crimson-pale px-3 py-1.5 text-[13.5px]">
          ■ It cannot lie there: it {why}.
        </p>
      )}
    </div>
  )
}

function PickedMark({ piece, px, ink }: { piece: LaidPiece; px: number; ink: string }) {
  const b = polygonBox(piece.shape)
  return (
    <rect
      x={b.minX - px * 4}
      y={b.minY - px * 4}
      width={b.maxX - b.minX + px * 8}
      height={b.maxY - b.minY + px * 8}
      fill="none"
      stroke={ink}
      strokeWidth={px}
      strokeDasharray={`${px * 2} ${px * 3}`}
      pointerEvents="none"
    />
  )
}
