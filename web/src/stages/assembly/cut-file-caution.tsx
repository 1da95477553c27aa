import { Link } from 'react-router'
import type { Step } from '@feuillet/core/stages/assembly'
import { usePlan } from '../../plan'
import { pathOf } from '../../shell/stage-names'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useOlderFile } from '../../state/use-older-file'
import { looked } from '../../state/view'
import { momentOf } from '../../ui'

/** Before a cutting step is ticked: that the load's file is older than the plan, and what the tick will note. */
export function CutFileCaution({ step, className }: { step: Step; className: string }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const isToCut = step.kind === 'cut' && !project.progress.done.includes(step.id)
  const load = usePlan('loads')?.find(({ id }) => isToCut && id === step.loadId)
  const olderAt = useOlderFile(load)
  if (!load || olderAt === null) return null
  return (
    <p className={className}>
      <span aria-hidden>▲ </span>The plan has changed since the cut file of this load was saved on{' '}
      {momentOf(olderAt)}. Cut from that file, it is noted as in the file when this is ticked; else save it
      again first, on{' '}
      <Link
        to={pathOf(project.id, 'sheets')}
        className="underline"
        onClick={() => dispatch(looked({ loadId: load.id, partKeys: [] }))}
      >
        load {load.number}
      </Link>
      .
    </p>
  )
}
