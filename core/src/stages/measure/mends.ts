import type { MendTable } from '../../project'
import { fitDesign } from './measure'
import { rescaled, type Measure } from './slips'

declare module '../../project/snag' {
  interface Mends {
    'fit-design': object
    'set-opening': { widthMm: number; heightMm: number }
    'other-unit': { measure: Measure; factor: number }
  }
}

/** Mends of the measure stage. */
export const measureMends: MendTable<'fit-design' | 'set-opening' | 'other-unit'> = {
  'fit-design': (project) => fitDesign(project),
  'set-opening': (project, { widthMm, heightMm }) =>
    project.mount.kind === 'frame'
      ? { ...project, mount: { ...project.mount, opening: { widthMm, heightMm } } }
      : project,
  'other-unit': (project, { measure, factor }) => ({
    ...project,
    mount: rescaled(project.mount, measure, factor),
  }),
}
