// The picture of the picked layer on the board: dragged, turned and sized by grips, moved by keys. The card stays.
import { compose, rotation, translation, ringBox, type Affine } from '@feuillet/core/base/geometry'
import {
  aboutMiddle,
  layerBox,
  pictureOf,
  printCorners,
  setLayer,
  type Layer,
  type Print,
} from '@feuillet/core/project'
import { useCommand } from '../../../commands/use-command'
import { nudgeOf, TURN_DEG, useGrips, type Grips } from '../../../drawing/grips/use-grips'
import { change } from '../../../state/edits'
import { selectProject } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'

const EMPTY = { minX: 1, minY: 1, maxX: 0, maxY: 0 }

export interface PrintPlacing {
  layer: Layer
  grips: Grips
  /** Where the drag has brought it. */
  map: Print['map']
}

/** Null while no picture is being placed. */
export function usePrintPlace(on: boolean, layer: Layer | undefined): PrintPlacing | null {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const print = layer?.print ?? null
  const picture = layer && pictureOf(project, layer)
  const able = on && print !== null && picture !== undefined
  const box = able ? ringBox(printCorners(print.map, picture)) : EMPTY
  const moved = (map: Affine): Print['map'] => [...compose(map, print!.map)] as Print['map']
  const put = (label: string, map: Affine, gesture?: string) =>
    layer &&
    dispatch(
      change(
        `${label} the picture on ${layer.name}`,
        (p) => setLayer(p, layer.id, { print: { ...print!, map: moved(map) } }),
        gesture,
      ),
    )
  const grips = useGrips(box, () => (layer ? [layerBox(layer)] : []), put)
  useCommand(
    'nudge-part',
    (event) => put('move', translation(...nudgeOf(event)), `nudge picture ${layer?.id}`),
    { enabled: able },
  )
  useCommand(
    'turn-part',
    (event) => put('turn', aboutMiddle(box, rotation(event?.shiftKey ? -TURN_DEG : TURN_DEG))),
    { enabled: able },
  )
  useCommand('mirror-part', () => put('mirror', aboutMiddle(box, [-1, 0, 0, 1, 0, 0])), { enabled: able })
  if (!able || !layer) return null
  return { layer, grips, map: grips.drag ? moved(grips.drag.map) : print.map }
}
