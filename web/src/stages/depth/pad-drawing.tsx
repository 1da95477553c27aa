import { padPlace, PadShape } from '../../drawing/pad-shape'
import { type MouseEvent } from 'react'
import { regionContains } from '@feuillet/core/base/geometry'
import { builtLayers, colourOf, pieceRegion, type Layer } from '@feuillet/core/project'
import type { Pad, WhyNot } from '@feuillet/core/stages/depth'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { GlueMarks } from '../../drawing/glue-marks'
import { PinMarks } from '../../drawing/pin-marks'
import { LayerShape, layerPath } from '../../drawing/stack'
import { inkOn } from '../../ui/folio-tab'
import { keyOfPad, type PadHand } from './use-pad-hand'

/** One layer over what lies beneath it, with its pads and its glue, and where they may lie. */
export function PadDrawing({
  layer,
  px,
  hand,
  pieceId,
  onPick,
}: {
  layer: Layer
  px: number
  hand: PadHand
  /** The piece that is picked. */
  pieceId: string | null
  onPick: (pieceId: string | null) => void
}) {
  const project = useAppSelector(selectProject)
  const map = usePlan('padMap', layer.leftOut ? null : layer.id)
  const glue = usePlan('glueMap', layer.leftOut ? null : layer.id)
  const pins = usePlan('depth')?.pins ?? null
  const { length, size } = useWords()
  const layers = builtLayers(project)
  const beneath = layers.slice(0, Math.max(0, layers.indexOf(layer)))
  const pads = map?.pads ?? []
  const colour = colourOf(project, layer)
  const ink = inkOn(colour)
  const round = new Set(project.drawer.foams.flatMap(({ id, form }) => (form === 'dots' ? [id] : [])))
  const isRound = ({ foamIds }: Pad) => foamIds.every((id) => round.has(id))
  const picked = layer.pieces.find(({ id }) => id === pieceId)
  /** Picks the piece that is pressed; what is pressed on a pad is the pad's. */
  const pickAt = (event: MouseEvent<SVGGElement>) => {
    if ((event.target as Element).closest('[data-pad]')) return
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()!.inverse(),
    )
    onPick(layer.pieces.find((piece) => regionContains(pieceRegion(piece), x, y))?.id ?? null)
  }
  return (
    <g onClick={pickAt}>
      <defs>
        <pattern
          id="hatch"
          width={px * 7}
          height={px * 7}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1={0} y1={0} x2={0} y2={px * 7} stroke={ink} strokeWidth={px * 1.2} opacity={0.5} />
        </pattern>
      </defs>
      <g opacity={0.35}>
        {beneath.map((below) => (
          <path key={below.id} d={layerPath(below)} fillRule="evenodd" fill={colourOf(project, below)} />
        ))}
      </g>
      <g style={{ filter: `drop-shadow(0 ${px * 2}px ${px * 3}px rgb(0 0 0 / 0.4))` }}>
        <LayerShape layer={layer} colour={colour} px={px} />
      </g>
      {map && <path d={map.allowedPath} fillRule="evenodd" fill="url(#hatch)" pointerEvents="none" />}
      {map?.notAllowed.map(({ why, path }) => (
        // Seen by what it says when it is pointed at; the hatching shows the rest.
        <path key={why} d={path} fillRule="evenodd" fill="transparent" data-why={why}>
          <title>{WHY[why]}</title>
        </path>
      ))}
      {picked && (
        <path
          d={picked.path}
          fill="none"
          stroke="var(--color-plum)"
          strokeWidth={px * 3}
          pointerEvents="none"
          data-picked-piece
        />
      )}
      {pins?.layerId === layer.id && <PinMarks at={pins.at} px={px} />}
      {glue && <GlueMarks glue={glue} px={px} ink={ink} />}
      <g data-pads>
        {pads.map((pad) => {
          const key = keyOfPad(pad)
          const isPicked = hand.picked !== null && keyOfPad(hand.picked) === key
          const [dx, dy] = isPicked ? hand.drag : [0, 0]
          const name = `${size(pad.widthMm, pad.heightMm)}, ${length(pad.thicknessMm)} high${
            pad.foamIds.length > 1 ? `, ${pad.foamIds.length} stacked` : ''
          }${pad.bendMm ? ', bent' : ''}${pad.handId ? ', put by you' : ''}`
          return (
            <g
              key={key}
              transform={padPlace({ ...pad, x: pad.x + dx, y: pad.y + dy })}
              data-pad={pad.handId ? 'hand' : 'planned'}
              role="button"
              tabIndex={0}
              aria-pressed={isPicked}
              aria-label={`Pad ${name}`}
              className="cursor-move outline-none focus-visible:[&>*]:stroke-plum"
              onFocus={() => hand.pick(pad)}
              onPointerDown={(event) => hand.begin(pad, event)}
              onPointerMove={hand.onMove}
              onPointerUp={hand.onUp}
              onKeyDown={(event) => hand.onKey(pad, event)}
            >
              <PadShape
                pad={pad}
                round={isRound(pad)}
                fill={pad.handId ? '#f3e3ef' : '#fff'}
                stroke={isPicked ? 'var(--color-plum)' : '#1e2126'}
                strokeWidth={px * (isPicked ? 2.6 : 1.2)}
              />
              {pad.foamIds.length > 1 && (
                <path
                  d={`M${-pad.widthMm / 2} ${-pad.heightMm / 2}L${pad.widthMm / 2} ${pad.heightMm / 2}`}
                  stroke="#1e2126"
                  strokeWidth={px}
                />
              )}
              <title>{name}</title>
            </g>
          )
        })}
      </g>
      {project.plan.padFree
        .filter(({ layerId }) => layerId === layer.id)
        .map(({ x, y, radiusMm }, i) => (
          <circle
            key={i}
            cx={x}
            cy={y}
            r={radiusMm}
            fill="none"
            stroke="var(--color-plum)"
            strokeWidth={px}
            strokeDasharray={`${px * 4} ${px * 3}`}
            pointerEvents="none"
          />
        ))}
    </g>
  )
}

/** Why no pad may lie there. */
const WHY: Record<WhyNot, string> = {
  beneath: 'No pad: nothing beneath',
  edge: 'No pad: it would be seen from aside',
  height: 'No pad: no foam of this height',
  shows: 'No pad: it would show through',
  'on-another': 'No pad: one lies there',
}
