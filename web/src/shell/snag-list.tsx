import { findLayer, type Snag } from '@feuillet/core/project'
import { groupBy } from '@feuillet/core/base'
import { Button } from '../ui'
import { mend } from '../state/edits'
import { useAppDispatch, useAppSelector } from '../state/store'
import { useWords } from '../state/use-words'
import { looked } from '../state/view'

const tones = { caution: 'bg-ochre-pale border-ochre', stop: 'bg-crimson-pale border-crimson' }

/** A finding that will cost paper or time: what, where, why, and what mends it; bare where a frame is round it already. */
function SnagNote({ snag, bare = false }: { snag: Snag; bare?: boolean }) {
  const dispatch = useAppDispatch()
  const { words } = useWords()
  const project = useAppSelector((state) => state.document.project)
  const canShow =
    snag.at !== null ||
    (snag.layer !== null && project !== null && findLayer(project, snag.layer) !== undefined)
  return (
    <div
      className={`text-[13.5px] ${bare ? '' : `border-l-4 px-3 py-2 ${tones[snag.severity]}`}`}
      data-snag={snag.code}
    >
      <p>
        <span aria-hidden className={snag.severity === 'stop' ? 'text-crimson' : 'text-ochre'}>
          {snag.severity === 'stop' ? '■ ' : '▲ '}
        </span>
        <strong className="font-semibold">{snag.severity === 'stop' ? 'Stop: ' : 'Mind: '}</strong>
        {words(snag.message)}
      </p>
      <p className="mt-1 flex flex-wrap gap-x-4">
        {snag.mend && (
          <Button look="quiet" onClick={() => void dispatch(mend(snag))}>
            {words(snag.mend.label)}
          </Button>
        )}
        {canShow && (
          <Button
            look="quiet"
            onClick={() => dispatch(looked({ at: snag.at, ...(snag.layer ? { layerId: snag.layer } : {}) }))}
          >
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
      {[...groupBy(snags, (snag) => snag.code).values()].flatMap((alike) =>
        alike.length < GROUPED_FROM
          ? alike.map((snag, i) => <SnagNote key={`${snag.code} ${snag.layer} ${i}`} snag={snag} />)
          : [<AlikeSnags key={alike[0]!.code} snags={alike} />],
      )}
    </div>
  )
}

/** From so many on, snags of one kind stand as one, the others folded under it. */
const GROUPED_FROM = 3

/** Snags of one kind: the first in full, the gravest before others; the rest a press away; all mended at once. */
function AlikeSnags({ snags }: { snags: readonly Snag[] }) {
  const dispatch = useAppDispatch()
  const [first, ...rest] = snags.toSorted(
    (a, b) => Number(b.severity === 'stop') - Number(a.severity === 'stop'),
  )
  const mendable = snags.filter((snag) => snag.mend)
  return (
    <div className={`grid gap-2 border-l-4 px-3 py-2 ${tones[first!.severity]}`}>
      <SnagNote snag={first!} bare />
      {mendable.length > 1 && (
        <Button small className="justify-self-start" onClick={() => void dispatch(mend(...mendable))}>
          Mend all {mendable.length} of this kind
        </Button>
      )}
      <details className="text-[13.5px]">
        <summary className="cursor-pointer text-plum">{rest.length} more of this kind</summary>
        <div className="mt-2 grid gap-3">
          {rest.map((snag, i) => (
            <SnagNote key={`${snag.layer} ${i}`} snag={snag} bare />
          ))}
        </div>
      </details>
    </div>
  )
}
