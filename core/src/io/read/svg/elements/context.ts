import type { Affine, Region } from '../../../../base/geometry'
import type { Canvas } from '../canvas'
import type { SvgDocument, SvgElement } from '../document'
import type { ReadOptions } from '../drawing'
import type { Viewport } from '../lengths'
import type { Style, StyleSheet } from '../style'

/** What an element inherits from those round it. */
export interface Context {
  /** From the element's own coordinates to mm of the page. */
  map: Affine
  /** What lengths in per cent refer to. */
  port: Viewport
  style: Style
  alpha: number
  /** Nothing is painted outside of it; null where nothing is clipped. */
  clip: Region | null
  group: string | null
  /** Number of the top-level element; null above those. */
  part: number | null
  /** Elements being followed through `use`, to stop at loops. */
  trail: readonly SvgElement[]
}

/** What the reader of every kind of element works with. */
export interface Reading {
  doc: SvgDocument
  rules: StyleSheet
  options: ReadOptions
  canvas: Canvas
  /** Notes that something is switched off, and tells whether it comes in all the same. */
  showsHidden(): boolean
  /** Reads one element as it stands in its context. */
  element(element: SvgElement, context: Context): void
  /** Reads all that an element holds. */
  children(element: SvgElement, context: Context): void
}
