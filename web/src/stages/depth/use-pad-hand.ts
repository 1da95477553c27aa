// The maker's hand on the pads of a layer: one is picked, dragged, turned, put, taken away, made of another foam.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { keepPadFree, letPadGo, putPad, type HandPad, type Layer, type Project } from '@feuillet/core/project'
import type { Pad } from '@feuillet/core/stages/depth'
import { nudgeOf, TURN_DEG } from '../../drawing/grips/use-grips'
import { change } from '../../state/edits'
import { useAppDispatch } from '../../state/store'

/** No planned pad comes nearer to where one was taken away than this beyond its own size, mm. */
const FREE_MM = 6

/** A pad has no id until the maker has put it: then it is known by its place. */
export const keyOfPad = ({ handId, pieceId, x, y }: Pad): string =>
  handId ?? `${pieceId} ${x.toFixed(2)} ${y.toFixed(2)}`

export interface PadHand {
  /** The pad that is picked; null where none is. */
  picked: Pad | null
  pick: (pad: Pad | null) => void
  /** How far the picked pad is dragged at the moment, mm. */
  drag: readonly [number, number]
  begin: (pad: Pad, event: PointerEvent<SVGElement>) => void
  onMove: (event: PointerEvent<SVGElement>) => void
  onUp: () => void
  onKey: (pad: Pad, event: KeyboardEvent) => void
  /** Changes the picked pad, which is the maker's from then on. */
  set: (patch: Partial<HandPad>, label?: string) => void
  remove: () => void
  toPlan: () => void
}

/** @param pads of the layer, planned and put */
export function usePadHand(layer: Layer, pads: readonly Pad[]): PadHand {
  const dispatch = useAppDispatch()
  const [key, setKey] = useState<string | null>(null)
  const [drag, setDrag] = useState<readonly [number, number]>([0, 0])
  const held = useRef<{ pad: Pad; at: DOMPoint; group: SVGGraphicsElement } | null>(null)
  const picked = pads.find((pad) => keyOfPad(pad) === key) ?? null
  const edit = (label: string, change_: (project: Project) => Project, gesture?: string) =>
    dispatch(change(`${label} under ${layer.name}`, change_, gesture))
  const put = (
    pad: Pad,
    patch: Partial<HandPad>,
    { label = 'move a pad', gesture }: { label?: string; gesture?: string } = {},
  ) => {
    const id = pad.handId ?? crypto.randomUUID()
    const { layerId, pieceId, x, y, rotation, bendMm = null, foamIds } = pad
    edit(
      label,
      (p) => putPad(p, { layerId, pieceId, x, y, rotation, bendMm, foamIds, ...patch, id }),
      gesture,
    )
    setKey(id)
  }
  const remove = (pad: Pad) => {
    const { handId, layerId, x, y } = pad
    const radiusMm = Math.max(pad.widthMm, pad.heightMm) + FREE_MM
    edit('take a pad away', (p) => keepPadFree(handId ? letPadGo(p, handId) : p, { layerId, x, y, radiusMm }))
    setKey(null)
  }
  const pointIn = (group: SVGGraphicsElement, event: PointerEvent): DOMPoint =>
    new DOMPoint(event.clientX, event.clientY).matrixTransform(group.getScreenCTM()!.inverse())
  return {
    picked,
    pick: (pad) => setKey(pad && keyOfPad(pad)),
    drag,
    begin: (pad, event) => {
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      setKey(keyOfPad(pad))
      const group = event.currentTarget.parentElement as unknown as SVGGraphicsElement
      held.current = { pad, at: pointIn(group, event), group }
    },
    onMove: (event) => {
      if (!held.current) return
      const { at, group } = held.current
      const now = pointIn(group, event)
      setDrag([now.x - at.x, now.y - at.y])
    },
    onUp: () => {
      const { current } = held
      held.current = null
      setDrag([0, 0])
      if (current && Math.hypot(...drag) > 0.2)
        put(current.pad, { x: current.pad.x + drag[0], y: current.pad.y + drag[1] })
    },
    onKey: (pad, event) => {
      const [dx, dy] = nudgeOf(event.nativeEvent)
      if (dx !== 0 || dy !== 0)
        put(
          pad,
          { x: pad.x + dx, y: pad.y + dy },
          { label: 'move a pad', gesture: `pad ${pad.handId ?? ''}` },
        )
      else if (event.key === 'r' || event.key === 'R')
        put(
          pad,
          { rotation: (pad.rotation + (event.shiftKey ? -TURN_DEG : TURN_DEG)) % 360 },
          { label: 'turn a pad' },
        )
      else if (event.key === 'Delete' || event.key === 'Backspace') remove(pad)
      else if (event.key === 'Enter' || event.key === ' ') setKey(keyOfPad(pad))
      else return
      event.preventDefault()
      event.stopPropagation()
    },
    set: (patch, label) => picked && put(picked, patch, { label }),
    remove: () => picked && remove(picked),
    toPlan: () => {
      const id = picked?.handId
      if (id) edit('leave a pad to the plan', (p) => letPadGo(p, id))
      setKey(null)
    },
  }
}
