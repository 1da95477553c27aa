// Which wrong ways of laying a layer look right: turns about its middle and flips in any axis under which it maps onto itself, or
// nearly so. Where it maps exactly nothing can go wrong; where it nearly does, the eye does not help.
import {
  boxHeight,
  boxWidth,
  compose,
  convexHull,
  cornersOf,
  fillRings,
  intersect,
  interiorPoint,
  mapRegion,
  polygonArea,
  regionArea,
  regionBox,
  regionCentroid,
  regionPerimeter,
  rotation,
  simplify,
  subtract,
  translation,
  union,
  type Affine,
  type Point,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { Polar } from './polar'

/** A wrong way of laying a layer that looks right. */
export interface Turn {
  /** Degrees clockwise on screen, after the flip (left to right) where there is one. */
  turnDeg: number
  flipped: boolean
  /** Area that does not match, both ways, as a share of the layer's. */
  difference: number
  /** The same card to within what a blade holds: laying it so is no mistake. */
  exact: boolean
  /** Where it differs most, mm; null where it is exact, or was not looked for. */
  at: Point | null
}

/** Difference under which a maker sees no difference at all, and under which it is easily missed. */
const EXACT = 0.004
const NEARLY = 0.06
/** Beside what a turn by any angle differs: a match is a good deal less than that. */
const EXACT_BESIDE = 0.15
const NEARLY_BESIDE = 0.5
/** Turned by any angle it differs by no more than this: a disc with a small mark. */
const NEARLY_ROUND = 0.015
/** Along its way a blade strays by so much. */
const BLADE_MM = 0.012
/** Finer than the eye sees and a blade holds. */
const DETAIL_MM = 0.02
/** The most turns to a circle that are told apart. */
const MOST_TURNS = 60
/** What the circles say is this uncertain. */
const ROUGH = 2
/** So many near ways are looked at closely, and so many axes without turns to go with them are told. */
const MOST_SEEN = 6
const MOST_AXES = 4
/** How far from near a way may be before it is moved about, and of how many corners a layer may be for that. */
const FAR = 2
/** So many times farther off than near, no other middle makes it so. */
const HOPELESS = 5
const MOST_TRIED = 2500
const COARSE_MM = 0.15
/** Lopsided ways that are closer together than this are one (degrees). */
const SAME_AXIS = 10

const FULL = 2 * Math.PI

/** Turns and flips, other than leaving it as it is, under which a layer looks right. Needs the geometry loaded. */
export function turnRisks(layer: Region): Turn[] {
  const region = simplify(union(layer), DETAIL_MM)
  if (regionArea(region) === 0) return []
  const likeness = new Likeness(region)
  const own = turnsOf(likeness)
  const exactly = own.filter((turn) => turn.exact).length + 1
  const turns = [...own, ...flipsOf(likeness, exactly)]
  // The nearest ways are measured and looked at; what is far too many to read keeps what the circles say.
  const near = turns.filter((turn) => !turn.exact).toSorted((a, b) => a.difference - b.difference)
  for (const turn of near.slice(0, MOST_SEEN)) Object.assign(turn, likeness.seen(turn))
  for (const flipped of [false, true])
    if (!turns.some((turn) => turn.flipped === flipped && !turn.exact))
      turns.push(...lopsided(likeness, flipped, turns))
  return turns.filter((turn) => turn.exact || turn.difference < NEARLY)
}

type Compared = Pick<Turn, 'difference' | 'exact' | 'at'>

/** A layer laid otherwise about one of the points that a maker may lay it by, and what it then differs by. */
class Likeness {
  /** What a turn and a flip by any angle usually differ by. */
  readonly usual: { turned: number; mirrored: number }
  /** What flips differ by, all round. */
  readonly flipCurve: Float64Array
  /** A difference under this is no more than what a blade holds along the outlines. */
  readonly exactUnder: number
  private readonly polars: Polar[]
  private readonly area: number
  private coarse: Polygon[] | null = null

  constructor(readonly region: Region) {
    this.area = regionArea(region)
    this.exactUnder = Math.max(EXACT, (regionPerimeter(region) * BLADE_MM) / this.area)
    const [mass, ...others] = middlesOf(region)
    const first = new Polar(region, mass!)
    const flips = first.curve('mirrored')
    const turns = Array.from({ length: 12 }, (_, k) => first.turned(FULL / (k + 2)))
    // What is exactly like itself some way round is so about its centre of mass; what is nowhere near it about that is so about
    // no other middle either.
    const least = Math.min(...turns, ...flips)
    const isOpen = least > EXACT / ROUGH && least < NEARLY * HOPELESS
    const more = isOpen ? others.map((middle) => new Polar(region, middle)) : []
    this.polars = [first, ...more]
    const curves = [flips, ...more.map((polar) => polar.curve('mirrored'))]
    this.flipCurve = flips.map((_, i) => Math.min(...curves.map((curve) => curve[i]!)))
    this.usual = { turned: median(first.curve('turned')), mirrored: median(flips) }
  }

  /** What does not match after a turn, or a flip that takes direction θ to the angle less θ (radians): by the circles. */
  rough(kind: 'turned' | 'mirrored', angle: number): number {
    return this.polars.reduce((least, polar) => Math.min(least, polar[kind](angle)), Infinity)
  }

  /** Area that does not match, both ways, as a share: measured. */
  difference(turnDeg: number, flipped: boolean): number {
    // Both have the same area, so what is in one alone is twice what they do not have in common.
    return Math.max(0, 2 * (1 - regionArea(intersect(this.region, this.laid(turnDeg, flipped))) / this.area))
  }

  /** Measured, and where it differs most. */
  seen({ turnDeg, flipped }: Turn): Compared {
    return this.compared(this.laid(turnDeg, flipped), flipped)
  }

  private compared(other: Region, flipped: boolean): Compared {
    const odd = [...subtract(this.region, other), ...subtract(other, this.region)]
    const difference = regionArea(odd) / this.area
    const most = odd.reduce<Polygon | null>(
      (best, face) => (best && polygonArea(best) >= polygonArea(face) ? best : face),
      null,
    )
    const usual = this.usual[flipped ? 'mirrored' : 'turned']
    const exact = difference < this.exactUnder && (usual < EXACT || difference < EXACT_BESIDE * usual)
    return { difference, exact, at: most && !exact ? interiorPoint(most.outer) : null }
  }

  /**
   * Moved about until it differs least, as the eye lays it: what is lopsided has no middle that can be worked out. Null where it
   * is too fine to be tried so often.
   */
  settled(turnDeg: number, flipped: boolean): Turn | null {
    const coarse = (this.coarse ??= simplify(this.region, COARSE_MM))
    if (coarse.reduce((sum, face) => sum + cornersOf(face), 0) > MOST_TRIED) return null
    const map = this.mapOf(turnDeg, flipped)
    const laid = mapRegion(map, coarse)
    const box = regionBox(coarse)
    let [x, y] = [0, 0]
    const overlap = (dx: number, dy: number) =>
      regionArea(intersect(coarse, mapRegion(translation(dx, dy), laid)))
    let most = overlap(0, 0)
    for (let step = Math.max(boxWidth(box), boxHeight(box)) / 50; step > COARSE_MM; step /= 2)
      for (const [dx, dy] of [
        [step, 0],
        [-step, 0],
        [0, step],
        [0, -step],
      ] as const) {
        // prettier-ignore
        const own = overlap(x + dx, y + dy)
        if (own > most) [x, y, most] = [x + dx, y + dy, own]
      }
    const turn = { turnDeg, flipped, difference: 0, exact: false, at: null }
    return { ...turn, ...this.compared(mapRegion(compose(translation(x, y), map), this.region), flipped) }
  }

  /** About the point by which it then differs least. */
  private laid(turnDeg: number, flipped: boolean): Polygon[] {
    return mapRegion(this.mapOf(turnDeg, flipped), this.region)
  }

  private mapOf(turnDeg: number, flipped: boolean): Affine {
    const kind = flipped ? 'mirrored' : 'turned'
    const angle = ((turnDeg + (flipped ? 180 : 0)) * Math.PI) / 180
    const own = this.polars.map((polar) => polar[kind](angle))
    const { x, y } = this.polars[own.indexOf(Math.min(...own))]!.centre
    const turn = flipped ? compose(rotation(turnDeg), FLIP) : rotation(turnDeg)
    return compose(translation(x, y), compose(turn, translation(-x, -y)))
  }
}

const FLIP: Affine = [-1, 0, 0, 1, 0, 0]

/**
 * What a layer may be laid by: its centre of mass, that of its outline and of the hull round it (an opening or a notch that is the
 * only sign does not shift those), and the middle of its box, where sheets lie edge to edge.
 */
function middlesOf(region: Region): Point[] {
  const { minX, minY, maxX, maxY } = regionBox(region)
  const outline = fillRings(
    region.map((face) => face.outer),
    'nonzero',
  )
  const hull = convexHull(region.flatMap((face) => [...face.outer]))
  return [
    regionCentroid(region),
    regionCentroid(outline),
    regionCentroid([{ outer: hull, holes: [] }]),
    { x: (minX + maxX) / 2, y: (minY + maxY) / 2 },
  ].filter(
    ({ x, y }, i, all) => !all.slice(0, i).some((other) => Math.hypot(x - other.x, y - other.y) < DETAIL_MM),
  )
}

/** Turns by steps of a circle: the most steps that are exact, and of those that only nearly match the most beside them. */
function turnsOf(likeness: Likeness): Turn[] {
  const { usual } = likeness
  const orders = Array.from({ length: MOST_TURNS - 1 }, (_, k) => MOST_TURNS - k)
  // A step that is nearly right adds up: of its turns the worst counts.
  const worst = (n: number, limit: number): number => {
    let most = 0
    for (let k = 1; k <= n / 2 && most < limit; k++)
      most = Math.max(most, likeness.rough('turned', (FULL * k) / n))
    return most
  }
  const isExact = (n: number) => {
    const limit = Math.min(likeness.exactUnder * ROUGH, EXACT_BESIDE * usual.turned)
    return worst(n, limit) < limit && likeness.difference(360 / n, false) < likeness.exactUnder
  }
  // As like itself by any angle: round, to the eye and to the blade.
  const exact = orders.find(isExact) ?? (usual.turned < EXACT ? MOST_TURNS : 1)
  const limit = Math.min(NEARLY, NEARLY_BESIDE * usual.turned)
  const isNear = (n: number) => n > exact && n % exact === 0 && worst(n, limit) < limit
  const near =
    exact === MOST_TURNS
      ? exact
      : (orders.find(isNear) ?? (exact === 1 && usual.turned < NEARLY_ROUND ? 4 : exact))
  return Array.from({ length: near - 1 }, (_, k): Turn => {
    const same = ((k + 1) * exact) % near === 0
    const difference = same ? 0 : likeness.rough('turned', (FULL * (k + 1)) / near)
    return { turnDeg: (360 * (k + 1)) / near, flipped: false, difference, exact: same, at: null }
  }).filter((turn) => turn.exact || turn.difference < NEARLY)
}

/** Flips: a flip in axis φ takes direction θ to 2φ − θ, which is left to right and then a turn by 2φ − 180°. */
function flipsOf(likeness: Likeness, exactTurns: number): Turn[] {
  const { usual, flipCurve } = likeness
  const limit = usual.mirrored < NEARLY_ROUND ? NEARLY : Math.min(NEARLY, NEARLY_BESIDE * usual.mirrored)
  const isRound = usual.mirrored < EXACT
  const dips = dipsOf(flipCurve, limit * 1.5)
  const found: Turn[] = []
  const add = (sum: number) => {
    const turnDeg = degOf(sum)
    if (found.some((turn) => apart(turn.turnDeg, turnDeg) < 1)) return
    const rough = likeness.rough('mirrored', sum)
    if (rough >= limit) return
    const isExact =
      rough < likeness.exactUnder * ROUGH &&
      (isRound || rough < EXACT_BESIDE * usual.mirrored) &&
      // With exact turns to go with it, one exact flip makes all that follow from it exact.
      (found.some((turn) => turn.exact && isStep(turn.turnDeg - turnDeg, exactTurns)) ||
        likeness.difference(turnDeg, true) < likeness.exactUnder)
    found.push({ turnDeg, flipped: true, difference: isExact ? 0 : rough, exact: isExact, at: null })
  }
  if (isRound && !dips.some((i) => flipCurve[i]! < EXACT_BESIDE * usual.mirrored))
    for (let k = 0; k < MOST_TURNS; k++) add((FULL * k) / MOST_TURNS)
  else {
    const alike = usual.mirrored < NEARLY_ROUND
    for (const i of dips.slice(0, MOST_TURNS)) {
      const sum = bottom(likeness, (FULL * i) / flipCurve.length)
      if (!alike || likeness.rough('mirrored', sum) < EXACT_BESIDE * usual.mirrored) add(sum)
    }
    // Any axis is as near: two say it.
    if (alike && found.length <= 1) for (const sum of [0, FULL / 2]) add(sum)
  }
  const exact = found.filter((turn) => turn.exact)
  const near = found.filter((turn) => !turn.exact).toSorted((a, b) => a.difference - b.difference)
  return [...exact, ...near.slice(0, Math.max(MOST_AXES, MOST_TURNS - exact.length))].toSorted(
    (a, b) => a.turnDeg - b.turnDeg,
  )
}

/** Half the width within which the bottom of a dip is looked for. */
const DIP = FULL / 2000

/** Ways that would look right if the layer were moved a little: none where the circles have told of others. */
function lopsided(likeness: Likeness, flipped: boolean, known: readonly Turn[]): Turn[] {
  const { usual, flipCurve } = likeness
  const limit = Math.min(NEARLY * FAR, NEARLY_BESIDE * usual[flipped ? 'mirrored' : 'turned'])
  const tried = flipped
    ? dipsOf(flipCurve, limit)
        .slice(0, 3)
        .map((i) => degOf(bottom(likeness, (FULL * i) / flipCurve.length)))
    : [180, 120, 90, 72, 60].filter((deg) => likeness.rough('turned', (deg * Math.PI) / 180) < limit)
  return tried
    .filter((deg) => !known.some((turn) => turn.flipped === flipped && apart(turn.turnDeg, deg) < 2))
    .flatMap((deg) => likeness.settled(deg, flipped) ?? [])
    .filter((turn) => turn.difference < NEARLY)
    .toSorted((a, b) => a.difference - b.difference)
    .filter(
      (turn, i, all) => !all.slice(0, i).some((other) => apart(other.turnDeg, turn.turnDeg) < SAME_AXIS),
    )
}

/** Where a curve dips under a limit, the deepest first. */
const dipsOf = (curve: Float64Array, limit: number): number[] =>
  [...curve.keys()]
    .filter((i) => {
      const [before, here, after] = [-1, 0, 1].map((d) => curve.at((i + d) % curve.length)!)
      return here! < limit && here! <= before! && here! < after!
    })
    .toSorted((a, b) => curve[a]! - curve[b]!)

/** The turn after a flip left to right that is a flip which takes direction θ to the sum less θ. */
const degOf = (sum: number): number => tidy(((((sum * 180) / Math.PI - 180) % 360) + 360) % 360)

/** Whether an angle is a whole number of steps of which so many make a circle. */
function isStep(deg: number, steps: number): boolean {
  const rest = (((deg * steps) % 360) + 360) % 360
  return Math.min(rest, 360 - rest) < steps * 0.2
}

/** The bottom of a dip of the mirrors' curve, by thirds. */
function bottom(likeness: Likeness, about: number): number {
  let [low, high] = [about - DIP, about + DIP]
  for (let k = 0; k < 14; k++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3]
    if (likeness.rough('mirrored', a) < likeness.rough('mirrored', b)) high = b
    else low = a
  }
  return (low + high) / 2
}

/** Whole degrees where it is within a hundredth of one, so that sheets are flipped along their sides. */
const tidy = (deg: number): number => (Math.abs(deg - Math.round(deg)) < 0.02 ? Math.round(deg) % 360 : deg)

const apart = (a: number, b: number): number => Math.min((a - b + 360) % 360, (b - a + 360) % 360)

function median(values: Float64Array): number {
  const sorted = values.toSorted()
  return sorted[sorted.length >> 1]!
}
