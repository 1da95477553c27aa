// What screens read of the store: how stages stand, which findings count, what is picked and whether it is kept.
import { describe, expect, it } from 'vitest'
import { say } from '@feuillet/core/base/units'
import { demo } from '@feuillet/core/demo'
import {
  builtLayers,
  newProject,
  setLayer,
  starterMount,
  type Project,
  type Snag,
} from '@feuillet/core/project'
import { nodes, SNAG_NODES } from '@feuillet/core/stages'
import plan, { asked, reported } from '../plan/plan'
import document, { edited, keptTo, opened } from './document'
import {
  selectLayer,
  selectMeantSnags,
  selectSaved,
  selectSettled,
  selectSnags,
  selectSnagsKnown,
  selectStages,
  selectStageSnags,
  selectUnit,
} from './selectors'
import type { RootState } from './store'
import view, { pickedLayer } from './view'

const none = { type: 'nothing' }

/** The state of a page with a project open, and views of nodes by their names. */
function pageOf(project: Project, views: Record<string, unknown> = {}): RootState {
  return {
    document: document(undefined, opened({ project, stock: [] })),
    view: view(undefined, none),
    plan: plan(
      undefined,
      reported({ revision: 1, views: Object.entries(views), fresh: [], failed: [], doing: null }),
    ),
  }
}

const snag = (stage: Snag['stage'], code: string, more: Partial<Snag> = {}): Snag => ({
  stage,
  code,
  severity: 'caution',
  layer: null,
  message: say`found`,
  at: null,
  ...more,
})
const [first, second] = SNAG_NODES.map((name) => nodes[name].node.name)
const stateOf = (state: RootState) =>
  Object.fromEntries(selectStages(state).map(({ stage, state: stands }) => [stage, stands]))

it('nothing is wrong only where it is known what there is to find', () => {
  const project = demo('bon-voyage')
  const known = pageOf(project, { [nodes.paperSnags.node.name]: [], [nodes.depthSnags.node.name]: [] })
  expect(selectSnagsKnown(known, 'depth')).toBe(true)
  // What may be merged is told by another node.
  expect(selectSnagsKnown(known, 'paper')).toBe(false)
  expect(selectSnagsKnown(known, 'sheets')).toBe(false)
})

describe('how stages stand', () => {
  it('before anything is done', () => {
    expect(stateOf(pageOf(newProject('p', 'p', starterMount('card'))))).toEqual({
      measure: 'in order',
      layers: 'untouched',
      paper: 'untouched',
      sheets: 'untouched',
      depth: 'untouched',
      assembly: 'untouched',
      journal: 'untouched',
    })
  })

  it('with papers for all layers, for some, and for none', () => {
    const project = demo('harbour')
    expect(stateOf(pageOf(project)).paper).toBe('in order')
    const some = setLayer(project, project.layers[0]!.id, { paperId: null })
    expect(stateOf(pageOf(some)).paper).toBe('under way')
    const bare = project.layers.reduce((p, { id }) => setLayer(p, id, { paperId: null }), project)
    expect(stateOf(pageOf(bare)).paper).toBe('untouched')
  })

  it('with steps done: some, all, and such as there are no longer', () => {
    const project = demo('harbour')
    const steps = { [nodes.assembly.node.name]: { steps: [{ id: 'a' }, { id: 'b' }] } }
    const after = (...done: string[]) =>
      stateOf(pageOf({ ...project, progress: { ...project.progress, done } }, steps)).assembly
    expect(after()).toBe('untouched')
    expect(after('a')).toBe('under way')
    expect(after('a', 'b')).toBe('in order')
    expect(after('gone')).toBe('untouched')
  })

  it('is not in order where something is found, and says how much stops it', () => {
    const found = [snag('paper', 'alike'), snag('paper', 'dark', { severity: 'stop' }), snag('depth', 'deep')]
    const paper = selectStages(pageOf(demo('harbour'), { [first!]: found })).find(
      ({ stage }) => stage === 'paper',
    )
    expect(paper).toEqual({ stage: 'paper', state: 'under way', snags: 2, stops: 1 })
  })
})

describe('findings', () => {
  it('are those of all stages, in their order, as far as they are there', () => {
    const project = demo('bon-voyage')
    const views = { [second!]: [snag('layers', 'b')], [first!]: [snag('measure', 'a')] }
    expect(selectSnags(pageOf(project)).map(({ code }) => code)).toEqual([])
    expect(selectSnags(pageOf(project, views)).map(({ code }) => code)).toEqual(['a', 'b'])
    expect(selectStageSnags(pageOf(project, views), 'layers').map(({ code }) => code)).toEqual(['b'])
    expect(selectMeantSnags(pageOf(project, views), 'layers')).toEqual([])
  })

  it('stay the same list while other views come, so that nothing is drawn anew', () => {
    const page = pageOf(demo('bon-voyage'), { [first!]: [snag('measure', 'a')] })
    const before = selectSnags(page)
    const later = {
      ...page,
      plan: plan(
        page.plan,
        reported({ revision: 1, views: [['other', 1]], fresh: ['other'], failed: [], doing: null }),
      ),
    }
    expect(later.plan.views['other']).toBe(1)
    expect(selectSnags(later)).toBe(before)
  })
})

describe('the rest', () => {
  it('the layer that is picked; the frontmost where none is, or the picked one is gone', () => {
    const project = demo('harbour')
    const page = pageOf(project)
    const [back] = builtLayers(project)
    expect(selectLayer(page)?.id).toBe(project.layers.at(-1)!.id)
    expect(selectLayer({ ...page, view: view(page.view, pickedLayer(back!.id)) })?.id).toBe(back!.id)
    expect(selectLayer({ ...page, view: view(page.view, pickedLayer('gone')) })?.id).toBe(
      project.layers.at(-1)!.id,
    )
    expect(selectUnit(page)).toBe(project.unit)
  })

  it('saved is said of the revision that is, not of an earlier one', () => {
    const project = demo('bon-voyage')
    const page = pageOf(project)
    expect(selectSaved(page)).toBe('saved')
    const changed = {
      ...page,
      document: document(page.document, edited({ label: 'x', project: { ...project, name: 'x' } })),
    }
    expect(selectSaved(changed)).toBe('saving')
    const again = document(changed.document, edited({ label: 'y', project: { ...project, name: 'y' } }))
    const onlyFirst = document(again, keptTo(changed.document.revision))
    expect(selectSaved({ ...page, document: onlyFirst })).toBe('saving')
    expect(selectSaved({ ...page, document: document(onlyFirst, keptTo(again.revision)) })).toBe('saved')
  })

  it('settled is all that is asked for, until more is', () => {
    const page = pageOf(demo('bon-voyage'))
    expect(selectSettled(page)).toBe(true)
    expect(selectSettled({ ...page, plan: plan(page.plan, asked()) })).toBe(false)
  })
})
