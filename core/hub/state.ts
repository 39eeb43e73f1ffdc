import { askedBy, isLate, isUnaware, since, type Since, type When } from '../chapter/late'
import { UNKNOWN, withSeenSince } from '../chapter/looks'
import type { Cabled } from '../cable/events'
import { handOf, type Flag, type Stay, type Told } from '../chapter/chapter'
import type { JobOf } from '../job/events'
import type { RearOf } from '../rear/events'
import { ALL_GEARS, answersHubDanger, hubDanger, TICK } from './checkWords'
import type { HubLog } from './answers'
import type { HubEvent } from './events'
import { FIGURE_STEP, targetMm, type HubParts } from './kinds'
import { isAsked } from './ratio'

/** What a hub follows besides its own entries: its cables, the wheel it sits in, and the job being opened again. */
export type HubHeard = Cabled | JobOf<'wheelOut' | 'reopened'> | RearOf<'replace'>

export type HubProof = { holds: boolean; by: string; at: string }
/** Where a hub of a job stands after its log. */
export type HubState = HubLog & {
  parts: HubParts | null
  cured: readonly string[]
  steps: readonly string[]
  /** What was read, and where the adjuster stood then: what a turn does is told from two of them. */
  plays: readonly { mm: number; net: number }[]
  /** Net sixteenths at the adjuster since arrival, + tighter. */
  net: number
  /** Is the lock nut known to be tight? Null: not looked at, or turned since. Only rod hubs have one. */
  locked: boolean | null
  /** When its nut was last opened, and when it was last touched or found otherwise: a proof from before is none. */
  opened: Since | null
  touched: Since | null
  /** When it was last said which hub it is: what was said before that is not it. */
  named: Since | null
  /** Set, cured, cabled or doubted in this visit: it must be proven. */
  worked: boolean
  /** Somebody said that it holds, and was not believed: it must be proven. */
  tried: boolean
  proof: HubProof | null
  /** Failed its proof, and nothing was put right since. */
  failed: Since | null
  /** The first reading of the visit, and gears that ever slipped in it: for the sheet. */
  asFound: { mm: number | null; slipped: readonly number[] }
  flagged: readonly Flag[]
}
export const noHub: HubState = {
  parts: null,
  seen: [],
  readings: [],
  counts: [],
  tickOdds: null,
  cured: [],
  steps: [],
  plays: [],
  net: 0,
  locked: null,
  opened: null,
  touched: null,
  named: null,
  worked: false,
  tried: false,
  proof: null,
  failed: null,
  asFound: { mm: null, slipped: [] },
  flagged: [],
}

/** Looks that keep a bike, besides those nobody rides with whatever is set: of its gears and its lock nut. */
const KEEPS: Readonly<Record<string, string>> = { [ALL_GEARS]: 'not', lock: 'loose' }
/** Looks at what the setting does; all others stand when it is changed. */
const OF_THE_SETTING: readonly string[] = [ALL_GEARS, TICK]
/**
 * What was found says little once the setting was changed: looks that do not depend on it stay, and what was counted
 * since that was tapped. It must be proven.
 */
const setAnew = (was: HubState, told: When): HubState => ({
  ...opened(putRight(doubted(was, told), told), told),
  readings: [],
  plays: [],
  counts: was.counts.flatMap(c => (isLate(told, c.since) ? [{ ...c, since: askedBy(c.since, told) }] : [])),
  tickOdds: null,
  seen: withSeenSince(
    was.seen,
    was.seen.filter(s => !OF_THE_SETTING.includes(s.check)),
    told,
  ),
})

/** Its nut was opened for what was done. Only rod hubs have one. */
const opened = (was: HubState, told: When): HubState =>
  was.parts?.way === 'rod' ? { ...was, locked: null, opened: since(was.opened, told) } : was
/** Something was put right: a failure before that has been answered. */
const putRight = (was: HubState, told: When): HubState => ({
  ...was,
  failed: isLate(told, was.failed) ? askedBy(was.failed, told) : null,
})
/** Locked, or seen tight: not by what was before it was opened, or seen loose. */
const nutTight = (was: HubState, told: When, loose: boolean): HubState =>
  isLate(told, was.opened)
    ? { ...was, opened: askedBy(was.opened, told) }
    : { ...was, locked: !loose, opened: loose ? was.opened : null }
