// Many copies of one shape lie closest in rows that repeat: whole sheets of them, and what is left beside them.
import {
  boxHeight,
  boxWidth,
  growBox,
  mapPoint,
  polygonArea,
  polygonBox,
  ringBox,
  rotation,
  signedArea,
  type Box,
  type Polygon,
} from '../../../../base/geometry'
import type { NestInstance, NestLayout, Placement } from '../instance'
import { PlainPieces } from '../exact/plain-pieces'
import { layFirst } from '../orders/first'
import { InParts, type Parts } from '../parts'
import { summarise } from '../summary'
import { SAME_SCORE, type InnerSearch, type Way } from '../way'
import { kindsOf, type Alike, type Kind } from './alike'
import { filled, leastOf, packed, type Spot } from './fill'
import { rowsOf } from './rows-search'
import type { Rows } from './rows'

/** So many kinds are laid in rows, each from so many copies on, where they are this share of the card, or one of them is this share of a sheet. */
const MOST_KINDS = 4
const LEAST_COPIES = 10
const LEAST_SHARE = { ofCard: 0.5, ofSheet: 0.7 }
/** What whole sheets leave is searched on its own as long as it may come to no more than so many times the best. */
const NEAR = 1.03

interface Rest {
  search: InnerSearch
  /** Whole sheets in rows before it. */
  sheets: number
  /** A layout of what is left as one of all. */
  open: (layout: NestLayout) => NestLayout
}

/** Copies of a kind, each of so many mm², rows that they may lie in so far apart (mm), and places on a whole sheet. */
interface InRows extends Pick<Kind, 'copies' | 'strayMm'> {
  area: number
  rows: readonly Rows[]
  apart: number
  spots: readonly Spot[]
}

/** Searches layouts whose sheets are filled by rows of copies. */
export class LatticeSearch implements Way {
  /** Rows are found and laid. */
  isLaid = false
  private laying: InParts<NestLayout | null> | null = null
  private rest: Rest | null = null
  private starting: Generator<undefined, InnerSearch> | null = null
  private restOf: (Pick<Rest, 'sheets' | 'open'> & { instance: NestInstance; layout: NestLayout }) | null =
    null

  /** @param start begins a search of its own */
  constructor(
    private readonly instance: NestInstance,
    private readonly start: (rest: NestInstance) => Generator<undefined, InnerSearch>,
  ) {}

  static suits(instance: NestInstance): boolean {
    if (instance.pinned?.some(({ sheet }) => sheet >= 0)) return false
    return wantedKinds(instance).length > 0
  }

  get underWay(): boolean {
    return this.laying !== null || this.starting !== null || (this.rest?.search.underWay ?? false)
  }

  /** Whether what whole sheets leave may still come to something. */
  hasProspect(best: NestLayout): boolean {
    if (this.rest) return this.rest.sheets + this.rest.search.best.score < best.score * NEAR
    return this.restOf !== null
  }

  step(best: NestLayout): NestLayout | null {
    if (!this.isLaid) {
      this.laying ??= new InParts(this.laid(best))
      const laid = this.laying.step()
      if (!laid) return null
      this.laying = null
      this.isLaid = true
      return laid.value
    }
    return this.rest ? this.stepRest(this.rest, best) : this.begin()
  }

  private begin(): null {
    const { restOf } = this
    if (!restOf) return null
    this.starting ??= this.start(restOf.instance)
    const begun = this.starting.next()
    if (!begun.done) return null
    this.starting = null
    begun.value.offer(restOf.layout)
    this.rest = { search: begun.value, sheets: restOf.sheets, open: restOf.open }
    return null
  }

  private stepRest({ search, sheets, open }: Rest, best: NestLayout): NestLayout | null {
    if (!search.step() || search.best.score + sheets >= best.score - SAME_SCORE) return null
    return open(search.best)
  }

