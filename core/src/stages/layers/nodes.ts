// What there is to know of layers by their shape, as nodes: one a layer, so that a change of one leaves the others be.
import { regionArea, regionToPath, union, type Box, type Point, type Polygon } from '../../base/geometry'
import {
  builtLayers,
  cutPieces,
  guestLetter,
  guestPrefix,
  guestProject,
  layerRegion,
  safeStripOf,
  windowOf,
  type Project,
} from '../../project'
import { node, type Ref } from '../../planner'
import { laidOutSnags, sheetsBeside } from '../measure'
import { layerFigures, type LayerFigures } from './figures'
import { mosaicOf } from './fill-under'
import { hiddenByLip, hiddenPart, hiddenUnder, numberPlace } from './marks/number-place'
import { pieceMarks, type Marks } from './marks/marks'
import { printSnags } from './prints'
import { colouringOf } from './colouring'
import { numberLimit, shapeLimit, tightest } from './smallest'
import { layerSnags, mosaicSnags, neckSnags, stackSnags } from './snags'
import { soundness, sumUp, type Soundness } from './soundness/soundness'
import { turnRisks, type Turn } from './soundness/turns'
import { weakNecks, type Neck } from './soundness/necks'
import { isSeeThrough, seenOf, type VisibleArea } from './visibility/shows'

/** The node of the layer right in front of another; null where none is. */
function inFront<T>(of: (arg: string) => Ref<T>, project: Project, layerId: string): Ref<T> | null {
  const layers = builtLayers(project)
  const above = layers[layers.findIndex((layer) => layer.id === layerId) + 1]
  return above ? of(above.id) : null
}

/** A node of every layer that is built, back to front. */
export const each = <T>(of: (arg: string) => Ref<T>, project: Project): Ref<T>[] =>
  builtLayers(project).map((layer) => of(layer.id))

/** Figures of one layer, built or left out. */
export const figures = node('figures', {
  stage: 'layers',
  reads: { layer: ['pieces'] },
  compute: ({ project }) => layerFigures(project.layers[0]!),
  view: (value: LayerFigures) => value,
})

/** All card from one layer to the front, clear sheets left out. */
const front = node('front', {
  stage: 'layers',
  reads: { layer: ['pieces', 'paperId'], papers: ['finish'] },
  needs: (project, layerId): { above: Ref<Polygon[]> | null } => ({
    above: inFront(front as never, project, layerId),
  }),
  compute: ({ project }, { above }): Polygon[] => {
    const layer = project.layers[0]!
    const cover = above ?? []
    return isSeeThrough(project, layer) ? cover : union(cover, layerRegion(layer))
  },
})

const seen = node('seen', {
  stage: 'layers',
  reads: { mount: true, layer: ['pieces'] },
  needs: (project, layerId) => ({ above: inFront(front, project, layerId) }),
  compute: ({ project }, { above }) => {
    const window = windowOf(project)
    return seenOf(union(layerRegion(project.layers[0]!)), window && [window], above ?? [])
  },
})

/** How much shows of one layer from straight ahead. */
export const visible = node('visible', {
  stage: 'layers',
  reads: {},
  needs: (_, layerId) => ({ own: seen(layerId) }),
  compute: ({ arg }, { own }): VisibleArea => ({
    id: arg,
    areaMm2: own.areaMm2,
    visibleMm2: regionArea(own.seen),
  }),
  view: (value) => value,
})

/** How one layer is coloured by hand; null where it is not. */
const coloured = node('coloured', {
  stage: 'layers',
  reads: { layer: ['pieces', 'tint'] },
  needs: (_, layerId) => ({ own: seen(layerId) }),
  compute: ({ project }, { own }) => colouringOf(project.layers[0]!, own.seen),
})

/** How one layer is coloured by hand, as it is drawn (path data). */
export const colouringMap = node('colouring', {
  stage: 'layers',
  reads: {},
  needs: (_, layerId) => ({ own: coloured(layerId) }),
  compute: (_, { own }) =>
    own && { washPath: regionToPath(own.wash), edgePath: regionToPath(own.edge), dots: own.dots },
  view: (map) => map,
})

/** Every layer that is coloured by hand. */
export const colourings = node('colourings', {
  stage: 'layers',
  reads: {},
  needs: (project) => ({ layers: each(coloured, project) }),
  compute: (_, { layers }) => layers.filter((one) => one !== null),
})

