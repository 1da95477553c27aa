import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import ICAL from 'ical.js'
import { writeIcs } from '../../io/write'
import { ifMissed, overEvenings, readTimeOfDay, readWallClock, wallClock, type Evenings } from './evenings'
import { schedule, type Task } from './index'

const task = (id: string, minutes: number, more: Partial<Task> = {}): Task => ({
  id,
  kind: 'lay',
  title: id,
  detail: '',
  caution: null,
  after: [],
  needs: ['hands'],
  minutes,
  layerId: null,
  loadId: null,
  ...more,
})
/** A Sunday at six in the evening. */
const BY = readWallClock('2026-12-20T18:00')!
const when = (more: Partial<Evenings> = {}): Evenings => ({
  byMin: BY,
  fromMin: 19 * 60,
  toMin: 21 * 60 + 30,
  days: [1, 3, 6],
  ...more,
})

describe('evenings', () => {
  it('begin as late as will do: two of 100 minutes go on Wednesday and Saturday', () => {
    const plan = overEvenings(schedule([task('a', 100), task('b', 100, { after: ['a'] })]), when())
    expect(plan.steps.map(({ step, startAt }) => [step.id, wallClock(startAt)])).toEqual([
      ['a', '2026-12-16T19:00:00'],
      ['b', '2026-12-19T19:00:00'],
    ])
    expect(wallClock(plan.readyAt)).toBe('2026-12-19T20:40:00')
    expect(plan.slackMin).toBe(21 * 60 + 20)
  })

  it('say which evening may be missed', () => {
    const steps = schedule([task('a', 100), task('b', 100, { after: ['a'] })])
    const late = overEvenings(steps, when())
    // Wednesday and Saturday are the last two: without either it is not ready on Sunday.
    expect(ifMissed(steps, when(), late).map(({ readyAt }) => readyAt)).toEqual([null, null])
    // Every evening: Friday and Saturday; a plan begun a day sooner could miss one.
    const daily = when({ days: [0, 1, 2, 3, 4, 5, 6] })
    const early = overEvenings(steps, { ...daily, byMin: BY - 1440 })
    expect(ifMissed(steps, daily, early).map(({ readyAt }) => readyAt && wallClock(readyAt))).toEqual([
      '2026-12-19T20:40:00',
      '2026-12-19T20:40:00',
    ])
  })

  it('end on no wet joint, and let dry overnight what only dries', () => {
    // 120 of the 150 minutes are gone: gluing fits, but not until it holds.
    const steps = schedule([
      task('a', 120),
      task('glue-x', 20, { kind: 'glue', after: ['a'] }),
      task('hold-x', 30, { kind: 'dry', after: ['glue-x'], needs: [] }),
      task('dry', 600, { kind: 'dry', after: ['glue-x'], needs: [] }),
      task('mount', 10, { after: ['dry', 'hold-x'] }),
    ])
    const plan = overEvenings(steps, when())
    const at = (id: string) => plan.steps.find(({ step }) => step.id === id)!
    expect(wallClock(at('a').startAt)).toBe('2026-12-14T19:00:00')
    expect(wallClock(at('glue-x').startAt)).toBe('2026-12-16T19:00:00')
    expect(at('hold-x').endAt).toBeLessThanOrEqual(plan.evenings[1]!.fromAt + 150)
    expect(at('dry').startAt).toBe(at('glue-x').endAt)
    expect(wallClock(at('mount').startAt)).toBe('2026-12-19T19:00:00')
  })

  it('are refused in a sentence where a step is too long, or nothing is early enough', () => {
    expect(() => overEvenings(schedule([task('a', 200)]), when())).toThrow(
      /“a” takes 200 min.*longer than an evening/,
    )
    expect(() => overEvenings(schedule([task('a', 20)]), when({ days: [] }))).toThrow(/day of the week/)
    const many = Array.from({ length: 400 }, (_, k) =>
      task(`s${k}`, 140, { after: k > 0 ? [`s${k - 1}`] : [] }),
    )
    expect(() => overEvenings(schedule(many), when())).toThrow(/not enough evenings/)
  })

  it('keep precedence, one pair of hands and the hours, whatever the work', () => {
    const works = fc.array(
      fc.record({
        minutes: fc.integer({ min: 1, max: 90 }),
        back: fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 3 }),
        needs: fc.constantFrom<Task['needs']>(['hands'], ['cutter'], [], ['hands', 'cutter']),
      }),
      { minLength: 1, maxLength: 14 },
    )
    fc.assert(
      fc.property(works, (list) => {
        const tasks = list.map(({ minutes, back, needs }, k) =>
          task(`t${k}`, minutes, { needs, after: back.filter((b) => b <= k).map((b) => `t${k - b}`) }),
        )
        const { steps, readyAt } = overEvenings(schedule(tasks), when())
        expect(steps).toHaveLength(tasks.length)
        expect(readyAt).toBeLessThanOrEqual(BY)
        const endOf = new Map(steps.map(({ step, endAt }) => [step.id, endAt]))
        for (const { step, startAt, endAt } of steps) {
          for (const id of step.after) expect(startAt).toBeGreaterThanOrEqual(endOf.get(id)! - 1e-6)
          if (step.needs.length === 0) continue
          const day = Math.floor(startAt / 1440) * 1440
          expect([1, 3, 6]).toContain(new Date(startAt * 60_000).getUTCDay())
          expect(startAt - day).toBeGreaterThanOrEqual(19 * 60)
          expect(endAt - day).toBeLessThanOrEqual(21 * 60 + 30 + 1e-6)
          for (const other of steps)
            if (other.step !== step && other.step.needs.some((r) => step.needs.includes(r)))
              expect(other.startAt >= endAt - 1e-6 || other.endAt <= startAt + 1e-6).toBe(true)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('are read from and written as a clock on the wall tells them', () => {
    expect(wallClock(readWallClock('2026-03-29T02:30')!)).toBe('2026-03-29T02:30:00')
    expect(readWallClock('tomorrow')).toBeNull()
    expect(readTimeOfDay('19:05')).toBe(1145)
    expect(readTimeOfDay('25:00')).toBeNull()
  })

  it('go into a calendar that another library reads', () => {
    const fromAt = readWallClock('2026-12-16T19:00')!
    const text = writeIcs(
      [
        {
          uid: 'p-1@feuillet',
          title: 'Harbour, evening 1; “first”',
          text: 'Cut load 1, then\nweed it',
          fromAt,
          toAt: fromAt + 95,
        },
      ],
      'Harbour',
    )
    const [event] = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent')
    const read = new ICAL.Event(event!)
    expect(read.summary).toBe('Harbour, evening 1; “first”')
    expect(read.description).toBe('Cut load 1, then\nweed it')
    expect([read.startDate.toString(), read.endDate.toString()]).toEqual([
      '2026-12-16T19:00:00',
      '2026-12-16T20:35:00',
    ])
    expect(read.uid).toBe('p-1@feuillet')
  })
})
