// SVG text to a plain tree. Only names, attributes and style text are kept: nothing of the file ever reaches a page.
import { markedEncoding, textIn } from '../letters'
import { SaxesParser } from 'saxes'
import { BadInput } from '../../../base'

/** An element with its attributes by local name, its children and its words. */
export interface SvgElement {
  /** Local name, without prefix. */
  name: string
  /** Attributes by local name (`href` for `xlink:href`). */
  attributes: Record<string, string>
  children: SvgElement[]
  parent: SvgElement | null
  /** Text inside, kept for style elements only. */
  text: string
  /** Words and inner elements in order, kept for text only. */
  content: (string | SvgElement)[]
}

/** A parsed drawing: its root, elements by id, and the text of its style sheets. */
export interface SvgDocument {
  root: SvgElement
  byId: Map<string, SvgElement>
  /** Ids that elements refer to. */
  referredTo: Set<string>
  /** How many elements there are. */
  elements: number
  /** Rules of all style elements, in order. */
  styleText: string
}

const MAX_CHARACTERS = 80_000_000
const MAX_DEPTH = 400
const MAX_ENTITY = 10_000
const TEXT = new Set(['text', 'tspan', 'textPath', 'a'])

const localName = (name: string): string => name.slice(name.indexOf(':') + 1)

/** Parses SVG text. Throws BadInput with one sentence for anything that is not a whole SVG. */
export function parseSvg(text: string): SvgDocument {
  if (text.length > MAX_CHARACTERS) throw new BadInput('the file is larger than 80 MB')
  if (!text.includes('<')) throw new BadInput('this is not an SVG file')
  const parser = new SaxesParser({ xmlns: false, fragment: false, position: true })
  const byId = new Map<string, SvgElement>()
  const referredTo = new Set<string>()
  let root: SvgElement | null = null
  let current: SvgElement | null = null
  let depth = 0
  let elements = 0
  let styleText = ''
  let trouble: BadInput | null = null

  parser.on('error', (error) => {
    trouble ??= new BadInput(`the SVG breaks off or is damaged: ${plain(error.message)}`)
  })
  parser.on('doctype', (doctype) => {
    // Entities stand for plain text only, are never expanded within each other, and are cut short.
    for (const m of doctype.matchAll(/<!ENTITY\s+([\w.-]+)\s+(?:"([^"]*)"|'([^']*)')/g)) {
      const value = m[2] ?? m[3] ?? ''
      if (value.length < MAX_ENTITY)
        (parser.ENTITIES as Record<string, string>)[m[1]!] = value.replace(/&[\w.-]+;/g, '')
    }
  })
  parser.on('opentag', (tag) => {
    if (trouble) return
    elements++
    if (++depth > MAX_DEPTH) {
      trouble = new BadInput(`the SVG nests more than ${MAX_DEPTH} groups`)
      return
    }
    const attributes: Record<string, string> = {}
    for (const [key, value] of Object.entries(tag.attributes as Record<string, string>)) {
      const name = localName(key)
      // A plain attribute wins over a prefixed one of the same local name (`label` over `x:label`), but for links.
      if (!(name in attributes) || !key.includes(':')) attributes[name] = value
    }
    const element: SvgElement = {
      name: localName(tag.name),
      attributes,
      children: [],
      parent: current,
      text: '',
      content: [],
    }
    if (attributes['id'] && !byId.has(attributes['id'])) byId.set(attributes['id'], element)
    if (attributes['href']?.startsWith('#')) referredTo.add(attributes['href'].slice(1))
    if (current && TEXT.has(current.name)) current.content.push(element)
    if (current) current.children.push(element)
    else root ??= element
    current = element
  })
  parser.on('text', (chunk) => {
    if (current?.name === 'style') current.text += chunk
    else if (current && TEXT.has(current.name)) current.content.push(chunk)
  })
  parser.on('cdata', (chunk) => {
    if (current?.name === 'style') current.text += chunk
  })
  parser.on('closetag', () => {
    if (current?.name === 'style') styleText += current.text + '\n'
    depth--
    current = current?.parent ?? null
  })
  for (let i = 0; i < text.length && !trouble; i += 1 << 20) parser.write(text.slice(i, i + (1 << 20)))
  if (!trouble) parser.close()
  if (trouble) throw trouble as BadInput
  const found = root as SvgElement | null
  if (!found || found.name !== 'svg') throw new BadInput('this is not an SVG file')
  return { root: found, byId, referredTo, elements, styleText }
}

const plain = (message: string): string =>
  message
    .replace(/[<>]/g, '')
    .replace(/^\s*(?:undefined:)?/, '')
    .trim()
    .slice(0, 160)

/** Text of a file by its byte order mark or its XML declaration; UTF-8 where neither says otherwise. */
export function decodeXml(bytes: Uint8Array): string {
  const head = String.fromCharCode(...bytes.subarray(0, 200))
  const declared = /<\?xml[^>]*encoding\s*=\s*["']([\w.-]+)["']/.exec(head)?.[1]
  return textIn(markedEncoding(bytes) ?? declared ?? 'utf-8', bytes) ?? textIn('utf-8', bytes)!
}
