// What runs short was bought: one press puts it into the drawer.
import type { Bought } from '@feuillet/core/project'
import { buy } from '../state/edits'
import { useAppDispatch } from '../state/store'
import { Button, Tip } from '../ui'

/** Puts all packs that are to be bought into the shared drawer; nothing where none are. */
export function AllBought({ bought }: { bought: Bought }) {
  const dispatch = useAppDispatch()
  const { sheets = {}, pads = {}, things = {} } = bought
  if (![sheets, pads, things].some((amounts) => Object.values(amounts).some((n) => n > 0))) return null
  return (
    <Tip text="Puts all packs to buy into the drawer; undo takes them out again">
      <Button small onClick={() => dispatch(buy('what was bought', bought))}>
        All bought
      </Button>
    </Tip>
  )
}
