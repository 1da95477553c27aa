import { useWords } from '../state/use-words'
import { memo, useMemo } from 'react'
import {
  printOfPiece,
  type LoadView,
  type PieceView,
  type SheetDrawing as Drawn,
} from '@feuillet/core/stages/sheets'
import { selectProject } from '../state/selectors'
import { useAppSelector } from '../state/store'
import { inkOn } from '../ui/folio-tab'
import { Printed } from './printed'

export const pieceKey = ({ placement }: Pick<PieceView, 'placement'>): string =>
  `${placement.id}#${placement.copy}`

interface Props {
  load: LoadView
  /** Its outlines; null until they are there. */
  drawn: Drawn | null
  rimMm: number
  px: number
  children?: React.ReactNode
}

/** One sheet of card with what the blade reaches of it, its pieces as cut lines with folio numbers, and the clean off-cut. */
export const SheetDrawing = memo(function SheetDrawing({ load, drawn, rimMm, px, children }: Props) {
  const { paper, offCut, widthMm, heightMm, lies } = load
  const ink = inkOn(paper.colour)
  const outline = drawn?.outline ?? `M0 0H${widthMm}V${heightMm}H0Z`
  return (
    <g>
      {/* The shadow as outlines, which cost a tenth of a blurred one. */}
      {[2.6, 1.3].map((offset) => (
        <path
          key={offset}
          d={outline}
          fillRule="evenodd"
          fill="#000"
          opacity={0.13}
          stroke="#000"
          strokeWidth={px * offset}
          transform={`translate(0 ${px * offset})`}
        />
      ))}
      <path
        d={outline}
        fillRule="evenodd"
        fill={paper.colour}
        stroke="rgb(0 0 0 / 0.35)"
        strokeWidth={px * 0.7}
      />
      {!load.onOffCut && (
        <rect
          data-rim
          x={rimMm}
          y={rimMm}
          width={Math.max(0, (lies?.widthMm ?? widthMm) - 2 * rimMm)}
          height={Math.max(0, (lies?.heightMm ?? heightMm) - 2 * rimMm)}
          fill="none"
          stroke={ink}
          opacity={0.55}
          strokeWidth={px * 0.8}
          strokeDasharray={`${px * 3} ${px * 3}`}
        />
      )}
      {offCut && <OffCutLine load={load} px={px} ink={ink} />}
      {children ??
        load.pieces.map((piece, k) => (
          <PieceShape
            key={`${pieceKey(piece)} ${k}`}
            piece={piece}
            drawn={drawn?.pieces[k]}
            px={px}
            ink={ink}
          />
        ))}
    </g>
  )
})

interface PieceProps {
  piece: PieceView
  drawn: Drawn['pieces'][number] | undefined
  px: number
  ink: string
}

export const PieceShape = memo(function PieceShape({ piece, drawn, px, ink }: PieceProps) {
  const line = {
    fill: 'none',
    stroke: ink,
    strokeWidth: px,
    pointerEvents: 'none' as const,
    'data-mark': true,
  }
  return (
    <g data-piece={pieceKey(piece)}>
      <path
        d={drawn?.path ?? boxPath(piece)}
        fillRule="evenodd"
        fill={ink}
        fillOpacity={0.1}
        stroke={ink}
        strokeWidth={px * (piece.loose ? 1.8 : 1)}
        strokeDasharray={piece.loose ? `${px * 4} ${px * 2}` : undefined}
      />
      {piece.printed && <PrintOf piece={piece} within={drawn?.path ?? boxPath(piece)} />}
      {drawn?.number && <path d={drawn.number} {...line} />}
      {drawn?.places && <path d={drawn.places} {...line} />}
      {drawn?.slits && <path d={drawn.slits} {...line} />}
      {drawn?.folds && <path d={drawn.folds} {...line} strokeDasharray={`${px * 4} ${px * 3}`} />}
    </g>
  )
})

/** What a piece is printed with, where it lies on its sheet. */
function PrintOf({ piece, within }: { piece: PieceView; within: string }) {
  const project = useAppSelector(selectProject)
  const print = useMemo(() => printOfPiece(project, piece), [project, piece])
  return print && <Printed picture={print.picture} map={print.map} within={within} />
}

/** A piece whose outline is not there yet: the box it lies in. */
const boxPath = ({ box: { minX, minY, maxX, maxY } }: PieceView): string =>
  `M${minX} ${minY}H${maxX}V${maxY}H${minX}Z`

function OffCutLine({ load, px, ink }: { load: LoadView; px: number; ink: string }) {
  const words = useWords()
  const { x, y, widthMm, heightMm } = load.offCut!
  const upright = y === 0
  const [x1, y1, x2, y2] = upright ? [x, 0, x, heightMm] : [0, y, widthMm, y]
  const text = `off-cut ${words.size(Math.round(widthMm), Math.round(heightMm))}`
  const [cx, cy] = [x + widthMm / 2, y + heightMm / 2]
  const size = Math.min(px * 12, (upright ? widthMm : heightMm) * 0.6)
  return (
    <g>
      <line
        x1={x1}
        y1={y1}
        x2={x2}
        y2={y2}
        stroke={ink}
        strokeWidth={px * 1.4}
        strokeDasharray={`${px * 6} ${px * 4}`}
      />
      {/* Where it has room. */}
      {text.length * size * 0.52 <= (upright ? heightMm : widthMm) && (
        <text
          x={cx}
          y={cy}
          textAnchor="middle"
          dominantBaseline="middle"
          fontSize={size}
          fill={ink}
          transform={upright ? `rotate(90 ${cx} ${cy})` : undefined}
        >
          {text}
        </text>
      )}
    </g>
  )
}
