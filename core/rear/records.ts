import { isMeasured } from '../cable/run'
import { HOUSING_PLACES, placeOfPiece } from '../cable/places'
import type { CableState } from '../cable/state'
import { figureRule, keeping, LONG, turnsRule, type RecordFigure, type RecordRule } from '../chapter/records'
import { SCREWS } from '../chapter/screws'
import { fromSixteenths } from '../quantity/turns'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import type { RearEvent } from './events'
import { barrelAssumed, gapLeft } from './facts'
import { knownBy, type RearParts } from './parts'
import type { RearState } from './state'

/** Under which standard a whole drivetrain's figures are kept when its parts are not of one trio. */
export const MIXED = 'mixed'
/** The same for parts known by typed numbers alone. */
export const TYPED = 'typed'

/** The standard a drivetrain is recorded under: its trio's, `mixed`, or `typed` when a part has none. */
export function standardOf(parts: RearParts): string {
  const ids = [parts.shifter.standard, parts.derailleur.standard, parts.cassette.standard]
  if (ids.some(id => id === null)) return TYPED
  return ids.every(id => id === ids[0]) ? ids[0]! : MIXED
}

/** A standard of the drivetrain table in numbers and words; null for one that only the shop's catalogue knows. */
export function sayRearStandard(id: string): string | null {
  if (id === MIXED) return 'parts of different standards'
  if (id === TYPED) return 'parts typed in by their numbers'
  const s = DRIVETRAIN_STANDARDS.find(x => x.id === id)
  return s ? `${s.speeds}-speed, ${s.pullMm} mm × ${s.listedRatio}, pitch ${s.pitchMm}` : null
}

export const REAR_RULES: readonly RecordRule[] = [
  figureRule('pull', 'Pull per click', 'mm', 2, 0.1),
  figureRule('cable', 'Cable over all clicks', 'mm', 1, 1),
  figureRule('ratio', 'Pull ratio', '', 3, 0.05),
  figureRule('pitch', 'Sprocket pitch', 'mm', 2, 0.05),
  ...HOUSING_PLACES.map(p => figureRule(`housing ${p}`, `Housing, ${p}`, 'mm', 0, 10, LONG, true)),
  figureRule('inner', 'Inner', 'mm', 0, 50, LONG, true),
  turnsRule('barrel', 'Barrel, net', 0.5, 'out'),
  turnsRule('barrel-out', 'Barrel as it left', 1, 'out'),
  turnsRule('H', 'H screw, net', 0.25, 'in'),
  turnsRule('L', 'L screw, net', 0.25, 'in'),
  turnsRule('B', 'B screw, net', 0.5, 'in'),
  figureRule('gap', 'B gap', 'mm', 1, 1),
  figureRule('gap-sagged', 'B gap with sag', 'mm', 1, 1),
  figureRule('hanger', 'Hanger across the wheel, as found', 'mm', 1, 1),
  turnsRule('slack', 'Slack found when it came back', 0.25, 'out'),
]

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / values.length
const sum = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0)

/**
 * What a visit leaves of a rear derailleur: numbers measured on this bike under their own part's standard, everything
 * set under the drivetrain's.
 * @param comesBack whether it came back from an earlier visit with the same parts: then what the barrel took is slack found
 */
export function rearFigures(
  { rear, cable }: { rear: RearState; cable: CableState },
  comesBack: boolean,
): RecordFigure[] {
  const { parts } = rear
  const { keep: keepUnder, kept } = keeping()
  if (!parts) return kept
  const standard = standardOf(parts)
  const keep = (figure: string, value: number | null | undefined, under = standard) => keepUnder(under, figure, value)
  if (knownBy(parts.shifter) === 'measured') {
    keep('pull', mean(parts.shifter.pullMm), parts.shifter.standard ?? TYPED)
    keep('cable', sum(parts.shifter.pullMm), parts.shifter.standard ?? TYPED)
  }
  if (knownBy(parts.derailleur) === 'measured') {
    const { ratio, pullRatio } = parts.derailleur
    keep('ratio', mean([ratio ?? pullRatio].flat()), parts.derailleur.standard ?? TYPED)
  }
  if (knownBy(parts.cassette) === 'measured')
    keep('pitch', mean(parts.cassette.pitchMm), parts.cassette.standard ?? TYPED)
  for (const h of rear.housing) keep(`housing ${h.place}`, h.lengthMm)
  // a run that was fitted on the cable bench leaves its pieces too, under the places the records know
  const run = cable.runs.find(r => r.run === 'rear')
  if (run && cable.cabled.rear?.includes('clamped'))
    for (const p of run.pieces) {
      const place = placeOfPiece(p.name)
      // a usual length or a guess is nobody's figure; a piece that was cut is as long as it was planned
      const known = isMeasured(p) || cable.cabled.rear.includes('cut')
      if (p.kind === 'housing' && place && known && !rear.housing.some(h => h.place === place))
        keep(`housing ${place}`, p.lengthMm)
    }
  keep('inner', rear.inner?.lengthMm)
  for (const screw of SCREWS) if (rear.turned.has(screw)) keep(screw, fromSixteenths(rear.net[screw]))
  if (!barrelAssumed(rear)) keep('barrel-out', fromSixteenths(rear.barrelSixteenths))
  keep('gap', gapLeft(rear, 'stand'))
  keep('gap-sagged', gapLeft(rear, 'sagged'))
  keep('hanger', rear.found.find(e => e.kind === 'gauge')?.acrossMm)
  if (comesBack && !rear.renewed.includes('cable') && !rear.restarted.has('barrel'))
    keep('slack', fromSixteenths(rear.net.barrel))
  return kept
}

/** The recorded figure that an entry typed by hand would make, if any. */
export function typedRear(event: RearEvent): { figure: string; value: number } | null {
  switch (event.kind) {
    case 'housing':
      return { figure: `housing ${event.place}`, value: event.lengthMm }
    case 'inner':
      return { figure: 'inner', value: event.lengthMm }
    case 'gap':
      return { figure: event.at === 'stand' ? 'gap' : 'gap-sagged', value: event.gapMm }
    case 'gauge':
      return { figure: 'hanger', value: event.acrossMm }
    default:
      return null
  }
}
