// The simulated cutter: a state machine that goes over the moves of a load at a believable pace. Time is handed in, so
// that tests need not wait.
import type { CutterLoad, CutterState, CutterStatus, EndedRun, Fault } from '@feuillet/cutter-protocol'
import { readPlot, type Move } from './plot'

export type { CutterLoad, CutterState, Fault } from '@feuillet/cutter-protocol'

/** Bed of the machine, mm. */
export const BED = { widthMm: 610, heightMm: 305 }
/** So many ended runs are remembered until a page notes them. */
const MOST_UNNOTED = 50
const ROUNDING_MM = 0.05
/** Times that differ by no more are equal (s). */
const HAIR_S = 1e-6
/** Armed faults strike at these shares of a run. */
const STRIKES = { slip: 0.4, power: 0.55 }

/** What cannot be done now, in one sentence. */
export class Refusal extends Error {}

export class Cutter {
  private status: CutterStatus = 'idle'
  private load: CutterLoad | null = null
  private moves: Move[] = []
  /** Seconds at which each move ends, and where strokes begin (index of their first move). */
  private ends: Float64Array = new Float64Array(0)
  private pass = 1
  private passes = 1
  private seconds = 0
  private at = 0
  private speed = 1
  private faults: Record<Fault, boolean> = { slip: false, blunt: false, power: false }
  private struck = new Set<Fault>()
  private outcome: CutterState['outcome'] = null
  private startedAt: number | null = null
  private endedAt: number | null = null
  /** Passes and seconds of earlier runs over the same sheet. */
  private earlier = { passes: 0, seconds: 0 }
  private unnoted: EndedRun[] = []

  /** Takes a load; it then asks for the sheet. Throws a Refusal where it cannot be cut. */
  take(load: CutterLoad): void {
    if (
      this.status === 'cutting' ||
      this.status === 'paused' ||
      this.status === 'slipped' ||
      this.status === 'off'
    )
      throw new Refusal('a load is under way: cancel it first')
    if (this.status === 'asking' && this.load!.id !== load.id)
      throw new Refusal(`“${this.load!.name}” waits for its sheet: cancel that first`)
    const { widthMm, heightMm, rimMm } = load.sheet
    const fits = (w: number, h: number) => w <= BED.widthMm && h <= BED.heightMm
    if (!fits(widthMm, heightMm) && !fits(heightMm, widthMm))
      throw new Refusal(
        `the sheet of ${Math.round(widthMm)} × ${Math.round(heightMm)} mm is larger than the bed of ${BED.widthMm} × ${BED.heightMm} mm`,
      )
    let moves: Move[]
    try {
      moves = readPlot(load.plot)
    } catch (error) {
      throw new Refusal(error instanceof Error ? error.message : String(error))
    }
    const rim = rimMm - ROUNDING_MM
    if (moves.some((m) => m.down && (m.x < rim || m.y < rim || m.x > widthMm - rim || m.y > heightMm - rim)))
      throw new Refusal(`the plot reaches into the rim of ${rimMm} mm that the blade cannot reach`)
    this.load = load
    this.moves = moves
    this.ends = timesOf(moves, load.pace)
    this.pass = 1
    this.passes = load.setting.passes
    this.seconds = 0
    this.struck.clear()
    this.outcome = null
    this.startedAt = null
    this.endedAt = null
    this.earlier = { passes: 0, seconds: 0 }
    this.status = 'asking'
  }

  /** Refuses what another page wants of a load that is not its own. */
  mustBe(id: string): void {
    if (this.load && this.load.id !== id)
      throw new Refusal('the machine has another load: this page has no hand in it')
  }

  /** The maker says which sheet lies on the mat; cutting begins where it is the right one. */
  confirm(tag: string, now: number): void {
    this.need('asking', 'no load waits for a sheet')
    if (tag.trim().toLowerCase() !== this.load!.tag.toLowerCase())
      throw new Refusal(`this load wants the sheet tagged “${this.load!.tag}”`)
    this.status = 'cutting'
    this.startedAt = now
    this.at = now
  }

  pause(now: number): void {
    this.tick(now)
    this.need('cutting', 'nothing is being cut')
    this.status = 'paused'
  }

  /** Goes on: after a pause where it was; after a slip or a power cut from the start of the cut that was under way. */
  resume(now: number): void {
    if (this.status === 'off') throw new Refusal('the machine has no power: switch it on first')
    if (this.status !== 'paused' && this.status !== 'slipped') throw new Refusal('nothing is paused')
    if (this.status === 'slipped') this.backToStroke()
    this.status = 'cutting'
    this.at = now
  }

