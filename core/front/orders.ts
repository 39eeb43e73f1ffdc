import type { FrontOrder } from '../procedure/frontOrders'
import { FRONT_STEP_WORDS } from './stepWords'

type FrontStep = { id: string; what: string; how: string; cable: 'slack' | 'on'; caution?: string }

const FINGERS = 'Chain and rings catch fingers: cranks by hand, no finger near a moving chain.'

const TOLD: Record<FrontOrder, readonly Omit<FrontStep, 'what'>[]> = {
  conventional: [
    {
      id: 'height',
      how: 'Cable off, chain on the small ring and the largest sprocket. Outer plate 1 to 3 mm over the big ring’s teeth, plates parallel to the rings.',
      cable: 'slack',
    },
    {
      id: 'L',
      how: 'Cable slack, small ring, largest sprocket: inner plate by the school of gaps, so that it may flex when the rider stands.',
      cable: 'slack',
      caution: FINGERS,
    },
    {
      id: 'tension',
      how: 'Gross at the pinch bolt, fine at the barrel. No barrel there: an inline one, a small tension screw on the derailleur, or clamp again with lever and chain on the small ring.',
      cable: 'on',
    },
    {
      id: 'H',
      how: 'Big ring, smallest sprocket, wire drawn by hand: outer plate by the school of gaps.',
      cable: 'on',
      caution: FINGERS,
    },
    {
      id: 'again',
      how: 'H changes what L needs. Every shift both ways; on a triple small to middle and middle to big. Judge rub with the trims used.',
      cable: 'on',
    },
  ],
  bare: [
    {
      id: 'height',
      how: 'No chain, no cable: outer plate over the big ring’s teeth by the school, plates parallel to the rings.',
      cable: 'slack',
    },
    {
      id: 'L',
      how: 'The cage rests on its inner stop: inner plate just inboard of where the chain will run on the small ring.',
      cable: 'slack',
      caution: FINGERS,
    },
    {
      id: 'H',
      how: 'Cage pushed out to its stop: outer plate just outboard of where the chain will run on the big ring.',
      cable: 'slack',
      caution: FINGERS,
    },
    {
      id: 'clamp',
      how: 'Lever at the small ring, barrel nearly in, cable drawn snug without moving the cage, clamped. Chain on.',
      cable: 'on',
    },
    { id: 'again', how: 'Both gaps with the chain on, every shift both ways.', cable: 'on' },
  ],
  tells: [
    {
      id: 'height',
      how: 'Outer plate over the big ring’s teeth by the school, plates in line: all else is set to it.',
      cable: 'on',
    },
    {
      id: 'shifts',
      how: 'The shift, the gap or the turn that tells or gains most; each stop by itself before it is left.',
      cable: 'on',
    },
    { id: 'pairs', how: 'Look for rub in every pair, trims used.', cable: 'on' },
  ],
  second: [
    {
      id: 'shifts',
      how: 'Each way, on the sprockets named: what shows now decides what is touched.',
      cable: 'on',
    },
    {
      id: 'stops',
      how: 'L with the cable slack, H with the wire drawn by hand: H changes what L needs.',
      cable: 'on',
      caution: FINGERS,
    },
    { id: 'pairs', how: 'Look for rub in every pair, trims used.', cable: 'on' },
  ],
  rotating: [
    { id: 'height', how: 'Outer plate 1 to 3 mm over the big ring’s teeth.', cable: 'slack' },
    {
      id: 'marks',
      how: 'Chain on the big ring, the inner stop wound in to hold it there; both witness marks in line with the ring. The clamp bolt sets the twist, the inner stop the sideways place.',
      cable: 'slack',
    },
    {
      id: 'H',
      how: 'In to contact, then back a fraction; look on the smallest sprocket while pedalling.',
      cable: 'slack',
      caution: FINGERS,
    },
    {
      id: 'clamp',
      how: 'Lever clicked to the big ring, cable drawn finger tight, clamped.',
      cable: 'on',
    },
    {
      id: 'drop',
      how: 'Lever to small: the inner stop still holds the cage. L out until the chain drops, then the inner gap.',
      cable: 'on',
      caution: FINGERS,
    },
    { id: 'pairs', how: 'Test the shifts, then look for rub in every pair.', cable: 'on' },
  ],
}

const steps = (order: FrontOrder): FrontStep[] =>
  TOLD[order].map(s => ({ ...s, what: FRONT_STEP_WORDS[order].find(w => w.id === s.id)?.what ?? s.id }))
/** Each order with how its steps are done; their names alone stand in `stepWords.ts`. */
export const FRONT_STEPS: Record<FrontOrder, readonly FrontStep[]> = {
  tells: steps('tells'),
  conventional: steps('conventional'),
  rotating: steps('rotating'),
  bare: steps('bare'),
  second: steps('second'),
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
