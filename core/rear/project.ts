import { heardOf } from './arrivals'
import type { BenchEvent } from './benchEvents'
import type { Trace } from './trace'
import { fromSixteenths } from '../quantity/turns'
import type { RearSetup } from '../response/setup'
import { takeUpOf } from '../procedure/clampSchools'
import type { RearEvent, RearOf } from './events'
import { mayReachLargest } from './gates'
import { EYE } from './hangerEye'
import { leftOut } from './rings'
import { feltAsSight } from './stopFelt'

/**
 * The one projection from the shop's ledger to the contract's bench events. Where the lever stood is taken from the
 * log, never from the entry: after an undo it may be elsewhere.
 */
export function benchEventsOf(event: RearEvent, trace: Trace, setup: RearSetup): BenchEvent[] {
  switch (event.kind) {
    case 'shift':
      return [{ kind: 'shift', from: trace.lever, to: event.to, heard: event.heard }]
    case 'went':
      return heardOf(event, trace.lever).map(e => ({ kind: 'shift', ...e }))
    case 'pass':
      return passOf(event.exceptions, setup.teeth.length)
    case 'proved':
      return provedAs(event, setup.teeth.length)
    case 'turn':
      return event.screw === 'B' ? [] : [{ kind: 'turn', screw: event.screw, turns: fromSixteenths(event.sixteenths) }]
    case 'edge':
      return [
        {
          kind: 'edge',
          click: event.click,
          way: event.way,
          turns: fromSixteenths(event.sixteenths),
          found: event.found,
        },
      ]
    case 'sight':
      return [{ kind: 'sight', at: event.at, offsetMm: event.offsetMm, ...photoOf(event) }]
    // nobody pushes onto an L that was not seen: what is told of one all the same says nothing
    // of another gear than the lever's it says nothing here; heard again as things stand it is the same sound
    case 'sounded':
      return event.click === trace.lever && !trace.sounded
        ? [{ kind: 'sounded', to: event.click, rubOdds: event.rubOdds }]
        : []
    case 'felt':
      return mayReachLargest(trace) ? [feltAsSight(event.what)] : []
    case 'offset':
      return [{ kind: 'offset', click: event.click, offsetMm: event.offsetMm, ...photoOf(event) }]
    case 'bend':
      return [{ kind: 'bend' }]
    case 'eyed':
      return [{ kind: 'hanger', ...EYE[event.hanger] }]
    case 'gauge':
      return [{ kind: 'hanger', camberDeg: event.camberDeg, toeDeg: event.toeDeg }]
    case 'reclamp':
      return [
        {
          kind: 'reclamp',
          barrelTurnsOut: fromSixteenths(event.barrelSixteenthsOut),
          ...(event.how ? { takeUpMm: takeUpOf(event.how) } : {}),
        },
      ]
    case 'replace':
      return [{ kind: 'replace', part: event.part }]
    default:
      return []
  }
}

const photoOf = ({ photoSdMm }: { photoSdMm?: number }) => (photoSdMm === undefined ? {} : { photoSdMm })

/**
 * What proving heard counts as heard: on a ring and on the road every gear was gone to from both sides, pairs that
 * cross left out; after several clicks at a stroke only what was not clean says something of one gear.
 */
function provedAs({ what, ring, exceptions }: RearOf<'proved'>, n: number): BenchEvent[] {
  const unclean = exceptions.map(sprocket => ({ sprocket, way: null, heard: null }))
  const crossed = ring === null ? [] : leftOut(ring, n)
  const heard = passOf(
    unclean,
    n,
    crossed.filter(k => !exceptions.includes(k)),
  )
  return what === 'several' ? heard.filter(e => e.kind === 'unclean') : heard
}

/**
 * A whole pass from the smallest sprocket in and back, one click at a time; what was not said to be wrong was clean.
 */
function passOf(exceptions: RearOf<'pass'>['exceptions'], n: number, skipped: readonly number[] = []): BenchEvent[] {
  const out: BenchEvent[] = []
  const arrive = (from: number, to: number, way: 'spokes' | 'frame') => {
    if (skipped.includes(to) || skipped.includes(from)) return
    const said = exceptions.find(e => e.sprocket === to && (e.way === way || e.way === null))
    if (!said) out.push({ kind: 'shift', from, to, heard: 'clean' })
    else if (said.heard) out.push({ kind: 'shift', from, to, heard: said.heard })
    else if (said.way) out.push({ kind: 'unclean', to, ways: [way] })
    // told of a gear, not of a side: at least one of the two was not clean, said once
    else if (way === 'spokes' || to === 0)
      out.push({ kind: 'unclean', to, ways: to === 0 ? ['frame'] : to === n - 1 ? ['spokes'] : ['spokes', 'frame'] })
  }
  for (let k = 1; k < n; k++) arrive(k - 1, k, 'spokes')
  for (let k = n - 2; k >= 0; k--) arrive(k + 1, k, 'frame')
  return out
}
