// Evenings as a calendar that other programs read (RFC 5545).
import { createEvents, type DateTime, type EventAttributes } from 'ics'

/** An evening of work; wall-clock minutes since 1970. */
export interface CalendarEntry {
  /** Stays the same when the plan is made again. */
  uid: string
  title: string
  text: string
  fromAt: number
  toAt: number
}

/** A calendar file (iCalendar, RFC 5545); times, in minutes since 1970, are those of the wall, wherever it is read. Throws where an entry cannot be written. */
export function writeIcs(entries: readonly CalendarEntry[], name: string): string {
  const { error, value } = createEvents(
    entries.map(({ uid, title, text, fromAt, toAt }): EventAttributes => ({
      uid,
      title,
      description: text,
      start: dateTimeOf(fromAt),
      startInputType: 'local',
      startOutputType: 'local',
      end: dateTimeOf(toAt),
      endInputType: 'local',
      endOutputType: 'local',
      productId: 'feuillet',
    })),
    { calName: name },
  )
  if (error) throw error
  return value!
}

function dateTimeOf(minutes: number): DateTime {
  const at = new Date(Math.round(minutes) * 60_000)
  return [at.getUTCFullYear(), at.getUTCMonth() + 1, at.getUTCDate(), at.getUTCHours(), at.getUTCMinutes()]
}
