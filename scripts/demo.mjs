// Installs what is missing, builds, and serves the application with the demo projects on its shelf.
import { ensurePackages, run } from './ready.mjs'

ensurePackages()
run('npm', ['run', '--silent', 'build'])
process.env.FEUILLET_DEMO = '1'
run('npm', ['run', '--silent', 'start'], { env: process.env })
