import type { FrontOrder } from '../procedure/frontOrders'

/**
 * The steps of each order by name, in their order; how each is done stands in `orders.ts`, which only the bench asks.
 * `practice`
 */
export const FRONT_STEP_WORDS: Record<FrontOrder, readonly { id: string; what: string }[]> = {
  conventional: [
    { id: 'height', what: 'Height and line' },
    { id: 'L', what: 'L' },
    { id: 'tension', what: 'Tension' },
    { id: 'H', what: 'H' },
    { id: 'again', what: 'All of it again' },
  ],
  bare: [
    { id: 'height', what: 'Height and line' },
    { id: 'L', what: 'L by eye' },
    { id: 'H', what: 'H by hand' },
    { id: 'clamp', what: 'Cable, then chain' },
    { id: 'again', what: 'All of it again' },
  ],
  tells: [
    { id: 'height', what: 'Height and line' },
    { id: 'shifts', what: 'As the next move says' },
    { id: 'pairs', what: 'Every pair' },
  ],
  second: [
    { id: 'shifts', what: 'Every shift' },
    { id: 'stops', what: 'Both stops by themselves' },
    { id: 'pairs', what: 'Every pair' },
  ],
  rotating: [
    { id: 'height', what: 'Height' },
    { id: 'marks', what: 'Marks on the big ring' },
    { id: 'H', what: 'H' },
    { id: 'clamp', what: 'Clamp' },
    { id: 'drop', what: 'L out until it drops' },
    { id: 'pairs', what: 'Every pair' },
  ],
}
