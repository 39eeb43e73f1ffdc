import { isBrake, type RunName } from './housing'

/**
 * The steps of fitting a run by name, apart from how each is done (`steps.ts`): the ledger says them on every page.
 * `practice`, no source
 */
export const CABLE_STEPS = [
  'old-out',
  'adjusters',
  'sized',
  'cut',
  'liner',
  'ferrules',
  'fed',
  'seated',
  'dry',
  'greased',
  'tugged',
  'released',
  'barrels',
  'groove',
  'clamped',
  'redrawn',
  'bedded',
  'capped',
] as const
export type CableStep = (typeof CABLE_STEPS)[number]

/** What hangs on a run, as far as its steps differ; twin: a hub whose two cables end in couplings. */
export type RunKind = 'rear' | 'front' | 'brake' | 'hub' | 'twin'
export const runKindOf = (run: RunName, twin = false): RunKind =>
  isBrake(run) ? 'brake' : run === 'hub-second' || (run === 'hub' && twin) ? 'twin' : (run as 'rear' | 'front' | 'hub')

const NAMES: Record<CableStep, string> = {
  'old-out': 'Old one out, photographed and measured',
  adjusters: 'Adjusters cleaned and greased',
  sized: 'Sized on the bike, held with a tie',
  cut: 'Cut square',
  liner: 'Liner opened',
  ferrules: 'Ferrules on',
  fed: 'Fed through',
  seated: 'Head seated',
  dry: 'Run dry',
  greased: 'A thin film of silicone',
  tugged: 'Tugged hard along its run',
  released: 'Release lever closed',
  barrels: 'Barrels set',
  groove: 'In the groove, on the right side of the bolt',
  clamped: 'Drawn and clamped',
  redrawn: 'Tugged once more, drawn anew',
  bedded: 'Bedded',
  capped: 'Tail cut and capped',
}
const OTHERWISE: Partial<Record<RunKind, Partial<Record<CableStep, string>>>> = {
  brake: { redrawn: 'Ten hard squeezes, drawn anew', bedded: 'Squeezed hard, both hands' },
  hub: { clamped: 'Joined at its anchor', redrawn: 'Tugged once more, joined anew', bedded: 'All gears cycled' },
  twin: { clamped: 'Cut to length, in its coupling', bedded: 'All 14 gears counted' },
}
/** A step's name by what hangs on the run. */
export const stepName = (kind: RunKind, step: CableStep): string => OTHERWISE[kind]?.[step] ?? NAMES[step]
