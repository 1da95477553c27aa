// What it took: a clock per stage, single steps as the bench timed them, runs of the cutter, sheets against the plan.
import { Trash2 } from 'lucide-react'
import {
  correctStep,
  minutesPlanned,
  minutesSpent,
  runningStage,
  startTimer,
  stopTimer,
} from '@feuillet/core/stages/journal'
import { STAGES, type Paper, type Project, type StepNote } from '@feuillet/core/project'
import { formatMinutes } from '@feuillet/core/base/units'
import { change, changeSupplies } from '../../state/edits'
import { saveFile } from '../../session/save-file'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { stageName } from '../../shell/stage-names'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, type DataColumn, DataTable, momentOf } from '../../ui'

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
    cell: (run) => <span className="measure">{momentOf(run.startedAt)}</span>,
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

export function Took({ now }: { now: number }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const loads = usePlan('loads')
  const assembly = usePlan('assembly')
  const needed = usePlan('needed')
  const running = runningStage(project)
  // What cutting takes is known before the steps are.
  const planned = assembly
    ? minutesPlanned(assembly.steps)
    : { sheets: (loads ?? []).reduce((sum, load) => sum + load.minutes, 0) }
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
  return (
    <>
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
                      dispatch(change(`start the clock of ${stage}`, (p) => startTimer(p, stage, Date.now())))
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
      <StepsTook />
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
      </div>
    </>
  )
}

/** Steps as they were timed, beside what was planned; a minute can be corrected. */
function StepsTook() {
  const dispatch = useAppDispatch()
  const { steps } = useAppSelector(selectProject).journal
  if (steps.length === 0) return null
  const correct = (note: StepNote, minutes: number | null) =>
    dispatch(changeSupplies(`what ${note.title} took`, (held) => correctStep(held, note.stepId, minutes)))
  const columns: DataColumn<StepNote>[] = [
    { id: 'title', title: 'step', always: true, value: ({ title }) => title, cell: ({ title }) => title },
    {
      id: 'planned',
      title: 'planned',
      numeric: true,
      value: ({ plannedMin }) => plannedMin,
      cell: ({ plannedMin }) => <span className="measure">{formatMinutes(plannedMin)}</span>,
    },
    {
      id: 'took',
      title: 'took',
      unit: 'min',
      numeric: true,
      value: ({ minutes }) => minutes,
      cell: (note) => (
        <input
          aria-label={`Minutes of ${note.title}`}
          className="measure w-16 border border-line bg-sheet px-1 text-right"
          key={note.minutes}
          defaultValue={String(note.minutes)}
          onBlur={(event) => {
            const minutes = Number(event.target.value.replace(',', '.'))
            if (Number.isFinite(minutes) && minutes > 0 && minutes !== note.minutes) correct(note, minutes)
            else event.target.value = String(note.minutes)
          }}
        />
      ),
    },
    {
      id: 'bin',
      title: 'bin',
      always: true,
      cell: (note) => (
        <button
          type="button"
          aria-label={`Bin the time of ${note.title}`}
          className="p-1"
          onClick={() => correct(note, null)}
        >
          <Trash2 size={14} aria-hidden />
        </button>
      ),
    },
  ]
  const saveCsv = async () => {
    const { writeCsv } = await import('@feuillet/core/io/write')
    saveFile(
      'steps.csv',
      writeCsv(
        steps.map(({ title, kind, plannedMin, minutes, at }) => ({
          step: title,
          kind,
          'planned min': plannedMin.toFixed(2),
          'took min': minutes.toFixed(2),
          when: new Date(at).toISOString(),
        })),
      ),
      'text/csv',
    )
  }
  return (
    <section className="mt-5">
      <h2 className="mb-2 text-[17px]">Steps</h2>
      <DataTable
        label="What steps took"
        rows={steps}
        columns={columns}
        rowId={({ stepId }) => stepId}
        rowProps={({ stepId }) => ({ 'data-took': stepId })}
        sortedBy="title"
        small
        toolbar={() => (
          <>
            <span className="flex-1 text-[13px] text-soft">
              As the bench timed them, pauses taken out:{' '}
              {formatMinutes(steps.reduce((sum, { minutes }) => sum + minutes, 0))} for{' '}
              {formatMinutes(steps.reduce((sum, { plannedMin }) => sum + plannedMin, 0))} planned.
            </span>
            <Button small onClick={() => void saveCsv()}>
              Save as CSV
            </Button>
          </>
        )}
      />
    </section>
  )
}
