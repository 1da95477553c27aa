import { get as httpGet, request } from 'node:http'
import type { AddressInfo, Server } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createApp } from '../app'
import { commandSchemas, stateSchema } from '@feuillet/cutter-protocol'
import { Cutter, type CutterLoad, type CutterState } from './machine'
import { readPlot } from './plot'

// A square of 100 mm, 50 mm from the corner of a sheet of 200 mm.
const PLOT = 'IN;\nSP1;\nPU2000,2000;PD6000,2000,6000,6000,2000,6000,2000,2000;\nPU0,0;\nSP0;\n'
const load = (more: Partial<CutterLoad> = {}): CutterLoad => ({
  id: 'load-1',
  name: 'Harbour blue',
  tag: '5-6',
  colour: '#42598c',
  plot: PLOT,
  sheet: { widthMm: 200, heightMm: 200, rimMm: 6 },
  setting: { name: 'smooth', tack: 'medium', passes: 1 },
  passesNeeded: 1,
  // Motors that know no inertia, so that times can be told by hand.
  pace: { speedMmPerS: 50, travelMmPerS: 1e12, accelMmPerS2: 1e18, cornerS: 0, liftS: 0.5 },
  ...more,
})
// 0.5 s to the start, 400 mm at 50 mm/s, 0.5 s back.
const WHOLE_MS = 9000

describe('plot text', () => {
  it('is read as moves in mm, and refused in a sentence', () => {
    expect(readPlot(PLOT)).toHaveLength(6)
    expect(readPlot(PLOT)[1]).toEqual({ pen: 1, down: true, x: 150, y: 50 })
    expect(() => readPlot('IN;PU0,0;')).toThrow('nothing is cut in this plot')
    expect(() => readPlot('PD1,2,3;')).toThrow(/half a point/)
    expect(() => readPlot('PDx,2;')).toThrow(/is no command/)
    expect(() => readPlot('<html>')).toThrow(/is no command/)
  })
})

