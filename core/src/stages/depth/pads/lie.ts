// The shape of a pad where it lies: a rectangle, or a strip that is bent along an arc. Lengths in mm.

/** Where a pad lies and how: its middle, its turn in degrees clockwise on screen, and its sides. */
export interface Lie {
  x: number
  y: number
  rotation: number
  widthMm: number
  heightMm: number
  /**
   * Radius of the arc that the middle line of its longer side follows; less than 0 where the arc's centre lies to the other side. Absent
   * where it is straight.
   */
  bendMm?: number | undefined
}

/** No strip is bent tighter than so many times its width: it would buckle. */
export const TIGHTEST = 4
/** Chords stray from the arc that they stand for by no more than this, mm. */
const HAIR_MM = 0.02

/** A strip along its arc: a place along it (−1 to 1), and so far out from its middle line (−1 to 1), in the pad's own frame. */
function bent({ widthMm, heightMm, bendMm }: Lie, along: number, out: number): [number, number] {
  const isWide = widthMm >= heightMm
  const [long, short] = isWide ? [widthMm, heightMm] : [heightMm, widthMm]
  const [r, side] = [Math.abs(bendMm!), Math.sign(bendMm!)]
  const turn = (along * long) / (2 * r)
  const away = r + (out * short) / 2
  const [u, v] = [away * Math.sin(turn), side * (r - away * Math.cos(turn))]
  return isWide ? [u, v] : [v, u]
}

/** How far a bent strip turns from end to end, radians. */
const turnOf = ({ widthMm, heightMm, bendMm }: Lie): number => Math.max(widthMm, heightMm) / Math.abs(bendMm!)

/** In so many chords the outer edge of a bent strip is as true as a hair. */
const chordCount = (lie: Lie): number => {
  const outer = Math.abs(lie.bendMm!) + Math.min(lie.widthMm, lie.heightMm) / 2
  return Math.max(2, Math.ceil(turnOf(lie) / (2 * Math.sqrt((2 * HAIR_MM) / outer))))
}

/** The outline of a pad in its own frame, its middle at 0, unturned: x, y, x, y, … */
export function padShape(lie: Lie): Float64Array {
  const { widthMm, heightMm, bendMm } = lie
  const [w, h] = [widthMm / 2, heightMm / 2]
  if (!bendMm) return Float64Array.of(-w, -h, w, -h, w, h, -w, h)
  const n = chordCount(lie)
  const steps = Array.from({ length: n + 1 }, (_, k) => (2 * k) / n - 1)
  return Float64Array.from([
    ...steps.flatMap((t) => bent(lie, t, 1)),
    ...steps.toReversed().flatMap((t) => bent(lie, t, -1)),
  ])
}

/** The outline of a pad where it lies: x, y, x, y, … */
export function padOutline(lie: Lie): Float64Array {
  const t = (lie.rotation * Math.PI) / 180
  const [cos, sin] = [Math.cos(t), Math.sin(t)]
  const out = padShape(lie)
  for (let i = 0; i < out.length; i += 2) {
    const [u, v] = [out[i]!, out[i + 1]!]
    out[i] = lie.x + u * cos - v * sin
    out[i + 1] = lie.y + u * sin + v * cos
  }
  return out
}

/** Straight pads that together cover a pad: itself, or chords of its arc that reach a hair beyond it. */
export function padChords(lie: Lie): Lie[] {
  const { bendMm, widthMm, heightMm, rotation } = lie
  if (!bendMm) return [lie]
  const isWide = widthMm >= heightMm
  const short = Math.min(widthMm, heightMm)
  const r = Math.abs(bendMm)
  const n = chordCount(lie)
  const half = turnOf(lie) / (2 * n)
  // As long as the outer edge between two chords, and as deep as the inner edge bulges.
  const long = 2 * (r + short / 2) * Math.tan(half)
  const bulge = (r - short / 2) * (1 - Math.cos(half))
  const t = (rotation * Math.PI) / 180
  return Array.from({ length: n }, (_, k): Lie => {
    const along = (2 * k + 1) / n - 1
    const [u, v] = bent(lie, along, -bulge / short)
    const turn = (along * turnOf(lie) * 90) / Math.PI
    const [x, y] = [lie.x + u * Math.cos(t) - v * Math.sin(t), lie.y + u * Math.sin(t) + v * Math.cos(t)]
    const deep = short + bulge
    return {
      x,
      y,
      rotation: rotation + (isWide ? 1 : -1) * Math.sign(bendMm) * turn,
      widthMm: isWide ? long : deep,
      heightMm: isWide ? deep : long,
    }
  })
}
