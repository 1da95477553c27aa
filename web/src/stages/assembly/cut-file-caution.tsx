import { Link } from 'react-router'
import type { Step } from '@feuillet/core/stages/assembly'
import type { LoadView } from '@feuillet/core/stages/sheets'
import { usePlan } from '../../plan'
import { pathOf } from '../../shell/stage-names'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useOlderFile } from '../../state/use-older-file'
import { looked } from '../../state/view'
import { momentOf } from '../../ui'

/** Of a cutting step that is not ticked: its load, and the caution where its file is older than the plan; null where there is none. */
export function useCutFileCaution(step: Step | undefined): { load: LoadView; says: string } | null {
  const { progress } = useAppSelector(selectProject)
  const isToCut = step?.kind === 'cut' && !progress.done.includes(step.id)
  const load = usePlan('loads')?.find(({ id }) => isToCut && id === step.loadId)
  const olderAt = useOlderFile(load)
  if (!load || olderAt === null) return null
  const says = `The plan has changed since the cut file of this load was saved on ${momentOf(olderAt)}. Cut from that file, it is noted as in the file when this is ticked; else save it again first`
  return { load, says }
}

/** That caution, and the way to the load. */
export function CutFileCaution({ step, className }: { step: Step; className: string }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const caution = useCutFileCaution(step)
  if (!caution) return null
  const { load, says } = caution
  return (
    <p className={className}>
      <span aria-hidden>▲ </span>
      {says}, on{' '}
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
