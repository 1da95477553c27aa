import type { NestInstance, NestLayout } from '@feuillet/core/stages/sheets'

export function loadGeometry(): Promise<void>
/** Throws BadInput as today's does. */
export class Nester {
  constructor(instance: NestInstance, seed?: number, ways?: 'all' | 'orders')
  readonly best: NestLayout
  readonly done: boolean
  step(): boolean
}
export class Improver {
  constructor(instance: NestInstance, random: () => number)
  step(best: NestLayout): NestLayout | null
  /** Each of its steps is a sweep. */
  readonly underWay?: undefined
}
