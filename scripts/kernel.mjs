// Compiles core/wasm (AssemblyScript) to a module that carries the WebAssembly as text, so that it loads at once wherever core runs.
// `--check` only says whether it is up to date.
import { Buffer } from 'node:buffer'
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import asc from 'assemblyscript/asc'

const root = fileURLToPath(new URL('..', import.meta.url))
const file = `${root}core/src/stages/sheets/nest/overlap/kernel.wasm.ts`

let binary = null
const { error, stderr } = await asc.main(
  [
    'core/wasm/kernel.ts',
    '-O3',
    '--runtime',
    'stub',
    '--noAssert',
    '--use',
    'abort=',
    '--enable',
    'simd',
    '--outFile',
    'kernel.wasm',
    '--baseDir',
    root,
  ],
  { writeFile: (_name, contents) => void (binary = contents) },
)
if (error || !binary) {
  console.error(stderr.toString() || error?.message)
  process.exit(1)
}
const text = `// Made by \`npm run kernel\` from core/wasm.
export const KERNEL =
  '${Buffer.from(binary).toString('base64')}'
`

if (process.argv.includes('--check')) {
  if (readFileSync(file, 'utf8') !== text) {
    console.error('core/src/stages/sheets/nest/overlap/kernel.wasm.ts is out of date: npm run kernel')
    process.exit(1)
  }
} else writeFileSync(file, text)
