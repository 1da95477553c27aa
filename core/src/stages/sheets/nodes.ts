// From papers to sheets in their order, as nodes: a layout a paper, and what hangs on all of them.
import { groupBy, type Memo } from '../../base'
import { node, type Reads } from '../../planner'
import { marks } from '../layers'
import { loadsThatAreCut } from './frozen'
import { againSnags } from './snags/again'
import { leftOvers } from './off-cuts/off-cuts'
import { planLoads, type Load } from './loads/loads'
import { sheetsNeeded } from './loads/needed'
import { layKnown } from './runs/nest-runs'
import { paperRuns, runIds, type NestedRun } from './runs/paper-runs'
import { mergeSnags } from './snags/merge-papers'
import { offCutSnags } from './snags/off-cuts'
import { sheetSnags, tooLargeSnags } from './snags/sheets'
import { sizeSnags } from './snags/sizes'
import { drawSheet, leftView, loadView, runView, SKETCH_MM, type SheetDrawing } from './views'

/** What of the plan decides how pieces are laid. */
const PLAN_OF_RUNS = [
  'batch',
  'guests',
  'cutWith',
  'gapMm',
  'turns',
  'pins',
  'useOffCuts',
  'layoutSeeds',
  'mixes',
] as const

/** What loads follow from beside the layouts. */
const LOADS_READ = {
  layers: ['name', 'pieces', 'blanks', 'cutMirrored', 'copies', 'paperId', 'print', 'lives', 'inOne'],
  papers: 'all',
  cutter: true,
  settings: true,
  plan: ['batch', 'guests', 'cutWith', 'cutOrder', 'loadOrder', 'numbers'],
  cut: true,
} as const satisfies Reads

/** What says which pieces are cut of which paper. */
const RUNS_READ = {
  layers: [
    'pieces',
    'blanks',
    'cutMirrored',
    'copies',
    'spares',
    'sharing',
    'paperId',
    'print',
    'folds',
    'slits',
    'colour',
    'lives',
    'inOne',
  ],
  papers: 'all',
  cutter: true,
  plan: PLAN_OF_RUNS,
  cut: true,
} as const satisfies Reads

/** Which pieces are cut of which paper. */
export const runs = node('runs', {
  stage: 'sheets',
  reads: RUNS_READ,
  compute: ({ project, memo }) => paperRuns(project, memo),
})

/** The runs by their ids: known before any of them is laid. */
export const runNames = node('names of runs', {
  stage: 'sheets',
  reads: RUNS_READ,
  compute: ({ project, memo }) => runIds(project, memo),
  view: (ids) => ids,
})

/** The layout of one run: one that was found earlier, else the first. */
const layout = node('layout', {
  stage: 'sheets',
  reads: {},
  found: true,
  needs: () => ({ all: runs() }),
  compute: ({ arg, found, memo }, { all }): NestedRun | Generator<undefined, NestedRun> => {
    const run = all.find(({ id }) => id === arg)!
    return layKnown(run, found, memo)
  },
})

/** All runs with their layouts. */
export const nested = node('nested', {
  stage: 'sheets',
  reads: {},
  needs: (project, _, memo) => ({
    all: runIds(project, memo).map((id) => layout(id)),
    names: runNames(),
  }),
  compute: (_, { all, names }) => {
    // Sheets that lack a paper's pieces and do not say so would be cut, and found short at the bench.
    if (all.length < names.length) throw new Error('the pieces of a paper could not be laid')
    return all
  },
  view: (list) => list.map(runView),
})

/** The sheets of one run before all others are laid: what is shown while a large work is computed. */
export const draft = node('draft', {
  stage: 'sheets',
  reads: LOADS_READ,
  needs: (_, runId) => ({ one: layout(runId) }),
  compute: ({ project, memo }, { one }) =>
    planLoads(project, { runs: [one], marks: new Map() }, memo).map((load) => ({
      load,
      drawn: drawSheet(load, SKETCH_MM),
    })),
  view: (list) => list.map(({ load, drawn }) => ({ load: loadView(load), drawn })),
})

/** The sheets in the order in which they are cut. */
export const loads = node('loads', {
  stage: 'sheets',
  reads: LOADS_READ,
  needs: () => ({ all: nested(), drawn: marks() }),
  compute: ({ project, memo }, { all, drawn }) => planLoads(project, { runs: all, marks: drawn }, memo),
  view: (list) => list.map(loadView),
})

/** The sheets that are cut already, as they were. */
export const cutLoads = node('cut loads', {
  stage: 'sheets',
  reads: { cut: true },
  compute: ({ project, memo }) => loadsThatAreCut(project, memo),
  view: (list) => list.map(loadView),
})

