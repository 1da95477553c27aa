// A run on the cutter: which sheet it wants, the blade on its way, time left, and what to do when something goes wrong.
import { useMemo, useState } from 'react'
import { loadTag, type LoadView } from '@feuillet/core/stages/sheets'
import { formatMinutes } from '@feuillet/core/base/units'
import { planner, usePlan } from '../../../plan'
import { selectProject, selectUnit } from '../../../state/selectors'
import { runIdOf, sentLoads } from '../../../session/loads-out'
import { StageFrame } from '../../../shell/stage-frame'
import { useAppSelector } from '../../../state/store'
import { Board } from '../../../drawing/board'
import { Button, Figure, Figures, Heading, NumberField } from '../../../ui'
import { SheetDrawing } from '../../../drawing/sheet'
import { CutSoFar } from './cut-so-far'
import { Blade } from './blade'
import { isBusy, tellCutter, useCutter } from './use-cutter'
import { LoadsToCut } from './loads-to-cut'
import { PaceAndFaults } from './pace-and-faults'
import { RunCommands, type Tell } from './run-commands'
import { RunStatus } from './run-status'
import { useSent } from './use-sent'
import { useNotedRuns } from './use-noted-runs'

const NO_LOADS: LoadView[] = []
const NO_WAYS: Float64Array[] = []

/** All loads, the one on the mat as it was sent, whether or not there is still one like it. */
function withSent(loads: readonly LoadView[], sent: LoadView | undefined): LoadView[] {
  if (!sent) return [...loads]
  return loads.some(({ id }) => id === sent.id)
    ? loads.map((load) => (load.id === sent.id ? sent : load))
    : [sent, ...loads]
}

export function CutterScreen({ onClose }: { onClose: () => void }) {
  const project = useAppSelector(selectProject)
  const stock = useAppSelector((state) => state.document.stock)
  const unit = useAppSelector(selectUnit)
  const cutter = useCutter()
  const [why, setWhy] = useState<string | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const [passes, setPasses] = useState<number | null>(null)
  const open = usePlan('loads') ?? NO_LOADS
  const done = usePlan('cutLoads') ?? NO_LOADS
  const here = cutter !== null && cutter !== 'absent' ? cutter : null
  const idOf = (load: LoadView) => runIdOf(project.id, load.id)
  const onMat = useSent(here)
  /** On the mat, as it was sent; its plan may be another by now. */
  const sent = onMat && here?.load?.id === idOf(onMat.load) ? onMat : null
  const loads = useMemo(() => withSent([...done, ...open], sent?.load), [done, open, sent])
  const running = here?.load ? loads.find((load) => idOf(load) === here.load!.id) : undefined
  const busy = here !== null && isBusy(here)
  const cutAlready = new Set(done.map(({ id }) => id))
  const next = open[0]
  const load = (busy ? running : loads.find((l) => l.id === chosen)) ?? running ?? next ?? loads[0]

  const isCut = load !== undefined && cutAlready.has(load.id)
  const openDrawn = usePlan('sheet', load && !isCut ? load.id : null)
  const cutDrawn = usePlan('cutSheet', load && isCut ? load.id : null)
  const isAsSent = sent !== null && load === sent.load
  const drawn = (isAsSent ? sent.drawn : isCut ? cutDrawn : openDrawn) ?? null
  const rimMm = isAsSent && here?.load ? here.load.sheet.rimMm : project.drawer.cutter.rimMm
  const hasChanged = useMemo(
    () => isAsSent && openDrawn !== undefined && JSON.stringify(openDrawn) !== JSON.stringify(sent.drawn),
    [isAsSent, openDrawn, sent],
  )

  useNotedRuns(cutter)
  const tell: Tell = async (command, body) => setWhy(await tellCutter(command, body))
  const send = async (which: LoadView) => {
    const { cornerS, liftS, rimMm, accelMmPerS2, travelMmPerS } = project.drawer.cutter
    const { speedMmPerS } = which.setting
    setChosen(which.id)
    const { plot, sent: asSent } = await planner.host.ask((api) => api.send(which.id, stock))
    await sentLoads.remember([[idOf(which), asSent]])
    await tell('load', {
      id: idOf(which),
      name: which.paper.name,
      tag: loadTag(which),
      colour: which.paper.colour,
      plot,
      sheet: { widthMm: which.widthMm, heightMm: which.heightMm, rimMm: which.onOffCut ? 0 : rimMm },
      setting: { name: which.setting.name, tack: which.setting.tack, passes: passes ?? which.setting.passes },
      passesNeeded: which.setting.passes,
      pace: { speedMmPerS, cornerS, liftS, accelMmPerS2, travelMmPerS },
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
              <RunStatus cutter={here} mine={running === load} load={load} />
              {why && (
                <p
                  role="alert"
                  className="mt-2 border-l-4 border-crimson bg-crimson-pale px-3 py-1.5 text-[13.5px]"
                >
                  ■ Refused: {why}.
                </p>
              )}
              {busy && hasChanged && (
                <p className="mt-2 border-l-4 border-ochre bg-ochre-pale px-3 py-1.5 text-[13.5px]">
                  <span aria-hidden>▲ </span>The plan has changed since this sheet was sent. It is drawn and
                  noted as it was sent; cancel the run to cut it as it is now.
                </p>
              )}
              {busy && running === undefined && (
                <p className="mt-2 text-ochre">▲ The cutter is busy with a load of another project.</p>
              )}
              <RunCommands cutter={here} loads={loads} mine={running === load} tell={tell} />
              {!busy && (
                <div className="mt-3 grid gap-2">
                  {isCut ? (
                    <p className="text-[13.5px] text-soft">
                      It is cut, and stays so. What came out torn is noted on the sheets, and laid again.
                    </p>
                  ) : (
                    <>
                      <NumberField
                        label="Passes"
                        value={passes ?? load.setting.passes}
                        min={1}
                        max={20}
                        whole
                        onChange={setPasses}
                      />
                      <Button look="main" onClick={() => void send(load)}>
                        Send to the cutter
                      </Button>
                    </>
                  )}
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
            <PaceAndFaults cutter={here} tell={tell} />
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
                <SheetDrawing load={load} drawn={drawn} rimMm={rimMm} px={px} />
                {here && running === load && here.status !== 'asking' && (
                  <CutSoFar ways={sent?.ways ?? NO_WAYS} cutter={here} px={px} />
                )}
                {here?.tool && running === load && <Blade tool={here.tool} px={px} />}
              </>
            )}
          </Board>
        </div>
      )}
      <LoadsToCut loads={loads} picked={load} locked={busy} cut={cutAlready} onPick={pick} />
    </StageFrame>
  )
}
