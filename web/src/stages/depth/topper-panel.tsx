import { useState } from 'react'
import { coverOf } from '@feuillet/core/stages/depth'
import { findLayer, LIMITS, removeLayer, stickGlueOf, type Mount } from '@feuillet/core/project'
import { formatKept, formatMinutes } from '@feuillet/core/base/units'
import { change, changeApart } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { useWords } from '../../state/use-words'
import { editor } from '../../workers'
import { Button, Figure, Figures, Heading, LengthField, NumberField } from '../../ui'

type TopperMount = Extract<Mount, { kind: 'topper' }>
/** How many glues are compared before the maker asks for all. */
const COMPARED = 3

/** A topper's sticks: where they go, what holds them, how the ends droop, and the piece that hides them. */
export function TopperPanel({ mount }: { mount: TopperMount }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const { unit, length } = useWords()
  const force = (newtons: number) => formatKept(newtons, 'N', unit)
  const held = usePlan('hold')
  const set = (label: string, patch: Partial<TopperMount>) =>
    dispatch(change(label, (p) => ({ ...p, mount: { ...(p.mount as TopperMount), ...patch } })))
  const [allGlues, setAllGlues] = useState(false)
  if (!held) return null
  const { sticks } = held
  const own = stickGlueOf(project)
  const cover = coverOf(project)
  // The chosen one, and those that hold the most beside it.
  const glues = [
    ...held.glues.filter(({ adhesive }) => adhesive.id === own?.id),
    ...held.glues.filter(({ adhesive }) => adhesive.id !== own?.id).toSorted((a, b) => b.holdsN - a.holdsN),
  ].slice(0, allGlues ? undefined : COMPARED)
  return (
    <Heading title="Sticks">
      <div className="grid gap-2">
        <NumberField
          label="How many"
          value={mount.sticks}
          min={LIMITS.sticks[0]}
          max={LIMITS.sticks[1]}
          whole
          onChange={(n) => set('number of sticks', { sticks: n, stickPlacesMm: [] })}
        />
        {sticks.map(({ x }, i) => (
          <LengthField
            key={i}
            label={`Stick ${i + 1}, from the left`}
            valueMm={x}
            unit={unit}
            min={-2000}
            onChange={(mm) =>
              set(`stick ${i + 1}`, {
                stickPlacesMm: sticks.map((stick, k) => (k === i ? mm : stick.x)).toSorted((a, b) => a - b),
              })
            }
          />
        ))}
        {mount.stickPlacesMm.length > 0 && (
          <Button small onClick={() => set('place of the sticks', { stickPlacesMm: [] })}>
            Put them where they hold best
          </Button>
        )}
        <Figures>
          <Figure
            name="Weight"
            value={formatKept(held.massG, 'g', unit)}
            basis="All card by its area and weight a square metre; foam and glue left out"
          />
          <Figure
            name="Centre of mass"
            value={`${length(held.centre.x)} from the left`}
            basis="Of all layers by their weight"
          />
          <Figure
            name="Longest free reach"
            value={length(held.reachMm, 0)}
            basis="From the nearest stick to the farthest end"
          />
          <Figure
            name="Sag of that reach"
            value={length(held.sagMm, 2)}
            basis="Held level and bent by its own weight, column by column: sheets glued to each other bend as one, sheets on foam each by itself. Upright it is less"
          />
        </Figures>
        {sticks.length > 0 && (
          <table className="w-full text-[13px]" aria-label="Glues for the sticks">
            <thead>
              <tr className="text-left text-soft">
                <th className="font-normal">Glue</th>
                <th className="font-normal">handle, dry after</th>
                <th className="text-right font-normal">holds</th>
              </tr>
            </thead>
            <tbody>
              {glues.map(({ adhesive, holdsN, times }) => (
                <tr key={adhesive.id} className="border-t border-line align-top">
                  <td className="py-1 pr-1">
                    <label className="flex cursor-pointer items-start gap-1.5">
                      <input
                        type="radio"
                        name="stick-glue"
                        className="mt-1 accent-plum"
                        checked={adhesive.id === own?.id}
                        onChange={() => set('glue of the sticks', { stickGlueId: adhesive.id })}
                      />
                      <span>
                        {adhesive.name}
                        <span className="block text-[12px] text-soft">
                          {adhesive.driesClear ? 'dries clear' : 'stays seen'},{' '}
                          {adhesive.isTidy ? 'flat behind' : 'a bead behind'}
                        </span>
                      </span>
                    </label>
                  </td>
                  <td className="measure py-1 whitespace-nowrap">
                    {formatMinutes(adhesive.handleMin)}
                    <span className="block text-soft">{formatMinutes(adhesive.dryMin)}</span>
                  </td>
                  <td
                    className="measure py-1 text-right whitespace-nowrap"
                    title={`${force(holdsN)} over what the sticks touch, at ${formatKept(adhesive.holdsKPa, 'kPa', unit)}; the topper weighs ${force((held.massG / 1000) * 9.81)}`}
                  >
                    {force(holdsN)}
                    <span className="block text-soft">× {times.toFixed(0)}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {sticks.length > 0 && held.glues.length > COMPARED && (
          <Button small onClick={() => setAllGlues(!allGlues)}>
            {allGlues ? `The ${COMPARED} that hold most` : `All ${held.glues.length} glues`}
          </Button>
        )}
        {cover ? (
          <Button
            small
            onClick={() => dispatch(change('no cover', (p) => removeLayer(p, cover.id)))}
            title={`Layer “${findLayer(project, cover.id)!.name}”`}
          >
            Leave the cover out
          </Button>
        ) : (
          sticks.length > 0 && (
            <Button
              small
              onClick={() =>
                void dispatch(
                  changeApart('cover behind the sticks', (p) =>
                    editor.ask((api) => api.mend(p, [{ kind: 'add-cover' }], [])),
                  ),
                )
              }
              title="The back’s outline, mirrored on the sheet: cut and counted like any layer"
            >
              Cover the sticks with a piece
            </Button>
          )
        )}
      </div>
    </Heading>
  )
}
