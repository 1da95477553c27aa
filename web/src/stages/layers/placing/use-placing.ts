// Parts on the layers board: picked by a press (Shift picks several), dragged, turned and sized by grips, moved by keys.
import { useEffect, type PointerEvent } from 'react'
import { polygonBox, rotation, translation, type Affine, type Box } from '@feuillet/core/base/geometry'
import {
  aboutMiddle,
  backingRect,
  boxOfLayers,
  builtLayers,
  copyParts,
  layerBox,
  movedWith,
  nameOfPicked,
  openingRect,
  place,
  type Project,
} from '@feuillet/core/project'
import { useCommand } from '../../../commands/use-command'
import { nudgeOf, TURN_DEG, useGrips, type Grips } from '../../../drawing/grips/use-grips'
import { tryOut } from '../../../plan'
import { change } from '../../../state/edits'
import { selectProject, selectView } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { looked } from '../../../state/view'

/** A copy is laid this far off, so that it is seen, mm. */
const COPY_OFF_MM = 5

export interface Placing {
  on: boolean
  /** Ids of what is picked and moves together, back to front. */
  ids: readonly string[]
  grips: Grips
  onLayerDown: (layerId: string, event: PointerEvent) => void
}

export function usePlacing(on: boolean): Placing {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { layerId, alsoIds } = useAppSelector(selectView)
  const ids = on && layerId ? movedWith(project, [layerId, ...alsoIds]) : NOTHING
  const box = boxOfLayers(project, ids)
  const able = on && ids.length > 0
  const pick = (list: readonly string[]) =>
    dispatch(looked({ layerId: list[0] ?? null, alsoIds: list.slice(1), at: null }))
  const put = (label: string, map: Affine, gesture?: string) =>
    dispatch(change(`${label} ${nameOfPicked(project, ids)}`, (p) => place(p, ids, map), gesture))
  const grips = useGrips(box, () => othersOf(project, ids), put)

  useTrial(project, ids, grips.drag?.map ?? null)

  useCommand('nudge-part', (event) => put('move', translation(...nudgeOf(event)), `nudge ${ids.join(' ')}`), {
    enabled: able,
  })
  useCommand(
    'turn-part',
    (event) => put('turn', aboutMiddle(box, rotation(event?.shiftKey ? -TURN_DEG : TURN_DEG))),
    { enabled: able },
  )
  useCommand('mirror-part', () => put('mirror', aboutMiddle(box, [-1, 0, 0, 1, 0, 0])), { enabled: able })
  useCommand(
    'copy-part',
    () => {
      const copied = copyParts(project, ids, translation(COPY_OFF_MM, COPY_OFF_MM))
      dispatch(change(`copy ${nameOfPicked(project, ids)}`, () => copied.project))
      pick(copied.layerIds)
    },
    { enabled: able },
  )

  return {
    on,
    ids,
    grips,
    onLayerDown: (id, event) => {
      if (!on || event.button !== 0) return
      if (event.shiftKey) {
        const chosen = ids.includes(id)
        const own = movedWith(project, [id])
        pick(chosen ? ids.filter((other) => !own.includes(other)) : [...ids, id])
        return
      }
      if (!ids.includes(id)) pick([id])
      grips.begin('move', event)
    },
  }
}

const NOTHING: readonly string[] = []

/** Figures follow a drag once it rests for so long, ms. */
const REST_MS = 120

/** Heights, what shows and findings while parts are dragged: as if they were let go where they are. */
function useTrial(project: Project, ids: readonly string[], map: Affine | null): void {
  const key = ids.join('\n')
  useEffect(() => {
    if (!map) return
    const timer = setTimeout(() => tryOut(place(project, key.split('\n'), map)), REST_MS)
    return () => clearTimeout(timer)
  }, [project, key, map])
  const isDragged = map !== null
  useEffect(() => (isDragged ? () => tryOut(null) : undefined), [isDragged])
}

/** To what a part may be drawn: what is seen, the backing, every other part. */
function othersOf(project: Project, ids: readonly string[]): Box[] {
  const frames = [openingRect(project), backingRect(project)].flatMap((p) => (p ? [polygonBox(p)] : []))
  const layers = builtLayers(project)
    .filter((layer) => !ids.includes(layer.id) && !layer.hidden && layer.pieces.length > 0)
    .map(layerBox)
  return [...frames, ...layers]
}
