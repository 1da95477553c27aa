// Writes docs/feuillet.schema.json from the schema of the project document. `--check` only says whether it is up to date.
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { projectJsonSchema } from '@feuillet/core/project'

const file = fileURLToPath(new URL('../docs/feuillet.schema.json', import.meta.url))
const text = JSON.stringify(projectJsonSchema(), null, 2) + '\n'

if (process.argv.includes('--check')) {
  if (readFileSync(file, 'utf8') !== text) {
    console.error('docs/feuillet.schema.json is out of date: npm run schema')
    process.exit(1)
  }
} else writeFileSync(file, text)
