// What stands on the board, from the side: the board itself, a bar a layer with the foam under it, and where the depth ends.
import { colourOf, thicknessOf, type Layer, type Project } from '@feuillet/core/project'
import { formatLength, type Unit } from '@feuillet/core/base/units'
import { useAppSelector } from '../../state/store'
import type { Lane, Level } from './levels'
import { BAR_W, BAR_X, LABEL_X } from './sizes'

const PAD_W = 11
/** How much of a mat is drawn on each side. */
const MAT_W = 14

export function Board({ y, hasBoard }: { y: number; hasBoard: boolean }) {
  if (!hasBoard)
    return <line x1={BAR_X} x2={BAR_X + BAR_W} y1={y + 0.5} y2={y + 0.5} stroke="var(--color-ink)" />
  return (
    <g>
      <rect
        x={BAR_X}
        y={y}
        width={BAR_W}
        height={11}
        fill="#e2d8c2"
        stroke="var(--color-ink)"
        strokeWidth={0.8}
      />
      {Array.from({ length: Math.floor((BAR_W - 10) / 8) + 1 }, (_, i) => (
        <line
          key={i}
          x1={BAR_X + 4 + i * 8}
          y1={y + 11}
          x2={BAR_X + 10 + i * 8}
          y2={y}
          stroke="#a8977a"
          strokeWidth={0.8}
        />
      ))}
    </g>
  )
}

/** Where pads are drawn under a bar: left, middle and right, or as many as its width takes. */
const padsAcross = (width: number): number[] =>
  width > 48
    ? [5, (width - PAD_W) / 2, width - PAD_W - 5]
    : width > 30
      ? [3, width - PAD_W - 3]
      : [(width - PAD_W) / 2]

/** One layer with its foam, and the line to its row; where pieces of it lie at several heights, each height takes its share of the width. */
export function LayerBar({
  project,
  layer,
  level,
  lane,
  y,
  rowY,
}: {
  project: Project
  layer: Layer
  level: Level
  lane: Lane
  y: (mm: number) => number
  rowY: number
}) {
  const width = BAR_W / lane.of
  const left = BAR_X + lane.at * width
  const picked = useAppSelector((state) => state.view.layerId === layer.id)
  const parts = partsAcross(level.parts, width)
  const last = parts.at(-1)!
  const mid = y((last.bottomMm + last.topMm) / 2)
  return (
    <g>
      {parts.map((part) => (
        <PartBar key={part.x} {...{ project, layer, picked, y }} part={{ ...part, x: left + part.x }} />
      ))}
      <path
        d={`M${left + width} ${mid}H${BAR_X + BAR_W + 6}L${LABEL_X - 10} ${rowY}h6`}
        fill="none"
        stroke={picked ? 'var(--color-plum)' : 'var(--color-line)'}
        strokeWidth={picked ? 1.6 : 1}
      />
    </g>
  )
}

/** A part is drawn no narrower than this. */
const PART_W = 8

interface PartAcross {
  bottomMm: number
  topMm: number
  x: number
  width: number
}

/** Parts side by side over a width, by their shares, as far as each can be seen at all. */
function partsAcross(parts: Level['parts'], width: number): PartAcross[] {
  const most = Math.max(1, Math.floor(width / PART_W))
  // Of too many heights the rarest are left out.
  const shown =
    parts.length > most
      ? parts
          .toSorted((a, b) => b.share - a.share)
          .slice(0, most)
          .toSorted((a, b) => a.bottomMm - b.bottomMm)
      : parts
  const whole = shown.reduce((sum, { share }) => sum + share, 0)
  const free = width - shown.length * PART_W
  let x = 0
  return shown.map(({ bottomMm, topMm, share }) => {
    const own = { bottomMm, topMm, x, width: PART_W + (free * share) / whole }
    x += own.width
    return own
  })
}

