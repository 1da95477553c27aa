import { findLayer, meanSo, takeBack, type Snag } from '@feuillet/core/project'
import { groupBy } from '@feuillet/core/base'
import { ChevronDown, ChevronUp } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { commandOf } from '../commands/list'
import { doCommand, useAbleCommands } from '../commands/use-command'
import { reshapedBy, spoilsSome } from '@feuillet/core/stages'
import { Button, Fold, Tip } from '../ui'
import { change, mend } from '../state/edits'
import { useFailures } from '../plan'
import { selectMeantSnags, selectSnagsKnown } from '../state/selectors'
import { useAppDispatch, useAppSelector } from '../state/store'
import { useWords } from '../state/use-words'
import { looked } from '../state/view'
import { useCutCount } from './spoils-note'

const NO_LAYERS: readonly string[] = []

const tones = { caution: 'bg-ochre-pale border-ochre', stop: 'bg-crimson-pale border-crimson' }

/** A finding that will cost paper or time: what, where, why, and what mends it; bare where a frame is round it already. */
function SnagNote({
  snag,
  bare = false,
  current,
}: {
  snag: Snag
  bare?: boolean
  /** The one that is stepped to. */
  current: Snag | undefined
}) {
  const isCurrent = snag === current
  const note = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (isCurrent) note.current?.scrollIntoView({ block: 'nearest' })
  }, [isCurrent])
  const dispatch = useAppDispatch()
  const { words } = useWords()
  const project = useAppSelector((state) => state.document.project)
  const spoils = useCutCount(project && snag.mend ? reshapedBy(project, snag.mend.action) : NO_LAYERS)
  const canShow =
    snag.at !== null ||
    (snag.layer !== null && project !== null && findLayer(project, snag.layer) !== undefined)
  return (
    <div
      ref={note}
      aria-current={isCurrent || undefined}
      className={`text-[13.5px] aria-[current]:outline-2 aria-[current]:outline-offset-2 aria-[current]:outline-plum ${bare ? '' : `border-l-4 px-3 py-2 ${tones[snag.severity]}`}`}
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
        <Button
          look="quiet"
          title="It stays as it is and is not told again; it can be taken back"
          onClick={() => dispatch(change('mean it so', (p) => meanSo(p, [snag])))}
        >
          Meant so
        </Button>
        {canShow && (
          <Button
            look="quiet"
            onClick={() => dispatch(looked({ at: snag.at, ...(snag.layer ? { layerId: snag.layer } : {}) }))}
          >
            Show where
          </Button>
        )}
        {snag.mend && spoils > 0 && (
          <span className="basis-full text-[13px]" data-spoils={spoils}>
            Mending it spoils {spoils > 1 && spoilsSome(snag.mend.action) && 'up to '}
            {spoils === 1 ? 'a piece that is' : `${spoils} pieces that are`} cut.
          </span>
        )}
      </p>
    </div>
  )
}

/** That nothing is wrong, once that is known. */
function AllClear({ none }: { none: string }) {
  const { stage = '' } = useParams()
  const isKnown = useAppSelector((state) => selectSnagsKnown(state, stage))
  const hasFailed = useFailures().length > 0
  return (
    <p className="text-soft">
      {isKnown && <span aria-hidden>✓ </span>}
      {isKnown ? none : hasFailed ? 'Whether anything is wrong is not known.' : 'Computing…'}
    </p>
  )
}

