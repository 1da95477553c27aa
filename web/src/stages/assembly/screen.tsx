import { lazy, Suspense, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { BENCH, handsMinutesOf, leeways, type DraftStep, type Step } from '@feuillet/core/stages/assembly'
import { buildApart, setPlan, untickAll, type Project } from '@feuillet/core/project'
import { formatMinutes } from '@feuillet/core/base/units'
import { change, changeSupplies } from '../../state/edits'
import { usePlan } from '../../plan'
import { pathOf } from '../../shell/stage-names'
import { selectProject, selectView } from '../../state/selectors'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { looked } from '../../state/view'
import { glueOptions } from '../../state/glue-options'
import { Button, Choice, Figure, Figures, Fold, Heading, NumberField, SelectField } from '../../ui'
import { CutFileCaution } from './cut-file-caution'
import { groupSteps, partDone, type StepGroup } from './step-groups'
import { StepPicture } from './step-picture'
import { DraftRow, StepRow } from './step-row'
import { DuePanel } from './due-panel'
import { tick } from './tick'
import { StepPlace } from './step-place'

const TimeChart = lazy(() => import('./time-chart'))
const StepGraph = lazy(() => import('./step-graph'))

const ALIGNMENTS = [
  { value: 'corner-jig', label: 'corner jig' },
  { value: 'centre-mark', label: 'centre mark' },
  { value: 'one-edge', label: 'one edge' },
  { value: 'by-eye', label: 'eye, hover and drop' },
] as const
const NO_STEPS: DraftStep[] = []
const NONE: Step[] = []

export default function AssemblyScreen() {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const project = useAppSelector(selectProject)
  // First what is ready first.
  const order = usePlan('orderOfWork') ?? NO_STEPS
  const assembly = usePlan('assembly')
  const view = useAppSelector(selectView)
  const { words } = useWords()
  const { plan, progress, drawer } = project
  const steps = assembly?.steps ?? NONE
  const hasGlue = steps.some(({ kind }) => kind === 'glue')
  const next = steps.find((step) => !progress.done.includes(step.id))
  const picked = steps.find((step) => step.id === view.stepId) ?? next
  const done = steps.filter((step) => progress.done.includes(step.id)).length
  const left = steps
    .filter((step) => !progress.done.includes(step.id))
    .reduce((sum, step) => sum + handsMinutesOf(step), 0)
  const [finished, open] = partDone(
    useMemo(() => groupSteps(steps), [steps]),
    progress.done,
  )
  const leeway = useMemo(() => leeways(steps), [steps])
  const critical = useMemo(
    () => new Set([...leeway].flatMap(([id, { slackMin }]) => (slackMin < 1e-6 ? [id] : []))),
    [leeway],
  )
  const [asGraph, setAsGraph] = useState(false)
  const pickStep = (stepId: string) => dispatch(looked({ stepId }))
  const groupOf = (group: StepGroup) => (
    <section
      key={group.key}
      aria-label={group.steps[0]!.step.title}
      className="grid grid-cols-[92px_minmax(0,1fr)] gap-3 border-b border-line py-2"
    >
      <div className="grid place-content-center">
        <StepPicture group={group} />
      </div>
      <ol className="self-center" aria-label="Steps">
        {group.steps.map(({ step, number }) => (
          <StepRow
            key={step.id}
            step={step}
            number={number}
            done={progress.done.includes(step.id)}
            isNext={step.id === next?.id}
            picked={step.id === picked?.id}
            onPick={() =>
              dispatch(looked({ stepId: step.id, ...(step.layerId ? { layerId: step.layerId } : {}) }))
            }
            onTick={(ticked) => void dispatch(tick(step, ticked))}
          />
        ))}
      </ol>
    </section>
  )
  const set = (label: string, patch: Partial<typeof plan>) =>
    dispatch(change(label, (p) => setPlan(p, patch)))
  return (
    <StageFrame
      title="Assembly"
      lead={
        steps.length
          ? `${done} of ${steps.length} steps done.`
          : assembly
            ? 'Steps follow from the layers and their joints; there are none yet.'
            : 'The order of work; times follow once sheets and pads are counted.'
      }
      panel={
        <>
          {picked && (
            <Heading title={picked.title}>
              <p>{words(picked.detail)}</p>
              {picked.caution && (
                <p className="mt-2 border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13.5px]">
                  <span aria-hidden>▲ </span>
                  {picked.caution}
                </p>
              )}
              <CutFileCaution
                step={picked}
                className="mt-2 border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13.5px]"
              />
              <StepPlace step={picked} steps={steps} leeway={leeway.get(picked.id)} />
            </Heading>
          )}
          {assembly && (
            <Heading title="Time">
              <Figures>
                <Figure
                  name="From start to end"
                  value={formatMinutes(assembly.minutes)}
                  basis="Cutter and hands side by side, drying included"
                />
                <Figure
                  name="Your hands"
                  value={formatMinutes(assembly.handsMinutes)}
                  basis={`${BENCH.padSeconds} s a pad, ${BENCH.gluePartSeconds} s a glued part and ${BENCH.glueCmSeconds} s a cm, ${BENCH.weedSeconds} s an opening to weed${drawer.cutter.tool === 'knife' ? '' : `, ${formatMinutes(drawer.cutter.loadMin)} to put a sheet in`}`}
                />
                <Figure name="Hands still to go" value={formatMinutes(left)} />
              </Figures>
            </Heading>
          )}
          {assembly && <DuePanel steps={assembly.steps} />}
          <Heading title="How you work">
            <div className="grid gap-2">
              <Choice
                label="Build direction"
                value={plan.direction}
                options={[
                  { value: 'face-up', label: 'face up', title: 'Each layer is laid on the stack from above' },
                  {
                    value: 'face-down',
                    label: 'face down',
                    title: 'Front layer first, each next one laid on its back',
                  },
                ]}
                onChange={(direction) => set('build direction', { direction })}
              />
              <NumberField
                label="Pairs of hands"
                value={plan.people}
                min={1}
                max={12}
                whole
                onChange={(people) => set('pairs of hands', { people })}
              />
              {project.assemblies.length > 0 && (
                <Choice
                  label="Parts"
                  captioned
                  value={builtParts(project)}
                  options={[
                    {
                      value: 'on the bench',
                      label: 'on the bench',
                      title:
                        'Each part is built by itself, dries while the stack goes on, and is laid on as one',
                    },
                    {
                      value: 'in their place',
                      label: 'in their place',
                      title: 'Layer by layer, all on the stack',
                    },
                  ]}
                  onChange={(way) =>
                    dispatch(change('how parts are built', (p) => buildApart(p, way === 'on the bench')))
                  }
                />
              )}
              {hasGlue && (
                <Choice
                  label="Glued layers"
                  captioned
                  value={plan.glueWait}
                  options={[
                    {
                      value: 'go on',
                      label: 'go on wet',
                      title: 'The next layer goes on at once; all of it dries together in the end',
                    },
                    {
                      value: 'touching',
                      label: 'wait on it',
                      title: 'What lies on a glued layer waits until that holds; the rest goes on',
                    },
                    {
                      value: 'each',
                      label: 'wait for each',
                      title: 'Nothing goes on before the last glue holds',
                    },
                  ]}
                  onChange={(glueWait) => set('waiting for glue', { glueWait })}
                />
              )}
              {plan.batch > 1 && (
                <NumberField
                  label="Twice as many: each takes"
                  unitHint="%"
                  value={Math.round(plan.batchRate * 1000) / 10}
                  min={50}
                  max={100}
                  onChange={(share) => set('how hands get quicker', { batchRate: share / 100 })}
                />
              )}
              {plan.batch > 1 && (
                <Choice
                  label={`All ${plan.batch} of them`}
                  captioned
                  value={plan.batchWay}
                  options={[
                    {
                      value: 'by station',
                      label: 'by station',
                      title: 'Each step for all of them, then the next',
                    },
                    {
                      value: 'one by one',
                      label: 'one by one',
                      title: 'Each piece to its end, then the next',
                    },
                  ]}
                  onChange={(batchWay) => set('way of the batch', { batchWay })}
                />
              )}
              <SelectField
                label="Line up by"
                value={plan.alignment}
                options={ALIGNMENTS}
                onChange={(alignment) => set('alignment', { alignment })}
              />
              <SelectField
                label="Glue"
                className="w-52"
                value={plan.adhesiveId ?? ''}
                options={glueOptions(drawer.adhesives)}
                onChange={(adhesiveId) => set('glue', { adhesiveId })}
              />
            </div>
          </Heading>
          <p className="text-[13px] text-soft">
            Follow the labels of glue, blades and lights, and local rules; ask a qualified person where
            unsure.
          </p>
        </>
      }
      actions={
        <>
          <Button
            look="main"
            disabled={steps.length === 0}
            onClick={() => void navigate(pathOf(project.id, 'bench'))}
          >
            To the bench
          </Button>
          <Button disabled={done === 0} onClick={() => dispatch(changeSupplies('untick all', untickAll))}>
            Untick all
          </Button>
        </>
      }
    >
      {steps.length > 0 && (
        <>
          <Suspense fallback={<p className="px-5 pt-3 text-soft">Drawing…</p>}>
            <TimeChart
              steps={steps}
              total={assembly!.minutes}
              done={progress.done}
              picked={picked?.id}
              critical={critical}
              onPick={pickStep}
            />
          </Suspense>
          <div className="w-80 px-5 pb-2">
            <Choice
              label="How to look at the steps"
              value={asGraph ? 'graph' : 'list'}
              options={[
                { value: 'list', label: 'one after the other' },
                {
                  value: 'graph',
                  label: 'what waits for what',
                  title: 'Strong: what may not be late, or the end is later. Dashed: dries by itself',
                },
              ]}
              onChange={(look) => setAsGraph(look === 'graph')}
            />
          </div>
        </>
      )}
      {asGraph && steps.length > 0 && (
        <Suspense fallback={<p className="p-5 text-soft">Drawing…</p>}>
          <StepGraph
            steps={steps}
            leeway={leeway}
            done={progress.done}
            picked={picked?.id}
            onPick={pickStep}
          />
        </Suspense>
      )}
      <div
        hidden={asGraph && steps.length > 0}
        className="min-h-0 flex-1 overflow-y-auto px-5 pb-4"
        data-in-columns
        aria-busy={!assembly}
      >
        {!assembly && (
          <ol aria-label="Order of work">
            {order.map((step, i) => (
              <DraftRow key={step.id} step={step} number={i + 1} />
            ))}
          </ol>
        )}
        {finished.length > 0 && (
          <Fold
            title={<span className="text-soft">{done === 1 ? '1 step' : `${done} steps`} done</span>}
            className="border-b border-line py-1.5"
          >
            {finished.map(groupOf)}
          </Fold>
        )}
        {open.map(groupOf)}
      </div>
    </StageFrame>
  )
}

/** How the maker wants parts to be built; some this way, some that, is neither. */
function builtParts({ assemblies }: Project): 'on the bench' | 'in their place' | '' {
  const apart = assemblies.filter((part) => part.apart).length
  return apart === assemblies.length ? 'on the bench' : apart === 0 ? 'in their place' : ''
}
