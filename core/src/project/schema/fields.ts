// Fields of a document that many of its parts have.
import { z } from 'zod'
import { LIMITS, MOST } from '../limits'

/** A number within its bounds. */
export const within = (name: keyof typeof LIMITS) => z.number().min(LIMITS[name][0]).max(LIMITS[name][1])
/** A whole number within its bounds. */
export const whole = (name: keyof typeof LIMITS) => within(name).int()

/** A length, 0 or more, mm. */
export const lengthMm = within('lengthMm')
/** A side of a sheet, a frame or a bed, more than 0, mm. */
export const sizeMm = within('sizeMm')
/** A place along an axis of the project’s frame, mm. */
export const coordinateMm = within('coordinateMm')
/** What the maker calls a thing. */
export const name = z.string().min(1).max(MOST.name)
/** A colour, #rrggbb. */
export const colour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour is written #rrggbb')
/** An id that is safe in an address and in the name of a file. */
export const id = z
  .string()
  .regex(/^[\p{L}\p{N}._:-]{1,120}$/u, 'an id is made of letters, figures, dots and dashes')
/** Closed outlines as an SVG path, mm in the project’s frame. */
export const path = z.string().min(1)
/** ms since 1970. */
export const time = within('time')
