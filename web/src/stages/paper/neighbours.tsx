import { Fragment } from 'react'
import { builtLayers, colourOf, folioOf, paperOf } from '@feuillet/core/project'
import { neighbourSteps, TOO_ALIKE } from '@feuillet/core/stages/paper'
import { selectProject, selectView } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { pickedLayer } from '../../state/view'
import { Tip } from '../../ui'
import { inkOn } from '../../ui/folio-tab'

/** The sheets side by side in the order of the stack, with how far apart the colours of neighbours are. */
export function Neighbours() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { layerId } = useAppSelector(selectView)
  const layers = builtLayers(project)
  const steps = neighbourSteps(project)
  return (
    <section aria-label="Sheets side by side" className="flex min-h-0 min-w-0 flex-col py-4 pr-5">
      <p className="mb-2 text-[13px] text-soft">
        Back to front, as they lie on each other. Between two sheets how far their colours are apart; under{' '}
        <span className="measure">{TOO_ALIKE}</span> is hard to tell apart under glass.
      </p>
      <ol className="min-h-0 flex-1 overflow-y-auto">
        {layers.map((layer) => {
          const colour = colourOf(project, layer)
          const paper = paperOf(project, layer)
          const step = steps.find(({ above }) => above.id === layer.id)
          return (
            <Fragment key={layer.id}>
              {step && (
                <li
                  className={`measure flex items-center gap-2 pl-3 text-[12px] leading-[15px] ${step.difference < TOO_ALIKE ? 'text-ochre' : 'text-soft'}`}
                >
                  <span aria-hidden>{step.difference < TOO_ALIKE ? '▲' : '↕'}</span>
                  <Tip text={`CIEDE2000 between “${step.below.name}” and “${step.above.name}”`}>
                    <span tabIndex={0}>{step.difference.toFixed(1)}</span>
                  </Tip>
                </li>
              )}
              <li>
                <button
                  type="button"
                  aria-pressed={layer.id === layerId}
                  onClick={() => dispatch(pickedLayer(layer.id))}
                  className={`flex h-9 w-full items-center gap-3 px-3 text-left ${layer.id === layerId ? 'outline-2 -outline-offset-3 outline-current' : ''}`}
                  style={{ background: colour, color: inkOn(colour) }}
                >
                  <span className="measure w-5 text-right">{folioOf(project, layer.id)}</span>
                  <span className="line-clamp-2 min-w-0 flex-1 leading-tight font-semibold">
                    {layer.name}
                  </span>
                  <span className="line-clamp-2 min-w-0 text-right text-[13px] leading-tight">
                    {paper?.name ?? 'no paper yet'}
                  </span>
                </button>
              </li>
            </Fragment>
          )
        })}
      </ol>
    </section>
  )
}
