// Whether what is made may be sold: where the design comes from, how many, and what must stand with it.
import type { Project, Snag } from '../../project'

/** What may still be sold of a design. */
export interface Selling {
  sold: number
  /** Null where any number may be. */
  left: number | null
  /** In a sentence; null where nothing speaks against it. */
  why: string | null
}

const pieces = (n: number): string => `${n} ${n === 1 ? 'piece' : 'pieces'}`

/** Counts what was sold against what may be. */
export function selling({ rights, journal }: Pick<Project, 'rights' | 'journal'>): Selling {
  const sold = journal.makes.filter(({ fate }) => fate === 'sold').reduce((sum, { count }) => sum + count, 0)
  const from = rights.source ? ` of ${rights.source}` : ''
  if (rights.use === 'own use only')
    return {
      sold,
      left: 0,
      why: `The design${from} is for own use only: what is made of it is kept or given`,
    }
  if (rights.use === 'own design' || rights.most === null) return { sold, left: null, why: null }
  const left = Math.max(0, rights.most - sold)
  return {
    sold,
    left,
    why: left === 0 ? `All ${pieces(rights.most)} that may be sold of the design${from} are` : null,
  }
}

/** A batch that passes what may be sold, and a design without its credit. */
export function rightsSnags(project: Pick<Project, 'rights' | 'journal' | 'plan'>): Snag[] {
  const { rights, plan, journal } = project
  const { sold, left } = selling(project)
  const snag = (code: string, severity: Snag['severity'], message: string): Snag => ({
    code,
    stage: 'journal',
    severity,
    layer: null,
    at: null,
    message,
  })
  const made = journal.makes.reduce((sum, { count }) => sum + count, 0)
  const toCome = Math.max(0, plan.batch - made)
  const from = rights.source ? ` of ${rights.source}` : ''
  const found: Snag[] = []
  if (rights.use === 'own use only' && sold > 0)
    found.push(snag('rights', 'stop', `${pieces(sold)} sold of a design${from} that is for own use only.`))
  if (rights.use === 'may be sold' && rights.most !== null) {
    if (sold > rights.most)
      found.push(snag('rights', 'stop', `${pieces(sold)} sold; the design${from} allows ${rights.most}.`))
    else if (left !== null && toCome > left && plan.batch > 1)
      found.push(
        snag(
          'rights',
          'caution',
          `${pieces(toCome)} of the batch are still to be made; ${left} more of the design${from} may be sold.`,
        ),
      )
  }
  if (rights.use === 'may be sold' && rights.source && !rights.credit)
    found.push(
      snag('credit', 'caution', `What credit does ${rights.source} ask for? It is printed on the card.`),
    )
  return found
}