/** The outline of what shows of one layer. */
export const shownPath = node('shown path', {
  stage: 'layers',
  reads: {},
  needs: (_, layerId) => ({ own: seen(layerId) }),
  compute: (_, { own }) => regionToPath(own.seen),
  view: (path) => path,
})

const necks = node('necks', {
  stage: 'layers',
  reads: { layer: ['pieces', 'blanks', 'paperId'], papers: ['finish', 'gsm'], tool: true },
  compute: ({ project }): Neck[] => {
    const layer = project.layers[0]!
    // What is rolled or bent is weak or sound as it is cut; it is pointed at where it is seen.
    return weakNecks(layerRegion({ pieces: cutPieces(layer) }), safeStripOf(project, layer))
  },
})

/** Ways of laying a layer that look right. */
export const turns = node('turns', {
  stage: 'layers',
  reads: { layer: ['pieces'] },
  compute: ({ project, arg }): { id: string; turns: Turn[] } => ({
    id: arg,
    turns: turnRisks(layerRegion(project.layers[0]!)),
  }),
})

/** What is hidden right under a layer, from aside too. */
const under = node('hidden under', {
  stage: 'layers',
  reads: {
    mount: true,
    layer: ['pieces', 'paperId', 'joint', 'lives'],
    papers: ['finish'],
    plan: ['viewingDeg'],
  },
  needs: (project, layerId): { above: Ref<Polygon[]> | null } => ({
    above: inFront(under as never, project, layerId),
  }),
  compute: ({ project }, { above }): Polygon[] => hiddenUnder(project, project.layers[0]!, above),
})

/** Where a layer's number may stand; null where it bears none. */
const hidden = node('hidden part', {
  stage: 'layers',
  reads: { mount: true, layer: ['pieces', 'role', 'numbered'], plan: ['viewingDeg'] },
  needs: (project, layerId) => ({ above: inFront(under, project, layerId) }),
  compute: ({ project, arg }, { above }) => hiddenPart(project, arg, above ?? hiddenByLip(project)),
})

const numberAt = node('number at', {
  stage: 'layers',
  reads: { layer: ['pieces'] },
  byValue: true,
  needs: (_, layerId) => ({ room: hidden(layerId) }),
  compute: ({ project }, { room }) => ({
    at: room && numberPlace(layerRegion(project.layers[0]!), room),
  }),
})

/** Soundness of one layer that is built. */
export const sound = node('sound', {
  stage: 'layers',
  reads: { layer: ['pieces', 'paperId'], papers: ['finish', 'gsm'], tool: true },
  needs: (_, layerId) => ({ weak: necks(layerId), ways: turns(layerId), number: numberAt(layerId) }),
  compute: ({ project }, { weak, ways, number }): Soundness => {
    const layer = project.layers[0]!
    const found = { necks: weak, turns: ways.turns, numberAt: number.at }
    return sumUp(layer, safeStripOf(project, layer), found)
  },
  view: ({ necks: list, ...rest }: Soundness): SoundView => ({
    ...rest,
    necks: list.map(({ at, widthMm, kind }) => ({ at, widthMm, kind })),
    signAt: rest.sign && whereIn(rest.sign, rest.box),
  }),
})

/** Soundness as the page has it: weak places without their shapes; `signAt` says in words where a layer tells its way round. */
export type SoundView = Omit<Soundness, 'necks'> & {
  necks: Pick<Neck, 'at' | 'widthMm' | 'kind'>[]
  signAt: string | null
}

/** Where in a box a point lies, in words. */
function whereIn({ x, y }: Point, b: Box): string {
  const third = (value: number, from: number, to: number) =>
    Math.max(0, Math.min(2, Math.floor((3 * (value - from)) / Math.max(1e-9, to - from))))
  const across = ['left', '', 'right'][third(x, b.minX, b.maxX)]!
  const down = ['top', '', 'bottom'][third(y, b.minY, b.maxY)]!
  return across || down ? `at the ${[down, across].filter(Boolean).join(' ')}` : 'in the middle'
}

const ownLimit = node('limit by shape', {
  stage: 'layers',
  reads: { layer: ['pieces', 'paperId'], papers: ['finish', 'gsm'], tool: true },
  compute: ({ project }) => shapeLimit(project, project.layers[0]!),
})

