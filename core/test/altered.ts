// Projects with anything in them otherwise than it was, for tests of what results rest on.
import type { z } from 'zod'
import { projectSchema } from '../src/project/schema'
import type { Project } from '../src/project'

/** Texts that are told to a maker and name nothing. */
const WORDS = new Set(['name', 'note', 'shop', 'caution', 'surfaces', 'label'])

/** Where shapes lie. */
const PLACES = new Set(['slits', 'x', 'y'])

/** What of a schema is walked: the names by which Zod tells its kinds. */
type Def = z.core.$ZodTypeDef & {
  innerType?: z.ZodType
  shape?: Record<string, z.ZodType>
  element?: z.ZodType
  options?: readonly z.ZodType[]
  entries?: Record<string, string>
}

/**
 * A project of which a share of all numbers, switches, choices and words is another, each allowed by the schema; shapes, places and ids stay.
 * @param random from 0 to 1
 */
export function altered(project: Project, random: () => number, share: number): Project {
  const walk = (value: unknown, schema: z.ZodType, key: string): unknown => {
    if (value === null || value === undefined) return value
    const def = schema.def as Def
    if (def.innerType) return walk(value, def.innerType, key)
    if (def.type === 'object') {
      const own = value as Record<string, unknown>
      const known = Object.entries(def.shape!).filter(([name]) => name in own)
      return {
        ...own,
        ...Object.fromEntries(known.map(([name, part]) => [name, walk(own[name], part, name)])),
      }
    }
    if (def.type === 'union') {
      const option = def.options!.find((one) => one.safeParse(value).success)
      return option ? walk(value, option, key) : value
    }
    if (def.type === 'array') return (value as unknown[]).map((one) => walk(one, def.element!, key))
    if (PLACES.has(key) || random() > share) return value
    const next = other(value, def, key)
    return schema.safeParse(next).success ? next : value
  }
  const other = (value: unknown, { entries }: Def, key: string): unknown => {
    if (typeof value === 'boolean') return !value
    if (entries) return Object.values(entries)[Math.floor(random() * Object.keys(entries).length)]
    if (typeof value === 'string') return WORDS.has(key) ? `${value} x` : value
    if (typeof value !== 'number') return value
    const near = value === 0 ? 1 : value * (0.6 + random())
    return Number.isInteger(value) ? Math.round(near) : near
  }
  return walk(project, projectSchema, '') as Project
}
