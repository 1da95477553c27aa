import {
  ellipse,
  rectangle,
  subtract,
  translation,
  mapRegion,
  union,
  type Polygon,
  type Region,
} from '../base/geometry'
import { makeLayer } from '../stages/layers'
import { newProject, setPlan, starterMount, type Project } from '../project'
import { petal, turned } from './shapes'
import { withPapers } from './with-papers'

const CENTRE = 70
const FOLD = 12

const ring = (shape: Region, startDeg = 0): Polygon[] =>
  turned(mapRegion(translation(CENTRE, CENTRE), shape), FOLD, { cx: CENTRE, cy: CENTRE, startDeg })

/** A disc whose rim swells into twelve scallops. */
function scalloped(radius: number, scallop: number, startDeg = 0): Polygon[] {
  return union(
    [ellipse([CENTRE, CENTRE], radius)],
    ring([ellipse([radius - scallop * 0.35, 0], scallop)], startDeg),
  )
}

/** A disc whose rim runs out into twelve points. */
const pointed = (radius: number, tip: number, startDeg = 0): Polygon[] =>
  union(
    [ellipse([CENTRE, CENTRE], radius)],
    ring(petal({ from: radius * 0.5, to: tip, half: radius * 0.2, widest: 0.55 }), startDeg),
  )

const hole = (radius: number): Region => [ellipse([CENTRE, CENTRE], radius)]

/** Tide rose: a twelve-fold mandala of six layers on a card, plain at the back and lacy in front. Needs the geometry loaded. */
export function tideRose(): Project {
  const joint = (gapMm: number) => ({
    joint: { kind: gapMm > 0 ? ('foam' as const) : ('glue' as const), gapMm, pinned: false },
  })
  const layers = [
    makeLayer({ id: 'card', name: 'Still water' }, [rectangle([0, 0], 140, 140)], {
      role: 'backing',
      numbered: false,
      ...joint(0),
    }),
    makeLayer(
      { id: 'shallows', name: 'Shallows' },
      subtract(scalloped(57, 12), ring(petal({ from: 44, to: 55.6, half: 2.6 }), 15)),
      joint(1),
    ),
    makeLayer(
      { id: 'current', name: 'Current' },
      subtract(pointed(50, 60, 15), ring(petal({ from: 30, to: 46, half: 4.2, widest: 0.6 }))),
      joint(1),
    ),
    makeLayer(
      { id: 'eddies', name: 'Eddies' },
      subtract(
        scalloped(42, 8, 15),
        union(ring([ellipse([36, 0], 4.2)]), ring(petal({ from: 14, to: 28, half: 2.6, widest: 0.65 }), 15)),
      ),
      joint(1),
    ),
    makeLayer(
      { id: 'breakers', name: 'Breakers' },
      subtract(
        pointed(32, 43),
        union(ring(petal({ from: 16, to: 28, half: 3.1, widest: 0.6 }), 15), ring([ellipse([31.5, 0], 1.9)])),
      ),
      joint(1),
    ),
    makeLayer(
      { id: 'spray', name: 'Spray' },
      subtract(
        scalloped(22, 4.6, 15),
        union(
          ring(petal({ from: 9, to: 19, half: 1.9, widest: 0.62 })),
          ring([ellipse([20.6, 0], 1.3)], 15),
          hole(4.5),
        ),
      ),
      joint(0),
    ),
  ]
  const papers = ['Sea cave', 'Deep channel', 'Lagoon', 'Rock pool', 'Foam crest', 'Sunken gold']
  const project = { ...newProject('demo-tide-rose', 'Tide rose', starterMount('card')), layers }
  return setPlan(withPapers(project, papers), {
    alignment: 'centre-mark',
    turns: 'free',
    adhesiveId: 'glue-solvent',
  })
}
