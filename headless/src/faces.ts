// The faces of PDFs, read from the packages they come in.
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, isAbsolute, join } from 'node:path'
import type { Faces } from '@feuillet/core/io/write'

const { resolve } = createRequire(import.meta.url)
const face = async (file: string) => new Uint8Array(await readFile(isAbsolute(file) ? file : resolve(file)))
/** These packages export their code only: the files lie in a folder beside it. */
const beside = (name: string, file: string) => join(dirname(resolve(name)), '..', 'fonts', file)
const OWN = '@expo-google-fonts/atkinson-hyperlegible-next'

export const readFaces = async (): Promise<Faces> => ({
  regular: await face(`${OWN}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`),
  bold: await face(`${OWN}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`),
  others: [() => face('dejavu-fonts-ttf/ttf/DejaVuSans.ttf')],
  drawn: [
    () => face(beside('@embedpdf/fonts-sc', 'NotoSansHans-Regular.otf')),
    () => face(beside('@embedpdf/fonts-kr', 'NotoSansKR-Regular.otf')),
  ],
})
