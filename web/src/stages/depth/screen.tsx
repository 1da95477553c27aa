import { lazy, Suspense, useState } from 'react'
import { freeLayers, padSpan, SPANS_MM, type Pad } from '@feuillet/core/stages/depth'
import { toBuy } from '@feuillet/core/stages/journal'
import { growBox } from '@feuillet/core/base/geometry'
import {
  depthAtHand,
  folioOf,
  isOnPane,
  layerBox,
  layerSchema,
  setPlan,
  viewBox,
  type Layer,
  type Project,
} from '@feuillet/core/project'
import { formatLength } from '@feuillet/core/base/units'
import { change, changeApart } from '../../state/edits'
import { selectLayer, selectProject, selectStageSnags, selectUnit, selectView } from '../../state/selectors'
import { usePlan } from '../../plan'
import { useWords } from '../../state/use-words'
import { AllBought } from '../../shell/all-bought'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Board } from '../../drawing/board'
import { Pointer } from '../../drawing/stack'
import { Button, Choice, Figure, Figures, Heading, LengthField, NumberField, Switch } from '../../ui'
import { editor } from '../../workers'
import { FitSlider } from './fit-slider'
import { JointPanel } from './joint-panel'
import { PadDrawing } from './pad-drawing'
import { PadPanel } from './pad-panel'
import { hasPieceJoints, PiecePanel } from './piece-panel'
import { SectionView } from './section-view'
import { StickDrawing } from '../../drawing/sticks'
import { usePadHand } from './use-pad-hand'
import { TopperPanel } from './topper-panel'

/** The layer; the whole work where it has no pieces. */
const boxToShow = (project: Project, layer: Layer) =>
  layer.pieces.length > 0 ? layerBox(layer) : viewBox(project)

const InSpace = lazy(() => import('./light-box/in-space'))

const NO_PADS: readonly Pad[] = []
/** Stands in where no layer is there to be padded. */
const NO_LAYER = layerSchema.parse({ id: 'none', name: '', pieces: [] })

/** So much of the sticks is drawn under a topper. */
const STICKS_SHOWN_MM = 18

