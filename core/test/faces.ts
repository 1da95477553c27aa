// The faces of PDFs as they lie in the packages.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Faces } from '../src/io/write'

const { resolve } = createRequire(import.meta.url)
const face = (file: string) => new Uint8Array(readFileSync(resolve(file)))
const OWN = '@expo-google-fonts/atkinson-hyperlegible-next'

export const faces: Faces = {
  regular: face(`${OWN}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`),
  bold: face(`${OWN}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`),
  others: () => Promise.resolve([face('dejavu-fonts-ttf/ttf/DejaVuSans.ttf')]),
}
