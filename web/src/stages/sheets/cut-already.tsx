import { useState } from 'react'
import { markSpoilt, SPOILT, type CutSheet, type Spoilt } from '@feuillet/core/project'
import { change } from '../../state/edits'
import { selectProject } from '../../state/selectors'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { Button, dayOf, Heading, Select } from '../../ui'
import { takeBack } from '../../state/note-cut'

const WHOLE = 'whole'

/** Sheets that are cut, and what became of their pieces: what is spoilt is laid again. */
export function CutAlready() {
  const { cut } = useAppSelector(selectProject)
  const [open, setOpen] = useState<string | null>(null)
  if (cut.length === 0) return null
  return (
    <Heading title="Cut already">
      <ul aria-label="Sheets that are cut" className="grid gap-1.5">
        {cut.map((sheet) => (
          <SheetRow
            key={sheet.id}
            sheet={sheet}
            isOpen={open === sheet.id}
            onToggle={() => setOpen(open === sheet.id ? null : sheet.id)}
          />
        ))}
      </ul>
    </Heading>
  )
}

function SheetRow({ sheet, isOpen, onToggle }: { sheet: CutSheet; isOpen: boolean; onToggle: () => void }) {
  const dispatch = useAppDispatch()
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
            Pick what is not whole: it is laid again, from off-cuts first.
          </p>
          <ul className="-mx-1 grid max-h-52 gap-1 overflow-y-auto px-1">
            {pieces.map((piece, index) => (
              <li key={index} className="flex items-center gap-2">
                <span className="measure w-6 text-right text-[12.5px] text-soft">{piece.folio}</span>
                <span className="min-w-0 flex-1 truncate text-[13px]">
                  {piece.layerName}, {piece.pieceId}
                </span>
                <Select
                  label={`Piece ${piece.pieceId} of ${piece.layerName}, ${index + 1}`}
                  className="w-28"
                  value={piece.spoilt ?? WHOLE}
                  options={[
                    { value: WHOLE, label: 'whole' },
                    ...SPOILT.map((why) => ({ value: why, label: why })),
                  ]}
                  onChange={(why) =>
                    dispatch(
                      change(`a piece of ${piece.layerName} is ${why}`, (p) =>
                        markSpoilt(p, { sheetId: sheet.id, index }, why === WHOLE ? null : (why as Spoilt)),
                      ),
                    )
                  }
                />
              </li>
            ))}
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
