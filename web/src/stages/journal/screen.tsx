import { toast } from 'sonner'
import { useWords } from '../../state/use-words'
import { lazy, Suspense, useEffect, useState } from 'react'
import { costSoFar, minutesSpent, runningStage, startTimer, stopTimer } from '@feuillet/core/stages/journal'
import { setPlan, STAGES, type Paper, type Project } from '@feuillet/core/project'
import type { LeftView } from '@feuillet/core/stages/sheets'
import { formatMinutes } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { StageFrame } from '../../shell/stage-frame'
import { stageName } from '../../shell/stage-names'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, DataTable, type DataColumn, Figure, Figures, Heading, NumberField, Switch } from '../../ui'
import { noteCut } from '../../state/note-cut'

const CostChart = lazy(() => import('./cost-chart'))

const NOTHING: LeftView[] = []

type Run = Project['journal']['runs'][number]

const OUTCOMES: Record<Run['outcome'], string> = {
  cut: '✓ cut through',
  partly: '▲ only partly',
  cancelled: 'cancelled',
}

const RUN_COLUMNS: readonly DataColumn<Run>[] = [
  {
    id: 'when',
    title: 'when',
    always: true,
    value: (run) => run.startedAt,
    cell: (run) => <span className="measure">{new Date(run.startedAt).toLocaleString()}</span>,
  },
  { id: 'paper', title: 'paper', value: (run) => run.paper, cell: (run) => run.paper },
  {
    id: 'passes',
    title: 'passes',
    numeric: true,
    value: (run) => run.passes,
    cell: (run) => <span className="measure">{run.passes}</span>,
  },
  {
    id: 'minutes',
    title: 'machine time',
    numeric: true,
    value: (run) => run.minutes,
    cell: (run) => <span className="measure">{formatMinutes(run.minutes)}</span>,
  },
  {
    id: 'outcome',
    title: 'came out',
    value: (run) => OUTCOMES[run.outcome],
    cell: (run) => OUTCOMES[run.outcome],
  },
]

interface SheetRow {
  paper: Pick<Paper, 'id' | 'name' | 'colour'>
  sheets: number
  used: number
}

const SHEET_COLUMNS: readonly DataColumn<SheetRow>[] = [
  {
    id: 'paper',
    title: 'paper',
    always: true,
    value: ({ paper }) => paper.name,
    cell: ({ paper }) => (
      <>
        <span
          aria-hidden
          className="mr-2 inline-block h-3 w-3 border border-line align-[-1px]"
          style={{ background: paper.colour }}
        />
        {paper.name}
      </>
    ),
  },
  {
    id: 'planned',
    title: 'planned',
    unit: 'sheets',
    numeric: true,
    value: ({ sheets }) => sheets,
    cell: ({ sheets }) => <span className="measure">{sheets}</span>,
  },
  {
    id: 'used',
    title: 'used',
    unit: 'sheets',
    numeric: true,
    value: ({ used }) => used,
    cell: ({ used }) => <span className="measure">{used}</span>,
  },
]

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

