/** Before a table, so that spreadsheets know its letters for UTF-8. */
const MARK = '\ufeff'

/** What is written to a file of this name: tables begin with a byte order mark. */
export const savedText = (name: string, text: string): string => (name.endsWith('.csv') ? MARK + text : text)

/** Hands a file to the browser to save. */
export function saveFile(name: string, content: string | Uint8Array, type: string): void {
  const saved = typeof content === 'string' ? savedText(name, content) : content
  const url = URL.createObjectURL(new Blob([saved as BlobPart], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
