// Everything that is kept, as one zip and back: project files, past versions, the drawer.
import { strFromU8, strToU8, unzip, zip, type Zippable } from 'fflate'
import {
  besideItself,
  openProject,
  paperSchema,
  slug,
  soundSupplies,
  supplyChanges,
  writeProject,
  type Paper,
  type Supplies,
} from '@feuillet/core/project'
import { entryOfText, keepProject, loadShelf, loadStock, loadSupplies, readKept, vault } from './store'
import { MOST_VERSIONS, type PastVersion } from './vault'

/** What came back of a zip, in sentences. */
export interface Unpacked {
  taken: number
  words: string[]
}

const DRAWER = 'drawer.json'
const SUPPLIES = 'supplies.json'
/** What was changed last in each past version, by the path of its file. */
const LABELS = 'labels.json'
const PROJECT_FILE = /^(?:.*\/)?([^/]+)\.feuillet\.json$/

/** All projects, their past versions, and the drawer. Texts go in as they are kept, damaged ones too. */
export async function packAll(): Promise<Uint8Array> {
  const store = await vault()
  const files: Zippable = {
    [DRAWER]: strToU8(JSON.stringify(await loadStock(), null, 2)),
    [SUPPLIES]: strToU8(JSON.stringify(await loadSupplies(), null, 2)),
  }
  const labels: Record<string, string> = {}
  for (const { id, name } of await loadShelf()) {
    const kept = await readKept(id)
    if (typeof kept?.text !== 'string') continue
    const stem = `${slug(name)}-${id}`
    files[`projects/${stem}.feuillet.json`] = strToU8(kept.text)
    for (const { savedAt, text, label } of await store.versions(id)) {
      const path = `versions/${stem}/${new Date(savedAt).toISOString().replaceAll(':', '-')}.feuillet.json`
      files[path] = strToU8(text)
      labels[path] = label
    }
  }
  files[LABELS] = strToU8(JSON.stringify(labels, null, 2))
  return new Promise((resolve, reject) =>
    zip(files, { level: 6 }, (error, data) => (error ? reject(new Error(error.message)) : resolve(data))),
  )
}

/**
 * Takes projects with their past versions, papers and all else of the drawer in. What is there already stays; a project of an id that is
 * taken becomes a copy.
 */
export async function unpackAll(bytes: Uint8Array): Promise<Unpacked> {
  const files = await new Promise<Record<string, Uint8Array>>((resolve, reject) =>
    unzip(bytes, (error, data) =>
      error ? reject(new Error('this is no zip that can be read')) : resolve(data),
    ),
  )
  if (!Object.keys(files).some((path) => path.endsWith('.json')))
    throw new Error('it holds no project; a zip of drawings is brought in on Layers')
  const words: string[] = []
  let taken = 0
  for (const [path, content] of Object.entries(files)) {
    if (!path.endsWith('.json') || path.startsWith('versions/') || NO_PROJECTS.includes(path)) continue
    const name = path.split('/').at(-1)!
    try {
      const { project, healed } = openProject(strFromU8(content))
      const known = await readKept(project.id)
      if (known?.text === writeProject(project)) continue
      const own = known ? besideItself(project, crypto.randomUUID()) : project
      await keepPast(own.id, pastIn(files, path))
      await keepProject(own, 'from a zip', { isNext: true })
      taken++
      words.push(...healed.map((sentence) => `${name}: ${sentence}`))
    } catch (error) {
      words.push(`${name}: ${error instanceof Error ? error.message : String(error)}.`)
    }
  }
  const drawer = files[DRAWER]
  if (drawer) words.push(...(await takePapers(strFromU8(drawer))))
  const supplies = files[SUPPLIES]
  if (supplies) words.push(...(await takeSupplies(strFromU8(supplies))))
  return { taken, words }
}

const NO_PROJECTS = [DRAWER, SUPPLIES, LABELS]

type Past = Pick<PastVersion, 'savedAt' | 'label' | 'text'>

