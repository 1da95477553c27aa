// Undo and redo: what they lead to is kept at once.
import { session } from '../session'
import { redone, undone } from '../state/document'
import type { AppDispatch } from '../state/store'

export const undo = () => (dispatch: AppDispatch) => {
  dispatch(undone())
  void session.flush()
}

export const redo = () => (dispatch: AppDispatch) => {
  dispatch(redone())
  void session.flush()
}
