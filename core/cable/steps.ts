/** The job itself, one touch a step. `practice`, no source */
export const CABLE_STEPS = [
  'old-out',
  'adjusters',
  'cut',
  'liner',
  'ferrules',
  'fed',
  'seated',
  'dry',
  'greased',
  'tugged',
  'barrels',
  'groove',
  'clamped',
  'bedded',
  'capped',
] as const
export type CableStep = (typeof CABLE_STEPS)[number]

type StepWords = { step: CableStep; what: string; how: string; caution?: string; instead?: CableStep }

const FRAYED = 'Frayed ends stab and cut wire flies: goggles on.'

/** The steps of a run in order, with how and what to look out for. Dry and greased are two schools of one step. */
export const CABLE_STEPS_OF: readonly StepWords[] = [
  {
    step: 'old-out',
    what: 'Old one out, photographed and measured',
    how: 'Lever at its slackest click, cut, push. Head not at its exit: click once more; a cover may hide it. The old piece is the first measure of the new, if it was right.',
    caution: FRAYED,
  },
  {
    step: 'adjusters',
    what: 'Adjusters cleaned and greased',
    how: 'A flip-type is left at its shortest, so that the rider can take up on the road.',
  },
  {
    step: 'cut',
    what: 'Cut square',
    how: 'End round, not oval; burr off.',
    caution: 'A cutting wheel throws sparks and grit: goggles on.',
  },
  { step: 'liner', what: 'Liner opened', how: 'With a point, at every cut end.' },
  { step: 'ferrules', what: 'Ferrules on', how: 'Some brake levers and callipers take bare housing: look.' },
  {
    step: 'fed',
    what: 'Fed through',
    how: 'Closed frame: thread an old inner with a washer as its stop through the new piece into the old, and the old housing draws the new one through; or pull a liner in before the inner comes out.',
  },
  {
    step: 'seated',
    what: 'Head seated',
    how: 'Fully home in its seat. Small cylinder on shift, pear or large barrel on brake; one family’s shift head is smaller.',
  },
  {
    step: 'dry',
    what: 'Run dry',
    how: 'Lined housing needs nothing, and grease holds grit. Coated or pre-lubed: as supplied.',
    instead: 'greased',
  },
  {
    step: 'greased',
    what: 'A thin film of silicone',
    how: 'On the part that is covered. Never a grease that dries sticky.',
    instead: 'dry',
  },
  { step: 'tugged', what: 'Tugged hard along its run', how: 'Seats ferrules and head before anything is clamped.' },
  {
    step: 'barrels',
    what: 'Barrels set',
    how: 'All fully in, then the one used out: 1½ to 2 turns on shift, 3 to 4 on a dual-pivot brake. An inline one half open, within thumb reach, never in a bend.',
  },
  {
    step: 'groove',
    what: 'In the groove, on the right side of the bolt',
    how: 'When in doubt take the bolt out and feel the groove with a nail; tabs on the washer show it.',
  },
  {
    step: 'clamped',
    what: 'Drawn and clamped',
    how: 'No strain in it: nothing moves as you clamp. A clamp must not cut strands.',
  },
  {
    step: 'bedded',
    what: 'Bedded',
    how: 'About thirty firm full-range shifts, after L is seen; a brake by ten hard squeezes.',
  },
  {
    step: 'capped',
    what: 'Tail cut and capped',
    how: '30 to 50 mm past the bolt. A brake’s end must be capped.',
    caution: FRAYED,
  },
]

/** Steps not done yet, the other school of one that is done left out. */
export function stepsLeft(done: readonly CableStep[]): CableStep[] {
  return CABLE_STEPS_OF.filter(s => !done.includes(s.step) && !(s.instead && done.includes(s.instead))).map(s => s.step)
}