  /** Power comes back: what was under way waits to be gone on with. */
  powerOn(): void {
    this.need('off', 'the machine is on')
    this.backToStroke()
    this.status = 'paused'
  }

  cancel(now: number): void {
    this.tick(now)
    if (this.status === 'idle' || this.status === 'done' || this.status === 'cancelled')
      throw new Refusal('there is nothing to cancel')
    this.status = 'cancelled'
    this.end('cancelled', now)
  }

  /** One more pass over a load that is only partly cut through: a run of its own. */
  again(now: number): void {
    this.need('done', 'only a finished load can be gone over again')
    this.earlier = { passes: this.passes, seconds: this.passes * this.wholeS() }
    this.startedAt = now
    this.passes++
    this.pass++
    this.seconds = 0
    this.status = 'cutting'
    this.outcome = null
    this.endedAt = null
    this.at = now
  }

  setSpeed(speed: number, now: number): void {
    this.tick(now)
    this.speed = Math.max(1, Math.min(200, speed))
  }

  setFault(fault: Fault, on: boolean): void {
    this.faults[fault] = on
    if (on) this.struck.delete(fault)
  }

  /** Lets time pass. */
  tick(now: number): void {
    if (this.status !== 'cutting') return
    const whole = this.wholeS()
    const before = this.runShare()
    this.seconds += ((now - this.at) / 1000) * this.speed
    this.at = now
    for (const fault of ['slip', 'power'] as const) {
      if (
        !this.faults[fault] ||
        this.struck.has(fault) ||
        before > STRIKES[fault] ||
        this.runShare() < STRIKES[fault]
      )
        continue
      // It strikes on the way, not at the end of this stretch of time.
      const at = STRIKES[fault] * this.passes
      this.pass = Math.min(this.passes, Math.floor(at) + 1)
      this.seconds = (at - (this.pass - 1)) * whole
      this.struck.add(fault)
      this.faults[fault] = false
      this.status = fault === 'slip' ? 'slipped' : 'off'
      return
    }
    while (this.seconds >= whole - HAIR_S) {
      if (this.pass >= this.passes) {
        this.seconds = whole
        this.status = 'done'
        this.outcome = this.passes >= this.load!.passesNeeded + (this.faults.blunt ? 1 : 0) ? 'cut' : 'partly'
        this.end(this.outcome, now)
        return
      }
      this.pass++
      this.seconds -= whole
    }
  }

  state(): CutterState {
    const { load } = this
    const whole = this.wholeS()
    const left = (this.passes - this.pass + 1) * whole - this.seconds
    return {
      status: this.status,
      load: load && withoutPlot(load),
      tool: load && this.tool(),
      movesDone: load && this.status !== 'done' ? this.current() : this.moves.length,
      share: load ? this.runShare() : 0,
      secondsLeft: load ? Math.max(0, left) / this.speed : 0,
      pass: this.pass,
      passes: this.passes,
      speed: this.speed,
      faults: { ...this.faults },
      outcome: this.outcome,
      ranS: load ? this.ranS() : 0,
      startedAt: this.startedAt,
      endedAt: this.endedAt,
      unnoted: [...this.unnoted],
    }
  }

  /** A page has put a run into its journal. */
  noted(id: string, startedAt: number): void {
    this.unnoted = this.unnoted.filter((run) => run.id !== id || run.startedAt !== startedAt)
  }

  private end(outcome: EndedRun['outcome'], now: number): void {
    this.endedAt = now
    // A load that was cancelled before its sheet lay on the mat was no run.
    if (this.startedAt === null) return
    const { id, name } = this.load!
    const passes = this.passes - this.earlier.passes
    const run = { id, name, startedAt: this.startedAt, ranS: this.ranS(), passes, outcome }
    this.unnoted = [...this.unnoted, run].slice(-MOST_UNNOTED)
  }

  /** Time of one pass, and of this run so far (s). */
  private wholeS(): number {
    return this.ends.at(-1) ?? 0
  }
  private ranS(): number {
    return (this.pass - 1) * this.wholeS() + this.seconds - this.earlier.seconds
  }

  private need(status: CutterStatus, why: string): void {
    if (this.status !== status) throw new Refusal(why)
  }

