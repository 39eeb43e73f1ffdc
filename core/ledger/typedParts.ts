import { DRIVETRAIN_STANDARDS, USUAL_TEETH, fittedRatio, type DrivetrainStandard } from '../standards/drivetrains'
import { matchDrivetrain, matchVerdict, type Match } from '../standards/match'
import { RearParts, setupOf } from './parts'

/** A drivetrain as a person types it: figures as text, a list where they are uneven. */
export type TypedParts = {
  shifterStandard: string
  speeds: string
  pullMm: string
  derailleurStandard: string
  pullRatio: string
  cassetteStandard: string
  teeth: string
  pitchMm: string
  turnsOut: string
  rangeTurns: string
  /** Which way the derailleur's spring pulls, and whether the lever has clicks. */
  spring: 'high' | 'low'
  lever: 'clicks' | 'friction'
}

/** Parts of a stock trio, the barrel not counted. @throws RangeError for an id that is not in the table */
export function stockParts(id: string, barrelTurnsOut = 3): RearParts {
  const s = standardById(id)
  if (!s) throw new RangeError(`standard ${id} is not in the table`)
  const read = readTypedParts({ ...typedFromStandard(s), turnsOut: String(barrelTurnsOut) })
  if (read.is === 'wrong') throw new RangeError(`standard ${id}: ${Object.values(read.fields).join(', ')}`)
  return { ...read.parts, barrel: { ...read.parts.barrel, assumed: true } }
}

export const standardById = (id: string): DrivetrainStandard | undefined => DRIVETRAIN_STANDARDS.find(s => s.id === id)

/** The lines a stock trio fills in. Teeth are a usual spread, to be looked at on the bike. */
export function typedFromStandard(s: DrivetrainStandard): TypedParts {
  return {
    shifterStandard: s.id, speeds: String(s.speeds), pullMm: String(s.pullMm),
    derailleurStandard: s.id, pullRatio: String(s.listedRatio),
    cassetteStandard: s.id, teeth: USUAL_TEETH[s.speeds].join(' '), pitchMm: String(s.pitchMm),
    turnsOut: '', rangeTurns: '6', spring: 'high', lever: 'clicks',
  }
}

/** The lines of parts already known, as on a last sheet. */
export function typedFromParts(parts: RearParts, turnsOut: number | null): TypedParts {
  const even = (values: readonly number[]) => (values.every(v => v === values[0]) ? String(values[0]) : values.join(' '))
  return {
    shifterStandard: parts.shifter.standard ?? '', speeds: String(parts.shifter.pullMm.length + 1), pullMm: even(parts.shifter.pullMm),
    derailleurStandard: parts.derailleur.standard ?? '', pullRatio: String(parts.derailleur.pullRatio),
    cassetteStandard: parts.cassette.standard ?? '', teeth: parts.cassette.teeth.join(' '), pitchMm: even(parts.cassette.pitchMm),
    turnsOut: turnsOut === null ? '' : String(turnsOut), rangeTurns: String(parts.barrel.rangeTurns),
    spring: parts.derailleur.spring ?? 'high', lever: parts.shifter.friction ? 'friction' : 'clicks',
  }
}

const numbers = (text: string): number[] => text.trim().split(/[\s;/]+|,\s+/).filter(Boolean).map(t => Number(t.replace(',', '.')))
const number = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')))

export type ReadParts = { is: 'parts'; parts: RearParts } | { is: 'wrong'; fields: Partial<Record<keyof TypedParts, string>> }

/** Thread of a rear barrel, M5×0.8. `std` ISO 261; which barrel has it is `memory` */
const BARREL_THREAD_MM = 0.8

