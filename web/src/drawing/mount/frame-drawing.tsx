import { polygonBox, type Box } from '@feuillet/core/base/geometry'
import {
  backingRect,
  builtLayers,
  designBox,
  insideRing,
  openingRect,
  type FrameMount,
  type Project,
} from '@feuillet/core/project'
import { formatLength } from '@feuillet/core/base/units'
import { StackDrawing } from '../stack'

/** Backing sheet, design, lip and opening to scale, with the widths written at their lines. */
export function FrameDrawing({ project, px }: { project: Project; px: number }) {
  const backing = backingRect(project)
  const opening = openingRect(project)
  const { mount } = project
  const isFrame = mount.kind === 'frame'
  const ring = insideRing(project)
  const inner = ring && polygonBox(ring)
  const b = backing && polygonBox(backing)
  const o = opening && polygonBox(opening)
  const design = designBox(project)
  const layers = builtLayers(project).filter((layer) => !layer.hidden)
  return (
    <g>
      {b && (
        <rect
          x={b.minX}
          y={b.minY}
          width={b.maxX - b.minX}
          height={b.maxY - b.minY}
          fill="var(--color-sheet)"
          className="paper-shadow"
        />
      )}
      <StackDrawing project={project} layers={layers} px={px} />
      {b && o && isFrame && (
        <path
          d={`M${b.minX} ${b.minY}H${b.maxX}V${b.maxY}H${b.minX}ZM${o.minX} ${o.minY}V${o.maxY}H${o.maxX}V${o.minY}Z`}
          fill={isFrame && mount.mat ? 'rgb(226 216 194 / 0.9)' : 'rgb(30 33 38 / 0.55)'}
          data-part="lip"
        />
      )}
      {b && isFrame && mount.mat && <Lip backing={b} mount={mount} />}
      {inner && (
        <rect
          x={inner.minX}
          y={inner.minY}
          width={inner.maxX - inner.minX}
          height={inner.maxY - inner.minY}
          fill="none"
          stroke="var(--color-ochre)"
          strokeWidth={px * 1.6}
          strokeDasharray={`${px * 2} ${px * 3}`}
          data-part="ring"
        />
      )}
      {o &&
        [
          { stroke: '#fff', strokeWidth: px * 3 },
          {
            stroke: 'var(--color-plum)',
            strokeWidth: px * 1.4,
            strokeDasharray: `${px * 7} ${px * 4}`,
            'data-part': 'opening',
          },
        ].map((look) => (
          <rect
            key={look.stroke}
            x={o.minX}
            y={o.minY}
            width={o.maxX - o.minX}
            height={o.maxY - o.minY}
            fill="none"
            {...look}
          />
        ))}
      {Number.isFinite(design.minX) && (
        <rect
          x={design.minX}
          y={design.minY}
          width={design.maxX - design.minX}
          height={design.maxY - design.minY}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth={px}
          data-part="design"
        />
      )}
      {o && isFrame && (
        <Width
          x1={o.minX}
          x2={o.maxX}
          y={o.maxY - px * 22}
          px={px}
          text={`${mount.mat ? 'mat’s opening' : 'opening'} ${formatLength(o.maxX - o.minX, project.unit)}`}
        />
      )}
      {b && (
        <Width
          x1={b.minX}
          x2={b.maxX}
          y={b.maxY + px * 16}
          px={px}
          text={`${isFrame ? 'spacer and backing sheet' : mount.kind === 'panel' ? mount.surface : 'card panel'} ${formatLength(b.maxX - b.minX, project.unit)}`}
        />
      )}
      {project.mount.kind === 'topper' && Number.isFinite(design.minX) && (
        <Width
          x1={design.minX}
          x2={design.maxX}
          y={design.maxY + px * 20}
          px={px}
          text={`design ${formatLength(design.maxX - design.minX, project.unit)}, topper ${formatLength(project.mount.widthMm, project.unit)}`}
        />
      )}
    </g>
  )
}

/** The frame's own lip over its mat. */
function Lip({ backing, mount }: { backing: Box; mount: FrameMount }) {
  const { spacer, opening, openingShift } = mount
  const x = (spacer.widthMm - opening.widthMm) / 2 + openingShift.xMm
  const y = (spacer.heightMm - opening.heightMm) / 2 + openingShift.yMm
  return (
    <path
      d={`M${backing.minX} ${backing.minY}H${backing.maxX}V${backing.maxY}H${backing.minX}ZM${x} ${y}V${y + opening.heightMm}H${x + opening.widthMm}V${y}Z`}
      fill="rgb(30 33 38 / 0.62)"
    />
  )
}

function Width({ x1, x2, y, px, text }: { x1: number; x2: number; y: number; px: number; text: string }) {
  const half = text.length * px * 3.9 + px * 6
  const mid = (x1 + x2) / 2
  return (
    <g stroke="var(--color-ink)" strokeWidth={px}>
      <path d={`M${x1} ${y - px * 5}v${px * 10}M${x2} ${y - px * 5}v${px * 10}M${x1} ${y}H${x2}`} />
      <rect
        x={mid - half}
        y={y - px * 9}
        width={half * 2}
        height={px * 18}
        fill="var(--color-panel)"
        stroke="none"
      />
      <text
        x={mid}
        y={y + px * 4}
        textAnchor="middle"
        fontSize={px * 12}
        className="measure"
        fill="var(--color-ink)"
        stroke="none"
      >
        {text}
      </text>
    </g>
  )
}
