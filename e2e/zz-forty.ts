import { loadGeometry, rectangle, subtract, ellipse } from '@feuillet/core/base/geometry'
import { newProject, writeProject } from '@feuillet/core/project'
import { makeLayer } from '@feuillet/core/stages/layers'
import * as P from '@feuillet/core/project'
await loadGeometry()
const n = 40
let project: any = newProject('forty', 'A present for the two of them, forty layers deep, with a name', { kind: 'frame', spacer: { widthMm: 216, heightMm: 216 }, opening: { widthMm: 190, heightMm: 190 }, depthMm: 60, clearanceMm: 2, airMm: 3 } as any)
project = { ...project, unit: 'in', layers: Array.from({ length: n }, (_, i) => makeLayer('l' + i, i % 5 === 0 ? `A layer whose name was written out at length, number ${i + 1} of them` : 'Layer ' + (i + 1), i === 0 ? [rectangle(0, 0, 216, 216)] : subtract([rectangle(0, 0, 216, 216)], [ellipse(108, 108, 98 - i * 1.5), rectangle(4, 4 + i * 2, 200 - i, 0.4)].flat() as any), { colour: '#' + ((i * 5 + 40) * 65793).toString(16).padStart(6, '0').slice(-6), joint: { kind: i ? 'foam' : 'none', gapMm: i ? 1 : 0, pinned: false } } as any)) }
export const forty = writeProject(project)
