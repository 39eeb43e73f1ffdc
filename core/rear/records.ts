import { HOUSING_PLACES } from '../cable/places'
import { figureRule, keeping, LONG, turnsRule, type RecordFigure, type RecordRule } from '../chapter/records'
import { SCREWS } from '../chapter/screws'
import { fromSixteenths } from '../quantity/turns'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import type { RearEvent } from './events'
import { barrelAssumed } from './facts'
import { gapLeft } from './gapNext'
import { knownBy, type RearParts } from './parts'
import type { RearState } from './state'

/**
 * Under which standard a drivetrain is kept whose parts are all known by typed numbers alone; in a mix, such a part.
 */
export const TYPED = 'typed'
/** Between the parts of a mix, lever first. */
const AND = '+'
/** So many characters an id may have; a mix of long names of a shop's own is cut, and is then one with its like. */
const LONGEST = 40

/** The standard a drivetrain is recorded under: its trio's, or that of its mix, shifter + derailleur + cassette. */
export function standardOf(parts: RearParts): string {
  const ids = [parts.shifter, parts.derailleur, parts.cassette].map(p => p.standard ?? TYPED)
  return ids.every(id => id === ids[0]) ? ids[0]! : ids.join(AND).slice(0, LONGEST)
}
/** Under what a visit counts as a bike. */
export const rearStandards = ({ rear }: { rear: Pick<RearState, 'parts'> }): string[] =>
  rear.parts ? [standardOf(rear.parts)] : []

const OF_MIX = ['shifter', 'derailleur', 'cassette'] as const

/** A standard of the drivetrain table in numbers and words; null for one that only the shop's catalogue knows. */
export function sayRearStandard(id: string): string | null {
  if (id === TYPED) return 'parts typed in by their numbers'
  // what files of earlier versions call any mix
  if (id === 'mixed') return 'parts of different standards'
  const mix = id.split(AND)
  if (mix.length === OF_MIX.length) return mix.map((part, i) => `${OF_MIX[i]} ${part}`).join(', ')
  const s = DRIVETRAIN_STANDARDS.find(x => x.id === id)
  return s ? `${s.speeds}-speed, ${s.pullMm} mm × ${s.listedRatio}, pitch ${s.pitchMm}` : null
}

/** How far a barrel goes in a turn, where that was measured: a record of the derailleur it is screwed into. */
export const BARREL_TURN = 'barrel-turn'

export const REAR_RULES: readonly RecordRule[] = [
  figureRule('pull', 'Pull per click', 'mm', 2, 0.1),
  figureRule('cable', 'Cable over all clicks', 'mm', 1, 1),
  figureRule('ratio', 'Pull ratio', '', 3, 0.05),
  figureRule('pitch', 'Sprocket pitch', 'mm', 2, 0.05),
  ...HOUSING_PLACES.map(p => figureRule(`housing ${p}`, `Housing, ${p}`, 'mm', 0, 10, LONG, true)),
  figureRule('inner', 'Inner', 'mm', 0, 50, LONG, true),
  turnsRule('barrel', 'Barrel, net', 0.5, 'out'),
  turnsRule('barrel-out', 'Barrel as it left', 1, 'out'),
  figureRule(BARREL_TURN, 'Barrel, one turn', 'mm', 2, 0.05),
  turnsRule('H', 'H screw, net', 0.25, 'in'),
  turnsRule('L', 'L screw, net', 0.25, 'in'),
  turnsRule('B', 'B screw, net', 0.5, 'in'),
  figureRule('gap', 'B gap', 'mm', 1, 1),
  figureRule('gap-sagged', 'B gap with sag', 'mm', 1, 1),
  figureRule('hanger', 'Hanger across the wheel, as found', 'mm', 1, 1),
  figureRule('chain', 'Chain, longer than new', '%', 2, 0.2),
  turnsRule('slack', 'Slack found when it came back', 0.25, 'out'),
]

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / values.length
const sum = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0)

/**
 * What a visit leaves of a rear derailleur: numbers measured on this bike under their own part's standard, everything
 * set under the drivetrain's.
 * @param comesBack whether it came back from an earlier visit with the same parts: then what the barrel took is slack
 *   found
 */
export function rearFigures({ rear }: { rear: RearState }, comesBack: boolean): RecordFigure[] {
  const { parts } = rear
  const { keep: keepUnder, kept } = keeping()
  if (!parts) return kept
  const standard = standardOf(parts)
  const keep = (figure: string, value: number | null | undefined, under = standard) => keepUnder(under, figure, value)
  if (knownBy(parts.shifter) === 'measured') {
    keep('pull', mean(parts.shifter.pullMm), parts.shifter.standard ?? TYPED)
    keep('cable', sum(parts.shifter.pullMm), parts.shifter.standard ?? TYPED)
  }
  // in its other place it has another ratio: that is no figure of such derailleurs
  if (knownBy(parts.derailleur) === 'measured' && !parts.derailleur.anchor) {
    const { ratio, pullRatio } = parts.derailleur
    keep('ratio', mean([ratio ?? pullRatio].flat()), parts.derailleur.standard ?? TYPED)
  }
  if (knownBy(parts.cassette) === 'measured')
    keep('pitch', mean(parts.cassette.pitchMm), parts.cassette.standard ?? TYPED)
  if (parts.barrel.known === 'measured') keep(BARREL_TURN, parts.barrel.threadMm, parts.derailleur.standard ?? TYPED)
  keep('inner', rear.inner?.lengthMm)
  for (const screw of SCREWS) if (rear.turned.has(screw)) keep(screw, fromSixteenths(rear.net[screw]))
  if (!barrelAssumed(rear)) keep('barrel-out', fromSixteenths(rear.barrelSixteenths))
  keep('gap', gapLeft(rear, 'stand'))
  keep('gap-sagged', gapLeft(rear, 'sagged'))
  keep('chain', rear.sensed?.chainWearPercent)
  keep('hanger', rear.found.find(e => e.kind === 'gauge')?.acrossMm)
  if (comesBack && !rear.renewed.includes('cable') && !rear.restarted.has('barrel'))
    keep('slack', fromSixteenths(rear.net.barrel))
  return kept
}

/** The recorded figure that an entry typed by hand would make, if any. */
export function typedRear(event: RearEvent, { rear }: { rear: Pick<RearState, 'parts'> }): RecordFigure[] {
  const under = (figure: string, value: number): RecordFigure[] =>
    rear.parts ? [{ standard: standardOf(rear.parts), figure, value }] : []
  switch (event.kind) {
    case 'housing':
      return under(`housing ${event.place}`, event.lengthMm)
    case 'inner':
      return under('inner', event.lengthMm)
    case 'gap':
      return under(event.at === 'stand' ? 'gap' : 'gap-sagged', event.gapMm)
    case 'gauge':
      return under('hanger', event.acrossMm)
    case 'reclamp':
    case 'recount':
      return under('barrel-out', fromSixteenths(event.barrelSixteenthsOut))
    default:
      return []
  }
}
