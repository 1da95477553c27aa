// The group-code pairs of a DXF as plain entities. Own code, for one reason: the usual parser does not come back from some
// damaged files, and this one reads every line once.
import { BadInput } from '../base'

/** One entity: its type and all its pairs, in order. A POLYLINE holds its vertices as further entities. */
export interface DxfEntity {
  type: string
  pairs: readonly (readonly [code: number, value: string])[]
  vertices: DxfEntity[]
}

/** What of a DXF file is read: entities, blocks by name, colours of layers, and the unit by its number, 0 where it says none. */
export interface DxfFile {
  insUnits: number
  layerColours: Map<string, number>
  /** Layers that are not shown: off, or frozen. */
  layersOff: Set<string>
  /** Line types of layers. */
  layerLines: Map<string, string>
  blocks: Map<string, { base: { x: number; y: number }; entities: DxfEntity[] }>
  entities: DxfEntity[]
}

/** First value of a group code (a number of the DXF reference); undefined where there is none. */
export const textOf = (entity: DxfEntity, code: number): string | undefined =>
  entity.pairs.find(([c]) => c === code)?.[1]

/** First value of a group code as a number in the drawing’s unit; the default where there is none or it is not finite. */
export function numberOf(entity: DxfEntity, code: number, otherwise = 0): number {
  const value = Number(textOf(entity, code) ?? NaN)
  return Number.isFinite(value) ? value : otherwise
}

/** All values of a group code as numbers in the drawing’s unit, those that are not finite dropped. */
export const numbersOf = (entity: DxfEntity, code: number): number[] =>
  entity.pairs
    .filter(([c]) => c === code)
    .map(([, v]) => Number(v))
    .filter(Number.isFinite)

/** Splits a DXF (text) into its parts. Throws BadInput where it is none or breaks off. */
export function parseDxf(text: string): DxfFile {
  const lines = text.split(/\r\n|\r|\n/)
  const file: DxfFile = {
    insUnits: 0,
    layerColours: new Map(),
    layersOff: new Set(),
    layerLines: new Map(),
    blocks: new Map(),
    entities: [],
  }
  let section = ''
  let ended = false
  let block: { name: string; base: { x: number; y: number }; entities: DxfEntity[] } | null = null
  let polyline: DxfEntity | null = null
  let sections = 0
  for (let i = 0; i + 1 < lines.length && !ended;) {
    const type = lines[i + 1]!.trim()
    if (Number(lines[i]) !== 0) throw new BadInput(`the DXF is damaged at line ${i + 1}`)
    i += 2
    const pairs: [number, string][] = []
    for (; i + 1 < lines.length && !(lines[i]!.trim() !== '' && Number(lines[i]) === 0); i += 2) {
      const code = Number(lines[i])
      if (lines[i]!.trim() === '' || !Number.isInteger(code))
        throw new BadInput(`the DXF is damaged at line ${i + 1}`)
      pairs.push([code, lines[i + 1]!.trim()])
    }
    const entity: DxfEntity = { type, pairs, vertices: [] }
    if (type === 'SECTION') {
      section = textOf(entity, 2) ?? ''
      sections++
      if (section === 'HEADER') {
        const at = pairs.findIndex(([c, v]) => c === 9 && v === '$INSUNITS')
        if (at >= 0) file.insUnits = Number(pairs[at + 1]?.[1] ?? 0)
      }
    } else if (type === 'ENDSEC') section = ''
    else if (type === 'EOF') ended = true
    else if (section === 'TABLES' && type === 'LAYER') {
      file.layerColours.set(textOf(entity, 2) ?? '0', Math.abs(numberOf(entity, 62, 7)))
      // A colour below zero: off; the lowest bit: frozen.
      if (numberOf(entity, 62, 7) < 0 || (numberOf(entity, 70) & 1) === 1)
        file.layersOff.add(textOf(entity, 2) ?? '0')
      file.layerLines.set(textOf(entity, 2) ?? '0', textOf(entity, 6) ?? '')
    } else if (section === 'BLOCKS' && type === 'BLOCK')
      block = {
        name: textOf(entity, 2) ?? '',
        base: { x: numberOf(entity, 10), y: numberOf(entity, 20) },
        entities: [],
      }
    else if (section === 'BLOCKS' && type === 'ENDBLK') {
      if (block) file.blocks.set(block.name, block)
      block = null
    } else if (type === 'VERTEX' && polyline) polyline.vertices.push(entity)
    else if (type === 'SEQEND') polyline = null
    else if (section === 'ENTITIES' || (section === 'BLOCKS' && block)) {
      polyline = type === 'POLYLINE' ? entity : null
      ;(section === 'ENTITIES' ? file.entities : block!.entities).push(entity)
    }
  }
  if (sections === 0) throw new BadInput('this is not a DXF file')
  if (!ended) throw new BadInput('the DXF breaks off before its end')
  return file
}
