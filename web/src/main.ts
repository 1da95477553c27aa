// The page begins in two parts, so that neither holds it up: what a project is, then what draws it.
import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './index.css'
import { config } from 'zod'

// The page's security policy forbids code made at run time.
config({ jitless: true })

await import('./state/store')
const { show } = await import('./app')
show(document.getElementById('root')!)
