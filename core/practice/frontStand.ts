import { faultyFront, simulatedFront, type FrontIll, type HiddenFront } from '../bench/front'
import { adviseFront } from '../front/advise'
import type { FrontFault } from '../front/causes'
import type { FrontMoveTo } from '../front/contract'
import { FRONT_SET, type FrontSet } from '../front/events'
import { FRONT_SCREWS, onRing, seenWords } from '../front/moves'
import { ringName } from '../front/parts'
import type { FrontSetup } from '../front/setup'
import { sayFrontMove } from '../front/words'
import { listed } from '../quantity/words'
import { frontSight } from './frontSight'
import type { Level } from './levels'
import { DONE, times, upper, type Choice, type Found, type Stand } from './stand'
import type { PracticeAsked } from './asked'
import { lessonOf } from './lessons'
import type { BenchRun } from './run'
import { seedOf } from './seed'

export type FrontBike = { setup: FrontSetup; hidden: HiddenFront; faults: readonly FrontIll[] }
const FROM_SEED = 8_000_000
const TRIES = 300
/** A stop taken for the cable's tension, a cage that stands wrong taken for a stop. */
const ALIKE: ReadonlySet<FrontIll> = new Set(['L in', 'H in', 'height', 'angle', 'friction'])
const ILL_WORDS: Record<FrontIll, string> = {
  tension: 'the cable was off',
  'L out': 'L let the chain inboard',
  'L in': 'L held the cage off the small ring',
  'H out': 'H let the chain outboard',
  'H in': 'H held the cage off the big ring',
  height: 'the cage stood at the wrong height',
  angle: 'the cage was turned',
  friction: 'the cable dragged',
  pull: 'lever and derailleur did not match',
}

/** The front of a number on a level; `fault` is what a lesson is about. */
export function frontBike(number: number, level: Level, fault?: FrontIll): FrontBike {
  const fits = ({ faults }: FrontBike): boolean => {
    if (fault) return faults.length === 1 && faults[0] === fault
    if (level === 'two') return faults.length === 2
    if (level === 'none') return number % 5 < 3 ? faults.length === 0 : faults.length === 1
    return faults.length === 1 && (level === 'one' || ALIKE.has(faults[0]!))
  }
  for (let k = 0; k < TRIES; k++) {
    const bike = faultyFront(FROM_SEED + number * TRIES + k)
    if (fits(bike)) return bike
  }
  return faultyFront(FROM_SEED + number * TRIES)
}

/** Eyes of one's own: what happens is seen as it is. */
const OWN_EYES = { tolerance: 1, wrongReports: 0 }
/** A part renewed without blame was renewed needlessly; as the bench judges. */
const NEEDED_MM = 0.4
const NEEDS: Partial<Record<FrontSet, FrontFault>> = { cable: 'friction', lever: 'pull' }

/** What can be done at a front, each by its id. */
function movesOf({ setup }: FrontBike): { id: string; group: Choice['group']; move: FrontMoveTo }[] {
  const rings = setup.parts.rings.length
  const shifts = Array.from({ length: rings - 1 }, (_, r) => [
    [r, r + 1],
    [r + 1, r],
  ]).flat()
  return [
    ...shifts.map(([from, to]) => ({
      id: `shift ${from} ${to}`,
      group: 'look' as const,
      move: { do: 'shift', from: from!, to: to!, sprocket: 0 } as const,
    })),
    { id: 'position', group: 'look', move: { do: 'position' } },
    { id: 'gap inner', group: 'look', move: { do: 'gap', plate: 'inner' } },
    { id: 'gap outer', group: 'look', move: { do: 'gap', plate: 'outer' } },
    { id: 'stop inner', group: 'look', move: { do: 'gap', plate: 'inner', byStop: true } },
    { id: 'stop outer', group: 'look', move: { do: 'gap', plate: 'outer', byStop: true } },
    { id: 'undone', group: 'look', move: { do: 'undone' } },
    ...FRONT_SCREWS.flatMap(screw =>
      TURNS.map(sixteenths => ({
        id: `turn ${screw} ${sixteenths}`,
        group: 'turn' as const,
        move: { do: 'turn', screw, sixteenths } as const,
      })),
    ),
    ...FRONT_SET.filter(what => what !== 'stops').map(what => ({
      id: `set ${what}`,
      group: 'renew' as const,
      move: { do: 'set', what } as const,
    })),
  ]
}
/** Turns that can be made at once, sixteenths. */
const TURNS = [-16, -8, -4, -2, 2, 4, 8, 16] as const

/** What the customer met on the way here: the first shift of a round that was not clean. */
function noticed(bench: ReturnType<typeof simulatedFront>, rings: number): string | null {
  const last = rings - 1
  const round = [...Array(last).keys()].flatMap(r => [
    [r, r + 1],
    [last - r, last - r - 1],
  ]) as [number, number][]
  for (const [from, to] of round) {
    const e = bench.perform({ do: 'shift', from, to, sprocket: 0 })
    if (e?.kind === 'frontShift' && e.seen !== 'clean') return seenWords(e.seen, onRing(to, rings))
  }
  return null
}

