// What a longer search gained as time went by, so that the maker sees whether a further minute is worth it.

/** What all papers together came to (sheets, the last of each by its share) after so many seconds of searching. */
export interface GainMark {
  atS: number
  sheets: number
}

/** When it is marked what the search has come to, s; the last mark is where it stands. */
const MARKS_S = [10, 30, 60, 120, 180, 240, 300]
const WORTH_TELLING = 0.005
const NO_BREAK = '\u00a0'

/** The marks with where the search stands now: what was marked before the last full mark stays. */
export function marked(marks: readonly GainMark[], now: GainMark): readonly GainMark[] {
  const last = marks.at(-1)!
  const passed = MARKS_S.findLast((at) => at <= now.atS) ?? 0
  const open = last.atS > 0 && !MARKS_S.includes(last.atS)
  const kept = open ? marks.slice(0, -1) : marks
  // What it stood at when a mark was passed is what was told last before.
  const full =
    passed > kept.at(-1)!.atS ? [...kept, { atS: passed, sheets: open ? last.sheets : now.sheets }] : kept
  if (now.atS === passed) return full
  const same = open && full === kept && last.sheets === now.sheets && now.atS - last.atS < 1
  return same ? marks : [...full, now]
}

/** In words: `Sheets 7.42 · 10 s 7.31 · 30 s 7.30`; nothing gained is said. */
export function gainWords(marks: readonly GainMark[]): string {
  const [first, ...later] = marks
  if (!first) return ''
  const at = ({ atS, sheets }: GainMark) =>
    `${atS < 60 ? `${Math.round(atS)} s` : `${Math.floor(atS / 60)} min${atS % 60 >= 1 ? ` ${Math.round(atS % 60)} s` : ''}`} ${sheets.toFixed(2)}`
  const isNone = later.length > 0 && first.sheets - later.at(-1)!.sheets < WORTH_TELLING
  const parts = [
    `Sheets by share: ${first.sheets.toFixed(2)} at first`,
    ...later.map(at),
    ...(isNone ? ['nothing gained yet'] : []),
  ]
  // A time stays with what it came to when the line breaks.
  return parts.map((part) => part.replaceAll(' ', NO_BREAK)).join(' · ')
}
