import { markSpoilt, SPOILT, type CutSheet, type Project, type Spoilt } from '@feuillet/core/project'
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
    const edit = (p: Project) =>
      markSpoilt(p, { sheetId: sheet.id, index }, why === WHOLE ? null : (why as Spoilt))
    await dispatch(keepLying(({ project }) => edit(project)))
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
