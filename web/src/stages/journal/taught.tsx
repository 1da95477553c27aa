// What earlier work taught: how long things really take, and how sure that is.
import { useMemo } from 'react'
import { setPlan } from '@feuillet/core/project'
import { factorsOf, type Factor } from '@feuillet/core/stages/assembly'
import { judge } from '@feuillet/core/stages/journal'
import { formatMinutes } from '@feuillet/core/base/units'
import { change, changeSupplies } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, DataTable, Switch, type DataColumn } from '../../ui'

const times = (value: number) => `× ${value.toFixed(2)}`

const COLUMNS: readonly DataColumn<Factor>[] = [
  {
    id: 'what',
    title: 'work',
    always: true,
    value: ({ what, of }) => `${what} ${of}`,
    cell: ({ what, of }) => (
      <>
        {what}
        {of && <span className="text-soft"> · {of}</span>}
      </>
    ),
  },
  {
    id: 'n',
    title: 'rests on',
    unit: 'times',
    numeric: true,
    value: ({ n }) => n,
    cell: ({ n }) => <span className="measure">{n}</span>,
  },
  {
    id: 'median',
    title: 'took',
    numeric: true,
    value: ({ median }) => median,
    cell: ({ median, n }) => <span className="measure">{n === 0 ? '–' : times(median)}</span>,
  },
  {
    id: 'spread',
    title: 'middle half',
    numeric: true,
    value: ({ low }) => low,
    cell: ({ low, high, n }) => (
      <span className="measure">{n === 0 ? '–' : `${low.toFixed(2)} – ${high.toFixed(2)}`}</span>
    ),
  },
  {
    id: 'factor',
    title: 'plans with',
    numeric: true,
    value: ({ factor }) => factor,
    cell: ({ factor }) => <strong className="measure">{times(factor)}</strong>,
  },
]

export function Taught() {
  const dispatch = useAppDispatch()
  const { plan } = useAppSelector(selectProject)
  const { observed } = useAppSelector((state) => state.document.supplies)
  const factors = useMemo(() => factorsOf(observed), [observed])
  const odd = [...new Map(factors.flatMap((one) => one.odd).map((one) => [one.id, one])).values()]
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-4">
        <Switch
          label="Plan with what was learned"
          checked={plan.learns}
          onChange={(learns) => dispatch(change('what was learned', (p) => setPlan(p, { learns })))}
          title="Off: our own values, one press away"
        />
        <Button
          small
          disabled={observed.length === 0}
          onClick={() =>
            dispatch(
              changeSupplies('back to our values', ({ project, supplies }) => ({
                project: { ...project, drawer: { ...project.drawer, observed: [] } },
                supplies: { ...supplies, observed: [] },
              })),
            )
          }
        >
          Back to our values
        </Button>
      </div>
      <DataTable
        label="What was learned"
        rows={factors}
        columns={COLUMNS}
        rowId={({ what, of }) => `${what} ${of}`}
        rowProps={({ what, of }) => ({ 'data-factor': `${what} ${of}`.trim() })}
        sortedBy="what"
        small
        toolbar={(shown) => (
          <span className="flex-1 text-[13px] text-soft">
            {shown === 0
              ? 'Nothing yet: steps that are ticked at the bench note their minutes, and runs of the cutter theirs.'
              : 'Measured against our own times, over all projects. The middle of few is drawn towards ours, as if ours had been seen three times.'}
          </span>
        )}
      />
      {odd.length > 0 && (
        <section className="mt-4" aria-label="Odd times">
          <h2 className="mb-1 text-[17px]">Far from all others</h2>
          <p className="mb-2 text-[13px] text-soft">Left out until you say that they count.</p>
          <ul className="grid gap-1.5">
            {odd.map((one) => (
              <li key={one.id} className="flex flex-wrap items-center gap-3 bg-panel px-3 py-1.5">
                <span className="min-w-0 flex-1">
                  {one.what}
                  {one.of && ` · ${one.of}`}: {formatMinutes(one.minutes)} where {formatMinutes(one.oursMin)}{' '}
                  was planned, in “{one.project}”
                </span>
                <Button small onClick={() => settle(one.id, true)}>
                  It counts
                </Button>
                <Button small look="quiet" onClick={() => settle(one.id, false)}>
                  Leave it out
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
  function settle(id: string, counts: boolean) {
    dispatch(
      changeSupplies(counts ? 'it counts' : 'it is left out', ({ project, supplies }) => ({
        project,
        supplies: judge(supplies, id, counts),
      })),
    )
  }
}
