import { ALL_GEARS, hubChecksFor, TICK } from '../hub/checks'
import { HUB_SHOWS } from '../hub/faults'
import { allHoldChance, gearChances, hypothesesOf, readingOf, type HubHypothesis, type HubLog } from '../hub/answers'
import { diagnoseHub } from '../hub/diagnose'
import { targetMm, usualHubs, type HubParts } from '../hub/kinds'
import { wheelTurnsOf } from '../hub/ratio'
import { randomFrom } from '../quantity/random'
import { CRANK_TURNS, pick } from './hub'

/**
 * Hubs that do not answer as the diagnosis believes: every hub holds a gear over a span of its own, some hide the sign
 * of their fault, an eye slips in so many looks of a hundred; one in ten has nothing wrong, one in ten a second fault
 * besides. What is published of the hub bench is measured here.
 */
export const HUB_WRONG_LOOKS = { 'hub-faults': 0.05, 'hub-slips': 0.1 } as const
export type UnlikeHubBench = keyof typeof HUB_WRONG_LOOKS

export type UnlikeHub = {
  parts: HubParts
  is: readonly HubHypothesis[]
  /** How far from its place a gear still holds, and takes, clicks. */
  answers: { holdClicks: number; takesClicks: number }
}
/**
 * A sign of its own that a fault does not show; how a reading scatters, mm; a count that slipped by a whole turn of the
 * wheel.
 */
const HIDDEN = 0.08
const READING_SD_MM = 0.45
const MISCOUNT = 0.02

export function unlikeHub(seed: number): UnlikeHub {
  const random = randomFrom(seed, 711)
  const all = usualHubs()
  const usual = all[Math.floor(random.next() * all.length)]!.parts
  const parts: HubParts = { ...usual, ringTeeth: 36 + random.below(13), sprocketTeeth: 16 + random.below(6) }
  const faults = hypothesesOf(parts).filter(h => h.fault !== 'none')
  const holdClicks = 0.24 + 0.14 * random.next()
  // out by less than this hub holds is no fault that anybody meets
  const met = (off: number) => (off === 0 ? 0 : Math.sign(off) * Math.max(Math.abs(off), holdClicks + 0.04))
  const jittered = (h: HubHypothesis): HubHypothesis => {
    const by = 0.8 + 0.4 * random.next()
    return { ...h, offClicks: met(h.offClicks * by), lagClicks: h.lagClicks * by, playMm: h.playMm * by }
  }
  const how = random.next()
  const first = pick(faults, h => h.weight, random)
  const others = faults.filter(h => h.fault !== first.fault && h.offClicks === 0 && h.fault !== 'inside')
  const second = others.length ? [pick(others, h => h.weight, random)] : []
  return {
    parts,
    is: how < 0.1 ? [] : how < 0.2 ? [first, ...second].map(jittered) : [jittered(first)],
    answers: { holdClicks, takesClicks: holdClicks + 0.3 + 0.1 * random.next() },
  }
}

/** All that is wrong as one: its cable out by the sum, what is gone inside, the play that is farthest from right. */
function asOne({ parts, is }: UnlikeHub): HubHypothesis {
  const none = hypothesesOf(parts)[0]!
  return is.reduce<HubHypothesis>(
    (a, h) => ({
      ...a,
      fault: h.fault === 'crossed' || a.fault === 'crossed' ? 'crossed' : h.fault,
      offClicks: a.offClicks + h.offClicks,
      lagClicks: a.lagClicks + h.lagClicks,
      gone: h.gone ?? a.gone,
      playMm: h.playMm === none.playMm ? a.playMm : h.playMm,
    }),
    none,
  )
}

