import { entropy, normalised } from '../inference/information'
import type { CassettePart, DerailleurPart, PartsOfShop, ShifterPart } from './partsOfShop'
import { MEASUREMENT_RULES, MEASUREMENTS, readingOf, type Measurement, type Readings } from './measuring'

/** How far real parts lie from the table's numbers, as a share of them. `model` */
const TABLE_SPREAD = { pull: 0.008, ratio: 0.01, pitch: 0.003 } as const
/** The same for thickness and chain width, mm. `model` */
const THICKNESS_SPREAD_MM = 0.05
const CHAIN_SPREAD_MM = 0.08
/** Chance of miscounting by one, and by more. `model` */
const MISCOUNT = { byOne: 0.01, more: 1e-6 } as const
/** Most bikes still have the three parts of one trio; and now and then a part is in no table. `model` */
const STOCK_SHARE = 0.6
const UNLIKE_ANY = 0.15
/** What a part in no table may measure, so that "none of these" can win: uniform over the measurement's bounds. */
const unlikeAny = (m: Measurement): number =>
  MEASUREMENT_RULES[m].counted ? 1 / 13 : 1 / (MEASUREMENT_RULES[m].most - MEASUREMENT_RULES[m].least)
const RATIO_SPAN = 2.5

/** Candidates that together hold this much of the belief cannot be told apart. */
const SETTLED = 0.95
/** "None of these" is the answer from here. */
const NONE_OF_THESE = 0.5
/** A part is named from this chance, and not below. */
const NAMED = 0.8
/** A reading this many of its own errors away from every part of the table is of none of them. */
const MISFIT = 3
/**
 * A part in no table that lies so far off a row of it must be excluded, one-sided, before that row is named: 1 in 20.
 */
const OFF_TABLE = { share: 0.06, errors: 1.645 } as const

export type Candidate = { ids: string[]; names: string[]; chance: number }
/**
 * What the measurements say of one part. `apart`: the candidates that cannot be told apart; one alone is only likeliest
 * where what was read could as well be a part in no table.
 */
export type PartAnswer = {
  is: 'nothing' | 'named' | 'apart' | 'none'
  candidates: Candidate[]
  none: number
  apart: Candidate[]
  /** Of none of these, the candidate whose figures lie nearest; null else, or where only counts were told. */
  nearest: Candidate | null
}
export type Identified = Record<'shifter' | 'derailleur' | 'cassette', PartAnswer> & {
  /** The measurement that would tell most of what is still open, and between which. */
  next: { measure: Measurement; between: string[] } | null
  /** Ratio from the two travels, with its spread; null until both are measured. */
  ratio: { mean: number; sd: number } | null
}

type Of = 'shifter' | 'derailleur' | 'cassette'
const OF: readonly Of[] = ['shifter', 'derailleur', 'cassette']

/**
 * Which parts of a catalogue were measured: the chance of each, by what its numbers would have read. Parts of one trio
 * lend each other belief, since most bikes still have them together.
 * @param parts the catalogue's rear parts, the shop's own values in force
 * @param readings what was measured, each with its repeats and reading error
 */
export function identify(parts: PartsOfShop, readings: Readings): Identified {
  const ratio = ratioOf(readings)
  const chances = believe(parts, readings)
  const answer = Object.fromEntries(
    OF.map(of => [of, answerOf(of, listOf(parts, of), chances[of], readings)]),
  ) as Record<Of, PartAnswer>
  return { ...answer, ratio, next: nextMeasurement(parts, readings, chances) }
}

const listOf = (parts: PartsOfShop, of: Of): readonly (ShifterPart | DerailleurPart | CassettePart)[] =>
  of === 'shifter' ? parts.shifters : of === 'derailleur' ? parts.derailleurs : parts.cassettes
const told = (of: Of, readings: Readings): boolean =>
  of === 'derailleur'
    ? ratioOf(readings) !== null
    : MEASUREMENTS.some(m => MEASUREMENT_RULES[m].of === of && readings[m])

