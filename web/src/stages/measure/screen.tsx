import { fitDesign } from '@feuillet/core/stages/measure'
import { type Mount } from '@feuillet/core/project'
import { formatLength, formatSize } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { selectMeasures, selectProject, selectSnags, selectUnit, selectView } from '../../state/selectors'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Board } from '../../drawing/board'
import { MountDrawing, mountBox } from '../../drawing/mount/mount-drawing'
import { Pointer } from '../../drawing/stack'
import { Button, Figure, Figures, Heading, LengthField, NumberField } from '../../ui'

const titles: Record<Mount['kind'], string> = {
  frame: 'The frame',
  card: 'The card',
  topper: 'The topper',
  garland: 'The garland',
  free: 'Free work',
}

export default function MeasureScreen() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const m = useAppSelector(selectMeasures)
  const view = useAppSelector(selectView)
  const snags = useAppSelector(selectSnags).filter(
    (snag) => snag.stage === 'measure' || snag.code === 'stack-too-deep',
  )
  const box = mountBox(project)
  const canFit = m.fitFactor !== null && Math.abs(m.fitFactor - 1) > 0.002
  return (
    <StageFrame
      title={titles[project.mount.kind]}
      lead="Measure before anything is cut: type as on the ruler, 8 1/2 or 216."
      snags={{
        list: snags,
        none: m.design
          ? 'The design fits what it will live in.'
          : 'No design yet: bring one in on the Layers stage.',
      }}
      panel={
        <>
          <Heading title="What you measured">
            <MountFields mount={project.mount} />
          </Heading>
          <Heading title="What follows from it">
            <Figures>
              {m.backing && (
                <Figure
                  name="Backing sheet"
                  value={formatSize(m.backing.widthMm, m.backing.heightMm, unit)}
                  basis={`The ${project.mount.kind === 'frame' ? 'spacer, edge to edge' : 'card panel'}`}
                />
              )}
              {m.lip && (
                <Figure
                  name="Lip hides, each side"
                  value={formatLength(m.lip.sideMm, unit)}
                  basis="Half of spacer less opening"
                />
              )}
              {m.safe && (
                <Figure
                  name="Largest safe size"
                  value={
                    Number.isFinite(m.safe.heightMm)
                      ? formatSize(m.safe.widthMm, m.safe.heightMm, unit)
                      : `${formatLength(m.safe.widthMm, unit)} wide`
                  }
                  basis={`Set by ${m.safe.limit}; proportions locked`}
                />
              )}
              {m.design && (
                <Figure
                  name="Design now"
                  value={formatSize(m.design.widthMm, m.design.heightMm, unit)}
                  basis="All layers together"
                />
              )}
              {m.borders && (
                <>
                  <Figure
                    name={m.fullSheets ? 'Left over, left · right' : 'Border, left · right'}
                    value={`${formatLength(m.borders.left, unit)} · ${formatLength(m.borders.right, unit)}`}
                    alarm={Math.min(m.borders.left, m.borders.right) < -0.05}
                    basis={
                      m.fullSheets
                        ? 'From the sheets to the edge of the backing'
                        : 'From the design to the edge of what is seen'
                    }
                  />
                  <Figure
                    name={m.fullSheets ? 'Left over, top · bottom' : 'Border, top · bottom'}
                    value={`${formatLength(m.borders.top, unit)} · ${formatLength(m.borders.bottom, unit)}`}
                    alarm={Math.min(m.borders.top, m.borders.bottom) < -0.05}
                  />
                </>
              )}
              {m.roomMm !== null && (
                <Figure
                  name="Depth for card and foam"
                  value={formatLength(Math.max(0, m.roomMm), unit)}
                  basis="Depth less clearance"
                />
              )}
              <Figure
                name="Cutter reaches"
                value={formatSize(m.cuttable.widthMm, m.cuttable.heightMm, unit)}
                basis="Largest sheet in use less the rim on each side"
              />
            </Figures>
          </Heading>
        </>
      }
      actions={
        <Button
          look="main"
          disabled={!canFit}
          onClick={() => dispatch(change('fit the design', fitDesign))}
          title={m.safe ? `Scales everything to ${m.safe.limit}` : 'There is no design yet'}
        >
          {canFit ? `Fit to size, × ${m.fitFactor!.toFixed(2)}` : 'Fits as it is'}
        </Button>
      }
    >
      <div className="min-h-0 flex-1 p-4">
        <Board name="measure" box={box} unit={unit} label="Frame, lip, opening and design to scale">
          {(px) => (
            <>
              <MountDrawing project={project} px={px} />
              {view.at && <Pointer at={view.at} px={px} />}
            </>
          )}
        </Board>
      </div>
    </StageFrame>
  )
}

function MountFields({ mount }: { mount: Mount }) {
  const dispatch = useAppDispatch()
  const unit = useAppSelector(selectUnit)
  const set = (label: string, next: Mount) => dispatch(change(label, (p) => ({ ...p, mount: next })))
  const length = (label: string, valueMm: number, make: (mm: number) => Mount, min = 1) => (
    <LengthField
      label={label}
      valueMm={valueMm}
      unit={unit}
      min={min}
      max={2000}
      onChange={(mm) => set(label.toLowerCase(), make(mm))}
    />
  )
  switch (mount.kind) {
    case 'frame':
      return (
        <div className="grid gap-1.5">
          {length('Spacer width', mount.spacer.widthMm, (v) => ({
            ...mount,
            spacer: { ...mount.spacer, widthMm: v },
          }))}
          {length('Spacer height', mount.spacer.heightMm, (v) => ({
            ...mount,
            spacer: { ...mount.spacer, heightMm: v },
          }))}
          {length('Opening width', mount.opening.widthMm, (v) => ({
            ...mount,
            opening: { ...mount.opening, widthMm: v },
          }))}
          {length('Opening height', mount.opening.heightMm, (v) => ({
            ...mount,
            opening: { ...mount.opening, heightMm: v },
          }))}
          {length('Depth', mount.depthMm, (v) => ({ ...mount, depthMm: v }))}
          {length('Clearance to glazing', mount.clearanceMm, (v) => ({ ...mount, clearanceMm: v }), 0)}
          {length('Air round the design', mount.airMm, (v) => ({ ...mount, airMm: v }), 0)}
        </div>
      )
    case 'card':
      return (
        <div className="grid gap-1.5">
          {length('Panel width', mount.panel.widthMm, (v) => ({
            ...mount,
            panel: { ...mount.panel, widthMm: v },
          }))}
          {length('Panel height', mount.panel.heightMm, (v) => ({
            ...mount,
            panel: { ...mount.panel, heightMm: v },
          }))}
          {length('Height it may have', mount.depthMm, (v) => ({ ...mount, depthMm: v }))}
          {length('Air round the design', mount.airMm, (v) => ({ ...mount, airMm: v }), 0)}
        </div>
      )
    case 'topper':
      return (
        <div className="grid gap-1.5">
          {length('Topper width', mount.widthMm, (v) => ({ ...mount, widthMm: v }))}
          {length('Height it may have', mount.depthMm, (v) => ({ ...mount, depthMm: v }))}
          <NumberField
            label="Sticks"
            value={mount.sticks}
            min={0}
            max={4}
            whole
            onChange={(sticks) => set('sticks', { ...mount, sticks })}
          />
        </div>
      )
    default:
      return <p className="text-soft">Nothing limits this work.</p>
  }
}
