import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import type { AddressInfo, Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createApp } from './app'

const dist = mkdtempSync(join(tmpdir(), 'feuillet-dist-'))
let server: Server
let demo: Server

beforeAll(async () => {
  mkdirSync(join(dist, 'assets'))
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>Feuillet</title>')
  writeFileSync(join(dist, 'assets', 'app-1.js'), '')
  writeFileSync(join(dist, 'assets', 'compute.worker-1.js'), '')
  const start = (app: ReturnType<typeof createApp>) =>
    new Promise<Server>((done) => void (server = app.listen(0, '127.0.0.1', () => done(server))))
  demo = await start(createApp(dist, true))
  server = await start(createApp(dist))
})
afterAll(() => {
  server.close()
  demo.close()
  rmSync(dist, { recursive: true, force: true })
})

const get = (path: string, headers: Record<string, string> = {}, from = server) =>
  new Promise<{ status: number; headers: Record<string, string>; text: string }>((done, fail) => {
    const { port } = from.address() as AddressInfo
    request({ host: '127.0.0.1', port, path, headers }, (response) => {
      let text = ''
      response.on('data', (chunk: Buffer) => (text += chunk.toString()))
      response.on('end', () =>
        done({ status: response.statusCode!, headers: response.headers as Record<string, string>, text }),
      )
    })
      .on('error', fail)
      .end()
  })

describe('the server', () => {
  it('gives the page for every address of the application, and no page for a missing file', async () => {
    expect((await get('/')).text).toContain('Feuillet')
    expect((await get('/project/abc/sheets')).text).toContain('Feuillet')
    expect((await get('/assets/gone.js')).status).toBe(404)
  })

  it('says what is wrong in a sentence, without paths or stacks', async () => {
    for (const path of ['/%E0%A4%A', '/assets/%c0%ae%c0%ae/app', '/assets/gone.js']) {
      const { status, text } = await get(path)
      expect(status).toBeGreaterThanOrEqual(400)
      expect(text).toMatch(/^[A-Z][^\n]*\.$/)
      expect(text).not.toMatch(/node_modules| at |\/src\//)
    }
  })

  it('answers this machine only', async () => {
    expect((await get('/', { host: 'elsewhere.example' })).status).toBe(403)
    expect((await get('/', { origin: 'https://elsewhere.example' })).status).toBe(403)
    expect((await get('/', { origin: 'null' })).status).toBe(403)
    expect((await get('/', { host: 'localhost:4173', origin: 'http://localhost:4173' })).status).toBe(200)
  })

  it('lets the page load nothing from elsewhere and run no text as script', async () => {
    const policy = (await get('/')).headers['content-security-policy']!
    expect(policy).toContain("default-src 'self'")
    expect(policy).not.toContain("'unsafe-eval'")
    expect((await get('/assets/app-1.js')).headers['content-security-policy']).not.toContain("'unsafe-eval'")
    expect((await get('/')).headers['x-powered-by']).toBeUndefined()
  })

  it('asks the shelf for the demos where it was started for them', async () => {
    const first = await get('/', {}, demo)
    expect([first.status, first.headers['location']]).toEqual([302, '/?demo'])
    expect((await get('/?demo', {}, demo)).status).toBe(200)
    expect((await get('/')).status).toBe(200)
  })
})
