import { CRANK_TURNS } from '../bench/hub'
import { finding, unlikeHub, type UnlikeHub } from '../bench/hubUnlike'
import { hubChecksFor } from '../hub/checks'
import { hypothesesOf, type HubLog } from '../hub/answers'
import { diagnoseHub } from '../hub/diagnose'
import { HUB_FAULTS, HUB_SHOWS } from '../hub/faults'
import { hubFaultWords } from '../hub/faultWords'
import { HUB_WAY_WORDS, targetMm } from '../hub/kinds'
import { READING_WORDS, sayMm, sayTarget } from '../hub/words'
import { wheelTurnsOf } from '../hub/ratio'
import { listed } from '../quantity/words'
import type { HubSight } from './hubSight'
import type { Level } from './levels'
import { DONE, upper, type Choice, type Found, type Stand } from './stand'
import type { PracticeAsked } from './asked'
import { lessonOf } from './lessons'
import type { BenchRun } from './run'
import { seedOf } from './seed'

/** Of so many hubs of a number the first with what the level asks for. */
const TRIES = 400
const FROM_SEED = 7_000_000
/** Faults that a cable out by as much would show as well: told apart by the looks at the hub itself. */
const ALIKE = new Set(['lock-nut', 'not-home', 'axle', 'washers', 'drag', 'coupled'])

/** The hub of a number on a level; `fault` is what a lesson is about. */
export function hubBike(number: number, level: Level, fault?: string): UnlikeHub {
  const fits = ({ is }: UnlikeHub): boolean => {
    if (fault) return is.length === 1 && is[0]!.fault === fault
    if (level === 'two') return is.length === 2
    if (level === 'none') return number % 5 < 3 ? is.length === 0 : is.length === 1
    if (is.length !== 1 || is[0]!.fault === 'inside') return false
    return level === 'one' || ALIKE.has(is[0]!.fault)
  }
  for (let k = 0; k < TRIES; k++) {
    const hub = unlikeHub(FROM_SEED + number * TRIES + k)
    if (fits(hub)) return hub
  }
  return unlikeHub(FROM_SEED + number * TRIES)
}

const LOOK = 'look '
const COUNT = 'count '
const CURE = 'cure '
const READ = 'read'

