import { loadTag, type LoadView } from '@feuillet/core/stages/sheets'
import type { CommandBody, CutterCommand } from '@feuillet/cutter-protocol'
import { Button } from '../../../ui'
import { inkOn } from '../../../ui/folio-tab'
import { isBusy, type CutterState } from './use-cutter'

export type Tell = <Name extends CutterCommand>(command: Name, body: CommandBody<Name>) => Promise<void>

/** Commands about the load that is on the machine. */
type OnLoad = 'pause' | 'resume' | 'cancel' | 'again'

interface StepsProps {
  cutter: CutterState
  loads: readonly LoadView[]
  mine: boolean
  tell: Tell
}

/** What the maker can tell the cutter now. */
export function RunCommands({ cutter, loads, mine, tell }: StepsProps) {
  const id = cutter.load?.id ?? ''
  const press = (words: string, command: OnLoad, main = false) => (
    <Button small={!main} look={main ? 'main' : 'plain'} onClick={() => void tell(command, { id })}>
      {words}
    </Button>
  )
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
        {isBusy(cutter) && press('Cancel', 'cancel')}
      </div>
    </div>
  )
}
