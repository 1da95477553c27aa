import type { MendTable } from '../../project'
import { fitDesign } from './measure'

declare module '../../project/snag' {
  interface Mends {
    'fit-design': object
    'set-opening': { widthMm: number; heightMm: number }
  }
}

export const measureMends: MendTable<'fit-design' | 'set-opening'> = {
  'fit-design': (project) => fitDesign(project),
  'set-opening': (project, { widthMm, heightMm }) =>
    project.mount.kind === 'frame'
      ? { ...project, mount: { ...project.mount, opening: { widthMm, heightMm } } }
      : project,
}
