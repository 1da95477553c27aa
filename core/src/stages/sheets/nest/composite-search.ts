// What lies in the openings of another piece is laid with it as one body: a search of its own over such composites.
import { BoxSearch } from './boxes/boxes'
import { composites, type Composites } from './composites'
import type { NestInstance, NestLayout } from './instance'
import { SAME_SCORE, type InnerSearch, type Way } from './way'

/** It is worth its while from this share of pieces in openings on. */
const LEAST_SHARE = 0.25

interface Composed {
  found: Composites
  search: InnerSearch
  /** Nothing but boxes is left when pieces are composed. */
  boxes: boolean
}

/** Searches with pieces in openings composed with their holders. */
export class CompositeSearch implements Way {
  private composed: Composed | null = null
  private looked: NestLayout | null = null

  constructor(
    private readonly instance: NestInstance,
    private readonly start: (instance: NestInstance) => InnerSearch,
  ) {}

  static suits({ pinned, offCuts, pieces }: NestInstance): boolean {
    return !pinned?.length && !offCuts?.length && pieces.some(({ shape }) => shape.holes.length > 0)
  }

  get underWay(): boolean {
    return this.composed?.search.underWay ?? false
  }

  /** Whether enough lies in openings of the best layout, and whether that leaves nothing but boxes. */
  prospect(best: NestLayout): 'none' | 'shapes' | 'boxes' {
    const composed = this.compose(best)
    return composed ? (composed.boxes ? 'boxes' : 'shapes') : 'none'
  }

  step(best: NestLayout): NestLayout | null {
    const composed = this.compose(best)
    if (!composed?.search.step()) return null
    const layout = composed.search.best
    return layout.score < best.score - SAME_SCORE ? composed.found.open(layout) : null
  }

  /** The search with the pieces composed as they lie in the best layout. */
  private compose(best: NestLayout): Composed | null {
    if (this.looked === best) return this.composed
    this.looked = best
    const found = composites(this.instance, best)
    if (!found || found.key === this.composed?.found.key) return this.composed
    const boxes = BoxSearch.suits(found.instance)
    if (!boxes && found.held < LEAST_SHARE * best.placements.length) return this.composed
    const search = this.start(found.instance)
    search.offer(found.layout)
    this.composed = { found, search, boxes }
    return this.composed
  }
}
