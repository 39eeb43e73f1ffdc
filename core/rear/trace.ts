import { type BenchEvent, PARTS, costOf } from './benchEvents'
import { finite, positive, wholeIn } from '../quantity/check'
import { EDGE } from '../response/parameters'
import { HEARD } from '../response/heard'
import { slackestClick, type RearSetup } from '../response/setup'

/**
 * Where lever, chain and screws are after a log, and what has been seen. Turns of H and L are + in, since the start.
 */
export type Trace = {
  lever: number
  chain: number
  lastInward: boolean
  barrelTurns: number
  hTurns: number
  lTurns: number
  seenH: boolean
  seenL: boolean
  /** Did the microphone listen since anything moved? */
  sounded: boolean
  cost: number
}

/** What the shift of an event meant, given where the chain lay. */
type ShiftSense = { inward: boolean; alreadyThere: boolean }

/** Lever and chain where the cable is slackest; the last step there went with the spring. */
const atSlackest = (setup: RearSetup) => ({
  lever: slackestClick(setup),
  chain: slackestClick(setup),
  lastInward: setup.spring === 'low',
})

export const startOf = (setup: RearSetup): Trace => ({
  ...atSlackest(setup),
  barrelTurns: setup.barrelTurnsOut,
  hTurns: 0,
  lTurns: 0,
  seenH: false,
  seenL: false,
  sounded: false,
  cost: 0,
})

/** Which way the last step went; `from === to` repeats it (at the smallest outward, at the largest inward). */
export function senseOfShift(trace: Trace, n: number, from: number, to: number): ShiftSense {
  if (from === to) return { inward: to === n - 1 || (to !== 0 && trace.lastInward), alreadyThere: false }
  return { inward: to > from, alreadyThere: trace.chain === to && Math.abs(to - from) === 1 }
}

/** @throws RangeError naming what makes no sense of the event by itself, or a barrel turned past its travel */
export function step(trace: Trace, event: BenchEvent, setup: RearSetup): Trace {
  const n = setup.teeth.length
  const moves = event.kind !== 'sounded' && event.kind !== 'sight' && event.kind !== 'hanger'
  const sounded = event.kind === 'sounded' || (trace.sounded && !moves)
  const next = { ...trace, cost: trace.cost + costOf(checked(event, n)), sounded }
  switch (event.kind) {
    case 'shift': {
      const { inward } = senseOfShift(trace, n, event.from, event.to)
      const past = event.heard === 'none' ? -1 : event.heard === 'jumps' ? 1 : 0
      next.lever = event.to
      next.chain = Math.min(n - 1, Math.max(0, event.to + (inward ? past : -past)))
      next.lastInward = inward
      return next
    }
    case 'unclean':
      return { ...next, lever: event.to, chain: event.to, lastInward: event.ways.at(-1) === 'spokes' }
    case 'sounded':
      return next
    case 'turn':
      if (event.screw === 'barrel') next.barrelTurns = turned(trace.barrelTurns, event.turns, setup)
      else if (event.screw === 'H') next.hTurns += event.turns
      else next.lTurns += event.turns
      return next
    case 'sight':
      if (event.sdMm !== undefined) return next
      return event.at === 'L' ? { ...next, seenL: true } : { ...next, seenH: true }
    case 'offset':
      return { ...next, lever: event.click, chain: event.click, lastInward: event.click > 0 }
    case 'edge':
      next.barrelTurns = event.turns === 0 ? trace.barrelTurns : turned(trace.barrelTurns, event.turns, setup)
      return { ...next, lever: event.click, chain: event.click, lastInward: true }
    case 'hanger':
      return next
    case 'reclamp':
      if (event.barrelTurnsOut > setup.barrelTurnsRange)
        throw new RangeError(
          `barrelTurnsOut ${event.barrelTurnsOut} is beyond barrelTurnsRange ${setup.barrelTurnsRange}`,
        )
      return { ...next, barrelTurns: event.barrelTurnsOut, ...atSlackest(setup) }
    case 'bend':
      return { ...next, ...atSlackest(setup), seenH: false, seenL: false }
    case 'replace': {
      const moved = event.part !== 'cable' && event.part !== 'shifter'
      return { ...next, ...atSlackest(setup), seenH: next.seenH && !moved, seenL: next.seenL && !moved }
    }
  }
}

