import type { Polygon } from '@feuillet/core/base/geometry'
import type { NestPiece, Turns } from '@feuillet/core/stages/sheets'

/** A piece to lay: one, that may be turned as it likes, where nothing else is said. */
export const piece = (
  id: string,
  shape: Polygon,
  { qty = 1, turns = 'free' }: { qty?: number; turns?: Turns } = {},
): NestPiece => ({ id, shape, qty, turns })
