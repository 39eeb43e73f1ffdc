import { anchorFactor, type Anchor } from '../standards/anchor'
import { M5_PITCH_MM } from '../standards/tables/threads'
import { DRIVETRAIN_STANDARDS, USUAL_TEETH, fittedRatio, type DrivetrainStandard } from '../standards/drivetrains'
import { readTeeth } from '../standards/teeth'
import { typedNumber, typedNumbers } from '../quantity/typed'
import { meanOf } from '../standards/entry'
import { fitOf, sayFit, type Fit } from './fit'
import { inForceFigure, type EntryInForce } from '../standards/shopValues'
import { KNOWN_BY, RearParts, setupOf, type KnownBy } from './parts'

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
  /** How far the barrel's sleeve comes out in `THREAD_TURNS` turns, mm; empty: as usual. */
  sleeveMm: string
  /** How that is known; empty: as usual. */
  sleeveKnown: KnownBy | ''
  /** Which way the derailleur's spring pulls, and whether the lever has clicks. */
  spring: 'high' | 'low'
  lever: 'clicks' | 'friction'
  /** Where the cable lies under its bolt: in the place that the ratio is of, or in the other. */
  anchor: Anchor | ''
  /** Ratio the sums go by where it is known better than the listed one; empty: as listed. */
  ratio: string
  /** How each part's numbers are known; empty: by its standard, else typed. */
  shifterKnown: KnownBy | ''
  derailleurKnown: KnownBy | ''
  cassetteKnown: KnownBy | ''
}

/** Lines that do not say how their part is known. */
const UNSAID = {
  ratio: '',
  shifterKnown: '',
  derailleurKnown: '',
  cassetteKnown: '',
  sleeveMm: '',
  sleeveKnown: '',
} as const

/** A barrel's thread is measured over so many turns: one is too short for a caliper. `practice` */
export const THREAD_TURNS = 4
const round = (mm: number): number => Math.round(mm * 1000) / 1000
/** A thread as it is typed. @param turnMm mm a turn */
export const sleeveOf = (turnMm: number, known: KnownBy): Pick<TypedParts, 'sleeveMm' | 'sleeveKnown'> => ({
  sleeveMm: String(round(THREAD_TURNS * turnMm)),
  sleeveKnown: known,
})

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
    shifterStandard: s.id,
    speeds: String(s.speeds),
    pullMm: String(s.pullMm),
    derailleurStandard: s.id,
    pullRatio: String(s.listedRatio),
    cassetteStandard: s.id,
    teeth: USUAL_TEETH[s.speeds].join(' '),
    pitchMm: String(s.pitchMm),
    turnsOut: '',
    rangeTurns: '6',
    spring: 'high',
    lever: 'clicks',
    anchor: '',
    ...UNSAID,
  }
}

/** The lines one part of a shop's catalogue fills in: what was measured here beats the table, and is said. */
export function typedFromEntry(entry: EntryInForce): Partial<TypedParts> {
  const figure = (key: string) => inForceFigure(entry, key)
  const shop = (key: string): KnownBy => (figure(key)?.provenance === 'shop' ? 'shop' : 'table')
  const text = (key: string) => {
    const value = figure(key)!.value
    return typeof value === 'number' ? String(value) : value.join(' ')
  }
  switch (entry.kind) {
    case 'shifter':
      return { shifterStandard: entry.id, shifterKnown: shop('pullMm'), speeds: text('speeds'), pullMm: text('pullMm') }
    case 'derailleur': {
      const ratio = figure('ratio')!
      const turn = figure('turnMm')
      // the table's own fitted ratio follows from the standard and need not be said
      const better = ratio.table === null || ratio.value !== ratio.table.value
      return {
        derailleurStandard: entry.id,
        derailleurKnown: shop('ratio'),
        pullRatio: figure('listedRatio') ? text('listedRatio') : String(meanOf(ratio.value)),
        ratio: better ? text('ratio') : '',
        ...(turn?.provenance === 'shop'
          ? sleeveOf(meanOf(turn.value), 'shop')
          : { sleeveMm: UNSAID.sleeveMm, sleeveKnown: UNSAID.sleeveKnown }),
      }
    }
    case 'cassette':
      return {
        cassetteStandard: entry.id,
        cassetteKnown: shop('pitchMm'),
        pitchMm: text('pitchMm'),
        teeth: (USUAL_TEETH[meanOf(figure('speeds')!.value)] ?? []).join(' '),
      }
    default:
      return {}
  }
}

/**
 * The lines a stock trio fills in, part by part as it counts in this shop. Empty for an id that is not in the table.
 */
export function typedFromCatalogue(id: string, catalogue: readonly EntryInForce[]): Partial<TypedParts> {
  const s = standardById(id)
  if (!s) return {}
  const entries = (['shifter', 'derailleur', 'cassette'] as const).map(kind =>
    catalogue.find(e => e.kind === kind && e.id === id),
  )
  return Object.assign({}, typedFromStandard(s), ...entries.map(e => (e ? typedFromEntry(e) : {})))
}

