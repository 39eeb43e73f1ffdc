import type { FrontOrder } from '../procedure/frontOrders'

/** What an order has seen to before the belief leads: the cage's place, then each stop by itself. `practice` */
const NEEDS: Record<FrontOrder, readonly ('position' | 'L' | 'H')[]> = {
  // all is set to the cage's place; then the belief leads
  tells: ['position'],
  conventional: ['position', 'L', 'H'],
  // H by hand comes before the clamp, and L only lets the chain drop once it is clamped
  rotating: ['position', 'H', 'L'],
  bare: ['position', 'L', 'H'],
  // it worked lately: what tells most, and the stops before it leaves
  second: [],
}
export const needsOf = (order: FrontOrder): readonly ('position' | 'L' | 'H')[] => NEEDS[order]
