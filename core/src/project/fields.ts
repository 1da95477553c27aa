// Fields of a document that many of its parts have.
import { z } from 'zod'
import { LIMITS, MOST } from './limits'

/** A number within its bounds. */
export const within = (name: keyof typeof LIMITS) => z.number().min(LIMITS[name][0]).max(LIMITS[name][1])
/** A whole number within its bounds. */
export const whole = (name: keyof typeof LIMITS) => within(name).int()

export const lengthMm = within('lengthMm')
export const sizeMm = within('sizeMm')
export const coordinateMm = within('coordinateMm')
export const name = z.string().min(1).max(MOST.name)
export const colour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour is written #rrggbb')
export const id = z
  .string()
  .regex(/^[\p{L}\p{N}._:-]{1,120}$/u, 'an id is made of letters, figures, dots and dashes')
export const path = z.string().min(1)
/** ms since 1970. */
export const time = within('time')
