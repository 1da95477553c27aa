// Everything that is kept, as one zip and back: project files, past versions, the drawer.
import { strFromU8, strToU8, unzip, zip, type Zippable } from 'fflate'
import {
  openProject,
  paperSchema,
  slug,
  soundSupplies,
  writeProject,
  type Paper,
} from '@feuillet/core/project'
import { keepProject, loadShelf, loadStock, loadSupplies, readKept, vault } from './store'

/** What came back of a zip, in sentences. */
export interface Unpacked {
  taken: number
  words: string[]
}

const DRAWER = 'drawer.json'
const SUPPLIES = 'supplies.json'

/** All projects, their past versions, and the drawer. Texts go in as they are kept, damaged ones too. */
export async function packAll(): Promise<Uint8Array> {
  const store = await vault()
  const files: Zippable = {
    [DRAWER]: strToU8(JSON.stringify(await loadStock(), null, 2)),
    [SUPPLIES]: strToU8(JSON.stringify(await loadSupplies(), null, 2)),
  }
  for (const { id, name } of await loadShelf()) {
    const kept = await readKept(id)
    if (typeof kept?.text !== 'string') continue
    const stem = `${slug(name)}-${id}`
    files[`projects/${stem}.feuillet.json`] = strToU8(kept.text)
    for (const { savedAt, text } of await store.versions(id))
      files[`versions/${stem}/${new Date(savedAt).toISOString().replaceAll(':', '-')}.feuillet.json`] =
        strToU8(text)
  }
  return new Promise((resolve, reject) =>
    zip(files, { level: 6 }, (error, data) => (error ? reject(new Error(error.message)) : resolve(data))),
  )
}

/** Takes projects and papers of a zip in. What is there already stays; a project of an id that is taken becomes a copy. */
export async function unpackAll(bytes: Uint8Array): Promise<Unpacked> {
  const files = await new Promise<Record<string, Uint8Array>>((resolve, reject) =>
    unzip(bytes, (error, data) =>
      error ? reject(new Error('this is no zip that can be read')) : resolve(data),
    ),
  )
  const words: string[] = []
  let taken = 0
  for (const [path, content] of Object.entries(files)) {
    if (!path.endsWith('.json') || path.startsWith('versions/') || path === DRAWER || path === SUPPLIES)
      continue
    const name = path.split('/').at(-1)!
    try {
      const { project, healed } = openProject(strFromU8(content))
      const known = await readKept(project.id)
      if (known?.text === writeProject(project)) continue
      await keepProject(known ? { ...project, id: crypto.randomUUID() } : project, 'from a zip')
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

/** Foams and glues that the drawer does not have yet. */
async function takeSupplies(text: string): Promise<string[]> {
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch {
    return ['The foams and glues in it cannot be read.']
  }
  const own = await loadSupplies()
  const fresh = <T extends { id: string }>(list: readonly T[], there: readonly T[]) =>
    list.filter(({ id }) => !there.some((one) => one.id === id))
  const { foams, adhesives, settings } = soundSupplies(read)
  const added = {
    foams: fresh(foams, own.foams),
    adhesives: fresh(adhesives, own.adhesives),
    settings: fresh(settings, own.settings),
  }
  const n = added.foams.length + added.adhesives.length + added.settings.length
  if (n === 0) return []
  await (
    await vault()
  ).changeSupplies({
    foams: { added: added.foams, removed: [], changed: [] },
    adhesives: { added: added.adhesives, removed: [], changed: [] },
    settings: { added: added.settings, removed: [], changed: [] },
  })
  return [`${n} ${n === 1 ? 'record' : 'records'} of foam, glue and settings came into the drawer.`]
}
