// The files of a project: per load SVG, DXF and plot text; templates, the build sheet, shopping and cut lists.
import {
  writeColourSheets,
  writeCsv,
  writeDxf,
  writeHpgl,
  writeLayeringGuide,
  writeListPdf,
  writePadSheets,
  writePrintSheet,
  writeSvg,
  writeTags,
  writeTemplates,
  writeTiledTemplates,
  type ColourSheet,
  type CutSheet,
  type Faces,
  type GuideLayer,
  type PadSheet,
  type SheetTag,
} from '../write'
import { mapPolygon, polygonRings, rectangle, rotation, type Polygon } from '../../base/geometry'
import {
  builtLayers,
  findLayer,
  folioOf,
  heldBy,
  layerRegion,
  paperOf,
  slug,
  type Project,
} from '../../project'
import {
  basisWords,
  cuttingMarks,
  loadTag,
  matWords,
  measureOf,
  measureWords,
  printsOf,
  strokeWay,
  type Load,
  type SheetsNeeded,
} from '../../stages/sheets'
import {
  formatLength,
  formatKept,
  formatMinutes,
  formatSize,
  wordsIn,
  type Unit,
  MM_PER_INCH,
} from '../../base/units'
import { datedPlan, type AssemblyPlan, type StepKind } from '../../stages/assembly'
import { calendarOf } from './calendar'
import { shoppingRows } from './shopping'
import { layerPicture, stepPicture } from './step-pictures'
import type { Colouring } from '../../stages/layers'
import { padOutline, type DepthPlan, type LayerGlue } from '../../stages/depth'
import type { PlannedCost } from '../../stages/journal'
import { thingNeeded } from '../../stages/measure'

/** Files by their names. */
export type FileSet = Map<string, string | Uint8Array>

/** The results that lists are made of. */
export interface Planned {
  loads: readonly Load[]
  assembly: AssemblyPlan
  needed: readonly SheetsNeeded[]
  depth: Pick<DepthPlan, 'foamUse' | 'pads' | 'pins' | 'shim' | 'lip' | 'layers'>
  glue: readonly LayerGlue[]
  colourings: readonly Colouring[]
  cost: Pick<PlannedCost, 'lines'>
}

/** One load as a sheet to cut, in the order of its path. */
export function cutSheet(project: Project, load: Load): CutSheet {
  const { strokes } = load.path
  const lastCut = new Map(strokes.map((stroke, i) => [stroke.piece, i]))
  const pieces = load.pieces
    .map((piece, k) => ({ piece, k }))
    .toSorted((a, b) => lastCut.get(a.k)! - lastCut.get(b.k)!)
    .map(({ piece, k }) => ({
      layerName: piece.layerName,
      folio: piece.folio,
      shape: piece.shape,
      lines: strokes.flatMap(({ piece: owner, kind, line }) =>
        owner === k && kind !== 'cut' ? [{ kind, line }] : [],
      ),
    }))
  const prints = printsOf(project, load)
  const { overcutMm } = project.drawer.cutter
  const ways = strokes.map((stroke) => ({
    // A number that is to be cut is cut like any other line.
    kind: stroke.kind === 'number' && project.plan.numbers === 'cut' ? ('cut' as const) : stroke.kind,
    line: strokeWay(stroke, overcutMm),
  }))
  return {
    title: `${project.name}, load ${load.number}: ${load.paper.name}`,
    widthMm: load.widthMm,
    heightMm: load.heightMm,
    pieces,
    ...(prints.length > 0 && {
      marks: cuttingMarks(
        load,
        prints.flatMap(({ inked }) => inked),
      ),
    }),
    ways,
  }
}

/** What is printed on the sheets before they are cut: a page for each load that has pictures, by the name of its cut files. */
export async function printFiles(project: Project, loads: readonly Load[], faces: Faces): Promise<FileSet> {
  const files: FileSet = new Map()
  for (const load of loads) {
    const prints = printsOf(project, load)
    if (prints.length === 0) continue
    files.set(
      `${loadFileStem(load)}-print.pdf`,
      await writePrintSheet(cutSheet(project, load), prints, { faces, unit: project.unit }),
    )
  }
  return files
}

