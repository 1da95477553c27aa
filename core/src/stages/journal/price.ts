// What to ask for a piece: by mark-up, by what an hour is to bring, or by a price that is wished; with the fees of whoever sells it.
import type { Pricing, Project } from '../../project'
import type { Cost } from './cost'

/** What a price comes to, for one piece; money in the drawer's currency. */
export interface Priced {
  /** All that one costs but the hands. */
  material: number
  /** Hours of hands for one. */
  hours: number
  /** Material, and the hands at what an hour costs. */
  cost: number
  /** What is asked for, tax in it, rounded; null where fees and tax leave nothing however much is asked. */
  price: number | null
  /** Of the price: tax, what the fair or shop takes, packing and postage. */
  tax: number
  fees: number
  sending: number
  /** What is left of the price when tax, fees, sending and material are paid: for the hands and beyond. */
  left: number
  /** Of that beyond the hands at what an hour costs; below nought where they are paid less. */
  profit: number
  /** What an hour brings. */
  wage: number | null
  /** Pieces to sell until a stall is paid, hands for nothing, and with the hands paid; null where no number is enough. */
  breakEven: number | null
  breakEvenPaid: number | null
}

/** What is left of a price after tax, fees and sending. */
export const netOf = (price: number, pricing: Pricing): number => {
  const { taxRate, feeShare, feeFixed, packing, postage } = pricing
  return price / (1 + taxRate) - price * feeShare - feeFixed - packing - postage
}

/** The price of which so much is left after tax, fees and sending; null where none is high enough. */
export function priceFor(
  net: number,
  { taxRate, feeShare, feeFixed, packing, postage }: Pricing,
): number | null {
  const kept = 1 / (1 + taxRate) - feeShare
  return kept > 1e-9 ? Math.max(0, net + feeFixed + packing + postage) / kept : null
}

/** Rounded up to a multiple; a price that is one already stays. */
export const roundedUp = (price: number, to: number): number =>
  to > 0 ? Math.ceil(price / to - 1e-9) * to : price

/**
 * The price of one of a batch.
 * @param cost of the whole batch, guests' paper taken out
 * @param handsMinutes of the whole batch
 */
export function priceOf(
  { plan }: Pick<Project, 'plan'>,
  { cost, handsMinutes }: { cost: Cost; handsMinutes: number },
): Priced {
  const { pricing, batch, hourlyRate } = plan
  const material = (cost.total - cost.hands) / batch
  const hours = handsMinutes / 60 / batch
  const paid = material + hours * hourlyRate
  const wanted = {
    'mark-up': paid * (1 + pricing.markUp),
    wage: material + hours * pricing.wage,
    price: netOf(pricing.wished, pricing),
  }[pricing.way]
  const bare = pricing.way === 'price' ? pricing.wished : priceFor(wanted, pricing)
  const price = bare === null ? null : pricing.way === 'price' ? bare : roundedUp(bare, pricing.roundTo)
  const asked = price ?? 0
  const left = price === null ? 0 : netOf(asked, pricing) - material
  const pieces = (each: number) =>
    each > 1e-9 ? Math.ceil(pricing.stall / each - 1e-9) : pricing.stall > 0 ? null : 0
  return {
    material,
    hours,
    cost: paid,
    price,
    tax: asked - asked / (1 + pricing.taxRate),
    fees: asked * pricing.feeShare + pricing.feeFixed,
    sending: pricing.packing + pricing.postage,
    left,
    profit: left - hours * hourlyRate,
    wage: hours > 1e-9 ? left / hours : null,
    breakEven: pieces(left),
    breakEvenPaid: pieces(left - hours * hourlyRate),
  }
}
