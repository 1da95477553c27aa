import { proxy } from 'comlink'
import { Progress } from 'radix-ui'
import { toast } from 'sonner'
import { derivedAgain } from '../../app/derive-again'
import { keepLayout } from '../../app/layouts'
import { searching } from '../../app/results'
import { selectDerived } from '../../app/selectors'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { Button } from '../../ui'
import { nestWorker } from '../../workers/compute'

const SECONDS = 10

/** A longer search for fewer sheets, in its own worker: progress, and a stop that keeps the best so far. */
export function SearchButton() {
  const dispatch = useAppDispatch()
  const derived = useAppSelector(selectDerived)
  const search = useAppSelector((state) => state.results.search)
  const runs = derived?.runs ?? []
  const start = async () => {
    const before = runs.reduce((sum, { layout }) => sum + layout.score, 0)
    dispatch(searching({ share: 0, score: before, steps: 0 }))
    const kept: Promise<void>[] = []
    let better = 0
    await nestWorker().search(
      runs.map(({ run, layout }) => ({ fingerprint: run.fingerprint, instance: run.instance, layout })),
      SECONDS,
      proxy((progress) => void dispatch(searching(progress))),
      proxy((fingerprint, layout) => {
        better++
        kept.push(keepLayout(fingerprint, layout))
      }),
    )
    await Promise.all(kept)
    dispatch(searching(null))
    await dispatch(derivedAgain())
    toast(better > 0 ? 'A closer layout was found.' : 'No closer layout was found in this time.')
  }
  if (!search)
    return (
      <Button disabled={runs.length === 0} onClick={() => void start()} title={`Tries other orders and turns for ${SECONDS} s; you can go on working`}>
        Search {SECONDS} s more
      </Button>
    )
  return (
    <div className="flex w-full items-center gap-3">
      <Progress.Root value={Math.round(search.share * 100)} aria-label="Search for fewer sheets" className="h-2.5 flex-1 border border-ink bg-sheet">
        <Progress.Indicator className="h-full bg-plum" style={{ width: `${Math.min(100, search.share * 100)}%` }} />
      </Progress.Root>
      <span className="measure text-[12px]">{search.steps} tried</span>
      <Button small onClick={() => void nestWorker().stop()}>
        Stop
      </Button>
    </div>
  )
}
