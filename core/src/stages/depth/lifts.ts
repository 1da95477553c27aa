// What lifts pieces off the card under them: the foam that is at hand, or the glue.
import { fresh, type Memo } from '../../base'
import { foamUnder, glueOf, type Foam, type Layer, type Project } from '../../project'
import { giveOfGap, madeGap, stacksOf, type Stacks } from './foam'

/** Lengths in mm, of the pieces of a project's layers. */
export class Lifts {
  private known: Stacks | null = null

  /** @param memo remembers what the foams can be stacked to */
  constructor(
    private readonly project: Project,
    private readonly memo: Memo = fresh,
  ) {}

  get foams(): readonly Foam[] {
    return this.project.drawer.foams
  }

  private get stacks(): Stacks {
    return (this.known ??= this.memo('stacks', [this.foams], () => stacksOf(this.foams)))
  }

  /** What lies between a piece and the card under it: the foam that comes nearest to the gap that was typed, or the glue. */
  between(layer: Layer, pieceId: string): number {
    const foamMm = foamUnder(layer, pieceId)
    if (foamMm > 0) return madeGap(this.stacks, foamMm) ?? foamMm
    return layer.joint.kind === 'glue' ? this.ofGlue(layer, pieceId) : 0
  }

  /** By how much the foam under a piece gives under a press. */
  gives(layer: Layer, pieceId: string): number {
    const foamMm = foamUnder(layer, pieceId)
    return foamMm > 0 ? giveOfGap(this.stacks, foamMm) : 0
  }

  /** How thick the glue of a piece stays. */
  ofGlue(layer: Layer, pieceId: string): number {
    return glueOf(this.project, layer, pieceId)?.thicknessMm ?? 0
  }

  /** By how much a piece comes down that goes on with glue in place of foam. */
  drop(layer: Layer, pieceId: string): number {
    return this.between(layer, pieceId) - this.ofGlue(layer, pieceId)
  }
}
