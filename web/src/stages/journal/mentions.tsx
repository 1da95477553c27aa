// Layers and papers that the note names, as links to where they are.
import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import { builtLayers } from '@feuillet/core/project'
import { mentionsOf, type Mention } from '@feuillet/core/stages/journal'
import { pathOf } from '../../shell/stage-names'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { pickedLayer } from '../../state/view'

export function Mentions() {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const project = useAppSelector(selectProject)
  const named = useMemo(() => mentionsOf(project.journal.note, project), [project])
  if (named.length === 0) return null
  const go = ({ kind, id }: Mention) => {
    const layerId = kind === 'layer' ? id : builtLayers(project).find(({ paperId }) => paperId === id)?.id
    if (layerId) dispatch(pickedLayer(layerId))
    void navigate(pathOf(project.id, kind === 'layer' ? 'layers' : 'paper'))
  }
  return (
    <p className="mt-1 text-[13px] text-soft">
      Named in it:{' '}
      {named.map((mention, k) => (
        <span key={`${mention.kind} ${mention.id}`}>
          {k > 0 && ', '}
          <button
            type="button"
            className="font-medium text-plum underline underline-offset-2"
            title={mention.kind === 'layer' ? 'To this layer' : 'To the layers of this paper'}
            onClick={() => go(mention)}
          >
            {mention.name}
          </button>
        </span>
      ))}
    </p>
  )
}