function PartBar({
  project,
  layer,
  picked,
  y,
  part: { x, width, bottomMm, topMm },
}: {
  project: Project
  layer: Layer
  picked: boolean
  y: (mm: number) => number
  part: PartAcross
}) {
  const bar = Math.max(2.5, y(bottomMm) - y(topMm))
  const top = y(bottomMm) - bar
  const gap = layer.joint.kind === 'foam' ? layer.joint.gapMm : 0
  const gapH = y(bottomMm - gap) - y(bottomMm)
  // What is folded or formed lies flat at its foot; the rest of its height is what rises.
  const rises = layer.folds.length > 0 || layer.shaping.how !== 'flat'
  const flat = rises ? Math.min(bar, Math.max(2.5, y(0) - y(thicknessOf(project, layer)))) : bar
  return (
    <g>
      {gapH > 1 &&
        width >= PAD_W &&
        padsAcross(width).map((dx) => (
          <g key={dx} stroke="var(--color-line)" strokeWidth={0.8}>
            <rect x={x + dx} y={y(bottomMm)} width={PAD_W} height={gapH} fill="#fff" />
            {Array.from({ length: Math.max(0, Math.floor(gapH / 4)) }, (_, k) => (
              <line
                key={k}
                x1={x + dx + 2}
                x2={x + dx + PAD_W - 2}
                y1={y(bottomMm) + 3 + k * 4}
                y2={y(bottomMm) + 3 + k * 4}
                strokeDasharray="2 2"
              />
            ))}
          </g>
        ))}
      {flat < bar && (
        <path
          d={`M${x + width * 0.3} ${top + bar - flat}L${x + 1} ${top}M${x + width * 0.7} ${top + bar - flat}L${x + width - 1} ${top}`}
          stroke={colourOf(project, layer)}
          strokeWidth={2.2}
          style={{ filter: 'drop-shadow(0 0 0.8px rgb(0 0 0 / 0.9))' }}
          data-rise
        />
      )}
      <rect
        x={x}
        y={top + bar - flat}
        width={width}
        height={flat}
        fill={colourOf(project, layer)}
        stroke={picked ? 'var(--color-plum)' : 'rgb(0 0 0 / 0.55)'}
        strokeWidth={picked ? 2 : 0.6}
      />
    </g>
  )
}

/** The pane or the depth typed, the clearance before it, and what is left. */
export function Limit({
  y,
  depthMm,
  roomMm,
  stackMm,
  glass,
  matMm = 0,
  paneMm = 2,
  ringMm = 0,
  unit,
}: {
  y: (mm: number) => number
  depthMm: number
  roomMm: number
  stackMm: number
  glass: boolean
  /** A mat before the pane, and the ring that keeps them off the back. */
  matMm?: number
  /** How thick the pane is. */
  paneMm?: number
  ringMm?: number
  unit: Unit
}) {
  const left = roomMm - stackMm
  const x = BAR_X + BAR_W / 2
  // The pane lies on the mat, and the depth that is left begins under it.
  const pane = y(depthMm + matMm)
  return (
    <g>
      <line
        x1={BAR_X}
        x2={BAR_X + BAR_W}
        y1={pane}
        y2={pane}
        stroke="var(--color-ink)"
        strokeWidth={1.2}
        strokeDasharray={glass ? undefined : '4 3'}
      />
      {glass && (
        <line
          x1={BAR_X}
          x2={BAR_X + BAR_W}
          y1={y(depthMm + matMm + paneMm)}
          y2={y(depthMm + matMm + paneMm)}
          stroke="var(--color-ink)"
          strokeWidth={1.2}
        />
      )}
      {matMm > 0 &&
        [BAR_X, BAR_X + BAR_W - MAT_W].map((at) => (
          <rect
            key={at}
            x={at}
            y={pane}
            width={MAT_W}
            height={y(depthMm) - pane}
            fill="#e2d8c2"
            stroke="var(--color-ink)"
            strokeWidth={0.8}
            data-part="mat"
          />
        ))}
      {ringMm > 0 &&
        [BAR_X - 3, BAR_X + BAR_W].map((at) => (
          <rect
            key={at}
            x={at}
            y={y(ringMm)}
            width={3}
            height={y(0) - y(ringMm)}
            fill="#a8977a"
            data-part="ring"
          />
        ))}
      {roomMm < depthMm && (
        <line
          x1={BAR_X}
          x2={BAR_X + BAR_W}
          y1={y(roomMm)}
          y2={y(roomMm)}
          stroke="var(--color-soft)"
          strokeDasharray="3 3"
        />
      )}
      {Math.abs(y(stackMm) - y(roomMm)) > 22 && (
        <g stroke="var(--color-plum)" fill="var(--color-plum)">
          <path d={`M${x} ${y(roomMm) + 3}V${y(stackMm) - 4}`} />
          <text
            x={x + 4}
            y={(y(roomMm) + y(stackMm)) / 2 + 4}
            fontSize={11}
            stroke="none"
            className="measure"
          >
            {formatLength(Math.abs(left), unit)}
          </text>
        </g>
      )}
    </g>
  )
}
