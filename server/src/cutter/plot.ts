// Reads plot text as a machine does: pens and straight moves, 40 units a mm, y up from the lower left corner.

export interface Move {
  /** 1 cuts, 2 scores, 3 draws. */
  pen: number
  down: boolean
  /** Where the tool goes to, mm from the sheet's lower left corner. */
  x: number
  y: number
}

const UNITS_PER_MM = 40
const MOST_MOVES = 400_000

/** Moves of a plot text. Throws an Error of one sentence where it is none. */
export function readPlot(text: string): Move[] {
  const moves: Move[] = []
  let pen = 0
  for (const part of text.split(';')) {
    const command = part.trim()
    if (command === '' || command === 'IN') continue
    const name = command.slice(0, 2)
    const numbers = command
      .slice(2)
      .split(',')
      .filter((n) => n.trim() !== '')
      .map(Number)
    if (numbers.some((n) => !Number.isFinite(n)))
      throw new Error(`“${command.slice(0, 20)}” is no command of a plot text`)
    if (name === 'SP') pen = numbers[0] ?? 0
    else if (name === 'PU' || name === 'PD') {
      if (numbers.length % 2 !== 0) throw new Error(`“${command.slice(0, 20)}” has half a point`)
      for (let i = 0; i < numbers.length; i += 2)
        moves.push({
          pen,
          down: name === 'PD',
          x: numbers[i]! / UNITS_PER_MM,
          y: numbers[i + 1]! / UNITS_PER_MM,
        })
    } else throw new Error(`“${command.slice(0, 20)}” is no command of a plot text`)
    if (moves.length > MOST_MOVES) throw new Error(`the plot has more than ${MOST_MOVES} moves`)
  }
  if (!moves.some((move) => move.down)) throw new Error('nothing is cut in this plot')
  return moves
}
