import type { CassettePart, DerailleurPart, PartsOfShop, ShifterPart } from '../standards/partsOfShop'
import { meanOf } from '../standards/entry'
import { fitOf, quickFit, type Fit, type Trio } from './fit'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'
import { trioOf } from './trio'

/** What would make a trio that does not index do so; best first within a kind. */
export type Fix =
  | { by: 'derailleur' | 'cassette' | 'shifter'; id: string; name: string; fit: Fit }
  | { by: 'pinch-side'; factor: { from: number; to: number }; fit: Fit }
  | { by: 'pulley'; factor: { from: number; to: number }; fit: Fit }

/** Factors tried for a pull-changing pulley, and their step. */
const PULLEY = { least: 0.5, most: 2, step: 0.01 } as const
/** Parts offered of each kind. */
const OFFERED = 3

/**
 * What would fix a trio, from the catalogue and from two changes that need no other part: the other side of the pinch
 * bolt, and a pulley that changes the pull. Nothing when it already works.
 */
export function fixesFor(
  shifter: ShifterPart,
  derailleur: DerailleurPart,
  cassette: CassettePart,
  parts: PartsOfShop,
  s: Standards = TABLE_ONLY,
): Fix[] {
  const trio = trioOf(shifter, derailleur, cassette)
  if (fitOf(trio).verdict === 'works') return []
  const side = workingFactors(trio, sideFactors(s))
  const pulley = workingFactors(trio, factors(PULLEY.least, PULLEY.most))
  const full = Math.min(shifter.pullMm.length, cassette.pitchMm.length)
  return [
    ...(side ? [{ by: 'pinch-side' as const, ...side }] : []),
    ...best(
      parts.derailleurs.filter(d => d.id !== derailleur.id),
      d => trioOf(shifter, d, cassette),
      full,
    ).map(f => ({ by: 'derailleur' as const, ...f })),
    ...best(
      parts.cassettes.filter(c => c.id !== cassette.id),
      c => trioOf(shifter, derailleur, c),
      shifter.pullMm.length,
    ).map(f => ({ by: 'cassette' as const, ...f })),
    ...best(
      parts.shifters.filter(s => s.id !== shifter.id),
      s => trioOf(s, derailleur, cassette),
      cassette.pitchMm.length,
    ).map(f => ({ by: 'shifter' as const, ...f })),
    ...(pulley ? [{ by: 'pulley' as const, ...pulley }] : []),
  ]
}

/** The parts that work, using all the gears there are, widest window first. */
function best<P extends { id: string; name: string }>(
  parts: readonly P[],
  trio: (part: P) => Trio,
  gaps: number,
): { id: string; name: string; fit: Fit }[] {
  return parts
    .map(part => ({ part, quick: quickFit(trio(part)) }))
    .filter(({ quick }) => quick.verdict === 'works' && quick.gears >= gaps + 1)
    .sort((a, b) => b.quick.windowTurns - a.quick.windowTurns)
    .slice(0, OFFERED)
    .map(({ part }) => ({ id: part.id, name: part.name, fit: fitOf(trio(part)) }))
}

const factors = (from: number, to: number): number[] =>
  Array.from(
    { length: Math.round((to - from) / PULLEY.step) + 1 },
    (_, i) => Math.round((from + i * PULLEY.step) * 1000) / 1000,
  )

/** The other side may make the ratio larger or smaller: which, the bolt shows. */
const sideFactors = (s: Standards): number[] => {
  const side = targetIn(s, 'pinch-side')
  const up = factors(side.from, side.to)
  return [...up.map(f => Math.round(1000 / f) / 1000).reverse(), ...up]
}

/** The run of factors of the ratio with which the trio works, and the best of them. */
function workingFactors(
  trio: Trio,
  tried: readonly number[],
): { factor: { from: number; to: number }; fit: Fit } | null {
  const times = (f: number): Trio => ({
    ...trio,
    ratio: typeof trio.ratio === 'number' ? trio.ratio * f : trio.ratio.map(r => r * f),
  })
  const working = tried.map(f => ({ f, fit: quickFit(times(f)) })).filter(x => x.fit.verdict === 'works')
  if (!working.length) return null
  const top = working.reduce((a, b) => (b.fit.windowTurns > a.fit.windowTurns ? b : a))
  return { factor: { from: working[0].f, to: working.at(-1)!.f }, fit: fitOf(times(top.f)) }
}

/**
 * What the third part must be, where two are chosen, and which of the catalogue are it. Null unless exactly one is
 * missing.
 */
type Third = { what: 'shifter' | 'derailleur' | 'cassette'; needs: string; fits: ReturnType<typeof best> }

export function thirdPart(
  shifter: ShifterPart | null,
  derailleur: DerailleurPart | null,
  cassette: CassettePart | null,
  parts: PartsOfShop,
): Third | null {
  if (shifter && derailleur && !cassette)
    return {
      what: 'cassette',
      needs: `sprockets ${(meanOf(shifter.pullMm) * meanOf(derailleur.ratio)).toFixed(2)} mm apart`,
      fits: best(parts.cassettes, c => trioOf(shifter, derailleur, c), shifter.pullMm.length),
    }
  if (shifter && cassette && !derailleur)
    return {
      what: 'derailleur',
      needs: `a pull ratio of ${fitOf(trioOf(shifter, { ratio: 1 }, cassette)).ratioNeeded.toFixed(2)}`,
      fits: best(
        parts.derailleurs,
        d => trioOf(shifter, d, cassette),
        Math.min(shifter.pullMm.length, cassette.pitchMm.length),
      ),
    }
  if (derailleur && cassette && !shifter)
    return {
      what: 'shifter',
      needs: `${(meanOf(cassette.pitchMm) / meanOf(derailleur.ratio)).toFixed(2)} mm of cable a click`,
      fits: best(parts.shifters, s => trioOf(s, derailleur, cassette), cassette.pitchMm.length),
    }
  return null
}

/** What one click does against what it should, in words: the reason behind a verdict. */
export function sayPerClick({ pullMm, ratio, pitchMm }: Trio): string {
  const travel = meanOf([...pullMm]) * meanOf(typeof ratio === 'number' ? ratio : [...ratio])
  const pitch = meanOf([...pitchMm])
  const over = travel - pitch
  return `One click moves the pulley ${travel.toFixed(2)} mm, the sprockets are ${pitch.toFixed(2)} mm apart: ${Math.abs(over) < 0.005 ? 'nothing' : `${Math.abs(over).toFixed(2)} mm ${over > 0 ? 'too much' : 'too little'}`} a click.`
}
