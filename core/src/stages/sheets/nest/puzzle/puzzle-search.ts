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
import { InParts } from '../parts'
import { summarise } from '../summary'
import type { Way } from '../way'
import { PuzzleAssembly } from './assembly'
import { Joining, laidStraight, type Joined, type Likeness } from './joining'
import { turn, type Pose } from './pose'
import { Press } from './press'
import { grownOutline, partOf, sidesOf, type Part, type Sided } from './sides'

/** Pieces of a puzzle, at least and at most, and the share of a sheet that they cover when grown by half the gap. */
const PIECES = { least: 4, most: 120 }
const COVERED = { least: 0.7, most: 1.02 }
/** Puzzles under way that get one more part in one step. */
const AT_ONCE = 4
/** Pieces that are read in one step. */
const READ_AT_ONCE = 12
/** How far a piece's own card reaches in from its edge, mm and in gaps. */
const DEPTH = { mm: 1.2, gap: 0.4 }

/** A length, mm and in gaps. */
interface Length {
  mm: number
  gap: number
}

/** What sides and their ends may be off. */
interface Fit {
  length: Length
  bulge: Length
  end: Length
}

/** Strictly, and as when nobody knows how pieces were made smaller by their gap (scaled, or drawn in along the axes). */
const STRICT: Fit = {
  length: { mm: 0.6, gap: 0.35 },
  bulge: { mm: 0.35, gap: 0.2 },
  end: { mm: 1, gap: 0.4 },
}
const LOOSE: Fit = { length: { mm: 0.6, gap: 0.9 }, bulge: { mm: 0.35, gap: 0.25 }, end: { mm: 1, gap: 0.8 } }

/** How outlines are parted for one puzzle after the other. */
const ASSEMBLIES = [
  { fit: STRICT, corners: { deg: 35, reachMm: 5 } },
  { fit: LOOSE, corners: { deg: 35, reachMm: 5 } },
  { fit: LOOSE, corners: { deg: 22, reachMm: 5 } },
]

/** A piece that has too few even of these is no part of a puzzle. */
const ANY_CORNERS = { deg: 15, reachMm: 5 }
/**
 * By what sides are joined: where one way leaves some, the next goes on with them. Corners are told within a short stretch of outline first,
 * where other corners are close by, then within a longer one, where outlines are ragged. Sides that may be the sheet's own edges go last.
 */
const LIKENESSES: readonly (Omit<Likeness, 'lengthMm' | 'bulgeMm' | 'room'> & { fit: Fit })[] = [
  { fit: STRICT, corners: { deg: 45, reachMm: 2 }, straightDeg: 4, squares: false },
  { fit: STRICT, corners: { deg: 25, reachMm: 2 }, straightDeg: 4, squares: false },
  { fit: STRICT, corners: { deg: 15, reachMm: 5 }, straightDeg: 4, squares: false },
  { fit: LOOSE, corners: { deg: 30, reachMm: 2 }, straightDeg: 8, squares: false },
  { fit: LOOSE, corners: { deg: 15, reachMm: 5 }, straightDeg: 8, squares: false },
  { fit: LOOSE, corners: { deg: 40, reachMm: 5 }, straightDeg: 12, squares: false },
  { fit: STRICT, corners: { deg: 30, reachMm: 2 }, straightDeg: 4, squares: true },
  { fit: LOOSE, corners: { deg: 30, reachMm: 2 }, straightDeg: 8, squares: true },
]
/** Attempts to join all pieces, each from one likeness on; from so many on chance has a say too. */
const JOININGS = { most: 3 * LIKENESSES.length, plain: LIKENESSES.length }
const NOISE = 2
/** What leaves a larger share of the pieces is given up: after the first attempt, and after a round of them. */
const WORTH = { once: 0.5, round: 0.35 }
/** A block that fills so much of its box is what was cut up; one that fills as little more than another is as good. */
const WHOLE = 0.99
const FULLER = 0.005

/** Where all pieces lay, roughly. */
interface Together {
  poses: readonly Pose[]
  /** It is what was cut up: nothing better is to be had. */
  isWhole: boolean
}

const inMm = ({ mm, gap }: Length, gapMm: number): number => mm + gap * gapMm

/** Puts pieces together as they lay before they were cut. */
export class PuzzleSearch implements Way {
  /** Put together, or found to be no puzzle. */
  done = false
  /** What was done so far to put it together, in units of `Parts`. */
  work = 0
  /** It is put together, and pressed. */
  isPressed = false
  private readonly copies: readonly { id: string; copy: number; piece: number }[]
  private readonly running: Generator<NestLayout | null, void>
  /** Room for the grown parts, mm. */
  private readonly room: { w: number; h: number }