/** Past versions of the project of a file, the oldest first. */
function pastIn(files: Record<string, Uint8Array>, path: string): Past[] {
  const stem = PROJECT_FILE.exec(path)?.[1]
  if (stem === undefined) return []
  const labels = labelsIn(files)
  return Object.entries(files)
    .flatMap(([own, content]): Past[] => {
      const time = own.startsWith(`versions/${stem}/`) ? PROJECT_FILE.exec(own)?.[1] : undefined
      if (time === undefined) return []
      const savedAt = Date.parse(time.replace(/T(\d\d)-(\d\d)-/, 'T$1:$2:'))
      return Number.isNaN(savedAt) ? [] : [{ savedAt, label: labels[own] ?? '', text: strFromU8(content) }]
    })
    .toSorted((a, b) => a.savedAt - b.savedAt)
    .slice(-MOST_VERSIONS)
}

function labelsIn(files: Record<string, Uint8Array>): Record<string, string> {
  try {
    const read: unknown = JSON.parse(strFromU8(files[LABELS]!))
    const entries = Object.entries(read as Record<string, unknown>)
    return Object.fromEntries(entries.filter((one): one is [string, string] => typeof one[1] === 'string'))
  } catch {
    return {}
  }
}

/** Keeps one version after the other as if it was the project: each becomes a past one once the next is kept. */
async function keepPast(id: string, past: readonly Past[]): Promise<void> {
  const store = await vault()
  for (const [k, { savedAt, label, text }] of past.entries()) {
    const kept = { id, revision: k + 1, text, savedAt, label, page: '', seq: 0 }
    const entry = entryOfText(id, text, kept)
    await store.save({ kept, entry, base: null, keepVersion: k > 0, stock: null })
  }
}

/** Papers that the drawer does not have yet. */
async function takePapers(text: string): Promise<string[]> {
  let list: unknown
  try {
    list = JSON.parse(text)
  } catch {
    return ['The drawer in it cannot be read.']
  }
  const papers = Array.isArray(list)
    ? list.flatMap((one): Paper[] => {
        const { data } = paperSchema.safeParse(one)
        return data ? [data] : []
      })
    : []
  const own = new Set((await loadStock()).map((paper) => paper.id))
  const added = papers.filter((paper) => !own.has(paper.id))
  if (added.length === 0) return []
  await (await vault()).changeStock({ added, removed: [], changed: [] })
  return [`${added.length} ${added.length === 1 ? 'paper' : 'papers'} came into the drawer.`]
}

/** Foams, glues, cutters, inks, frames, settings and times that the drawer does not have yet. */
async function takeSupplies(text: string): Promise<string[]> {
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch {
    return ['The foams and glues in it cannot be read.']
  }
  const own = await loadSupplies()
  const more = soundSupplies(read)
  const joined = <T extends { id: string }>(list: readonly T[], others: readonly T[]): readonly T[] => {
    const fresh = others.filter(({ id }) => !list.some((one) => one.id === id))
    return fresh.length > 0 ? [...list, ...fresh] : list
  }
  const all: Supplies = {
    foams: joined(own.foams, more.foams),
    adhesives: joined(own.adhesives, more.adhesives),
    settings: joined(own.settings, more.settings),
    cutters: joined(own.cutters, more.cutters),
    observed: joined(own.observed, more.observed),
    inks: joined(own.inks, more.inks),
    things: joined(own.things, more.things),
    measured: joined(own.measured, more.measured),
  }
  const changes = supplyChanges(own, all)
  if (!changes) return []
  await (await vault()).changeSupplies(changes)
  const count = (one: Supplies) =>
    Object.values(one).reduce((sum, list: readonly unknown[]) => sum + list.length, 0)
  const n = count(all) - count(own)
  return [
    `${n} ${n === 1 ? 'record' : 'records'} of foam, glue, cutters, inks, frames, prices, settings or times came into the drawer.`,
  ]
}
