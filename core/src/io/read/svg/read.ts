// An SVG drawing as what it paints: regions of one colour each, in paint order, in mm of the page.
import {
  boxesMeet,
  boxHeight,
  boxWidth,
  compose,
  identity,
  mapRegion,
  regionBox,
  scaling,
  translation,
} from '../../../base/geometry'
import { BadInput } from '../../../base'
import { Canvas } from './canvas'
import { decodeXml, parseSvg, type SvgDocument, type SvgElement } from './document'
import type { Drawing, ReadOptions } from './drawing'
import { clippedBy } from './elements/clip-path'
import type { Context, Reading } from './elements/context'
import { nameGroups, topLevelOf } from './elements/groups'
import { LEFT_OUT, NOT_DRAWN, placeOf } from './elements/not-drawn'
import { readShape } from './elements/shape'
import { Strokes } from './elements/stroke'
import { readText } from './elements/text'
import { isReferredTo, Uses } from './elements/use'
import { readViewport } from './elements/viewport'
import {
  isTrueLength,
  parseSvgLength,
  parseTransform,
  parseViewBox,
  PX_MM,
  viewBoxMap,
  type Viewport,
} from './lengths'
import { clamp01 } from './paint'
import { computeStyle, parseStyleSheet, type Style } from './style'

/** What is drawn where neither a size nor a viewBox says so. */
const DEFAULT_PORT: Viewport = { x: 0, y: 0, w: 300, h: 150 }
const FAINT = 0.01
/** Progress is told after so many elements. */
const TELL_EVERY = 200

/**
 * Reads an SVG file. Shapes lie in mm of the page (viewBox at its true size), in paint order. Throws BadInput with one
 * sentence for files that are no SVG, are damaged, draw nothing, or are too large.
 */
export function readSvg(bytes: Uint8Array | string, options: ReadOptions = {}): Drawing {
  const doc = parseSvg(typeof bytes === 'string' ? bytes : decodeXml(bytes))
  const drawing = readShown(doc, options)
  if (drawing.shapes.length === 0) throw new BadInput(emptySentence(drawing.leftOut))
  return drawing
}

/** What is switched off stays out, and is counted by what it would paint. */
function readShown(doc: SvgDocument, options: ReadOptions): Drawing {
  const { unseen = [] } = options
  const shown = readLines(doc, options)
  if (unseen.includes('hidden') || !shown.unseen.includes('hidden')) return shown
  const whole = readLines(doc, { ...options, unseen: [...unseen, 'hidden'] })
  const count = whole.shapes.length - shown.shapes.length
  // Of what hides nothing, or nothing but that, there is nothing to choose.
  if (shown.shapes.length === 0 || count <= 0) {
    const only = count > 0 ? whole : shown
    return { ...only, unseen: only.unseen.filter((what) => what !== 'hidden') }
  }
  return { ...shown, leftOut: [...shown.leftOut, { what: 'hidden shape', count }] }
}

/** No card is as narrow as some lines: a drawing of nothing but such shows where the blade goes, unless none of them is closed. */
function readLines(doc: SvgDocument, options: ReadOptions): Drawing {
  const reader = new Reader(doc, options)
  const drawing = reader.read()
  if (options.outlines === 'lines' || !reader.isOfThinLines) return drawing
  const outlined = new Reader(doc, { ...options, hairlineMm: NO_CARD_MM }).read()
  return outlined.shapes.length > 0 ? outlined : drawing
}

/** Strips narrower than this tear in any card: three fifths of what the lightest one stands, mm. */
const NO_CARD_MM = 0.6

class Reader implements Reading {
  readonly canvas = new Canvas()
  readonly rules
  private readonly strokes = new Strokes()
  private readonly uses = new Uses()
  private readonly namedGroups: Map<SvgElement, string>
  private readonly parts: Map<SvgElement, number>
  private seen = 0
  private hides = false

  constructor(
    readonly doc: SvgDocument,
    readonly options: ReadOptions,
  ) {
    this.rules = parseStyleSheet(doc.styleText)
    const topLevel = topLevelOf(doc.root)
    this.namedGroups = nameGroups(topLevel)
    this.parts = new Map(topLevel.map((element, k) => [element, k]))
  }

  /** Nothing is painted but lines that are too thin to be card. */
  get isOfThinLines(): boolean {
    const { shapes } = this.canvas
    return (
      this.strokes.widestMm > 0 &&
      this.strokes.widestMm < NO_CARD_MM &&
      shapes.every(({ drawnBy }) => drawnBy === 'pen')
    )
  }

  read(): Drawing {
    const { root } = this.doc
    const { canvas, strokes } = this
    const { attributes } = root
    const view = parseViewBox(attributes['viewBox'])
    const w = parseSvgLength(attributes['width'], view?.w ?? 0) || view?.w || 0
    const h = parseSvgLength(attributes['height'], view?.h ?? 0) || view?.h || 0
    const port: Viewport = { x: 0, y: 0, w, h }
    const sized = w > 0 && h > 0
    const unitMm =
      isTrueLength(attributes['width']) || isTrueLength(attributes['height'])
        ? null
        : (this.options.unitMm ?? PX_MM)
    const scale = unitMm ?? PX_MM
    const inner = view && sized ? viewBoxMap(view, port, attributes['preserveAspectRatio']) : identity
    this.children(root, {
      map: compose(compose(scaling(scale), inner), parseTransform(attributes['transform'])),
      port: view ?? (sized ? port : DEFAULT_PORT),
      style: computeStyle(root, {}, this.rules),
      alpha: 1,
      clip: null,
      group: null,
      part: null,
      trail: [],
    })
    const linesOnly = (canvas.shapes.length === 0 && strokes.areThere) || this.isOfThinLines
    strokes.settle(canvas, this.options.outlines ?? 'pieces')
    const { shapes, leftOut, leftAt, folds } = canvas
    const unseen: Drawing['unseen'] = this.hides ? ['hidden'] : []
    const page = { widthMm: w * scale, heightMm: h * scale, cornerMm: null }
    const drawing = { shapes, leftOut, leftAt, folds, linesOnly, unseen, unitMm, ...page }
    if (shapes.length === 0) return drawing
    if (!sized) return toItsOwnBox(drawing)
    return onItsPage(drawing, this.options)
  }

