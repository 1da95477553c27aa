// A layer in the list beside the section: pick, rename, move, pin and hide it there.
import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { Eye, EyeOff, Pin } from 'lucide-react'
import { memo, useState } from 'react'
import { shallowEqual } from 'react-redux'
import { colourOf, folioOf, heldBy, setLayer, type Layer } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject, selectSnags } from '../../state/selectors'
import { useAppDispatch, useAppSelector, useAppStore } from '../../state/store'
import { useWords } from '../../state/use-words'
import { looked, pickedLayer, type ViewState } from '../../state/view'
import { FolioTab, Tip } from '../../ui'
import { LABEL_X, ROW } from './sizes'

/** A name of more letters goes onto two lines, small enough for both to stand in the row. */
const LONG_NAME = 15

interface Props {
  layer: Layer
  /** Where the row stands, px; null for a layer that is left out. */
  top: number | null
  /** Whether it lies at the very back. */
  atBack: boolean
}

/** Drawn anew only for what is its own: there may be hundreds. */
export const LayerRow = memo(function LayerRow({ layer, top, atBack }: Props) {
  const dispatch = useAppDispatch()
  const store = useAppStore()
  const folio = useAppSelector((state) => folioOf(selectProject(state), layer.id))
  const colour = useAppSelector((state) => colourOf(selectProject(state), layer))
  const { words } = useWords()
  const picked = useAppSelector(({ view }) => view.layerId === layer.id || view.alsoIds.includes(layer.id))
  const snags = useAppSelector(
    (state) => selectSnags(state).filter((snag) => snag.layer === layer.id),
    shallowEqual,
  )
  const [naming, setNaming] = useState(false)
  const sortable = useSortable({ id: layer.id, data: { kind: 'layer' }, disabled: naming || top === null })
  const isLong = layer.name.length > LONG_NAME
  const stop = snags.some((snag) => snag.severity === 'stop')
  const rename = (name: string) => {
    setNaming(false)
    if (name.trim() && name.trim() !== layer.name)
      dispatch(change(`rename ${layer.name}`, (p) => setLayer(p, layer.id, { name: name.trim() })))
  }
  return (
    <li
      ref={sortable.setNodeRef}
      className={`group flex items-center gap-2 ${top === null ? 'ml-[132px] h-[30px] list-none' : 'absolute right-0'} ${sortable.isDragging ? 'z-10 opacity-80' : ''} ${sortable.isOver ? 'bg-ochre-pale' : ''}`}
      style={{
        top: top ?? undefined,
        left: top === null ? undefined : LABEL_X,
        height: ROW,
        transform: CSS.Translate.toString(sortable.transform),
        transition: sortable.transition,
      }}
      data-row={layer.id}
    >
      <Tip
        text={
          naming
            ? undefined
            : [
                `${layer.name}: double-click to rename, drag to move`,
                ...snags.map((snag) => words(snag.message)),
              ].join('\n')
        }
      >
        <button
          type="button"
          className={`flex h-full min-w-0 flex-1 items-center gap-1.5 text-left ${layer.leftOut || layer.hidden ? 'opacity-50' : ''}`}
          {...sortable.attributes}
          {...sortable.listeners}
          role="button"
          aria-pressed={picked}
          onClick={(event) =>
            dispatch(event.shiftKey ? pickedAlong(store.getState().view, layer.id) : pickedLayer(layer.id))
          }
          onDoubleClick={() => setNaming(true)}
        >
          <FolioTab folio={folio} colour={colour} size={22} />
          {!naming && (
            <span className="min-w-0 leading-[1.1]">
              <span
                className={`font-semibold ${isLong ? 'line-clamp-2 text-[11px] leading-none' : 'block truncate text-[13px]'} ${picked ? 'text-plum' : ''}`}
                data-name
              >
                {layer.name}
              </span>
              <span
                className={`block truncate text-soft ${isLong ? 'text-[11px] leading-none' : 'text-[11.5px]'}`}
              >
                {snags.length > 0 && (
                  <span className={stop ? 'text-crimson' : 'text-ochre'}>{stop ? '■ ' : '▲ '}</span>
                )}
                {words(heldBy(layer, { atBack }))}
              </span>
            </span>
          )}
        </button>
      </Tip>
      {naming && (
        <input
          autoFocus
          aria-label="Name of the layer"
          defaultValue={layer.name}
          className="absolute left-[28px] w-[84px] px-1 py-0.5 text-[13px]"
          onBlur={(event) => rename(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') rename(event.currentTarget.value)
            if (event.key === 'Escape') setNaming(false)
          }}
        />
      )}
      <span
        className={`absolute right-0 flex flex-col bg-panel opacity-0 group-hover:opacity-100 focus-within:opacity-100 ${layer.joint.pinned || layer.hidden ? 'opacity-100' : ''}`}
      >
        {(layer.joint.kind === 'foam' || layer.joint.pinned) && (
          <Tip text="Pin: keep this gap when gaps are fitted">
            <button
              type="button"
              className={`px-1 py-0.5 ${layer.joint.pinned ? 'text-plum' : 'text-soft'}`}
              aria-pressed={layer.joint.pinned}
              aria-label={`Pin the gap under ${layer.name}`}
              onClick={() =>
                dispatch(
                  change(`pin ${layer.name}`, (p) =>
                    setLayer(p, layer.id, { joint: { ...layer.joint, pinned: !layer.joint.pinned } }),
                  ),
                )
              }
            >
              <Pin size={13} />
            </button>
          </Tip>
        )}
        <Tip text="Hide in drawings; it is still cut">
          <button
            type="button"
            className="px-1 py-0.5 text-soft"
            aria-pressed={layer.hidden}
            aria-label={layer.hidden ? `Show ${layer.name}` : `Hide ${layer.name}`}
            onClick={() =>
              dispatch(
                change(`${layer.hidden ? 'show' : 'hide'} ${layer.name}`, (p) =>
                  setLayer(p, layer.id, { hidden: !layer.hidden }),
                ),
              )
            }
          >
            {layer.hidden ? <EyeOff size={13} /> : <Eye size={13} />}
          </button>
        </Tip>
      </span>
    </li>
  )
})

/** With Shift a layer is picked along with what is picked already, where parts are placed. */
function pickedAlong({ placing, layerId, alsoIds }: ViewState, id: string) {
  if (!placing || layerId === null) return pickedLayer(id)
  return looked({
    alsoIds: alsoIds.includes(id) ? alsoIds.filter((other) => other !== id) : [...alsoIds, id],
  })
}
