import { createRequire } from 'node:module'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// Node's entry of the clipper is CommonJS; pages and workers take its ES build beside it.
const clipper = createRequire(import.meta.url)
  .resolve('clipper2-wasm')
  .replace('/umd/', '/es/')

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  resolve: {
    alias: [
      { find: /^clipper2-wasm\/wasm\?url$/, replacement: clipper.replace(/\.js$/, '.wasm?url') },
      { find: /^clipper2-wasm$/, replacement: clipper },
      // Reached in Node only.
      { find: /^module$/, replacement: fileURLToPath(new URL('src/workers/no-node.ts', import.meta.url)) },
    ],
  },
  build: { target: 'es2022', chunkSizeWarningLimit: 700 },
})
