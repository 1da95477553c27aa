// The part of CSS that decides how a shape is painted: presentation attributes, style sheets, style attributes.
import parse from 'css-tree/parser'
import type { CssNode } from 'css-tree'
import type { SvgElement } from './document'

/** Properties that a child takes from its parent. */
const INHERITED = new Set([
  'fill',
  'fill-rule',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-miterlimit',
  'stroke-opacity',
  'stroke-dasharray',
  'stroke-dashoffset',
  'visibility',
  'color',
  'clip-rule',
  'font-size',
  'text-anchor',
])
const OWN = ['opacity', 'display', 'clip-path', 'mask', 'filter', 'stop-color', 'stop-opacity', 'overflow']
const KNOWN = new Set([...INHERITED, ...OWN])

/** Properties by name, inherited ones included. */
export type Style = Record<string, string>

interface Compound {
  /** How it stands to the compound before it: ' ' descendant, '>' child. */
  combinator: string
  type: string | null
  id: string | null
  classes: string[]
}

interface Rule {
  compounds: Compound[]
  specificity: number
  declarations: Style
}

/** Rules by what their last compound asks for, so that an element is held against few of them. */
export class StyleSheet {
  private readonly byId = new Map<string, number[]>()
  private readonly byClass = new Map<string, number[]>()
  private readonly byType = new Map<string, number[]>()
  private readonly others: number[] = []

  /** @param rules the weakest first */
  constructor(private readonly rules: readonly Rule[]) {
    rules.forEach(({ compounds }, k) => {
      const { id, classes, type } = compounds.at(-1)!
      const [index, name] = id
        ? [this.byId, id]
        : classes.length > 0
          ? [this.byClass, classes[0]!]
          : type
            ? [this.byType, type]
            : [null, '']
      if (!index) this.others.push(k)
      else {
        const list = index.get(name)
        if (list) list.push(k)
        else index.set(name, [k])
      }
    })
  }

  /** Declarations that bear on an element, the weakest first. */
  declarationsFor(element: SvgElement): Style[] {
    if (this.rules.length === 0) return []
    const { id, class: classes = '' } = element.attributes
    const found = [
      ...this.others,
      ...(this.byType.get(element.name) ?? []),
      ...(id ? (this.byId.get(id) ?? []) : []),
    ]
    for (const name of new Set(classes.split(/\s+/))) found.push(...(this.byClass.get(name) ?? []))
    return found
      .sort((a, b) => a - b)
      .map((k) => this.rules[k]!)
      .filter((rule) => matches(rule.compounds, element))
      .map((rule) => rule.declarations)
  }
}

/** Rules of a style sheet that can bear on shapes; selectors it does not know are passed over. */
export function parseStyleSheet(text: string): StyleSheet {
  if (!text.trim()) return new StyleSheet([])
  const rules: Rule[] = []
  const sheet = parse(text, { parseValue: false, onParseError: () => undefined })
  const visit = (node: CssNode): void => {
    if (node.type === 'StyleSheet') node.children.forEach(visit)
    else if (node.type === 'Rule' && node.prelude.type === 'SelectorList') {
      const declarations = readDeclarations(node.block)
      node.prelude.children.forEach((selector) => {
        const compounds = readSelector(selector)
        if (!compounds) return
        const specificity = compounds.reduce(
          (sum, c) => sum + (c.id ? 10000 : 0) + c.classes.length * 100 + (c.type ? 1 : 0),
          0,
        )
        rules.push({ compounds, specificity, declarations })
      })
    }
  }
  visit(sheet)
  return new StyleSheet(rules.toSorted((a, b) => a.specificity - b.specificity))
}

function readDeclarations(block: CssNode): Style {
  const style: Style = {}
  if (block.type !== 'Block' && block.type !== 'DeclarationList') return style
  block.children.forEach((node) => {
    if (node.type === 'Declaration' && KNOWN.has(node.property) && node.value.type === 'Raw')
      style[node.property] = node.value.value.trim()
  })
  return style
}

function readSelector(selector: CssNode): Compound[] | null {
  if (selector.type !== 'Selector') return null
  const compounds: Compound[] = [{ combinator: ' ', type: null, id: null, classes: [] }]
  let fine = true
  selector.children.forEach((part) => {
    const last = compounds[compounds.length - 1]!
    if (part.type === 'TypeSelector')
      last.type = part.name === '*' ? null : part.name.slice(part.name.indexOf('|') + 1)
    else if (part.type === 'ClassSelector') last.classes.push(part.name)
    else if (part.type === 'IdSelector') last.id = part.name
    else if (part.type === 'Combinator' && (part.name === ' ' || part.name === '>'))
      compounds.push({ combinator: part.name, type: null, id: null, classes: [] })
    else fine = false
  })
  return fine ? compounds : null
}

function matchesCompound(c: Compound, element: SvgElement): boolean {
  if (c.type && c.type !== element.name) return false
  if (c.id && c.id !== element.attributes['id']) return false
  const classes = (element.attributes['class'] ?? '').split(/\s+/)
  return c.classes.every((name) => classes.includes(name))
}

function matches(compounds: Compound[], element: SvgElement, at = compounds.length - 1): boolean {
  const c = compounds[at]!
  if (!matchesCompound(c, element)) return false
  if (at === 0) return true
  for (let up = element.parent; up; up = up.parent) {
    if (matches(compounds, up, at - 1)) return true
    if (c.combinator === '>') return false
  }
  return false
}

/** The style of an element: inherited, then its attributes, then sheet rules, then its style attribute. */
export function computeStyle(element: SvgElement, inherited: Style, sheet: StyleSheet): Style {
  const style: Style = {}
  for (const key of INHERITED) if (inherited[key] !== undefined) style[key] = inherited[key]
  const set = (declarations: Style) => {
    for (const [key, raw] of Object.entries(declarations)) {
      const value = raw.replace(/\s*!important\s*$/i, '')
      if (value === 'inherit') {
        if (inherited[key] !== undefined) style[key] = inherited[key]
      } else if (value !== '') style[key] = value
    }
  }
  set(Object.fromEntries(Object.entries(element.attributes).filter(([key]) => KNOWN.has(key))))
  for (const declarations of sheet.declarationsFor(element)) set(declarations)
  if (element.attributes['style']) set(parseInline(element.attributes['style']))
  return style
}

/** A style attribute: plain splitting is enough here and forgives what real files get wrong. */
function parseInline(text: string): Style {
  const style: Style = {}
  for (const part of text.replace(/\/\*.*?\*\//gs, '').split(';')) {
    const colon = part.indexOf(':')
    if (colon < 0) continue
    const key = part.slice(0, colon).trim().toLowerCase()
    if (KNOWN.has(key)) style[key] = part.slice(colon + 1).trim()
  }
  return style
}
