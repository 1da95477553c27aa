// Parts on the layers board: picked by a press (Shift picks several), dragged, turned and sized by grips, moved by keys.
import { useRef, useState, type PointerEvent } from 'react'
import {
  growBox,
  polygonBox,
  rotation,
  scaling,
  translation,
  type Affine,
  type Box,
} from '@feuillet/core/base/geometry'
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
  snapped,
  snapsOf,
  type Project,
  type Snap,
} from '@feuillet/core/project'
import { useCommand } from '../../../commands/use-command'
import { change } from '../../../state/edits'
import { selectProject, selectView } from '../../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../../state/store'
import { looked } from '../../../state/view'

interface Drag {
  kind: 'move' | 'turn' | 'scale'
  start: readonly [number, number]
  map: Affine
  lines: readonly Snap[]
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
/** Steps of the arrow keys, mm: alone, with Shift, with Alt. */
const STEP_MM = { plain: 0.5, shift: 5, alt: 0.1 }
/** Steps of R, degrees. */
const TURN_DEG = 15
/** Within so many pixels a part is drawn to a line. */
const SNAP_PX = 6
const STILL: Affine = [1, 0, 0, 1, 0, 0]
/** A copy is laid this far off, so that it is seen, mm. */
const COPY_OFF_MM = 5

/** Middle of a box. */
const middleOf = (b: Box) => ({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 })

export interface Placing {
  on: boolean
  /** Ids of what is picked and moves together, back to front. */
  ids: readonly string[]
  box: Box
  /** What a drag has done so far; null while nothing is dragged. */
  drag: Drag | null
  onLayerDown: (layerId: string, event: PointerEvent) => void
  onGripDown: (kind: 'turn' | 'scale', event: PointerEvent) => void
  onMove: (event: PointerEvent, px: number) => void
  onUp: () => void
}

export function usePlacing(on: boolean): Placing {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { layerId, alsoIds } = useAppSelector(selectView)
  const [drag, setDrag] = useState<Drag | null>(null)
  const group = useRef<SVGGElement | null>(null)
  const ids = on && layerId ? movedWith(project, [layerId, ...alsoIds]) : NOTHING
  const box = boxOfLayers(project, ids)
  const able = on && ids.length > 0
  const pick = (list: readonly string[]) =>
    dispatch(looked({ layerId: list[0] ?? null, alsoIds: list.slice(1), at: null }))
  const put = (label: string, map: Affine, gesture?: string) =>
    dispatch(change(`${label} ${nameOfPicked(project, ids)}`, (p) => place(p, ids, map), gesture))
  const about = (map: Affine): Affine => aboutMiddle(box, map)

  useCommand(
    'nudge-part',
    (event) => {
      const step = STEP_MM[event?.altKey ? 'alt' : event?.shiftKey ? 'shift' : 'plain']
      const [dx, dy] = ARROWS[event?.key ?? ''] ?? [0, 0]
      put('move', translation(dx * step, dy * step), `nudge ${ids.join(' ')}`)
    },
    { enabled: able },
  )
  useCommand('turn-part', (event) => put('turn', about(rotation(event?.shiftKey ? -TURN_DEG : TURN_DEG))), {
    enabled: able,
  })
  useCommand('mirror-part', () => put('mirror', about([-1, 0, 0, 1, 0, 0])), { enabled: able })
  useCommand(
    'copy-part',
    () => {
      const copied = copyParts(project, ids, translation(COPY_OFF_MM, COPY_OFF_MM))
      dispatch(change(`copy ${nameOfPicked(project, ids)}`, () => copied.project))
      pick(copied.layerIds)
    },
    { enabled: able },
  )

  const at = (event: PointerEvent): readonly [number, number] => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      group.current!.getScreenCTM()!.inverse(),
    )
    return [point.x, point.y]
  }
  const begin = (kind: Drag['kind'], event: PointerEvent) => {
    group.current = (event.currentTarget as SVGElement).closest('g[data-placing]')
    event.stopPropagation()
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    setDrag({ kind, start: at(event), map: STILL, lines: [] })
  }
  return {
    on,
    ids,
    box,
    drag,
    onLayerDown: (id, event) => {
      if (!on || event.button !== 0) return
      if (event.shiftKey) {
        const chosen = ids.includes(id)
        const own = movedWith(project, [id])
        pick(chosen ? ids.filter((other) => !own.includes(other)) : [...ids, id])
        return
      }
      if (!ids.includes(id)) pick([id])
      begin('move', event)
    },
    onGripDown: begin,
    onMove: (event, px) => {
      if (!drag) return
      const [x, y] = at(event)
      const [sx, sy] = drag.start
      if (drag.kind === 'move') {
        const [dx, dy] = [x - sx, y - sy]
        const moved = {
          minX: box.minX + dx,
          maxX: box.maxX + dx,
          minY: box.minY + dy,
          maxY: box.maxY + dy,
        }
        // With Alt it goes where it is put.
        const snap = event.altKey
          ? { dx: 0, dy: 0, lines: [] }
          : snapped(moved, snapsOf(othersOf(project, ids)), SNAP_PX * px)
        setDrag({ ...drag, map: translation(dx + snap.dx, dy + snap.dy), lines: snap.lines })
        return
      }
      const { x: cx, y: cy } = middleOf(box)
      if (drag.kind === 'turn') {
        const free = ((Math.atan2(y - cy, x - cx) - Math.atan2(sy - cy, sx - cx)) * 180) / Math.PI
        const step = event.altKey ? 0.1 : event.shiftKey ? TURN_DEG : 1
        setDrag({ ...drag, map: about(rotation(Math.round(free / step) * step)) })
      } else {
        const factor = Math.hypot(x - cx, y - cy) / Math.max(1e-6, Math.hypot(sx - cx, sy - cy))
        setDrag({ ...drag, map: about(scaling(Math.max(0.05, factor))) })
      }
    },
    onUp: () => {
      if (!drag) return
      setDrag(null)
      const [a, b, , , e, f] = drag.map
      if (Math.abs(a - 1) + Math.abs(b) + Math.abs(e) + Math.abs(f) < 1e-9) return
      put(drag.kind === 'move' ? 'move' : drag.kind === 'turn' ? 'turn' : 'scale', drag.map)
    },
  }
}

const NOTHING: readonly string[] = []

/** To what a part may be drawn: what is seen, the backing, every other part. */
function othersOf(project: Project, ids: readonly string[]): Box[] {
  const frames = [openingRect(project), backingRect(project)].flatMap((p) => (p ? [polygonBox(p)] : []))
  const layers = builtLayers(project)
    .filter((layer) => !ids.includes(layer.id) && !layer.hidden && layer.pieces.length > 0)
    .map(layerBox)
  return [...frames, ...layers]
}

/** Room for the grips round what is picked. */
export const markBox = (box: Box, px: number): Box => growBox(box, px * 5)
