import { useMemo } from 'react'
import { format } from 'date-fns'
import { setPlan, slug, type Project } from '@feuillet/core/project'
import { datedPlan, wallClock, type Due, type DuePlan, type Step } from '@feuillet/core/stages/assembly'
import { formatMinutes } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { saveFile } from '../../session/save-file'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Checkbox, Figure, Figures, Heading } from '../../ui'

const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
const FORTNIGHT_MS = 14 * 86_400_000

/** In a fortnight at six, on every evening: to be changed at once. */
const firstDue = (): Due => ({
  by: `${format(new Date(Date.now() + FORTNIGHT_MS), 'yyyy-MM-dd')}T18:00`,
  from: '19:00',
  to: '21:30',
  days: [1, 2, 3, 4, 5, 6, 0],
})

/** A date for which it is to be ready: on which evenings to do what. */
export function DuePanel({ steps }: { steps: readonly Step[] }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { due, people } = project.plan
  const { done } = project.progress
  const dated = useMemo(
    () => (due ? datedPlan(steps, { done, due, people }) : null),
    [steps, done, due, people],
  )
  const set = (label: string, next: Due | null) => dispatch(change(label, (p) => setPlan(p, { due: next })))
  if (!due)
    return (
      <Heading title="Ready by a date">
        <Button small onClick={() => set('a date', firstDue())}>
          Plan back from a date
        </Button>
      </Heading>
    )
  return (
    <Heading title="Ready by a date">
      <div className="grid gap-2">
        <label className="grid gap-1">
          <span>Ready by</span>
          <input
            type="datetime-local"
            className="w-full min-w-0 border border-line bg-sheet px-2 py-1"
            value={due.by}
            onChange={(event) => event.target.value && set('ready by', { ...due, by: event.target.value })}
          />
        </label>
        <div className="grid gap-1">
          <span>Evenings</span>
          <span className="flex items-center gap-1">
            <input
              type="time"
              aria-label="Evenings from"
              className="min-w-0 flex-1 border border-line bg-sheet px-1 py-1"
              value={due.from}
              onChange={(event) =>
                event.target.value && set('evenings', { ...due, from: event.target.value })
              }
            />
            –
            <input
              type="time"
              aria-label="Evenings to"
              className="min-w-0 flex-1 border border-line bg-sheet px-1 py-1"
              value={due.to}
              onChange={(event) => event.target.value && set('evenings', { ...due, to: event.target.value })}
            />
          </span>
        </div>
        <div role="group" aria-label="Days" className="flex flex-wrap gap-x-2.5 gap-y-1 text-[13px]">
          {DAYS.map((name, day) => (
            <label key={name} className="flex items-center gap-1">
              <Checkbox
                label={`Evenings on ${name}`}
                checked={due.days.includes(day)}
                onChange={(on) =>
                  set('days', {
                    ...due,
                    days: on ? [...due.days, day] : due.days.filter((other) => other !== day),
                  })
                }
              />
              {name}
            </label>
          ))}
        </div>
        {typeof dated === 'string' && <p className="text-[13.5px] text-ochre">▲ {dated}</p>}
        {dated && typeof dated !== 'string' && <Evenings dated={dated} project={project} />}
        <div>
          <Button small look="quiet" onClick={() => set('no date', null)}>
            No date
          </Button>
        </div>
      </div>
    </Heading>
  )
}

function Evenings({ dated, project }: { dated: DuePlan; project: Project }) {
  const missed = new Map(dated.missed.map(({ fromAt, readyAt }) => [fromAt, readyAt]))
  const save = async () => {
    const { calendarOf } = await import('@feuillet/core/io/exports')
    saveFile(`${slug(project.name)}.ics`, calendarOf(project, dated), 'text/calendar')
  }
  return (
    <>
      <Figures>
        <Figure name="Begin" value={dayOf(dated.evenings[0]?.fromAt ?? dated.readyAt)} />
        <Figure name="Evenings" value={dated.evenings.length} />
        <Figure
          name="Slack"
          value={formatMinutes(dated.slackMin)}
          basis="From the end of the last step to the date: so much may go wrong"
        />
      </Figures>
      <ol aria-label="Evenings of work" className="grid gap-1.5 text-[13.5px]">
        {dated.evenings.map(({ fromAt, toAt, steps }) => (
          <li key={fromAt} className="border-l-4 border-line pl-2">
            <span className="font-semibold">{dayOf(fromAt)}</span>{' '}
            <span className="measure text-soft">
              {clock(fromAt)}–{clock(toAt)}
            </span>
            <span className="block text-soft">
              {steps.length} {steps.length === 1 ? 'step' : 'steps'}: {steps[0]!.step.title} …{' '}
              {steps.length > 1 && steps.at(-1)!.step.title}
            </span>
            <span className={`block ${missed.get(fromAt) === null ? 'text-ochre' : 'text-soft'}`}>
              {missed.get(fromAt) === null
                ? '▲ may not be missed: begin an evening earlier'
                : `missed: ready ${dayOf(missed.get(fromAt)!)}, ${clock(missed.get(fromAt)!)}, all the same`}
            </span>
          </li>
        ))}
      </ol>
      <p className="text-[13px] text-soft">
        An evening ends on nothing wet: what is glued holds by then. What only dries, dries overnight.
      </p>
      <div>
        <Button small onClick={() => void save()}>
          Save as a calendar
        </Button>
      </div>
    </>
  )
}

const clock = (minutes: number): string => wallClock(minutes).slice(11, 16)
const dayOf = (minutes: number): string => format(new Date(wallClock(minutes)), 'EEE d MMM')
