// The stack from the front: layers as card, back to front, each casting its shadow on the one below.
import { memo, type KeyboardEvent, type PointerEvent } from 'react'
import { isSeeThrough } from '@feuillet/core/stages/layers'
import {
  colourOf,
  pictureOf,
  type Layer,
  type Picture,
  type Print,
  type Project,
} from '@feuillet/core/project'
import { Printed } from './printed'

interface Props {
  project: Project
  layers: readonly Layer[]
  /** Size of a CSS pixel in mm. */
  px: number
  picked?: string | null
  /** Layers drawn pale: all others than these. */
  strong?: ReadonlySet<string>
  shadows?: boolean
  onPick?: (layerId: string) => void
  /** How far each layer is moved from the one below (mm), to draw the stack apart. */
  apart?: number
  /** Layers that are under a hand, and where it has brought them (an SVG transform). */
  held?: { ids: readonly string[]; transform: string | undefined }
  /** A picture that is under a hand, and where it has been brought. */
  printHeld?: { layerId: string; map: Print['map'] }
  onLayerDown?: (layerId: string, event: PointerEvent) => void
}

export const StackDrawing = memo(function StackDrawing({
  project,
  layers,
  px,
  picked,
  strong,
  shadows = true,
  onPick,
  apart = 0,
  held,
  printHeld,
  onLayerDown,
}: Props) {
  return (
    <g>
      {layers.map((layer, i) => (
        <g
          key={layer.id}
          transform={
            apart
              ? `translate(${i * apart} ${-i * apart})`
              : held?.ids.includes(layer.id)
                ? held.transform
                : undefined
          }
          {...(onLayerDown && { 'data-piece': '', onPointerDown: (event) => onLayerDown(layer.id, event) })}
          style={
            shadows ? { filter: `drop-shadow(0 ${px * 1.2}px ${px * 2}px rgb(0 0 0 / 0.38))` } : undefined
          }
          opacity={strong && !strong.has(layer.id) ? 0.22 : 1}
        >
          <LayerShape
            layer={layer}
            colour={colourOf(project, layer)}
            px={px}
            clear={isSeeThrough(project, layer)}
            picture={pictureOf(project, layer)}
            map={printHeld?.layerId === layer.id ? printHeld.map : undefined}
            picked={picked === layer.id}
            onPick={onPick}
          />
          {layer.blanks.length === 0 && layer.slits.length > 0 && (
            <path
              d={layer.slits.map((slit) => `M${slit.join(' ')}`).join('')}
              fill="none"
              stroke="rgb(0 0 0 / 0.45)"
              strokeWidth={px * 0.8}
              pointerEvents="none"
              data-slits
            />
          )}
          {/* Folds and slits of a blank lie on the flat strip, not on what it becomes. */}
          {(layer.blanks.length === 0 ? layer.folds : []).map(({ line: [x1, y1, x2, y2], way }, k) => (
            <line
              key={k}
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="rgb(0 0 0 / 0.6)"
              strokeWidth={px}
              strokeDasharray={
                way === 'up' ? `${px * 4} ${px * 3}` : `${px * 8} ${px * 2} ${px * 1.5} ${px * 2}`
              }
              pointerEvents="none"
              data-fold
            />
          ))}
        </g>
      ))}
    </g>
  )
})

export const layerPath = (layer: Layer): string => layer.pieces.map((piece) => piece.path).join('')

interface ShapeProps {
  layer: Layer
  colour: string
  px: number
  picked?: boolean
  /** What is behind it is seen through it. */
  clear?: boolean
  /** What it is printed with, and where the picture lies for now. */
  picture?: Picture
  map?: Print['map']
  onPick?: (layerId: string) => void
}

/** Clear sheets take so much of the light. */
const CLEAR = 0.2

export function LayerShape({
  layer,
  colour,
  px,
  picked = false,
  clear = false,
  picture,
  map,
  onPick,
}: ShapeProps) {
  const card = (
    <path
      d={layerPath(layer)}
      fill={colour}
      fillRule="evenodd"
      fillOpacity={clear ? CLEAR : undefined}
      stroke={picked ? 'var(--color-plum)' : 'rgb(0 0 0 / 0.25)'}
      strokeWidth={picked ? px * 2 : px * 0.6}
      data-layer={layer.id}
      {...(onPick && {
        role: 'button',
        tabIndex: 0,
        'aria-label': `Layer ${layer.name}`,
        'aria-pressed': picked,
        onClick: () => onPick(layer.id),
        onKeyDown: (event: KeyboardEvent) => {
          if (event.key !== 'Enter' && event.key !== ' ') return
          event.preventDefault()
          onPick(layer.id)
        },
      })}
      className={
        onPick &&
        'cursor-pointer outline-none focus-visible:stroke-plum focus-visible:[stroke-width:3px] focus-visible:[vector-effect:non-scaling-stroke]'
      }
    />
  )
  if (!picture || !layer.print) return card
  return (
    <>
      {card}
      <Printed picture={picture} map={map ?? layer.print.map} within={layerPath(layer)} />
    </>
  )
}

/** Where a snag points: a ring with a cross, so that it does not rest on colour alone. */
export function Pointer({ at, px }: { at: [number, number]; px: number }) {
  const [x, y] = at
  return (
    <g stroke="var(--color-crimson)" strokeWidth={px * 2} fill="none" data-pointer pointerEvents="none">
      <circle cx={x} cy={y} r={px * 14} stroke="#fff" strokeWidth={px * 5} />
      <circle cx={x} cy={y} r={px * 14} />
      <path
        d={`M${x - px * 22} ${y}h${px * 14}M${x + px * 8} ${y}h${px * 14}M${x} ${y - px * 22}v${px * 14}M${x} ${y + px * 8}v${px * 14}`}
      />
    </g>
  )
}