/** Pull ratio of the two travels and its spread: relative errors add in squares. */
export function ratioOf(readings: Readings): { mean: number; sd: number } | null {
  if (!readings.pulleyMm || !readings.pulledMm) return null
  const pulley = readingOf(readings.pulleyMm)
  const cable = readingOf(readings.pulledMm)
  const mean = pulley.mean / cable.mean
  return { mean, sd: mean * Math.hypot(pulley.sd / pulley.mean, cable.sd / cable.mean) }
}

const normal = (x: number, mean: number, sd: number): number =>
  Math.exp(-0.5 * ((x - mean) / sd) ** 2) / (sd * Math.sqrt(2 * Math.PI))
const counted = (seen: number, is: number): number =>
  seen === is ? 1 - MISCOUNT.byOne : Math.abs(seen - is) === 1 ? MISCOUNT.byOne : MISCOUNT.more
const sum = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0)

/** Below this a reading is exact for all that matters here, and a normal of no width is none. */
const LEAST_SD_MM = 0.005

/**
 * What one measurement would read on a part, and with what spread of the parts; null when it says nothing of that part.
 */
function expected(
  m: Measurement,
  part: ShifterPart | DerailleurPart | CassettePart,
): { mean: number; sd: number } | null {
  if ('pullMm' in part) {
    if (m === 'clicks') return { mean: part.pullMm.length, sd: 0 }
    if (m === 'cableAllMm') return { mean: sum(part.pullMm), sd: TABLE_SPREAD.pull * sum(part.pullMm) }
    if (m === 'cableClickMm') {
      const one = part.pullMm[Math.floor(part.pullMm.length / 2)]
      return { mean: one, sd: TABLE_SPREAD.pull * one }
    }
  }
  if ('pitchMm' in part) {
    const n = part.pitchMm.length + 1
    if (m === 'sprockets') return { mean: n, sd: 0 }
    if (m === 'stackMm')
      return {
        mean: sum(part.pitchMm) + part.thicknessMm,
        sd: Math.hypot(TABLE_SPREAD.pitch * sum(part.pitchMm), THICKNESS_SPREAD_MM),
      }
    if (m === 'thicknessMm') return { mean: part.thicknessMm, sd: THICKNESS_SPREAD_MM }
    if (m === 'chainMm') return { mean: part.chainMm, sd: CHAIN_SPREAD_MM }
  }
  return null
}

function likelihood(of: Of, part: ShifterPart | DerailleurPart | CassettePart, readings: Readings): number {
  if ('ratio' in part) {
    const seen = ratioOf(readings)
    if (!seen) return 1
    const is = typeof part.ratio === 'number' ? part.ratio : sum(part.ratio) / part.ratio.length
    return normal(seen.mean, is, Math.hypot(Math.max(seen.sd, 1e-4), TABLE_SPREAD.ratio * is))
  }
  let out = 1
  for (const m of MEASUREMENTS) {
    const reading = readings[m]
    if (!reading || MEASUREMENT_RULES[m].of !== of) continue
    const is = expected(m, part)
    if (!is) {
      out *= unlikeAny(m)
      continue
    }
    const seen = readingOf(reading)
    out *= MEASUREMENT_RULES[m].counted
      ? counted(seen.mean, is.mean)
      : normal(seen.mean, is.mean, Math.hypot(Math.max(seen.sd, LEAST_SD_MM), is.sd))
  }
  return out
}

/** Likelihood of what was measured on a part that is in no table. */
function likelihoodOfNone(of: Of, readings: Readings): number {
  if (of === 'derailleur') return ratioOf(readings) ? 1 / RATIO_SPAN : 1
  return MEASUREMENTS.filter(m => readings[m] && MEASUREMENT_RULES[m].of === of).reduce((p, m) => p * unlikeAny(m), 1)
}

type Chances = Record<Of, { each: number[]; none: number }>

