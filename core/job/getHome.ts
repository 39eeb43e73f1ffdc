import type { Declinable } from './declined'

/** What gets the rider of a bike home with a fault whose cure was declined. `practice`, no source. */
export const GET_HOME: Record<Declinable, string> = {
  hanger:
    'Bent hanger: both stops are to be wound in so that the cage cannot reach the spokes; use the middle gears, ride gently. Never when the cage touches anything.',
  friction:
    'Sticky gear cable: it is set to favour the shifts towards the frame; towards the spokes push the lever a little past its click.',
  barrel: 'No barrel left: it cannot be wound any tighter. Clamping it again takes five minutes and holds.',
  mismatch: 'Parts that do not match: stay in the gears that run quietly, and ease off the pedals as you change.',
  wear: 'Worn chain or sprockets: they can jump under load. Stay seated, push gently, do not stand on the pedals.',
  gear: 'One gear does not run clean: leave it out, shift past it with light pedals.',
  front: 'Front derailleur not right: stay on the ring it stands on, and do not shift it under load.',
}
