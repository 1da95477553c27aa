// What shows of each layer from where the eye stands, as a picture to keep beside the paper.
import { useEffect, useState } from 'react'
import { growBox } from '@feuillet/core/base/geometry'
import type { Visible } from '@feuillet/core/stages/layers'
import {
  builtLayers,
  colourOf,
  depthAtHand,
  findLayer,
  slug,
  viewBox,
  type Project,
} from '@feuillet/core/project'
import { formatArea, formatShare } from '@feuillet/core/base/units'
import { saveFile } from '../../session/save-file'
import { planner, usePlan, usePlans } from '../../plan'
import { selectProject, selectUnit, selectView } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Board } from '../../drawing/board'
import { Button, NumberField } from '../../ui'

export function ShowsView() {
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { layerId } = useAppSelector(selectView)
  const [angleDeg, setAngleDeg] = useState(0)
  const [towardsDeg, setTowardsDeg] = useState(0)
  const visible = useSlanted(project, angleDeg, towardsDeg)
  if (!visible) return <p className="p-6 text-soft">Computing…</p>
  const picked = visible.find((v) => v.id === layerId)
  const save = () => saveFile(`${slug(project.name)}-shows.svg`, picture(project, visible), 'image/svg+xml')
  return (
    <>
      <div className="min-h-0 flex-1 p-4 pb-1">
        <Board name="shows" box={growBox(viewBox(project), 2)} unit={unit} label="What shows of each layer">
          {(px) =>
            visible.map((v) => (
              <path
                key={v.id}
                d={v.visiblePath}
                fillRule="evenodd"
                fill={colourOf(project, findLayer(project, v.id)!)}
                opacity={picked && picked.id !== v.id ? 0.25 : 1}
                stroke="rgb(0 0 0 / 0.4)"
                strokeWidth={px * 0.6}
                data-shows={v.id}
              />
            ))
          }
        </Board>
      </div>
      <div className="flex flex-wrap items-center gap-5 px-6 pb-2 text-[13px]">
        <NumberField
          label="From aside by"
          unitHint="°"
          value={angleDeg}
          min={0}
          max={60}
          onChange={setAngleDeg}
        />
        <NumberField
          label="towards"
          unitHint="°"
          value={towardsDeg}
          min={0}
          max={359}
          onChange={setTowardsDeg}
        />
        {picked && (
          <span>
            Of “{findLayer(project, picked.id)?.name}”{' '}
            <span className="measure" data-testid="shows-share">
              {formatArea(picked.visibleMm2, unit)} ·{' '}
              {formatShare(picked.areaMm2 ? picked.visibleMm2 / picked.areaMm2 : 0)}
            </span>{' '}
            shows
          </span>
        )}
        <Button small onClick={save} title="To print, or to hold beside the paper when colouring by hand">
          Save as a picture (SVG in mm)
        </Button>
      </div>
    </>
  )
}

/** What shows straight ahead is watched; a slant is asked of the planner. */
function useSlanted(project: Project, angleDeg: number, towardsDeg: number): Visible[] | null {
  const levels = usePlan('levels')
  const straight = useStraight(project)
  const [slanted, setSlanted] = useState<Visible[] | null>(null)
  useEffect(() => {
    if (angleDeg === 0 || !levels) return
    let stale = false
    const stackMm = Math.max(0, ...levels.map((layer) => layer.topMm))
    const openingMm = depthAtHand(project.mount)?.depthMm ?? stackMm
    planner.host
      .ask((api) => api.shows({ angleDeg, towardsDeg, openingMm }))
      .then((visible) => !stale && setSlanted(visible))
      // That the planner broke off is said where it is started anew.
      .catch(() => undefined)
    return () => {
      stale = true
    }
  }, [project, levels, angleDeg, towardsDeg])
  return angleDeg === 0 ? straight : slanted
}

/** What shows of each layer from straight ahead, once all of them are there. */
function useStraight(project: Project): Visible[] | null {
  const ids = builtLayers(project).map((layer) => layer.id)
  const areas = usePlans('visible', ids)
  const paths = usePlans('shownPath', ids)
  if (areas.length < ids.length || paths.length < ids.length) return null
  return areas.map((area, i) => ({ ...area, visiblePath: paths[i]! }))
}

function picture(project: Project, visible: readonly Visible[]): string {
  const { minX, minY, maxX, maxY } = viewBox(project)
  const [w, h] = [maxX - minX, maxY - minY]
  const paths = visible.map(
    (v) =>
      `  <path fill-rule="evenodd" fill="${colourOf(project, findLayer(project, v.id)!)}" stroke="#1e2126" stroke-width="0.2" d="${v.visiblePath}"/>`,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="${minX} ${minY} ${w} ${h}">\n${paths.join('\n')}\n</svg>\n`
}