/** The snags of a stage: how many, folded by kind, stepped through one after the other; a plain word where there are none. */
export function SnagList({ snags, none }: { snags: readonly Snag[]; none: string }) {
  const able = useAbleCommands()
  const { snagAt } = useAppSelector((state) => state.view)
  if (snags.length === 0)
    return (
      <>
        <AllClear none={none} />
        <MeantSnags />
      </>
    )
  const stops = snags.filter(({ severity }) => severity === 'stop').length
  return (
    <Fold
      startOpen
      title={
        <span className="font-semibold">
          <span aria-hidden className={stops ? 'text-crimson' : 'text-ochre'}>
            {stops ? '■ ' : '▲ '}
          </span>
          {snags.length === 1 ? '1 snag' : `${snags.length} snags`}
          {stops > 0 && stops < snags.length && `, ${stops} to stop at`}
        </span>
      }
      beside={
        snags.length > 1 &&
        able.includes('next-snag') && (
          <span className="flex items-center gap-1 text-[13px] text-soft">
            {snagAt !== null && snagAt < snags.length && (
              <span className="measure">
                {snagAt + 1} of {snags.length}
              </span>
            )}
            <StepButton id="last-snag" />
            <StepButton id="next-snag" />
          </span>
        )
      }
    >
      <div className="mt-2 grid gap-2">
        {[...groupBy(snags, (snag) => snag.code).values()].flatMap((alike) =>
          alike.length < GROUPED_FROM
            ? alike.map((snag, i) => (
                <SnagNote key={`${snag.code} ${snag.layer} ${i}`} snag={snag} current={snags[snagAt ?? -1]} />
              ))
            : [<AlikeSnags key={alike[0]!.code} snags={alike} current={snags[snagAt ?? -1]} />],
        )}
      </div>
      <MeantSnags />
    </Fold>
  )
}

/** What the maker means so on this stage, folded, each to be taken back. */
function MeantSnags() {
  const dispatch = useAppDispatch()
  const { stage = '' } = useParams()
  const { words } = useWords()
  const meant = useAppSelector((state) => selectMeantSnags(state, stage))
  if (meant.length === 0) return null
  return (
    <Fold title={<span className="text-soft">{meant.length} meant so</span>} className="mt-2 text-[13px]">
      <ul className="mt-1 grid gap-2">
        {meant.map((snag, i) => (
          <li key={i} className="border-l-4 border-line px-3 py-1" data-meant={snag.code}>
            {words(snag.message)}{' '}
            <Button
              look="quiet"
              onClick={() => dispatch(change('tell it again', (p) => takeBack(p, [snag])))}
            >
              Take it back
            </Button>
          </li>
        ))}
      </ul>
    </Fold>
  )
}

function StepButton({ id }: { id: 'next-snag' | 'last-snag' }) {
  const { title, shown } = commandOf(id)
  const Icon = id === 'next-snag' ? ChevronDown : ChevronUp
  return (
    <Tip text={`${title} (${shown})`}>
      <button
        type="button"
        aria-label={title}
        onClick={() => doCommand(id)}
        className="border border-line bg-panel hover:bg-sheet"
      >
        <Icon size={15} />
      </button>
    </Tip>
  )
}

/** From so many on, snags of one kind stand as one, the others folded under it. */
const GROUPED_FROM = 3

interface AlikeProps {
  snags: readonly Snag[]
  current: Snag | undefined
}

/** Snags of one kind: the first in full, the gravest before others; the rest a press away; all mended at once. */
function AlikeSnags({ snags, current }: AlikeProps) {
  const dispatch = useAppDispatch()
  const [first, ...rest] = snags.toSorted(
    (a, b) => Number(b.severity === 'stop') - Number(a.severity === 'stop'),
  )
  const [open, setOpen] = useState(false)
  const mendable = snags.filter((snag) => snag.mend)
  return (
    <div className={`grid gap-2 border-l-4 px-3 py-2 ${tones[first!.severity]}`}>
      <SnagNote snag={first!} bare current={current} />
      {mendable.length > 1 && (
        <Button small className="justify-self-start" onClick={() => void dispatch(mend(...mendable))}>
          Mend all {mendable.length} of this kind
        </Button>
      )}
      <Button
        small
        className="justify-self-start"
        onClick={() => dispatch(change(`mean ${snags.length} snags so`, (p) => meanSo(p, snags)))}
      >
        All {snags.length} are meant so
      </Button>
      <Fold
        // What is stepped to is in sight.
        open={open || (current !== undefined && rest.includes(current))}
        onOpenChange={setOpen}
        title={<span className="text-plum">{rest.length} more of this kind</span>}
        className="text-[13.5px]"
      >
        <div className="mt-2 grid gap-3">
          {rest.map((snag, i) => (
            <SnagNote key={`${snag.layer} ${i}`} snag={snag} bare current={current} />
          ))}
        </div>
      </Fold>
    </div>
  )
}
