import {
  fromOffCuts,
  markSpoilt,
  SPOILT,
  type CutSheet,
  type Paper,
  type Project,
  type Spoilt,
} from '@feuillet/core/project'
import { change } from '../../state/edits'
import { keepLying } from '../../state/keep-lying'
import { useAppDispatch } from '../../state/store'
import { Select } from '../../ui'

const WHOLE = 'whole'

interface Props {
  sheet: CutSheet
  /** Of the piece, among those of its sheet. */
  index: number
  label: string
}

/** What became of a piece that was cut: what is spoilt is laid again. */
export function SpoiltSelect({ sheet, index, label }: Props) {
  const dispatch = useAppDispatch()
  const { layerName, spoilt } = sheet.pieces[index]!
  const say = async (why: string) => {
    const what = why === WHOLE ? null : (why as Spoilt)
    const edit = (p: Project, stock: readonly Paper[]) =>
      fromOffCuts(p, markSpoilt(p, { sheetId: sheet.id, index }, what), stock)
    await dispatch(keepLying(({ project, stock }) => edit(project, stock)))
    dispatch(change(`a piece of ${layerName} is ${why}`, edit))
  }
  return (
    <Select
      label={label}
      className="w-28"
      value={spoilt ?? WHOLE}
      options={[{ value: WHOLE, label: 'whole' }, ...SPOILT.map((why) => ({ value: why, label: why }))]}
      onChange={(why) => void say(why)}
    />
  )
}
