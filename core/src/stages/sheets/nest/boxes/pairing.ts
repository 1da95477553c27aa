// Which boxes go together: two with a side in common make a larger one, and so on until no two have one. Where that leaves too many, a few
// boxes are taken out again with all that was built on them, and what is left is joined in another way (iterated greedy, Ruiz and Stützle 2007).

/** A length before it was rounded, with the gap, mm: between these two. */
export interface Span {
  least: number
  most: number
}

/** A box, lengths with the gap (mm). */
export interface Loose {
  w: number
  h: number
  /** What its lengths can have been before they were rounded. */
  along: Span
  down: Span
  /** May lie the other way up. */
  turns: boolean
}

/** How an attempt chooses among pairs: what speaks against one. */
export interface Choice {
  /** Lengths that cannot have been equal count as equal up to here, mm. */
  toleranceMm: number
  /** How many others each of its sides could go with. */
  others: number
  /** How long and narrow the whole would be. */
  narrow: number
  /** Chance. */
  noise: number
}

type Numbers = Float64Array | Int32Array | Uint8Array

/** What an attempt left. */
interface Kept {
  arrays: readonly Numbers[]
  left: number
  free: number[]
}

/** From this many times as long as it is wide a block counts as long and narrow. */
const NARROW_FROM = 2

/** Block k has two sides: 2k as long as it is high, 2k + 1 as long as it is wide. */
export const blockOf = (side: number): number => side >> 1
export const isUpright = (side: number): boolean => (side & 1) === 0

/** Joins boxes in pairs, as often as it is asked, each time from the start or from what was kept. */
export class Pairing {
  /** Of each side: its length, and what it can have been. A block's other side tells how far it reaches from this one. */
  private readonly length: Float64Array
  private readonly least: Float64Array
  private readonly most: Float64Array
  private readonly turns: Uint8Array
  /** Of each joined block the two sides that lie against each other; of each block the one that it is part of, itself where it is of none. */
  private readonly first: Int32Array
  private readonly second: Int32Array
  private readonly whole: Int32Array
  /** Blocks that are part of no other, in no order, and how many. */
  private readonly alive: Int32Array
  private left = 0
  /** All of these, to be kept and gone back to. */
  private readonly arrays: readonly Numbers[]
  /** Pairs that were looked at so far: what attempts cost. */
  looked = 0
  /** Numbers that no block has. */
  private free: number[] = []
  private kept: Kept | null = null
  /** With how many others each side could go. */
  private readonly partners: Int32Array
  /** All pairs that may be joined: their sides, and what speaks against them but for others. */
  private pairA: number[] = []
  private pairB: number[] = []
  private against: number[] = []
  private choice: Choice = { toleranceMm: 0, others: 0, narrow: 0, noise: 0 }

  /** @param room the cuttable area of a sheet and the gap, mm: no block may be larger */
  constructor(
    private readonly boxes: readonly Loose[],
    private readonly room: { w: number; h: number },
    private readonly random: () => number,
  ) {
    const blocks = 2 * boxes.length
    this.length = new Float64Array(2 * blocks)
    this.least = new Float64Array(2 * blocks)
    this.most = new Float64Array(2 * blocks)
    this.turns = new Uint8Array(blocks)
    this.first = new Int32Array(blocks)
    this.second = new Int32Array(blocks)
    this.whole = new Int32Array(blocks)
    this.alive = new Int32Array(boxes.length)
    this.partners = new Int32Array(2 * blocks)
    const { length, least, most, turns, first, second, whole, alive } = this
    this.arrays = [length, least, most, turns, first, second, whole, alive]
    boxes.forEach(({ w, h, along, down, turns }, k) => {
      this.setSide(2 * k, h, down)
      this.setSide(2 * k + 1, w, along)
      this.turns[k] = turns ? 1 : 0
    })
  }

  /** Joins pairs from single boxes on, those first against which least speaks, until there are none. Gives how many blocks are left. */
  fromScratch(choice: Choice): number {
    const n = this.boxes.length
    this.left = n
    for (let k = 0; k < n; k++) this.alive[k] = this.whole[k] = k
    this.free = Array.from({ length: n }, (_, k) => 2 * n - 1 - k)
    return this.joinAll(choice)
  }

  /** Goes on from what was kept: so many boxes are taken out of all blocks that they are part of, then pairs are joined again. */
  fromKept(choice: Choice, takenOut: number): number {
    this.goBack(this.kept!)
    const n = this.boxes.length
    for (let k = 0; k < takenOut; k++) this.takeOut(Math.floor(this.random() * n))
    return this.joinAll(choice)
  }

  /** Keeps what the last attempt left, to go on from. */
  keep(): void {
    const { arrays, left, free } = this
    this.kept = { arrays: arrays.map((array) => array.slice()), left, free: [...free] }
  }

  /** The blocks that the last attempt left, by number: those below the number of boxes are single boxes. */
  blocks(): number[] {
    return [...this.alive.subarray(0, this.left)]
  }

  /** The sides that lie against each other in a joined block; null for a single box. */
  seam(block: number): [a: number, b: number] | null {
    return block < this.boxes.length ? null : [this.first[block]!, this.second[block]!]
  }

  private goBack({ arrays, left, free }: Kept): void {
    this.arrays.forEach((array, k) => array.set(arrays[k]!))
    this.left = left
    this.free = [...free]
  }

