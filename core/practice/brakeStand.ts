import { brakeLook, noticedOf, type SimulatedBrake } from '../bench/brake'
import { BRAKE_CHECKS } from '../brake/checks'
import { diagnose, type BrakeSeen } from '../brake/diagnose'
import { BRAKE_FAULTS, checksFor, signOf, type BrakeFault } from '../brake/faults'
import { BRAKE_KINDS, BRAKE_KIND_WORDS, type BrakeKind } from '../brake/kinds'
import { randomFrom } from '../quantity/random'
import { listed } from '../quantity/words'
import { isBrakeDrawn, type BrakeSight } from './brakeSight'
import type { Level } from './levels'
import { DONE, upper, type Choice, type Found, type Stand } from './stand'
import type { PracticeAsked } from './asked'
import { lessonOf } from './lessons'
import type { BenchRun } from './run'
import { seedOf } from './seed'

/** Kinds that one practises on: those whose looks are told apart by eye. */
const KINDS: readonly BrakeKind[] = BRAKE_KINDS.filter(k => k !== 'coaster' && k !== 'roller' && k !== 'drum')
export type BrakeBike = { kind: BrakeKind; faults: readonly BrakeFault[] }

/** The brake of a number on a level; `fault` is what a lesson is about. */
export function brakeBike(number: number, level: Level, lesson?: { kind: BrakeKind; fault: string }): BrakeBike {
  const random = randomFrom(number, 1711)
  const kind = lesson?.kind ?? KINDS[random.below(KINDS.length)]!
  const all = BRAKE_FAULTS[kind]
  if (lesson) return { kind, faults: all.filter(f => f.id === lesson.fault) }
  // another fault has the same sign: only a second look tells them apart
  const alike = all.filter(f => all.some(o => o !== f && signOf(o) === signOf(f)))
  const from = level === 'alike' && alike.length ? alike : all
  const first = from[random.below(from.length)]!
  const others = all.filter(f => f !== first && signOf(f) !== signOf(first))
  if (level === 'none' && random.next() < 0.6) return { kind, faults: [] }
  return { kind, faults: level === 'two' && others.length ? [first, others[random.below(others.length)]!] : [first] }
}

const LOOK = 'look '
const CURE = 'cure '

/** A brake at the practice stand. Eyes of one's own: a look shows what is there. */
export function brakeStand(bike: BrakeBike, seed: number, acts: readonly string[]): Stand {
  let brake: SimulatedBrake = { ...bike, wrongLooks: 0 }
  const checks = checksFor(bike.kind)
  const noticed = noticedOf(brake, seed)
  let seen: BrakeSeen[] = noticed ? [noticed] : []
  const cured: string[] = []
  const found: Found[] = []
  const wasted: string[] = []
  let touches = 0
  let over = false
  let sight: BrakeSight = { of: 'brake', disc: bike.kind === 'cable-disc', look: null, outcome: '' }
  for (const act of acts) {
    if (over) break
    const check = checks.find(c => act === LOOK + c.id)
    const fault = BRAKE_FAULTS[bike.kind].find(f => act === CURE + f.id)
    if (check) {
      const outcome = brakeLook(brake, check.id, seed, 0)
      seen = [...seen, { check: check.id, outcome }]
      const drawn = isBrakeDrawn(check.id) ? check.id : null
      sight = { ...sight, look: drawn, outcome }
      found.push({
        asked: check.ask,
        is: wordsOf({ check: check.id, outcome }),
        ...(drawn ? { drawn: true as const } : {}),
      })
    } else if (fault) {
      const was = brake.faults.includes(fault)
      brake = { ...brake, faults: brake.faults.filter(f => f !== fault) }
      if (!was && fault.renews) wasted.push(fault.words.toLowerCase())
      cured.push(fault.id)
      seen = []
      sight = { ...sight, look: null, outcome: '' }
      found.push({ asked: fault.words, is: `done: ${fault.cure}` })
    } else if (act === DONE) over = true
    else continue
    touches++
  }
  const left = brake.faults
  const won = over && !left.length && !wasted.length
  const d = diagnose(bike.kind, seen, cured)
  const named = d.found && d.found.id !== 'none' ? d.found : null
  const advised =
    named !== null
      ? { id: CURE + named.id, words: named.words, why: 'The looks agree on it.' }
      : d.found || !d.next
        ? { id: DONE, words: 'Prove it', why: 'Nothing more is seen to be wrong.' }
        : { id: LOOK + d.next.check.id, words: d.next.check.ask, why: 'It tells most for its cost now.' }
  return {
    bike: `${BRAKE_KIND_WORDS[bike.kind]}, front`,
    says: noticed && wordsOf(noticed),
    caution:
      'A practice brake. On a real one nothing oily goes near pads, rim or rotor, and it is proven before it leaves.',
    choices: [
      ...checks.map((c): Choice => ({ id: LOOK + c.id, group: 'look', words: c.ask })),
      ...BRAKE_FAULTS[bike.kind].map((f): Choice => ({ id: CURE + f.id, group: 'renew', words: f.words })),
    ],
    turnTitle: 'Turn',
    found,
    sight,
    touches,
    over,
    won,
    because: over ? becauseOf(bike, left, wasted, acts) : [],
    truth: bike.faults.length
      ? bike.faults.map(f => ({ what: f.words, figure: `shows at: ${signsOf(f)}` }))
      : [{ what: 'Nothing', figure: 'it was right as it came' }],
    advised,
    needless: wasted.length,
    thrown: 0,
  }
}

const wordsOf = ({ check, outcome }: BrakeSeen): string =>
  BRAKE_CHECKS.find(c => c.id === check)!.outcomes.find(o => o[0] === outcome)![1]

const signsOf = (f: BrakeFault): string =>
  listed(
    Object.keys(f.shows).map(id =>
      BRAKE_CHECKS.find(c => c.id === id)!
        .ask.replace(/[:?].*$/, '')
        .toLowerCase(),
    ),
  )

function becauseOf(
  bike: BrakeBike,
  left: readonly BrakeFault[],
  wasted: readonly string[],
  acts: readonly string[],
): string[] {
  const looked = (f: BrakeFault) => acts.includes(LOOK + signOf(f))
  return [
    ...left.map(f =>
      looked(f)
        ? `Still there: ${f.words.toLowerCase()}. Its sign was looked at, and taken for something else.`
        : `Still there: ${f.words.toLowerCase()}. Its own sign, “${BRAKE_CHECKS.find(c => c.id === signOf(f))?.ask ?? signOf(f)}”, was not looked at.`,
    ),
    ...(wasted.length ? [`Renewed without need: ${listed(wasted)}.`] : []),
    ...(!left.length && !wasted.length
      ? [
          bike.faults.length
            ? `${upper(listed(bike.faults.map(f => f.words.toLowerCase())))}: found and put right.`
            : 'Nothing was wrong, and nothing was renewed.',
        ]
      : []),
  ]
}

const of = ({ bike, level, lesson }: PracticeAsked) => brakeBike(bike, level, lessonOf(lesson)?.brake)
/** The brake that is asked for. */
export const brakeRun: BenchRun = {
  stand: asked => {
    const bike = of(asked)
    return acts => brakeStand(bike, seedOf(asked), acts)
  },
  faults: asked => of(asked).faults.map(f => f.id),
}
