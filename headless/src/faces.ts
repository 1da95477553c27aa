// The faces of PDFs, read from the packages they come in.
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import type { Faces } from '@feuillet/core/io/write'

const { resolve } = createRequire(import.meta.url)
const face = async (file: string) => new Uint8Array(await readFile(resolve(file)))
const OWN = '@expo-google-fonts/atkinson-hyperlegible-next'

export const readFaces = async (): Promise<Faces> => ({
  regular: await face(`${OWN}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`),
  bold: await face(`${OWN}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`),
  others: async () => [await face('dejavu-fonts-ttf/ttf/DejaVuSans.ttf')],
})