describe('the cutter', () => {
  it('asks for the sheet, takes only the right one, and cuts at its pace', () => {
    const cutter = new Cutter()
    cutter.take(load())
    expect(cutter.state().status).toBe('asking')
    expect(() => cutter.confirm('7', 0)).toThrow('wants the sheet tagged “5-6”')
    cutter.confirm(' 5-6 ', 0)
    cutter.tick(500 + 3000)
    const half = cutter.state()
    expect(half.status).toBe('cutting')
    // 150 mm of the way: a side and a half.
    expect(half.tool).toEqual({ x: expect.closeTo(150, 5), y: expect.closeTo(100, 5), down: true })
    // To the start, and one side.
    expect(half.movesDone).toBe(2)
    expect(half.secondsLeft).toBeCloseTo((WHOLE_MS - 3500) / 1000, 6)
    cutter.tick(WHOLE_MS)
    expect(cutter.state()).toMatchObject({
      status: 'done',
      outcome: 'cut',
      share: 1,
      movesDone: 6,
      endedAt: WHOLE_MS,
    })
  })

  it('runs up to 200 times as fast, and stands still while it is paused', () => {
    const cutter = new Cutter()
    cutter.take(load())
    cutter.setSpeed(1000, 0)
    expect(cutter.state().speed).toBe(200)
    cutter.setSpeed(2, 0)
    cutter.confirm('5-6', 0)
    cutter.pause(1000)
    const { tool } = cutter.state()
    cutter.tick(60_000)
    expect(cutter.state().tool).toEqual(tool)
    cutter.resume(60_000)
    cutter.tick(60_000 + (WHOLE_MS - 2000) / 2)
    expect(cutter.state().status).toBe('done')
  })

  it.each(['slip', 'power'] as const)(
    'loses nothing to a fault (%s): it goes on from the cut that was under way',
    (fault) => {
      const cutter = new Cutter()
      cutter.setFault(fault, true)
      cutter.take(load())
      cutter.confirm('5-6', 0)
      cutter.tick(WHOLE_MS * 3)
      expect(cutter.state().status).toBe(fault === 'slip' ? 'slipped' : 'off')
      if (fault === 'power') {
        expect(() => cutter.resume(0)).toThrow('has no power')
        cutter.powerOn()
        expect(cutter.state().status).toBe('paused')
      }
      cutter.resume(100_000)
      expect(cutter.state().tool).toMatchObject({ x: expect.closeTo(50, 6), y: expect.closeTo(150, 6) })
      cutter.tick(100_000 + WHOLE_MS)
      expect(cutter.state()).toMatchObject({ status: 'done', outcome: 'cut' })
    },
  )

  it('cuts only partly through with a worn blade or too few passes, until it goes over it again', () => {
    const cutter = new Cutter()
    cutter.setFault('blunt', true)
    cutter.take(load({ passesNeeded: 2, setting: { name: 'board', tack: 'high', passes: 2 } }))
    cutter.confirm('5-6', 0)
    cutter.tick(WHOLE_MS + 10)
    expect(cutter.state()).toMatchObject({ status: 'cutting', pass: 2 })
    cutter.tick(2 * WHOLE_MS)
    expect(cutter.state()).toMatchObject({ status: 'done', outcome: 'partly' })
    cutter.again(100_000)
    cutter.tick(100_000 + WHOLE_MS)
    expect(cutter.state()).toMatchObject({ status: 'done', outcome: 'cut', passes: 3 })
    // Two runs, neither of which counts what the other took.
    expect(cutter.state().unnoted).toEqual([
      {
        id: 'load-1',
        name: 'Harbour blue',
        startedAt: 0,
        ranS: expect.closeTo(18, 5),
        passes: 2,
        outcome: 'partly',
      },
      {
        id: 'load-1',
        name: 'Harbour blue',
        startedAt: 100_000,
        ranS: expect.closeTo(9, 5),
        passes: 1,
        outcome: 'cut',
      },
    ])
  })

  it('keeps ended runs until a page has noted them, whatever is cut meanwhile', () => {
    const cutter = new Cutter()
    cutter.take(load())
    cutter.cancel(1)
    expect(cutter.state().unnoted).toEqual([])
    for (const [k, id] of ['a', 'b'].entries()) {
      cutter.take(load({ id }))
      cutter.confirm('5-6', k * 20_000)
      cutter.tick(k * 20_000 + WHOLE_MS)
    }
    cutter.noted('a', 0)
    cutter.noted('b', 19)
    expect(cutter.state().unnoted.map((run) => run.id)).toEqual(['b'])
  })

  it('refuses what it cannot cut, and what makes no sense now', () => {
    const cutter = new Cutter()
    expect(() => cutter.take(load({ sheet: { widthMm: 900, heightMm: 300, rimMm: 6 } }))).toThrow(
      'larger than the bed',
    )
    expect(() => cutter.take(load({ sheet: { widthMm: 160, heightMm: 160, rimMm: 12 } }))).toThrow(
      'into the rim of 12 mm',
    )
    expect(() => cutter.pause(0)).toThrow('nothing is being cut')
    expect(() => cutter.cancel(0)).toThrow('nothing to cancel')
    cutter.take(load())
    cutter.confirm('5-6', 0)
    expect(() => cutter.take(load())).toThrow('cancel it first')
    cutter.cancel(10)
    expect(cutter.state().status).toBe('cancelled')
    cutter.take(load())
  })
})

