// Serves the built application on this machine only. Host and Origin are checked, so that no page elsewhere can talk to it.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { cutterRoutes } from './cutter/routes'
import express, { type Express, type NextFunction, type Request, type Response } from 'express'

const LOCAL = new Set(['127.0.0.1', 'localhost'])

/** Host and port of an address; nothing where it is none. */
const placeOf = (value: string): { hostname: string; host: string } | null => {
  try {
    return new URL(value.includes('://') ? value : `http://${value}`)
  } catch {
    return null
  }
}

/** Only this machine is answered, and of pages only those of this very server: another port is another page. */
function localOnly(request: Request, response: Response, next: NextFunction): void {
  const { host = '', origin } = request.headers
  const here = placeOf(host)
  const local = here !== null && LOCAL.has(here.hostname)
  if (!local || (origin !== undefined && placeOf(origin)?.host !== here.host)) {
    response.status(403).type('text').send('Feuillet answers this machine only.')
    return
  }
  next()
}

/** A trouble in one sentence: no stack, no path of this machine. */
function inASentence(error: { status?: number }, _: Request, response: Response, next: NextFunction): void {
  if (response.headersSent) return next(error)
  const status = error.status ?? 500
  const words =
    status === 404
      ? 'There is nothing here.'
      : status < 500
        ? 'This address cannot be read.'
        : 'Something in the local server went wrong.'
  response.status(status).type('text').send(words)
}

/**
 * The application on the files of `dist`; every path that names no file gets the page, which routes it. With `demo` the
 * shelf is asked to stand the demo projects on itself at the first visit.
 */
export function createApp(dist: string, demo = false): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(localOnly)
  app.use((request, response, next) => {
    // The clipper's binding builds its call stubs at run time: in workers, which no foreign text reaches as script.
    const stubs = /\.worker-[\w-]+\.js$/.test(request.path) ? " 'unsafe-eval'" : ''
    response.setHeader(
      'Content-Security-Policy',
      `default-src 'self'; script-src 'self' 'wasm-unsafe-eval'${stubs}; worker-src 'self' blob:; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; connect-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'`,
    )
    response.setHeader('X-Content-Type-Options', 'nosniff')
    response.setHeader('Referrer-Policy', 'no-referrer')
    next()
  })
  app.use('/api/cutter', cutterRoutes())
  app.use(
    '/api',
    (error: { status?: number; type?: string }, _: Request, response: Response, next: NextFunction) => {
      if (response.headersSent) return next(error)
      const why =
        error.type === 'entity.too.large'
          ? 'this is more than the cutter takes'
          : error.status === 400
            ? 'this is not JSON'
            : 'something in the cutter went wrong'
      response.status(error.status ?? 500).json({ why })
    },
  )
  app.use('/api', (_, response) => void response.status(404).json({ why: 'there is nothing here' }))
  if (demo)
    app.get('/', (request, response, next) => {
      if ('demo' in request.query) next()
      else response.redirect('/?demo')
    })
  app.use(
    '/assets',
    express.static(join(dist, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  )
  app.use(express.static(dist))
  app.get('/{*splat}', (_, response) => {
    const page = join(dist, 'index.html')
    if (existsSync(page)) response.sendFile(page)
    else response.status(503).type('text').send('The application is not built yet: npm run build.')
  })
  app.use(inASentence)
  return app
}
