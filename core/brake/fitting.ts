import { isDiagnosed, type BrakeKind, type EndKind } from './kinds'

/** A step of fitting or renewing a brake, one touch each. */
export type BrakeStep = { id: string; what: string; how: string; caution?: string }
const WIRE = 'Frayed ends stab and cut wire flies: goggles on. Cap the end: it must stand 20 N.'
const OILY = 'Nothing oily near pads, rim or rotor.'
const WHEEL = 'A wheel that is not home can come out: nothing else first.'

/** Most a calliper's nut must be threaded on, turns. `practice` */
export const LEAST_NUT_TURNS = 6

/** The order of fitting, by kind. `practice`: dual-pivot from bare, linear-pull with new cable and pads; the others `memory`. */
export const BRAKE_STEPS: Partial<Record<BrakeKind, readonly BrakeStep[]>> = {
  'dual-pivot': [
    { id: 'screw-proud', what: 'Centring screw proud', how: 'Before fitting, so that it can go both ways.' },
    {
      id: 'mounted',
      what: 'Calliper on, body just moves',
      how: `Mounting bolt so that the body can just be moved; nut at least ${LEAST_NUT_TURNS} turns of thread on.`,
    },
    { id: 'wheel', what: 'Wheel in and home', how: 'Quick release closed, axle in both dropouts.', caution: WHEEL },
    {
      id: 'housing',
      what: 'Housing cut and opened',
      how: 'Brake housing, square, deburred, liner open; the rear run looked at lock to lock.',
      caution: 'Shift housing on a brake can burst in an emergency stop: never.',
    },
    {
      id: 'inner',
      what: 'Inner in, head home',
      how: 'Squeeze the lever to open the head’s seat; head fully home, tug it.',
    },
    {
      id: 'pads-roughly',
      what: 'Pads roughly on the track',
      how: 'Not in the tyre, not under the rim.',
      caution: OILY,
    },
    {
      id: 'centred',
      what: 'Body centred',
      how: 'Squeeze, shift the body until both touch together, nip while holding, look again.',
    },
    { id: 'pads', what: 'Pads on the track', how: 'Central and level on the braking track.', caution: OILY },
    {
      id: 'clamped',
      what: 'Clamped',
      how: 'Release lever closed, barrel 3 to 4 turns out, pads on the rim, clamp, then wind the barrel in: 1 to 1.5 mm a side, and the thread is left for wear.',
    },
    { id: 'fine', what: 'Fine centring', how: 'Small screw: in brings that side’s pad towards the rim.' },
    { id: 'looked', what: 'Rim not pushed aside', how: 'Squeeze and watch the rim: it must stay where it is.' },
    {
      id: 'torqued',
      what: 'Torques',
      how: 'Mount 7 to 8, cable and pads 5 to 7 N·m, unless the maker says otherwise.',
    },
    { id: 'capped', what: 'Cut and capped', how: '30 to 50 mm past the bolt.', caution: WIRE },
  ],
  'linear-pull': [
    {
      id: 'wheel',
      what: 'Wheel in and home',
      how: 'Home and closed before anything on the brake is turned.',
      caution: WHEEL,
    },
    {
      id: 'inner',
      what: 'Inner in, head home',
      how: 'Brake housing; through the barrel’s slot, turned shut; through the noodle, boot on. Tug the head.',
      caution: 'Shift housing on a brake can burst in an emergency stop: never.',
    },
    {
      id: 'noodle',
      what: 'Noodle home',
      how: 'In its bracket, seen and tugged.',
      caution: 'No brake at all when it is out.',
    },
    {
      id: 'pads',
      what: 'Pads on the track',
      how: 'Arms upright with the pads on the rim; pads central and level.',
      caution: OILY,
    },
    {
      id: 'let-out',
      what: 'Pads on the rim, let out about 5 mm',
      how: 'Anchor loosened, not removed. 5 mm gives 0.7 mm a side; 7 to 10 for a rim that is not quite true.',
    },
    { id: 'clamped', what: 'Clamped', how: 'Anchor 6 to 8 N·m, wire not crossed under its washer.' },
    { id: 'pumped', what: 'Pumped and set again', how: 'Ten hard squeezes; take up what came.' },
    {
      id: 'fine',
      what: 'Centred by the spring screws',
      how: 'An eighth at a time, pump, look. Both sides if both have one.',
    },
    {
      id: 'looked',
      what: 'Both pads leave together',
      how: 'Squeeze, let go, spin: free, and the rim is not pushed aside.',
    },
    { id: 'capped', what: 'Cut, capped, tucked in', how: '30 to 50 mm past the anchor.', caution: WIRE },
  ],
  cantilever: [
    { id: 'wheel', what: 'Wheel in and home', how: 'Home and closed first.', caution: WHEEL },
    { id: 'pads', what: 'Pads on the track', how: 'Central and level on the track.', caution: OILY },
    { id: 'yoke', what: 'Yoke', how: 'Start at a 90° straddle, yoke 20 to 40 mm over the tyre.' },
    {
      id: 'catch',
      what: 'Catch under the straddle',
      how: 'Mudguard, reflector bracket or hook under the wire.',
      caution: 'Without it a broken cable drops the straddle onto the tyre and throws the rider.',
    },
    { id: 'clamped', what: 'Clamped', how: 'Yoke bolt and anchor to torque.' },
    { id: 'fine', what: 'Centred', how: 'Spring screw an eighth at a time, pump, look.' },
    { id: 'capped', what: 'Cut and capped', how: '30 to 50 mm past the bolt.', caution: WIRE },
  ],
  'cable-disc': [
    { id: 'wheel', what: 'Wheel in and home', how: 'Home and closed first; rotor cold.', caution: WHEEL },
    {
      id: 'rest',
      what: 'Arm at rest',
      how: 'The arm starts at rest; wear is taken up at the pads, never by preloading the arm.',
    },
    {
      id: 'pads',
      what: 'Pads 0.2 to 0.4 mm a side',
      how: 'By the pad adjusters; on one-piston kinds the fixed pad nearest.',
      caution: OILY,
    },
    { id: 'centred', what: 'Calliper centred', how: 'Bolts loose, lever held, tighten in turns, 6 to 8 N·m.' },
    { id: 'clamped', what: 'Clamped', how: 'Slack out, arm still at rest, anchor to torque.' },
    {
      id: 'looked',
      what: 'Free all round',
      how: 'Spin: no rub, rotor straight. At the minimum stamped on it a rotor is scrap.',
      caution: 'Fingers clear of a turning rotor.',
    },
    { id: 'capped', what: 'Cut and capped', how: '30 to 50 mm past the bolt.', caution: WIRE },
  ],
  drum: [
    {
      id: 'reaction',
      what: 'Reaction arm fastened',
      how: 'Before any test.',
      caution: 'A loose reaction arm lets the hub turn with the wheel.',
    },
    { id: 'free', what: 'Wheel free', how: 'Barrel out until it drags, then back until the wheel is free.' },
    { id: 'bite', what: 'Bites by a third of the stroke', how: 'Lever clear of the bar at a hard squeeze.' },
    { id: 'capped', what: 'Cut and capped', how: '30 to 50 mm past the bolt.', caution: WIRE },
  ],
  roller: [
    {
      id: 'reaction',
      what: 'Reaction arm fastened',
      how: 'Before any test.',
      caution: 'A loose reaction arm lets the hub turn with the wheel.',
    },
    { id: 'free', what: 'Wheel free', how: 'Barrel out until it drags, then back until the wheel is free.' },
    {
      id: 'greased',
      what: 'Grease in it',
      how: 'Heat-proof grease made for roller brakes, through its port; never cleaned dry.',
    },
    { id: 'bite', what: 'Bites by a third of the stroke', how: 'Lever clear of the bar at a hard squeeze.' },
    { id: 'capped', what: 'Cut and capped', how: '30 to 50 mm past the bolt.', caution: WIRE },
  ],
  coaster: [
    {
      id: 'strap',
      what: 'Strap secured',
      how: 'Bolt and nut through the strap, to torque.',
      caution: 'A loose strap lets the arm swing round: do not ride.',
    },
    {
      id: 'backpedal',
      what: 'Free back-pedal at most 60°',
      how: 'Chain not slack; more than that is set inside by who is trained for it.',
    },
  ],
}

