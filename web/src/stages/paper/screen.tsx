import { useState } from 'react'
import { builtLayers, viewBox } from '@feuillet/core/project'
import { assignNearest, neighbourSteps, TOO_ALIKE } from '@feuillet/core/stages/paper'
import { growBox } from '@feuillet/core/base/geometry'
import { change } from '../../state/edits'
import { selectLayer, selectProject, selectStageSnags, selectUnit, selectView } from '../../state/selectors'
import { SpoilsNote, useCutCount } from '../../shell/spoils-note'
import { StageFrame } from '../../shell/stage-frame'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { pickedLayer } from '../../state/view'
import { Board } from '../../drawing/board'
import { StackDrawing } from '../../drawing/stack'
import { Button, Choice, Figure, Figures, Heading } from '../../ui'
import { ColoursInUse } from './colours-in-use'
import { Drawer } from './drawer'
import { DrawerTable } from './drawer-table'
import { NeededSheets } from './needed-sheets'
import { Neighbours } from './neighbours'
import { PickedPaper } from './picked-paper'
import { ColoursTool } from './colours-tool'
import { CutterTables } from './cutter-tables'
import { InkTable } from './ink-table'
import { FoamTable } from './foam-table'
import { GlueTable } from './glue-table'
import { SettingsTable } from './settings-table'
import { ThingTable } from './thing-table'

const NO_LAYERS: readonly string[] = []

export default function PaperScreen() {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const view = useAppSelector(selectView)
  const layer = useAppSelector(selectLayer)
  const snags = useAppSelector((state) => selectStageSnags(state, 'paper'))
  const ownCuts = useCutCount(layer ? [layer.id] : NO_LAYERS)
  const layers = builtLayers(project)
  const bare = layers.filter((l) => !l.paperId)
  const steps = neighbourSteps(project)
  const least = steps.toSorted((a, b) => a.difference - b.difference)[0]
  const box = growBox(viewBox(project), 2)
  const [asTable, setAsTable] = useState(false)
  const [drawerOf, setDrawerOf] = useState<
    'papers' | 'foams' | 'glues' | 'inks' | 'things' | 'cutters' | 'settings'
  >('papers')
  return (
    <StageFrame
      title="Paper"
      lead={
        bare.length
          ? `${bare.length} of ${layers.length} layers have no paper yet.`
          : `${new Set(layers.map((l) => l.paperId)).size} papers for ${layers.length} layers.`
      }
      snags={{
        list: snags,
        none: layers.length
          ? 'Every layer has a paper that stands clear of its neighbours.'
          : 'No layers yet.',
      }}
      panel={
        <>
          {layer && <PickedPaper layer={layer} />}
          {ownCuts === 0 && <SpoilsNote what="paper for their layers" className="mb-3" />}
          {least && (
            <Heading title="Colour steps">
              <Figures>
                <Figure
                  name="Closest neighbours"
                  value={least.difference.toFixed(1)}
                  alarm={least.difference < TOO_ALIKE}
                  basis={`CIEDE2000 between “${least.below.name}” and “${least.above.name}”; under ${TOO_ALIKE} is hard to tell apart under glass`}
                />
              </Figures>
            </Heading>
          )}
          <ColoursInUse />
          <ColoursTool />
          <NeededSheets />
        </>
      }
      actions={
        <>
          <Button
            look={bare.length ? 'main' : 'plain'}
            disabled={layers.length === 0}
            onClick={() =>
              dispatch(
                change('nearest papers', (p, stock) =>
                  assignNearest(
                    p,
                    (bare.length ? bare : layers).map((l) => l.id),
                    stock,
                  ),
                ),
              )
            }
          >
            {bare.length ? 'Nearest papers for the bare layers' : 'Nearest papers for all'}
          </Button>
          <Button onClick={() => setAsTable(!asTable)}>
            {asTable ? 'Back to the stack' : 'Drawer as a table'}
          </Button>
        </>
      }
    >
      {asTable ? (
        <>
          <div className="w-[40rem] max-w-full px-4 pt-3">
            <Choice
              label="Of the drawer"
              value={drawerOf}
              options={[
                { value: 'papers', label: 'papers' },
                { value: 'foams', label: 'foam' },
                { value: 'glues', label: 'glue' },
                { value: 'inks', label: 'inks' },
                {
                  value: 'things',
                  label: 'frames, twine',
                  title: 'Frames, panels, envelopes, sticks, twine',
                },
                { value: 'cutters', label: 'cutters', title: 'What cuts, and its mats' },
                {
                  value: 'settings',
                  label: 'settings',
                  title: 'What worked on the cutter, and what did not',
                },
              ]}
              onChange={setDrawerOf}
            />
          </div>
          {drawerOf === 'papers' && <DrawerTable />}
          {drawerOf !== 'papers' && (
            <section
              aria-label="Foam, glue, things, cutters and settings"
              className="flex min-h-0 flex-1 flex-col px-4 py-2"
            >
              {drawerOf === 'foams' ? (
                <FoamTable />
              ) : drawerOf === 'glues' ? (
                <GlueTable />
              ) : drawerOf === 'inks' ? (
                <InkTable />
              ) : drawerOf === 'things' ? (
                <ThingTable />
              ) : drawerOf === 'cutters' ? (
                <CutterTables />
              ) : (
                <SettingsTable />
              )}
            </section>
          )}
        </>
      ) : (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_minmax(0,1fr)]">
          <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
            <div className="min-h-0 p-4 pb-1">
              <Board name="paper" box={box} unit={unit} label="The stack in its papers" interactive>
                {(px) => (
                  <StackDrawing
                    project={project}
                    layers={layers.filter((l) => !l.hidden)}
                    px={px}
                    picked={view.layerId}
                    onPick={(id) => dispatch(pickedLayer(id))}
                  />
                )}
              </Board>
            </div>
            <Neighbours />
          </div>
          <Drawer />
        </div>
      )}
    </StageFrame>
  )
}
