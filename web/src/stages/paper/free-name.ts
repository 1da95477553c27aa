/** A name that none of a list bears yet. */
export function freeName(list: readonly { name: string }[], stem: string): string {
  let n = 1
  while (list.some(({ name }) => name === `${stem} ${n}`)) n++
  return `${stem} ${n}`
}
