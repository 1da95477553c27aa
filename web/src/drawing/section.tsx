// The stack from the side, true to scale, and the list of layers: pick, reorder, rename, hide, pin there.
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { Eye, EyeOff, Pin } from 'lucide-react'
import { useState } from 'react'
import type { ViewOf } from '@feuillet/core/stages'
import {
  builtLayers,
  colourOf,
  folioOf,
  setLayer,
  thicknessOf,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import { formatLength, formatMm, MM_PER_INCH, type Unit } from '@feuillet/core/base/units'
import { change } from '../state/edits'
import { selectMeasures, selectProject, selectSettled, selectSnags, selectUnit } from '../state/selectors'
import { useAppDispatch, useAppSelector } from '../state/store'
import { pickedLayer } from '../state/view'
import { FolioTab } from '../ui'
import { usePlan } from '../plan'
import { useSize } from './use-size'

const RULE_X = 34
const BAR_X = 42
const BAR_W = 62
const LABEL_X = 132
const ROW = 34
const FOOT = 28
const HEAD = 12
const PAD_W = 11

export function SectionPanel() {
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const known = usePlan('levels') ?? NO_LEVELS
  const { roomMm, depthMm } = useAppSelector(selectMeasures)
  const busy = !useAppSelector(selectSettled)
  const [ref, { height: place }] = useSize()
  const layers = builtLayers(project).toReversed()
  const out = project.layers.filter((layer) => layer.leftOut)
  const heights = levels(project, known)
  const stackMm = Math.max(0, ...[...heights.values()].map((l) => l.topMm))
  const topMm = Math.max(stackMm, depthMm ?? 0, 1) * 1.03
  const height = Math.max(place - out.length * 30, layers.length * ROW + HEAD + FOOT)
  const scale = (height - HEAD - FOOT) / topMm
  const y = (mm: number) => height - FOOT - mm * scale
  const rows = spread(
    layers.map((layer) => y((heights.get(layer.id)!.bottomMm + heights.get(layer.id)!.topMm) / 2) - ROW / 2),
    HEAD,
    height - ROW,
  )
  const lanes = sideBySide(layers.toReversed().map((layer) => ({ id: layer.id, ...heights.get(layer.id)! })))
  const over = roomMm !== null && stackMm > roomMm + 1e-6
  return (
    <aside className="flex min-h-0 flex-col border-r border-line bg-panel" aria-label="Section">
      <header className="flex items-baseline justify-between px-3.5 pt-3 pb-1">
        <h2 className="text-[15px]">Section</h2>
        <span
          className={`measure text-[12px] ${over ? 'text-crimson' : 'text-soft'} ${busy ? 'opacity-50' : ''}`}
          data-testid="stack-height"
          title="Card and foam against the depth at hand less clearance; foam not pressed"
        >
          {over && '■ '}
          {roomMm === null
            ? formatLength(stackMm, unit)
            : `${unit === 'mm' ? formatMm(stackMm) : formatLength(stackMm, unit)} of ${formatLength(roomMm, unit)}`}
        </span>
      </header>
      <div ref={ref} className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
        {place > 0 && (
          <div className="relative" style={{ height }}>
            <svg className="absolute inset-0 h-full w-full" aria-hidden>
              <Rule topMm={topMm} y={y} unit={unit} scale={scale} />
              <Board y={y(0)} hasBoard={project.mount.kind === 'frame'} />
              {layers.map((layer, i) => (
                <LayerBar
                  key={layer.id}
                  project={project}
                  layer={layer}
                  level={heights.get(layer.id)!}
                  lane={lanes.get(layer.id)!}
                  y={y}
                  rowY={rows[i]! + ROW / 2}
                />
              ))}
              {depthMm !== null && (
                <Limit
                  y={y}
                  depthMm={depthMm}
                  roomMm={roomMm ?? depthMm}
                  stackMm={stackMm}
                  glass={project.mount.kind === 'frame'}
                />
              )}
            </svg>
            <SortableContext items={layers.map((layer) => layer.id)} strategy={verticalListSortingStrategy}>
              <ol aria-label="Layers, front to back">
                {layers.map((layer, i) => (
                  <LayerRow key={layer.id} layer={layer} top={rows[i]!} level={heights.get(layer.id)!} />
                ))}
              </ol>
            </SortableContext>
            {layers.length === 0 && (
              <p className="absolute right-3 bottom-12 left-[130px] text-[13px] text-soft">
                No layers yet. Bring in a drawing on the Layers stage.
              </p>
            )}
          </div>
        )}
        {out.map((layer) => (
          <LayerRow key={layer.id} layer={layer} top={null} level={null} />
        ))}
      </div>
    </aside>
  )
}

const NO_LEVELS: LayerLevel[] = []

/** How high a layer stands, as the planner has it. */
type LayerLevel = ViewOf<'levels'>[number]

interface Level {
  bottomMm: number
  topMm: number
}

/** Heights from the worker where it has answered for these layers; else one on the other, so that nothing waits. */
function levels(project: Project, depths: readonly LayerLevel[]): Map<string, Level> {
  const known = new Map(depths.map((d) => [d.layerId, d]))
  const out = new Map<string, Level>()
  let top = 0
  for (const layer of builtLayers(project)) {
    const depth = known.get(layer.id)
    const bottom = top + (layer.joint.kind === 'foam' ? layer.joint.gapMm : 0)
    const level =
      depth && Number.isFinite(depth.bottomMm)
        ? { bottomMm: depth.bottomMm, topMm: depth.topMm }
        : { bottomMm: bottom, topMm: bottom + thicknessOf(project, layer) }
    out.set(layer.id, level)
    top = level.topMm
  }
  return out
}

/** Which strip of the bars' width a layer takes: layers that lie at one height beside each other share it. */
interface Lane {
  at: number
  of: number
}

/** Lanes for layers sorted back to front; only neighbours whose card overlaps in height share the width. */
function sideBySide(levels: readonly (Level & { id: string })[]): Map<string, Lane> {
  const lanes = new Map<string, Lane>()
  for (let i = 0; i < levels.length;) {
    let topMm = levels[i]!.topMm
    let end = i + 1
    while (end < levels.length && levels[end]!.bottomMm < topMm - 0.01)
      topMm = Math.max(topMm, levels[end++]!.topMm)
    for (let k = i; k < end; k++) lanes.set(levels[k]!.id, { at: k - i, of: end - i })
    i = end
  }
  return lanes
}

/** Moves rows apart to at least a row's height, as near to where they belong as that allows. */
function spread(wanted: number[], least: number, most: number): number[] {
  const out = [...wanted]
  for (let i = 0; i < out.length; i++) out[i] = Math.max(out[i]!, i === 0 ? least : out[i - 1]! + ROW)
  for (let i = out.length - 1; i >= 0; i--)
    out[i] = Math.min(out[i]!, i === out.length - 1 ? most : out[i + 1]! - ROW)
  return out
}

function Rule({
  topMm,
  y,
  unit,
  scale,
}: {
  topMm: number
  y: (mm: number) => number
  unit: Unit
  scale: number
}) {
  const step =
    unit === 'mm' ? ([1, 2, 5, 10].find((k) => k * scale >= 9) ?? 20) : MM_PER_INCH / (scale > 14 ? 16 : 8)
  const marks = Array.from({ length: Math.floor(topMm / step) + 1 }, (_, k) => k)
  const every = unit === 'mm' ? (topMm < 8 ? 1 : Math.max(1, Math.round(5 / step))) : scale > 14 ? 4 : 2
  return (
    <g stroke="var(--color-ink)" strokeWidth={1}>
      {marks.map((k) => (
        <g key={k}>
          <line x1={RULE_X - (k % every === 0 ? 10 : 5)} x2={RULE_X} y1={y(k * step)} y2={y(k * step)} />
          {k % every === 0 && (
            <text
              x={RULE_X - 13}
              y={y(k * step) + 4}
              textAnchor="end"
              stroke="none"
              fontSize={11}
              className="measure"
              fill="var(--color-ink)"
            >
              {unit === 'mm' ? k * step : quarters(k * step)}
            </text>
          )}
        </g>
      ))}
      <text x={2} y={y(0) + 20} stroke="none" fontSize={11} className="measure" fill="var(--color-soft)">
        {unit}
      </text>
    </g>
  )
}

const quarters = (mm: number): string => {
  const q = Math.round((mm / MM_PER_INCH) * 4)
  return `${q >= 4 ? Math.floor(q / 4) : q === 0 ? '0' : ''}${['', '¼', '½', '¾'][q % 4]}`
}

function Board({ y, hasBoard }: { y: number; hasBoard: boolean }) {
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

function LayerBar({
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
  const x = BAR_X + lane.at * width
  const picked = useAppSelector((state) => state.view.layerId === layer.id)
  const bar = Math.max(2.5, y(level.bottomMm) - y(level.topMm))
  const top = y(level.bottomMm) - bar
  const gap = layer.joint.kind === 'foam' ? layer.joint.gapMm : 0
  const gapH = y(level.bottomMm - gap) - y(level.bottomMm)
  const mid = top + bar / 2
  return (
    <g>
      {gapH > 1 &&
        padsAcross(width).map((dx) => (
          <g key={dx} stroke="var(--color-line)" strokeWidth={0.8}>
            <rect x={x + dx} y={y(level.bottomMm)} width={PAD_W} height={gapH} fill="#fff" />
            {Array.from({ length: Math.max(0, Math.floor(gapH / 4)) }, (_, k) => (
              <line
                key={k}
                x1={x + dx + 2}
                x2={x + dx + PAD_W - 2}
                y1={y(level.bottomMm) + 3 + k * 4}
                y2={y(level.bottomMm) + 3 + k * 4}
                strokeDasharray="2 2"
              />
            ))}
          </g>
        ))}
      <rect
        x={x}
        y={top}
        width={width}
        height={bar}
        fill={colourOf(project, layer)}
        stroke={picked ? 'var(--color-plum)' : 'rgb(0 0 0 / 0.55)'}
        strokeWidth={picked ? 2 : 0.6}
      />
      <path
        d={`M${x + width} ${mid}H${BAR_X + BAR_W + 6}L${LABEL_X - 10} ${rowY}h6`}
        fill="none"
        stroke={picked ? 'var(--color-plum)' : 'var(--color-line)'}
        strokeWidth={picked ? 1.6 : 1}
      />
    </g>
  )
}

function Limit({
  y,
  depthMm,
  roomMm,
  stackMm,
  glass,
}: {
  y: (mm: number) => number
  depthMm: number
  roomMm: number
  stackMm: number
  glass: boolean
}) {
  const left = roomMm - stackMm
  const x = BAR_X + BAR_W / 2
  return (
    <g>
      <line
        x1={BAR_X}
        x2={BAR_X + BAR_W}
        y1={y(depthMm)}
        y2={y(depthMm)}
        stroke="var(--color-ink)"
        strokeWidth={1.2}
        strokeDasharray={glass ? undefined : '4 3'}
      />
      {glass && (
        <line
          x1={BAR_X}
          x2={BAR_X + BAR_W}
          y1={y(depthMm) + 3}
          y2={y(depthMm) + 3}
          stroke="var(--color-ink)"
          strokeWidth={1.2}
        />
      )}
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
            {formatMm(Math.abs(left))} mm
          </text>
        </g>
      )}
    </g>
  )
}

function LayerRow({ layer, top, level }: { layer: Layer; top: number | null; level: Level | null }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const picked = useAppSelector((state) => state.view.layerId === layer.id)
  const snags = useAppSelector(selectSnags).filter((snag) => snag.layer === layer.id)
  const [naming, setNaming] = useState(false)
  const sortable = useSortable({ id: layer.id, data: { kind: 'layer' }, disabled: naming || top === null })
  const folio = folioOf(project, layer.id)
  const stop = snags.some((snag) => snag.severity === 'stop')
  const rename = (name: string) => {
    setNaming(false)
    if (name.trim() && name.trim() !== layer.name)
      dispatch(change(`rename ${layer.name}`, (p) => setLayer(p, layer.id, { name: name.trim() })))
  }
  return (
    <li
      ref={sortable.setNodeRef}
      className={`group flex items-center gap-2 ${top === null ? 'ml-[132px] h-[30px] list-none' : 'absolute right-0'} ${sortable.isDragging ? 'z-10 opacity-80' : ''} ${sortable.isOver ? 'bg-ochre-pale' : ''}`}
      style={{
        top: top ?? undefined,
        left: top === null ? undefined : LABEL_X,
        height: ROW,
        transform: CSS.Translate.toString(sortable.transform),
        transition: sortable.transition,
      }}
      data-row={layer.id}
    >
      <button
        type="button"
        className={`flex h-full min-w-0 flex-1 items-center gap-1.5 text-left ${layer.leftOut || layer.hidden ? 'opacity-50' : ''}`}
        {...sortable.attributes}
        {...sortable.listeners}
        role="button"
        aria-pressed={picked}
        onClick={() => dispatch(pickedLayer(layer.id))}
        onDoubleClick={() => setNaming(true)}
        title={`${layer.name}: double-click to rename, drag to move`}
      >
        <FolioTab folio={folio} colour={colourOf(project, layer)} size={22} />
        {!naming && (
          <span className="min-w-0 leading-[1.1]">
            <span className={`block truncate text-[13px] font-semibold ${picked ? 'text-plum' : ''}`}>
              {layer.name}
            </span>
            <span className="block truncate text-[11.5px] text-soft">
              {snags.length > 0 && (
                <span
                  className={stop ? 'text-crimson' : 'text-ochre'}
                  title={snags.map((s) => s.message).join('\n')}
                >
                  {stop ? '■ ' : '▲ '}
                </span>
              )}
              {jointWords(layer, level)}
            </span>
          </span>
        )}
      </button>
      {naming && (
        <input
          autoFocus
          aria-label="Name of the layer"
          defaultValue={layer.name}
          className="absolute left-[28px] w-[84px] px-1 py-0.5 text-[13px]"
          onBlur={(event) => rename(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') rename(event.currentTarget.value)
            if (event.key === 'Escape') setNaming(false)
          }}
        />
      )}
      <span
        className={`absolute right-0 flex flex-col bg-panel opacity-0 group-hover:opacity-100 focus-within:opacity-100 ${layer.joint.pinned || layer.hidden ? 'opacity-100' : ''}`}
      >
        {(layer.joint.kind === 'foam' || layer.joint.pinned) && (
          <button
            type="button"
            className={`px-1 py-0.5 ${layer.joint.pinned ? 'text-plum' : 'text-soft'}`}
            aria-pressed={layer.joint.pinned}
            aria-label={`Pin the gap under ${layer.name}`}
            title="Pin: keep this gap when gaps are fitted"
            onClick={() =>
              dispatch(
                change(`pin ${layer.name}`, (p) =>
                  setLayer(p, layer.id, { joint: { ...layer.joint, pinned: !layer.joint.pinned } }),
                ),
              )
            }
          >
            <Pin size={13} />
          </button>
        )}
        <button
          type="button"
          className="px-1 py-0.5 text-soft"
          aria-pressed={layer.hidden}
          aria-label={layer.hidden ? `Show ${layer.name}` : `Hide ${layer.name}`}
          title="Hide in drawings; it is still cut"
          onClick={() =>
            dispatch(
              change(`${layer.hidden ? 'show' : 'hide'} ${layer.name}`, (p) =>
                setLayer(p, layer.id, { hidden: !layer.hidden }),
              ),
            )
          }
        >
          {layer.hidden ? <EyeOff size={13} /> : <Eye size={13} />}
        </button>
      </span>
    </li>
  )
}

function jointWords(layer: Layer, level: Level | null): string {
  if (layer.leftOut) return 'left out'
  if (level && level.bottomMm === 0) return 'at the back'
  return layer.joint.kind === 'foam'
    ? `${formatMm(layer.joint.gapMm)} mm foam`
    : layer.joint.kind === 'glue'
      ? 'glued'
      : 'laid on'
}