/** File name of a load without its ending: load-03-harbour-blue. */
export const loadFileStem = (load: Load): string =>
  `load-${String(load.number).padStart(2, '0')}-${slug(load.paper.name)}`

/** A load as a picture (SVG): pieces in the paper's colour on a paler sheet. */
export const loadPicture = (project: Project, load: Load): string =>
  writeSvg(cutSheet(project, load), { piece: load.paper.colour, sheet: '#f4f4f0' })

/** A load as plot text. */
export const plotOf = (project: Project, load: Load): string => writeHpgl(cutSheet(project, load))

/** A small square to cut first, to try a setting. */
export function testSquareFiles(project: Project): FileSet {
  const square = testSquare(project)
  return new Map([
    ['test-square.svg', writeSvg(square)],
    ['test-square.hpgl', writeHpgl(square)],
  ])
}

/** Cut files of every load. */
export function cutFiles(project: Project, loads: readonly Load[]): FileSet {
  const files: FileSet = new Map()
  for (const load of loads) {
    const sheet = cutSheet(project, load)
    const stem = loadFileStem(load)
    files.set(`${stem}.svg`, writeSvg(sheet))
    files.set(`${stem}.dxf`, writeDxf(sheet))
    files.set(`${stem}.hpgl`, writeHpgl(sheet))
  }
  return files
}

/** Printed and tabled lists: what loads are cut by, where any are left, build sheet, guides, shopping. */
export async function listFiles(project: Project, planned: Planned, faces: Faces): Promise<FileSet> {
  const { loads, assembly, needed, depth } = planned
  const { unit } = project
  const files: FileSet = loads.length > 0 ? await loadLists(project, planned, faces) : new Map()
  const coloured = colourSheets(project, planned.colourings)
  if (coloured.length > 0) files.set('colouring-guide.pdf', await writeColourSheets(coloured, faces, unit))
  const padded = padSheets(project, depth.pads, planned.glue)
  if (padded.length > 0) files.set('pads-from-behind.pdf', await writePadSheets(padded, faces, unit))
  files.set('build-sheet.pdf', await writeListPdf(project.name, buildSections(project, planned), faces))
  const { due, people } = project.plan
  const dated = due && datedPlan(assembly.steps, { done: project.progress.done, due, people })
  if (dated && typeof dated !== 'string') files.set('evenings.ics', calendarOf(project, dated))
  if (builtLayers(project).length > 0)
    files.set(
      'layering-guide.pdf',
      await writeLayeringGuide(project.name, guideLayers(project, planned), faces),
    )
  const bought = shoppingRows(
    { needed, foamUse: depth.foamUse, thing: thingNeeded(project), lines: planned.cost.lines },
    unit,
  )
  if (bought.length > 0) files.set('shopping.csv', writeCsv(bought))
  return files
}

/** What loads are cut by: templates, prints, tags, measures and the order of cutting. */
async function loadLists(
  project: Project,
  { loads, assembly }: Pick<Planned, 'loads' | 'assembly'>,
  faces: Faces,
): Promise<FileSet> {
  const { unit } = project
  const files: FileSet = new Map()
  const sheets = loads.map((load) => cutSheet(project, load))
  files.set('templates-mirrored.pdf', await writeTemplates(sheets, faces, { mirrored: true, unit }))
  files.set('templates-as-seen.pdf', await writeTemplates(sheets, faces, { mirrored: false, unit }))
  for (const paper of ['a4', 'letter'] as const)
    files.set(`templates-tiled-${paper}.pdf`, await writeTiledTemplates(sheets, faces, { paper, unit }))
  for (const [name, file] of await printFiles(project, loads, faces)) files.set(name, file)
  files.set(
    'sheet-tags.pdf',
    await writeTags(
      loads.map((load) => tagOf(load, unit)),
      faces,
    ),
  )
  const measured = measureRows(loads, unit)
  if (measured.length > 0) files.set('measures.csv', writeCsv(measured))
  files.set(
    'cut-list.csv',
    writeCsv(
      loads.map((load) => ({
        load: load.number,
        paper: load.paper.name,
        layers: load.folios.join(' '),
        pieces: load.pieces.length,
        'loose bits': load.pieces.filter((p) => p.loose).length,
        setting: load.setting.name,
        tack: load.setting.tack,
        passes: load.setting.passes,
        [`path ${unit}`]: Math.round(unit === 'mm' ? load.outlineMm : load.outlineMm / MM_PER_INCH),
        minutes: load.minutes.toFixed(1),
        steps: assembly.steps.filter((s) => s.loadId === load.id).length,
      })),
    ),
  )
  return files
}