const SLACK = 1e-9 // sixteenths added up in binary fractions

function turned(from: number, turns: number, setup: RearSetup): number {
  const to = from + turns
  if (to < -SLACK || to > setup.barrelTurnsRange + SLACK)
    throw new RangeError(`turns ${turns} takes the barrel to ${to}, outside 0 to ${setup.barrelTurnsRange}`)
  return Math.min(setup.barrelTurnsRange, Math.max(0, to))
}

function checked(event: BenchEvent, n: number): BenchEvent {
  const oneOf = (name: string, value: unknown, allowed: readonly string[]) => {
    if (!allowed.includes(value as string))
      throw new RangeError(`${name} must be one of ${allowed.join(', ')}, it is ${String(value)}`)
  }
  const ear = (share: number | undefined) => {
    if (share !== undefined && !(share >= 0 && share <= 0.5)) throw new RangeError('ear must lie between 0 and 0.5')
  }
  switch (event.kind) {
    case 'shift':
      wholeIn('from', event.from, 0, n - 1)
      wholeIn('to', event.to, 0, n - 1)
      oneOf('heard', event.heard, HEARD)
      ear(event.ear)
      return event
    case 'unclean':
      wholeIn('to', event.to, 0, n - 1)
      if (!event.ways.length) throw new RangeError('ways must name at least one way')
      event.ways.forEach(way => oneOf('ways', way, ['spokes', 'frame']))
      ear(event.ear)
      return event
    case 'sounded':
      wholeIn('to', event.to, 0, n - 1)
      positive('rubOdds', event.rubOdds)
      return event
    case 'turn':
      oneOf('screw', event.screw, ['barrel', 'H', 'L'])
      finite('turns', event.turns)
      if (event.turns === 0) throw new RangeError('turns must not be 0')
      return event
    case 'sight':
      oneOf('at', event.at, ['H', 'L'])
      finite('offsetMm', event.offsetMm)
      if (event.sdMm !== undefined) positive('sdMm', event.sdMm)
      if (event.photoSdMm !== undefined) positive('photoSdMm', event.photoSdMm)
      return event
    case 'offset':
      wholeIn('click', event.click, 0, n - 1)
      finite('offsetMm', event.offsetMm)
      if (event.photoSdMm !== undefined) positive('photoSdMm', event.photoSdMm)
      return event
    case 'edge':
      wholeIn('click', event.click, 1, n - 2)
      oneOf('way', event.way, ['out', 'in'])
      finite('turns', event.turns)
      if (Math.abs(event.turns) > EDGE.limitTurns + SLACK)
        throw new RangeError(`turns to an edge must be at most ${EDGE.limitTurns}, it is ${event.turns}`)
      if (event.way === 'out' ? event.turns < 0 : event.turns > 0)
        throw new RangeError(`turns ${event.turns} does not go ${event.way}`)
      return event
    case 'hanger':
      finite('camberDeg', event.camberDeg)
      finite('toeDeg', event.toeDeg)
      if (Math.abs(event.camberDeg) > 45 || Math.abs(event.toeDeg) > 45)
        throw new RangeError('camberDeg and toeDeg must lie within 45 degrees')
      if (event.sdDeg !== undefined && !(event.sdDeg > 0)) throw new RangeError('sdDeg must be positive')
      return event
    case 'reclamp':
      finite('barrelTurnsOut', event.barrelTurnsOut)
      if (event.barrelTurnsOut < 0)
        throw new RangeError(`barrelTurnsOut must not be negative, it is ${event.barrelTurnsOut}`)
      if (event.takeUpMm !== undefined) {
        finite('takeUpMm.from', event.takeUpMm.from)
        finite('takeUpMm.to', event.takeUpMm.to)
        if (event.takeUpMm.from > event.takeUpMm.to) throw new RangeError('takeUpMm must go from the less to the more')
      }
      return event
    case 'replace':
      oneOf('part', event.part, PARTS)
      return event
    case 'bend':
      return event
    default:
      throw new RangeError(`kind ${String((event as { kind?: unknown }).kind)} is not a bench event`)
  }
}
