// Files in and out: nothing half-written, and bad input named by its file.
import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { openProject, type Project } from '@feuillet/core/project'
import { BadInput } from '@feuillet/core/base'
import type { Screen } from './screen'

function bytesOf(file: string): Uint8Array {
  try {
    return readFileSync(file)
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code
    throw new BadInput(
      `${file}: ${code === 'ENOENT' ? 'there is no such file' : code === 'EISDIR' ? 'this is a folder' : 'the file cannot be read'}`,
    )
  }
}

/** Runs a reader over a file's bytes; what is wrong is said as `FILE: what is wrong`. */
export const readFile = <T>(file: string, read: (bytes: Uint8Array) => T): T =>
  named(file, () => read(bytesOf(file)))

/** The same for a reader that takes its time. */
export async function readFileLater<T>(file: string, read: (bytes: Uint8Array) => Promise<T>): Promise<T> {
  const bytes = bytesOf(file)
  try {
    return await read(bytes)
  } catch (error) {
    throw inFile(file, error)
  }
}

const inFile = (file: string, error: unknown): unknown =>
  error instanceof BadInput && !error.message.startsWith(`${file}: `)
    ? new BadInput(`${file}: ${error.message.replace(/\s*\n\s*/g, ' ')}`)
    : error

/** Says what is wrong with the name of the file in front. */
export function named<T>(file: string, work: () => T): T {
  try {
    return work()
  } catch (error) {
    throw inFile(file, error)
  }
}

export const readText = <T>(file: string, read: (text: string) => T): T =>
  readFile(file, (bytes) => read(new TextDecoder().decode(bytes)))

/** A project; what had to be healed is noted. */
export function readProjectFile(file: string, screen: Screen): Project {
  const { project, healed } = readText(file, openProject)
  for (const sentence of healed) screen.error(`note: ${file}: ${sentence}`)
  return project
}

/** Writes a file aside and then puts it in place. */
export function writeWhole(file: string, content: string | Uint8Array): void {
  const aside = `${file}.part`
  try {
    mkdirSync(dirname(file), { recursive: true })
    writeFileSync(aside, content)
    renameSync(aside, file)
  } catch {
    rmSync(aside, { force: true })
    throw new BadInput(`${file}: cannot be written`)
  }
}

export function writeAll(folder: string, files: ReadonlyMap<string, string | Uint8Array>): void {
  for (const [name, content] of files) writeWhole(join(folder, name), content)
}

/** Prints a text, or writes it to the file of `-o`. */
export function put(text: string, output: string | undefined, screen: Screen): void {
  if (output) writeWhole(output, text)
  else screen.print(text)
}

/** Prints a result as JSON, or writes it to the file of `-o`. */
export const give = (value: unknown, output: string | undefined, screen: Screen): void =>
  put(JSON.stringify(value, null, 2) + '\n', output, screen)
