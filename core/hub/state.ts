import { z } from 'zod'
import type { HubLog } from './diagnose'
import { HUB_CHECK_OUTCOMES, HUB_FAULT_IDS, HUB_STEP_IDS } from './ids'
import { HubParts } from './kinds'

const known = (e: { check: string; outcome: string }) => HUB_CHECK_OUTCOMES[e.check]?.includes(e.outcome) ?? false
const Gear = z.int('gear: a whole number').min(1, 'gears count from 1').max(20, 'at most 20 gears')

/** The hub bench's kinds of ledger entries. Turns in sixteenths, + tighter. */
export const HUB_EVENTS = [
  z.strictObject({ kind: z.literal('hubParts'), parts: HubParts }),
  z
    .strictObject({ kind: z.literal('hubSeen'), check: z.string().max(20), outcome: z.string().max(20) })
    .refine(known, { path: ['outcome'], message: 'that check has no such outcome' }),
  z.strictObject({
    kind: z.literal('hubRead'),
    mm: z.number().min(-20, 'a reading below −20 mm is not one').max(40, 'a reading over 40 mm is not one'),
  }),
  z.strictObject({
    kind: z.literal('hubCount'),
    gear: Gear,
    crankTurns: z
      .int('count whole crank turns')
      .min(1, 'turn the cranks at least once')
      .max(50, 'at most 50 crank turns'),
    wheelTurns: z
      .number()
      .gt(0, 'the wheel must have turned: 0 turns is a slip, say so')
      .max(300, 'more than 300 wheel turns is not a count')
      .nullable(),
  }),
  z.strictObject({
    kind: z.literal('hubTurn'),
    sixteenths: z
      .int('turns are whole sixteenths')
      .min(-16 * 20, 'more than 20 turns at once is not a turn')
      .max(16 * 20, 'more than 20 turns at once is not a turn')
      .refine(t => t !== 0, 'a turn of 0 is none'),
  }),
  z.strictObject({
    kind: z.literal('hubCured'),
    fault: z.string().refine(id => HUB_FAULT_IDS.has(id), 'that fault is not in the list'),
  }),
  z.strictObject({
    kind: z.literal('hubStep'),
    step: z.string().refine(id => HUB_STEP_IDS.has(id), 'that step is not in any order'),
  }),
  z.strictObject({ kind: z.literal('hubProof'), holds: z.boolean() }),
] as const
export type HubEvent = z.infer<(typeof HUB_EVENTS)[number]>
export const isHubEvent = <E extends { kind: string }>(e: E): e is Extract<E, HubEvent> => e.kind.startsWith('hub')

export type HubProof = { holds: boolean; by: string; at: string }
/** Where a hub of a job stands after its log. */
export type HubState = HubLog & {
  parts: HubParts | null
  cured: readonly string[]
  steps: readonly string[]
  /** Net sixteenths at the adjuster since arrival, + tighter. */
  net: number
  /** Is the lock nut known to be tight? Null: not looked at, or turned since. Only rod hubs have one. */
  locked: boolean | null
  /** Set, cured or cabled in this visit: it must be proven. */
  worked: boolean
  proof: HubProof | null
}
export const noHub: HubState = {
  parts: null,
  seen: [],
  readings: [],
  counts: [],
  cured: [],
  steps: [],
  net: 0,
  locked: null,
  worked: false,
  proof: null,
}

/** Named anew as another kind of hub: what was found does not apply, but a danger seen is not talked away; it must be proven. */
const anotherHub = (was: HubState, parts: HubParts): HubState => ({
  ...noHub,
  parts,
  worked: was.worked || hubStays(was) !== null,
})

/** What was found before says little once the setting was changed: looks that do not depend on it stay. */
export const hubSetAnew = (was: HubState): HubState => ({
  ...was,
  readings: [],
  counts: [],
  worked: true,
  proof: null,
  locked: was.parts?.way === 'rod' ? null : was.locked,
})

/** The hub after one more entry; `by` and `at` are for a proof. */
export function hubAfter(was: HubState, e: HubEvent, by: string, at: string): HubState {
  switch (e.kind) {
    case 'hubParts':
      return was.parts?.way === e.parts.way
        ? { ...was, parts: e.parts, counts: was.counts.filter(c => c.gear <= e.parts.ratios.length) }
        : anotherHub(was, e.parts)
    case 'hubSeen': {
      const now = { ...was, seen: [...was.seen, { check: e.check, outcome: e.outcome }] }
      if (e.check !== 'lock') return now
      return e.outcome === 'tight' ? { ...now, locked: true } : { ...now, locked: false, proof: null }
    }
    case 'hubRead':
      return { ...was, readings: [...was.readings, { mm: e.mm }] }
    case 'hubCount': {
      // a gear this hub does not have says nothing of it
      if (!was.parts || e.gear > was.parts.ratios.length) return was
      // a slip or a neutral takes the proof away; a gear counted right again answers for that gear
      const counts = [...was.counts, { gear: e.gear, crankTurns: e.crankTurns, wheelTurns: e.wheelTurns }]
      return { ...was, counts, proof: e.wheelTurns === null ? null : was.proof }
    }
    case 'hubTurn':
      return { ...hubSetAnew(was), net: was.net + e.sixteenths, seen: was.seen.filter(s => s.check !== 'lock') }
    case 'hubCured':
      return { ...hubSetAnew(was), seen: [], cured: [...was.cured, e.fault] }
    case 'hubStep': {
      const steps = [...new Set([...was.steps, e.step])]
      // a nut locked is a nut looked at; opening the chain or joining it anew undoes that
      if (e.step === 'locked') return { ...was, steps, locked: true, worked: true }
      return {
        ...was,
        steps,
        worked: true,
        proof: null,
        locked: was.parts?.way === 'rod' && (e.step === 'home' || e.step === 'slack') ? null : was.locked,
      }
    }
    case 'hubProof':
      return { ...was, proof: { holds: e.holds, by, at } }
  }
}

/** The last count of each gear that slipped or found none. */
export const slippingGears = (s: HubState): number[] =>
  [...new Set(s.counts.map(c => c.gear))]
    .filter(g => s.counts.findLast(c => c.gear === g)!.wheelTurns === null)
    .sort((a, b) => a - b)

/** Why a bike with this hub stays: states in which riding must stop; null when none. */
export function hubStays(s: HubState): string | null {
  if (!s.parts) return null
  const slipping = slippingGears(s)
  if (s.proof && !s.proof.holds) return 'hub gear failed its proof'
  if (slipping.length) return `hub slips or finds no gear in ${slipping.join(', ')}`
  if (s.locked === false) return 'hub’s lock nut is loose'
  if (!s.worked) return null
  if (s.parts.way === 'rod' && s.locked === null) return 'hub’s lock nut not seen tight since it was set'
  return s.proof ? null : 'hub gear not proven since it was set'
}