/** One sheet that is cut as it is drawn large. */
export const cutSheet = node('cut sheet', {
  stage: 'sheets',
  reads: {},
  needs: () => ({ all: cutLoads() }),
  compute: ({ arg }, { all }) => {
    const load = all.find(({ id }) => id === arg)
    return load ? drawSheet(load) : null
  },
  view: (drawn) => drawn,
})

/** One sheet as it is drawn large. */
export const sheet = node('sheet', {
  stage: 'sheets',
  reads: {},
  needs: () => ({ all: loads() }),
  compute: ({ arg }, { all }) => {
    const load = all.find(({ id }) => id === arg)
    return load ? drawSheet(load) : null
  },
  view: (drawn) => drawn,
})

/** All sheets as they are drawn small, side by side. */
export const sketches = node('sketches', {
  stage: 'sheets',
  reads: {},
  needs: () => ({ all: loads() }),
  compute: ({ memo }, { all }) => sketchesOf(all, memo),
  view: (list) => list,
})

/** All sheets that are cut already, as small. */
export const cutSketches = node('cut sketches', {
  stage: 'sheets',
  reads: {},
  needs: () => ({ all: cutLoads() }),
  compute: ({ memo }, { all }) => sketchesOf(all, memo),
  view: (list) => list,
})

const sketchesOf = (list: readonly Load[], memo: Memo): { loadId: string; drawn: SheetDrawing }[] =>
  list.map((load) => {
    const { outline, path, pieces } = load
    const shapes = pieces.map(({ shape, folio, loose }) => [shape, folio, loose])
    return {
      loadId: load.id,
      drawn: memo('sketch', [outline, path, shapes], () => drawSheet(load, SKETCH_MM)),
    }
  })

/** Sheets of each paper: needed, to buy, their cost. */
export const needed = node('needed', {
  stage: 'sheets',
  reads: {},
  needs: () => ({ all: loads() }),
  compute: (_, { all }) => sheetsNeeded(all),
  view: (list) => list,
})

/** What the loads of one run leave. */
const leftOfRun = node('left of run', {
  stage: 'sheets',
  reads: {},
  needs: () => ({ all: loads() }),
  compute: ({ arg, memo }, { all }) =>
    all
      .filter(({ runId }) => runId === arg)
      .flatMap((load) =>
        memo('left-overs', [load.id, load.paper, load.path, load.outline], () => leftOvers(load)),
      ),
})

/** What the loads leave that is worth keeping, in the order in which they are cut. */
export const left = node('left', {
  stage: 'sheets',
  reads: {},
  needs: (project, _, memo) => ({ list: loads(), all: runIds(project, memo).map((id) => leftOfRun(id)) }),
  compute: (_, { list, all }) => {
    const byLoad = groupBy(all.flat(), ({ loadId }) => loadId)
    return list.flatMap(({ id }) => byLoad.get(id) ?? [])
  },
  view: (list) => list.map(leftView),
})

/** Findings of the sheets stage. */
export const sheetsSnags = node('snags of sheets', {
  stage: 'sheets',
  reads: {
    layers: [
      'name',
      'pieces',
      'blanks',
      'folds',
      'slits',
      'print',
      'cutMirrored',
      'copies',
      'spares',
      'paperId',
      'colour',
      'sharing',
      'lives',
      'inOne',
    ],
    papers: 'all',
    cutter: true,
    plan: PLAN_OF_RUNS,
    sheetsUsed: true,
    stock: true,
    cut: true,
  },
  needs: () => ({ all: nested(), list: loads() }),
  compute: ({ project, stock, memo }, { all, list }) => [
    ...tooLargeSnags(project, all),
    ...againSnags(project, memo),
    ...sheetSnags(project, all, list),
    ...offCutSnags(project, stock, memo),
    ...sizeSnags(project, { stock, runs: all }, memo),
  ],
  view: (snags) => snags,
})

/** Papers that may be merged: a finding about paper that only the sheets can tell. */
export const mergeSnagsNode = node('snags of merging', {
  stage: 'paper',
  reads: {
    layers: ['name', 'pieces', 'blanks', 'cutMirrored', 'copies', 'spares', 'paperId', 'colour', 'sharing', 'lives', 'inOne', 'print'], // prettier-ignore
    papers: 'all',
    cutter: true,
    plan: PLAN_OF_RUNS,
    cut: true,
  },
  needs: () => ({ all: nested() }),
  compute: ({ project, memo }, { all }) => mergeSnags(project, all, memo),
  view: (snags) => snags,
})
