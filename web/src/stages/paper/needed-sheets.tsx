// What the loads want of each paper, and the work of frames, sticks or twine; what of it is at hand, and what the rest costs.
import { formatSize } from '@feuillet/core/base/units'
import { kindOf, sameButSize, thingUnit } from '@feuillet/core/project'
import { countWords, packWords, toBuy } from '@feuillet/core/stages/journal'
import type { ThingNeeded } from '@feuillet/core/stages/measure'
import { buyWords } from '@feuillet/core/stages/sheets'
import { Package } from 'lucide-react'
import { usePlan } from '../../plan'
import { AllBought } from '../../shell/all-bought'
import { selectProject, selectUnit } from '../../state/selectors'
import { useAppSelector } from '../../state/store'
import { Figure, Figures, Heading } from '../../ui'

export function NeededSheets() {
  const unit = useAppSelector(selectUnit)
  const { currency } = useAppSelector(selectProject).drawer
  const needed = usePlan('needed')
  const thing = usePlan('thing')
  const { packs, cost, bought } = toBuy({ needed, thing })
  return (
    <Heading title="Sheets and shopping">
      {needed ? (
        <>
          <table className="w-full text-[13px]">
            <thead className="text-left text-soft">
              <tr>
                <th className="font-normal">what</th>
                <th className="pl-2 text-right font-normal">needed</th>
                <th className="pl-2 text-right font-normal">have</th>
                <th className="pl-2 text-right font-normal">buy</th>
              </tr>
            </thead>
            <tbody>
              {needed.map((need) => (
                <tr key={need.paper.id}>
                  <td className="max-w-28 truncate">
                    <span
                      aria-hidden
                      className="mr-1.5 inline-block h-3 w-3 border border-line align-[-1px]"
                      style={{ background: need.paper.colour }}
                    />
                    {need.paper.name}
                    {needed.some((other) => sameButSize(other.paper, need.paper)) &&
                      ` ${formatSize(need.paper.widthMm, need.paper.heightMm, unit)}`}
                  </td>
                  <td className="measure text-right">{need.sheets}</td>
                  <td className="measure text-right">{need.paper.count}</td>
                  <td className={`measure text-right ${need.buy ? 'text-ochre' : ''}`}>
                    {need.buy ? `▲ ${buyWords(need)}` : '0'}
                  </td>
                </tr>
              ))}
              {thing && <ThingRow need={thing} />}
            </tbody>
          </table>
          {packs > 0 && (
            <div className="mt-2">
              <Figures>
                <Figure
                  name="To pay for what is short"
                  value={`${cost.toFixed(2)} ${currency}`}
                  basis="Whole packs, at the prices of the drawer"
                />
              </Figures>
              <div className="mt-2">
                <AllBought bought={bought} />
              </div>
            </div>
          )}
        </>
      ) : (
        <p className="text-soft">Computing…</p>
      )}
    </Heading>
  )
}

/** A frame, sticks or twine, where the drawer counts them. */
function ThingRow({ need: { thing, needed, taken, packs } }: { need: ThingNeeded }) {
  const unit = useAppSelector(selectUnit)
  const kind = kindOf(thing)
  const by = thingUnit(kind)
  const bought = packWords(packs, { perPack: thing.perPack, by }, unit)
  return (
    <tr data-thing={thing.name}>
      <td className="max-w-28 truncate">
        <Package size={12} aria-hidden className="mr-1.5 inline-block align-[-1px] text-soft" />
        {thing.name || kind}
      </td>
      <td className="measure text-right">{countWords(Math.max(0, needed - taken), by, unit)}</td>
      <td className="measure text-right">{countWords(thing.count ?? 0, by, unit)}</td>
      <td className={`measure text-right ${packs ? 'text-ochre' : ''}`}>{packs ? `▲ ${bought}` : '0'}</td>
    </tr>
  )
}
