import type { CableEvent } from './events'
import type { RunName } from './housing'
import type { Run } from './run'
import type { CableStep } from './stepNames'

/** The runs of a job as they were planned or measured, and the steps of each that are done. */
export type CableState = {
  runs: readonly Run[]
  cabled: Partial<Record<RunName, readonly CableStep[]>>
}
export const noCables: CableState = { runs: [], cabled: {} }

/** Steps that are open again once another was done anew: a wire fed again is clamped, bedded and capped again. */
const UNDONE_BY: Partial<Record<CableStep, readonly CableStep[]>> = {
  'old-out': ['sized', 'cut', 'liner', 'ferrules', 'fed', 'seated', 'dry', 'greased', 'tugged', 'barrels', 'groove'],
  fed: ['seated', 'tugged', 'groove', 'clamped', 'redrawn', 'bedded', 'capped'],
  clamped: ['redrawn', 'bedded', 'capped'],
}

/** The cables after one more entry. */
export function cablesAfter(was: CableState, e: CableEvent): CableState {
  if (e.kind === 'run') return { ...was, runs: [...was.runs.filter(r => r.run !== e.run.run), e.run] }
  const before = was.cabled[e.run] ?? []
  // a step noted twice is the same step; one that was done and is done again opens what rests on it
  const open = before.includes(e.step) ? (UNDONE_BY[e.step] ?? []) : []
  return {
    ...was,
    cabled: { ...was.cabled, [e.run]: [...before.filter(s => s !== e.step && !open.includes(s)), e.step] },
  }
}
