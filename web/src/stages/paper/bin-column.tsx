import { Trash2 } from 'lucide-react'
import { Tip, type DataColumn } from '../../ui'

/** Takes a record out of the drawer; undo brings it back. */
export const binColumn = <T extends { id: string; name: string }>(
  onBin: (one: T) => void,
): DataColumn<T> => ({
  id: 'bin',
  title: 'bin',
  always: true,
  cell: (one) => (
    <Tip text={`Takes ${one.name} out of the drawer; undo brings it back`}>
      <button type="button" aria-label={`Bin ${one.name}`} className="p-1" onClick={() => onBin(one)}>
        <Trash2 size={15} aria-hidden />
      </button>
    </Tip>
  ),
})
