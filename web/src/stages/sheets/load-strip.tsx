import type { Load } from '@feuillet/core/sheets'
import { inkOn } from '../../ui/folio-tab'

/** Loads in cutting order as a row of tabs; a mark where setting or mat change. */
export function LoadStrip({ loads, picked, onPick }: { loads: readonly Load[]; picked: string | null; onPick: (loadId: string) => void }) {
  return (
    <section aria-label="Order of loads" className="border-t border-line bg-panel px-5 py-2">
      <ol className="flex items-end gap-1.5 overflow-x-auto pb-1">
        {loads.map((load, i) => (
          <li key={load.id} className="flex shrink-0 items-end gap-1.5">
            {load.change && i > 0 && (
              <span className="max-w-30 border-l-2 border-dashed border-ochre pl-1.5 text-[11.5px] leading-tight text-ochre" title={load.change}>
                ▲ {load.change}
              </span>
            )}
            <button
              type="button"
              aria-pressed={picked === load.id}
              title={`Load ${load.number}: ${load.paper.name}, layers ${load.folios.join(', ')}`}
              onClick={() => onPick(load.id)}
              className={`clip-tab grid h-12 w-14 content-between px-1.5 py-1 text-left ${picked === load.id ? 'outline-2 -outline-offset-3 outline-current' : ''}`}
              style={{ background: load.paper.colour, color: inkOn(load.paper.colour) }}
            >
              <span className="truncate leading-none font-semibold">{load.folios.join(' ')}</span>
              <span className="text-[11px] leading-none">load {load.number}</span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  )
}
