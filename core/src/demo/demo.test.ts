import { describe, expect, it } from 'vitest'
import { boxWidth, regionArea, regionBox, subtract, union } from '../base/geometry'
import { weakNecks } from '../stages/layers'
import {
  safeStripMm,
  backingRect,
  builtLayers,
  layerRegion,
  paperOf,
  pieceRegion,
  readProject,
  writeProject,
} from '../project'
import { demo, demoNames } from './index'

describe.each(demoNames)('the demo %s', (name) => {
  const project = demo(name)
  const layers = builtLayers(project)

  it('is drawn the same each time, and survives its file', () => {
    expect(demo(name)).toEqual(project)
    expect(readProject(writeProject(project))).toEqual(project)
  })

  it('has pieces of one face each, on the backing where there is one', () => {
    const backing = backingRect(project)
    for (const layer of layers)
      for (const piece of layer.pieces) {
        expect(pieceRegion(piece), `${layer.name} ${piece.id}`).toHaveLength(1)
        if (backing) expect(regionArea(subtract(pieceRegion(piece), [backing]))).toBeLessThan(0.01)
      }
    expect(new Set(layers.map((layer) => layer.name)).size).toBe(layers.length)
  })

  it('has a paper for every layer, of sheets that are in the drawer', () => {
    for (const layer of layers) expect(paperOf(project, layer)?.count, layer.name).toBeGreaterThan(0)
  })

  // Flags hang side by side.
  if (project.mount.kind !== 'garland')
    it('stands on what is beneath: nothing in front reaches beyond the layers behind it', () => {
      for (let i = 1; i < layers.length; i++) {
        const beneath = union(...layers.slice(0, i).map(layerRegion))
        expect(regionArea(subtract(layerRegion(layers[i]!), beneath)), layers[i]!.name).toBeLessThan(
          0.01 * regionArea(layerRegion(layers[i]!)) + 1,
        )
      }
    })

  it('has no strip that tears', () => {
    for (const layer of layers) {
      const safe = safeStripMm(paperOf(project, layer))
      for (const neck of weakNecks(layerRegion(layer), safe))
        expect(neck.widthMm, layer.name).toBeGreaterThan(safe * 0.6)
    }
  })
})

describe('the demos', () => {
  it('are of the sizes that they name', () => {
    expect(boxWidth(regionBox(layerRegion(demo('harbour').layers[0]!)))).toBeCloseTo(200, 3)
    expect(boxWidth(regionBox(layerRegion(demo('tide-rose').layers[0]!)))).toBeCloseTo(140, 3)
    expect(demo('bon-voyage').mount.kind).toBe('topper')
  })
})
