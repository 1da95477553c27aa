import { Progress } from 'radix-ui'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { formatMinutes } from '@feuillet/core/base/units'
import type { CutterState } from './use-cutter'

/** Where the run stands, in words and as a bar. */
export function RunStatus({ cutter, mine, load }: { cutter: CutterState; mine: boolean; load: LoadView }) {
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
