import { fileURLToPath } from 'node:url'
import { createApp } from './app'

const port = Number(process.env['PORT'] ?? 4173)
const dist = fileURLToPath(new URL('../../web/dist', import.meta.url))

const server = createApp(dist, process.env['FEUILLET_DEMO'] === '1').listen(
  port,
  '127.0.0.1',
  (error?: Error) => {
    if (error) {
      process.stderr.write(
        `Port ${port} cannot be used: ${error.message}. Choose another: PORT=4174 npm run demo\n`,
      )
      process.exit(1)
    }
    process.stdout.write(`Feuillet: http://127.0.0.1:${port}\n`)
  },
)

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => server.close(() => process.exit(0)))