/** Reads what was typed; each wrong line with what to do about it. */
export function readTypedParts(typed: TypedParts): ReadParts {
  const fields: Partial<Record<keyof TypedParts, string>> = {}
  const speeds = number(typed.speeds)
  if (!Number.isInteger(speeds) || speeds < 2 || speeds > 14) fields.speeds = 'Speeds: a whole number from 2 to 14'
  const teeth = numbers(typed.teeth)
  if (teeth.length < 2 || teeth.some(t => !Number.isFinite(t))) fields.teeth = 'Teeth: type each sprocket, smallest first, with spaces between'
  const spread = (text: string, count: number, field: keyof TypedParts, what: string): number[] => {
    const list = numbers(text)
    if (!list.length || list.some(v => !Number.isFinite(v))) fields[field] = `${what}: type a number in mm`
    else if (list.length === 1) return new Array<number>(Math.max(0, count)).fill(list[0])
    else if (list.length !== count) fields[field] = `${what}: type one number, or ${count} of them`
    return list
  }
  const pullMm = spread(typed.pullMm, fields.speeds ? 1 : speeds - 1, 'pullMm', 'Pull per click')
  const pitchMm = spread(typed.pitchMm, fields.teeth ? 1 : teeth.length - 1, 'pitchMm', 'Sprocket pitch')
  const pullRatio = number(typed.pullRatio)
  if (!Number.isFinite(pullRatio)) fields.pullRatio = 'Pull ratio: type a number, such as 1.7'
  const rangeTurns = number(typed.rangeTurns)
  if (!Number.isFinite(rangeTurns)) fields.rangeTurns = 'Barrel travel: type its turns, such as 6'
  const counted = typed.turnsOut.trim() !== ''
  const turnsOut = counted ? number(typed.turnsOut) : rangeTurns / 2
  if (counted && !Number.isFinite(turnsOut)) fields.turnsOut = 'Barrel out: type the turns, or leave it empty'
  if (Object.keys(fields).length) return { is: 'wrong', fields }
  const read = RearParts.safeParse({
    shifter: { standard: typed.shifterStandard || null, pullMm, ...(typed.lever === 'friction' ? { friction: true } : {}) },
    derailleur: { standard: typed.derailleurStandard || null, pullRatio, ...(typed.spring === 'low' ? { spring: 'low' } : {}) },
    cassette: { standard: typed.cassetteStandard || null, teeth, pitchMm },
    barrel: { threadMm: BARREL_THREAD_MM, turnsOut: Math.round(turnsOut * 16) / 16, rangeTurns, assumed: !counted },
  })
  if (read.success) return { is: 'parts', parts: read.data }
  for (const issue of read.error.issues) fields[FIELD_OF[issue.path.slice(0, 2).join('.')] ?? 'teeth'] ??= issue.message
  return { is: 'wrong', fields }
}

const FIELD_OF: Record<string, keyof TypedParts> = {
  'shifter.pullMm': 'pullMm', 'derailleur.pullRatio': 'pullRatio', 'cassette.teeth': 'teeth', 'cassette.pitchMm': 'pitchMm', 'barrel.turnsOut': 'turnsOut', 'barrel.rangeTurns': 'rangeTurns',
}


/** The ratio sums go by: a listed one is rounded, so a part of the table counts with the ratio that makes its own trio meet. */
export function ratioForSums(parts: RearParts): number {
  const standard = parts.derailleur.standard ? standardById(parts.derailleur.standard) : undefined
  return standard && standard.listedRatio === parts.derailleur.pullRatio ? fittedRatio(standard) : parts.derailleur.pullRatio
}

export type PartsMatch = Match & { verdict: 'works' | 'care' | 'will-not-index'; words: string; ratio: number }

/** Whether the three parts go together, in millimetres gear by gear and in words. */
export function matchOfParts(parts: RearParts): PartsMatch {
  const { pullMm, pitchMm, teeth } = setupOf(parts)
  const ratio = ratioForSums(parts)
  const match = matchDrivetrain({ pullMm, pullRatio: ratio, pitchMm })
  const verdict = matchVerdict(match, pitchMm)
  const worst = match.errorMm.reduce((a, e, i) => (Math.abs(e) > Math.abs(match.errorMm[a]) + 1e-9 ? i : a), 0)
  const off = `${match.worstMm.toFixed(2)} mm off at the ${teeth[worst]} after the best offset`
  const words = verdict === 'works'
    ? `They go together: at most ${match.worstMm.toFixed(2)} mm off.`
    : verdict === 'care'
      ? `Works with care in the end gears: ${off}.`
      : `Will not index: ${off}. It needs a pull ratio of ${match.ratioNeeded.toFixed(2)}, this is ${ratio.toFixed(2)}.`
  return { ...match, verdict, words, ratio }
}