  children(element: SvgElement, context: Context): void {
    for (const child of element.children) this.element(child, context)
  }

  element(element: SvgElement, outer: Context): void {
    const { name } = element
    if (NOT_DRAWN.has(name)) return
    if (++this.seen % TELL_EVERY === 0) this.options.onProgress?.(Math.min(1, this.seen / this.doc.elements))
    const style = computeStyle(element, outer.style, this.rules)
    if (style['display'] === 'none' && (isReferredTo(element, this.doc) || !this.showsHidden())) return
    const context = this.inside(element, outer, style)
    const { canvas } = this
    if (name in LEFT_OUT && !(name === 'text' && this.options.outlineText)) {
      canvas.leave(LEFT_OUT[name]!, placeOf(element, context.map))
      return
    }
    if (context.alpha < FAINT) return
    if (style['mask'] && style['mask'] !== 'none') canvas.leave('mask')
    if (style['filter'] && style['filter'] !== 'none') canvas.leave('filter effect')
    const clipped = clippedBy(this, context, style['clip-path'])
    if (clipped.clip?.length === 0) return
    this.draw(element, clipped)
  }

  showsHidden(): boolean {
    this.hides = true
    return this.options.unseen?.includes('hidden') ?? false
  }

  /** What an element hands on. */
  private inside(element: SvgElement, outer: Context, style: Style): Context {
    return {
      ...outer,
      style,
      map: compose(outer.map, parseTransform(element.attributes['transform'])),
      alpha: outer.alpha * clamp01(style['opacity']),
      group: outer.group ?? this.namedGroups.get(element) ?? null,
      part: outer.part ?? this.parts.get(element) ?? null,
    }
  }

  private draw(element: SvgElement, context: Context): void {
    const { name, attributes, children } = element
    switch (name) {
      case 'g':
      case 'a':
        this.children(element, context)
        break
      case 'switch': {
        const first = children.find((child) => child.name !== 'foreignObject')
        if (first) this.element(first, context)
        break
      }
      case 'svg': {
        const size = { width: attributes['width'], height: attributes['height'] }
        readViewport(this, element, { ...context, size })
        break
      }
      case 'text':
        readText(this, element, context)
        break
      case 'use':
        this.uses.read(this, element, context)
        break
      default:
        readShape(this, this.strokes, { element, context })
    }
  }
}

function emptySentence(leftOut: Drawing['leftOut']): string {
  const left = leftOut.map(({ what, count }) => `${count} × ${what}`).join(', ')
  return left ? `the drawing holds no shapes that can be cut (left out: ${left})` : 'the drawing is empty'
}

/** What lies wholly outside the page is not seen: it stays out, unless that is all there is. */
function onItsPage(drawing: Drawing, { unseen = [] }: ReadOptions): Drawing {
  const page = { minX: 0, minY: 0, maxX: drawing.widthMm, maxY: drawing.heightMm }
  const shapes = drawing.shapes.filter(({ box }) => boxesMeet(box, page))
  const count = drawing.shapes.length - shapes.length
  if (count === 0 || shapes.length === 0) return drawing
  const seen: Drawing = { ...drawing, unseen: [...drawing.unseen, 'outside'] }
  if (unseen.includes('outside')) return seen
  return {
    ...seen,
    shapes,
    leftOut: [...drawing.leftOut, { what: 'shape outside the page', count }],
    folds: drawing.folds.filter(({ line: [x1, y1, x2, y2] }) =>
      boxesMeet(page, {
        minX: Math.min(x1, x2),
        minY: Math.min(y1, y2),
        maxX: Math.max(x1, x2),
        maxY: Math.max(y1, y2),
      }),
    ),
  }
}

/** Neither a size nor a viewBox: the page is what is drawn. */
function toItsOwnBox(drawing: Drawing): Drawing {
  const all = regionBox(drawing.shapes.flatMap((shape) => shape.region))
  const move = translation(-all.minX, -all.minY)
  return {
    ...drawing,
    shapes: drawing.shapes.map((shape) => {
      const region = mapRegion(move, shape.region)
      return { ...shape, region, box: regionBox(region) }
    }),
    folds: drawing.folds.map(({ line: [x1, y1, x2, y2], group }) => ({
      line: [x1 - all.minX, y1 - all.minY, x2 - all.minX, y2 - all.minY],
      group,
    })),
    leftAt: drawing.leftAt.map(({ what, at }) => ({ what, at: { x: at.x - all.minX, y: at.y - all.minY } })),
    widthMm: boxWidth(all),
    heightMm: boxHeight(all),
  }
}
