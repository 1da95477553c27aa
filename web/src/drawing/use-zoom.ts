// Zoom and pan of a board: wheel and pinch zoom about the pointer, a drag moves, keys do both.
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomBehavior, type ZoomTransform } from 'd3-zoom'
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react'

/** How far in a drawing can be looked at. */
const CLOSEST = 40
const STEP = 1.5
const PAN_PX = 60
/** A press that moves no farther than this is a click. */
const CLICK_PX = 5

/** Places of boards by their names, as long as the page lives: each is found again as it was left. */
const places = new Map<string, ZoomTransform>()

export interface Zoom {
  transform: ZoomTransform
  /** While fingers or wheel are at it. */
  moving: boolean
  by: (factor: number) => void
  reset: () => void
  /** Shows a rectangle of the board, px at zoom 1, with its surroundings. */
  show: (box: { x: number; y: number; w: number; h: number }) => void
  onKeyDown: (event: KeyboardEvent) => void
}

/**
 * @param board the name under which its place is kept
 * @param size px of the board
 * @param mayDrag whether a press there moves the board
 */
export function useZoom(
  board: string,
  { width, height }: { width: number; height: number },
  mayDrag: (target: Element) => boolean,
): [(svg: SVGSVGElement | null) => void, Zoom] {
  const [transform, setTransform] = useState<ZoomTransform>(() => places.get(board) ?? zoomIdentity)
  const [moving, setMoving] = useState(false)
  const svg = useRef<SVGSVGElement | null>(null)
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null)
  const may = useRef(mayDrag)
  useEffect(() => {
    may.current = mayDrag
  })
  const attach = useCallback(
    (element: SVGSVGElement | null) => {
      svg.current = element
      if (!element) return
      const own = zoom<SVGSVGElement, unknown>()
        .scaleExtent([1, CLOSEST])
        .clickDistance(CLICK_PX)
        .filter(
          (event: MouseEvent) =>
            event.type === 'wheel' ||
            event.type.startsWith('touch') ||
            event.button === 1 ||
            (event.button === 0 && !event.shiftKey && may.current(event.target as Element)),
        )
        .on('start', () => setMoving(true))
        .on('zoom', ({ transform: next }: D3ZoomEvent<SVGSVGElement, unknown>) => {
          places.set(board, next)
          setTransform(next)
        })
        .on('end', () => setMoving(false))
      behaviour.current = own
      const chosen = select(element)
      chosen.call(own).on('dblclick.zoom', null)
      const kept = places.get(board) ?? zoomIdentity
      setTransform(kept)
      chosen.property('__zoom', kept)
      return () => {
        chosen.on('.zoom', null)
        svg.current = null
      }
    },
    [board],
  )
  useEffect(() => {
    behaviour.current
      ?.extent([
        [0, 0],
        [width, height],
      ])
      .translateExtent([
        [0, 0],
        [width, height],
      ])
  }, [width, height])
  const run = (act: (own: ZoomBehavior<SVGSVGElement, unknown>, on: SVGSVGElement) => void) => {
    if (behaviour.current && svg.current) act(behaviour.current, svg.current)
  }
  const by = (factor: number) => run((own, on) => own.scaleBy(select(on), factor))
  const reset = () => run((own, on) => own.transform(select(on), zoomIdentity))
  const move = (dx: number, dy: number) =>
    run((own, on) => own.translateBy(select(on), dx / transform.k, dy / transform.k))
  const show: Zoom['show'] = ({ x, y, w, h }) =>
    run((own, on) => {
      const k = Math.max(1, Math.min(CLOSEST, width / w, height / h))
      const [cx, cy] = [x + w / 2, y + h / 2]
      own.transform(
        select(on),
        zoomIdentity
          .translate(width / 2, height / 2)
          .scale(k)
          .translate(-cx, -cy),
      )
    })
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return
    const acts: Record<string, () => void> = {
      '+': () => by(STEP),
      '=': () => by(STEP),
      '-': () => by(1 / STEP),
      '0': reset,
      ArrowLeft: () => move(PAN_PX, 0),
      ArrowRight: () => move(-PAN_PX, 0),
      ArrowUp: () => move(0, PAN_PX),
      ArrowDown: () => move(0, -PAN_PX),
    }
    const act = acts[event.key]
    if (!act || (event.key.startsWith('Arrow') && transform.k === 1)) return
    event.preventDefault()
    event.stopPropagation()
    act()
  }
  return [attach, { transform, moving, by, reset, show, onKeyDown }]
}
