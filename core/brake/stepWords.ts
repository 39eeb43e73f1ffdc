import { isDiagnosed, type BrakeKind, type EndKind } from './kinds'

/**
 * The steps of fitting a brake by name, in their order, apart from how each is done (`fitting.ts`): the ledger says
 * them on every page. `practice`: dual-pivot from bare, linear-pull with new cable and pads; the others `memory`.
 */
export type BrakeStepName = { id: string; what: string }
export const BRAKE_STEP_NAMES: Partial<Record<BrakeKind, readonly BrakeStepName[]>> = {
  'dual-pivot': [
    { id: 'screw-proud', what: 'Centring screw proud' },
    { id: 'mounted', what: 'Calliper on, body just moves' },
    { id: 'wheel', what: 'Wheel in and home' },
    { id: 'housing', what: 'Housing cut and opened' },
    { id: 'inner', what: 'Inner in, head home' },
    { id: 'pads-roughly', what: 'Pads roughly on the track' },
    { id: 'centred', what: 'Body centred' },
    { id: 'pads', what: 'Pads on the track' },
    { id: 'clamped', what: 'Clamped' },
    { id: 'fine', what: 'Fine centring' },
    { id: 'looked', what: 'Rim not pushed aside' },
    { id: 'torqued', what: 'Torques' },
    { id: 'capped', what: 'Cut and capped' },
  ],
  'linear-pull': [
    { id: 'wheel', what: 'Wheel in and home' },
    { id: 'inner', what: 'Inner in, head home' },
    { id: 'noodle', what: 'Noodle home' },
    { id: 'pads', what: 'Pads on the track' },
    { id: 'let-out', what: 'Pads on the rim, let out about 5 mm' },
    { id: 'clamped', what: 'Clamped' },
    { id: 'pumped', what: 'Pumped and set again' },
    { id: 'fine', what: 'Centred by the spring screws' },
    { id: 'looked', what: 'Both pads leave together' },
    { id: 'capped', what: 'Cut, capped, tucked in' },
  ],
  cantilever: [
    { id: 'wheel', what: 'Wheel in and home' },
    { id: 'pads', what: 'Pads on the track' },
    { id: 'yoke', what: 'Yoke' },
    { id: 'catch', what: 'Catch under the straddle' },
    { id: 'clamped', what: 'Clamped' },
    { id: 'fine', what: 'Centred' },
    { id: 'capped', what: 'Cut and capped' },
  ],
  'cable-disc': [
    { id: 'wheel', what: 'Wheel in and home' },
    { id: 'rest', what: 'Arm at rest' },
    { id: 'pads', what: 'Pads 0.2 to 0.4 mm a side' },
    { id: 'centred', what: 'Calliper centred' },
    { id: 'clamped', what: 'Clamped' },
    { id: 'looked', what: 'Free all round' },
    { id: 'capped', what: 'Cut and capped' },
  ],
  drum: [
    { id: 'reaction', what: 'Reaction arm fastened' },
    { id: 'free', what: 'Wheel free' },
    { id: 'bite', what: 'Bites by a third of the stroke' },
    { id: 'capped', what: 'Cut and capped' },
  ],
  roller: [
    { id: 'reaction', what: 'Reaction arm fastened' },
    { id: 'free', what: 'Wheel free' },
    { id: 'greased', what: 'Grease in it' },
    { id: 'bite', what: 'Bites by a third of the stroke' },
    { id: 'capped', what: 'Cut and capped' },
  ],
  coaster: [
    { id: 'strap', what: 'Strap secured' },
    { id: 'backpedal', what: 'Free back-pedal at most 60°' },
  ],
}

/** The order of fitting of a kind by name; empty where there is none. */
export const stepNamesOf = (kind: EndKind | undefined): readonly BrakeStepName[] =>
  kind && isDiagnosed(kind) ? (BRAKE_STEP_NAMES[kind] ?? []) : []

export const BRAKE_STEP_IDS: ReadonlySet<string> = new Set(
  Object.values(BRAKE_STEP_NAMES)
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