/** A hub gear at the practice stand: looks, the reading at its adjuster, and the wheel counted. */
export function hubStand(bike: UnlikeHub, seed: number, acts: readonly string[]): Stand {
  const { parts } = bike
  let hub = bike
  const checks = hubChecksFor(parts.way)
  const cures = [...new Set(hypothesesOf(parts).map(h => h.fault))].filter(f => f !== 'none')
  let log: HubLog = { seen: [], readings: [], counts: [] }
  const cured: string[] = []
  const found: Found[] = []
  const wasted: string[] = []
  let touches = 0
  let over = false
  let sight: HubSight = {
    of: 'hub',
    way: parts.way,
    readMm: null,
    wanted: targetMm(parts),
    count: null,
    adjuster: READING_WORDS[parts.way],
  }
  acts.forEach((act, at) => {
    if (over) return
    const find = finding(hub, seed, 0)
    const check = checks.find(c => act === LOOK + c.id)
    const fault = cures.find(f => act === CURE + f)
    const gear = act.startsWith(COUNT) ? Number(act.slice(COUNT.length)) : 0
    if (check) {
      const outcome = find.look(check.id, at)
      log = { ...log, seen: [...log.seen, { check: check.id, outcome }] }
      sight = { ...sight, count: null }
      found.push({ asked: check.ask, is: check.outcomes.find(o => o[0] === outcome)![1] })
    } else if (act === READ) {
      const mm = find.read(at)
      log = { ...log, readings: [...log.readings, { mm }] }
      sight = { ...sight, readMm: mm, count: null }
      found.push({ asked: READING_WORDS[parts.way], is: sayMm(mm), drawn: true })
    } else if (Number.isInteger(gear) && gear >= 1 && gear <= parts.ratios.length) {
      const count = find.count(gear, at)
      log = { ...log, counts: [...log.counts, count] }
      sight = { ...sight, count }
      found.push({ asked: `Gear ${gear}, ${count.crankTurns} turns of the crank`, is: sayTurns(count), drawn: true })
    } else if (fault) {
      if (!hub.is.some(h => h.fault === fault) && fault === 'drag') wasted.push('the wire')
      hub = { ...hub, is: hub.is.filter(h => h.fault !== fault) }
      cured.push(fault)
      log = { seen: [], readings: [], counts: [] }
      sight = { ...sight, readMm: null, count: null }
      const cure = HUB_FAULTS.find(f => f.id === fault)?.cure ?? 'For who is trained for it.'
      found.push({ asked: upper(hubFaultWords(fault) ?? fault), is: `done: ${cure}` })
    } else if (act === DONE) over = true
    else return
    touches++
  })
  const won = over && !hub.is.length && !wasted.length
  const words = (f: string) => (hubFaultWords(f) ?? f).toLowerCase()
  return {
    bike: `${parts.ratios.length} speed hub, ${HUB_WAY_WORDS[parts.way].toLowerCase()}`,
    says: null,
    caution:
      'A practice hub. On a real one neutral or a slip between gears throws the rider: not ridden until every gear holds.',
    choices: [
      ...checks.map((c): Choice => ({ id: LOOK + c.id, group: 'look', words: c.ask })),
      { id: READ, group: 'look', words: `${READING_WORDS[parts.way]}, wanted ${sayTarget(parts)}` },
      ...parts.ratios.map((_, i): Choice => ({
        id: COUNT + (i + 1),
        group: 'turn',
        words: `Gear ${i + 1}: ${wheelTurnsOf(parts, i + 1, CRANK_TURNS).toFixed(1)}`,
      })),
      ...cures.map((f): Choice => ({ id: CURE + f, group: 'renew', words: upper(hubFaultWords(f) ?? f) })),
    ],
    turnTitle: `Turn the crank ${CRANK_TURNS} times and count the wheel; wanted:`,
    found,
    sight,
    touches,
    over,
    won,
    because: over
      ? [
          ...hub.is.map(h => `Still there: ${words(h.fault)}. ${hint(h.fault, acts)}`),
          ...(wasted.length ? [`Renewed without need: ${listed(wasted)}.`] : []),
          ...(won
            ? [
                bike.is.length
                  ? `${upper(listed(bike.is.map(h => words(h.fault))))}: found and put right.`
                  : 'Nothing was wrong, and nothing was renewed.',
              ]
            : []),
        ]
      : [],
    truth: bike.is.length
      ? bike.is.map(h => ({
          what: upper(words(h.fault)),
          figure: h.offClicks
            ? `cable out by ${Math.abs(h.offClicks).toFixed(1)} of a click, ${h.offClicks > 0 ? 'slack' : 'tight'}`
            : 'the cable as it should be',
        }))
      : [{ what: 'Nothing', figure: 'it was right as it came' }],
    advised: advisedFor(bike, log, cured),
    needless: wasted.length,
    thrown: 0,
  }
}

const sayTurns = ({ wheelTurns }: { wheelTurns: number | null }): string =>
  wheelTurns === null ? 'slips or finds no gear' : `the wheel turned ${wheelTurns.toFixed(1)} times`

/** What would have told a fault, where it was not looked at. */
function hint(fault: string, acts: readonly string[]): string {
  const sign = Object.keys(HUB_SHOWS[fault] ?? {})[0]
  if (sign)
    return acts.includes(LOOK + sign)
      ? 'Its sign was looked at, and taken for something else.'
      : 'Its own sign was not looked at.'
  return acts.includes(READ) ? 'The reading told how far it was out.' : 'The reading at the adjuster was never taken.'
}

function advisedFor({ parts }: UnlikeHub, log: HubLog, cured: readonly string[]): Stand['advised'] {
  const d = diagnoseHub(parts, log, cured)
  if (d.found && d.found.id !== 'none')
    return { id: CURE + d.found.id, words: d.found.words, why: 'What was found agrees on it.' }
  if (d.found || !d.next) return { id: DONE, words: 'Prove it', why: 'Nothing more is seen to be wrong.' }
  const why = 'It tells most for its cost now.'
  if (d.next.do === 'look') return { id: LOOK + d.next.check.id, words: d.next.check.ask, why }
  if (d.next.do === 'read') return { id: READ, words: READING_WORDS[parts.way], why }
  return { id: COUNT + d.next.gear, words: `Count the wheel in gear ${d.next.gear}`, why }
}

const of = ({ bike, level, lesson }: PracticeAsked) => hubBike(bike, level, lessonOf(lesson)?.hub)
/** The hub that is asked for. */
export const hubRun: BenchRun = {
  stand: asked => {
    const bike = of(asked)
    return acts => hubStand(bike, seedOf(asked), acts)
  },
  faults: asked => of(asked).is.map(h => h.fault),
}
