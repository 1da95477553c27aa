// Reading and writing NAME.feuillet.json.
import type { z } from 'zod'
import { pathToRings } from '../base/geometry'
import { BadInput } from '../base'
import { projectSchema, SCHEMA_VERSION, type Project } from './schema'

/** Each turns a document of version n into one of version n + 1; index 0 leads from version 0. */
const migrations: ((doc: Record<string, unknown>) => Record<string, unknown>)[] = [
  // Version 0 had no plan, progress or log; the schema's defaults fill them in.
  (doc) => ({ ...doc, format: 'feuillet', schemaVersion: 1 }),
  // Version 1 called the journal `log`, and two of its stages otherwise.
  ({ log, ...doc }) => ({
    ...doc,
    ...(log === undefined ? {} : { journal: withTodaysStages(log) }),
    schemaVersion: 2,
  }),
]

const STAGES_OF_1: Record<string, string> = { build: 'assembly', log: 'journal' }

function withTodaysStages(log: unknown): unknown {
  if (typeof log !== 'object' || log === null || !('timers' in log) || !Array.isArray(log.timers)) return log
  const timers = log.timers.map((timer: unknown) =>
    typeof timer === 'object' && timer !== null && 'stage' in timer
      ? { ...timer, stage: STAGES_OF_1[String(timer.stage)] ?? timer.stage }
      : timer,
  )
  return { ...log, timers }
}

/**
 * A project from the text of a project file: migrated to today's version, checked, defaults filled in, unknown keys
 * kept. Throws BadInput with one sentence.
 */
export function readProject(text: string): Project {
  let doc: unknown
  try {
    doc = JSON.parse(text)
  } catch {
    throw new BadInput('this is not a Feuillet project: it is not JSON')
  }
  if (typeof doc !== 'object' || doc === null || Array.isArray(doc) || !('layers' in doc))
    throw new BadInput('this is not a Feuillet project: it has no layers')
  let current = doc as Record<string, unknown>
  const version = current['schemaVersion'] ?? 0
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 0)
    throw new BadInput('schemaVersion must be a whole number')
  if (version > SCHEMA_VERSION)
    throw new BadInput(
      `the project was written by a newer Feuillet (version ${version}; this one reads up to ${SCHEMA_VERSION})`,
    )
  for (let v = version; v < SCHEMA_VERSION; v++) current = migrations[v]!(current)
  const parsed = projectSchema.safeParse(current)
  if (!parsed.success) throw new BadInput(firstIssue(parsed.error))
  checkReferences(parsed.data)
  return parsed.data
}

/** The text of a project file, two blanks deep, newline at the end. */
export const writeProject = (project: Project): string => JSON.stringify(project, null, 2) + '\n'

/** The file name a project is saved under. */
export const projectFileName = (project: Project): string => `${slug(project.name)}.feuillet.json`

/** A name that is safe in any file system. */
export const slug = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .trim()
    .replace(/[\s_]+/g, '-')
    .toLowerCase() || 'untitled'

function firstIssue(error: z.ZodError): string {
  const issue = error.issues[0]!
  const where = issue.path.join('.') || 'the document'
  return `${where}: ${issue.message.charAt(0).toLowerCase()}${issue.message.slice(1)}`
}

function checkReferences(project: Project): void {
  const papers = new Set(project.drawer.papers.map((p) => p.id))
  const seen = new Set<string>()
  for (const layer of project.layers) {
    if (seen.has(layer.id)) throw new BadInput(`two layers have the id “${layer.id}”`)
    seen.add(layer.id)
    if (layer.paperId !== null && !papers.has(layer.paperId))
      throw new BadInput(`layer “${layer.name}” names a paper that the file does not hold: ${layer.paperId}`)
    for (const piece of layer.pieces) {
      try {
        pathToRings(piece.path)
      } catch (error) {
        throw new BadInput(`layer “${layer.name}”, piece ${piece.id}: ${(error as Error).message}`)
      }
    }
  }
}
