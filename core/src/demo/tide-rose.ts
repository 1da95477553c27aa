// Tide rose: a twelve-fold mandala of six layers on a card, plain at the back and lacy in front.
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
  turned(mapRegion(translation(CENTRE, CENTRE), shape), FOLD, CENTRE, CENTRE, startDeg)

/** A disc whose rim swells into twelve scallops. */
function scalloped(radius: number, scallop: number, startDeg = 0): Polygon[] {
  return union(
    [ellipse(CENTRE, CENTRE, radius)],
    ring([ellipse(radius - scallop * 0.35, 0, scallop)], startDeg),
  )
}

/** A disc whose rim runs out into twelve points. */
const pointed = (radius: number, tip: number, startDeg = 0): Polygon[] =>
  union([ellipse(CENTRE, CENTRE, radius)], ring(petal(radius * 0.5, tip, radius * 0.2, 0.55), startDeg))

const hole = (radius: number): Region => [ellipse(CENTRE, CENTRE, radius)]

export function tideRose(): Project {
  const joint = (gapMm: number) => ({
    joint: { kind: gapMm > 0 ? ('foam' as const) : ('glue' as const), gapMm, pinned: false },
  })
  const layers = [
    makeLayer('card', 'Still water', [rectangle(0, 0, 140, 140)], {
      role: 'backing',
      numbered: false,
      ...joint(0),
    }),
    makeLayer('shallows', 'Shallows', subtract(scalloped(57, 12), ring(petal(44, 55.6, 2.6), 15)), joint(1)),
    makeLayer('current', 'Current', subtract(pointed(50, 60, 15), ring(petal(30, 46, 4.2, 0.6))), joint(1)),
    makeLayer(
      'eddies',
      'Eddies',
      subtract(scalloped(42, 8, 15), union(ring([ellipse(36, 0, 4.2)]), ring(petal(14, 28, 2.6, 0.65), 15))),
      joint(1),
    ),
    makeLayer(
      'breakers',
      'Breakers',
      subtract(pointed(32, 43), union(ring(petal(16, 28, 3.1, 0.6), 15), ring([ellipse(31.5, 0, 1.9)]))),
      joint(1),
    ),
    makeLayer(
      'spray',
      'Spray',
      subtract(
        scalloped(22, 4.6, 15),
        union(ring(petal(9, 19, 1.9, 0.62)), ring([ellipse(20.6, 0, 1.3)], 15), hole(4.5)),
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
