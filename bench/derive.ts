// The baseline that the planner is measured against: everything that follows from a project, computed at every edit in the
// order of the stages, as it was before there was a graph of results. Kept for the bench alone.
import { fingerprint } from '@feuillet/core/base'
import { union, type Polygon } from '@feuillet/core/base/geometry'
import {
  bearsNumber,
  builtLayers,
  layerRegion,
  paperOf,
  safeStripMm,
  type Paper,
  type Project,
} from '@feuillet/core/project'
import { planAssembly } from '@feuillet/core/stages/assembly'
import { depthPlan, depthSnags, type DepthPlan } from '@feuillet/core/stages/depth'
import { costLines, paperForGuests, sumOf } from '@feuillet/core/stages/journal'
import {
  layerFigures,
  layerSnags,
  neckSnags,
  pieceMarks,
  shows,
  soundness,
  stackSnags,
  type Soundness,
  type Visible,
} from '@feuillet/core/stages/layers'
import { measureSnags } from '@feuillet/core/stages/measure'
import { dearSnags, paperSnags } from '@feuillet/core/stages/paper'
import {
  leftOvers,
  mergeSnags,
  nestProject,
  offCutSnags,
  paperRuns,
  planLoads,
  sheetSnags,
  sheetsNeeded,
  sizeSnags,
  tooLargeSnags,
  type NestLayout,
} from '@feuillet/core/stages/sheets'

/** Remembers results by a key; starts anew once it holds too many. */
class Memory<T> {
  private readonly known = new Map<string, T>()

  constructor(private readonly most: number) {}

  get(key: string, make: () => T): T {
    const known = this.known.get(key)
    if (known !== undefined) return known
    const made = make()
    if (this.known.size >= this.most) this.known.clear()
    this.known.set(key, made)
    return made
  }
}

/** All results of a project. Needs the geometry loaded. */
export function derive(project: Project, stock: readonly Paper[]) {
  const figures = project.layers.map(layerFigures)
  const visible = shownOf(project)
  const sound = soundnessOf(project)
  const depth = depthOf(project)
  const runs = nestAgain(project)
  const loads = planLoads(project, { runs, marks: pieceMarks(project, sound) })
  const assembly = planAssembly({ project, loads, depth, turns: new Map(sound.map((s) => [s.id, s.turns])) })
  const snags = [
    ...measureSnags(project),
    ...stackSnags(project, visible),
    ...layerSnags(project, figures, visible),
    ...neckSnags(project, sound),
    ...paperSnags(project, stock),
    ...dearSnags(project, visible, stock),
    ...mergeSnags(project, runs),
    ...tooLargeSnags(project, runs),
    ...sheetSnags(project, runs, loads),
    ...offCutSnags(project, stock),
    ...sizeSnags(project, { stock, runs }),
    ...depthSnags(project, depth),
  ]
  return {
    figures,
    visible,
    sound,
    depth,
    runs,
    loads,
    needed: sheetsNeeded(loads),
    left: loads.flatMap(leftOvers),
    assembly,
    cost: sumOf(costLines({ project, loads, depth, glue: [], handsMinutes: assembly.handsMinutes })),
    paperForGuests: paperForGuests(loads),
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
        return soundness(project, layer, { safeMm, cover })
      }),
    )
    cover = next
  }
  return out
}

// First layouts by the fingerprint of their run: a change elsewhere need not nest again.
const nested = new Map<string, NestLayout>()

function nestAgain(project: Project) {
  const known = paperRuns(project).map((run) => ({ run, layout: nested.get(run.fingerprint) }))
  if (known.every(({ layout }) => layout))
    return known as { run: (typeof known)[number]['run']; layout: NestLayout }[]
  const all = nestProject(project)
  for (const { run, layout } of all) nested.set(run.fingerprint, layout)
  return all
}
