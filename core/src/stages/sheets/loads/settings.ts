// What a paper asks of the machine. Starting values by finish and weight; a test square settles them.
import type { Cutter, Paper } from '../../../project'

/** How a paper is cut. */
export interface CutSetting {
  name: string
  tack: 'low' | 'medium' | 'high'
  passes: number
  /** Glitter and board blunt the blade: clean or change it after. */
  hardOnBlade: boolean
}

/** A start of ours by finish and weight; the machine’s own instructions go before it. */
export function settingFor(paper: Paper): CutSetting {
  switch (paper.finish) {
    case 'glitter':
      return { name: 'glitter card', tack: 'high', passes: 2, hardOnBlade: true }
    case 'chipboard':
      return { name: 'board', tack: 'high', passes: paper.thicknessMm > 1.2 ? 4 : 3, hardOnBlade: true }
    case 'craft foam':
      return { name: 'craft foam', tack: 'medium', passes: 2, hardOnBlade: false }
    case 'mirror':
      return { name: 'mirror card', tack: 'medium', passes: 1, hardOnBlade: false }
    case 'vellum':
    case 'acetate':
      return { name: paper.finish, tack: 'low', passes: 1, hardOnBlade: false }
    default: {
      const heavy = paper.gsm >= 260
      const light = paper.gsm < 150
      const grain = paper.finish === 'textured' ? 'textured' : 'smooth'
      return {
        name: `${grain}, ${light ? 'light' : heavy ? 'heavy' : 'medium'}`,
        tack: light ? 'low' : 'medium',
        passes: 1,
        hardOnBlade: false,
      }
    }
  }
}

/** Metres of cutting after which a blade is to be looked at and cleaned; a starting value. */
export const BLADE_CARE_M = 30

/** Minutes to cut outlines: path at speed, time lost at corners and lifts, per pass, and loading the sheet. */
export function cuttingMinutes(cut: {
  outlineMm: number
  corners: number
  lifts: number
  passes: number
  cutter: Cutter
}): number {
  const { outlineMm, corners, lifts, passes, cutter } = cut
  const seconds = passes * (outlineMm / cutter.speedMmPerS + corners * cutter.cornerS + lifts * cutter.liftS)
  return seconds / 60 + cutter.loadMin
}
