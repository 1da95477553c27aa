// The page begins in parts, so that none holds it up: what a project is, what it is shown with, and what shows it.
import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './index.css'
import { config } from 'zod'

// The page's security policy forbids code made at run time.
config({ jitless: true })

await import('@feuillet/core/project')
await import('./ui')
await import('./state/store')
const { show } = await import('./app')
show(document.getElementById('root')!)