  private runShare(): number {
    const whole = this.wholeS()
    return whole > 0 ? Math.min(1, (this.pass - 1 + Math.min(1, this.seconds / whole)) / this.passes) : 0
  }

  /** Index of the move under way. */
  private current(): number {
    let low = 0
    let high = this.ends.length - 1
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.ends[middle]! > this.seconds) high = middle
      else low = middle + 1
    }
    return low
  }

  private tool(): CutterState['tool'] {
    const { heightMm } = this.load!.sheet
    const k = this.current()
    const move = this.moves[k]!
    const from = this.moves[k - 1] ?? { x: 0, y: 0 }
    const start = this.ends[k - 1] ?? 0
    const part = Math.max(0, Math.min(1, (this.seconds - start) / (this.ends[k]! - start || 1)))
    return {
      x: from.x + (move.x - from.x) * part,
      y: heightMm - from.y - (move.y - from.y) * part,
      down: move.down && this.status === 'cutting',
    }
  }

  /** Back to where the tool last came down. */
  private backToStroke(): void {
    let k = this.current()
    while (k > 0 && this.moves[k]!.down) k--
    this.seconds = this.moves[k]!.down ? 0 : this.ends[k]!
  }
}

function withoutPlot({
  id,
  name,
  tag,
  colour,
  sheet,
  setting,
  passesNeeded,
  pace,
}: CutterLoad): Omit<CutterLoad, 'plot'> {
  return { id, name, tag, colour, sheet, setting, passesNeeded, pace }
}

/** A bend of so much (radians) or more stops the tool; at one of so much it loses a moment. */
const STOPS_AT = Math.PI / 3
const LOSES_AT = Math.PI / 6

/**
 * When each move ends, as the motors go: they speed up and brake evenly, and take a bend the more slowly the sharper it is. Lifted, the
 * tool goes from rest to rest.
 */
function timesOf(moves: readonly Move[], pace: CutterLoad['pace']): Float64Array {
  const { speedMmPerS, travelMmPerS, accelMmPerS2: accel, cornerS, liftS } = pace
  const count = moves.length
  const way = moves.map((move, i) => {
    const from = moves[i - 1] ?? { x: 0, y: 0 }
    return { dx: move.x - from.x, dy: move.y - from.y, mm: Math.hypot(move.x - from.x, move.y - from.y) }
  })
  /** How fast the tool may be at the end of each move (mm/s), and what it loses there (s). */
  const exit = new Float64Array(count)
  const lost = new Float64Array(count)
  moves.forEach((move, i) => {
    const next = moves[i + 1]
    if (!move.down || !next?.down) return
    const { dx, dy } = way[i]!
    const { dx: nx, dy: ny } = way[i + 1]!
    const bend = Math.abs(Math.atan2(dx * ny - dy * nx, dx * nx + dy * ny))
    exit[i] = bend >= STOPS_AT ? 0 : speedMmPerS * (1 - bend / STOPS_AT)
    if (bend > LOSES_AT) lost[i] = cornerS
  })
  // It must be able to brake in time for all that comes.
  for (let i = count - 2; i >= 0; i--)
    if (moves[i + 1]!.down)
      exit[i] = Math.min(exit[i]!, Math.hypot(exit[i + 1]!, Math.sqrt(2 * accel * way[i + 1]!.mm)))
  const ends = new Float64Array(count)
  let seconds = 0
  let speed = 0
  moves.forEach((move, i) => {
    if (!move.down) speed = 0
    const top = move.down ? speedMmPerS : travelMmPerS
    const { mm } = way[i]!
    const wanted = Math.min(exit[i]!, Math.hypot(speed, Math.sqrt(2 * accel * mm)))
    seconds += lost[i]! + (move.down ? 0 : liftS) + stretchS({ mm, from: speed, to: wanted, top, accel })
    speed = wanted
    ends[i] = seconds
  })
  return ends
}

/** Seconds over a stretch: speeding up, going on, braking. */
function stretchS({
  mm,
  from,
  to,
  top,
  accel,
}: Record<'mm' | 'from' | 'to' | 'top' | 'accel', number>): number {
  if (mm === 0) return 0
  const up = (top * top - from * from) / (2 * accel)
  const down = (top * top - to * to) / (2 * accel)
  if (up + down <= mm) return (top - from) / accel + (top - to) / accel + (mm - up - down) / top
  const reached = Math.sqrt(accel * mm + (from * from + to * to) / 2)
  return (reached - from) / accel + (reached - to) / accel
}
