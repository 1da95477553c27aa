// A frame with four layers of a few corners each, for tests of screens that need no more: what it takes to plan it is hardly felt.
import { rectangle } from '@feuillet/core/base/geometry'
import { newProject, starterMount, type Project } from '@feuillet/core/project'
import { makeLayer } from '@feuillet/core/stages/layers'
import { assignNearest, starterStock } from '@feuillet/core/stages/paper'

const opening = Float64Array.of(25, 25, 25, 175, 175, 175, 175, 25)

/** Sky, far hills, a swell with a loose wave, and a border, in papers that stand clear of each other. */
export function smallFrame(): Project {
  const layers = [
    makeLayer({ id: 'sky', name: 'Sky' }, [rectangle([0, 0], 200, 200)], {
      role: 'backing',
      colour: '#f2bea1',
    }),
    makeLayer({ id: 'far-hills', name: 'Far hills' }, [rectangle([0, 90], 200, 110)], { colour: '#6f8f5c' }),
    makeLayer({ id: 'swell', name: 'Swell' }, [rectangle([0, 130], 200, 70), rectangle([60, 60], 60, 30)], {
      colour: '#2f5d8c',
    }),
    makeLayer(
      { id: 'front-border', name: 'Front border' },
      [{ outer: rectangle([0, 0], 200, 200).outer, holes: [opening] }],
      { role: 'border', colour: '#e8e4d8' },
    ),
  ]
  const bare = { ...newProject('small', 'Small frame', starterMount('frame')), layers }
  return assignNearest(
    bare,
    layers.map(({ id }) => id),
    starterStock(),
  )
}
