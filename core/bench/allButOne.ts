import type { KnownPrior, Unknown } from '../advice/prior'
import { geometryOf, type RearSetup } from '../response/setup'
import type { HiddenBike } from './bench'

/*
 * How few touches could do: the advice told the truth of all but one kind of unknown. It still has to look at both
 * stops, hear each sprocket and turn what is to be turned, so what it takes then is a bound of what it can take at all.
 */

export const KINDS = {
  cable: ['cable'],
  friction: ['lnBacklash', 'inwardShare'],
  'ratio and hanger': ['lnRatio', 'camber', 'bow'],
  stops: ['stopH', 'stopL', 'mmPerTurnH', 'mmPerTurnL'],
  ear: ['lnSharpness', 'asymmetry'],
} as const satisfies Record<string, readonly Unknown[]>
export type Kind = keyof typeof KINDS
export const TOLD = ['everything', ...(Object.keys(KINDS) as Kind[]), 'nothing'] as const
/** What is left to be found out; `nothing` told is the advice as it always starts. */
export type Told = (typeof TOLD)[number]

/**
 * How far what is told may be off, standard deviation in the filter's own terms: a needle's point leaves a filter of
 * 800 particles nothing to move. `model`
 */
const OFF: Record<Unknown, number> = {
  cable: 0.05,
  lnBacklash: 0.08,
  inwardShare: 0.03,
  lnRatio: 0.002,
  camber: 0.002,
  bow: 0.03,
  asymmetry: 0.004,
  stopH: 0.1,
  stopL: 0.1,
  mmPerTurnH: 0.04,
  mmPerTurnL: 0.04,
  lnSharpness: 0.04,
}

/** What the advice starts from when it is told a bike but for one kind of unknown. Worn sprockets are told as odds. */
export function toldOf(setup: RearSetup, bike: HiddenBike, told: Told): KnownPrior | undefined {
  if (told === 'nothing') return undefined
  const backlashMm = bike.backlashInMm + bike.backlashOutMm
  const truth: Record<Unknown, number> = {
    cable: bike.cableMm,
    lnBacklash: Math.log(backlashMm),
    inwardShare: bike.backlashInMm / backlashMm,
    lnRatio: Math.log(bike.ratio / geometryOf(setup).fittedRatio),
    camber: Math.atan(bike.camberTan),
    bow: bike.bowMm,
    asymmetry: bike.asymmetryPitch,
    stopH: bike.stopHMm,
    stopL: bike.stopLMm,
    mmPerTurnH: bike.mmPerTurnH,
    mmPerTurnL: bike.mmPerTurnL,
    lnSharpness: Math.log(bike.sharpness),
  }
  const open: readonly Unknown[] = told === 'everything' ? [] : KINDS[told]
  const known = (Object.keys(truth) as Unknown[]).filter(u => !open.includes(u))
  return {
    ...Object.fromEntries(known.map(u => [u, { mean: truth[u], sd: OFF[u] }])),
    sure: true,
    odds: { wear: bike.worn.size ? 12 : 1 / 12 },
  }
}