/** A front at the practice stand. */
export function frontStand(bike: FrontBike, seed: number, acts: readonly string[]): Stand {
  const bench = simulatedFront(bike.setup, bike.hidden, seed, OWN_EYES)
  const { parts } = bike.setup
  const moves = movesOf(bike)
  const says = noticed(bench, parts.rings.length)
  const came = { ...bench.thrown }
  const say = (m: FrontMoveTo) => sayFrontMove(m, parts)
  const found: Found[] = []
  const wasted: string[] = []
  let touches = 0
  let over = false
  let before = bench.hidden
  for (const act of acts) {
    if (over) break
    const move = moves.find(m => m.id === act)?.move ?? anyTurn(act)
    if (act === DONE) over = true
    else if (!move) continue
    else {
      const needs = move.do === 'set' ? NEEDS[move.what] : undefined
      if (needs && !bench.faults(NEEDED_MM)[needs]) wasted.push(move.do === 'set' ? `the ${move.what}` : '')
      before = bench.hidden
      const e = bench.perform(move)!
      const is = foundWords(e, parts.rings.length)
      found.push({ asked: say(move), is, ...(move.do === 'shift' ? { drawn: true as const } : {}) })
    }
    touches++
  }
  const inboard = bench.thrown.inboard - came.inboard
  const outboard = bench.thrown.outboard - came.outboard
  const thrown = inboard + outboard
  const right = bench.isRight()
  const won = over && right && !wasted.length && !thrown
  const { move: asked, right: chance } = adviseFront(bike.setup, bench.log, {})
  // here each way of a shift is an act of its own
  const move: FrontMoveTo = asked.do === 'shift' ? { ...asked, back: undefined, times: undefined } : asked
  const id = move.do === 'done' ? DONE : idOf(move)
  return {
    bike: `${upper(parts.rings.map((_, i) => ringName(parts, i)).join(' and '))}, ${parts.cage} cage`,
    says,
    caution:
      'A practice front. On a real one fingers stay clear of rings and chain, and L is set with the cable slack.',
    choices: moves.map(m => ({ id: m.id, group: m.group, words: say(m.move) })),
    turnTitle: 'Turn',
    found,
    sight: frontSight(bike.setup, bench.hidden, bench.log, before),
    touches,
    over,
    won,
    because: over
      ? [
          ...(inboard ? [`The chain fell inboard ${times(inboard)}.`] : []),
          ...(outboard ? [`The chain fell outboard ${times(outboard)}.`] : []),
          ...(wasted.length ? [`Renewed without need: ${listed(wasted)}.`] : []),
          ...(right
            ? []
            : [
                bike.faults.length
                  ? `It was said to be right, and is not: ${listed(bike.faults.map(f => ILL_WORDS[f]))}.`
                  : 'It was right as it came, and a turn put it out.',
              ]),
          ...(won
            ? [
                bike.faults.length
                  ? `${upper(listed(bike.faults.map(f => ILL_WORDS[f])))}: found and put right.`
                  : 'Nothing was wrong, and nothing was made wrong.',
              ]
            : []),
        ]
      : [],
    truth: [
      { what: 'Was wrong', figure: bike.faults.length ? listed(bike.faults.map(f => ILL_WORDS[f])) : 'nothing' },
      { what: 'Inner limit, from where it should stand', figure: `${mm(bike.hidden.stopLMm)} outboard` },
      { what: 'Outer limit, from where it should stand', figure: `${mm(bike.hidden.stopHMm)} outboard` },
      {
        what: 'Cage over the big ring',
        figure: `${bike.hidden.heightMm.toFixed(1)} mm, turned ${bike.hidden.angleDeg.toFixed(1)}°`,
      },
      { what: 'Lost to friction', figure: `${bike.hidden.backlashMm.toFixed(1)} mm of cage` },
    ],
    advised: {
      id,
      words: move.do === 'done' ? 'Prove it' : say(move),
      why:
        move.do === 'done'
          ? `It is right, ${Math.round(100 * chance)} % sure.`
          : 'It tells or mends most for its cost now.',
    },
    needless: wasted.length,
    thrown,
  }
}

const mm = (x: number): string => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(1)} mm`
const idOf = (m: FrontMoveTo): string => {
  switch (m.do) {
    case 'shift':
      return `shift ${m.from} ${m.to}`
    case 'gap':
      return `${m.byStop ? 'stop' : 'gap'} ${m.plate}`
    case 'turn':
      return `turn ${m.screw} ${m.sixteenths}`
    case 'set':
      return `set ${m.what}`
    default:
      return m.do
  }
}
/** Most sixteenths of one turn, as the advice may ask for them. */
const MOST_SIXTEENTHS = 64
/** A turn by any number of sixteenths, as the advice asks for it. */
function anyTurn(act: string): FrontMoveTo | null {
  const told = /^turn (barrel|H|L) (-?\d{1,2})$/.exec(act)
  const sixteenths = Number(told?.[2])
  if (!told || !sixteenths || Math.abs(sixteenths) > MOST_SIXTEENTHS) return null
  return { do: 'turn', screw: told[1] as 'barrel' | 'H' | 'L', sixteenths }
}

function foundWords(e: ReturnType<ReturnType<typeof simulatedFront>['perform']>, rings: number): string {
  switch (e?.kind) {
    case 'frontShift':
      return seenWords(e.seen, onRing(e.to, rings))
    case 'frontGap':
      return `${e.gapMm.toFixed(1)} mm`
    case 'frontPosition':
      return `${e.heightMm?.toFixed(1) ?? '?'} mm over the ring, turned ${e.angleDeg?.toFixed(1) ?? '?'}°`
    case 'frontUndone':
      return e.drops ? 'It drops' : 'It does not drop'
    default:
      return 'done'
  }
}

const of = ({ bike, level, lesson }: PracticeAsked) => frontBike(bike, level, lessonOf(lesson)?.front)
/** The front that is asked for. */
export const frontRun: BenchRun = {
  stand: asked => {
    const bike = of(asked)
    return acts => frontStand(bike, seedOf(asked), acts)
  },
  faults: asked => [...of(asked).faults],
}