describe('over HTTP', () => {
  let server: Server
  let port: number
  beforeAll(async () => {
    await new Promise<void>((done) => (server = createApp('/nowhere').listen(0, '127.0.0.1', () => done())))
    port = (server.address() as AddressInfo).port
  })
  afterAll(() => void server.close())

  const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
    new Promise<{ status: number; body: CutterState & { why?: string } }>((done, fail) => {
      const sent = request(
        {
          port,
          path: `/api/cutter${path}`,
          method: 'POST',
          headers: { 'Content-Type': 'application/json', ...headers },
        },
        (response) => {
          let text = ''
          response.on('data', (part: Buffer) => (text += part.toString()))
          response.on('end', () =>
            done({
              status: response.statusCode!,
              body: text.startsWith('{') ? JSON.parse(text) : ({ why: text } as never),
            }),
          )
        },
      )
      sent.on('error', fail)
      sent.end(typeof body === 'string' ? body : JSON.stringify(body))
    })

  it('runs a load and streams where it is', async () => {
    const seen: CutterState[] = []
    const stream = httpGet({ port, path: '/api/cutter/events' }, (response) => {
      response.on('data', (part: Buffer) => {
        for (const line of part.toString().split('\n\n'))
          if (line.startsWith('data: ')) seen.push(JSON.parse(line.slice(6)))
      })
    })
    await expect.poll(() => seen.length).toBeGreaterThan(0)
    expect((await post('/speed', { speed: 200 })).status).toBe(200)
    expect((await post('/load', load())).body.status).toBe('asking')
    expect(await post('/confirm', { id: 'load-1', tag: '1' })).toMatchObject({
      status: 409,
      body: { why: 'this load wants the sheet tagged “5-6”' },
    })
    expect((await post('/confirm', { id: 'load-1', tag: '5-6' })).body.status).toBe('cutting')
    await expect.poll(() => seen.at(-1)?.status).toBe('done')
    expect(seen.at(-1)!.load).not.toHaveProperty('plot')
    stream.destroy()
  })

  it('speaks as the protocol has it, whatever state it is in', async () => {
    const machine = new Cutter()
    const told = () => stateSchema.strict().parse(JSON.parse(JSON.stringify(machine.state())))
    expect(told().status).toBe('idle')
    machine.take(load())
    machine.confirm('5-6', 0)
    machine.tick(1000)
    expect(told().status).toBe('cutting')
    machine.tick(WHOLE_MS)
    expect(told()).toMatchObject({ status: 'done', outcome: 'cut' })
    expect(commandSchemas.load.parse(load())).toEqual(load())
  })

  it('leaves a load to the page that sent it, and does not swap one that waits', async () => {
    await post('/load', load({ id: 'mine' }))
    expect(await post('/cancel', { id: 'another' })).toMatchObject({
      status: 409,
      body: { why: expect.stringContaining('another load') as string },
    })
    expect(await post('/load', load({ id: 'another' }))).toMatchObject({
      status: 409,
      body: { why: expect.stringContaining('waits for its sheet') as string },
    })
    expect((await post('/cancel', { id: 'mine' })).body.status).toBe('cancelled')
  })

  it('refuses brackets without end at once, and pages of another port', async () => {
    expect(await post('/load', `{"plot":${'['.repeat(14_000_000)}`)).toMatchObject({ status: 400 })
    expect((await post('/speed', { speed: 2 }, { Origin: `http://127.0.0.1:${port + 1}` })).status).toBe(403)
    expect((await post('/speed', { speed: 2 }, { Origin: `http://localhost:${port}` })).status).toBe(200)
  })

  it('takes nothing that is not meant for it', async () => {
    expect(await post('/load', { id: 'x' })).toMatchObject({
      status: 400,
      body: { why: expect.stringContaining('name') },
    })
    expect(await post('/load', '{')).toMatchObject({ status: 400, body: { why: 'this is not JSON' } })
    expect((await post('/speed', { speed: 2 }, { Origin: 'http://elsewhere.example' })).status).toBe(403)
    expect((await post('/speed', 'speed=2', { 'Content-Type': 'text/plain' })).status).toBe(400)
    expect((await post('/nothing', {})).status).toBe(404)
    expect(await post('/load', `{"plot":"${'x'.repeat(17_000_000)}"}`)).toMatchObject({ status: 413 })
  })
})