/** Proven no more, and to be proven: something it rested on was touched, or found otherwise. */
const doubted = (was: HubState, told: When): HubState => ({
  ...was,
  worked: true,
  proof: null,
  touched: since(was.touched, told),
})

/**
 * Said anew what it is. Another kind of hub: what was found does not apply, but for what was found since that was
 * tapped. Whatever changed, a proof was of the hub as it was said before, and a danger seen is not talked away.
 */
function named(was: HubState, parts: HubParts, told: Told): HubState {
  const now = { ...was, named: since(was.named, told), flagged: was.flagged.filter(f => f.why !== NAMED_BEFORE) }
  if (!was.parts) return { ...now, parts }
  if (sameParts(was.parts, parts)) return now
  if (isUnaware(told, was.named))
    return {
      // a proof from before was of a hub they say otherwise of, whenever it comes
      ...(was.proof && was.proof.at <= was.named.at ? doubted(was, was.named) : was),
      touched: since(was.touched, was.named),
      named: askedBy(was.named, told),
      flagged: [...was.flagged, { id: told.id, why: NAMED_BEFORE }],
    }
  const worked = was.worked || was.tried || was.proof !== null || hubStays(was).length > 0
  const counts = was.counts.filter(c => c.gear <= parts.ratios.length)
  if (was.parts.way === parts.way) return { ...doubted(now, told), parts, worked, counts }
  const stands = (s: HubLog['seen'][number]) =>
    isUnaware(told, s.since) || (s.check === 'washers' && parts.way !== 'twin')
  return {
    ...opened({ ...noHub, parts }, told),
    worked,
    seen: dangersIn(was.seen).filter(stands),
    counts: counts.filter(c => isUnaware(told, c.since)),
    failed: was.failed,
    touched: since(was.touched, told),
    named: now.named,
    flagged: now.flagged,
  }
}
/** What is asked, until it was said again, where somebody elsewhere said otherwise after that. */
const NAMED_BEFORE = 'Two tablets differ on which hub this is: look whether what stands is right'
const sameParts = (a: HubParts, b: HubParts): boolean => JSON.stringify(a) === JSON.stringify(b)

/** The hub after one more entry. */
export function hubAfter(was: HubState, told: Told<HubEvent | HubHeard>): HubState {
  const { event } = told
  switch (event.kind) {
    case 'cabled': {
      const its = event.run === 'hub' || event.run === 'hub-second'
      return its && event.step === 'clamped' && was.parts ? setAnew(was, told) : was
    }
    case 'wheelOut':
      return event.wheel === 'rear' && was.parts ? setAnew(was, told) : was
    case 'replace':
      // the wheel came out for it
      return event.part === 'cassette' && was.parts ? setAnew(was, told) : was
    case 'reopened':
      return { ...was, proof: null, touched: since(was.touched, told) }
    case 'hubProof':
      return proven(was, told, event.holds)
    default: {
      const now = after(was, event, told)
      const seen = withSeenSince(was.seen, now.seen, told)
      // whoever proved it before its nut was tight, or a danger answered, proved it as it was
      const answers = (now.locked && !was.locked) || dangersIn(seen).length < dangersIn(was.seen).length
      return { ...now, seen, touched: answers ? since(now.touched, told) : now.touched }
    }
  }
}