/** The order of fitting of a kind; empty where there is none. */
export const stepsOf = (kind: EndKind | undefined): readonly BrakeStep[] =>
  kind && isDiagnosed(kind) ? (BRAKE_STEPS[kind] ?? []) : []

export const BRAKE_STEP_IDS: ReadonlySet<string> = new Set(
  Object.values(BRAKE_STEPS)
    .flat()
    .map(s => s.id),
)
/** Steps that only look at the brake, or finish what does not carry its load: a proof still rests on what it proved. */
const TOUCHES_NOTHING: ReadonlySet<string> = new Set(['looked', 'capped', 'backpedal'])
export const touches = (step: string): boolean => !TOUCHES_NOTHING.has(step)

/** Looks that a step answers: what was seen before it was done says nothing any more. */
const ANSWERS: Readonly<Record<string, string>> = {
  noodle: 'noodle',
  wheel: 'seated',
  inner: 'wire',
  clamped: 'anchor',
  mounted: 'body',
  centred: 'body',
  strap: 'body',
  reaction: 'body',
  pads: 'pads',
}
export const lookAnswered = (step: string): string | null => ANSWERS[step] ?? null

/** Steps that are open again once another was done anew. */
const UNDONE_BY: Readonly<Record<string, readonly string[]>> = {
  inner: ['clamped', 'fine', 'looked', 'capped'],
  clamped: ['fine', 'looked', 'capped'],
}
/** The steps done after one more; one that was done and is done again opens what rests on it. */
export function stepsAfter(done: readonly string[], step: string): readonly string[] {
  const open = done.includes(step) ? (UNDONE_BY[step] ?? []) : []
  return [...done.filter(s => s !== step && !open.includes(s)), step]
}