/** Layers of the guide, back to front. */
const guideLayers = (project: Project, { depth }: Pick<Planned, 'depth'>): GuideLayer[] =>
  builtLayers(project).map((layer) => {
    const atBack = depth.layers.some(({ layerId, bottomMm }) => layerId === layer.id && bottomMm === 0)
    return {
      number: String(folioOf(project, layer.id) ?? ''),
      name: layer.name,
      about: `${paperOf(project, layer)?.name ?? 'no paper yet'}, ${wordsIn(heldBy(layer, { atBack }), project.unit)}`,
      picture: layerPicture(project, layer),
    }
  })

/** A row for each part that a trimmer or a punch cuts as well. */
function measureRows(loads: readonly Load[], unit: Unit): Record<string, string | number>[] {
  const rows = new Map<string, Record<string, string | number>>()
  for (const load of loads)
    for (const { layerId, pieceId, layerName, folio, placement, shape } of load.pieces) {
      const measure = measureOf(mapPolygon(rotation(-placement.rotation), shape))
      if (!measure) continue
      const key = `${layerId}/${pieceId}`
      const known = rows.get(key)
      rows.set(key, {
        paper: load.paper.name,
        layer: folio,
        name: layerName,
        pieces: 1 + Number(known?.['pieces'] ?? 0),
        tool: measure.kind === 'circle' ? 'punch' : 'trimmer',
        measures: measureWords(measure, unit).join('; '),
      })
    }
  return [...rows.values()]
}

/** Layers that are coloured by hand, with where their inks go. */
const colourSheets = (project: Project, colourings: readonly Colouring[]): ColourSheet[] =>
  colourings.flatMap(({ layerId, wash, edge, dots }) => {
    const layer = findLayer(project, layerId)
    const inks = new Map(project.drawer.inks.map((ink) => [ink.id, ink]))
    if (!layer?.tint || layer.pieces.length === 0) return []
    const edgeInk = inks.get(layer.tint.edgeInkId ?? '')
    return [
      {
        title: `${folioOf(project, layerId)}. ${layer.name}: ${[inks.get(layer.tint.inkId)?.name, edgeInk?.name].filter(Boolean).join(', edges ')}`,
        card: layerRegion(layer),
        wash,
        washColour: layer.tint.colour,
        edge,
        edgeColour: edgeInk?.colour ?? layer.tint.colour,
        dots,
      },
    ]
  })

/** Layers that are held by pads or glue, each with them; heights in the maker's unit. */
function padSheets(project: Project, pads: DepthPlan['pads'], glues: Planned['glue']): PadSheet[] {
  return builtLayers(project).flatMap((layer): PadSheet[] => {
    const own = pads.filter(({ layerId }) => layerId === layer.id)
    const glue = glues.find(({ layerId, zone }) => layerId === layer.id && zone.length > 0) ?? null
    if (own.length === 0 && !glue) return []
    return [
      {
        title: `${folioOf(project, layer.id)}. ${layer.name}`,
        card: layerRegion(layer),
        glue,
        pads: own.map((pad) => ({
          x: pad.x,
          y: pad.y,
          outline: padOutline(pad),
          label: formatLength(pad.thicknessMm, project.unit),
        })),
      },
    ]
  })
}

