// The cutter over HTTP: commands as JSON, its state as server-sent events.
import { json, Router, type Request, type Response } from 'express'
import { z } from 'zod'
import { Cutter, Refusal } from './machine'

const mm = z.number().finite().positive().max(5000)
const loadSchema = z.object({
  id: z.string().min(1).max(200),
  name: z.string().max(200),
  tag: z.string().min(1).max(60),
  colour: z.string().regex(/^#[0-9a-f]{6}$/i),
  plot: z.string().max(12_000_000),
  sheet: z.object({ widthMm: mm, heightMm: mm, rimMm: z.number().min(0).max(100) }),
  setting: z.object({
    name: z.string().max(100),
    tack: z.string().max(20),
    passes: z.number().int().min(1).max(20),
  }),
  passesNeeded: z.number().int().min(1).max(20),
  pace: z.object({
    speedMmPerS: z.number().positive().max(2000),
    cornerS: z.number().min(0).max(10),
    liftS: z.number().min(0).max(60),
  }),
})
const faultSchema = z.object({ fault: z.enum(['slip', 'blunt', 'power']), on: z.boolean() })

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
  router.use(json({ limit: '16mb', type: 'application/json' }))
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
  const command = <T>(path: string, schema: z.ZodType<T>, act: (body: T) => void) =>
    router.post(path, (request: Request, response: Response) => {
      const body = schema.safeParse(request.body ?? {})
      if (!body.success) {
        const issue = body.error.issues[0]!
        response.status(400).json({ why: `${issue.path.join('.') || 'the request'}: ${issue.message}` })
        return
      }
      try {
        act(body.data)
      } catch (error) {
        if (!(error instanceof Refusal)) throw error
        response.status(409).json({ why: error.message })
        return
      }
      run()
      tell()
      response.json(cutter.state())
    })
  const nothing = z.object({})
  command('/load', loadSchema, (load) => cutter.take(load))
  command('/confirm', z.object({ tag: z.string().max(60) }), ({ tag }) => cutter.confirm(tag, Date.now()))
  command('/pause', nothing, () => cutter.pause(Date.now()))
  command('/resume', nothing, () => cutter.resume(Date.now()))
  command('/cancel', nothing, () => cutter.cancel(Date.now()))
  command('/again', nothing, () => cutter.again(Date.now()))
  command('/power', nothing, () => cutter.powerOn())
  command('/speed', z.object({ speed: z.number().min(1).max(200) }), ({ speed }) =>
    cutter.setSpeed(speed, Date.now()),
  )
  command('/fault', faultSchema, ({ fault, on }) => cutter.setFault(fault, on))
  return router
}
