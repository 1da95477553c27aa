// Pieces that were cut from one sheet fit together again: their sides tell how.
import {
  compose,
  joinBoxes,
  mapPolygon,
  perimeter,
  polygonBox,
  rotation,
  signedArea,
  translation,
} from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { summarise } from '../summary'
import type { Way } from '../way'
import { PuzzleAssembly, type Pose } from './assembly'
import { Press } from './press'
import { partOf, type Part } from './sides'

/** Pieces of a puzzle, at least and at most, and the share of a sheet that they cover when grown by half the gap. */
const PIECES = { least: 4, most: 120 }
const COVERED = { least: 0.7, most: 1.02 }
/** Puzzles under way that get one more part in one step. */
const AT_ONCE = 4
/** Pieces that are read in one step. */
const READ_AT_ONCE = 12
/** How far a piece's own card reaches in from its edge, mm and in gaps. */
const DEPTH = { mm: 1.2, gap: 0.4 }
/**
 * What sides and their ends may be off, mm and in gaps: strictly first, then as when nobody knows how pieces were made smaller by their gap
 * (scaled, or drawn in along the axes).
 */
const FITS = [
  { cornerDeg: 35, length: { mm: 0.6, gap: 0.35 }, bulge: { mm: 0.35, gap: 0.2 }, end: { mm: 1, gap: 0.4 } },
  { cornerDeg: 35, length: { mm: 0.6, gap: 0.9 }, bulge: { mm: 0.35, gap: 0.25 }, end: { mm: 1, gap: 0.8 } },
  { cornerDeg: 22, length: { mm: 0.6, gap: 0.9 }, bulge: { mm: 0.35, gap: 0.25 }, end: { mm: 1, gap: 0.8 } },
]

const inMm = ({ mm, gap }: { mm: number; gap: number }, gapMm: number): number => mm + gap * gapMm

/** Puts pieces together as they lay before they were cut. */
export class PuzzleSearch implements Way {
  private readonly copies: readonly { id: string; copy: number; piece: number }[]
  private readonly fits = [...FITS]
  private fit: (typeof FITS)[number] | undefined
  /** Pieces that were read, as the fit has it; null once all are. */
  private read: Part[] | null = []
  private assembly: PuzzleAssembly | null = null
  private presses: Press[] = []

  constructor(private readonly instance: NestInstance) {
    this.copies = instance.pieces.flatMap(({ id, qty }, piece) =>
      Array.from({ length: qty }, (_, copy) => ({ id, copy, piece })),
    )
    this.fit = this.fits.shift()
  }

  /** Whether pieces may be all of one sheet, by their number and area. */
  static suits({ pieces, gap, sheet, pinned, offCuts }: NestInstance): boolean {
    const count = pieces.reduce((sum, { qty }) => sum + qty, 0)
    if (pinned?.length || offCuts?.length || count < PIECES.least || count > PIECES.most) return false
    const room = (sheet.w - 2 * sheet.margin + gap) * (sheet.h - 2 * sheet.margin + gap)
    const covered = pieces.reduce((sum, { shape: { outer }, qty }) => {
      return sum + qty * (Math.abs(signedArea(outer)) + (perimeter(outer) * gap) / 2)
    }, 0)
    return covered >= COVERED.least * room && covered <= COVERED.most * room
  }

  /** Put together, or found to be no puzzle. */
  get done(): boolean {
    return this.fit === undefined && this.presses.length === 0
  }

  /** Needs the geometry loaded. */
  step(): NestLayout | null {
    const [press] = this.presses
    if (press) return this.pressed(press)
    if (!this.fit) return null
    if (this.read) this.readOn(this.fit, this.read)
    else this.assemble(this.assembly!)
    return null
  }

  /** A layout pressed a little further. */
  private pressed(press: Press): NestLayout | null {
    const placements = press.step()
    if (press.done) this.presses.shift()
    if (!placements) return null
    // It is put together: the other corners of the sheet would give the same.
    this.fit = undefined
    return summarise(this.instance, placements)
  }

  /** Reads a few more pieces; what has no sides is no part of a puzzle. */
  private readOn({ cornerDeg, length, bulge, end }: (typeof FITS)[number], read: Part[]): void {
    const { pieces, gap, sheet } = this.instance
    const reading = { gap, depthMm: inMm(DEPTH, gap), cornerDeg }
    for (const { shape } of pieces.slice(read.length, read.length + READ_AT_ONCE)) {
      const part = partOf(shape, reading)
      if (!part) return this.tryNext()
      read.push(part)
    }
    if (read.length < pieces.length) return
    this.read = null
    this.assembly = new PuzzleAssembly({
      parts: this.copies.map(({ piece }) => read[piece]!),
      turns: this.copies.map(({ piece }) => pieces[piece]!.turns),
      w: sheet.w - 2 * sheet.margin + gap,
      h: sheet.h - 2 * sheet.margin + gap,
      fit: { lengthMm: inMm(length, gap), bulgeMm: inMm(bulge, gap), endMm: inMm(end, gap) },
    })
  }

  /** Begins anew with the next of the fits. */
  private tryNext(): void {
    this.fit = this.fits.shift()
    this.read = []
    this.assembly = null
  }

  private assemble(assembly: PuzzleAssembly): void {
    for (let k = 0; k < AT_ONCE; k++) {
      if (assembly.done) return this.tryNext()
      const laid = assembly.step()
      if (!laid) continue
      const placements = this.placementsOf(laid)
      this.presses = (['rows', 'columns'] as const).map(
        (axis) => new Press(this.instance, { placements, axis }),
      )
      return
    }
  }

  /** Where the pieces come to lie, beginning at the rim's corner. */
  private placementsOf(laid: readonly Pose[]): Placement[] {
    const { sheet, pieces } = this.instance
    const box = joinBoxes(
      laid.map(({ part, deg, x, y }) => {
        const { shape } = pieces[this.copies[part]!.piece]!
        return polygonBox(mapPolygon(compose(translation(x, y), rotation(deg)), shape))
      }),
    )
    return laid.map(({ part, deg, x, y }) => {
      const { id, copy } = this.copies[part]!
      return {
        id,
        copy,
        sheet: 0,
        x: x - box.minX + sheet.margin,
        y: y - box.minY + sheet.margin,
        rotation: deg,
      }
    })
  }
}