/** Belief in every part: a stock trio, or three parts each by itself, of which any may be in no table. */
function believe(parts: PartsOfShop, readings: Readings): Chances {
  const like = Object.fromEntries(
    OF.map(of => [of, listOf(parts, of).map(p => likelihood(of, p, readings))]),
  ) as Record<Of, number[]>
  const none = Object.fromEntries(OF.map(of => [of, likelihoodOfNone(of, readings)])) as Record<Of, number>
  // trios are parts of one id
  const trios = parts.shifters.flatMap((s, i) => {
    const d = parts.derailleurs.findIndex(x => x.id === s.id)
    const c = parts.cassettes.findIndex(x => x.id === s.id)
    return d < 0 || c < 0 ? [] : [{ shifter: i, derailleur: d, cassette: c }]
  })
  const alone = Object.fromEntries(
    OF.map(of => [of, (1 - UNLIKE_ANY) * (sum(like[of]) / like[of].length) + UNLIKE_ANY * none[of]]),
  ) as Record<Of, number>
  const trioWeight = trios.map(
    t =>
      (STOCK_SHARE / trios.length) *
      like.shifter[t.shifter] *
      like.derailleur[t.derailleur] *
      like.cassette[t.cassette],
  )
  const out = {} as Chances
  for (const of of OF) {
    const others = OF.filter(o => o !== of).reduce((p, o) => p * alone[o], 1)
    const each = like[of].map(l => (1 - STOCK_SHARE) * ((1 - UNLIKE_ANY) / like[of].length) * l * others)
    trios.forEach((t, i) => {
      each[t[of]] += trioWeight[i]
    })
    const unlike = (1 - STOCK_SHARE) * UNLIKE_ANY * none[of] * others
    const total = sum(each) + unlike
    out[of] =
      total > 0 ? { each: each.map(w => w / total), none: unlike / total } : { each: each.map(() => 0), none: 1 }
  }
  return out
}

/**
 * How one measured figure lies against a part: off by how many of its errors, and that error as a share of the figure.
 */
type Off = { errors: number; share: number }
const offFrom = (seen: { mean: number; sd: number }, is: { mean: number; sd: number }): Off => {
  const sd = Math.hypot(Math.max(seen.sd, LEAST_SD_MM), is.sd)
  return { errors: Math.abs(seen.mean - is.mean) / sd, share: sd / is.mean }
}
/** Every figure measured of a part, counts aside, against one row of the table. */
function offs(part: ShifterPart | DerailleurPart | CassettePart, readings: Readings): Off[] {
  if ('ratio' in part) {
    const seen = ratioOf(readings)
    const mean = typeof part.ratio === 'number' ? part.ratio : sum(part.ratio) / part.ratio.length
    return seen ? [offFrom(seen, { mean, sd: TABLE_SPREAD.ratio * mean })] : []
  }
  return MEASUREMENTS.flatMap(m => {
    const is = MEASUREMENT_RULES[m].counted ? null : expected(m, part)
    return is && readings[m] ? [offFrom(readingOf(readings[m]), is)] : []
  })
}
/** Was something counted otherwise than this row has it? Then it is only the nearest: it is counted again. */
const miscounted = (part: ShifterPart | DerailleurPart | CassettePart, readings: Readings): boolean =>
  MEASUREMENTS.some(m => {
    const is = MEASUREMENT_RULES[m].counted ? expected(m, part) : null
    return is !== null && readings[m] !== undefined && readingOf(readings[m]).mean !== is.mean
  })
/** The candidate that lies nearest by its worst figure: a belief of nothing tells none from another. */
function nearestOf(
  list: readonly (ShifterPart | DerailleurPart | CassettePart)[],
  candidates: readonly Candidate[],
  readings: Readings,
): Candidate | null {
  const off = new Map(list.map(p => [p.id, Math.max(...offs(p, readings).map(o => o.errors))]))
  const [best] = [...candidates].sort((a, b) => off.get(a.ids[0])! - off.get(b.ids[0])!)
  return best && Number.isFinite(off.get(best.ids[0])) ? best : null
}
/**
 * Would a part in no table, that much off this row, read otherwise? The sharpest figure decides; without one nothing is
 * excluded.
 */
function excludesOthers(list: readonly Off[]): boolean {
  const sharpest = [...list].sort((a, b) => a.share - b.share)[0]
  return sharpest !== undefined && sharpest.errors <= OFF_TABLE.share / sharpest.share - OFF_TABLE.errors
}

