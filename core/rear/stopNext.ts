import { fromSixteenths } from '../quantity/turns'
import { safeStopMm } from '../response/safe'
import { geometryOf } from '../response/setup'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import type { RearState } from './state'
import { stopTurn } from './asSeen'
import { feltTurn, type LFelt } from './stopFelt'
import { learntMmPerTurn, lTargetMm } from './stops'

type Span = { from: number; to: number }
/**
 * A stop as it was seen by hand, where it is to stand, and the turn between. All mm from its sprocket's plane, +
 * inboard.
 */
type StopNext = {
  stop: 'L' | 'H'
  /** Teeth of its sprocket, and of the one beside it. */
  teeth: number
  neighbourTeeth: number
  pitchMm: number
  /** Where it can hurt nobody. */
  safeMm: Span
  targetMm: Span
  /** As last seen, carried on by the turns since; null when it was not. */
  offsetMm: number | null
  /** By thumb and ear since it was last seen or turned; null when nobody tried. */
  felt: LFelt | null
  /** Turned since it was seen: to be looked at again. */
  turned: boolean
  sightings: number
  learnt: { mmPerTurn: number; sdMm: number }
  /** Turns of its screw, in eighths, + in; 0 where nothing is to be turned. */
  turns: number
}

/** What to do about a stop. @param hTargetMm where H is to stand by this shop's school */
export function stopNext(rear: RearState, stop: 'L' | 'H', hTargetMm: Span, s: Standards = TABLE_ONLY): StopNext {
  const setup = rear.setup!
  const g = geometryOf(setup)
  const sprocket = stop === 'L' ? g.n - 1 : 0
  const plane = g.placeMm[sprocket]!
  const safe = safeStopMm(g, stop)
  const sights = rear.sights
    .filter(x => x.event.at === stop)
    .map(x => ({ turnsIn: fromSixteenths(x.sixteenths), offsetMm: x.event.offsetMm }))
  const learnt = learntMmPerTurn(stop, sights)
  const last = sights.at(-1)
  const turnsSince = last ? fromSixteenths(rear.net[stop]) - last.turnsIn : 0
  const offsetMm = last ? last.offsetMm + turnsSince * learnt.mmPerTurn * (stop === 'H' ? 1 : -1) : null
  const targetMm = stop === 'L' ? lTargetMm(s) : hTargetMm
  // by thumb and ear, with the screw as it now stands
  const felt = stop === 'L' && rear.felt?.sixteenths === rear.net.L ? rear.felt.what : null
  return {
    stop,
    teeth: setup.teeth[sprocket]!,
    neighbourTeeth: setup.teeth[stop === 'L' ? sprocket - 1 : 1]!,
    pitchMm: g.pitchMm[sprocket]!,
    safeMm: { from: safe.from - plane, to: safe.to - plane },
    targetMm,
    offsetMm,
    turned: turnsSince !== 0,
    sightings: sights.length,
    learnt,
    felt,
    turns: felt
      ? feltTurn(felt, offsetMm)
      : offsetMm === null
        ? 0
        : stopTurn(stop, offsetMm, targetMm, learnt.mmPerTurn),
  }
}