/** What is of this bike and stays, whichever parts are chosen for it. */
export const ofThisBike = (typed: TypedParts): Partial<TypedParts> => {
  const { turnsOut, rangeTurns, spring, lever, anchor, sleeveMm, sleeveKnown } = typed
  return {
    turnsOut,
    rangeTurns,
    spring,
    lever,
    anchor,
    ...(sleeveKnown === 'measured' ? { sleeveMm, sleeveKnown } : {}),
  }
}

/** The row of the table that all three parts are of; '' where they are mixed or typed. */
export const wholeStandard = (t: TypedParts): string =>
  t.shifterStandard === t.derailleurStandard && t.derailleurStandard === t.cassetteStandard ? t.shifterStandard : ''

/** Lines with nothing of the three parts in them yet. */
export const NOTHING_TYPED: TypedParts = {
  ...typedFromStandard(DRIVETRAIN_STANDARDS[0]!),
  shifterStandard: '',
  speeds: '',
  pullMm: '',
  derailleurStandard: '',
  pullRatio: '',
  cassetteStandard: '',
  teeth: '',
  pitchMm: '',
}

/** The lines of parts already known, as on a last sheet. */
export function typedFromParts(parts: RearParts, turnsOut: number | null): TypedParts {
  const even = (values: readonly number[]) =>
    values.every(v => v === values[0]) ? String(values[0]) : values.join(' ')
  return {
    shifterStandard: parts.shifter.standard ?? '',
    speeds: String(parts.shifter.pullMm.length + 1),
    pullMm: even(parts.shifter.pullMm),
    derailleurStandard: parts.derailleur.standard ?? '',
    pullRatio: String(parts.derailleur.pullRatio),
    cassetteStandard: parts.cassette.standard ?? '',
    teeth: parts.cassette.teeth.join(' '),
    pitchMm: even(parts.cassette.pitchMm),
    turnsOut: turnsOut === null ? '' : String(turnsOut),
    rangeTurns: String(parts.barrel.rangeTurns),
    spring: parts.derailleur.spring ?? 'high',
    lever: parts.shifter.friction ? 'friction' : 'clicks',
    anchor: parts.derailleur.anchor ?? '',
    ...(parts.barrel.known
      ? sleeveOf(parts.barrel.threadMm, parts.barrel.known)
      : { sleeveMm: UNSAID.sleeveMm, sleeveKnown: UNSAID.sleeveKnown }),
    ratio: parts.derailleur.ratio === undefined ? '' : even([parts.derailleur.ratio].flat()),
    shifterKnown: parts.shifter.known ?? '',
    derailleurKnown: parts.derailleur.known ?? '',
    cassetteKnown: parts.cassette.known ?? '',
  }
}

export type ReadParts =
  | { is: 'parts'; parts: RearParts }
  | { is: 'wrong'; fields: Partial<Record<keyof TypedParts, string>> }

