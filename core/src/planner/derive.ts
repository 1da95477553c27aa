// Everything that follows from a project, computed in the order of the stages.
import { planAssembly, type AssemblyPlan } from '../stages/assembly'
import { depthPlan, depthSnags, type DepthPlan } from '../stages/depth'
import {
  layerFigures,
  pieceMarks,
  shows,
  soundness,
  type LayerFigures,
  type Marks,
  type Soundness,
  type Visible,
} from '../stages/layers'
import { paperForGuests, plannedCost, type Cost } from '../stages/journal'
import { measureSnags } from '../stages/measure'
import { paperSnags, safeStripMm } from '../stages/paper'
import { union, type Polygon } from '../base/geometry'
import {
  bearsNumber,
  builtLayers,
  guestLetter,
  guestPrefix,
  guestProject,
  layerRegion,
  paperOf,
  type Paper,
  type Project,
  type Snag,
} from '../project'
import { fingerprint, Memory } from '../base'
import { dearSnags, layerSnags, neckSnags, stackSnags } from './layer-snags'
import { mergeSnags } from './merge-papers'
import { offCutSnags } from './off-cut-snags'
import { sizeSnags } from './size-snags'
import {
  leftOvers,
  loads,
  nestProject,
  paperRuns,
  sheetSnags,
  sheetsNeeded,
  type LeftOver,
  type Load,
  type NestedRun,
  type NestLayout,
  type SheetsNeeded,
} from '../stages/sheets'

export interface Derived {
  figures: LayerFigures[]
  visible: Visible[]
  /** Of the layers that are built, back to front. */
  sound: Soundness[]
  depth: DepthPlan
  runs: NestedRun[]
  loads: Load[]
  needed: SheetsNeeded[]
  /** What the loads leave that is worth keeping. */
  left: LeftOver[]
  assembly: AssemblyPlan
  cost: Cost
  /** What of the paper's cost is for the projects that are cut along. */
  paperForGuests: number
  snags: Snag[]
}

/**
 * All results of a project. Layouts found earlier by a longer search may be handed in by their run's fingerprint; the
 * others are nested by the fixed first steps. Needs the geometry loaded.
 */
export function derive(
  project: Project,
  stock: readonly Paper[] = project.drawer.papers,
  found: ReadonlyMap<string, NestLayout> = new Map(),
): Derived {
  const figures = project.layers.map(layerFigures)
  const visible = shownOf(project)
  const sound = soundnessOf(project)
  const depth = depthOf(project)
  const { runs, failed } = nestWithFound(project, found)
  const list = loads(project, runs, marksOf(project, sound))
  const assembly = planAssembly(project, list, depth, new Map(sound.map((s) => [s.id, s.turns])))
  const tooLarge: Snag[] = failed.map(({ run, reason }) => ({
    code: 'piece-too-large',
    stage: 'sheets',
    severity: 'stop',
    layer: run.layers.find((layer) => layer.guest === null)?.id ?? null,
    at: null,
    message: `${run.paper.name}: a piece is ${reason.slice(reason.indexOf('larger'))}. Take a larger sheet or scale the design.`,
    mend: { label: 'Fit the design, proportions locked', action: { kind: 'fit-design' } },
  }))
  const snags = [
    ...measureSnags(project),
    ...stackSnags(project, visible),
    ...layerSnags(project, figures, visible),
    ...neckSnags(project, sound),
    ...paperSnags(project, stock),
    ...dearSnags(project, visible, stock),
    ...mergeSnags(project, runs),
    ...tooLarge,
    ...sheetSnags(project, runs, list),
    ...offCutSnags(project, stock),
    ...sizeSnags(project, stock),
    ...depthSnags(project, depth),
  ]
  return {
    figures,
    visible,
    sound,
    depth,
    runs,
    loads: list,
    needed: sheetsNeeded(list),
    left: list.flatMap(leftOvers),
    assembly,
    cost: plannedCost(project, list, depth, assembly.handsMinutes),
    paperForGuests: paperForGuests(list),
    snags,
  }
}

// Most edits change no shape and no height: what depends on those alone is remembered.
const soundBefore = new Memory<Soundness>(400)
const depthBefore = new Memory<DepthPlan>(8)
const shownBefore = new Memory<Visible[]>(8)

function depthOf(project: Project): DepthPlan {
  const { mount, drawer } = project
  const layers = builtLayers(project).map(({ id, pieces, joint, paperId }) => [id, pieces, joint, paperId])
  // Neither where pieces lie on the sheets nor who is cut along.
  const plan = { ...project.plan, pins: [], guests: [] }
  return depthBefore.get(fingerprint([mount, layers, drawer.papers.map(bare), drawer.foams, plan]), () =>
    depthPlan(project),
  )
}

function shownOf(project: Project): Visible[] {
  const layers = builtLayers(project).map(({ id, pieces, paperId }) => [id, pieces, paperId])
  return shownBefore.get(fingerprint([project.mount, layers, project.drawer.papers.map(bare)]), () =>
    shows(project),
  )
}

/** What of a paper heights and views depend on. */
const bare = ({ id, thicknessMm, finish, gsm }: Paper) => [id, thicknessMm, finish, gsm]

/** Soundness of the layers that are built, back to front. */
function soundnessOf(project: Project): Soundness[] {
  const layers = builtLayers(project)
  const shapes = layers.map((layer) => fingerprint(layer.pieces))
  // From the front to the back, so that what lies in front is added up once.
  let cover: Polygon[] | null = []
  const out: Soundness[] = []
  for (let i = layers.length - 1; i >= 0; i--) {
    const layer = layers[i]!
    const safeMm = safeStripMm(paperOf(project, layer))
    const key = fingerprint([layer.id, bearsNumber(layer), safeMm, shapes.slice(i), project.mount])
    let next: Polygon[] | null = null
    out.unshift(
      soundBefore.get(key, () => {
        cover ??= union(...layers.slice(i + 1).map(layerRegion))
        next = union(cover, layerRegion(layer))
        return soundness(project, layer, safeMm, cover)
      }),
    )
    cover = next
  }
  return out
}

/** Numbers, folds and crosses of all pieces that are cut here, guests' too, by their parts' names. */
function marksOf(project: Project, sound: readonly Soundness[]): Map<string, Marks> {
  const guests = project.plan.guests.flatMap((guest, n) => {
    const own = guestProject(project, guest)
    return [...pieceMarks(own, soundnessOf(own), guestLetter(n))].map(([id, marks]): [string, Marks] => [
      guestPrefix(guest) + id,
      marks,
    ])
  })
  return new Map([...pieceMarks(project, sound), ...guests])
}

function nestWithFound(project: Project, found: ReadonlyMap<string, NestLayout>) {
  const known = paperRuns(project).flatMap((run) => {
    const layout = found.get(run.fingerprint)
    return layout ? [{ run, layout }] : []
  })
  const { runs, failed } = nestProject(project, new Set(known.map((k) => k.run.id)))
  const order = paperRuns(project).map((run) => run.id)
  return {
    runs: [...known, ...runs].toSorted((a, b) => order.indexOf(a.run.id) - order.indexOf(b.run.id)),
    failed,
  }
}

/** All findings of a project, in the order of the stages. */
export const check = (project: Project, stock?: readonly Paper[]): Snag[] => derive(project, stock).snags
