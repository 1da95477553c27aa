// A day and a moment as every screen writes them.
import { format } from 'date-fns'

/** “28 Nov 2026”. */
export const dayOf = (at: number): string => format(at, 'd MMM yyyy')

/** “28 Nov 2026, 11:43”. */
export const momentOf = (at: number): string => format(at, 'd MMM yyyy, HH:mm')
