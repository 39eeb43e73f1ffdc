import type { PadGap } from '../procedure/padGaps'
import { isDiagnosed, type BrakeKind, type EndKind } from './kinds'
import { BRAKE_STEP_NAMES, type BrakeStepName } from './stepWords'

/** How the pad gap is set where the school says so, by kind; where it does not, the step's own way holds. */
type GapWay = { step: string; what: string; how: string }
const GAP_WAYS: Partial<Record<BrakeKind, Partial<Record<PadGap, readonly GapWay[]>>>> = {
  'linear-pull': {
    'wind-in': [
      {
        step: 'let-out',
        what: 'Barrel 4 turns out, pads on the rim',
        how: 'Held there for the clamp; wound in after, 4 turns give about 0.55 mm a side. Let out at the bolt for a rim that is not quite true.',
      },
      {
        step: 'clamped',
        what: 'Clamped, barrel wound in',
        how: 'Anchor 6 to 8 N·m, wire not crossed under its washer; then the barrel in.',
      },
    ],
  },
  'dual-pivot': {
    'let-out': [
      {
        step: 'clamped',
        what: 'Pads on the rim, let out, clamped',
        how: 'Release lever closed, barrel a turn out; 3 to 4 mm of wire let out gives 1.1 to 1.5 mm a side.',
      },
    ],
  },
}

/** A step of fitting or renewing a brake, one touch each. */
export type BrakeStep = BrakeStepName & { how: string; caution?: string }
type How = { id: string; how: string; caution?: string }
const WIRE = 'Frayed ends stab and cut wire flies: goggles on. Cap the end: it must stand 20 N.'
const OILY = 'Nothing oily near pads, rim or rotor.'
const WHEEL = 'A wheel that is not home can come out: nothing else first.'

/** Most a calliper's nut must be threaded on, turns. `practice` */
export const LEAST_NUT_TURNS = 6

/** Drum and roller alike. */
const REACTION: How = {
  id: 'reaction',
  how: 'Before any test.',
  caution: 'A loose reaction arm lets the hub turn with the wheel.',
}
const FREE: How = {
  id: 'free',
  how: 'Barrel out until it drags, then back until the wheel is free.',
}
const BITE: How = {
  id: 'bite',
  how: 'Lever clear of the bar at a hard squeeze.',
}
const CAPPED: How = { id: 'capped', how: '30 to 50 mm past the bolt.', caution: WIRE }