function after(was: HubState, e: Exclude<HubEvent, { kind: 'hubProof' }>, told: Told): HubState {
  switch (e.kind) {
    case 'hubParts':
      return named(was, e.parts, told)
    case 'hubSeen': {
      const danger = hubDanger(e.check, e.outcome)
      const keeps = danger !== null || KEEPS[e.check] === e.outcome
      const look = { check: e.check, outcome: e.outcome, ...(keeps ? { since: since(null, told) } : {}) }
      const now = { ...was, seen: [...was.seen, look] }
      // a gear that does not hold is ridden by nobody until all were tried again, and hold
      if (e.outcome === UNKNOWN) return now
      if (e.check === ALL_GEARS) return e.outcome === 'hold' ? now : doubted(now, told)
      if (e.check !== 'lock') return danger ? doubted(now, told) : now
      if (e.outcome !== 'tight') return { ...doubted(now, told), locked: false }
      return nutTight(now, told, looseSince(was, told))
    }
    case 'hubSounded':
      return { ...was, tickOdds: e.tickOdds }
    case 'hubRead':
      return {
        ...was,
        steps: stepsRead(was, e.mm),
        readings: [...was.readings, { mm: e.mm }],
        plays: [...was.plays, { mm: e.mm, net: was.net }],
        asFound: { ...was.asFound, mm: was.asFound.mm ?? e.mm },
      }
    case 'hubCount': {
      // a gear this hub does not have says nothing of it
      if (!was.parts || e.gear > was.parts.ratios.length) return was
      const count = { gear: e.gear, crankTurns: e.crankTurns, wheelTurns: e.wheelTurns, since: since(null, told) }
      const slipped = e.wheelTurns === null ? [...new Set([...was.asFound.slipped, e.gear])] : was.asFound.slipped
      // a right one that comes late stands before one of its gear that was made since
      const right = isAsked(was.parts, count)
      const later = right ? was.counts.findLastIndex(c => c.gear === e.gear && isLate(told, c.since)) : -1
      const last = was.counts[later]
      const counts = last?.since
        ? was.counts.toSpliced(later, 1, count, { ...last, since: askedBy(last.since, told) })
        : [...was.counts, count]
      const now = { ...was, counts, asFound: { ...was.asFound, slipped } }
      // a slip, a neutral or another gear takes the proof away; a gear counted right again answers for that gear
      return right ? now : doubted(now, told)
    }
    case 'hubTurn': {
      const now = setAnew(was, told)
      return { ...now, plays: was.plays, net: was.net + e.sixteenths, seen: now.seen.filter(s => s.check !== 'lock') }
    }
    case 'hubCured':
      return { ...setAnew(was, told), seen: standing(was.seen, e.fault), cured: [...was.cured, e.fault] }
    case 'hubStep': {
      const steps = [...new Set([...was.steps, e.step])]
      const locks = e.step === 'locked'
      const seen = was.seen.filter(s => !answersHubDanger(e.step, s.check) && !(locks && s.check === 'lock'))
      const now = putRight(doubted({ ...was, steps, seen }, told), told)
      // a nut locked is a nut looked at; opening the chain or joining it anew undoes that
      if (locks) return nutTight(now, told, looseSince(was, told))
      return e.step === 'home' || e.step === 'slack' ? opened(now, told) : now
    }
  }
}

/** The step that asks this figure: done by one within its room, open again by one outside. */
function stepsRead({ parts, steps }: HubState, mm: number): HubState['steps'] {
  const step = parts && FIGURE_STEP[parts.way]
  if (!step) return steps
  const { from, to } = targetMm(parts)
  const others = steps.filter(s => s !== step)
  return mm >= from - READ_WITHIN_MM && mm <= to + READ_WITHIN_MM ? [...others, step] : others
}
/** A figure read by eye through a window may be off by so much. `model` */
const READ_WITHIN_MM = 0.25

/** Was its nut seen loose since something was tapped? */
const looseSince = (was: HubState, told: When): boolean =>
  was.locked === false && was.seen.some(s => s.check === 'lock' && isLate(told, s.since))
/** What was put right is looked at anew; what nobody rides with stands, where that is not what was put right. */
const standing = (seen: HubLog['seen'], fault: string): HubLog['seen'] =>
  dangersIn(seen).filter(s => !answersHubDanger(fault, s.check))
/** The last looks with which nobody rides; who cannot tell takes nothing back that was seen. */
const dangersIn = (seen: HubLog['seen']): HubLog['seen'] =>
  [...new Map(seen.filter(s => s.outcome !== UNKNOWN).map(s => [s.check, s])).values()].filter(s =>
    hubDanger(s.check, s.outcome),
  )
