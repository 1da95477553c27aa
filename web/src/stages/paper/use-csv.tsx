// A table of the drawer out to a spreadsheet, and back.
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { SupplyList } from '@feuillet/core/io/exports'
import { saveFile } from '../../session/save-file'
import { changeSupplies } from '../../state/edits'
import { useAppDispatch, useAppSelector } from '../../state/store'
import { ACCEPTS, Button, FileButton } from '../../ui'
import { TableFaults } from './table-faults'

/** The tables' forms: read and written by the core, loaded when they are first asked for. */
export type Forms = typeof import('@feuillet/core/io/exports')

/** What came of a table: whether anything changed, and a sentence for each row that could not be read. */
interface Taken {
  isNew: boolean
  wrong: readonly string[]
}

/** How a table goes out as a file, and what is done with one that comes in. */
interface CsvWays {
  /** What its rows are: papers. */
  what: string
  /** The file's name without its ending. */
  file: string
  isEmpty: boolean
  write: (forms: Forms) => string
  /** Takes in what it can of a file's text. */
  read: (forms: Forms, table: { text: string; name: string }) => Taken
}

/** The buttons of a table's toolbar, and what of the last file could not be taken. */
export function useCsv({ what, file, isEmpty, write, read }: CsvWays): {
  buttons: ReactNode
  faults: ReactNode
} {
  const [wrong, setWrong] = useState<readonly string[]>([])
  const bring = async (chosen: File) => {
    const [forms, { decodeTable }] = await Promise.all([
      import('@feuillet/core/io/exports'),
      import('@feuillet/core/io/read'),
    ])
    const text = decodeTable(new Uint8Array(await chosen.arrayBuffer()))
    const taken = read(forms, { text, name: chosen.name })
    setWrong(taken.wrong)
    if (!taken.isNew && taken.wrong.length === 0) toast(`${chosen.name}: all of it is in the drawer already.`)
  }
  const save = async () =>
    saveFile(`${file}.csv`, write(await import('@feuillet/core/io/exports')), 'text/csv')
  const told = (error: unknown) => {
    toast.error(error instanceof Error ? error.message : String(error))
  }
  return {
    faults: <TableFaults wrong={wrong} />,
    buttons: (
      <>
        <FileButton
          small
          label={`Table of ${what}`}
          accept={ACCEPTS.table}
          onFiles={([chosen]) => chosen && void bring(chosen).catch(told)}
        >
          Bring in CSV
        </FileButton>
        <Button small disabled={isEmpty} onClick={() => void save().catch(told)}>
          Save as CSV
        </Button>
      </>
    ),
  }
}

/** As CSV, what of the drawer is no paper. */
export function useSupplyCsv(list: SupplyList, what: string) {
  const dispatch = useAppDispatch()
  const { supplies } = useAppSelector((state) => state.document)
  return useCsv({
    what,
    file: what,
    isEmpty: supplies[list].length === 0,
    write: (forms) => forms.supplyToCsv(list, supplies),
    read: (forms, { text, name }) => {
      let taken: Taken = { isNew: false, wrong: [] }
      dispatch(
        changeSupplies(`${what} of ${name}`, (held) => {
          const { records, wrong } = forms.supplyFromCsv(list, text, {
            supplies: held.supplies,
            newId: () => crypto.randomUUID(),
          })
          taken = { isNew: records !== held.supplies[list], wrong }
          return taken.isNew ? { ...held, supplies: { ...held.supplies, [list]: records } } : held
        }),
      )
      return taken
    },
  })
}
