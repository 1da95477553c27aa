// A run on the cutter: which sheet it wants, the blade on its way, time left, and what to do when something goes wrong.
import { Progress } from 'radix-ui'
import { useEffect, useState } from 'react'
import { noteRun } from '@feuillet/core/stages/journal'
import { loadTag, type LoadView } from '@feuillet/core/stages/sheets'
import { formatMinutes } from '@feuillet/core/base/units'
import { change } from '../../../state/edits'
import { planner, usePlan } from '../../../plan'
import { selectProject, selectUnit } from '../../../state/selectors'
import { StageFrame } from '../../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { Board } from '../../../drawing/board'
import { Button, Figure, Figures, Heading, NumberField, Switch, SelectField } from '../../../ui'
import { inkOn } from '../../../ui/folio-tab'
import { SheetDrawing } from '../sheet-drawing'
import { CutSoFar } from './cut-so-far'
import type { CommandBody, CutterCommand } from '@feuillet/cutter-protocol'
import { tellCutter, useCutter, type CutterState, type Fault } from './client'

const NO_LOADS: LoadView[] = []
/** Runs that this page has noted. */
const noted = new Set<string>()
const SPEEDS = [1, 5, 20, 60, 200]

const FAULTS: readonly { fault: Fault; label: string }[] = [
  { fault: 'slip', label: 'Mat slips on the way' },
  { fault: 'blunt', label: 'Blade is worn' },
  { fault: 'power', label: 'Power fails on the way' },
]

