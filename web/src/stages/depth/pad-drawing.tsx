import { builtLayers, colourOf, type Layer } from '@feuillet/core/project'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { LayerShape, layerPath } from '../../drawing/stack'
import { inkOn } from '../../ui/folio-tab'

/** One layer over what lies beneath it, with its pads and where pads may lie. */
export function PadDrawing({ layer, px }: { layer: Layer; px: number }) {
  const project = useAppSelector(selectProject)
  const map = usePlan('padMap', layer.leftOut ? null : layer.id)
  const { length, size } = useWords()
  const layers = builtLayers(project)
  const beneath = layers.slice(0, Math.max(0, layers.indexOf(layer)))
  const pads = map?.pads ?? []
  const colour = colourOf(project, layer)
  const ink = inkOn(colour)
  return (
    <g>
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
      {map && <path d={map.allowedPath} fillRule="evenodd" fill="url(#hatch)" />}
      {pads.map((pad, i) => (
        <g key={i} transform={`translate(${pad.x} ${pad.y}) rotate(${pad.rotation})`} data-pad>
          <rect
            x={-pad.widthMm / 2}
            y={-pad.heightMm / 2}
            width={pad.widthMm}
            height={pad.heightMm}
            fill="#fff"
            stroke="#1e2126"
            strokeWidth={px * 1.2}
          />
          {pad.foamIds.length > 1 && (
            <path
              d={`M${-pad.widthMm / 2} ${-pad.heightMm / 2}L${pad.widthMm / 2} ${pad.heightMm / 2}`}
              stroke="#1e2126"
              strokeWidth={px}
            />
          )}
          <title>
            {size(pad.widthMm, pad.heightMm)}, {length(pad.thicknessMm)} high
            {pad.foamIds.length > 1 ? `, ${pad.foamIds.length} stacked` : ''}
          </title>
        </g>
      ))}
    </g>
  )
}
