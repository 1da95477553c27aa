import { memo } from 'react'
import { polygonToPath } from '@feuillet/core/base/geometry'
import type { LaidPiece, Load } from '@feuillet/core/stages/sheets'
import { plainPath } from '../../drawing/plain-path'
import { inkOn } from '../../ui/folio-tab'

export const pieceKey = (piece: LaidPiece): string => `${piece.placement.id}#${piece.placement.copy}`

/** One sheet of card with its rim, its pieces as cut lines with folio numbers, and the clean off-cut. */
export const SheetDrawing = memo(function SheetDrawing({
  load,
  rimMm,
  px,
  children,
}: {
  load: Load
  rimMm: number
  px: number
  children?: React.ReactNode
}) {
  const { paper, offCut } = load
  const ink = inkOn(paper.colour)
  const outline = polygonToPath(load.outline)
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
          x={rimMm}
          y={rimMm}
          width={load.widthMm - 2 * rimMm}
          height={load.heightMm - 2 * rimMm}
          fill="none"
          stroke={ink}
          opacity={0.55}
          strokeWidth={px * 0.8}
          strokeDasharray={`${px * 3} ${px * 3}`}
        />
      )}
      {offCut && <OffCutLine load={load} px={px} ink={ink} />}
      {children ??
        load.pieces.map((piece) => <PieceShape key={pieceKey(piece)} piece={piece} px={px} ink={ink} />)}
    </g>
  )
})

export const PieceShape = memo(function PieceShape({
  piece,
  px,
  ink,
}: {
  piece: LaidPiece
  px: number
  ink: string
}) {
  const { number, folds, places } = piece.marks
  return (
    <g data-piece={pieceKey(piece)}>
      <path
        d={plainPath(piece.shape, px)}
        fillRule="evenodd"
        fill={ink}
        fillOpacity={0.1}
        stroke={ink}
        strokeWidth={px * (piece.loose ? 1.8 : 1)}
        strokeDasharray={piece.loose ? `${px * 4} ${px * 2}` : undefined}
      />
      {[...number, ...places, ...folds].map((line, i) => (
        <polyline
          key={i}
          points={line.join(' ')}
          fill="none"
          stroke={ink}
          strokeWidth={px}
          strokeDasharray={i >= number.length + places.length ? `${px * 4} ${px * 3}` : undefined}
          pointerEvents="none"
          data-mark
        />
      ))}
    </g>
  )
})

function OffCutLine({ load, px, ink }: { load: Load; px: number; ink: string }) {
  const { x, y, widthMm, heightMm } = load.offCut!
  const upright = y === 0
  const [x1, y1, x2, y2] = upright ? [x, 0, x, heightMm] : [0, y, widthMm, y]
  const text = `off-cut ${Math.round(widthMm)} × ${Math.round(heightMm)}`
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
    </g>
  )
}
