// Reading and writing NAME.feuillet.json.
import type { z } from 'zod'
import { BadInput } from '../base'
import { healProject, tidyDocument, tidyName } from './heal'
import { MOST } from './limits'
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

/** A project with what had to be mended so that it could be opened, in sentences. */
export interface Opened {
  project: Project
  healed: string[]
}

/**
 * A project from the text of a project file: migrated to today's version, checked, defaults filled in, unknown keys kept.
 * What can be healed is healed and said; throws BadInput with one sentence where it cannot be opened.
 */
export function openProject(text: string): Opened {
  const doc = documentOf(text)
  const version = versionOf(doc)
  if (version > SCHEMA_VERSION)
    throw new BadInput(
      `the project was written by a newer Feuillet (version ${version}; this one reads up to ${SCHEMA_VERSION})`,
    )
  let current = doc
  for (let v = version; v < SCHEMA_VERSION; v++) current = migrations[v]!(current)
  const healed: string[] = []
  const parsed = projectSchema.safeParse(tidyDocument(current, healed))
  if (!parsed.success) throw new BadInput(firstIssue(parsed.error))
  checkReferences(parsed.data)
  return { project: healProject(parsed.data, healed), healed }
}

/** The project of `openProject`, for those who need not say what was healed. */
export const readProject = (text: string): Project => openProject(text).project

/**
 * A project of a newer version as far as today's schema reads it, to be looked at only; null where it does not.
 * Throws BadInput where the text is no project at all.
 */
export function peekNewer(text: string): Project | null {
  const parsed = projectSchema.safeParse(
    tidyDocument({ ...documentOf(text), schemaVersion: SCHEMA_VERSION }, []),
  )
  if (!parsed.success) return null
  try {
    checkReferences(parsed.data)
    return healProject(parsed.data, [])
  } catch {
    return null
  }
}

/** The version a text says it is of; null where it is no project document. */
export function schemaVersionOf(text: string): number | null {
  try {
    return versionOf(documentOf(text))
  } catch {
    return null
  }
}

function documentOf(text: string): Record<string, unknown> {
  if (text.length > MOST.characters) throw new BadInput('the file is larger than any project')
  let doc: unknown
  try {
    if (depthOf(text) > MOST.depth) throw new BadInput('its values are nested too deeply for a project')
    doc = JSON.parse(text)
  } catch (error) {
    if (error instanceof BadInput) throw error
    throw new BadInput('this is not a Feuillet project: it is not JSON')
  }
  if (typeof doc !== 'object' || doc === null || Array.isArray(doc) || !('layers' in doc))
    throw new BadInput('this is not a Feuillet project: it has no layers')
  return doc as Record<string, unknown>
}

function versionOf(doc: Record<string, unknown>): number {
  const version = doc['schemaVersion'] ?? 0
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 0)
    throw new BadInput('schemaVersion must be a whole number')
  return version
}

/** How deep brackets lie in each other in a JSON text: asked before it is read, since reading goes as deep. */
function depthOf(text: string): number {
  let depth = 0
  let most = 0
  let quoted = false
  for (let i = 0; i < text.length; i++) {
    const c = text[i]
    if (quoted) {
      if (c === '\\') i++
      else if (c === '"') quoted = false
    } else if (c === '"') quoted = true
    else if (c === '{' || c === '[') most = Math.max(most, ++depth)
    else if (c === '}' || c === ']') depth--
  }
  return most
}

/** The text of a project file, two blanks deep, newline at the end. */
export const writeProject = (project: Project): string => JSON.stringify(project, null, 2) + '\n'

/** The file name a project is saved under. */
export const projectFileName = (project: Project): string => `${slug(project.name)}.feuillet.json`

/** A name that is safe in any file system. */
export const slug = (name: string): string =>
  tidyName(name)
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .trim()
    .replace(/[\s_]+/g, '-')
    .toLowerCase() || 'untitled'

function firstIssue(error: z.ZodError): string {
  const issue = error.issues[0]!
  const where = issue.path.slice(0, 8).join('.') || 'the document'
  return `${where}: ${issue.message.charAt(0).toLowerCase()}${issue.message.slice(1)}`.slice(0, 300)
}

function checkReferences(project: Project): void {
  const papers = new Set(project.drawer.papers.map((p) => p.id))
  const seen = new Set<string>()
  let pieces = 0
  let characters = 0
  for (const layer of project.layers) {
    if (seen.has(layer.id)) throw new BadInput(`two layers have the id “${layer.id}”`)
    seen.add(layer.id)
    if (layer.paperId !== null && !papers.has(layer.paperId))
      throw new BadInput(`layer “${layer.name}” names a paper that the file does not hold: ${layer.paperId}`)
    pieces += layer.pieces.length
    for (const piece of layer.pieces) characters += piece.path.length
  }
  if (pieces > MOST.pieces)
    throw new BadInput(`it has ${pieces} pieces, more than the ${MOST.pieces} that can be planned together`)
  if (characters > MOST.characters) throw new BadInput('its outlines are finer than can be planned')
}
