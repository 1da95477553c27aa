// A project that this page only follows or reads is not changed here: said where it is tried, and nothing is lost.
import { isAnyOf, type Middleware } from '@reduxjs/toolkit'
import { toast } from 'sonner'
import { edited, redone, undone, type DocumentState } from './document'

const changes = isAnyOf(edited, undone, redone)

const WHY = {
  following: 'Another tab has this project open: take it over at the top to change it here.',
  reading: 'This project was written by a newer Feuillet: it can be looked at and exported, not changed.',
}

export const guard: Middleware = (api) => (next) => (action) => {
  const { role } = (api.getState() as { document: DocumentState }).document
  if (role === 'writing' || !changes(action)) return next(action)
  toast.error(WHY[role], { id: 'not-here' })
  return action
}
