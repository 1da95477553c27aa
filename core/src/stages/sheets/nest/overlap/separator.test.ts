import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { star } from '../../../../../test/arbitrary'
import { expectLegal } from '../../../../../test/legal-layout'
import { piece } from '../../../../../test/nest-piece'
import { overlapOf } from '../../../../../test/overlap'
import {
  ellipse,
  intersect,
  mapPolygon,
  offset,
  polygonBox,
  rectangle,
  regionArea,
  rotation,
  subtract,
  type Polygon,
} from '../../../../base/geometry'
import { seededRandom } from '../../../../base'
import { nearest } from '../exact/clearance'
import { makeField, type Field, type Spot } from './field'
import { newBody, pushInto, turnTo, type Body } from './body'
import { OverlapKernel } from './kernel'
import { Improver } from './improver'
import type { NestInstance, Turns } from '../instance'
import { Nester } from '../nester'
import { atOnce } from '../parts'
import { Separator } from './separator'

const place = (shape: Polygon, [x, y]: readonly [number, number], deg: number): Polygon =>
  mapPolygon([1, 0, 0, 1, x, y], mapPolygon(rotation(deg), shape))
const middle = (shape: Polygon) => makeField(shape, 3)
const move = fc.record({
  x: fc.double({ min: -60, max: 60, noNaN: true }),
  y: fc.double({ min: -60, max: 60, noNaN: true }),
  deg: fc.integer({ min: 0, max: 359 }),
})

describe('the distance between pieces', () => {
  it('is where growing one by it makes it touch the other', () => {
    fc.assert(
      fc.property(star(25), star(25), move, (a, b, at) => {
        const other = place(b, [at.x, at.y], at.deg)
        const near = nearest(a, other, 20)
        const overlap = regionArea(intersect([a], [other]))
        if (near?.mm === 0) {
          expect(regionArea(intersect(offset([a], 0.02), [other]))).toBeGreaterThan(0)
          return
        }
        expect(overlap).toBeLessThan(1e-6)
        if (!near) {
          expect(regionArea(intersect(offset([a], 19.9), [other]))).toBeLessThan(1e-6)
          return
        }
        expect(regionArea(intersect(offset([a], near.mm - 0.03), [other]))).toBe(0)
        expect(regionArea(intersect(offset([a], near.mm + 0.03), [other]))).toBeGreaterThan(0)
        // Moving it apart along the way that is given makes room.
        const parted = nearest(mapPolygon([1, 0, 0, 1, near.nx * 0.2, near.ny * 0.2], a), other, 30)
        expect(parted!.mm).toBeGreaterThan(near.mm + 0.05)
      }),
      { numRuns: 80 },
    )
  })

  it('sees a piece that lies whole in another, and one in its opening', () => {
    const ring = subtract([rectangle([0, 0], 100, 100)], [rectangle([20, 20], 60, 60)])[0]!
    expect(nearest(rectangle([0, 0], 100, 100), rectangle([40, 40], 5, 5), 1)?.mm).toBe(0)
    expect(nearest(ring, rectangle([23, 40], 5, 5), 10)?.mm).toBeCloseTo(3, 9)
    expect(nearest(ring, rectangle([23, 40], 5, 5), 2)).toBeNull()
  })
})

describe('distance fields', () => {
  it('tell overlap from clearance as exact cutting does', () => {
    fc.assert(
      fc.property(star(25), star(25), move, (a, b, at) => {
        const [fa, fb] = [middle(a), middle(b)]
        const [cos, sin] = rotation(at.deg)
        const spotB = { x: at.x, y: at.y, cos, sin }
        const other = place(
          b,
          [at.x - cos * fb.midX + sin * fb.midY, at.y - sin * fb.midX - cos * fb.midY],
          at.deg,
        )
        const own = mapPolygon([1, 0, 0, 1, -fa.midX, -fa.midY], a)
        const found = overlapOf([fa, { x: 0, y: 0, cos: 1, sin: 0 }], [fb, spotB], 2)
        const mm = nearest(own, other, 6)?.mm ?? 6
        if (mm < 1.4) expect(found).toBeGreaterThan(0)
        if (mm > 2.5) expect(found).toBe(0)
      }),
      { numRuns: 150 },
    )
  })
})

