// The faces of PDFs as they lie in the packages.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Faces } from '../src/io/write'

const { resolve } = createRequire(import.meta.url)
const face = (file: string) => new Uint8Array(readFileSync(resolve(file)))
/** These packages export their code only: the files lie in a folder beside it. */
export const beside = (name: string, file: string) => join(dirname(resolve(name)), '..', 'fonts', file)
const OWN = '@expo-google-fonts/atkinson-hyperlegible-next'

export const faces: Faces = {
  regular: face(`${OWN}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`),
  bold: face(`${OWN}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`),
  others: [() => Promise.resolve(face('dejavu-fonts-ttf/ttf/DejaVuSans.ttf'))],
  drawn: [
    beside('@embedpdf/fonts-sc', 'NotoSansHans-Regular.otf'),
    beside('@embedpdf/fonts-kr', 'NotoSansKR-Regular.otf'),
  ].map((file) => () => Promise.resolve(new Uint8Array(readFileSync(file)))),
}
