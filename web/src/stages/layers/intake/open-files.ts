// What was dropped, as drawings: files by themselves, and what is in zips.
import { say, type Said } from '@feuillet/core/base/units'
import type { PackedFile } from '@feuillet/core/io/read'
import { editor } from '../../../workers'
import type { SourceFile } from './read-file'

export interface Opened {
  files: SourceFile[]
  /** What zips with more than one drawing hold: which of them come in is the maker's choice. */
  toPick: PackedFile[]
  /** What could not be opened. */
  said: { text: Said; bad: boolean }[]
}

/** Opens what was dropped or chosen, zips too. */
export async function opened(list: Iterable<File>): Promise<Opened> {
  const all: Opened = { files: [], toPick: [], said: [] }
  const fault = (text: Said) => all.said.push({ text: say`${text} Nothing was changed.`, bad: true })
  for (const file of list) {
    const bytes = await bytesOf(file)
    if (!bytes) fault(`${file.name} cannot be read: of a folder, bring in the files.`)
    else if (/\.zip$/i.test(file.name)) {
      const answer = await editor
        .ask((api) => api.unpack(bytes))
        .catch(() => ({ ok: false as const, said: 'opening it broke off' }))
      if (!answer.ok) {
        fault(say`${file.name}: ${answer.said}.`)
        continue
      }
      const drawings = answer.files
      if (drawings.length > 1) all.toPick.push(...drawings)
      else all.files.push(...drawings)
    } else all.files.push({ name: file.name, bytes })
  }
  return all
}

/** Null where there is nothing to read, as of a folder. */
const bytesOf = async (file: File): Promise<Uint8Array | null> =>
  file.arrayBuffer().then(
    (buffer) => new Uint8Array(buffer),
    () => null,
  )