export function CutterScreen({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const cutter = useCutter()
  const role = useAppSelector((state) => state.document.role)
  const [why, setWhy] = useState<string | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const [passes, setPasses] = useState<number | null>(null)
  const loads = usePlan('loads') ?? NO_LOADS
  const here = cutter !== null && cutter !== 'absent' ? cutter : null
  const idOf = (load: LoadView) => `${project.id}:${load.id}`
  const running = here?.load ? loads.find((load) => idOf(load) === here.load!.id) : undefined
  const busy = here !== null && ['asking', 'cutting', 'paused', 'slipped', 'off'].includes(here.status)
  const cutAlready = new Set(
    project.journal.runs.filter((run) => run.outcome === 'cut').map((run) => run.loadId),
  )
  const next = loads.find((load) => !cutAlready.has(load.id))
  const load = (busy ? running : loads.find((l) => l.id === chosen)) ?? running ?? next ?? loads[0]

  const drawn = usePlan('sheet', load?.id ?? null) ?? null

  // What came of a run goes into the journal, once.
  const ended =
    here && running && (here.status === 'done' || here.status === 'cancelled') && here.startedAt !== null
      ? here
      : null
  useEffect(() => {
    if (!ended || !running || role !== 'writing') return
    const key = `${running.id} ${ended.startedAt} ${ended.status} ${ended.passes}`
    // What was noted and then undone stays undone, however often the cutter reports it.
    if (noted.has(key)) return
    noted.add(key)
    const outcome = ended.status === 'cancelled' ? ('cancelled' as const) : ended.outcome!
    const run = {
      loadId: running.id,
      paper: running.paper.name,
      startedAt: ended.startedAt!,
      minutes: ended.ranS / 60,
      passes: ended.passes,
      outcome,
    }
    dispatch(change(`run of load ${running.number}`, (p) => noteRun(p, run)))
  }, [ended, running, role, dispatch])

  const tell: Tell = async (command, body) => setWhy(await tellCutter(command, body))
  const send = async (which: LoadView) => {
    const { speedMmPerS, cornerS, liftS, rimMm } = project.drawer.cutter
    setChosen(which.id)
    await tell('load', {
      id: idOf(which),
      name: which.paper.name,
      tag: loadTag(which),
      colour: which.paper.colour,
      plot: await planner.host.ask((api) => api.plot(which.id)),
      sheet: { widthMm: which.widthMm, heightMm: which.heightMm, rimMm: which.onOffCut ? 0 : rimMm },
      setting: { name: which.setting.name, tack: which.setting.tack, passes: passes ?? which.setting.passes },
      passesNeeded: which.setting.passes,
      pace: { speedMmPerS, cornerS, liftS },
    })
  }
  const pick = (id: string) => {
    setChosen(id)
    setPasses(null)
    setWhy(null)
  }
  return (
    <StageFrame
      title="Cutter"
      lead="A simulated machine that ships with Feuillet; it cuts no card."
      panel={
        cutter === 'absent' ? (
          <p className="border-l-4 border-ochre bg-ochre-pale px-3 py-2">
            <span aria-hidden>▲ </span>No cutter answers. It runs in the local server, which starts with the
            demo command of the README. All else works without it: save the cut files and run them on your own
            machine.
          </p>
        ) : !here || !load ? (
          <p className="text-soft">
            {loads.length === 0 ? 'There is nothing to cut yet.' : 'Looking for the cutter…'}
          </p>
        ) : (
          <>
            <Heading title={`Load ${load.number}: ${load.paper.name}`}>
              <Status cutter={here} mine={running === load} load={load} />
              {why && (
                <p
                  role="alert"
                  className="mt-2 border-l-4 border-crimson bg-crimson-pale px-3 py-1.5 text-[13.5px]"
                >
                  ■ Refused: {why}.
                </p>
              )}
              {busy && running === undefined && (
                <p className="mt-2 text-ochre">▲ The cutter is busy with a load of another project.</p>
              )}
              <Steps cutter={here} loads={loads} mine={running === load} tell={tell} />
              {!busy && (
                <div className="mt-3 grid gap-2">
                  <NumberField
                    label="Passes"
                    value={passes ?? load.setting.passes}
                    min={1}
                    max={20}
                    whole
                    onChange={setPasses}
                  />
                  <Button look="main" onClick={() => void send(load)}>
                    {cutAlready.has(load.id) ? 'Cut it once more' : 'Send to the cutter'}
                  </Button>
                  {next && next !== load && (
                    <Button onClick={() => pick(next.id)}>Next: load {next.number}</Button>
                  )}
                </div>
              )}
            </Heading>
            <Heading title="Before it runs">
              <Figures>
                <Figure name="Mat" value={`${load.setting.tack} tack`} />
                <Figure name="Setting" value={load.setting.name} />
                <Figure
                  name="Time expected"
                  value={formatMinutes(load.minutes)}
                  basis="Path, corners, lifts, passes and loading"
                />
              </Figures>
              <p className="mt-2 text-[13px] text-soft">
                Blades are sharp: hands off while it moves. Follow your machine's own instructions.
              </p>
            </Heading>
            <Heading title="Pace and faults">
              <div className="mb-2">
                <SelectField
                  label="Pace"
                  className="w-28"
                  value={String(here.speed)}
                  options={[...new Set([...SPEEDS, here.speed])].map((speed) => ({
                    value: String(speed),
                    label: `× ${speed}`,
                  }))}
                  onChange={(speed) => void tell('speed', { speed: Number(speed) })}
                />
              </div>
              <div className="grid gap-1">
                {FAULTS.map(({ fault, label }) => (
                  <Switch
                    key={fault}
                    label={label}
                    checked={here.faults[fault]}
                    onChange={(on) => void tell('fault', { fault, on })}
                  />
                ))}
              </div>
            </Heading>
          </>
        )
      }
      actions={<Button onClick={onClose}>Back to the sheets</Button>}
    >
      {load && (
        <div className="min-h-0 flex-1 p-4 pb-1">
          <Board
            name="cutter"
            box={{ minX: 0, minY: 0, maxX: load.widthMm, maxY: load.heightMm }}
            unit={unit}
            label={`The cutter on load ${load.number}`}
          >
            {(px) => (
              <>
                <SheetDrawing load={load} drawn={drawn} rimMm={project.drawer.cutter.rimMm} px={px} />
                {here && running === load && here.status !== 'asking' && (
                  <CutSoFar load={load} cutter={here} px={px} />
                )}
                {here?.tool && running === load && <Blade tool={here.tool} px={px} />}
              </>
            )}
          </Board>
        </div>
      )}
      <ol
        aria-label="Loads to cut"
        className="flex gap-1.5 overflow-x-auto border-t border-line bg-panel px-5 py-2"
      >
        {loads.map((l) => (
          <li key={l.id}>
            <button
              type="button"
              disabled={busy && l !== load}
              aria-pressed={l === load}
              onClick={() => pick(l.id)}
              className={`clip-tab grid h-12 w-16 content-between px-1.5 py-1 text-left ${l === load ? 'outline-2 -outline-offset-3 outline-current' : ''}`}
              style={{ background: l.paper.colour, color: inkOn(l.paper.colour) }}
            >
              <span className="truncate leading-none font-semibold">{loadTag(l)}</span>
              <span className="text-[11px] leading-none">
                load {l.number}
                {cutAlready.has(l.id) && ' ✓'}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </StageFrame>
  )
}

function Blade({ tool, px }: { tool: NonNullable<CutterState['tool']>; px: number }) {
  const { x, y, down } = tool
  const r = px * (down ? 7 : 10)
  return (
    <g data-blade transform={`translate(${x} ${y})`} pointerEvents="none">
      <path d={`M0 ${-px * 22}V${px * 22}M${-px * 22} 0H${px * 22}`} stroke="#fff" strokeWidth={px * 3.5} />
      <circle r={r} fill={down ? 'var(--color-plum)' : '#fff'} stroke="#fff" strokeWidth={px * 3} />
      <circle r={r} fill="none" stroke="var(--color-plum)" strokeWidth={px * 1.6} />
      <path
        d={`M0 ${-px * 22}V${-r}M0 ${r}V${px * 22}M${-px * 22} 0H${-r}M${r} 0H${px * 22}`}
        stroke="var(--color-plum)"
        strokeWidth={px * 1.2}
      />
    </g>
  )
}

/** Where the run stands, in words and as a bar. */
function Status({ cutter, mine, load }: { cutter: CutterState; mine: boolean; load: LoadView }) {
  if (!mine || cutter.status === 'idle') return <p className="text-soft">Not sent yet.</p>
  const words: Record<CutterState['status'], string> = {
    idle: '',
    asking: `Waits for the sheet: ${load.paper.name}, ${load.setting.tack} tack mat.`,
    cutting: `Cutting, pass ${cutter.pass} of ${cutter.passes}. ${formatMinutes(cutter.secondsLeft / 60)} left.`,
    paused: 'Paused; it goes on where it is.',
    slipped: 'The mat has slipped. Press it down where it was; it starts the cut under way anew.',
    off: 'The power is gone. What is cut stays cut.',
    done:
      cutter.outcome === 'partly'
        ? 'Not cut through: the blade is worn, or the passes are too few. Leave the sheet on the mat and go over it again.'
        : 'Done. Take the mat off before you bend the card away from it.',
    cancelled: 'Cancelled.',
  }
  return (
    <div role="status">
      <p
        className={
          cutter.status === 'slipped' || cutter.status === 'off' || cutter.outcome === 'partly'
            ? 'text-ochre'
            : ''
        }
      >
        {(cutter.status === 'slipped' || cutter.status === 'off' || cutter.outcome === 'partly') && (
          <span aria-hidden>▲ </span>
        )}
        {words[cutter.status]}
      </p>
      {cutter.status !== 'asking' && (
        <Progress.Root
          value={Math.round(cutter.share * 100)}
          aria-label="Run of the cutter"
          className="mt-2 h-2.5 border border-ink bg-sheet"
        >
          <Progress.Indicator className="h-full bg-plum" style={{ width: `${cutter.share * 100}%` }} />
        </Progress.Root>
      )}
    </div>
  )
}

type Tell = <Name extends CutterCommand>(command: Name, body: CommandBody<Name>) => Promise<void>

/** Commands about the load that is on the machine. */
type OnLoad = 'pause' | 'resume' | 'cancel' | 'again'

interface StepsProps {
  cutter: CutterState
  loads: readonly LoadView[]
  mine: boolean
  tell: Tell
}

/** What the maker can tell the cutter now. */
function Steps({ cutter, loads, mine, tell }: StepsProps) {
  const id = cutter.load?.id ?? ''
  const press = (words: string, command: OnLoad, main = false) => (
    <Button small={!main} look={main ? 'main' : 'plain'} onClick={() => void tell(command, { id })}>
      {words}
    </Button>
  )
  const running = ['asking', 'cutting', 'paused', 'slipped', 'off'].includes(cutter.status)
  return (
    <div className="mt-3">
      {mine && cutter.status === 'asking' && (
        <>
          <p className="mb-1.5 text-[13px] text-soft">Which tag does the sheet on the mat bear?</p>
          <div className="mb-2 flex flex-wrap gap-1.5" role="group" aria-label="Tag of the sheet on the mat">
            {[...new Map(loads.map((l) => [loadTag(l), l])).entries()].map(([tag, l]) => (
              <button
                key={tag}
                type="button"
                aria-label={`Tag ${tag}, ${l.paper.name}`}
                onClick={() => void tell('confirm', { id, tag })}
                className="clip-tab h-9 min-w-9 px-2 font-semibold"
                style={{ background: l.paper.colour, color: inkOn(l.paper.colour) }}
              >
                {tag}
              </button>
            ))}
          </div>
        </>
      )}
      <div className="flex flex-wrap gap-2">
        {cutter.status === 'cutting' && press('Pause', 'pause')}
        {(cutter.status === 'paused' || cutter.status === 'slipped') && press('Go on', 'resume')}
        {cutter.status === 'off' && (
          <Button small onClick={() => void tell('power', {})}>
            Switch it on
          </Button>
        )}
        {mine &&
          cutter.status === 'done' &&
          cutter.outcome === 'partly' &&
          press('Go over it again', 'again', true)}
        {running && press('Cancel', 'cancel')}
      </div>
    </div>
  )
}
