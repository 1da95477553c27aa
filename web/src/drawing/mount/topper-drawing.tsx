import { useWords } from '../../state/use-words'
import type { TopperScene } from './topper-scene'

/** What a topper stands in: behind the design, pale, for its size alone. */
export function TopperDrawing({ scene, empty, px }: { scene: TopperScene; empty: boolean; px: number }) {
  const { length } = useWords()
  const { topper, cake, isCupcake, sticks } = scene
  const [w, h] = [cake.maxX - cake.minX, cake.maxY - cake.minY]
  const icing = h * (isCupcake ? 0.4 : 0.16)
  return (
    <g>
      {sticks.map(({ x, widthMm, fromY, toY }) => (
        <rect
          key={x}
          x={x - widthMm / 2}
          y={fromY}
          width={widthMm}
          height={toY - fromY}
          fill="#e2d8c2"
          stroke="var(--color-ink)"
          strokeWidth={px * 0.7}
        />
      ))}
      <path
        d={
          isCupcake
            ? `M${cake.minX + w * 0.06} ${cake.minY + icing}L${cake.minX + w * 0.18} ${cake.maxY}H${cake.maxX - w * 0.18}L${cake.maxX - w * 0.06} ${cake.minY + icing}Z`
            : `M${cake.minX} ${cake.minY + icing}V${cake.maxY}H${cake.maxX}V${cake.minY + icing}Z`
        }
        fill="#dcd3c4"
        stroke="var(--color-soft)"
        strokeWidth={px}
      />
      <rect
        x={cake.minX}
        y={cake.minY}
        width={w}
        height={icing}
        rx={icing / 2}
        fill="var(--color-sheet)"
        fillOpacity={0.9}
        stroke="var(--color-soft)"
        strokeWidth={px}
      />
      <text
        x={(cake.minX + cake.maxX) / 2}
        y={cake.maxY - h * 0.12}
        textAnchor="middle"
        fontSize={px * 12}
        className="measure"
        fill="var(--color-ink)"
      >
        {isCupcake ? 'cupcake' : 'cake'} {length(w, 0)} across
      </text>
      {empty && (
        <>
          <rect
            x={topper.minX}
            y={topper.minY}
            width={topper.maxX - topper.minX}
            height={topper.maxY - topper.minY}
            fill="none"
            stroke="var(--color-plum)"
            strokeWidth={px * 1.4}
            strokeDasharray={`${px * 7} ${px * 4}`}
          />
          <text
            x={(topper.minX + topper.maxX) / 2}
            y={(topper.minY + topper.maxY) / 2 + px * 4}
            textAnchor="middle"
            fontSize={px * 13}
            fill="var(--color-ink)"
          >
            {length(topper.maxX - topper.minX)} wide: nothing is drawn yet
          </text>
        </>
      )}
    </g>
  )
}
