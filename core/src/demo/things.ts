// What the made-up maker has of frames, sticks and twine.
import { newThing, type Thing, type ThingKind } from '../project'

const thing = (kind: ThingKind, id: string, own: Partial<Thing>): Thing => ({ ...newThing(kind, id), ...own })
const square = (sideMm: number) => ({ widthMm: sideMm, heightMm: sideMm })

/** Things of the drawer that the demo projects take; of one frame there are too few for both that want it. */
export const demoThings: readonly Thing[] = [
  thing('frame', 'demo-frame-20', { name: 'deep frame', ...square(200), count: 1, price: 9 }),
  thing('frame', 'demo-frame-19', { name: 'lantern frame', ...square(190), count: 1, price: 9 }),
  thing('panel', 'demo-panel', { name: 'round board', ...square(220), count: 1, price: 7 }),
  thing('envelope', 'demo-card', {
    name: 'folded card',
    ...square(140),
    count: 3,
    perPack: 5,
    price: 0.6,
  }),
  thing('sticks', 'demo-dowels', { name: 'dowels, 4 mm', widthMm: 4, count: 12, perPack: 20, price: 0.15 }),
  thing('twine', 'demo-twine', { name: 'cotton twine', count: 8, perPack: 25, price: 0.25 }),
]