/** The same, with how they are told. */
const hubDangers = (s: HubState): { check: string; told: string }[] =>
  dangersIn(s.seen).map(({ check, outcome }) => ({ check, told: hubDanger(check, outcome)! }))

/** What is asked, until it was tried again, where a proof that comes late is of the hub as it was. */
const TRIED_BEFORE = 'The hub was tried before it was touched, or found otherwise, elsewhere: try every gear once more'

/**
 * A proof counts only after what comes before it: one that does not is kept, and asked about. Who tried it had worked
 * on it, or on the hub it was said to be then: it is proven as it is.
 */
function proven(was: HubState, told: Told, holds: boolean): HubState {
  const before = holds ? beforeProof(was) : null
  const late = holds && isUnaware(told, was.touched) ? was.touched : null
  if (before || late)
    return {
      ...was,
      tried: was.parts !== null,
      touched: late ? askedBy(late, told) : was.touched,
      flagged: [...was.flagged, { id: told.id, why: before ?? TRIED_BEFORE }],
    }
  const proof = { holds, by: handOf(told), at: told.at }
  const flagged = was.flagged.filter(f => f.why !== TRIED_BEFORE)
  return { ...was, worked: true, proof, failed: holds ? null : since(was.failed, told), flagged }
}

/** What must come before a hub can be said to hold; null when it can be tried. */
export function beforeProof(s: HubState): string | null {
  if (!s.parts) return 'Say first which hub it is'
  if (s.failed) return 'It failed its proof: say what was put right, then try every gear again'
  const [danger] = hubDangers(s)
  if (danger) return `Seen before: ${danger.told}. Put it right, or look again`
  if (s.parts.way === 'rod' && s.locked !== true) return 'The lock nut comes first: tighten it, or see it tight'
  return null
}

type Counted = Pick<HubState, 'parts' | 'counts'>
/** The last count of each gear that slipped or found none. */
export const slippingGears = (s: Counted): number[] => lastCounts(s, c => c.wheelTurns === null)
/** The last count of each gear that turned out to be another one. */
export const wrongGears = (s: Counted): number[] =>
  lastCounts(s, c => c.wheelTurns !== null && s.parts !== null && !isAsked(s.parts, c))
/** Gears that were not what was asked for when they were last counted. */
export const gearsNotAsked = (s: Counted): number[] => [...slippingGears(s), ...wrongGears(s)].sort((a, b) => a - b)

const lastCounts = (s: Counted, are: (c: HubLog['counts'][number]) => boolean): number[] =>
  [...new Set(s.counts.map(c => c.gear))].filter(g => are(s.counts.findLast(c => c.gear === g)!)).sort((a, b) => a - b)

/** Why a bike with this hub stays: states in which riding must stop, and what is not proven. */
export function hubStays(s: HubState): Stay[] {
  if (!s.parts) return []
  const out: Stay[] = []
  const stay = (is: Stay['is'], id: string, why: string) => out.push({ id: `hub-${id}`, is, why })
  const slipping = slippingGears(s)
  const wrong = wrongGears(s)
  if (s.failed || s.proof?.holds === false) stay('found', 'failed', 'hub gear failed its proof')
  if (slipping.length) stay('found', 'slips', `hub slips or finds no gear in ${slipping.join(', ')}`)
  if (wrong.length) stay('found', 'wrong', `hub is in another gear than its grip says in ${wrong.join(', ')}`)
  // who cannot tell takes nothing back that was seen
  if (s.seen.findLast(x => x.check === ALL_GEARS && x.outcome !== UNKNOWN)?.outcome === 'not')
    stay('found', 'gears', 'not every gear of the hub holds')
  if (s.parts.way === 'rod' && s.locked === false) stay('found', 'nut', 'hub’s lock nut is loose')
  for (const { check, told } of hubDangers(s)) stay('found', check, told)
  if (!s.worked && !s.tried) return out
  if (s.parts.way === 'rod' && s.locked === null) stay('open', 'nut', 'hub’s lock nut not seen tight since it was set')
  if (!s.proof) stay('open', 'unproven', 'hub gear not proven since it was set')
  return out
}
