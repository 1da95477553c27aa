// Names that layouts and mixes of sizes are kept under: the same in every browser at all times.
import { fingerprint, type Memo } from '../../../base'
import { polygonToPath } from '../../../base/geometry'
import { isLaidAsOne, type CutLayer } from '../../../project'
import type { NestInstance, NestPiece, OffCutSheet } from '../nest/instance'
import { inOwnFrames, outlineName } from './own-frames'
import { laidPieces, partId } from './parts'

/** What a run is named by. */
interface Named {
  instance: NestInstance
  layers: readonly CutLayer[]
  /** Of the search for its first layout. */
  seed: number
}

/** Names what is laid on what, wherever layers lie in the picture, and whatever of them is not laid. */
export function runName({ instance, seed }: Pick<Named, 'instance' | 'seed'>, memo: Memo): string {
  const { sheet, gap, pinned = [], offCuts = [] } = inOwnFrames(instance, memo)
  const [turns] = instance.pieces.map((piece) => piece.turns)
  return fingerprint([
    sheet,
    gap,
    turns,
    namesOf(instance.pieces, memo),
    pinned,
    offCuts.map(nameOfOffCut),
    seed,
  ])
}

/** Names what pieces are laid on and how. @param bins names of off-cuts and sheets of other sizes */
export const taskName = (
  { sheet, gap, pieces }: NestInstance,
  bins: readonly string[],
  seed: number,
): string => fingerprint([sheet, gap, pieces[0]?.turns, bins, seed])

/** Names of what is laid. */
export const namesOf = (pieces: readonly NestPiece[], memo: Memo) =>
  pieces.map((piece) => [piece.id, piece.qty, outlineName(piece, memo), piece.sharing])

export const nameOfOffCut = ({ id, margin, outline }: OffCutSheet) => [id, margin, polygonToPath(outline)]

/** The name of a run from when whole layers counted, where they lay in the picture: layouts that were kept under it are found still. */
export function formerRunName({ instance, layers, seed }: Named, memo: Memo): string {
  const { sheet, gap, pieces, pinned, offCuts = [] } = instance
  const [layersNamed, ...laidOtherwise] = formerNames(layers, pieces, memo)
  const turns = pieces[0]?.turns
  return fingerprint([
    sheet,
    gap,
    turns,
    pinned,
    layersNamed,
    offCuts.map(nameOfOffCut),
    seed,
    ...laidOtherwise,
  ])
}

/** What named the pieces then: the layers, and what of them is laid more or less often than they ask. */
export function formerNames(layers: readonly CutLayer[], pieces: readonly NestPiece[], memo: Memo) {
  const laid = new Map(pieces.map(({ id, qty }) => [id, qty]))
  const laidOtherwise = layers.flatMap(({ id, copies, layer }) =>
    laidPieces(layer).flatMap((piece): [string, number][] => {
      const part = partId(id, piece.id)
      const n = laid.get(part) ?? 0
      return n === copies ? [] : [[part, n]]
    }),
  )
  const layersNamed = layers.map(({ id, copies, layer }) => [
    id,
    copies,
    memo('name of pieces', [layer.pieces, isLaidAsOne(layer)], () => fingerprint(laidPieces(layer))),
    layer.sharing,
  ])
  return [layersNamed, ...laidOtherwise]
}
