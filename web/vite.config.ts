import { createRequire } from 'node:module'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// Node's entry of the clipper is CommonJS; pages and workers take its ES build beside it.
const require = createRequire(import.meta.url)
const clipper = require.resolve('clipper2-wasm').replace('/umd/', '/es/')

// These packages export their code only: their faces lie in a folder beside it.
const facesOf = (name: string) => resolve(dirname(require.resolve(`@embedpdf/${name}`)), '../fonts')

/** Files of packages that the page asks for by their address. */
export const addressed = [
  { find: /^clipper2-wasm\/wasm\?url$/, replacement: clipper.replace(/\.js$/, '.wasm?url') },
  { find: '@embedpdf/fonts-sc/fonts', replacement: facesOf('fonts-sc') },
  { find: '@embedpdf/fonts-kr/fonts', replacement: facesOf('fonts-kr') },
]

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  resolve: {
    alias: [
      ...addressed,
      { find: /^clipper2-wasm$/, replacement: clipper },
      // Reached in Node only.
      { find: /^module$/, replacement: fileURLToPath(new URL('src/workers/no-node.ts', import.meta.url)) },
    ],
  },
  build: { target: 'es2022', chunkSizeWarningLimit: 700 },
})
