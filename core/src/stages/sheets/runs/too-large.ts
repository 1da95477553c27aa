// Pieces that no sheet of their paper takes.
import { boxHeight, boxWidth, polygonBox } from '../../../base/geometry'
import type { Memo } from '../../../base'
import type { Paper } from '../../../project'
import type { NestInstance, NestPiece } from '../nest/instance'
import { Poses } from '../nest/orders/poses'
import { sheetOf, type Bed } from './sizes'

/** Pieces that no sheet of a paper takes, at any turn that they may have. */
export interface TooLarge {
  /** Their names in the instance. */
  parts: readonly string[]
  /** What can be cut of the sheet that takes the most others, mm. */
  widthMm: number
  heightMm: number
  /** How many of them would fit if they might be turned. */
  fitTurned: number
}

interface Asked {
  pieces: readonly NestPiece[]
  bed: Bed
  /** Between pieces, mm. */
  gap: number
  /** Whether all of its copies have places of their own. */
  isPinned: (piece: NestPiece) => boolean
}

/** What the size that takes the most pieces takes, and what not: pieces that are pinned have a place, whatever their size. */
export function takenBy(
  sizes: readonly Paper[],
  { pieces, bed, gap, isPinned }: Asked,
  memo: Memo,
): { taken: NestPiece[]; tooLarge: TooLarge | null } {
  const takes = sizes.map((size) => {
    const sheet = sheetOf(size, bed)
    const fits = (piece: NestPiece, turns = piece.turns) => fitsOn({ ...piece, turns }, { sheet, gap }, memo)
    return { sheet, fits, taken: pieces.filter((piece) => fits(piece) || isPinned(piece)) }
  })
  const { sheet, fits, taken } = takes.reduce((a, b) => {
    const more = b.taken.length - a.taken.length || b.sheet.w * b.sheet.h - a.sheet.w * a.sheet.h
    return more > 0 ? b : a
  })
  const has = new Set(taken)
  const over = pieces.filter((piece) => !has.has(piece))
  const tooLarge: TooLarge | null =
    over.length === 0
      ? null
      : {
          parts: over.map(({ id }) => id),
          widthMm: Math.max(0, sheet.w - 2 * sheet.margin),
          heightMm: Math.max(0, sheet.h - 2 * sheet.margin),
          fitTurned: over.filter((piece) => fits(piece, 'free')).length,
        }
  return { taken, tooLarge }
}

/** Whether a sheet takes a piece at some turn that it may have. */
function fitsOn(piece: NestPiece, { sheet, gap }: Pick<NestInstance, 'sheet' | 'gap'>, memo: Memo): boolean {
  const b = polygonBox(piece.shape)
  const { w, h, margin } = sheet
  if (boxWidth(b) <= w - 2 * margin && boxHeight(b) <= h - 2 * margin) return true
  return memo(
    'fits a sheet',
    [piece.shape, piece.turns, sheet, gap],
    () => new Poses({ sheet, gap, pieces: [piece] }).turnsThatFit(0, 'rows').length > 0,
  )
}
