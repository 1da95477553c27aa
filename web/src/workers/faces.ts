// The faces of PDFs, fetched from the application's own files when one is first written.
import bold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf?url'
import regular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url'
// Han and kana; hangul.
import chinese from '@embedpdf/fonts-sc/fonts/NotoSansHans-Regular.otf?url'
import korean from '@embedpdf/fonts-kr/fonts/NotoSansKR-Regular.otf?url'
import dejaVu from 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf?url'
import type { Faces } from '@feuillet/core/io/write'

async function face(url: string): Promise<Uint8Array> {
  const answer = await fetch(url)
  if (!answer.ok) throw new Error('the font for the lists could not be read')
  return new Uint8Array(await answer.arrayBuffer())
}

export const fetchFaces = async (): Promise<Faces> => ({
  regular: await face(regular),
  bold: await face(bold),
  others: [() => face(dejaVu)],
  drawn: [() => face(chinese), () => face(korean)],
})
