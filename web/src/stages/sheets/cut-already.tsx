import { cutPieceKey, type CutSheet } from '@feuillet/core/project'
import { cutKey } from './cut-sheets'
import { selectOtherUses, selectProject, selectView } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { looked } from '../../state/view'
import { Button, dayOf, Heading } from '../../ui'
import { takeBack } from '../../state/note-cut'
import { SpoiltSelect } from './spoilt-select'

/** Sheets that are cut, and what became of their pieces: what is spoilt is laid again. The one that is open is looked at. */
export function CutAlready() {
  const dispatch = useAppDispatch()
  const { cut } = useAppSelector(selectProject)
  const { loadId } = useAppSelector(selectView)
  if (cut.length === 0) return null
  return (
    <Heading title="Cut already">
      <ul aria-label="Sheets that are cut" className="grid gap-1.5">
        {cut.map((sheet) => {
          const isOpen = loadId === sheet.id
          const toggle = () => dispatch(looked({ loadId: isOpen ? null : sheet.id, partKeys: [] }))
          return <SheetRow key={sheet.id} {...{ sheet, isOpen }} onToggle={toggle} />
        })}
      </ul>
    </Heading>
  )
}

function SheetRow({ sheet, isOpen, onToggle }: { sheet: CutSheet; isOpen: boolean; onToggle: () => void }) {
  const dispatch = useAppDispatch()
  const { partKeys } = useAppSelector(selectView)
  const uses = useAppSelector(selectOtherUses)
  const { pieces, paper, number } = sheet
  const spoilt = pieces.filter((piece) => piece.spoilt !== null).length
  return (
    <li className="border-l-4 pl-2" style={{ borderColor: paper.colour }} data-cut-sheet={sheet.id}>
      <button type="button" aria-expanded={isOpen} className="w-full text-left" onClick={onToggle}>
        <span className="font-semibold">
          {number}. {paper.name}
        </span>{' '}
        <span className="text-[13px] text-soft">
          {dayOf(sheet.at)}, {pieces.length - spoilt} of {pieces.length} whole
        </span>
      </button>
      {isOpen && (
        <div className="mt-1 grid gap-1">
          <p className="text-[13px] text-soft">
            Pick what is not whole, here or on the sheet: it is laid again, from off-cuts first.
          </p>
          <ul className="-mx-1 grid max-h-52 grid-cols-1 gap-1 overflow-y-auto px-1">
            {pieces.map((piece, index) => {
              const isPicked = partKeys.includes(cutKey(index))
              const use = uses.get(cutPieceKey({ sheetId: sheet.id, index }))
              return (
                <li
                  key={index}
                  ref={isPicked ? intoSight : undefined}
                  className={`flex items-center gap-2 ${isPicked ? 'bg-ground' : ''}`}
                >
                  <button
                    type="button"
                    aria-pressed={isPicked}
                    className="flex min-w-0 flex-1 items-center gap-2 text-left text-[13px]"
                    onClick={() => dispatch(looked({ partKeys: [cutKey(index)] }))}
                  >
                    <span className="measure w-6 shrink-0 text-right text-[12.5px] text-soft">
                      {piece.folio}
                    </span>
                    <span className="truncate">
                      {piece.layerName}, {piece.pieceId}
                      {use && (
                        <span className="block truncate text-soft">
                          now {use.layerName}, {use.pieceId}
                        </span>
                      )}
                    </span>
                  </button>
                  <SpoiltSelect
                    {...{ sheet, index }}
                    label={`Piece ${piece.pieceId} of ${piece.layerName}, ${index + 1}`}
                  />
                </li>
              )
            })}
          </ul>
          <div>
            <Button small onClick={() => dispatch(takeBack(sheet.id))}>
              Not cut after all
            </Button>
          </div>
        </div>
      )}
    </li>
  )
}

const intoSight = (row: HTMLElement | null): void => row?.scrollIntoView({ block: 'nearest' })
