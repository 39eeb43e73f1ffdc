/** The orders of the front, each a school: what is done, with which cable and chain. `practice`, no source */
export const FRONT_ORDERS = ['tells', 'conventional', 'rotating', 'bare', 'second'] as const
export type FrontOrder = (typeof FRONT_ORDERS)[number]
export const FRONT_ORDER_WORDS: Record<FrontOrder, string> = {
  tells: 'What tells most',
  conventional: 'Conventional',
  rotating: 'Rotating cage',
  bare: 'From bare',
  second: 'Second round',
}