/** How each step is done. */
const HOWS: Partial<Record<BrakeKind, readonly How[]>> = {
  'dual-pivot': [
    { id: 'screw-proud', how: 'Before fitting, so that it can go both ways.' },
    {
      id: 'mounted',
      how: `Mounting bolt so that the body can just be moved; nut at least ${LEAST_NUT_TURNS} turns of thread on.`,
    },
    { id: 'wheel', how: 'Quick release closed, axle in both dropouts.', caution: WHEEL },
    {
      id: 'housing',
      how: 'Brake housing, square, deburred, liner open; the rear run looked at lock to lock.',
      caution: 'Shift housing on a brake can burst in an emergency stop: never.',
    },
    {
      id: 'inner',
      how: 'Squeeze the lever to open the head’s seat; head fully home, tug it.',
    },
    {
      id: 'pads-roughly',
      how: 'Not in the tyre, not under the rim.',
      caution: OILY,
    },
    {
      id: 'centred',
      how: 'Squeeze, shift the body until both touch together, nip while holding, look again.',
    },
    { id: 'pads', how: 'Central and level on the braking track.', caution: OILY },
    {
      id: 'clamped',
      how: 'Release lever closed, barrel 3 to 4 turns out, pads on the rim, clamp, then wind the barrel in: 1 to 1.5 mm a side, and the thread is left for wear.',
    },
    { id: 'fine', how: 'Small screw: in brings that side’s pad towards the rim.' },
    { id: 'looked', how: 'Squeeze and watch the rim: it must stay where it is.' },
    {
      id: 'torqued',
      how: 'Mount 7 to 8, cable and pads 5 to 7 N·m, unless the maker says otherwise.',
    },
    CAPPED,
  ],
  'linear-pull': [
    {
      id: 'wheel',
      how: 'Home and closed before anything on the brake is turned.',
      caution: WHEEL,
    },
    {
      id: 'inner',
      how: 'Brake housing; through the barrel’s slot, turned shut; through the noodle, boot on. Tug the head.',
      caution: 'Shift housing on a brake can burst in an emergency stop: never.',
    },
    {
      id: 'noodle',
      how: 'In its bracket, seen and tugged.',
      caution: 'No brake at all when it is out.',
    },
    {
      id: 'pads',
      how: 'Arms upright with the pads on the rim; pads central and level.',
      caution: OILY,
    },
    {
      id: 'let-out',
      how: 'Anchor loosened, not removed. 5 mm gives 0.7 mm a side; 7 to 10 for a rim that is not quite true.',
    },
    { id: 'clamped', how: 'Anchor 6 to 8 N·m, wire not crossed under its washer.' },
    { id: 'pumped', how: 'Ten hard squeezes; take up what came.' },
    {
      id: 'fine',
      how: 'An eighth at a time, pump, look. Both sides if both have one.',
    },
    {
      id: 'looked',
      how: 'Squeeze, let go, spin: free, and the rim is not pushed aside.',
    },
    { id: 'capped', how: '30 to 50 mm past the anchor.', caution: WIRE },
  ],
  cantilever: [
    { id: 'wheel', how: 'Home and closed first.', caution: WHEEL },
    { id: 'pads', how: 'Central and level on the track.', caution: OILY },
    { id: 'yoke', how: 'Start at a 90° straddle, yoke 20 to 40 mm over the tyre.' },
    {
      id: 'catch',
      how: 'Mudguard, reflector bracket or hook under the wire.',
      caution: 'Without it a broken cable drops the straddle onto the tyre and throws the rider.',
    },
    { id: 'clamped', how: 'Yoke bolt and anchor to torque.' },
    { id: 'fine', how: 'Spring screw an eighth at a time, pump, look.' },
    CAPPED,
  ],
  'cable-disc': [
    { id: 'wheel', how: 'Home and closed first; rotor cold.', caution: WHEEL },
    {
      id: 'rest',
      how: 'The arm starts at rest; wear is taken up at the pads, never by preloading the arm.',
    },
    {
      id: 'pads',
      how: 'By the pad adjusters; on one-piston kinds the fixed pad nearest.',
      caution: OILY,
    },
    { id: 'centred', how: 'Bolts loose, lever held, tighten in turns, 6 to 8 N·m.' },
    { id: 'clamped', how: 'Slack out, arm still at rest, anchor to torque.' },
    {
      id: 'looked',
      how: 'Spin: no rub, rotor straight. At the minimum stamped on it a rotor is scrap.',
      caution: 'Fingers clear of a turning rotor.',
    },
    CAPPED,
  ],
  drum: [REACTION, FREE, BITE, CAPPED],
  roller: [
    REACTION,
    FREE,
    {
      id: 'greased',
      how: 'Heat-proof grease made for roller brakes, through its port; never cleaned dry.',
    },
    BITE,
    CAPPED,
  ],
  coaster: [
    {
      id: 'strap',
      how: 'Bolt and nut through the strap, to torque.',
      caution: 'A loose strap lets the arm swing round: do not ride.',
    },
    {
      id: 'backpedal',
      how: 'Chain not slack; more than that is set inside by who is trained for it.',
    },
  ],
}

/** The order of fitting, by kind: each step's name with how it is done. */
export const BRAKE_STEPS = Object.fromEntries(
  Object.entries(BRAKE_STEP_NAMES).map(([kind, names]) => [
    kind,
    names.map(name => ({ ...HOWS[kind as BrakeKind]!.find(h => h.id === name.id)!, ...name })),
  ]),
) as Partial<Record<BrakeKind, readonly BrakeStep[]>>

/** The order of fitting of a kind, the pad gap set by its school; empty where there is none. */
export function stepsOf(kind: EndKind | undefined, padGap: PadGap = 'usual'): readonly BrakeStep[] {
  if (!kind || !isDiagnosed(kind)) return []
  const ways = GAP_WAYS[kind]?.[padGap] ?? []
  return (BRAKE_STEPS[kind] ?? []).map(s => {
    const way = ways.find(w => w.step === s.id)
    return way ? { ...s, what: way.what, how: way.how } : s
  })
}
/** Does the school of the pad gap change anything on this kind? */
export const hasPadGapSchool = (kind: BrakeKind): boolean => GAP_WAYS[kind] !== undefined
