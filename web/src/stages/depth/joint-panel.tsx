import { gapChoices } from '@feuillet/core/stages/depth'
import {
  adhesiveOf,
  ASSUMED_PAPER,
  builtLayers,
  colourOf,
  folioOf,
  glueOf,
  paperOf,
  setLayer,
  type Joint,
  type Layer,
} from '@feuillet/core/project'
import { formatMinutes } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
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
  const { kind, gapMm, pinned } = layer.joint
  const glue = glueOf(project, layer)
  const gsm = (paperOf(project, layer) ?? ASSUMED_PAPER).gsm
  const common = gapChoices(project.drawer.foams).filter((choice) => [1, 2, 3, 4].includes(choice.gapMm))
  const value = kind === 'foam' ? String(gapMm) : kind === 'tab' || kind === 'none' ? kind : 'glue'
  const backmost = builtLayers(project)[0]?.id === layer.id
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <FolioTab folio={folioOf(project, layer.id)} colour={colourOf(project, layer)} size={42} />
        <div className="min-w-0">
          <p className="truncate text-[16px] font-semibold">{layer.name}</p>
          <p className="truncate text-[13px] text-soft">{paperOf(project, layer)?.name ?? 'no paper yet'}</p>
        </div>
      </div>
      <Heading
        title={backmost ? 'Between it and the board' : 'Gap below'}
        aside={
          <Switch
            label="pinned"
            checked={pinned}
            onChange={(next) => set({ pinned: next })}
            title="A pinned gap stays when gaps are fitted"
          />
        }
      >
        <Choice
          label="Gap below"
          value={value}
          options={[
            { value: 'glue', label: 'glue' },
            ...(kind === 'tab' ? [{ value: 'tab', label: 'tabs' }] : []),
            ...(kind === 'none' ? [{ value: 'none', label: 'none' }] : []),
            ...common.map((choice) => ({
              value: String(choice.gapMm),
              label: length(choice.gapMm),
              title: `${length(choice.gapMm)} of foam: ${choice.partsMm.map((mm) => length(mm)).join(' + ')}`,
            })),
          ]}
          onChange={(next) =>
            next !== 'tab' &&
            next !== 'none' &&
            set(next === 'glue' ? { kind: 'glue', gapMm: 0 } : { kind: 'foam', gapMm: Number(next) })
          }
        />
        {(kind === 'glue' || (own && own.glued.length > 0) || kind === 'tab') && (
          <div className="mt-2">
            <p className="mb-1 text-[13px] text-soft">Glue</p>
            <Select
              label={`Glue of ${layer.name}`}
              className="w-full"
              value={layer.joint.adhesiveId ?? OF_PROJECT}
              options={[
                { value: OF_PROJECT, label: `as in the project: ${adhesiveOf(project)?.name ?? 'none'}` },
                ...project.drawer.adhesives.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              onChange={(id) => set({ adhesiveId: id === OF_PROJECT ? null : id })}
            />
            {glue && (
              <p className="mt-1 text-[13px] text-soft">
                Can be handled after {formatMinutes(glue.handleMin)}, dry after {formatMinutes(glue.dryMin)}
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
                      title:
                        'Dots under parts up to 20 mm and narrow ones and where it would buckle the card, beads up to 70 mm, a thin coat under larger ones',
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
                      value={`${amount.ml.toFixed(amount.ml < 1 ? 2 : 1)} ml`}
                      basis="Half balls, half round beads, and a coat of 0.06 mm, on the card that lies right beneath, a rim of 2 mm away from edges, less where it is narrow, and clear of folds"
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