describe('the kernel', () => {
  /** How far its measure (mm²) may be off: distances are whole units of two bytes, places have four. */
  const blur = (...fields: Field[]) =>
    0.01 * fields.reduce((sum, { reach }) => sum + reach.reduce((a, b) => a + b), 0)
  const bodyAt = (
    piece: number,
    field: Field,
    { x, y, deg }: { x: number; y: number; deg: number },
  ): Body => {
    const body = newBody(piece, 0)
    body.x = x
    body.y = y
    turnTo(body, deg, field)
    return body
  }
  const room = { sheet: 0, minX: -200, minY: -200, maxX: 200, maxY: 200, walls: [] }
  const gap = 2

  it('says of any pieces what the measure says point by point, as they lie and anywhere else', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(star(25), move), { minLength: 2, maxLength: 7 }),
        move,
        (list, elsewhere) => {
          const fields = list.map(([shape]) => makeField(shape, gap + 1))
          const bodies = list.map(([, at], k) => bodyAt(k, fields[k]!, at))
          const kernel = new OverlapKernel(bodies.length)
          kernel.setGaps({ between: gap, toWall: 0, wallWeight: 1 })
          kernel.begin(bodies, [room], fields)
          Array.from(kernel.putAll(bodies))
          const probe = bodyAt(0, fields[0]!, elsewhere)
          const measured = (at: Spot) =>
            bodies.slice(1).map((other, k) => overlapOf([fields[0]!, at], [fields[k + 1]!, other], gap))
          for (const at of [bodies[0]!, probe]) {
            const [found, parts] = [kernel.loss(0, at, Infinity), measured(at)]
            const least = parts.reduce(
              (sum, mm) => sum + Math.sqrt(Math.max(0, mm * mm - blur(...fields))),
              0,
            )
            const most = parts.reduce((sum, mm) => sum + Math.sqrt(mm * mm + blur(...fields)), 0)
            expect(found).toBeGreaterThanOrEqual(least)
            expect(found).toBeLessThanOrEqual(most)
            // A limit below it stops it, one above does not.
            if (found > 0.1) expect(kernel.loss(0, at, found * 0.99)).toBe(Infinity)
            expect(kernel.loss(0, at, found * 1.01 + 0.01)).toBeCloseTo(found, 3)
          }
          // What was put is known without being asked for again.
          kernel.put(0, probe)
          expect(kernel.standing(0)).toBeCloseTo(kernel.loss(0, probe, Infinity), 3)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('counts overlaps by the heft of both', () => {
    const fields = [20, 30].map((side) => makeField(rectangle([0, 0], side, side), gap + 1))
    const bodies = fields.map((field, k) => bodyAt(k, field, { x: 15 * k, y: 0, deg: 0 }))
    const kernel = new OverlapKernel(2)
    kernel.setGaps({ between: gap, toWall: 0, wallWeight: 1 })
    const measured = ([a, b]: readonly [number, number]) => {
      kernel.setHeft(fields[0]!, a)
      kernel.setHeft(fields[1]!, b)
      kernel.begin(bodies, [room], fields)
      Array.from(kernel.putAll(bodies))
      const found = kernel.loss(0, bodies[0]!, Infinity)
      expect(kernel.standing(1)).toBeCloseTo(found, 4)
      expect(kernel.loss(0, bodies[0]!, found * 0.99)).toBe(Infinity)
      expect(kernel.loss(0, bodies[0]!, found * 1.01)).toBeCloseTo(found, 4)
      return found
    }
    const plain = measured([1, 1])
    expect(plain).toBeGreaterThan(1)
    expect(measured([1.5, 0.4]) / plain).toBeCloseTo(0.6, 4)
    expect(measured([2, 3]) / plain).toBeCloseTo(6, 3)
  })

  it('moves a piece to where it costs less, told as it is, within a room, turned only as it may be', () => {
    const rooms = [-1, 1].map((side) => ({
      ...room,
      minX: side * 60 - 50,
      minY: -50,
      maxX: side * 60 + 50,
      maxY: 50,
    }))
    const few = [0, 90, 180, 270]
    let [better, turned, elsewhere] = [0, 0, 0]
    fc.assert(
      fc.property(
        fc.array(fc.tuple(star(25), move), { minLength: 3, maxLength: 9 }),
        fc.constantFrom(...(['free', 'quarter', 'fixed'] as const)),
        fc.integer(),
        (list, turns, seed) => {
          const fields = list.map(([shape]) => makeField(shape, gap + 1))
          const bodies = list.map(([, { x, y }], k) => bodyAt(k, fields[k]!, { x, y, deg: 0 }))
          for (const body of bodies) expect(pushInto(body, rooms[0]!)).toBe(true)
          const kernel = new OverlapKernel(bodies.length, seed)
          fields.forEach((field, k) => {
            const may = turns === 'fixed' ? [0] : few
            const asTurned = may.map((deg) => bodyAt(k, field, { x: 0, y: 0, deg }))
            kernel.setTurning(k, { turns: asTurned, straight: 0, free: turns === 'free' })
          })
          kernel.setGaps({ between: gap, toWall: 0, wallWeight: 1 })
          kernel.begin(bodies, rooms, fields)
          Array.from(kernel.putAll(bodies))
          const cost = kernel.standing(0)
          const to = kernel.move(0, bodies[0]!, { cost })
          // In the other room is nothing at all: whatever overlaps finds a place that is free.
          if (cost === 0) return
          better++
          expect(to!.loss).toBe(0)
          expect(kernel.loss(0, to!, Infinity)).toBe(0)
          if (to!.turn !== 0) turned++
          if (to!.room === 1) elsewhere++
          if (turns !== 'free') expect(turns === 'fixed' ? [0] : few).toContain(to!.turn)
          const as = bodyAt(0, fields[0]!, { x: to!.x, y: to!.y, deg: to!.turn })
          for (const side of ['cos', 'sin', 'left', 'right', 'up', 'down'] as const)
            expect(to![side]).toBeCloseTo(as[side], 9)
          const { minX, maxX, minY, maxY } = rooms[to!.room]!
          expect(to!.x + to!.left).toBeGreaterThanOrEqual(minX)
          expect(to!.x + to!.right).toBeLessThanOrEqual(maxX)
          expect(to!.y + to!.up).toBeGreaterThanOrEqual(minY)
          expect(to!.y + to!.down).toBeLessThanOrEqual(maxY)
        },
      ),
      { numRuns: 80 },
    )
    expect(better).toBeGreaterThan(30)
    expect(turned).toBeGreaterThan(10)
    expect(elsewhere).toBeGreaterThan(10)
  })

  it('goes down to what is told of it where no place is free', () => {
    const field = makeField(rectangle([0, 0], 20, 20), gap + 1)
    const crowd = [-21, 0, 0, 21].map((x) => bodyAt(0, field, { x, y: 0, deg: 0 }))
    const narrow = { ...room, minX: -33, minY: -11, maxX: 33, maxY: 11 }
    const kernel = new OverlapKernel(4)
    kernel.setTurning(0, { turns: [crowd[1]!], straight: 0, free: false })
    kernel.setGaps({ between: gap, toWall: 0, wallWeight: 1 })
    kernel.begin(crowd, [narrow], [field])
    Array.from(kernel.putAll(crowd))
    const cost = kernel.standing(1)
    const to = kernel.move(1, crowd[1]!, { cost })!
    expect(to.loss).toBeGreaterThan(0)
    expect(to.loss).toBeLessThan(cost)
    expect(to.loss).toBeCloseTo(kernel.loss(1, to, Infinity), 4)
  })

  it('takes a place that is handed in where it is the best', () => {
    const field = makeField(rectangle([0, 0], 30, 4), gap + 1)
    const both = [bodyAt(0, field, { x: 0, y: 0, deg: 0 }), bodyAt(0, field, { x: 3, y: 1, deg: 0 })]
    const narrow = { ...room, minX: -17, minY: -3, maxX: 17, maxY: 3 }
    // Holds it turned only, which it may not be by itself.
    const upright = { ...room, minX: 100, minY: 0, maxX: 105, maxY: 31 }
    const kernel = new OverlapKernel(2)
    kernel.setTurning(0, { turns: [both[0]!], straight: 0, free: false })
    kernel.setGaps({ between: gap, toWall: 0, wallWeight: 1 })
    kernel.begin(both, [narrow, upright], [field])
    Array.from(kernel.putAll(both))
    const cost = kernel.standing(0)
    const place = { ...bodyAt(0, field, { x: 102, y: 16, deg: 90 }), room: 1 }
    expect(kernel.move(0, both[0]!, { cost })?.loss).not.toBe(0)
    expect(kernel.move(0, both[0]!, { cost, beside: [place] })).toMatchObject({ loss: 0, room: 1, turn: 90 })
  })

  it('makes dearer what overlaps, and forgets it once it is clear', () => {
    const field = makeField(rectangle([0, 0], 20, 20), gap + 1)
    const [left, right] = [
      bodyAt(0, field, { x: 0, y: 0, deg: 0 }),
      bodyAt(0, field, { x: 15, y: 0, deg: 0 }),
    ]
    const kernel = new OverlapKernel(2)
    kernel.setGaps({ between: gap, toWall: 0, wallWeight: 1 })
    kernel.begin([left, right], [room], [field])
    Array.from(kernel.putAll([left, right]))
    const weighing = { forget: 0.5, grow: 2, growMore: 1, most: 5 }
    const [plain, total] = [kernel.standing(0), kernel.weigh(weighing)]
    expect(total).toBeCloseTo(plain, 4)
    expect(kernel.standing(1)).toBeCloseTo(3 * plain, 3)
    kernel.weigh(weighing)
    expect(kernel.standing(1)).toBeCloseTo(5 * plain, 3)
    right.x = 40
    kernel.put(1, right)
    expect(kernel.weigh(weighing)).toBe(0)
    right.x = 15
    kernel.put(1, right)
    expect(kernel.standing(0)).toBeCloseTo(2.5 * plain, 3)
  })

  it('measures a turned box as its corners do', () => {
    fc.assert(
      fc.property(star(25), fc.double({ min: -720, max: 720, noNaN: true }), (shape, deg) => {
        const field = makeField(shape, 1)
        const { left, right, up, down } = bodyAt(0, field, { x: 0, y: 0, deg })
        const box = polygonBox(place(shape, [0, 0], deg))
        expect(right - left).toBeCloseTo(box.maxX - box.minX, 9)
        expect(down - up).toBeCloseTo(box.maxY - box.minY, 9)
        expect(bodyAt(0, field, { x: 0, y: 0, deg: 0 }).right).toBeCloseTo(
          polygonBox(shape).maxX - field.midX,
          9,
        )
      }),
    )
  })
})

describe('taking card away and parting what overlaps', () => {
  const sheet = { w: 150, h: 150, margin: 4 }
  const search = (instance: NestInstance, steps: number) => {
    const nester = new Nester(instance, 1)
    const first = nester.best
    const improver = new Improver(instance, seededRandom(7))
    let best = first
    for (let k = 0; k < steps; k++) best = improver.step(best) ?? best
    return { first, best }
  }

  it('stays legal for any stars, turns and gaps, and never gets worse', () => {
    fc.assert(
      fc.property(
        fc.array(star(24), { minLength: 3, maxLength: 8 }),
        fc.constantFrom<Turns>('free', 'quarter', 'fixed'),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (shapes, turns, gap) => {
          const instance: NestInstance = {
            sheet,
            gap,
            pieces: shapes.map((shape, i) => piece(`s${i}`, shape, { qty: 1 + (i % 2), turns })),
          }
          const { first, best } = search(instance, 60)
          expectLegal(instance, best)
          expect(best.score).toBeLessThanOrEqual(first.score)
        },
      ),
      { numRuns: 10 },
    )
  })

  it('finds what no order of laying finds: four discs in the opening of a frame', () => {
    const frame = subtract([rectangle([0, 0], 140, 140)], [rectangle([5, 5], 130, 130)])[0]!
    const instance: NestInstance = {
      sheet,
      gap: 2,
      pieces: [
        piece('frame', frame, { qty: 1, turns: 'fixed' }),
        piece('disc', ellipse([0, 0], 29.5), { qty: 4 }),
      ],
    }
    const { first, best } = search(instance, 400)
    expect(first.sheets).toBe(2)
    expect(best.sheets).toBe(1)
    expectLegal(instance, best)
  })

  it('leaves what is pinned where it lies', () => {
    const pin = { id: 'a', copy: 0, sheet: 0, x: 70, y: 60, rotation: 45 }
    const instance: NestInstance = {
      sheet,
      gap: 2,
      pieces: [piece('a', rectangle([-20, -10], 40, 20)), piece('b', ellipse([0, 0], 22), { qty: 6 })],
      pinned: [pin],
    }
    const { best } = search(instance, 80)
    expect(best.placements.find((p) => p.id === 'a')).toEqual(pin)
    expectLegal(instance, best)
  })
})

describe('an attempt that throws pieces', () => {
  it('throws as many as are asked for, one and those beside it, never what is pinned', () => {
    const ids = ['a', 'b', 'c', 'd', 'e', 'f']
    const instance: NestInstance = {
      sheet: { w: 3000, h: 3000, margin: 10 },
      gap: 1,
      pieces: ids.map((id) => piece(id, ellipse([0, 0], 5))),
      pinned: [{ id: 'f', copy: 0, sheet: 0, x: 100, y: 20, rotation: 0 }],
    }
    const placements = ids.map((id, k) => ({ id, copy: 0, sheet: 0, x: 20 + 16 * k, y: 20, rotation: 0 }))
    const room = { sheet: 0, minX: 10, minY: 10, maxX: 2990, maxY: 2990, walls: [] }
    for (let seed = 1; seed <= 20; seed++)
      for (const thrown of [0, 2, 3]) {
        const separator = atOnce(Separator.of(instance, seededRandom(seed)))
        expect(separator.start(placements, [room], { thrown })).toBe(true)
        const lies = atOnce(separator.proved())!
        const moved = lies.flatMap((p, k) => (Math.abs(p.x - placements[k]!.x) > 0.1 ? [k] : []))
        expect(moved).toHaveLength(thrown)
        expect(moved).not.toContain(5)
        // One and its nearest: no gap between them larger than the one that is thrown leaves.
        if (thrown > 0) expect(moved.at(-1)! - moved[0]!).toBeLessThanOrEqual(thrown)
      }
  })
})
