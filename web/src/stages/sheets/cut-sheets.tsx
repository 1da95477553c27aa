// Sheets that are cut, as they were: side by side, or one large, on which what is not whole is told by picture.
import { useMemo } from 'react'
import { cutPieceKey, type CutSheet, type Spoilt } from '@feuillet/core/project'
import type { LoadView, PieceView, SheetDrawing as Drawn } from '@feuillet/core/stages/sheets'
import { Board } from '../../drawing/board'
import { PieceShape, pieceKey, SheetDrawing } from '../../drawing/sheet'
import { usePlan } from '../../plan'
import { selectOtherUses, selectProject, selectUnit, selectView } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked } from '../../state/view'
import { dayOf } from '../../ui'
import { inkOn } from '../../ui/folio-tab'
import { SheetGrid, useDrawnOf } from './sheet-grid'
import { SpoiltSelect } from './spoilt-select'

const NONE: readonly LoadView[] = []

/** Which of its sheet's pieces one is. */
const indexOf = ({ placement }: PieceView): number => placement.copy

/** Names a piece of the sheet that is looked at, among what is picked. */
export const cutKey = (index: number): string => `#${index}`

/** All of them, small. */
export function AllCut({ onPick }: { onPick: (sheetId: string) => void }) {
  const { cut } = useAppSelector(selectProject)
  const loads = usePlan('cutLoads') ?? NONE
  const drawnOf = useDrawnOf(usePlan('cutSketches'))
  const sheetOf = useMemo(() => new Map(cut.map((sheet) => [sheet.id, sheet])), [cut])
  return (
    <SheetGrid
      kind="Cut sheet"
      loads={loads}
      drawnOf={drawnOf}
      noteOf={({ id }) => dayOf(sheetOf.get(id)?.at ?? 0)}
      onPick={onPick}
    >
      {(load, drawn, px) =>
        load.pieces.map((piece, k) => (
          <CutPiece
            key={pieceKey(piece)}
            {...{ piece, px }}
            ink={inkOn(load.paper.colour)}
            drawn={drawn?.pieces[k]}
            spoilt={spoiltOf(sheetOf.get(load.id), piece)}
          />
        ))
      }
    </SheetGrid>
  )
}

/** One of them, large: pieces are picked, and what became of them is said. */
export function CutBoard({ load, sheet }: { load: LoadView; sheet: CutSheet }) {
  const dispatch = useAppDispatch()
  const { drawer } = useAppSelector(selectProject)
  const unit = useAppSelector(selectUnit)
  const { partKeys } = useAppSelector(selectView)
  const drawn = usePlan('cutSheet', load.id) ?? null
  const ink = inkOn(load.paper.colour)
  const picked = load.pieces.find((piece) => partKeys.includes(cutKey(indexOf(piece))))
  const uses = useAppSelector(selectOtherUses)
  const use = picked && uses.get(cutPieceKey({ sheetId: sheet.id, index: indexOf(picked) }))
  const pick = (piece: PieceView | null) =>
    dispatch(looked({ partKeys: piece ? [cutKey(indexOf(piece))] : [] }))
  return (
    <div className="relative h-full">
      <Board
        name="sheet"
        box={{ minX: 0, minY: 0, maxX: load.widthMm, maxY: load.heightMm }}
        unit={unit}
        label={`Cut sheet ${load.number}, ${load.paper.name}`}
        interactive
        onPointerDown={(event) => {
          if ((event.target as Element).closest('[data-piece]') === null) pick(null)
        }}
      >
        {(px) => (
          <SheetDrawing load={load} drawn={drawn} rimMm={drawer.cutter.rimMm} px={px}>
            {load.pieces.map((piece, k) => {
              const spoilt = spoiltOf(sheet, piece)
              return (
                <g
                  key={pieceKey(piece)}
                  role="button"
                  tabIndex={0}
                  aria-pressed={piece === picked}
                  aria-label={`${piece.layerName}, ${piece.pieceId}: ${spoilt ?? 'whole'}`}
                  className="cursor-pointer outline-none focus-visible:[&_path]:stroke-plum"
                  onClick={() => pick(piece)}
                  onKeyDown={(event) => {
                    if (event.key !== 'Enter' && event.key !== ' ') return
                    event.preventDefault()
                    pick(piece)
                  }}
                >
                  <CutPiece
                    {...{ piece, ink }}
                    drawn={drawn?.pieces[k]}
                    px={piece === picked ? px * 2.5 : px}
                    spoilt={spoilt}
                  />
                </g>
              )
            })}
          </SheetDrawing>
        )}
      </Board>
      {picked && (
        <div className="absolute bottom-2 left-1/2 flex max-w-full -translate-x-1/2 items-center gap-3 border border-line bg-panel px-3 py-1.5 text-[13.5px]">
          <span className="truncate">
            {picked.layerName}, {picked.pieceId}
            {use && ` (now ${use.layerName}, ${use.pieceId})`}
          </span>
          <SpoiltSelect sheet={sheet} index={indexOf(picked)} label="What became of it" />
        </div>
      )}
    </div>
  )
}

/** Why it is of no use any longer; null where it is whole. */
const spoiltOf = (sheet: CutSheet | undefined, piece: PieceView): Spoilt | null =>
  sheet?.pieces[indexOf(piece)]?.spoilt ?? null

interface CutPieceProps {
  piece: PieceView
  drawn: Drawn['pieces'][number] | undefined
  px: number
  ink: string
  spoilt: Spoilt | null
}

/** A piece that was cut, crossed out where it is not whole. */
function CutPiece({ piece, drawn, px, ink, spoilt }: CutPieceProps) {
  const { minX, minY, maxX, maxY } = piece.box
  return (
    <g data-spoilt={spoilt ?? undefined}>
      <title>{`${piece.folio}: ${piece.layerName}, ${spoilt ?? 'whole'}`}</title>
      <PieceShape piece={piece} drawn={drawn} px={px} ink={ink} />
      {spoilt !== null && (
        <path
          d={`M${minX} ${minY}L${maxX} ${maxY}M${maxX} ${minY}L${minX} ${maxY}`}
          stroke="var(--color-crimson)"
          strokeWidth={px * 1.5}
          pointerEvents="none"
        />
      )}
    </g>
  )
}