/** Do two parts of a kind have the same numbers? Then nothing can tell them apart, and nothing needs to. */
const numbersOf = (part: ShifterPart | DerailleurPart | CassettePart): string =>
  JSON.stringify('pullMm' in part ? part.pullMm : 'pitchMm' in part ? [part.pitchMm, part.thicknessMm] : part.ratio)

function answerOf(
  of: Of,
  list: readonly (ShifterPart | DerailleurPart | CassettePart)[],
  { each, none }: { each: number[]; none: number },
  readings: Readings,
): PartAnswer {
  const groups = new Map<string, Candidate>()
  list.forEach((part, i) => {
    const key = numbersOf(part)
    const was = groups.get(key) ?? { ids: [], names: [], chance: 0 }
    groups.set(key, { ids: [...was.ids, part.id], names: [...was.names, part.name], chance: was.chance + each[i] })
  })
  const candidates = [...groups.values()].sort((a, b) => b.chance - a.chance)
  if (!told(of, readings)) return { is: 'nothing', candidates, none, apart: [], nearest: null }
  const best = list.find(p => p.id === candidates[0]?.ids[0])
  const off = best ? offs(best, readings) : []
  const fits = best !== undefined && !miscounted(best, readings) && off.every(o => o.errors <= MISFIT)
  if (none >= NONE_OF_THESE || !fits)
    return { is: 'none', candidates, none, apart: [], nearest: nearestOf(list, candidates, readings) }
  const apart: Candidate[] = []
  let held = 0
  for (const c of candidates) {
    apart.push(c)
    held += c.chance
    if (held >= SETTLED * (1 - none)) break
  }
  const named = apart.length === 1 && apart[0].chance >= NAMED && excludesOthers(off)
  return { is: named ? 'named' : 'apart', candidates, none, apart, nearest: null }
}

/** Usual reading error of a measurement still to be made, mm. */
const NEXT_SD_MM = 0.1

/** Doubt between weights that need not sum to 1, nats. */
const doubt = (weights: readonly number[]): number => (sum(weights) > 0 ? entropy(normalised(weights)) : 0)

/** The measurement expected to leave the least doubt about the part it tells of, among those not made yet. */
function nextMeasurement(parts: PartsOfShop, readings: Readings, chances: Chances): Identified['next'] {
  let best: { measure: Measurement; between: string[]; gain: number } | null = null
  for (const m of MEASUREMENTS) {
    if (readings[m] || m === 'pulledMm' || m === 'pulleyMm') continue
    const { of } = MEASUREMENT_RULES[m]
    const list = listOf(parts, of)
    const { each } = chances[of]
    if (!told(of, readings)) continue
    const live = list
      .map((part, i) => ({ part, weight: each[i], is: expected(m, part) }))
      .filter(x => x.weight > 0.01 && x.is)
    if (live.length < 2) continue
    const now = doubt(byNumbers(live.map(x => [x.part, x.weight])))
    let after = 0
    for (const truth of live) {
      const reads = truth.is!.mean
      const posterior = live.map(
        x =>
          [
            x.part,
            x.weight *
              (MEASUREMENT_RULES[m].counted
                ? counted(reads, x.is!.mean)
                : normal(reads, x.is!.mean, Math.hypot(NEXT_SD_MM, x.is!.sd))),
          ] as const,
      )
      after += truth.weight * doubt(byNumbers(posterior))
    }
    // counting costs nothing: it wins where a measurement would tell no more
    const gain = (now - after / sum(live.map(x => x.weight))) * (MEASUREMENT_RULES[m].counted ? 1.1 : 1)
    if (gain > 0.05 && gain > (best?.gain ?? 0))
      best = {
        measure: m,
        between: live
          .sort((a, b) => b.weight - a.weight)
          .slice(0, 3)
          .map(x => x.part.name),
        gain,
      }
  }
  return best && { measure: best.measure, between: best.between }
}

/** Weights with parts of the same numbers taken together. */
function byNumbers(pairs: readonly (readonly [ShifterPart | DerailleurPart | CassettePart, number])[]): number[] {
  const out = new Map<string, number>()
  for (const [part, weight] of pairs) out.set(numbersOf(part), (out.get(numbersOf(part)) ?? 0) + weight)
  return [...out.values()]
}
