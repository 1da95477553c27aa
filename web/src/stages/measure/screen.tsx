import { fitDesign, LAID_OUT, type ThingNeeded } from '@feuillet/core/stages/measure'
import { findLayer, kindOf, thingUnit, type Mount } from '@feuillet/core/project'
import { countWords } from '@feuillet/core/stages/journal'
import { FINE_DPI, printLimit, type Smallest } from '@feuillet/core/stages/layers'
import { formatLength, formatSize } from '@feuillet/core/base/units'
import { change, mend } from '../../state/edits'
import { selectMeasures, selectProject, selectSnags, selectUnit, selectView } from '../../state/selectors'
import { usePlan } from '../../plan'
import { SpoilsNote } from '../../shell/spoils-note'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { Board } from '../../drawing/board'
import { MountDrawing, mountBox } from '../../drawing/mount/mount-drawing'
import { Pointer } from '../../drawing/stack'
import { Button, Figure, Figures, Heading } from '../../ui'
import { KeepMeasures } from './measured-before'
import { MountFields } from './mount-fields'
import { SecondLook } from './second-look'

const titles: Record<Mount['kind'], string> = {
  frame: 'The frame',
  card: 'The card',
  topper: 'The topper',
  panel: 'The panel',
  garland: 'The garland',
  free: 'Free work',
}

const LIMIT_WORDS: Record<Smallest['limit'], string> = {
  strip: 'the narrowest strip',
  opening: 'the smallest opening, to be weeded',
  number: 'the room for the number',
}

