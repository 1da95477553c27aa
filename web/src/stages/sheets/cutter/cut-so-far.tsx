import { useMemo } from 'react'
import type { CutterState } from './use-cutter'

interface Props {
  /** In the order of the plot, mm from the sheet's corner. */
  ways: readonly Float64Array[]
  cutter: CutterState
  px: number
}

/** What the tool has gone over in this pass, the way under way up to where the tool is. */
export function CutSoFar({ ways: lines, cutter, px }: Props) {
  const ways = useMemo(() => waysOf(lines), [lines])
  const whole = ways.filter(({ to }) => to <= cutter.movesDone).length
  const done = useMemo(
    () =>
      ways
        .slice(0, whole)
        .map(({ line }) => pathOf(line))
        .join(''),
    [ways, whole],
  )
  const under = ways[whole]
  const points = under
    ? under.line.subarray(0, 2 * Math.max(0, cutter.movesDone - under.from))
    : new Float64Array(0)
  const tip = points.length > 0 && cutter.tool ? `L${cutter.tool.x} ${cutter.tool.y}` : ''
  return (
    <g fill="none" strokeLinejoin="round" pointerEvents="none" data-cut-so-far={whole}>
      {['#fff', 'var(--color-plum)'].map((colour, i) => (
        <path
          key={colour}
          d={`${done}${pathOf(points)}${tip}`}
          stroke={colour}
          strokeWidth={px * (i === 0 ? 4.5 : 2.2)}
        />
      ))}
    </g>
  )
}

interface Way {
  line: Float64Array
  /** Moves of the plot before it, and with it: a lift to its start, then its points. */
  from: number
  to: number
}

const waysOf = (lines: readonly Float64Array[]): Way[] =>
  lines.reduce<Way[]>((ways, line) => {
    const from = ways.at(-1)?.to ?? 0
    ways.push({ line, from, to: from + line.length / 2 })
    return ways
  }, [])

function pathOf(line: Float64Array): string {
  let d = ''
  for (let i = 0; i < line.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${line[i]!.toFixed(2)} ${line[i + 1]!.toFixed(2)}`
  return d
}
