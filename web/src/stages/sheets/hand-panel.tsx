import { useState } from 'react'
import { partId, type LoadView, type RunView } from '@feuillet/core/stages/sheets'
import { formatSize, type Unit, wordsIn, type Said } from '@feuillet/core/base/units'
import { change } from '../../state/edits'
import { usePlan } from '../../plan'
import { selectProject, selectUnit, selectView } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, Figure, Figures, Heading, NumberField, Select } from '../../ui'
import { fillTheRest, placePieces, sendPieces, settlePieces, unpinPieces } from './place-pieces'
import { pieceKey } from '../../drawing/sheet'

/** What can be done by hand with the pieces that are picked on a sheet. */
export function HandPanel({ load }: { load: LoadView }) {
  const dispatch = useAppDispatch()
  const project = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const runs = usePlan('nested')
  const { partKeys } = useAppSelector(selectView)
  const [why, setWhy] = useState<Said | null>(null)
  const picked = load.pieces.filter((piece) => partKeys.includes(pieceKey(piece)))
  const isPinned = (piece: (typeof picked)[number]) =>
    project.plan.pins.some(
      // What is laid as one is pinned as one.
      (p) => partId(p.layerId, p.pieceId) === piece.placement.id && p.copy === piece.placement.copy,
    )
  const pinned = picked.filter(isPinned)
  const others = placesOf(
    runs?.find((run) => run.id === load.runId),
    unit,
  ).filter(({ sheet }) => sheet !== load.sheet)
  const [first] = picked
  return (
    <Heading title={picked.length > 1 ? `${picked.length} pieces` : 'Piece'}>
      {first ? (
        <>
          {picked.length === 1 && (
            <p className="mb-1 font-semibold">
              Layer {first.folio}, {first.layerName}
            </p>
          )}
          <Figures>
            {picked.length === 1 && (
              <Figure
                name="Turn"
                value={`${Math.round((((first.placement.rotation % 360) + 360) % 360) * 10) / 10}°`}
              />
            )}
            <Figure
              name="Place"
              value={
                pinned.length === 0
                  ? 'as nested'
                  : pinned.length === picked.length
                    ? 'pinned by hand'
                    : `${pinned.length} pinned by hand`
              }
            />
          </Figures>
          {project.plan.turns === 'free' && !load.paper.oneWay && (
            <div className="mt-2">
              <NumberField
                label="Turn by"
                unitHint="°"
                value={0}
                min={-360}
                max={360}
                onChange={(deg) =>
                  void dispatch(placePieces(load, picked, { dx: 0, dy: 0, turnDeg: deg })).then(setWhy)
                }
              />
            </div>
          )}
          <div className="mt-2 flex flex-wrap gap-2">
            <Button
              small
              onClick={() => void dispatch(settlePieces(load, picked)).then(setWhy)}
              title="Slides up and left as far as it may"
            >
              Settle
            </Button>
            <Select
              label="Send to"
              className="w-32"
              value=""
              hint="send to…"
              options={others.map(({ sheet, words }) => ({ value: String(sheet), label: words }))}
              onChange={(sheet) => void dispatch(sendPieces(load, picked, Number(sheet))).then(setWhy)}
            />
            {pinned.length > 0 && (
              <Button small onClick={() => dispatch(change('take a pin out', (p) => unpinPieces(p, picked)))}>
                {pinned.length > 1 ? 'Take the pins out' : 'Take the pin out'}
              </Button>
            )}
          </div>
          {why && (
            <p
              role="alert"
              className="mt-2 border-l-4 border-crimson bg-crimson-pale px-3 py-1.5 text-[13.5px]"
            >
              ■ Not done: it {wordsIn(why, unit)}.
            </p>
          )}
        </>
      ) : (
        <p className="text-[13px] text-soft">
          Press a piece to pick it, with Shift several, A for all. Drag, arrows, R; it stays where you put it.
        </p>
      )}
      {project.plan.pins.length > 0 && (
        <Button
          small
          className="mt-2"
          onClick={() => dispatch(change('fill the rest', (p) => fillTheRest(p, load)))}
          title="Lays anew what is not pinned, round what is"
        >
          Fill the rest
        </Button>
      )}
    </Heading>
  )
}

/** Where pieces of a run may be sent: its sheets, a fresh one, its off-cuts and sheets of other sizes. */
function placesOf(run: RunView | undefined, unit: Unit): { sheet: number; words: string }[] {
  if (!run) return []
  const whole = Array.from({ length: run.sheets + 1 }, (_, sheet) => ({
    sheet,
    words: sheet === run.sheets ? 'a fresh sheet' : `sheet ${sheet + 1}`,
  }))
  const bins = run.bins.map(({ paper, offCut }, k) => ({
    sheet: -1 - k,
    words: offCut ? `off-cut ${offCut.label}` : `sheet of ${formatSize(paper.widthMm, paper.heightMm, unit)}`,
  }))
  return [...whole, ...bins]
}