/** The tightest limit that shapes alone set. */
const shapesLimit = node('limit by shapes', {
  stage: 'layers',
  reads: {},
  byValue: true,
  needs: (project) => ({ own: each(ownLimit, project) }),
  compute: (_, { own }) => tightest(own),
})

const limitByNumber = node('limit by number', {
  stage: 'layers',
  reads: {},
  needs: (_, layerId) => ({ room: hidden(layerId), known: shapesLimit() }),
  compute: ({ arg }, { room, known }) => numberLimit(arg, room, known),
})

/** What keeps the design from being made smaller: the layer that sets the limit; null where none does. */
export const smallest = node('smallest', {
  stage: 'layers',
  reads: {},
  needs: (project) => ({ shapes: shapesLimit(), numbers: each(limitByNumber, project) }),
  compute: (_, { shapes, numbers }) => tightest([shapes, ...numbers]),
  view: (limit) => limit,
})

/** The weak places of one layer as they are drawn, in the order of its soundness. */
export const weakPaths = node('weak paths', {
  stage: 'layers',
  reads: {},
  needs: (_, layerId) => ({ weak: necks(layerId) }),
  compute: (_, { weak }) => weak.map((neck) => (neck.region ? regionToPath([neck.region]) : '')),
  view: (paths) => paths,
})

/** Numbers, folds and crosses of all pieces that are cut here, guests' too, by their parts' names. */
export const marks = node('marks', {
  stage: 'layers',
  reads: {
    mount: true,
    layers: ['pieces', 'blanks', 'cutMirrored', 'folds', 'slits', 'role', 'numbered', 'paperId'],
    papers: ['finish', 'gsm'],
    plan: ['numbers', 'placeMarks', 'alignment', 'guests', 'viewingDeg'],
  },
  needs: (project) => ({ own: each(sound, project) }),
  compute: ({ project, memo }, { own }): Map<string, Marks> => {
    const guests = project.plan.guests.flatMap((guest, n) => {
      const theirs = guestProject(project, guest)
      const found = memo('soundness of a guest', [guest, project.plan.viewingDeg], () => soundnessOf(theirs))
      return [...pieceMarks(theirs, found, guestLetter(n))].map(([id, marks]): [string, Marks] => [
        guestPrefix(guest) + id,
        marks,
      ])
    })
    return new Map([...pieceMarks(project, own), ...guests])
  },
})

/** Soundness of all layers of a project, back to front. Needs the geometry loaded. */
export const soundnessOf = (project: Project): Soundness[] =>
  builtLayers(project).map((layer) => soundness(project, layer, { safeMm: safeStripOf(project, layer) }))

const prints = node('snags of prints', {
  stage: 'layers',
  reads: { layers: ['name', 'pieces', 'print'], pictures: true },
  compute: ({ project }) => printSnags(project),
})

/** Layers that lie beside each other like a mosaic. */
const mosaic = node('mosaic', {
  stage: 'layers',
  reads: { mount: true, layers: ['pieces', 'blanks', 'lives', 'role'] },
  needs: (project) => ({ shown: each(visible, project) }),
  byValue: true,
  compute: ({ project }, { shown }) => mosaicOf(project, shown),
})

/** Findings of the layers stage. */
export const layersSnags = node('snags of layers', {
  stage: 'layers',
  reads: {
    mount: true,
    layers: ['name', 'role', 'pieces', 'blanks', 'folds', 'slits', 'shaping', 'paperId', 'colour', 'tint'],
    papers: ['colour', 'finish'],
  },
  needs: (project) => ({
    beside: sheetsBeside(),
    shapes: project.layers.map((layer) => figures(layer.id)),
    shown: each(visible, project),
    own: each(sound, project),
    printed: prints(),
    tiled: mosaic(),
  }),
  compute: ({ project }, { beside, shapes, shown, own, printed, tiled }) => {
    // What shows of sheets that lie beside each other says nothing of the work.
    const seen = beside.laid.sheets.length > 0 && !beside.isMeant ? [] : shown
    return [
      ...laidOutSnags(project, beside.laid),
      ...printed,
      ...mosaicSnags(tiled),
      ...stackSnags(project, seen),
      ...layerSnags(project, shapes, seen),
      ...neckSnags(project, own),
    ]
  },
  view: (snags) => snags,
})