  constructor(
    private readonly instance: NestInstance,
    private readonly random: () => number,
  ) {
    const { pieces, sheet, gap } = instance
    this.copies = pieces.flatMap(({ id, qty }, piece) =>
      Array.from({ length: qty }, (_, copy) => ({ id, copy, piece })),
    )
    this.room = { w: sheet.w - 2 * sheet.margin + gap, h: sheet.h - 2 * sheet.margin + gap }
    this.running = this.run()
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

  /** Needs the geometry loaded. */
  step(): NestLayout | null {
    const { value, done } = this.running.next()
    this.done = done === true
    return value ?? null
  }

  private *run(): Generator<NestLayout | null, void> {
    const singles = yield* this.read()
    if (!singles) return
    for (const puzzles of [this.joined(singles), this.assembled(singles)])
      for (const puzzle of puzzles) {
        if (!puzzle) yield null
        else {
          this.isPressed = true
          const isLegal = yield* this.pressed(puzzle.poses)
          this.isPressed = false
          if (isLegal && puzzle.isWhole) return
        }
      }
  }

  /** Every piece with its sides; null where one has none, so that it is no part of a puzzle. */
  private *read(): Generator<null, Joined[] | null> {
    const { pieces, gap } = this.instance
    const read: Sided[] = []
    for (const { shape } of pieces) {
      const outline = grownOutline(shape, gap)
      const sided = outline && sidesOf(outline, ANY_CORNERS)
      if (!sided) return null
      read.push(sided)
      if (read.length % READ_AT_ONCE === 0) yield null
    }
    return this.copies.map(({ piece }, part) => ({
      ...read[piece]!,
      turns: pieces[piece]!.turns,
      members: [{ part, ...turn(0), x: 0, y: 0 }],
    }))
  }

  /** All pieces joined two and two, now and then; else null. */
  private *joined(singles: readonly Joined[]): Generator<Together | null, void> {
    const { gap } = this.instance
    const likenesses = LIKENESSES.map(({ fit, ...likeness }): Likeness => {
      const [w, h] = [this.room.w + inMm(fit.end, gap), this.room.h + inMm(fit.end, gap)]
      return { ...likeness, lengthMm: inMm(fit.length, gap), bulgeMm: inMm(fit.bulge, gap), room: { w, h } }
    })
    let fewest = singles.length
    let fullest = 0
    for (let attempt = 0; attempt < JOININGS.most; attempt++) {
      const joining = new Joining(singles, () => (attempt < JOININGS.plain ? 0 : NOISE * this.random()))
      for (const likeness of likenesses.slice(attempt % likenesses.length)) {
        const parts = new InParts(joining.by(likeness))
        while (!parts.step()) yield null
        this.work += parts.work
        if (joining.left().length === 1) break
      }
      yield null
      const [whole, ...others] = joining.left()
      fewest = Math.min(fewest, others.length + 1)
      const laid = others.length === 0 ? laidStraight(whole!, likenesses.at(-1)!.room) : null
      if (laid && laid.filled > fullest + FULLER) {
        fullest = laid.filled
        yield { poses: laid.poses, isWhole: fullest > WHOLE }
      }
      const worth = attempt < likenesses.length - 1 ? WORTH.once : WORTH.round
      if (fewest > worth * singles.length) return
    }
  }

  /** All pieces laid one by one from a corner of the sheet on, at the end; else null. */
  private *assembled(singles: readonly Joined[]): Generator<Together | null, void> {
    const { gap } = this.instance
    for (const { fit, corners } of ASSEMBLIES) {
      const parts: Part[] = []
      for (const { outline } of singles) {
        const sided = sidesOf(outline, corners)
        if (!sided) break
        parts.push(partOf(sided, inMm(DEPTH, gap)))
        if (parts.length % READ_AT_ONCE === 0) yield null
      }
      if (parts.length < singles.length) continue
      const assembly = new PuzzleAssembly({
        parts,
        turns: singles.map(({ turns }) => turns),
        ...this.room,
        fit: { lengthMm: inMm(fit.length, gap), bulgeMm: inMm(fit.bulge, gap), endMm: inMm(fit.end, gap) },
      })
      yield null
      const before = this.work
      for (let k = 1; !assembly.done; k++) {
        const laid = assembly.step()
        this.work = before + assembly.work
        if (laid) yield { poses: laid, isWhole: true }
        else if (k % AT_ONCE === 0) yield null
      }
    }
  }

  /** Layouts of a puzzle, pressed a little further each time. True where there was one. */
  private *pressed(poses: readonly Pose[]): Generator<NestLayout | null, boolean> {
    const placements = this.placementsOf(poses)
    let isLegal = false
    for (const axis of ['rows', 'columns'] as const) {
      const press = new Press(this.instance, { placements, axis })
      while (!press.done) {
        const pressed = press.step()
        isLegal ||= pressed !== null
        yield pressed && summarise(this.instance, pressed)
      }
    }
    return isLegal
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
