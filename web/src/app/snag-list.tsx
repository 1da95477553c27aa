import { findLayer, type Snag } from '@feuillet/core/project'
import { Button } from '../ui'
import { mend } from './edits'
import { useAppDispatch, useAppSelector } from './store'
import { looked } from './view'

const tones = { caution: 'bg-ochre-pale border-ochre', stop: 'bg-crimson-pale border-crimson' }

/** A finding that will cost paper or time: what, where, why, and what mends it. */
function SnagNote({ snag }: { snag: Snag }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector((state) => state.work.project)
  const canShow = snag.at !== null || (snag.layer !== null && project !== null && findLayer(project, snag.layer) !== undefined)
  return (
    <div className={`border-l-4 px-3 py-2 text-[13.5px] ${tones[snag.severity]}`} data-snag={snag.code}>
      <p>
        <span aria-hidden className={snag.severity === 'stop' ? 'text-crimson' : 'text-ochre'}>
          {snag.severity === 'stop' ? '■ ' : '▲ '}
        </span>
        <strong className="font-semibold">{snag.severity === 'stop' ? 'Stop: ' : 'Mind: '}</strong>
        {snag.message}
      </p>
      <p className="mt-1 flex flex-wrap gap-x-4">
        {snag.mend && (
          <Button look="quiet" onClick={() => void dispatch(mend(snag))}>
            {snag.mend.label}
          </Button>
        )}
        {canShow && (
          <Button look="quiet" onClick={() => dispatch(looked({ at: snag.at, ...(snag.layer ? { layerId: snag.layer } : {}) }))}>
            Show where
          </Button>
        )}
      </p>
    </div>
  )
}

/** The snags of a stage; a plain word where there are none. */
export function SnagList({ snags, none }: { snags: readonly Snag[]; none: string }) {
  if (snags.length === 0)
    return (
      <p className="text-soft">
        <span aria-hidden>✓ </span>
        {none}
      </p>
    )
  return (
    <div className="grid gap-2">
      {snags.map((snag, i) => (
        <SnagNote key={`${snag.code} ${snag.layer} ${i}`} snag={snag} />
      ))}
    </div>
  )
}
