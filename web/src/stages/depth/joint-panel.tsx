import { gapChoices, mayBePinned, PIN_HEAD_MM, pressesOf } from '@feuillet/core/stages/depth'
import {
  adhesiveOf,
  ASSUMED_PAPER,
  builtLayers,
  colourOf,
  folioOf,
  glueOf,
  isOnPane,
  paperOf,
  pressOn,
  setLayer,
  setPlan,
  type Joint,
  type Layer,
} from '@feuillet/core/project'
import { formatHeat, formatKept, formatMinutes } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { glueOptions } from '../../state/glue-options'
import { Choice, Figure, Figures, FolioTab, Heading, LengthField, Select, Switch } from '../../ui'

/** Stands for the glue that is chosen for the whole project. */
const OF_PROJECT = 'project'

/** What holds the picked layer: glue or foam of a height, and what came of it. */
export function JointPanel({ layer }: { layer: Layer }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { unit, length, size } = useWords()
  const map = usePlan('padMap', layer.leftOut ? null : layer.id)
  const amount = usePlan('glueMap', layer.leftOut ? null : layer.id)
  const own = map?.layer
  const pads = map?.pads ?? []
  const sizes = new Map<string, number>()
  for (const pad of pads) {
    const name = `${size(pad.widthMm, pad.heightMm)}, ${length(pad.thicknessMm)} high`
    sizes.set(name, (sizes.get(name) ?? 0) + 1)
  }
  const set = (joint: Partial<Joint>) =>
    dispatch(
      change(`gap under ${layer.name}`, (p) =>
        setLayer(p, layer.id, { joint: { ...layer.joint, ...joint } }),
      ),
    )
  const plate = (patch: Partial<{ widthMm: number; heightMm: number }>) =>
    dispatch(change('size of the plate', (p) => setPlan(p, { plate: { ...p.plan.plate, ...patch } })))
  const { kind, gapMm, pinned } = layer.joint
  const glue = glueOf(project, layer)
  const gsm = (paperOf(project, layer) ?? ASSUMED_PAPER).gsm
  const common = gapChoices(project.drawer.foams).filter((choice) => [1, 2, 3, 4].includes(choice.gapMm))
  const value = kind === 'foam' ? String(gapMm) : kind
  const film = paperOf(project, layer)?.press ?? null
  const pins = usePlan('depth')?.pins ?? null
  const backmost = builtLayers(project)[0]?.id === layer.id
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={42} />
        <div className="min-w-0">
          <p className="line-clamp-2 text-[16px] font-semibold wrap-anywhere">{layer.name}</p>
          <p className="text-[13px] text-soft wrap-anywhere">
            {paperOf(project, layer)?.name ?? 'no paper yet'}
          </p>
        </div>
      </div>
      <Heading
        title={
          isOnPane(layer)
            ? 'On the pane'
            : backmost
              ? kind === 'pins'
                ? 'On the fabric'
                : 'Between it and the board'
              : 'Gap below'
        }
        aside={
          isOnPane(layer) ? undefined : (
            <Switch
              label="pinned"
              checked={pinned}
              onChange={(next) => set({ pinned: next })}
              title="A pinned gap stays when gaps are fitted"
            />
          )
        }
      >
        {isOnPane(layer) ? (
          <p className="text-[13px] text-soft">
            It is on the pane and not in the stack: its height follows from the frame’s depth.
          </p>
        ) : (
          <Choice
            label="Gap below"
            value={value}
            options={[
              { value: 'glue', label: 'glue' },
              ...(kind === 'tab' ? [{ value: 'tab', label: 'tabs' }] : []),
              ...(kind === 'none' ? [{ value: 'none', label: 'none' }] : []),
              ...(kind === 'pins' || mayBePinned(project, layer.id)
                ? [
                    {
                      value: 'pins',
                      label: 'pins',
                      title:
                        'Into the fabric, where layers above hide their heads: it can be taken off again',
                    },
                  ]
                : []),
              ...(kind === 'heat' || film
                ? [{ value: 'heat', label: 'heat', title: 'Film, pressed onto what is right below it' }]
                : []),
              ...common.map((choice) => ({
                value: String(choice.gapMm),
                label: length(choice.gapMm),
                title: `${length(choice.gapMm)} of foam: ${choice.partsMm.map((mm) => length(mm)).join(' + ')}`,
              })),
            ]}
            onChange={(next) => {
              if (next === 'heat') dispatch(change(`press ${layer.name} on`, (p) => pressOn(p, layer.id)))
              else if (next === 'glue' || next === 'pins') set({ kind: next, gapMm: 0 })
              else if (next !== 'tab' && next !== 'none') set({ kind: 'foam', gapMm: Number(next) })
            }}
          />
        )}
        {(kind === 'glue' || (own && own.glued.length > 0) || kind === 'tab') && (
          <div className="mt-2">
            <p className="mb-1 text-[13px] text-soft">Glue</p>
            <Select
              label={`Glue of ${layer.name}`}
              className="w-full"
              value={layer.joint.adhesiveId ?? OF_PROJECT}
              options={[
                {
                  value: OF_PROJECT,
                  label: 'as in the project',
                  detail: adhesiveOf(project)?.name ?? 'none',
                },
                ...glueOptions(project.drawer.adhesives),
              ]}
              onChange={(id) => set({ adhesiveId: id === OF_PROJECT ? null : id })}
            />
            {glue && (
              <p className="mt-1 text-[13px] text-soft">
                {glue.name.replace(/^./, (first) => first.toUpperCase())}: can be handled after{' '}
                {formatMinutes(glue.handleMin)}, dry after {formatMinutes(glue.dryMin)}
                {glue.thicknessMm > 0 && <>; {length(glue.thicknessMm)} high</>}
                {glue.slides && '; slides while wet'}
                {gsm < glue.bucklesBelowGsm && (
                  <span className="text-ochre">; ▲ buckles this card: use dots, not lines</span>
                )}
                .
              </p>
            )}
            {amount && (
              <>
                <p className="mt-2 mb-1 text-[13px] text-soft">Spread in</p>
                <Choice
                  label="How the glue is spread"
                  value={layer.joint.spread ?? 'auto'}
                  options={[
                    {
                      value: 'auto',
                      label: 'as it fits',
                      title: `Dots under parts up to ${length(20)} and narrow ones and where it would buckle the card, beads up to ${length(70)}, a thin coat under larger ones`,
                    },
                    { value: 'dots', label: 'dots' },
                    { value: 'beads', label: 'beads' },
                    { value: 'coat', label: 'a coat' },
                  ]}
                  onChange={(spread) => set({ spread: spread === 'auto' ? null : spread })}
                />
                <div className="mt-2">
                  <Figures>
                    {amount.dots > 0 && (
                      <Figure name={`Dots of ${length(amount.dotMm)}`} value={amount.dots} />
                    )}
                    {amount.beadLengthMm > 0 && (
                      <Figure
                        name={`Beads of ${length(amount.beadMm)}`}
                        value={length(amount.beadLengthMm, 0)}
                      />
                    )}
                    <Figure
                      name="Glue"
                      value={formatKept(amount.ml, 'ml', unit)}
                      basis={`Half balls, half round beads, and a coat of ${length(0.06)}, on the card that lies right beneath, a rim of ${length(2)} away from edges, less where it is narrow, and clear of folds`}
                    />
                    {amount.bare > 0 && (
                      <Figure
                        name="Nothing to glue to"
                        value={amount.bare === 1 ? '1 piece' : `${amount.bare} pieces`}
                        alarm
                      />
                    )}
                  </Figures>
                </div>
              </>
            )}
          </div>
        )}
        {kind === 'pins' && pins && (
          <div className="mt-2">
            <Figures>
              <Figure
                name="Pins"
                value={pins.at.length}
                basis={`Flat heads, ${length(PIN_HEAD_MM.high)} high and ${length(PIN_HEAD_MM.across)} wide, where layers above hide them up to ${project.plan.viewingDeg}° aside and leave them room; by the corners, then so that no place is farther than 110 mm where that can be`}
              />
              {pins.at.length > 0 && <Figure name="Farthest from a pin" value={length(pins.farthestMm, 0)} />}
            </Figures>
          </div>
        )}
        {kind === 'heat' && (
          <div className="mt-2 grid gap-2">
            <p className="text-[13px] text-soft">
              {film
                ? `${formatHeat(film.tempC, unit)} for ${film.seconds} s, peeled ${film.peel}, as noted at the paper.`
                : '▲ How hot and how long is not noted at its paper: its label says.'}
            </p>
            <LengthField
              label="The plate is wide"
              unit={unit}
              valueMm={project.plan.plate.widthMm}
              min={20}
              max={600}
              onChange={(widthMm) => plate({ widthMm })}
            />
            <LengthField
              label="and high"
              unit={unit}
              valueMm={project.plan.plate.heightMm}
              min={20}
              max={600}
              onChange={(heightMm) => plate({ heightMm })}
            />
            <Figures>
              <Figure
                name="Presses"
                value={pressesOf(project, layer)}
                basis="How often the plate is set down to cover the box round it, the plate turned where that saves some"
              />
            </Figures>
          </div>
        )}
        {kind === 'tab' && (
          <div className="mt-2">
            <LengthField
              label="Stands over the back"
              unit={unit}
              valueMm={gapMm}
              max={200}
              onChange={(mm) => set({ gapMm: mm })}
            />
          </div>
        )}
        {kind === 'foam' && (
          <div className="mt-2">
            <LengthField
              label="Foam height"
              unit={unit}
              valueMm={gapMm}
              min={0.5}
              max={12}
              onChange={(next) => set({ gapMm: next })}
            />
          </div>
        )}
        {own && (
          <div className="mt-2">
            <Figures>
              <Figure
                name="Underside at"
                value={length(own.bottomMm, 2)}
                basis="Highest card beneath any piece, plus the gap"
              />
              {[...sizes].map(([name, n]) => (
                <Figure key={name} name={`Pads ${name}`} value={n} />
              ))}
              {own.farthestMm !== null && own.pads > 0 && (
                <Figure name="Farthest from a pad" value={length(own.farthestMm, 0)} />
              )}
              <Figure
                name="Tilt"
                value={own.tiltMm > 0 ? length(own.tiltMm) : 'none'}
                alarm={own.tiltMm > 0}
                basis="What no foam build can level out"
              />
              {own.glued.length > 0 && (
                <Figure
                  name="Too narrow for a pad"
                  value={own.glued.length === 1 ? '1 piece' : `${own.glued.length} pieces`}
                />
              )}
            </Figures>
          </div>
        )}
      </Heading>
    </>
  )
}