  /**
   * Off-cuts as they are, or in rows where that is more card; then whole sheets of one kind each, then what is left of all kinds in rows below each
   * other, then all else wherever there is room.
   */
  private *laid(best: NestLayout): Parts<NestLayout | null> {
    const { sheet } = this.instance
    const kinds = wantedKinds(this.instance)
    const rim = sheet.margin + Math.max(0, ...kinds.map(({ strayMm }) => strayMm))
    const whole: Box = { minX: rim, minY: rim, maxX: sheet.w - rim, maxY: sheet.h - rim }
    const plain = new PlainPieces(this.instance)
    const all: InRows[] = []
    for (const kind of kinds) {
      const inRows = yield* withRows(kind, plain, whole)
      if (inRows) all.push(inRows)
    }
    if (all.length === 0) return null
    const onOffCuts = yield* this.laidOnOffCuts(best, all)
    const there = new Set(onOffCuts.map(keyOf))
    const full: Placement[] = []
    const left: InRows[] = []
    let sheets = 0
    for (const kind of all) {
      const copies = kind.copies.filter((one) => !there.has(keyOf(one)))
      const { spots } = kind
      const many = Math.floor(copies.length / spots.length)
      for (let k = 0; k < many; k++, sheets++)
        full.push(...laidOn(copies.slice(k * spots.length), spots, sheets))
      left.push({ ...kind, copies: copies.slice(many * spots.length) })
    }
    const inRows = inBands(left, whole, plain.gap)
    const taken = new Set([...onOffCuts, ...full].map(keyOf))
    const { instance: rest, copyOf } = without(this.instance, taken)
    const known = new Map(inRows.map((p) => [keyOf(p), p]))
    const pinned = rest.pieces.flatMap(({ id, qty }) =>
      Array.from({ length: qty }, (_, copy) => known.get(`${id}#${copyOf(id, copy)}`)).flatMap((p, copy) =>
        p ? [{ ...p, copy }] : [],
      ),
    )
    const { layout } = yield* layFirst({ ...rest, pinned })
    const open = ({ placements }: NestLayout) =>
      summarise(this.instance, [
        ...onOffCuts,
        ...full,
        ...placements.map((p) => ({ ...p, copy: copyOf(p.id, p.copy), sheet: p.sheet + sheets })),
      ])
    if (sheets > 0 && rest.pieces.length > 0) this.restOf = { instance: rest, layout, sheets, open }
    return open(layout)
  }

  /** What lies on off-cuts: as it is, or on those that are rectangles of one kind in rows, where that is more card. */
  private *laidOnOffCuts(best: NestLayout, kinds: readonly InRows[]): Parts<Placement[]> {
    const { offCuts = [], pinned = [], pieces } = this.instance
    const areas = new Map(pieces.map(({ id, shape }) => [id, polygonArea(shape)]))
    const out: Placement[] = []
    const inRows: { sheet: number; kind: InRows; spots: readonly Spot[] }[] = []
    for (const [k, offCut] of offCuts.entries()) {
      const sheet = -1 - k
      const asItIs = best.placements.filter((p) => p.sheet === sheet)
      let most = asItIs.reduce((sum, { id }) => sum + areas.get(id)!, 0)
      let rows: { kind: InRows; spots: readonly Spot[] } | null = null
      const isFree = isRectangle(offCut.outline) && !pinned.some((p) => p.sheet === sheet)
      for (const kind of isFree ? kinds : []) {
        const within = growBox(polygonBox(offCut.outline), -offCut.margin - kind.strayMm)
        const spots = yield* packed(kind.rows, within, kind.apart)
        const card = Math.min(spots.length, kind.copies.length) * kind.area
        if (card <= most) continue
        most = card
        rows = { kind, spots }
      }
      if (rows) inRows.push({ sheet, ...rows })
      else out.push(...asItIs)
    }
    const there = new Set(out.map(keyOf))
    for (const { sheet, kind, spots } of inRows) {
      const copies = kind.copies.filter((one) => !there.has(keyOf(one)))
      const laid = laidOn(copies, spots, sheet)
      for (const p of laid) there.add(keyOf(p))
      out.push(...laid)
    }
    return out
  }
}

/** A kind with rows that suit a whole sheet; null where none of it lies in there. */
function* withRows(
  { shape, turns, copies, strayMm }: Kind,
  plain: PlainPieces,
  whole: Box,
): Parts<InRows | null> {
  const apart = plain.gap + 2 * strayMm
  const copied = { shape, turns, apart, plain: plain.shape(copies[0]!.id) }
  const rows = yield* rowsOf(copied, { many: copies.length, within: whole })
  const spots = yield* packed(rows, whole, apart)
  return spots.length > 0 ? { rows, spots, copies, apart, area: polygonArea(shape), strayMm } : null
}