  /** Takes all blocks apart that a box is part of. */
  private takeOut(box: number): void {
    const { whole, alive } = this
    const apart: number[] = []
    for (let block = box; whole[block] !== block; block = whole[block]!) apart.push(whole[block]!)
    if (apart.length === 0) return
    for (const block of apart) {
      for (const side of [this.first[block]!, this.second[block]!]) whole[blockOf(side)] = blockOf(side)
      this.free.push(block)
    }
    let left = 0
    for (let k = 0; k < this.left; k++) if (alive[k] !== apart.at(-1)) alive[left++] = alive[k]!
    for (const block of apart)
      for (const side of [this.first[block]!, this.second[block]!])
        if (!apart.includes(blockOf(side))) alive[left++] = blockOf(side)
    this.left = left
  }

  private joinAll(choice: Choice): number {
    this.choice = choice
    this.partners.fill(0)
    this.pairA.length = this.pairB.length = this.against.length = 0
    for (let k = 1; k < this.left; k++) this.pairUp(this.alive[k]!, k)
    while (this.pairA.length > 0) this.joinTo(this.free.pop()!, this.leastAgainst())
    return this.left
  }

  private setSide(side: number, length: number, { least, most }: Span): void {
    this.length[side] = length
    this.least[side] = least
    this.most[side] = most
  }

  /** Notes the pairs of a block with the first so many of those that are there. */
  private pairUp(block: number, among: number): void {
    this.looked += 4 * among
    for (let k = 0; k < among; k++) {
      const other = this.alive[k]!
      for (let a = 2 * block; a < 2 * block + 2; a++)
        for (let b = 2 * other; b < 2 * other + 2; b++) this.pair(a, b)
    }
  }

  private pair(a: number, b: number): void {
    const { least, most, random, partners } = this
    const { toleranceMm, narrow, noise } = this.choice
    if (least[b]! > most[a]! + toleranceMm || least[a]! > most[b]! + toleranceMm || !this.mayJoin(a, b))
      return
    const [sum, long] = [this.length[a ^ 1]! + this.length[b ^ 1]!, this.length[b]!]
    const shape = Math.max(sum / long, long / sum) - NARROW_FROM
    // How far the middles of what they can have been are apart, in parts of the farthest.
    const apart =
      Math.abs(least[a]! + most[a]! - least[b]! - most[b]!) /
      (most[a]! - least[a]! + most[b]! - least[b]! + 2 * toleranceMm)
    this.pairA.push(a)
    this.pairB.push(b)
    this.against.push(apart + narrow * Math.max(0, shape) + noise * random())
    partners[a]!++
    partners[b]!++
  }

  /** Whether two blocks may lie side by side and fit a sheet. */
  private mayJoin(a: number, b: number): boolean {
    const { length, room } = this
    const turns = this.turns[blockOf(a)]! & this.turns[blockOf(b)]!
    if (!turns && isUpright(a) !== isUpright(b)) return false
    const across = length[a ^ 1]! + length[b ^ 1]!
    const long = Math.max(length[a]!, length[b]!)
    const [w, h] = isUpright(a) ? [across, long] : [long, across]
    return (w <= room.w && h <= room.h) || (turns !== 0 && h <= room.w && w <= room.h)
  }

  private leastAgainst(): number {
    const { pairA, pairB, against, partners } = this
    const { others } = this.choice
    let best = 0
    let least = Infinity
    this.looked += 2 * against.length
    for (let k = 0; k < against.length; k++) {
      const all = against[k]! + others * (partners[pairA[k]!]! + partners[pairB[k]!]!)
      if (all >= least) continue
      least = all
      best = k
    }
    return best
  }

  /** Makes a pair a block of that number, in place of its two. */
  private joinTo(block: number, pair: number): void {
    const { length, least, most, turns, alive } = this
    const [a, b] = [this.pairA[pair]!, this.pairB[pair]!]
    this.first[block] = a
    this.second[block] = b
    turns[block] = turns[blockOf(a)]! & turns[blockOf(b)]!
    // A block that may turn is put together upright.
    const seam = turns[block] || isUpright(a) ? 2 * block : 2 * block + 1
    this.setSide(seam, Math.max(length[a]!, length[b]!), this.inCommon(a, b))
    this.setSide(seam ^ 1, length[a ^ 1]! + length[b ^ 1]!, {
      least: least[a ^ 1]! + least[b ^ 1]!,
      most: most[a ^ 1]! + most[b ^ 1]!,
    })
    this.whole[blockOf(a)] = this.whole[blockOf(b)] = this.whole[block] = block
    this.forget(blockOf(a), blockOf(b))
    let kept = 0
    for (let k = 0; k < this.left; k++)
      if (alive[k] !== blockOf(a) && alive[k] !== blockOf(b)) alive[kept++] = alive[k]!
    this.pairUp(block, kept)
    alive[kept] = block
    this.left = kept + 1
  }

  /** What two lengths that were one can have been; where they cannot have been equal, what lies between them. */
  private inCommon(a: number, b: number): Span {
    const least = Math.max(this.least[a]!, this.least[b]!)
    const most = Math.min(this.most[a]!, this.most[b]!)
    return least <= most ? { least, most } : { least: most, most: least }
  }

  /** Drops all pairs of two blocks. */
  private forget(one: number, other: number): void {
    const { pairA, pairB, against, partners } = this
    const isGone = (side: number) => blockOf(side) === one || blockOf(side) === other
    let kept = 0
    for (let k = 0; k < against.length; k++) {
      const [a, b] = [pairA[k]!, pairB[k]!]
      if (isGone(a) || isGone(b)) {
        partners[a]!--
        partners[b]!--
        continue
      }
      pairA[kept] = a
      pairB[kept] = b
      against[kept++] = against[k]!
    }
    pairA.length = pairB.length = against.length = kept
  }
}
