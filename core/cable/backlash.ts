import { notNegative, positive } from '../quantity/check'
import { cableWindowMm } from '../response/window'
import { geometryOf, type RearSetup } from '../response/setup'
import type { Condition, Run } from './run'
import { MU } from './friction'
import { HOUSING_SHARE, SPRING_PULL_N, wireStiffness } from './stretch'
import { stretches } from './wire'

/**
 * Backlash of the pulley from friction spread along a run, mm: h = g·(T/k)·2(cosh a − 1)/a with a = μφ, and g·drag/k
 * for a constant drag (a seal, grit, a kink). Model, section 1.
 * @param p g, mm of pulley per mm of cable; T, the spring's pull, N; k, N/mm; a, no unit; drag, N
 * @throws RangeError naming the argument
 */
export function backlashMm(p: {
  ratio: number
  pullN: number
  stiffness: number
  frictionAngle: number
  dragN?: number
}): number {
  positive('ratio', p.ratio)
  notNegative('pullN', p.pullN)
  positive('stiffness', p.stiffness)
  notNegative('frictionAngle', p.frictionAngle)
  const drag = p.dragN ?? 0
  notNegative('dragN', drag)
  const a = p.frictionAngle
  // (cosh a − 1)/a loses all its digits near nought: its series there
  const spread = a < 1e-4 ? a / 2 : (Math.cosh(a) - 1) / a
  return p.ratio * ((p.pullN / p.stiffness) * 2 * spread + drag / p.stiffness)
}

/**
 * The same of a whole run of shift cable, piece by piece from the derailleur: bare wire gives as wire only, and what a
 * bend takes is felt by all the wire on its lever's side. For one piece of housing with its bends spread over it this
 * is the formula above.
 */
export function backlashOfRun(run: Run, ratio: number, mu = MU[run.condition]): number {
  positive('ratio', ratio)
  const perWireMm = 1 / wireStiffness(1, 'shift')
  let a = 0
  let stretchMm = 0
  for (const piece of stretches(run, mu)) {
    const gives = perWireMm * (piece.wireMm + HOUSING_SHARE * piece.housingMm)
    // between pulling in and letting out the tension differs by 2T·sinh a: its mean over the piece
    const differs = piece.a < 1e-6 ? 2 * Math.sinh(a) : (2 * (Math.cosh(a + piece.a) - Math.cosh(a))) / piece.a
    stretchMm += SPRING_PULL_N * gives * differs
    a += piece.a
  }
  return ratio * stretchMm
}

/** Turns of the barrel in which every gear is clean with so much backlash, all else right; below 0 there is none. */
export function windowTurnsWith(setup: RearSetup, ratio: number, backlash: number): number {
  const g = geometryOf(setup)
  const { from, to } = cableWindowMm(
    g,
    {
      cableMm: 0,
      ratio,
      backlashInMm: backlash / 2,
      backlashOutMm: backlash / 2,
      camberTan: 0,
      bowMm: 0,
      stopHMm: 0,
      stopLMm: 0,
    },
    { sharpness: 1, asymmetryPitch: 0 },
    true,
  )
  return (to - from) / setup.barrelPitchMm
}

/** What the shifting says against what the bends explain. `heard` with the middle 80 % of its belief, mm. */
export function againstHeard(bendsMm: number, heard: { low: number; high: number }): 'more' | 'less' | 'agrees' {
  return bendsMm < heard.low ? 'more' : bendsMm > heard.high ? 'less' : 'agrees'
}
export const AGAINST_HEARD_WORDS = {
  more: 'The shifting says more friction than these bends explain: look for a kink, grit, a ferrule not home or a weak spring.',
  less: 'The shifting says less friction than these bends: the wire is better than it was taken for.',
  agrees: 'The bends explain what the shifting says.',
} as const

type Gain = { what: string; run: Run; condition: Condition }

/**
 * What could be done to a run: a new liner, its tight bends opened, one bend less. Best first is for the caller to see.
 */
export function remedies(run: Run, leastMm: number): Gain[] {
  const out: Gain[] = []
  if (run.condition !== 'new')
    out.push({ what: 'New wire and liner', run: { ...run, condition: 'new' }, condition: 'new' })
  const open = (bend: { deg: number; radiusMm: number }) => ({ ...bend, radiusMm: Math.max(bend.radiusMm, leastMm) })
  const bends = run.pieces.flatMap(p => (p.kind === 'housing' ? p.bends : p.kind === 'guide' ? [p.bend] : []))
  if (bends.some(b => b.radiusMm < leastMm))
    out.push({
      what: 'Tight bends opened',
      condition: run.condition,
      run: {
        ...run,
        pieces: run.pieces.map(p =>
          p.kind === 'housing'
            ? { ...p, bends: p.bends.map(open) }
            : p.kind === 'guide'
              ? { ...p, bend: open(p.bend) }
              : p,
        ),
      },
    })
  const less = oneBendLess(run)
  if (less) out.push({ what: `One bend of ${less.deg}° less`, condition: run.condition, run: less.run })
  return out
}

/**
 * The same run with the widest bend of its housing laid straight; one of them where several are as wide. Null where its
 * housing has no bends: what bare wire is led round stays.
 */
export function oneBendLess(run: Run): { run: Run; deg: number } | null {
  const deg = Math.max(0, ...run.pieces.flatMap(p => (p.kind === 'housing' ? p.bends.map(b => b.deg) : [])))
  if (deg === 0) return null
  let gone = false
  const stays = (b: { deg: number }): boolean => gone || b.deg !== deg || !(gone = true)
  const pieces = run.pieces.map(p => (p.kind === 'housing' ? { ...p, bends: p.bends.filter(stays) } : p))
  return { run: { ...run, pieces }, deg }
}