/** What is stuck to the corner of a load's sheet. */
function tagOf(load: Load, unit: Unit): SheetTag {
  const { setting, pieces } = load
  const holes = pieces.reduce((sum, piece) => sum + piece.shape.holes.length, 0)
  return {
    tag: loadTag(load),
    colour: load.paper.colour,
    title: `Load ${load.number}: ${load.paper.name}`,
    lines: [
      `${load.onOffCut ? `off-cut ${load.onOffCut.label}, ` : ''}${formatSize(load.widthMm, load.heightMm, unit)}`,
      matWords(load).mat,
      `${setting.name}, ${basisWords(setting)}`,
      `${setting.passes} ${setting.passes === 1 ? 'pass' : 'passes'}, about ${formatMinutes(load.minutes)}`,
      `${pieces.length} ${pieces.length === 1 ? 'piece' : 'pieces'}${holes > 0 ? `, ${holes} to weed` : ''}`,
      ...(load.bladeCareM === null
        ? []
        : [`look at the blade first: ${formatKept(load.bladeCareM, 'm', unit)} cut`]),
    ],
    keep: pieces.filter((piece) => piece.loose).map((piece) => piece.shape),
  }
}

/** A square with a triangle in it, 25 mm in the corner of a sheet: cut it first, to try a setting. */
function testSquare(project: Project): CutSheet {
  const at = project.drawer.cutter.rimMm + 2
  const shape: Polygon = {
    outer: rectangle([at, at], 25, 25).outer,
    holes: [Float64Array.of(at + 7, at + 18, at + 18, at + 18, at + 12.5, at + 7)],
  }
  const size = at * 2 + 25
  return {
    title: 'Test square',
    widthMm: size,
    heightMm: size,
    pieces: [{ layerName: 'test square', folio: '1', shape, lines: [] }],
    ways: polygonRings(shape)
      .toReversed()
      .map((line) => ({
        kind: 'cut' as const,
        line: strokeWay({ kind: 'cut', line, closed: true, piece: 0 }, project.drawer.cutter.overcutMm),
      })),
  }
}

/** What is done from the dry fit on. */
const STICKING: ReadonlySet<StepKind> = new Set(['dry-fit', 'pad', 'glue', 'lay', 'mount', 'glaze', 'close'])

/** The layers, then the steps as they are numbered: what comes before the first load, up to the dry fit, and from it on. */
function buildSections(project: Project, planned: Planned) {
  const { steps } = planned.assembly
  const loads = planned.loads.length
  const linesOf = (from: number, to: number) =>
    steps.slice(from, to).map((step, i) => ({
      left: String(from + i + 1),
      text: `${step.title}. ${wordsIn(step.detail, project.unit)}${step.caution ? ` Caution: ${step.caution}` : ''}`,
      right: formatMinutes(step.minutes),
      picture: stepPicture(project, step, planned),
    }))
  const firstAt = (of: (kind: StepKind) => boolean) => {
    const at = steps.findIndex(({ kind }) => of(kind))
    return at < 0 ? steps.length : at
  }
  const pieces = firstAt((kind) => kind !== 'prepare')
  const stick = firstAt((kind) => STICKING.has(kind))
  return [
    {
      heading: 'Layers, back to front',
      lines: project.layers.map((layer) => ({
        left: String(folioOf(project, layer.id) ?? '–'),
        text: `${layer.name}${layer.leftOut ? ' (left out)' : ''}`,
      })),
    },
    { heading: 'Before', lines: linesOf(0, pieces) },
    {
      heading: `Make the pieces${loads > 0 ? `: ${loads === 1 ? '1 load' : `${loads} loads`}` : ''}`,
      lines: linesOf(pieces, stick),
    },
    { heading: 'Stick and finish', lines: linesOf(stick, steps.length) },
  ].filter((section) => section.lines.length > 0)
}