export default function JournalScreen() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const loads = usePlan('loads')
  const assembly = usePlan('assembly')
  const cost = usePlan('cost')
  const needed = usePlan('needed')
  const keepable = usePlan('left') ?? NOTHING
  const { size } = useWords()
  const running = runningStage(project)
  const now = useNow(running !== null)
  const spent = costSoFar(project, now)
  const money = (value: number) => `${value.toFixed(2)} ${project.drawer.currency}`
  const planned: Partial<Record<(typeof STAGES)[number], number>> = {
    ...(loads ? { sheets: loads.reduce((sum, load) => sum + load.minutes, 0) } : {}),
    ...(assembly ? { assembly: assembly.handsMinutes } : {}),
  }
  const used = new Map<string, number>()
  for (const use of project.journal.sheetsUsed)
    used.set(use.paperId, (used.get(use.paperId) ?? 0) + use.count)
  const open = new Map((needed ?? []).map((need) => [need.paper.id, need]))
  const rows = [
    ...new Map([...project.cut, ...open.values()].map(({ paper }) => [paper.id, paper])).values(),
  ].map((paper): SheetRow => ({
    paper,
    sheets: (open.get(paper.id)?.sheets ?? 0) + (used.get(paper.id) ?? 0),
    used: used.get(paper.id) ?? 0,
  }))
  const guests = cost?.paperForGuests ?? 0
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
      panel={
        <>
          <Heading title="Cost so far">
            {spent ? (
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
                <Figure name="Hands" value={money(spent.hands)} basis="All clocks at the hourly rate" />
                <Figure name="In all" value={money(spent.total)} />
              </Figures>
            ) : (
              <p className="text-soft">Computing…</p>
            )}
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
                      : guests > 0
                        ? `Every sheet that is cut into, whole; ${money(guests)} of it for the projects cut along, by area`
                        : 'Every sheet that is cut into, whole'
                  }
                />
                <Figure name="Foam" value={money(cost.foam)} />
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
              <div className="mt-2">
                <NumberField
                  label="An hour of hands"
                  unitHint={project.drawer.currency}
                  value={project.plan.hourlyRate}
                  min={0}
                  max={500}
                  onChange={(hourlyRate) =>
                    dispatch(change('hourly rate', (p) => setPlan(p, { hourlyRate })))
                  }
                />
              </div>
            </Heading>
          )}
          {keepable.length > 0 && toTake.length > 0 && (
            <Heading title="Off-cuts to keep">
              <p className="mb-1 text-[13px] text-soft">
                They go back into the drawer when the sheets are noted; next layouts use them first.
              </p>
              <ul className="grid max-h-44 gap-1 overflow-y-auto">
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
              placeholder="Settings that worked, what to do otherwise next time"
              defaultValue={project.journal.note}
              onBlur={(event) =>
                event.target.value !== project.journal.note &&
                dispatch(
                  change('note', (p) => ({ ...p, journal: { ...p.journal, note: event.target.value } })),
                )
              }
            />
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
      <div className="min-h-0 flex-1 overflow-y-auto px-6 py-4">
        <h2 className="mb-2 text-[17px]">Clock per stage</h2>
        <table className="w-full bg-panel text-left">
          <thead className="text-soft">
            <tr className="border-b border-line">
              <th className="px-3 py-1.5 font-normal">stage</th>
              <th className="px-3 text-right font-normal">planned</th>
              <th className="px-3 text-right font-normal">so far</th>
              <th className="w-28">
                <span className="sr-only">clock</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {STAGES.map((stage) => (
              <tr key={stage} className="border-b border-line">
                <td className="px-3 py-1.5 font-semibold">{stageName[stage]}</td>
                <td className="measure px-3 text-right">
                  {planned[stage] ? formatMinutes(planned[stage]) : '–'}
                </td>
                <td className="measure px-3 text-right" data-testid={`spent-${stage}`}>
                  {formatMinutes(minutesSpent(project, stage, now))}
                </td>
                <td className="px-3 text-right">
                  {running === stage ? (
                    <Button
                      small
                      look="main"
                      onClick={() =>
                        dispatch(change(`stop the clock of ${stage}`, (p) => stopTimer(p, Date.now())))
                      }
                    >
                      Stop
                    </Button>
                  ) : (
                    <Button
                      small
                      aria-label={`Start the clock of ${stageName[stage]}`}
                      onClick={() =>
                        dispatch(
                          change(`start the clock of ${stage}`, (p) => startTimer(p, stage, Date.now())),
                        )
                      }
                    >
                      Start
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {project.journal.runs.length > 0 && (
          <section className="mt-5">
            <h2 className="mb-2 text-[17px]">Runs of the cutter</h2>
            <DataTable
              label="Runs of the cutter"
              rows={project.journal.runs}
              columns={RUN_COLUMNS}
              rowId={(run) => `${run.loadId} ${run.startedAt} ${run.outcome} ${run.passes}`}
              rowProps={(run) => ({ 'data-run': run.loadId })}
              sortedBy="when"
            />
          </section>
        )}
        <div className="mt-5 grid grid-cols-2 gap-6">
          <section>
            <h2 className="mb-2 text-[17px]">Sheets</h2>
            <DataTable
              label="Sheets planned and used"
              rows={rows}
              columns={SHEET_COLUMNS}
              rowId={({ paper }) => paper.id}
            />
          </section>
          <section>
            <h2 className="mb-2 text-[17px]">Cost, planned and so far</h2>
            {cost && spent && (
              <Suspense fallback={<p className="text-soft">Drawing…</p>}>
                <CostChart planned={cost} spent={spent} currency={project.drawer.currency} />
              </Suspense>
            )}
          </section>
        </div>
      </div>
    </StageFrame>
  )
}