/** What eyes, a rule and a count find on a hub; a look slips in so many of a hundred. */
export function finding(hub: UnlikeHub, seed: number, wrong: number) {
  const checks = hubChecksFor(hub.parts.way)
  const whole = asOne(hub)
  return {
    look(id: string, time: number): string {
      const i = checks.findIndex(c => c.id === id)
      const c = checks[i]!
      const fine = c.outcomes[0]![0]
      if (id === ALL_GEARS) {
        const holds = randomFrom(seed, 717, time).next() < allHoldChance(hub.parts, whole, hub.answers)
        const slipped = randomFrom(seed, 718, time).next() < wrong
        return holds !== slipped ? 'hold' : 'not'
      }
      if (id === TICK) {
        const { gears } = gearChances(hub.parts, whole, hub.parts.ratios.length, hub.answers)
        const ticks = randomFrom(seed, 719, time).next() < (gears.get(hub.parts.ratios.length) ?? 0)
        return ticks !== randomFrom(seed, 720, time).next() < wrong ? 'ticks' : 'not'
      }
      const shown = hub.is.flatMap(h => {
        const sign = HUB_SHOWS[h.fault]?.[id]
        return sign !== undefined && randomFrom(seed, 712, i, h.fault.length).next() >= HIDDEN ? [sign] : []
      })[0]
      const is = shown ?? fine
      const random = randomFrom(seed, 713, i, time)
      if (random.next() >= wrong) return is
      const others = c.outcomes.filter(o => o[0] !== is)
      return others[random.below(others.length)]![0]
    },
    read(time: number): number {
      const { from, to } = targetMm(hub.parts)
      const inRoom = hub.parts.way === 'twin' ? 0 : (randomFrom(seed, 715).next() - 0.5) * (to - from)
      const slip = READING_SD_MM * randomFrom(seed, 714, time).normal()
      return Math.round((readingOf(hub.parts, whole) + inRoom + slip) * 10) / 10
    },
    count(gear: number, time: number) {
      const random = randomFrom(seed, 716, gear, time)
      const { gears, slips } = gearChances(hub.parts, whole, gear, hub.answers)
      if (random.next() < slips) return { gear, crankTurns: CRANK_TURNS, wheelTurns: null }
      const [real] = pick([...gears], g => g[1], random)
      const whole_ = random.next() < MISCOUNT ? (random.next() < 0.5 ? 1 : -1) : 0
      const ends = (random.next() + random.next() - 1) * 0.1
      const turns = wheelTurnsOf(hub.parts, real, CRANK_TURNS) + ends + whole_
      return { gear, crankTurns: CRANK_TURNS, wheelTurns: Math.max(0.1, Math.round(turns * 10) / 10) }
    },
  }
}

export type HubOutcome = {
  way: HubParts['way']
  hidden: readonly string[]
  first: string | null
  stated: number
  right: boolean
  solved: boolean
  /** Looks, readings and counts until the first cause was named. */
  looks: number
  gaveUp: boolean
}
const TRIES = 3

/**
 * By the advice until the hub is right, as every gear would show, or it is given up; looked at anew after each cure.
 */
export function playUnlikeHub(seed: number, bench: UnlikeHubBench): HubOutcome {
  let hub = unlikeHub(seed)
  const hidden = hub.is.map(h => h.fault)
  const cured: string[] = []
  let log: HubLog = { seen: [], readings: [], counts: [] }
  let looks = 0
  let named: { id: string; chance: number; looks: number } | null = null
  for (let at = 0; ; at++) {
    const find = finding(hub, seed, HUB_WRONG_LOOKS[bench])
    const d = diagnoseHub(hub.parts, log, cured)
    const { next } = d
    const ended = (solved: boolean, gaveUp: boolean): HubOutcome => ({
      way: hub.parts.way,
      hidden,
      first: named?.id ?? null,
      stated: named?.chance ?? 0,
      right: hidden.length ? hidden.includes(named?.id ?? '') : named?.id === 'none',
      solved,
      looks: named?.looks ?? looks,
      gaveUp,
    })
    if (!d.found && next && at < 60) {
      looks++
      const time = looks
      if (next.do === 'look')
        log = { ...log, seen: [...log.seen, { check: next.check.id, outcome: find.look(next.check.id, time) }] }
      else if (next.do === 'read') log = { ...log, readings: [...log.readings, { mm: find.read(time) }] }
      else log = { ...log, counts: [...log.counts, find.count(next.gear, time)] }
      continue
    }
    // nothing named: what is likeliest is tried, as a mechanic would
    const id = d.found?.id ?? d.faults[0]!.id
    named ??= { id, chance: d.faults.find(f => f.id === id)!.chance, looks }
    if (!d.found && d.faults[0]!.chance < 0.5) return ended(false, true)
    if (id === 'none') return ended(!hub.is.length, false)
    cured.push(id)
    if (hub.is.some(h => h.fault === id)) hub = { ...hub, is: hub.is.filter(h => h.fault !== id) }
    if (!hub.is.length) return ended(true, false)
    if (cured.length >= TRIES) return ended(false, false)
    log = { seen: [], readings: [], counts: [] }
  }
}
