import type { EndKind } from '../standards/brakeKinds'
import type { RunName } from './housing'
import { runKindOf, stepName, type CableStep, type RunKind } from './stepNames'

/** How a step is done; its name comes from `stepNames.ts`. */
type Done = { step: CableStep; how: string; caution?: string }
export type CableStepWords = Done & { what: string }

/** What the steps of a run depend on besides which run it is. */
export type Fitting = {
  /** The brake at its end, null where nobody said. */
  brake?: EndKind | null
  /** A hub whose two cables end in couplings: no bolt, no tail. */
  twin?: boolean
  /** The school of what goes on the inner. */
  film?: 'dry' | 'greased'
}

const FRAYED = 'Frayed ends stab and cut wire flies: goggles on.'
const WHEEL = 'A cutting wheel throws sparks and grit: goggles on.'
const BURST = 'Shift housing on a brake can burst in an emergency stop: never.'

/** Brakes that are opened by a lever of their own to let a wheel out. `practice` */
const HAS_RELEASE: readonly (EndKind | null | undefined)[] = [
  'dual-pivot',
  'linear-pull',
  'cantilever',
  null,
  undefined,
]

const BEFORE: readonly Done[] = [
  {
    step: 'old-out',
    how: 'Lever at its slackest click, cut, push. Head not at its exit: click once more; a cover may hide it. The old piece is the first measure of the new, if it was right.',
    caution: FRAYED,
  },
  {
    step: 'adjusters',
    how: 'A flip-type is left at its shortest, so that the rider can take up on the road.',
  },
  {
    step: 'sized',
    how: 'Along its way, lock to lock, straight into each stop; a tie holds it while you look. A folding bike is folded three times, a run through the headset steered fifty.',
  },
  { step: 'cut', how: 'End round, not oval; burr off.', caution: WHEEL },
  { step: 'liner', how: 'With a point, at every cut end.' },
  { step: 'ferrules', how: 'On every end that takes one; an end marked bare goes in as it is.' },
  {
    step: 'fed',
    how: 'Closed frame: thread an old inner with a washer as its stop through the new piece into the old, and the old housing draws the new one through; or pull a liner in before the inner comes out.',
  },
]

const FILM: Record<'dry' | 'greased', Done> = {
  dry: {
    step: 'dry',
    how: 'Lined housing needs nothing, and grease holds grit. Coated or pre-lubed: as supplied.',
  },
  greased: {
    step: 'greased',
    how: 'On the part that is covered. Never a grease that dries sticky.',
  },
}

const TUGGED: Done = {
  step: 'tugged',
  how: 'Seats ferrules and head before anything is clamped.',
}
const GROOVE: Done = {
  step: 'groove',
  how: 'When in doubt take the bolt out and feel the groove with a nail; tabs on the washer show it. Where there are two places, the lever says which: the other changes the pull ratio by 10 to 15 %, and is said among the bike’s figures.',
}
const CLAMPED: Done = {
  step: 'clamped',
  how: 'No strain in it: nothing moves as you clamp. A clamp must not cut strands.',
}
const CAPPED: Done = {
  step: 'capped',
  how: '30 to 50 mm past the bolt.',
  caution: FRAYED,
}
const seated = (how: string): Done => ({ step: 'seated', how })
const barrels = (how: string): Done => ({ step: 'barrels', how })

const SHIFT_HEAD = 'Fully home in its seat. Small cylinder; one family’s is smaller.'
const SHIFT_BARREL =
  'All fully in, then the one used out as the school says, usually 1½ to 2 turns. An inline one half open, within thumb reach, never in a bend.'

/** From the head in its seat to the last cut, by what the run works. */
function after(kind: RunKind, { brake }: Fitting): readonly Done[] {
  switch (kind) {
    case 'rear':
    case 'front':
      return [
        seated(SHIFT_HEAD),
        TUGGED,
        barrels(SHIFT_BARREL),
        GROOVE,
        CLAMPED,
        {
          step: 'redrawn',
          how: 'Bare wire pulled by hand, lever clicked back: what came free is drawn and clamped again.',
        },
        { step: 'bedded', how: 'About thirty firm full-range shifts, after L is seen.' },
        CAPPED,
      ]
    case 'brake':
      return [
        seated('Lever squeezed to open its seat. Pear or large barrel, fully home: tug it.'),
        TUGGED,
        ...(HAS_RELEASE.includes(brake)
          ? [
              {
                step: 'released' as const,
                how: 'Before anything is clamped: clamped open, the brake is slack once it is shut.',
              },
            ]
          : []),
        barrels(
          brake === 'dual-pivot'
            ? '3 to 4 turns out, pads on the rim, clamp; then wound in, and the whole thread is left for wear.'
            : brake === 'cable-disc'
              ? 'Fully in: the arm starts at rest, wear is taken up at the pads, never here.'
              : 'In, then a turn or two out, slot turned shut.',
        ),
        GROOVE,
        { ...CLAMPED, caution: BURST },
        {
          step: 'redrawn',
          how: 'Ferrules and head settle: what came is taken up at the bolt.',
        },
        {
          step: 'bedded',
          how: 'No slip at the bolt, lever clear of the bar.',
        },
        { ...CAPPED, how: '30 to 50 mm past the bolt. A brake’s end must be capped.' },
      ]
    case 'hub':
      return [
        seated(SHIFT_HEAD),
        TUGGED,
        barrels('Middle of its thread, so that it can go either way.'),
        {
          step: 'clamped',
          how: 'Lever at its slackest, drawn without strain, joined to chain or arm; set on the hub’s own bench.',
        },
        {
          step: 'redrawn',
          how: 'Cycle all gears, back to the slackest: what came free is taken up.',
        },
        { step: 'bedded', how: 'Three times through, cranks turning forward.' },
        { ...CAPPED, how: '30 to 50 mm past the anchor, where an end is left.' },
      ]
    case 'twin':
      return [
        seated('Seen from the front of the grip the lower inner’s head seats left, the upper’s right: drawn home.'),
        TUGGED,
        barrels('Fully in, then two turns out; housings seated.'),
        {
          step: 'clamped',
          how: 'Rear cable in gear 14, then front in gear 1: coupling and inner side by side, cut 5 mm from the coupling’s end (from which side is our reading: look before you cut). Flush with the hole, one grub, then the other, 1.5 N·m.',
          caution: FRAYED,
        },
        {
          step: 'bedded',
          how: '13 clicks; adjusters so that the grip has about 2 mm of free play.',
        },
      ]
  }
}

/**
 * The steps of a run in order, by what hangs on it: a brake, a derailleur, a hub with one cable or with two. What there
 * is not is not asked: no bolt, tail or cap on a coupling, no release lever on a drum. Dry or greased is as it was
 * done, else by its school.
 */
export function stepsOf(
  run: RunName,
  fitting: Fitting = {},
  done: readonly CableStep[] = [],
): readonly CableStepWords[] {
  const kind = runKindOf(run, fitting.twin)
  const rest = after(kind, fitting)
  return [...BEFORE, rest[0]!, FILM[filmOf(done) ?? fitting.film ?? 'dry'], ...rest.slice(1)].map(s => ({
    ...s,
    what: stepName(kind, s.step),
  }))
}

const filmOf = (done: readonly CableStep[]): 'dry' | 'greased' | null =>
  (['greased', 'dry'] as const).find(film => done.includes(film)) ?? null

/** The step that is due next; null when all are done. */
export const nextStep = (run: RunName, done: readonly CableStep[], fitting: Fitting = {}): CableStep | null =>
  stepsOf(run, fitting, done).find(s => !done.includes(s.step))?.step ?? null
