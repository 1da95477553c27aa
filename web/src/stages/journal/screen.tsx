import { toast } from 'sonner'
import { useWords } from '../../state/use-words'
import { useEffect, useState } from 'react'
import type { Step } from '@feuillet/core/stages/assembly'
import { costSoFar, runningStage, type CostLine } from '@feuillet/core/stages/journal'
import type { LeftView } from '@feuillet/core/stages/sheets'
import { change } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject, selectStageSnags } from '../../state/selectors'
import { StageFrame } from '../../shell/stage-frame'
import { stageName } from '../../shell/stage-names'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Choice, Figure, Figures, Heading, Switch } from '../../ui'
import { noteCut } from '../../state/note-cut'
import { AllWants } from './all-wants'
import { Mentions } from './mentions'
import { OverAll } from './over-all'
import { Costs, PricePanel } from './costs'
import { Fair } from './fair'
import { Makes, RightsPanel } from './makes'
import { Taught } from './taught'
import { Took } from './took'

const NOTHING: LeftView[] = []

type Tab = 'took' | 'costs' | 'taught' | 'makes' | 'fair' | 'all' | 'charts'

/** The time now, kept up every second while something runs. */
function useNow(running: boolean): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (!running) return
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [running])
  return now
}

const NO_STEPS: readonly Step[] = []
const NO_LINES: readonly CostLine[] = []