export default function DepthScreen() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const view = useAppSelector(selectView)
  const layer = useAppSelector(selectLayer)
  const snags = useAppSelector((state) => selectStageSnags(state, 'depth'))
  const depth = usePlan('depth')
  const held = usePlan('hold') ?? null
  const [behind, setBehind] = useState(false)
  const [look, setLook] = useState<'pads' | 'section' | 'space'>('pads')
  const isAside = look !== 'pads'
  const { length } = useWords()
  const sumOf = (partsMm: readonly number[]) => partsMm.map((mm) => length(mm)).join(' + ')
  const { plan } = project
  const set = (label: string, patch: Partial<typeof plan>) =>
    dispatch(change(label, (p) => setPlan(p, patch)))
  const sticksMm = held && held.sticks.length > 0 ? STICKS_SHOWN_MM : 0
  const shownBox = growBox(layer && !held ? boxToShow(project, layer) : viewBox(project), 3)
  const boxShown = { ...shownBox, maxY: shownBox.maxY + sticksMm }
  const depthMm = depthAtHand(project.mount)?.depthMm ?? null
  const hasRing = project.layers.some(({ role }) => role === 'stand-off')
  const map = usePlan('padMap', layer && !layer.leftOut ? layer.id : null)
  const pads = map?.pads ?? NO_PADS
  const hand = usePadHand(layer ?? NO_LAYER, pads)
  const [piece, setPiece] = useState<string | null>(null)
  const pieceId = layer && hasPieceJoints(layer) && layer.pieces.some(({ id }) => id === piece) ? piece : null
  const left = depth && depth.roomMm !== null ? depth.roomMm - depth.stackMm : null
  return (
    <StageFrame
      title="Depth"
      lead={
        depth
          ? depth.roomMm === null
            ? `The stack is ${formatLength(depth.stackMm, unit)} high.`
            : left! >= 0
              ? `${formatLength(depth.stackMm, unit)} of ${formatLength(depth.roomMm, unit)} used; ${formatLength(left!, unit)} left.`
              : `${formatLength(-left!, unit)} too deep.`
          : 'Computing…'
      }
      snags={{
        list: snags,
        none: project.layers.length ? 'Everything is held, level and fits.' : 'No layers yet.',
      }}
      panel={
        <>
          {project.mount.kind === 'topper' && <TopperPanel mount={project.mount} />}
          {layer && <JointPanel layer={layer} />}
          {layer && hasPieceJoints(layer) && !isOnPane(layer) && !isAside && (
            <PiecePanel layer={layer} pieceId={pieceId} onPick={setPiece} />
          )}
          {layer && layer.joint.kind === 'foam' && !isAside && (
            <PadPanel layer={layer} pads={pads} hand={hand} />
          )}
          <Heading title="How much foam">
            <div className="grid gap-2">
              <Choice
                label="How much foam"
                value={plan.padSpanMm === null ? plan.thrift : null}
                options={[
                  {
                    value: 'sparing',
                    label: 'sparing',
                    title: `For own use: no point farther than ${length(SPANS_MM.sparing)} along the card from a pad`,
                  },
                  {
                    value: 'steady',
                    label: 'steady',
                    title: `Edges and middle alike: ${length(SPANS_MM.steady)}`,
                  },
                  {
                    value: 'sale',
                    label: 'for sale',
                    title: `Wherever it gives support: ${length(SPANS_MM.sale)}`,
                  },
                ]}
                onChange={(thrift) => set('how much foam', { thrift, padSpanMm: null })}
              />
              <LengthField
                label="Card reaches from a pad"
                valueMm={padSpan(plan)}
                unit={unit}
                min={5}
                max={200}
                onChange={(padSpanMm) => set('how far card reaches from a pad', { padSpanMm })}
              />
              <LengthField
                label="Pads back from edges"
                valueMm={plan.padMarginMm}
                unit={unit}
                min={0}
                max={50}
                onChange={(padMarginMm) => set('pads back from edges', { padMarginMm })}
              />
              <NumberField
                label="Pads hidden up to"
                unitHint="°"
                value={plan.viewingDeg}
                min={0}
                max={60}
                onChange={(viewingDeg) => set('viewing angle', { viewingDeg })}
              />
              <Switch
                label="Lit from behind"
                checked={plan.litFromBehind}
                onChange={(litFromBehind) => set('lit from behind', { litFromBehind })}
                title="Card shows its pads the more the paler and lighter it is: they go only where what lies over them, or the lip, stops the light. Use cool, low-voltage LED only."
              />
            </div>
          </Heading>
          {depth && (
            <Heading title="Whole stack">
              <Figures>
                <Figure
                  name="Stack"
                  value={formatLength(depth.stackMm, unit)}
                  basis={`Card, glue and foam at the highest place; ${length(depth.pressedMm)} under a press, by what each foam gives`}
                />
                {depth.roomMm !== null && (
                  <Figure
                    name="Room"
                    value={formatLength(depth.roomMm, unit)}
                    basis="Depth at hand less clearance"
                  />
                )}
                {left !== null && (
                  <Figure name="Left" value={formatLength(Math.max(0, left), unit)} alarm={left < 0} />
                )}
                {project.mount.kind === 'frame' && left !== null && left > 0.4 && !depth.lip && (
                  <Figure
                    name="To shim behind"
                    value={depth.shim ? length(depth.shim.mm) : 'nothing'}
                    basis={`${depth.shim ? `${sumOf(depth.shim.partsMm)}: the` : 'The'} thickest foam build that goes into what is left${depth.shim ? `, ${depth.shim.at.length} pads behind the backing sheet, along its edges and over the middle` : ''}`}
                  />
                )}
                {depth.lip && (
                  <Figure
                    name="Pads along the lip"
                    value={`${depth.lip.at.length}, ${length(depth.lip.mm)}`}
                    basis={`${sumOf(depth.lip.partsMm)}: the thickest foam build between the frontmost card under the lip and the pane, or the mat before it`}
                  />
                )}
                {depth.standOffMm !== null && depthMm !== null && (
                  <Figure
                    name="Left before the ring"
                    value={length(Math.max(0, depthMm - depth.standOffMm))}
                    basis="From the upper side of the stand-off ring to the pane, or to the mat before it"
                  />
                )}
                <Figure name="Pads in all" value={depth.pads} />
                {depth.foamUse.map((use) => (
                  <Figure
                    key={use.foam.id}
                    name={`${use.foam.name}, ${length(use.foam.thicknessMm)}`}
                    value={
                      use.packs
                        ? `${use.needed}, buy ${use.packs} ${use.packs === 1 ? 'pack' : 'packs'}`
                        : `${use.needed} of ${use.foam.count}`
                    }
                    alarm={use.packs > 0}
                  />
                ))}
              </Figures>
              <div className="mt-2 empty:mt-0">
                <AllBought bought={toBuy({ foamUse: depth.foamUse }).bought} />
              </div>
              {project.mount.kind === 'frame' && depth.standOffMm === null && left !== null && left > 0.4 && (
                <Choice
                  label="What is left is filled"
                  captioned
                  value={plan.fill}
                  options={[
                    {
                      value: 'behind',
                      label: 'behind',
                      title: 'Pads behind the backing sheet bring the work up towards the pane',
                    },
                    {
                      value: 'lip',
                      label: 'along the lip',
                      title:
                        'Pads before the work, where the lip hides them, hold it off the pane; it stays deep in the frame',
                    },
                  ]}
                  onChange={(fill) => set('what fills the depth', { fill })}
                />
              )}
            </Heading>
          )}
          {depth && <FitSlider key={project.id} />}
          {depth && depth.roomMm !== null && (
            <Heading title="Shape of the gaps">
              <div className="grid gap-2">
                <Choice
                  label="Shape of the gaps"
                  value={plan.profile}
                  options={[
                    { value: 'even', label: 'even' },
                    { value: 'front', label: 'deep in front' },
                    { value: 'hero', label: 'one doubled' },
                  ]}
                  onChange={(profile) =>
                    set('shape of the gaps', {
                      profile,
                      heroLayerId: profile === 'hero' ? (layer?.id ?? null) : null,
                    })
                  }
                />
                {plan.profile === 'hero' && (
                  <p className="text-[13px] text-soft">
                    Doubled under layer {folioOf(project, plan.heroLayerId ?? '') ?? 'in the middle'}.
                  </p>
                )}
              </div>
            </Heading>
          )}
        </>
      }
      actions={
        depth &&
        depth.roomMm !== null && (
          <>
            {project.mount.kind === 'frame' && project.layers.length > 0 && (
              <Button
                onClick={() =>
                  void dispatch(
                    changeApart(hasRing ? 'take the ring out' : 'a stand-off ring', (p, stock) =>
                      editor.ask((api) =>
                        api.mend(p, [{ kind: hasRing ? 'drop-stand-off' : 'add-stand-off' }], stock),
                      ),
                    ),
                  )
                }
                title={
                  hasRing
                    ? 'Takes its sheets out again'
                    : 'A ring of craft foam behind the lip that fills the gap between the work and the pane: its sheets become layers that are cut'
                }
              >
                {hasRing ? 'Without the ring' : 'Stand off from the pane'}
              </Button>
            )}
            <Button
              look="main"
              disabled={freeLayers(project).length === 0}
              onClick={() =>
                void dispatch(
                  changeApart('fit the gaps', (p) =>
                    editor.ask((api) => api.mend(p, [{ kind: 'fit-gaps' }], [])),
                  ),
                )
              }
              title="Chooses every free gap from the foam at hand so that the stack fills the room; pinned gaps stay"
            >
              Fit gaps to {formatLength(depth.roomMm, unit)}
            </Button>
          </>
        )
      }
    >
      {project.layers.length > 0 && (
        <div className="w-80 px-6 pt-3">
          <Choice
            label="What to look at"
            value={look}
            options={[
              { value: 'pads', label: 'pads' },
              { value: 'section', label: 'section', title: 'What lies how high along a line' },
              { value: 'space', label: 'light box', title: 'The work in space, under a light' },
            ]}
            onChange={setLook}
          />
        </div>
      )}
      {look === 'section' && project.layers.length > 0 && <SectionView />}
      {look === 'space' && project.layers.length > 0 && (
        <Suspense fallback={<p className="p-6 text-soft">Opening the light box…</p>}>
          <InSpace project={project} />
        </Suspense>
      )}
      {layer && !isAside && (
        <>
          <div className="min-h-0 flex-1 p-4 pb-1">
            <Board
              name="depth"
              box={boxShown}
              unit={unit}
              label={`Layer ${layer.name} with its pads`}
              interactive
              at={view.at}
            >
              {(px) => (
                <g
                  // From behind left and right are exchanged, as the piece lies on the bench.
                  transform={behind ? `matrix(-1 0 0 1 ${boxShown.minX + boxShown.maxX} 0)` : undefined}
                >
                  <PadDrawing layer={layer} px={px} hand={hand} pieceId={pieceId} onPick={setPiece} />
                  {held && <StickDrawing held={held} px={px} footMm={boxShown.maxY} />}
                  {view.at && <Pointer at={view.at} px={px} />}
                </g>
              )}
            </Board>
          </div>
          <div className="flex flex-wrap items-center gap-x-5 gap-y-1 px-6 pb-3 text-[13px] text-soft">
            <Switch label="From behind" checked={behind} onChange={setBehind} />
            <span className="min-w-0 flex-1">
              Layer {folioOf(project, layer.id) ?? '–'}{' '}
              {behind ? 'from behind, as it lies face down' : 'from the front'}, what holds it as if seen
              through the card.{' '}
              {layer.joint.kind === 'pins'
                ? 'Ringed: where pins go in.'
                : layer.joint.kind === 'heat'
                  ? 'Pressed onto what is right below it.'
                  : isOnPane(layer) || layer.joint.kind === 'none' || layer.joint.kind === 'tab'
                    ? ''
                    : layer.joint.kind === 'glue'
                      ? 'Dashed: where glue may go. Dots, beads and the pale coat are drawn as wide as they are laid.'
                      : `Hatched: where a pad stays hidden up to ${plan.viewingDeg}° aside; point at the rest to read why not.`}
            </span>
          </div>
        </>
      )}
    </StageFrame>
  )
}
