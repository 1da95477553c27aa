// The cutter over HTTP: commands as JSON, its state as server-sent events.
import { commandSchemas, type CommandBody, type CutterCommand } from '@feuillet/cutter-protocol'
import { json, Router, type Request, type Response } from 'express'
import { Cutter, Refusal } from './machine'

/** Between two reports of a run, ms. */
const TICK_MS = 100

/** The cutter's addresses, under whatever path they are hung. */
export function cutterRoutes(cutter = new Cutter()): Router {
  const router = Router()
  const listeners = new Set<Response>()
  let timer: NodeJS.Timeout | null = null
  const tell = () => {
    const event = `data: ${JSON.stringify(cutter.state())}\n\n`
    for (const listener of listeners) listener.write(event)
  }
  const run = () => {
    const cutting = cutter.state().status === 'cutting'
    if (cutting && !timer)
      timer = setInterval(() => {
        cutter.tick(Date.now())
        tell()
        run()
      }, TICK_MS)
    if (!cutting && timer) {
      clearInterval(timer)
      timer = null
    }
  }
  // Only JSON is taken: no form of a foreign page can send it unasked.
  router.use(json({ limit: '16mb', type: 'application/json', verify: refuseDeep }))
  router.get('/', (_, response) => {
    cutter.tick(Date.now())
    response.json(cutter.state())
  })
  router.get('/events', (request, response) => {
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' })
    listeners.add(response)
    response.write(`data: ${JSON.stringify(cutter.state())}\n\n`)
    request.on('close', () => listeners.delete(response))
  })
  const command = <Name extends CutterCommand>(name: Name, act: (body: CommandBody<Name>) => void) =>
    router.post(`/${name}`, (request: Request, response: Response) => {
      const body = commandSchemas[name].safeParse(request.body ?? {})
      if (!body.success) {
        const issue = body.error.issues[0]!
        response.status(400).json({ why: `${issue.path.join('.') || 'the request'}: ${issue.message}` })
        return
      }
      try {
        act(body.data as CommandBody<Name>)
      } catch (error) {
        if (!(error instanceof Refusal)) throw error
        response.status(409).json({ why: error.message })
        return
      }
      run()
      tell()
      response.json(cutter.state())
    })
  /** A command about a load, which must be the one that the machine has. */
  const onLoad = (name: 'pause' | 'resume' | 'cancel' | 'again', act: (now: number) => void) =>
    command(name, ({ id }) => {
      cutter.mustBe(id)
      act(Date.now())
    })
  command('load', (load) => cutter.take(load))
  command('confirm', ({ id, tag }) => {
    cutter.mustBe(id)
    cutter.confirm(tag, Date.now())
  })
  onLoad('pause', (now) => cutter.pause(now))
  onLoad('resume', (now) => cutter.resume(now))
  onLoad('cancel', (now) => cutter.cancel(now))
  onLoad('again', (now) => cutter.again(now))
  command('noted', ({ id, startedAt }) => cutter.noted(id, startedAt))
  command('power', () => cutter.powerOn())
  command('speed', ({ speed }) => cutter.setSpeed(speed, Date.now()))
  command('fault', ({ fault, on }) => cutter.setFault(fault, on))
  return router
}

/** Brackets in each other beyond any command take seconds to be read in vain: they are refused by sight. */
function refuseDeep(_request: unknown, _response: unknown, body: Buffer): void {
  let depth = 0
  let quoted = false
  for (let i = 0; i < body.length; i++) {
    const c = body[i]
    if (quoted) {
      if (c === 0x5c) i++
      else if (c === 0x22) quoted = false
    } else if (c === 0x22) quoted = true
    else if (c === 0x7b || c === 0x5b) {
      if (++depth > MOST_DEPTH) throw Object.assign(new Error('nested too deeply'), { status: 400 })
    } else if (c === 0x7d || c === 0x5d) depth--
  }
}

const MOST_DEPTH = 8