export default function MeasureScreen() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { unit, words } = useWords()
  const m = useAppSelector(selectMeasures)
  const view = useAppSelector(selectView)
  const least = usePlan('smallest') ?? null
  const thing = usePlan('thing')
  const prints = printLimit(project)
  const stackMm = (usePlan('levels') ?? []).reduce((most, level) => Math.max(most, level.topMm), 0)
  const snags = useAppSelector(selectSnags).filter(
    ({ stage, code }) => stage === 'measure' || code === 'stack-too-deep' || code === LAID_OUT.code,
  )
  const box = mountBox(project)
  const laidOut = snags.find(({ code }) => code === LAID_OUT.code)
  // How large a work is shows once its sheets lie on each other.
  const canFit = !laidOut && m.fitFactor !== null && Math.abs(m.fitFactor - 1) > 0.002
  const past = snags.filter(({ mend }) => mend?.action.kind === 'cut-off')
  const first = laidOut ? [laidOut] : canFit ? [] : past
  return (
    <StageFrame
      title={titles[project.mount.kind]}
      lead="Measure before anything is cut: type as on the ruler, 8 1/2 or 216, or reckon: 5 3/8 / 2."
      snags={{
        list: snags,
        none: m.design
          ? 'The design fits what it will live in.'
          : 'No design yet: bring one in on the Layers stage.',
      }}
      panel={
        <>
          {canFit && <SpoilsNote what="size" className="mb-3" />}
          <Heading title="What you measured">
            <MountFields mount={project.mount} />
            <div className="mt-2">
              <SecondLook mount={project.mount} />
            </div>
            <KeepMeasures mount={project.mount} />
          </Heading>
          <Heading title="What follows from it">
            <Figures>
              {m.backing && (
                <Figure
                  name="Backing sheet"
                  value={formatSize(m.backing.widthMm, m.backing.heightMm, unit)}
                  basis={project.mount.kind === 'frame' ? 'The spacer, edge to edge' : 'The panel'}
                />
              )}
              {m.lip && (
                <Figure
                  name="Lip hides, left · right"
                  value={`${formatLength(m.lip.left, unit)} · ${formatLength(m.lip.right, unit)}`}
                  basis={`Spacer less what is seen; at the top ${formatLength(m.lip.top, unit)}, at the bottom ${formatLength(m.lip.bottom, unit)}`}
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
              {least && m.design && (
                <Figure
                  name="Smallest safe size"
                  value={formatSize(m.design.widthMm * least.scale, m.design.heightMm * least.scale, unit)}
                  alarm={least.scale > 1.005}
                  basis={`× ${least.scale.toFixed(2)}, set by ${LIMIT_WORDS[least.limit]} of “${findLayer(project, least.layerId)?.name ?? ''}”: ${formatLength(least.nowMm, unit, 2)} now, ${formatLength(least.leastMm, unit, 2)} at the least`}
                />
              )}
              {prints && m.design && (
                <Figure
                  name="Prints fine up to"
                  value={formatSize(m.design.widthMm * prints.scale, m.design.heightMm * prints.scale, unit)}
                  alarm={prints.scale < 0.995}
                  basis={`× ${prints.scale.toFixed(2)}, set by the picture on “${findLayer(project, prints.layerId)?.name ?? ''}”: ${Math.round(prints.dpi)} dpi now, ${FINE_DPI} at the least`}
                />
              )}
              {m.design && (
                <Figure
                  name="Design now"
                  value={formatSize(m.design.widthMm, m.design.heightMm, unit)}
                  basis={
                    m.fullSheets || m.backing === null
                      ? 'All layers together'
                      : 'What lies on the sheets of the backing’s size'
                  }
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
              {m.opening && (
                <Figure
                  name="Middle and thirds across"
                  value={formatLength(m.opening.widthMm / 2, unit)}
                  basis={`Of what is seen, from its left edge: thirds at ${formatLength(m.opening.widthMm / 3, unit)} and ${formatLength((m.opening.widthMm * 2) / 3, unit)}; down the middle at ${formatLength(m.opening.heightMm / 2, unit)}`}
                />
              )}
              {m.stringMm !== null && (
                <Figure
                  name="String"
                  value={formatLength(m.stringMm, unit)}
                  basis="Flags as wide as the design, the gaps between them and both ends; it is not stretched and hangs without a droop"
                />
              )}
              {project.mount.kind === 'panel' && (
                <Figure
                  name="Stands off the wall"
                  value={formatLength(project.mount.edgeMm + stackMm, unit)}
                  basis="The panel’s edge and the stack; foam not pressed"
                />
              )}
              {m.roomMm !== null && (
                <Figure
                  name="Depth for card and foam"
                  value={formatLength(Math.max(0, m.roomMm), unit)}
                  basis={
                    project.mount.kind === 'frame' && project.mount.mat
                      ? 'Depth less clearance and mat'
                      : 'Depth less clearance'
                  }
                />
              )}
              <Figure
                name="Cutter reaches"
                value={formatSize(m.cuttable.widthMm, m.cuttable.heightMm, unit)}
                basis="Largest sheet in use less the rim on each side"
              />
              {thing && <AtHand need={thing} />}
            </Figures>
          </Heading>
        </>
      }
      actions={
        first[0] ? (
          <Button look="main" onClick={() => void dispatch(mend(...first))}>
            {words(first[0].mend!.label)}
          </Button>
        ) : (
          <Button
            look="main"
            disabled={!canFit}
            onClick={() => dispatch(change('fit the design', fitDesign))}
            title={m.safe ? `Scales everything to ${m.safe.limit}` : 'There is no design yet'}
          >
            {canFit ? `Fit to size, × ${m.fitFactor!.toFixed(2)}` : 'Fits as it is'}
          </Button>
        )
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

/** How many the drawer has of what the work takes. */
function AtHand({ need: { thing, needed, taken, packs } }: { need: ThingNeeded }) {
  const unit = useAppSelector(selectUnit)
  const kind = kindOf(thing)
  const told = (count: number) => countWords(count, thingUnit(kind), unit)
  return (
    <Figure
      name={thing.name || kind || 'thing'}
      value={`${told(thing.count ?? 0)} at hand`}
      alarm={packs > 0}
      basis={`In the drawer. The work takes ${told(needed)}${taken > 0 ? `; ${told(taken)} laid ready` : ''}`}
    />
  )
}
