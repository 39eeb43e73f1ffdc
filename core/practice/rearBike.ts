import { seededBike, USUAL_POPULATION, type HiddenBike, type Population } from '../bench/bench'
import { AS_MODELLED } from '../bench/physics'
import { truthOf } from '../bench/truth'
import { radians } from '../quantity/angle'
import { randomFrom, type Random } from '../quantity/random'
import { CAUSES, type Cause } from '../response/causes'
import { NEW_CABLE } from '../response/parameters'
import { geometryOf, type Geometry, type RearSetup } from '../response/setup'
import { cableWindowMm } from '../response/window'
import { SAFE } from '../standards/model'
import type { Level } from './levels'

/** A practice bike: what stands on the stand, what is hidden of it, and what was put wrong. */
export type RearBike = {
  setup: RearSetup
  hidden: HiddenBike
  faults: readonly Cause[]
  /** B gap at the largest sprocket as it came, tip to tip, mm. Small, it rattles: no cause of the rear, told beside. */
  gapMm: number
}

/** One in so many comes with the pulley too near, and how near; the others stand well clear. Invented for Practice. */
const GAP = { oneIn: 5, smallMm: { from: 1, to: 3 }, usualMm: { from: 5, to: 7 } } as const
function gapOf(number: number): number {
  const random = randomFrom(number, 1703)
  const { from, to } = random.below(GAP.oneIn) === 0 ? GAP.smallMm : GAP.usualMm
  return from + (to - from) * random.next()
}

const SOUND: Population = { ...USUAL_POPULATION, mismatch: 0, friction: 0, hanger: 0, stops: 0, wear: 0 }
/** Practice bikes are none that the published benches play. */
const FROM_SEED = 5_000_000

const ONE: readonly Cause[] = ['tension', 'tension', 'friction', 'hanger', 'stops', 'wear', 'mismatch']
/** Taken for tension, for friction or for each other. */
const ALIKE: readonly Cause[] = ['friction', 'hanger', 'mismatch', 'stops']
const PAIRS: readonly (readonly Cause[])[] = [
  ['tension', 'stops'],
  ['tension', 'hanger'],
  ['tension', 'friction'],
  ['friction', 'hanger'],
  ['stops', 'friction'],
  ['tension', 'wear'],
]

/**
 * The bike of a number on a level; `faults` puts wrong what a lesson is about. What was put wrong is all that is wrong
 * with it: of so many bikes of that number the first of which that is true, as the bench judges truth.
 */
export function rearBike(number: number, level: Level, faults: readonly Cause[] = faultsOf(number, level)): RearBike {
  const bikes = Array.from({ length: TRIES }, (_, k) => k)
  const made = (k: number) => oneBike(number * TRIES + k, faults)
  const true_ = bikes.find(k => onlyWrong(made(k)))
  return made(true_ ?? 0)
}
const TRIES = 24

function oneBike(number: number, faults: readonly Cause[]): RearBike {
  const { setup, hidden } = seededBike(FROM_SEED + number, SOUND)
  const g = geometryOf(setup)
  const random = randomFrom(number, 1702)
  const wrong = faults.filter(f => f !== 'tension').reduce((bike, f) => withFault(g, bike, f, random), hidden)
  const off = faults.includes('tension') ? (random.next() < 0.6 ? -1 : 1) * (0.6 + 1.3 * random.next()) : 0
  return { setup, hidden: { ...wrong, cableMm: middleOf(g, wrong) + off }, faults, gapMm: gapOf(number) }
}

/** Cable in the middle of the bike's window; of the cured bike's, where it has none. */
function middleOf(g: Geometry, bike: HiddenBike): number {
  const own = cableWindowMm(g, bike, bike, true)
  const half = NEW_CABLE.backlashMm / 2
  const cured = { ...bike, camberTan: 0, ratio: g.fittedRatio, backlashInMm: half, backlashOutMm: half }
  const { from, to } = own.to > own.from ? own : cableWindowMm(g, cured, bike, true)
  return (from + to) / 2
}

function onlyWrong({ setup, hidden, faults }: RearBike): boolean {
  const { causes } = truthOf(geometryOf(setup), setup, hidden, AS_MODELLED)
  return CAUSES.every(c => causes[c] === faults.includes(c))
}

function faultsOf(number: number, level: Level): readonly Cause[] {
  const random = randomFrom(number, 1701)
  switch (level) {
    case 'one':
      return [ONE[random.below(ONE.length)]!]
    case 'alike':
      return [ALIKE[random.below(ALIKE.length)]!]
    case 'two':
      return PAIRS[random.below(PAIRS.length)]!
    case 'none':
      return random.next() < 0.6 ? [] : [ONE[random.below(ONE.length)]!]
  }
}

function withFault(g: Geometry, bike: HiddenBike, fault: Cause, random: Random): HiddenBike {
  const between = (from: number, to: number) => from + (to - from) * random.next()
  const either = () => (random.next() < 0.5 ? -1 : 1)
  switch (fault) {
    case 'friction': {
      const backlash = between(0.9, 1.5)
      return { ...bike, backlashInMm: backlash * 0.5, backlashOutMm: backlash * 0.5 }
    }
    case 'hanger':
      return { ...bike, camberTan: Math.tan(radians(either() * between(1.6, 3))) }
    case 'mismatch':
      return { ...bike, ratio: g.fittedRatio * (1 + either() * between(0.1, 0.16)) }
    case 'stops': {
      const stop = random.next() < 0.5 ? 'H' : 'L'
      const { from, to } = SAFE[stop]
      const inPitch =
        random.next() < 0.6
          ? (stop === 'H' ? to : from) + (stop === 'H' ? 1 : -1) * between(0.12, 0.4)
          : (stop === 'H' ? from : to) + (stop === 'H' ? -1 : 1) * between(0.12, 0.3)
      const end = stop === 'H' ? 0 : g.n - 1
      const place = g.placeMm[end]! + inPitch * g.pitchMm[end]!
      return stop === 'H' ? { ...bike, stopHMm: place } : { ...bike, stopLMm: place }
    }
    case 'wear': {
      const first = 1 + random.below(g.n - 3)
      return { ...bike, worn: new Set([first, first + 1]) }
    }
    case 'tension':
      return bike
  }
}