/** Reads what was typed; each wrong line with what to do about it. */
export function readTypedParts(typed: TypedParts): ReadParts {
  const fields: Partial<Record<keyof TypedParts, string>> = {}
  const speeds = typedNumber(typed.speeds)
  if (!Number.isInteger(speeds) || speeds < 2 || speeds > 14) fields.speeds = 'Speeds: a whole number from 2 to 14'
  const cassette = readTeeth(typed.teeth, fields.speeds ? null : speeds)
  const teeth = 'teeth' in cassette ? cassette.teeth : []
  if ('wrong' in cassette) fields.teeth = cassette.wrong
  const spread = (text: string, count: number, field: keyof TypedParts, what: string): number[] => {
    const list = typedNumbers(text)
    if (!list.length || list.some(v => !Number.isFinite(v))) fields[field] = `${what}: type a number in mm`
    else if (list.length === 1) return new Array<number>(Math.max(0, count)).fill(list[0])
    else if (list.length !== count) fields[field] = `${what}: type one number, or ${count} of them`
    return list
  }
  const pullMm = spread(typed.pullMm, fields.speeds ? 1 : speeds - 1, 'pullMm', 'Pull per click')
  const pitchMm = spread(typed.pitchMm, fields.teeth ? 1 : teeth.length - 1, 'pitchMm', 'Sprocket pitch')
  const pullRatio = typedNumber(typed.pullRatio)
  if (!Number.isFinite(pullRatio)) fields.pullRatio = 'Pull ratio: type a number, such as 1.7'
  const rangeTurns = typedNumber(typed.rangeTurns)
  if (!Number.isFinite(rangeTurns)) fields.rangeTurns = 'Barrel travel: type its turns, such as 6'
  const counted = typed.turnsOut.trim() !== ''
  const turnsOut = counted ? typedNumber(typed.turnsOut) : rangeTurns / 2
  if (counted && !Number.isFinite(turnsOut)) fields.turnsOut = 'Barrel out: type the turns, or leave it empty'
  const sleeve = readSleeve(typed)
  if (typeof sleeve === 'string') fields.sleeveMm = sleeve
  const ratios = typedNumbers(typed.ratio)
  if (ratios.some(r => !Number.isFinite(r))) fields.pullRatio = 'Pull ratio: type a number, such as 1.7'
  if (Object.keys(fields).length) return { is: 'wrong', fields }
  const known = (how: string) => (KNOWN_BY.some(k => k === how) ? { known: how } : {})
  const read = RearParts.safeParse({
    shifter: {
      standard: typed.shifterStandard || null,
      ...known(typed.shifterKnown),
      pullMm,
      ...(typed.lever === 'friction' ? { friction: true } : {}),
    },
    derailleur: {
      standard: typed.derailleurStandard || null,
      ...known(typed.derailleurKnown),
      pullRatio,
      ...(ratios.length ? { ratio: ratios.length === 1 ? ratios[0] : ratios } : {}),
      ...(typed.spring === 'low' ? { spring: 'low' } : {}),
      ...(typed.anchor ? { anchor: typed.anchor } : {}),
    },
    cassette: { standard: typed.cassetteStandard || null, ...known(typed.cassetteKnown), teeth, pitchMm },
    barrel: {
      ...(typeof sleeve === 'string' ? {} : sleeve),
      turnsOut: Math.round(turnsOut * 16) / 16,
      rangeTurns,
      assumed: !counted,
    },
  })
  if (read.success) return { is: 'parts', parts: read.data }
  for (const issue of read.error.issues) fields[FIELD_OF[issue.path.slice(0, 2).join('.')] ?? 'teeth'] ??= issue.message
  return { is: 'wrong', fields }
}

/** The barrel's thread as typed, or as usual; what is wrong with it in words. */
function readSleeve({ sleeveMm, sleeveKnown }: TypedParts): Pick<RearParts['barrel'], 'threadMm' | 'known'> | string {
  if (sleeveMm.trim() === '') return { threadMm: M5_PITCH_MM }
  const out = typedNumber(sleeveMm)
  const [least, most] = [THREAD_TURNS * 0.5, THREAD_TURNS * 1.5]
  return out >= least && out <= most
    ? { threadMm: round(out / THREAD_TURNS), known: sleeveKnown || 'measured' }
    : `${THREAD_TURNS} turns bring a sleeve out by ${least} to ${most} mm: count and measure again, or leave it empty`
}

const FIELD_OF: Record<string, keyof TypedParts> = {
  'shifter.pullMm': 'pullMm',
  'derailleur.pullRatio': 'pullRatio',
  'derailleur.ratio': 'pullRatio',
  'cassette.teeth': 'teeth',
  'cassette.pitchMm': 'pitchMm',
  'barrel.turnsOut': 'turnsOut',
  'barrel.rangeTurns': 'rangeTurns',
  'barrel.threadMm': 'sleeveMm',
}

/**
 * The ratio sums go by: a measured one as it is, its mean along the travel where it is uneven. A listed one is rounded,
 * so a part of the table counts with the ratio that makes its own trio meet.
 */
export function ratioForSums(parts: RearParts): number {
  const { ratio, standard: id, pullRatio } = parts.derailleur
  const factor = anchorFactor(parts.derailleur)
  if (typeof ratio === 'number') return ratio * factor
  if (ratio !== undefined) return setupOf(parts).pullRatio
  const standard = id ? standardById(id) : undefined
  return (standard && standard.listedRatio === pullRatio ? fittedRatio(standard) : pullRatio) * factor
}

/** Is the ratio of the sums only a listed figure, so rounded? */
export const ratioIsRounded = (parts: RearParts): boolean =>
  parts.derailleur.ratio === undefined && ratioForSums(parts) === setupOf(parts).pullRatio

type PartsMatch = Fit & { words: string }

/** Whether the three parts go together, in millimetres gear by gear and in words. */
export function matchOfParts(parts: RearParts): PartsMatch {
  const { pullMm, pitchMm, teeth } = setupOf(parts)
  const fit = fitOf({ pullMm, ratio: ratioForSums(parts), pitchMm }, parts.barrel.threadMm)
  return { ...fit, words: sayFit(fit, k => String(teeth[k])) }
}

/** Lines with what was measured over them; the teeth stay those of the bike while their number is the same. */
export function withMeasured(was: TypedParts, measured: Partial<TypedParts>): TypedParts {
  const now = { ...was, ...measured }
  const teeth = typedNumbers(was.teeth)
  return teeth.length > 1 && typedNumbers(now.teeth).length === teeth.length ? { ...now, teeth: was.teeth } : now
}
