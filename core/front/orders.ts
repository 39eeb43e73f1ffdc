/** The two orders of the front, each a school: what is done, with which cable and chain. `practice`, no source */
export const FRONT_ORDERS = ['conventional', 'rotating'] as const
export type FrontOrder = (typeof FRONT_ORDERS)[number]
type FrontStep = { id: string; what: string; how: string; cable: 'slack' | 'on'; caution?: string }

const FINGERS = 'Chain and rings catch fingers: cranks by hand, no finger near a moving chain.'

export const FRONT_STEPS: Record<FrontOrder, readonly FrontStep[]> = {
  conventional: [
    {
      id: 'height',
      what: 'Height and line',
      how: 'Cable off, chain on the small ring and the largest sprocket. Outer plate 1 to 3 mm over the big ring’s teeth, plates parallel to the rings.',
      cable: 'slack',
    },
    {
      id: 'tension',
      what: 'Tension',
      how: 'Gross at the pinch bolt, fine at the barrel. No barrel there: an inline one, a small tension screw on the derailleur, or clamp again with lever and chain on the small ring.',
      cable: 'on',
    },
    {
      id: 'L',
      what: 'L',
      how: 'Small ring, largest sprocket: inner plate about 1 mm clear of the chain, so that it may flex when the rider stands.',
      cable: 'on',
      caution: FINGERS,
    },
    {
      id: 'H',
      what: 'H',
      how: 'Big ring, smallest sprocket: outer plate about 1 mm clear.',
      cable: 'on',
      caution: FINGERS,
    },
    {
      id: 'again',
      what: 'All of it again',
      how: 'H changes what L needs. Every shift both ways; on a triple small to middle and middle to big. Judge rub with the trims used.',
      cable: 'on',
    },
  ],
  rotating: [
    { id: 'height', what: 'Height', how: 'Outer plate 1 to 3 mm over the big ring’s teeth.', cable: 'slack' },
    {
      id: 'marks',
      what: 'Marks on the big ring',
      how: 'Chain on the big ring, the inner stop wound in to hold it there; both witness marks in line with the ring. The clamp bolt sets the twist, the inner stop the sideways place.',
      cable: 'slack',
    },
    {
      id: 'H',
      what: 'H',
      how: 'In to contact, then back a fraction; look on the smallest sprocket while pedalling.',
      cable: 'slack',
      caution: FINGERS,
    },
    {
      id: 'clamp',
      what: 'Clamp',
      how: 'Lever clicked to the big ring, cable drawn finger tight, clamped.',
      cable: 'on',
    },
    {
      id: 'drop',
      what: 'L out until it drops',
      how: 'Lever to small: the inner stop still holds the cage. L out until the chain drops, then the inner gap.',
      cable: 'on',
      caution: FINGERS,
    },
    { id: 'pairs', what: 'Every pair', how: 'Test the shifts, then look for rub in every pair.', cable: 'on' },
  ],
}

/** The step of an order that comes next; null when all are done. */
export const nextFrontStep = (order: FrontOrder, done: readonly string[]): FrontStep | null =>
  FRONT_STEPS[order].find(s => !done.includes(s.id)) ?? null

/** How to find which screw is which when they are not marked. `practice` */
export const WHICH_SCREW =
  'Cage over the small ring, thumb on it: loosen each a little. The one that moves the cage inboard is L.'
/** A stop wound so far in that nothing shifts any more. `practice` */
export const STOP_TOO_FAR =
  'A stop wound too far in can kill the shift altogether: back it out until the cage moves again, then start from its gap.'
