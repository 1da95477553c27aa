// Pictures of the last steps: pads behind the backing sheet, sticks on a topper, the frame from the side.
import { polygonBox, type Box } from '@feuillet/core/base/geometry'
import {
  backingRect,
  builtLayers,
  colourOf,
  isOnPane,
  isStandOff,
  layerBox,
  openingRect,
  standsInFrame,
  thicknessOf,
  type FrameMount,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import type { Step } from '@feuillet/core/stages/assembly'
import { usePlan } from '../../plan'
import { useWords } from '../../state/use-words'
import { Board } from '../../drawing/board'
import { LayerShape, StackDrawing } from '../../drawing/stack'
import { StickDrawing } from '../../drawing/sticks'

/** Pads behind the backmost sheet, as it lies face down. */
export function ShimsDrawing({ project, box, px }: { project: Project; box: Box; px: number }) {
  const shim = usePlan('depth')?.shim
  const [back] = builtLayers(project)
  if (!shim || !back) return null
  const { widthMm, heightMm } = shim
  return (
    <g transform={`matrix(-1 0 0 1 ${box.minX + box.maxX} 0)`}>
      <LayerShape layer={back} colour={colourOf(project, back)} px={px} />
      {shim.at.map(([x, y], k) => (
        <rect
          key={k}
          x={x - widthMm / 2}
          y={y - heightMm / 2}
          width={widthMm}
          height={heightMm}
          fill="#fff"
          stroke="#1e2126"
          strokeWidth={px * 1.2}
          data-shim
        />
      ))}
    </g>
  )
}

/** The topper from behind, with its sticks where they are glued. */
export function SticksDrawing({ project, box, px }: { project: Project; box: Box; px: number }) {
  const held = usePlan('hold') ?? null
  return (
    <g transform={`matrix(-1 0 0 1 ${box.minX + box.maxX} 0)`}>
      <StackDrawing project={project} layers={builtLayers(project).toReversed()} px={px} />
      {held && <StickDrawing held={held} px={px} footMm={box.maxY} />}
    </g>
  )
}

/** Heights are drawn so much taller that the frame is this part of its width. */
const TALL = 0.7
const BOARD_MM = 2.5
/** Walls that were not measured are drawn as wide as this, mm. */
const WALL_MM = 6
const INK = '#c3c5bf'
const MARKED = '#e0a948'

/** The frame from the side, the pane on top: what goes in, in which order, with its heights. */
export function FrameFromSide({ project, mount, step }: { project: Project; mount: FrameMount; step: Step }) {
  const depth = usePlan('depth')
  const { length } = useWords()
  const backing = backingRect(project)
  const opening = openingRect(project)
  if (!depth || !backing || !opening) return null
  const b = polygonBox(backing)
  const o = polygonBox(opening)
  const shimMm = depth.shim?.mm ?? 0
  const wallMm = mount.ring.wallMm || WALL_MM
  const wallHighMm = mount.ring.heightMm || mount.depthMm
  const paneMm = mount.pane.kind === 'none' ? 0 : mount.pane.thicknessMm
  const matMm = mount.mat?.thicknessMm ?? 0
  const [left, right] = [b.minX - wallMm, b.maxX + wallMm]
  const scale = ((right - left) * TALL) / (mount.depthMm + paneMm + 2 * BOARD_MM)
  /** Down the picture from a height over the board. */
  const y = (mm: number) => (mount.depthMm - mm) * scale
  const text = (right - left) * 0.042
  const wordsAt = right + text
  // Room for the words.
  const box = { minX: left - text, minY: y(mount.depthMm + paneMm + BOARD_MM) - text, maxX: wordsAt + text * 8.5, maxY: y(-BOARD_MM) + text } // prettier-ignore
  const bars = builtLayers(project).flatMap((layer) => {
    const at = depth.layers.find(({ layerId }) => layerId === layer.id)
    if (!at || layer.pieces.length === 0) return []
    const lift = isLifted(layer) ? shimMm : 0
    const { minX, maxX } = layerBox(layer)
    return [{ layer, minX, maxX, topMm: at.topMm + lift, thickMm: thicknessOf(project, layer) }]
  })
  const stackMm = depth.stackMm + shimMm
  const airMm = mount.depthMm - matMm - stackMm
  const isGlaze = step.kind === 'glaze'
  const notes: { mm: number; words: string; marked?: boolean }[] = [
    ...(paneMm > 0
      ? [{ mm: mount.depthMm + paneMm / 2, words: `pane of ${mount.pane.kind}`, marked: isGlaze }]
      : []),
    ...(depth.lip
      ? [{ mm: depth.lip.bottomMm + depth.lip.mm / 2, words: `pads, ${length(depth.lip.mm)}` }]
      : airMm > 0
        ? [{ mm: stackMm + airMm / 2, words: `${length(airMm)} of air` }]
        : []),
    { mm: shimMm + depth.stackMm / 2, words: `stack, ${length(depth.stackMm)}` },
    ...(shimMm > 0 ? [{ mm: shimMm / 2, words: `pads, ${length(shimMm)}` }] : []),
    {
      mm: -BOARD_MM / 2,
      words: mount.back === 'fabric' ? 'fabric on board' : 'back board',
      marked: !isGlaze,
    },
  ]
  // Words that would lie on each other are moved apart, from above down.
  let free = -Infinity
  const placed = notes.map((note) => {
    const at = Math.max(y(note.mm), free)
    free = at + text * 1.35
    return { ...note, at }
  })
  return (
    <Board name="bench" box={box} unit={project.unit} label="The frame from the side" rulers={false}>
      {(px) => (
        <g data-frame-side>
          <rect
            x={b.minX}
            y={y(mount.depthMm)}
            width={b.maxX - b.minX}
            height={mount.depthMm * scale}
            fill="#d6d7d2"
          />
          <rect
            x={left}
            y={y(0)}
            width={right - left}
            height={BOARD_MM * scale}
            fill="#a98d63"
            stroke={isGlaze ? 'none' : MARKED}
            strokeWidth={px * 3}
          />
          {mount.ring.kept &&
            [left, b.maxX].map((x) => (
              <rect
                key={x}
                x={x}
                y={y(wallHighMm)}
                width={wallMm}
                height={wallHighMm * scale}
                fill="#6f5a3c"
                data-wall
              />
            ))}
          {(depth.shim?.at ?? []).map(([x], k) => (
            <rect
              key={k}
              x={x - depth.shim!.widthMm / 2}
              y={y(shimMm)}
              width={depth.shim!.widthMm}
              height={shimMm * scale}
              fill="#f4f4f0"
              stroke="#1e2126"
              strokeWidth={px * 0.6}
            />
          ))}
          {bars.map(({ layer, minX, maxX, topMm, thickMm }) => (
            <rect
              key={layer.id}
              x={minX}
              y={y(topMm)}
              width={maxX - minX}
              height={Math.max(px * 1.5, thickMm * scale)}
              fill={colourOf(project, layer)}
              stroke="rgb(0 0 0 / 0.5)"
              strokeWidth={px * 0.6}
            />
          ))}
          {(depth.lip?.at ?? []).map(({ x, y: across, widthMm }) => (
            <rect
              key={`${x} ${across}`}
              x={x - widthMm / 2}
              y={y(depth.lip!.bottomMm + depth.lip!.mm)}
              width={widthMm}
              height={depth.lip!.mm * scale}
              fill="#f4f4f0"
              stroke="#1e2126"
              strokeWidth={px * 0.6}
            />
          ))}
          {matMm > 0 && (
            <Lip
              from={left}
              to={right}
              opening={o}
              y={y(mount.depthMm)}
              high={matMm * scale}
              fill="#e2d8c2"
            />
          )}
          {paneMm > 0 && (
            <rect
              x={left}
              y={y(mount.depthMm + paneMm)}
              width={right - left}
              height={paneMm * scale}
              fill="#bfe3ea"
              fillOpacity={0.45}
              stroke={isGlaze ? MARKED : '#bfe3ea'}
              strokeWidth={px * (isGlaze ? 3 : 1)}
              data-pane
            />
          )}
          <Lip
            from={left}
            to={right}
            opening={o}
            y={y(mount.depthMm + paneMm + BOARD_MM)}
            high={BOARD_MM * scale}
            fill="#6f5a3c"
          />
          {placed.map(({ mm, words, at, marked }) => (
            <g key={words} fill={marked ? MARKED : INK}>
              <path d={`M${right} ${y(mm)}L${wordsAt - text * 0.3} ${at}`} stroke={INK} strokeWidth={px} />
              <text x={wordsAt} y={at} fontSize={text} dominantBaseline="central">
                {words}
              </text>
            </g>
          ))}
        </g>
      )}
    </Board>
  )
}

/** What is carried by pads behind the backing sheet. */
const isLifted = (layer: Layer): boolean => !isOnPane(layer) && !isStandOff(layer) && !standsInFrame(layer)

/** The two ends of what leaves an opening in the middle. */
function Lip({
  from,
  to,
  opening,
  y,
  high,
  fill,
}: {
  from: number
  to: number
  opening: Box
  y: number
  high: number
  fill: string
}) {
  return (
    <>
      <rect x={from} y={y} width={Math.max(0, opening.minX - from)} height={high} fill={fill} />
      <rect x={opening.maxX} y={y} width={Math.max(0, to - opening.maxX)} height={high} fill={fill} />
    </>
  )
}
