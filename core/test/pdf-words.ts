import { PDFArray, PDFDict, PDFDocument, PDFName, type PDFRawStream } from '@cantoo/pdf-lib'
import { inflateSync } from 'node:zlib'

/** The words of a PDF as a reader finds them: what its glyphs stand for by the tables of its fonts. */
export async function wordsOfPdf(bytes: Uint8Array): Promise<string> {
  const pdf = await PDFDocument.load(bytes)
  const unpack = (stream: PDFRawStream) => {
    const raw = stream.getContents()
    return Buffer.from(raw[0] === 0x78 ? inflateSync(raw) : raw).toString('latin1')
  }
  const unicode = (hex: string) => Buffer.from(hex, 'hex').swap16().toString('utf16le')
  return pdf
    .getPages()
    .map((page) => {
      const { Resources } = page.node.normalizedEntries()
      const fonts = Resources.lookup(PDFName.of('Font'), PDFDict)
      const tables = new Map(
        fonts.entries().map(([name, ref]) => {
          const font = pdf.context.lookup(ref, PDFDict)
          const table = unpack(font.lookup(PDFName.of('ToUnicode')) as PDFRawStream)
          const pairs = [...table.matchAll(/<([0-9a-f]{4})> <([0-9a-f]{4,})>/gi)]
          return [
            name.toString(),
            new Map(pairs.map(([, glyph, sign]) => [glyph!.toLowerCase(), unicode(sign!)])),
          ]
        }),
      )
      const contents = page.node.Contents()
      const streams = contents instanceof PDFArray ? contents.asArray() : [page.node.get(PDFName.Contents)!]
      const text = streams.map((ref) => unpack(pdf.context.lookup(ref) as PDFRawStream)).join('\n')
      return [...text.matchAll(/(\/\S+) [\d.]+ Tf[^<]*<([0-9a-f]+)> Tj/gi)]
        .map(([, font, glyphs]) =>
          glyphs!
            .toLowerCase()
            .match(/.{4}/g)!
            .map((glyph) => tables.get(font!)?.get(glyph) ?? '?')
            .join(''),
        )
        .join('')
    })
    .join('')
}
