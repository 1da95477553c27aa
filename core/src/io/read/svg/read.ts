// An SVG drawing as what it paints: regions of one colour each, in paint order, in mm of the page.
import {
  boxesMeet,
  compose,
  fillRings,
  growBox,
  identity,
  intersect,
  mapRegion,
  meanScale,
  rectangle,
  regionArea,
  regionBox,
  scaling,
  strokeRegion,
  subtract,
  translation,
  union,
  type Affine,
  type Box,
  type Cap,
  type Point,
  type Join,
  type Polygon,
  type Region,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import { decodeXml, parseSvg, type SvgDocument, type SvgElement } from './document'
import {
  parseNumbers,
  parseSvgLength,
  parseTransform,
  parseViewBox,
  PX_MM,
  viewBoxMap,
  type Viewport,
} from './lengths'
import { dashLines, flattenPath, pathDataOf, type Line } from './outline'
import { clamp01, mixOver, resolvePaint } from './paint'
import { computeStyle, parseStyleSheet, type Style } from './style'

/** One painted area. */
export interface PaintedShape {
  region: Region
  box: Box
  /** #rrggbb */
  colour: string
  /** Name of the top-level group it stands in; null where there is none with a name. */
  group: string | null
}

export interface LeftOut {
  what: string
  count: number
}

export interface Drawing {
  shapes: PaintedShape[]
  leftOut: LeftOut[]
  widthMm: number
  heightMm: number
  /** Where things were left out, mm in the page. */
  leftAt: { what: string; at: Point }[]
  /** Nothing but hairlines is drawn: whether they are outlines of pieces is the maker's to say. */
  linesOnly: boolean
}

/** Strokes thinner than this (mm) are lines for the blade, not card. */
export const HAIRLINE_MM = 0.2
const WHITE = '#ffffff'
/** A pen wider than this (mm) is a slip of the file. */
const WIDEST_MM = 10_000
const MAX_SHAPES = 60_000
const MAX_POINTS = 4_000_000
/** Smallest area (mm²) that counts as painted. */
const SPECK_MM2 = 0.005

const NOT_DRAWN = new Set([
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'marker',
  'pattern',
  'linearGradient',
  'radialGradient',
  'filter',
  'metadata',
  'title',
  'desc',
  'style',
  'script',
  'namedview',
])
const LEFT_OUT: Record<string, string> = {
  text: 'text',
  flowRoot: 'text',
  image: 'picture',
  foreignObject: 'foreign content',
}

interface Context {
  map: Affine
  port: Viewport
  style: Style
  alpha: number
  clip: Region | null
  group: string | null
  /** Elements being followed through `use`, to stop at loops. */
  trail: readonly SvgElement[]
}

/** What a drawing of nothing but hairlines means: the outlines of its pieces, or the thin lines it shows. */
export type Outlines = 'pieces' | 'lines'

export interface ReadOptions {
  outlines?: Outlines
  /** Strokes from this width on (mm, at true size) are card; thinner ones are lines for the blade. */
  hairlineMm?: number
  /** Outlines of words, thousandths of the em, baseline at 0, with their advance; without it text is left out. */
  outlineText?: (words: string) => { region: Region; advance: number }
  /** Told now and then which share of the drawing is read. */
  onProgress?: (share: number) => void
}

/**
 * Reads an SVG file. Shapes lie in mm of the page (viewBox at its true size), in paint order. Throws BadInput with one
 * sentence for files that are no SVG, are damaged, draw nothing, or are too large.
 */
export function readSvg(bytes: Uint8Array | string, options: ReadOptions = {}): Drawing {
  const doc = parseSvg(typeof bytes === 'string' ? bytes : decodeXml(bytes))
  return new Reader(doc, options).read()
}

class Reader {
  private readonly shapes: PaintedShape[] = []
  private readonly left = new Map<string, number>()
  private readonly leftAt: Drawing['leftAt'] = []
  private readonly rules
  private readonly namedGroups: Map<SvgElement, string>
  private points = 0
  private uses = 0
  private readonly hairlineMm: number
  private seen = 0
  private readonly cutLines: { context: Context; rings: Line[]; colour: string; draw: () => void }[] = []

  constructor(
    private readonly doc: SvgDocument,
    private readonly options: ReadOptions,
  ) {
    this.hairlineMm = options.hairlineMm ?? HAIRLINE_MM
    this.rules = parseStyleSheet(doc.styleText)
    this.namedGroups = nameGroups(doc.root)
  }

  read(): Drawing {
    const { root } = this.doc
    const view = parseViewBox(root.attributes['viewBox'])
    const port: Viewport = {
      x: 0,
      y: 0,
      w: parseSvgLength(root.attributes['width'], view?.w ?? 0) || view?.w || 0,
      h: parseSvgLength(root.attributes['height'], view?.h ?? 0) || view?.h || 0,
    }
    const sized = port.w > 0 && port.h > 0
    const inner = view && sized ? viewBoxMap(view, port, root.attributes['preserveAspectRatio']) : identity
    const context: Context = {
      map: compose(scaling(PX_MM), inner),
      port: view ?? (sized ? port : { x: 0, y: 0, w: 300, h: 150 }),
      style: {},
      alpha: 1,
      clip: null,
      group: null,
      trail: [],
    }
    this.children(root, {
      ...context,
      style: computeStyle(root, {}, this.rules),
      map: compose(context.map, parseTransform(root.attributes['transform'])),
    })
    const linesOnly = this.shapes.length === 0 && this.cutLines.length > 0
    this.settleCutLines()
    if (this.shapes.length === 0) throw new BadInput(this.emptySentence())
    let { shapes } = this
    let { leftAt } = this
    let [widthMm, heightMm] = [port.w * PX_MM, port.h * PX_MM]
    if (!sized) {
      // Neither a size nor a viewBox: the page is what is drawn.
      const all = regionBox(shapes.flatMap((s) => s.region))
      const move = translation(-all.minX, -all.minY)
      shapes = shapes.map((s) => {
        const region = mapRegion(move, s.region)
        return { ...s, region, box: regionBox(region) }
      })
      leftAt = leftAt.map(({ what, at }) => ({ what, at: { x: at.x - all.minX, y: at.y - all.minY } }))
      widthMm = all.maxX - all.minX
      heightMm = all.maxY - all.minY
    }
    return {
      shapes,
      leftOut: [...this.left].map(([what, count]) => ({ what, count })),
      widthMm,
      heightMm,
      leftAt,
      linesOnly,
    }
  }

  private emptySentence(): string {
    const left = [...this.left].map(([what, count]) => `${count} × ${what}`).join(', ')
    return left ? `the drawing holds no shapes that can be cut (left out: ${left})` : 'the drawing is empty'
  }

  private leave(what: string, at?: Point): void {
    this.left.set(what, (this.left.get(what) ?? 0) + 1)
    if (at && this.leftAt.length < 500) this.leftAt.push({ what, at })
  }

  /** Words set in the maker's font: each run with a place of its own is anchored by itself. */
  private text(element: SvgElement, context: Context): void {
    let [x, y] = [0, 0]
    const walk = (part: SvgElement, outer: Style) => {
      const style = part === element ? outer : computeStyle(part, outer, this.rules)
      if (style['display'] === 'none') return
      const { attributes } = part
      if (attributes['x'] !== undefined) x = parseNumbers(attributes['x'])[0] ?? x
      if (attributes['y'] !== undefined) y = parseNumbers(attributes['y'])[0] ?? y
      x += parseNumbers(attributes['dx'])[0] ?? 0
      y += parseNumbers(attributes['dy'])[0] ?? 0
      for (const item of part.content) {
        if (typeof item !== 'string') {
          walk(item, style)
          continue
        }
        const words = item.replace(/\s+/g, ' ')
        if (words.trim() === '') continue
        const size = parseSvgLength(style['font-size'], 16) ?? 16
        const { region, advance } = this.options.outlineText!(words.trim())
        const width = (advance * size) / 1000
        const from =
          x - (style['text-anchor'] === 'middle' ? width / 2 : style['text-anchor'] === 'end' ? width : 0)
        const fill = resolvePaint(style['fill'] ?? 'black', style, this.doc)
        if (fill.kind === 'colour') {
          const map = compose(context.map, compose(translation(from, y), scaling(size / 1000)))
          this.paint(
            mapRegion(map, region),
            fill.hex,
            fill.alpha * clamp01(style['fill-opacity']) * context.alpha,
            context,
          )
        }
        x = from + width
      }
    }
    walk(element, context.style)
  }

  private children(element: SvgElement, context: Context): void {
    for (const child of element.children) this.element(child, context)
  }

  private element(element: SvgElement, outer: Context): void {
    const { name, attributes } = element
    if (NOT_DRAWN.has(name)) return
    if (++this.seen % 200 === 0) this.options.onProgress?.(Math.min(1, this.seen / this.doc.elements))
    const style = computeStyle(element, outer.style, this.rules)
    if (style['display'] === 'none') return
    if (name in LEFT_OUT) {
      const map = compose(outer.map, parseTransform(attributes['transform']))
      if (name === 'text' && this.options.outlineText)
        this.text(element, {
          ...outer,
          style,
          map,
          group: outer.group ?? this.namedGroups.get(element) ?? null,
        })
      else this.leave(LEFT_OUT[name]!, placeOf(element, map))
      return
    }
    let context: Context = {
      ...outer,
      style,
      map: compose(outer.map, parseTransform(attributes['transform'])),
      alpha: outer.alpha * clamp01(style['opacity']),
      group: outer.group ?? this.namedGroups.get(element) ?? null,
    }
    if (context.alpha < 0.01) return
    if (style['mask'] && style['mask'] !== 'none') this.leave('mask')
    if (style['filter'] && style['filter'] !== 'none') this.leave('filter effect')
    context = this.clipped(context, style['clip-path'])
    if (context.clip?.length === 0) return
    switch (name) {
      case 'g':
      case 'a':
        this.children(element, context)
        break
      case 'switch': {
        const first = element.children.find((child) => child.name !== 'foreignObject')
        if (first) this.element(first, context)
        break
      }
      case 'svg':
        this.viewport(element, context, attributes['width'], attributes['height'])
        break
      case 'use':
        this.use(element, context)
        break
      default:
        this.shape(element, context)
    }
  }

  private viewport(
    element: SvgElement,
    context: Context,
    width: string | undefined,
    height: string | undefined,
  ): void {
    const { attributes } = element
    const view = parseViewBox(attributes['viewBox'])
    const port: Viewport = {
      x: parseSvgLength(attributes['x'], context.port.w) ?? 0,
      y: parseSvgLength(attributes['y'], context.port.h) ?? 0,
      w: parseSvgLength(width ?? '100%', context.port.w) ?? context.port.w,
      h: parseSvgLength(height ?? '100%', context.port.h) ?? context.port.h,
    }
    if (!(port.w > 0 && port.h > 0)) return
    const inner = view
      ? viewBoxMap(view, port, attributes['preserveAspectRatio'])
      : translation(port.x, port.y)
    const overflow = context.style['overflow']
    let clip = context.clip
    if (overflow !== 'visible' && overflow !== 'auto') {
      const window = mapRegion(context.map, [rectangle(port.x, port.y, port.w, port.h)])
      clip = clip ? intersect(clip, window) : window
    }
    this.children(element, {
      ...context,
      map: compose(context.map, inner),
      port: view ?? { ...port, x: 0, y: 0 },
      clip,
    })
  }

  private use(element: SvgElement, context: Context): void {
    const { attributes } = element
    const target = this.doc.byId.get((attributes['href'] ?? '').replace(/^#/, ''))
    if (!target || context.trail.includes(target)) return
    if (context.trail.length > 30 || ++this.uses > 20_000)
      throw new BadInput('the drawing repeats parts of itself too often')
    for (let up: SvgElement | null = element; up; up = up.parent) if (up === target) return
    const moved: Context = {
      ...context,
      map: compose(
        context.map,
        translation(
          parseSvgLength(attributes['x'], context.port.w) ?? 0,
          parseSvgLength(attributes['y'], context.port.h) ?? 0,
        ),
      ),
      trail: [...context.trail, target],
    }
    if (target.name === 'symbol' || target.name === 'svg') {
      const style = computeStyle(target, moved.style, this.rules)
      this.viewport(
        target,
        { ...moved, style },
        attributes['width'] ?? target.attributes['width'],
        attributes['height'] ?? target.attributes['height'],
      )
    } else this.element(target, moved)
  }

  private clipped(context: Context, value: string | undefined): Context {
    const link = /^url\(\s*["']?#([^"')]+)["']?\s*\)/.exec(value ?? '')
    const target = link && this.doc.byId.get(link[1]!)
    if (!target || target.name !== 'clipPath' || context.trail.includes(target)) return context
    if (target.attributes['clipPathUnits'] === 'objectBoundingBox') return context
    const base: Context = {
      ...context,
      map: compose(context.map, parseTransform(target.attributes['transform'])),
      trail: [...context.trail, target],
    }
    const region = union(...this.clipShapes(target, { ...base, style: computeStyle(target, {}, this.rules) }))
    const nested = this.clipped({ ...base, clip: null }, target.attributes['clip-path'])
    const own = nested.clip ? intersect(region, nested.clip) : region
    return { ...context, clip: context.clip ? intersect(context.clip, own) : own }
  }

  private clipShapes(element: SvgElement, context: Context): Region[] {
    return element.children.flatMap((child): Region[] => {
      const style = computeStyle(child, context.style, this.rules)
      if (style['display'] === 'none') return []
      const map = compose(context.map, parseTransform(child.attributes['transform']))
      if (child.name === 'use') {
        const target = this.doc.byId.get((child.attributes['href'] ?? '').replace(/^#/, ''))
        if (!target || context.trail.includes(target)) return []
        const move = translation(
          parseSvgLength(child.attributes['x'], 0) ?? 0,
          parseSvgLength(child.attributes['y'], 0) ?? 0,
        )
        const holder: SvgElement = { ...child, name: 'g', children: [target] }
        return this.clipShapes(holder, {
          ...context,
          style,
          map: compose(map, move),
          trail: [...context.trail, target],
        })
      }
      const d = pathDataOf(child, context.port)
      if (!d) return []
      const rings = flattenPath(d, map).map((line) => line.points)
      return [fillRings(rings, style['clip-rule'] === 'evenodd' ? 'evenodd' : 'nonzero')]
    })
  }

  private shape(element: SvgElement, context: Context): void {
    const d = pathDataOf(element, context.port)
    if (!d) return
    const { style } = context
    if (style['visibility'] === 'hidden' || style['visibility'] === 'collapse') return
    const lines = flattenPath(d, context.map)
    this.points += lines.reduce((sum, line) => sum + line.points.length / 2, 0)
    if (this.points > MAX_POINTS)
      throw new BadInput(`the drawing has more than ${MAX_POINTS.toLocaleString('en')} points`)
    const fill =
      element.name === 'line'
        ? { kind: 'none' as const }
        : resolvePaint(style['fill'] ?? 'black', style, this.doc)
    if (fill.kind === 'pattern')
      this.leave('pattern', lines[0] && { x: lines[0].points[0]!, y: lines[0].points[1]! })
    if (fill.kind === 'colour') {
      if (fill.from === 'gradient') this.leave('gradient')
      const rings = lines.map((line) => line.points)
      const region = fillRings(rings, style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero')
      this.paint(region, fill.hex, fill.alpha * clamp01(style['fill-opacity']) * context.alpha, context)
    }
    this.stroke(lines, fill.kind !== 'none', context, d)
  }

  private stroke(lines: Line[], filled: boolean, context: Context, d: string): void {
    const { style, map } = context
    const paint = resolvePaint(style['stroke'] ?? 'none', style, this.doc)
    if (paint.kind === 'none') return
    if (paint.kind === 'pattern') {
      this.leave('pattern')
      return
    }
    const scale = meanScale(map)
    const diagonal = Math.hypot(context.port.w, context.port.h) / Math.SQRT2
    const widthMm = Math.min(WIDEST_MM, (parseSvgLength(style['stroke-width'], diagonal) ?? 1) * scale)
    const alpha = paint.alpha * clamp01(style['stroke-opacity']) * context.alpha
    if (!(widthMm > 0) || !(scale > 0) || alpha < 0.01) return
    if (widthMm < this.hairlineMm) {
      // Round a filled shape a hairline only says where the blade goes, which the shape's own edge says already.
      if (!filled)
        this.cutLines.push({
          context,
          rings: lines,
          colour: paint.hex,
          draw: () => this.draw(lines, d, widthMm, paint.hex, alpha, context),
        })
      return
    }
    if (paint.from === 'gradient') this.leave('gradient')
    this.draw(lines, d, widthMm, paint.hex, alpha, context)
  }

  /** Paints the card that a pen covers along lines. */
  private draw(
    lines: Line[],
    d: string,
    widthMm: number,
    colour: string,
    alpha: number,
    context: Context,
  ): void {
    const { style, map } = context
    const scale = meanScale(map)
    const diagonal = Math.hypot(context.port.w, context.port.h) / Math.SQRT2
    const cap = (
      ['butt', 'round', 'square'].includes(style['stroke-linecap'] ?? '') ? style['stroke-linecap'] : 'butt'
    ) as Cap
    const joins: Record<string, Join> = { round: 'round', bevel: 'bevel' }
    const join = joins[style['stroke-linejoin'] ?? ''] ?? 'miter'
    const miter = parseFloat(style['stroke-miterlimit'] ?? '4') || 4
    const dashes = parseNumbers(style['stroke-dasharray']).map((v) => v * scale)
    const dashOffset = (parseSvgLength(style['stroke-dashoffset'], diagonal) ?? 0) * scale
    // A pen keeps its round nib only under even scaling: otherwise draw in a space of true widths and map from there.
    const [a, b, c, dd] = map
    const even =
      Math.abs(a * a + b * b - (c * c + dd * dd)) < 0.02 * scale * scale &&
      Math.abs(a * c + b * dd) < 0.02 * scale * scale
    const source = even ? lines : flattenPath(d, scaling(scale))
    const drawn = strokeRegion(dashLines(source, dashes, dashOffset), widthMm, cap, join, miter)
    this.paint(even ? drawn : mapRegion(compose(map, scaling(1 / scale)), drawn), colour, alpha, context)
  }

  /** Hairlines without fill: in a drawing made of nothing else they are the outlines of the pieces. */
  private settleCutLines(): void {
    const outlinesOnly = this.shapes.length === 0
    for (const { context, rings, colour, draw } of this.cutLines) {
      if (outlinesOnly && this.options.outlines === 'lines') {
        draw()
        continue
      }
      const closed = rings.filter((line) => line.closed || isClosed(line))
      if (outlinesOnly && closed.length > 0)
        this.paint(
          fillRings(
            closed.map((line) => line.points),
            'evenodd',
          ),
          colour,
          1,
          context,
        )
      else this.leave('cut line')
    }
  }

  private paint(whole: Region, colour: string, alpha: number, context: Context): void {
    const region = context.clip ? intersect(whole, context.clip) : whole
    if (alpha < 0.01 || Math.abs(regionArea(region)) < SPECK_MM2) return
    if (this.shapes.length >= MAX_SHAPES)
      throw new BadInput(`the drawing has more than ${MAX_SHAPES.toLocaleString('en')} shapes`)
    if (alpha > 0.985) this.add(region, colour, context.group)
    else this.paintThrough(region, colour, alpha, context.group)
  }

  /** Card is never half clear: where a shape lets others through, it becomes pieces of the colours then seen. */
  private paintThrough(region: Region, colour: string, alpha: number, group: string | null): void {
    let rest = region
    let restBox = regionBox(rest)
    const seen = this.shapes.length
    for (let i = seen - 1; i >= 0 && rest.length > 0 && seen < 3000; i--) {
      const below = this.shapes[i]!
      if (!boxesMeet(below.box, restBox)) continue
      const common = intersect(rest, below.region)
      if (regionArea(common) < SPECK_MM2) continue
      this.add(common, mixOver(colour, below.colour, alpha), group)
      rest = subtract(rest, below.region)
      restBox = regionBox(rest)
    }
    if (regionArea(rest) >= SPECK_MM2) this.add(rest, mixOver(colour, WHITE, alpha), group)
  }

  private add(region: Region, colour: string, group: string | null): void {
    this.shapes.push({ region: region as Polygon[], box: growBox(regionBox(region), 1e-4), colour, group })
  }
}

/** Where an element that is not drawn would have begun, or its middle where it has a size. */
function placeOf({ attributes, content }: SvgElement, map: Affine): Point {
  const inner = content.find((item): item is SvgElement => typeof item !== 'string')
  const [x, y, w, h] = ['x', 'y', 'width', 'height'].map(
    (name) => parseSvgLength(attributes[name] ?? inner?.attributes[name], 0) ?? 0,
  ) as [number, number, number, number]
  const [px, py] = [x + w / 2, y + h / 2]
  return { x: map[0] * px + map[2] * py + map[4], y: map[1] * px + map[3] * py + map[5] }
}

const isClosed = ({ points: p }: Line): boolean =>
  Math.hypot(p[0]! - p[p.length - 2]!, p[1]! - p[p.length - 1]!) < 0.05

/** Names of the top-level groups, where two or more of them bear one that a person gave. */
function nameGroups(root: SvgElement): Map<SvgElement, string> {
  let holder = root
  // A lone wrapper is not a layer: look inside it.
  for (;;) {
    const drawn = holder.children.filter((child) => !NOT_DRAWN.has(child.name))
    if (drawn.length !== 1 || drawn[0]!.name !== 'g') break
    holder = drawn[0]!
  }
  const names = new Map<SvgElement, string>()
  for (const child of holder.children) {
    if (child.name !== 'g') continue
    const { label, id, 'data-name': dataName } = child.attributes
    const given =
      label ?? dataName ?? (id && !/^(g|group|path|svg)?[-_]?\d+([-_]\d+)*$/i.test(id) ? id : undefined)
    if (given)
      names.set(
        child,
        given
          .replace(/_x([0-9A-F]{2})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
          .replace(/[_\s]+/g, ' ')
          .trim()
          .slice(0, 60),
      )
  }
  return names.size >= 2 ? names : new Map()
}
