import type { FaultFound } from '../chapter/records'
import type { Cause } from '../response/causes'
import type { BenchEvent, Part } from './benchEvents'
import { standardOf } from './records'
import type { RearState } from './state'

/** From so many sixteenths net a screw was wrong, and not only tried. `model` */
const TURNED = 2
/** What a part is renewed for, as far as it is the gears' own. `practice` */
const RENEWED_FOR: Record<Part, Cause> = {
  cable: 'friction',
  hanger: 'hanger',
  shifter: 'mismatch',
  derailleur: 'mismatch',
  cassette: 'wear',
}

/** What may be declined and is a cause of its own. */
const DECLINED = ['hanger', 'mismatch', 'friction', 'wear'] as const satisfies readonly Cause[]

/** Which causes a job cured, told from what was renewed, bent, clamped and turned. Net turns in sixteenths. */
export function curesOf({
  renewed,
  bends,
  clamps,
  net,
}: {
  renewed: readonly Part[]
  bends: readonly unknown[]
  clamps: readonly unknown[]
  net: Readonly<Record<'barrel' | 'H' | 'L', number>>
}): Set<Cause> {
  const cured = new Set<Cause>(renewed.map(p => RENEWED_FOR[p]))
  if (bends.length) cured.add('hanger')
  if (Math.abs(net.barrel) >= TURNED || clamps.length > 0) cured.add('tension')
  if (Math.abs(net.H) >= TURNED || Math.abs(net.L) >= TURNED) cured.add('stops')
  // a new run is clamped and wound in: that is its fitting, not a fault of tension
  if (cured.has('friction')) cured.delete('tension')
  return cured
}

/** What is also renewed because it is old, or the customer wants it. `practice` */
const WISHED: readonly Part[] = ['cable', 'cassette']
/** A cable or cassette renewed before anything was heard to be wrong was asked for: no fault of it was found. */
function askedFor(log: readonly BenchEvent[], part: Part): boolean {
  const at = log.findIndex(e => e.kind === 'replace' && e.part === part)
  return WISHED.includes(part) && at >= 0 && !log.slice(0, at).some(isUnclean)
}
const isUnclean = (e: BenchEvent): boolean => e.kind === 'unclean' || (e.kind === 'shift' && e.heard !== 'clean')

/**
 * What turned out to be wrong with a rear derailleur, told from what was done: a belief is an opinion, a cure is a
 * fact.
 */
export function rearFaults({
  rear,
  job,
}: {
  rear: RearState
  job: { handedBack?: { fault: string | null } | null }
}): FaultFound[] {
  const { parts, waived } = rear
  if (!parts) return []
  const asked = rear.renewed.filter(p => askedFor(rear.bench, p))
  const cured = curesOf({ ...rear, renewed: rear.renewed.filter(p => !asked.includes(p)) })
  // a new run is clamped and wound in, whoever wanted it
  if (asked.includes('cable')) cured.delete('tension')
  const declined = job.handedBack?.fault
  const left = new Set<Cause>(DECLINED.filter(c => c === declined))
  if (waived.has('hanger')) left.add('hanger')
  if (waived.has('parts')) left.add('mismatch')
  const standard = standardOf(parts)
  return [
    ...[...cured].filter(c => !left.has(c)).map(fault => ({ standard, fault, cured: true })),
    ...[...left].map(fault => ({ standard, fault, cured: false })),
  ]
}
