// Pieces and openings of the picked layer, one by one on the board; and strips that are dragged between them.
import { useMemo, useState } from 'react'
import { ringBox, type Point } from '@feuillet/core/base/geometry'
import { pieceRegion, setLayer, type Fold, type Layer, type Mend } from '@feuillet/core/project'
import { tiesThere, type DrawnStrip, type SoundView } from '@feuillet/core/stages/layers'
import { change, changeApart } from '../../../state/edits'
import { useAppDispatch } from '../../../state/store'
import { editor } from '../../../workers'

/** A piece, an opening in one, or a strip that is too narrow. */
export interface Bit {
  key: string
  kind: 'piece' | 'opening' | 'strip'
  /** What it says of itself, as a name. */
  name: string
  pieceId: string
  path: string
  /** A place in it. */
  at: Point
  widthMm: number
  heightMm: number
}

/** More pieces and openings than these are no choice. */
export const MOST_BITS = 1500

/** A strip that ties pieces, as it lies there. */
export interface LaidTie extends DrawnStrip {
  key: string
  name: string
  /** Its place among the layer's ties. */
  at: number
  lengthMm: number
}

export type BitTool = 'pick' | 'lay' | 'cut' | 'fold'

export interface Bits {
  layer: Layer
  list: readonly Bit[]
  picked: Bit | null
  ties: readonly LaidTie[]
  pickedTie: LaidTie | null
  /** Lays a tie elsewhere or wider; null takes it out. Done once it lies there. */
  moveTie: (tie: LaidTie, to: DrawnStrip | null) => Promise<unknown>
  pick: (key: string | null) => void
  tool: BitTool
  setTool: (tool: BitTool) => void
  stripMm: number
  setStripMm: (mm: number) => void
  /** How a fold is turned that is drawn next. */
  turn: Pick<Fold, 'way' | 'deg'>
  setTurn: (turn: Pick<Fold, 'way' | 'deg'>) => void
  setFolds: (label: string, folds: Fold[]) => void
  /** Changes the layer, as an undo step of its name. */
  act: (label: string, mend: Mend) => void
}

const pathOf = (ring: Float64Array): string => {
  let d = ''
  for (let i = 0; i < ring.length; i += 2) d += `${i ? 'L' : 'M'}${ring[i]} ${ring[i + 1]}`
  return d + 'Z'
}

/** What there is to pick of a layer: its pieces first, their openings on top of them, its weak strips on top of all. */
function bitsOf(layer: Layer, sound: SoundView | undefined, weakPaths: readonly string[]): Bit[] {
  const ofRing = (
    ring: Float64Array,
    { kind, pieceId, key }: { kind: Bit['kind']; pieceId: string; key: string },
  ): Bit => {
    const b = ringBox(ring)
    return {
      key,
      kind,
      name: kind === 'piece' ? `Piece ${key}` : `Opening ${key}`,
      pieceId,
      path: pathOf(ring),
      at: { x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 },
      widthMm: b.maxX - b.minX,
      heightMm: b.maxY - b.minY,
    }
  }
  const faces = layer.pieces.flatMap((piece) =>
    pieceRegion(piece).map((face) => ({ face, pieceId: piece.id })),
  )
  const pieces = faces.map(({ face, pieceId }, i) =>
    ofRing(face.outer, { kind: 'piece', pieceId, key: `${i + 1}` }),
  )
  const openings = faces.flatMap(({ face, pieceId }, i) =>
    face.holes.map((hole, k) => ofRing(hole, { kind: 'opening', pieceId, key: `${i + 1}.${k + 1}` })),
  )
  const strips = (sound?.necks ?? []).flatMap(({ at, widthMm, kind }, i): Bit[] =>
    kind === 'neck' && weakPaths[i]
      ? [{ key: `strip ${i + 1}`, kind: 'strip', name: `Strip ${i + 1}`, pieceId: '', path: weakPaths[i], at, widthMm, heightMm: widthMm }] // prettier-ignore
      : [],
  )
  // What is too much to draw and to pick among is left: weak strips stay, and the first of the others.
  return [...[...pieces, ...openings].slice(0, MOST_BITS), ...strips.slice(0, MOST_BITS)]
}

const tiesIn = (layer: Layer): LaidTie[] =>
  tiesThere(layer).map((at, i): LaidTie => {
    const { line, widthMm } = layer.ties[at]!
    const [x1, y1, x2, y2] = line
    const lengthMm = Math.hypot(x2 - x1, y2 - y1)
    const ends = { from: { x: x1, y: y1 }, to: { x: x2, y: y2 } }
    return { key: `tie ${at}`, name: `Tie ${i + 1}`, at, ...ends, widthMm, lengthMm }
  })

/** Null while pieces are not what is worked on. */
export function useBits(
  on: boolean,
  {
    layer,
    sound,
    weakPaths,
  }: { layer: Layer | undefined; sound: SoundView | undefined; weakPaths: readonly string[] | undefined },
): Bits | null {
  const dispatch = useAppDispatch()
  const [key, setKey] = useState<string | null>(null)
  const [tool, setTool] = useState<BitTool>('pick')
  const [stripMm, setStripMm] = useState<number | null>(null)
  const [turn, setTurn] = useState<Pick<Fold, 'way' | 'deg'>>({ way: 'up', deg: 30 })
  const list = useMemo(
    () => (on && layer ? bitsOf(layer, sound, weakPaths ?? []) : []),
    [on, layer, sound, weakPaths],
  )
  const ties = useMemo(() => (on && layer ? tiesIn(layer) : []), [on, layer])
  if (!on || !layer) return null
  const act = (label: string, mend: Mend, keep: string | null = null) => {
    setKey(keep)
    return dispatch(
      changeApart(`${label} ${layer.name}`, (p, stock) => editor.ask((api) => api.mend(p, [mend], stock))),
    )
  }
  return {
    layer,
    list,
    picked: list.find((bit) => bit.key === key) ?? null,
    ties,
    pickedTie: ties.find((tie) => tie.key === key) ?? null,
    moveTie: (tie, to) =>
      act(
        to ? 'move a tie of' : 'take a tie out of',
        { kind: 'move-tie', layerId: layer.id, at: tie.at, to },
        to && tie.key,
      ),
    pick: setKey,
    tool,
    setTool,
    stripMm: stripMm ?? (sound?.safeMm ?? 1.2) * 1.5,
    setStripMm,
    turn,
    setTurn,
    setFolds: (label, folds) =>
      dispatch(change(`${label} ${layer.name}`, (p) => setLayer(p, layer.id, { folds }))),
    act: (label, mend) => void act(label, mend),
  }
}