export default function JournalScreen() {
  const dispatch = useAppDispatch()
  const snags = useAppSelector((state) => selectStageSnags(state, 'journal'))
  const [tab, setTab] = useState<Tab>('took')
  const project = useAppSelector(selectProject)
  const loads = usePlan('loads')
  const cost = usePlan('cost')
  const keepable = usePlan('left') ?? NOTHING
  const { size } = useWords()
  const running = runningStage(project)
  const now = useNow(running !== null)
  const assembly = usePlan('assembly')
  const steps = assembly?.steps ?? NO_STEPS
  // What is spent on paper, foam and hands is noted; the rest goes by what is planned.
  const isPlanned = cost !== undefined && assembly !== undefined
  const spent = costSoFar(project, now, { lines: cost?.lines ?? NO_LINES, steps })
  const money = (value: number) => `${value.toFixed(2)} ${project.drawer.currency}`
  const guests = cost?.paperForGuests ?? 0
  const { cutElsewhere: elsewhere } = project
  const [choices, setChoices] = useState<ReadonlyMap<string, boolean>>(new Map())
  const leftKey = (left: LeftView) => `${left.loadId} ${left.id}`
  const keeps = (left: LeftView) => choices.get(leftKey(left)) ?? left.kind === 'clean'
  const toTake = loads ?? []
  const back = keepable.filter(keeps).length
  const backWords = back > 0 ? ` ${back} ${back === 1 ? 'off-cut' : 'off-cuts'} put back.` : ''
  return (
    <StageFrame
      title="Journal"
      lead={running ? `The clock runs for ${stageName[running]}.` : 'What it takes, while you do it.'}
      snags={{ list: snags, none: 'Nothing speaks against it.' }}
      panel={
        <>
          {tab === 'costs' && <PricePanel />}
          {tab === 'makes' && <RightsPanel />}
          <Heading title="Cost so far">
            <Figures>
              <Figure
                name="Paper"
                value={money(spent.paper)}
                basis="Sheets noted as used at the drawer's prices"
              />
              <Figure
                name="Foam"
                value={money(spent.foam)}
                basis="Pads of the pad steps that are ticked off"
              />
              <Figure
                name="Other things"
                value={isPlanned ? money(spent.other) : '…'}
                basis="Glue, wear and parts as planned, by the share of their steps that is ticked off"
              />
              <Figure name="Hands" value={money(spent.hands)} basis="All clocks at the hourly rate" />
              <Figure name="In all" value={isPlanned ? money(spent.total) : '…'} />
            </Figures>
          </Heading>
          {cost && (
            <Heading title="Planned">
              <Figures>
                <Figure
                  name="Paper"
                  value={money(cost.paper)}
                  basis={
                    project.plan.cutWith
                      ? `It is cut and paid for along with “${project.plan.cutWith.name}”`
                      : elsewhere.length > 0
                        ? `Every sheet that is cut into, whole; without what was cut with ${elsewhere.map(({ name }) => `“${name}”`).join(' and ')}, and is paid for there`
                        : guests > 0
                          ? `Every sheet that is cut into, whole; ${money(guests)} of it for the projects cut along, by area`
                          : 'Every sheet that is cut into, whole'
                  }
                />
                <Figure name="Foam" value={money(cost.foam)} />
                <Figure
                  name="Other things"
                  value={money(cost.other)}
                  basis="Glue, prints, frame or sticks, blade, mats and machine: line by line under what it costs"
                />
                <Figure
                  name="Hands"
                  value={money(cost.hands)}
                  basis="Planned minutes of handwork at the hourly rate"
                />
                <Figure name="In all" value={money(cost.total)} />
                {project.plan.batch > 1 && (
                  <Figure
                    name={`Each of ${project.plan.batch}`}
                    value={money((cost.total - guests) / project.plan.batch)}
                    basis="All of it shared evenly, without what is cut along"
                  />
                )}
              </Figures>
            </Heading>
          )}
          {keepable.length > 0 && toTake.length > 0 && (
            <Heading title="Off-cuts to keep">
              <p className="mb-1 text-[13px] text-soft">
                They go back into the drawer when the sheets are noted; next layouts use them first.
              </p>
              <ul className="-mx-1 grid max-h-44 gap-1 overflow-y-auto px-1">
                {keepable.map((left) => (
                  <li key={leftKey(left)}>
                    <Switch
                      label={`${left.label}, ${size(left.widthMm, left.heightMm)}`}
                      checked={keeps(left)}
                      onChange={(on) => setChoices(new Map(choices).set(leftKey(left), on))}
                    />
                  </li>
                ))}
              </ul>
            </Heading>
          )}
          <Heading title="Note">
            <textarea
              key={project.journal.note}
              aria-label="Note"
              className="h-24 w-full border border-line bg-sheet p-2"
              placeholder="Settings that worked, what to do otherwise next time; layers and papers that it names become links"
              defaultValue={project.journal.note}
              onBlur={(event) =>
                event.target.value !== project.journal.note &&
                dispatch(
                  change('note', (p) => ({ ...p, journal: { ...p.journal, note: event.target.value } })),
                )
              }
            />
            <Mentions />
          </Heading>
        </>
      }
      actions={
        <Button
          look="main"
          disabled={toTake.length === 0}
          onClick={() =>
            void dispatch(
              noteCut(
                { loadIds: toTake.map(({ id }) => id), kept: keepable.filter(keeps).map(leftKey) },
                'note sheets as used',
              ),
            ).then((done) => done && toast(`Noted, and taken out of the drawer.${backWords}`))
          }
          title="All loads are cut: they leave the shared drawer and every later layout"
        >
          Note sheets as used
        </Button>
      }
    >
      <div className="px-6 pt-3">
        <Choice
          label="What of the journal"
          value={tab}
          options={[
            { value: 'took', label: 'what it took' },
            { value: 'costs', label: 'what it costs' },
            { value: 'taught', label: 'what it taught' },
            { value: 'makes', label: 'what was made' },
            { value: 'fair', label: 'for a fair' },
            { value: 'all', label: 'all projects', title: 'What all projects want of the drawer' },
            {
              value: 'charts',
              label: 'looking back',
              title: 'Hours, sheets and the drawer over all projects',
            },
          ]}
          onChange={setTab}
        />
      </div>
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-6 py-4">
        {tab === 'took' && <Took now={now} />}
        {tab === 'costs' && <Costs spent={spent} />}
        {tab === 'taught' && <Taught />}
        {tab === 'makes' && <Makes />}
        {tab === 'fair' && <Fair />}
        {tab === 'all' && <AllWants />}
        {tab === 'charts' && <OverAll now={now} />}
      </div>
    </StageFrame>
  )
}