/** Whether an outline is a rectangle along the axes. */
const isRectangle = ({ outer, holes }: Polygon): boolean =>
  holes.length === 0 && Math.abs(signedArea(outer)) > (1 - 1e-9) * boxArea(outer)

function boxArea(ring: Float64Array): number {
  const box = ringBox(ring)
  return boxWidth(box) * boxHeight(box)
}

const keyOf = ({ id, copy }: { id: string; copy: number }) => `${id}#${copy}`

/** Kinds of which there are many, those with most card first; none where they are not most of the work. */
function wantedKinds({ pieces, sheet: { w, h, margin } }: NestInstance): Kind[] {
  const cardOf = ({ copies, shape }: Kind) => copies.length * polygonArea(shape)
  const total = (kinds: readonly Kind[]) => kinds.reduce((sum, kind) => sum + cardOf(kind), 0)
  const kinds = kindsOf(pieces)
  const wanted = kinds
    .filter(({ copies }) => copies.length >= LEAST_COPIES)
    .sort((a, b) => cardOf(b) - cardOf(a))
    .slice(0, MOST_KINDS)
  const isMost = total(wanted) >= LEAST_SHARE.ofCard * total(kinds)
  const isMuch = total(wanted.slice(0, 1)) >= LEAST_SHARE.ofSheet * (w - 2 * margin) * (h - 2 * margin)
  return isMost || isMuch ? wanted : []
}

/** Copies at spots of a sheet, as many as there are of both. */
const laidOn = (copies: readonly Alike[], spots: readonly Spot[], sheet: number): Placement[] =>
  spots.slice(0, copies.length).map((spot, k) => {
    const { id, copy, turn, x, y } = copies[k]!
    const rotationDeg = spot.turn - turn
    const [dx, dy] = mapPoint(rotation(rotationDeg), x, y)
    return { id, copy, sheet, x: spot.x - dx, y: spot.y - dy, rotation: ((rotationDeg % 360) + 360) % 360 }
  })

/** What is left of several kinds, in bands of rows one below the other. */
function inBands(left: readonly InRows[], whole: Box, gap: number): Placement[] {
  const out: Placement[] = []
  let [sheet, top] = [0, whole.minY]
  left.forEach(({ rows, copies }, k) => {
    for (let rest = copies; rest.length > 0;) {
      const within = { ...whole, minY: top }
      const fills = rows.map((one) => filled(one, within))
      const enough = fills.filter((spots) => spots.length >= rest.length)
      if (enough.length > 0) {
        const ways = k === left.length - 1 && top === whole.minY ? 'both' : 'height'
        const least = enough
          .map((spots) => leastOf(spots, { many: rest.length, within, ways }))
          .reduce((a, b) => (b.share < a.share ? b : a))
        out.push(...laidOn(rest, least.spots, sheet))
        top = Math.max(...least.spots.map(({ box }) => box.maxY)) + gap
        return
      }
      const most = fills.reduce((a, b) => (b.length > a.length ? b : a))
      out.push(...laidOn(rest, most, sheet))
      rest = rest.slice(most.length)
      sheet++
      top = whole.minY
    }
  })
  return out
}

/** The work without some copies and off-cuts, and which copy of it is which. */
function without(instance: NestInstance, taken: ReadonlySet<string>) {
  const { sheet, gap } = instance
  const copies = new Map(
    instance.pieces.map(({ id, qty }) => [
      id,
      Array.from({ length: qty }, (_, copy) => copy).filter((copy) => !taken.has(keyOf({ id, copy }))),
    ]),
  )
  const pieces = instance.pieces.flatMap((piece) => {
    const qty = copies.get(piece.id)!.length
    return qty > 0 ? [{ ...piece, qty }] : []
  })
  return {
    instance: { sheet, gap, pieces } as NestInstance,
    copyOf: (id: string, copy: number) => copies.get(id)![copy]!,
  }
}
