import { describe, expect, test } from 'vitest'
import type { Move } from './contract'
import { setupOfStandard } from '../response/testBikes'
import { geometryOf } from '../response/setup'
import type { RearSetup } from '../response/setup'
import type { Analysis } from './analysis'
import { effectOf, explain } from './explain'
import { barsBarrel, cautionOf, headOf, sayMove, seenFrom, whyTurns } from './moveWords'
import type { Posterior } from './posterior'
import { declineKey } from './moveKey'

const TEETH = [11, 13, 15, 17, 19, 21, 24, 28, 32, 36]
const EVERY: readonly Move[] = [
  { do: 'shift', to: 2 },
  { do: 'turn', screw: 'barrel', turns: 0.25 },
  { do: 'turn', screw: 'L', turns: -0.5 },
  { do: 'sight', at: 'H' },
  { do: 'offset', click: 4 },
  { do: 'edge', click: 3, way: 'out' },
  { do: 'hanger' },
  { do: 'pass', to: 9, back: true },
  { do: 'reclamp', barrelTurnsOut: 2 },
  { do: 'replace', part: 'cable', cause: 'friction' },
  { do: 'done' },
]

test('every move is said in the trade’s words, with no number that is none', () => {
  for (const move of EVERY) {
    const { small, big } = headOf(move, TEETH, { right: 0.9 })
    for (const words of [small, big, sayMove(move, TEETH)]) {
      expect(words, move.do).not.toMatch(/NaN|undefined|null|\[object/)
      expect(words.length).toBeGreaterThan(2)
    }
  }
  expect(headOf({ do: 'pass', to: 9, back: true }, TEETH, { right: 0.5 }).big).toBe('To the 36, back')
})

// common practice, no source: out and in are told from the end that a hand holds
test('a turn says from where it is seen; what is no turn says nothing of it', () => {
  expect(EVERY.map(seenFrom).filter(Boolean)).toEqual(['seen from the housing end', 'seen from the head of the screw'])
})

test('where a hand could be hurt the caution is there', () => {
  const cautioned = EVERY.filter(m => cautionOf(m) !== null).map(m => m.do)
  expect(cautioned).toEqual(['turn', 'sight', 'edge', 'hanger', 'reclamp', 'replace'])
  expect(cautionOf({ do: 'turn', screw: 'L', turns: 0.25 })).toContain('spoke')
})

test('what is left is left by what it is about, not by its amount', () => {
  expect(declineKey({ do: 'turn', screw: 'L', turns: 0.5 })).toBe(declineKey({ do: 'turn', screw: 'L', turns: -1 }))
  expect(declineKey({ do: 'shift', to: 2 })).toBe(declineKey({ do: 'pass', to: 9, back: true }))
  expect(declineKey({ do: 'replace', part: 'cable', cause: 'friction' })).toBe('replace cable')
  expect(declineKey({ do: 'edge', click: 3, way: 'out' })).toBe('edge 3 out')
  expect(new Set(EVERY.map(declineKey)).size).toBe(EVERY.length - 1)
})

describe('every move in its words', () => {
  const bare: Move = { do: 'replace', part: 'derailleur', cause: 'mismatch' }
  test.each<[Move, string, string, string]>([
    [{ do: 'shift', to: 2 }, 'Shift to the 15 and listen', 'Shift and listen', 'To the 15'],
    [{ do: 'turn', screw: 'barrel', turns: 0.25 }, 'Barrel out 1/4 turn', 'Barrel out', '1/4 turn'],
    [{ do: 'turn', screw: 'barrel', turns: -0.5 }, 'Barrel in 1/2 turn', 'Barrel in', '1/2 turn'],
    // a stop's + is in, a barrel's + is out
    [{ do: 'turn', screw: 'L', turns: 0.25 }, 'L screw in 1/4 turn', 'L screw in', '1/4 turn'],
    [{ do: 'turn', screw: 'H', turns: -1 }, 'H screw out 1 turn', 'H screw out', '1 turn'],
    [{ do: 'sight', at: 'L' }, 'See L by hand', 'See by hand', 'L stop'],
    [{ do: 'offset', click: 4 }, "Measure the pulley's offset on the 19", 'Measure the pulley', 'On the 19'],
    [{ do: 'edge', click: 3, way: 'in' }, 'On the 17, wind in to the rub', 'On the 17, cranks turning', 'Wind in'],
    [
      { do: 'pass', to: 9, back: false },
      'Click by click to the 36, until one is not clean',
      'Click by click, listen',
      'To the 36',
    ],
    [{ do: 'hanger' }, 'Gauge the hanger', 'Stop turning the barrel', 'Gauge it'],
    [{ do: 'reclamp', barrelTurnsOut: 2 }, 'Clamp again, barrel 2 out', 'Barrel to 2 out', 'Clamp again'],
    [
      { do: 'replace', part: 'cable', cause: 'friction' },
      'Renew the cable and housing',
      'Stop turning the barrel',
      'New cable',
    ],
    [bare, 'Renew the derailleur', 'Stop turning the barrel', 'New derailleur'],
  ])('%o', (move, said, small, big) => {
    expect(sayMove(move, TEETH).replaceAll('\u00a0', ' ')).toBe(said)
    const head = headOf(move, TEETH, { right: 0.2 })
    expect([head.small, head.big].map(w => w.replaceAll('\u00a0', ' '))).toEqual([small, big])
    expect(barsBarrel(move)).toBe(small === 'Stop turning the barrel')
  })
  test('told to stop, it says whether the bike is right or nothing gains more', () => {
    expect(headOf({ do: 'done' }, TEETH, { right: 0.5 })).toEqual({ small: 'It is right', big: 'Stop here' })
    expect(headOf({ do: 'done' }, TEETH, { right: 0.49 }).small).toBe('Nothing gains more')
  })

  // common practice: L in holds the pulley off the spokes, H in off the frame; a barrel wound out lengthens the housing
  test('what a turn does, and why', () => {
    const why = (screw: 'barrel' | 'H' | 'L', turns: number) => whyTurns({ do: 'turn', screw, turns })
    expect(why('L', 0.25)).toMatch(/^In: the pulley stops sooner, away from the spokes/)
    expect(why('L', -0.25)).toMatch(/^Out: the pulley may go further to the spokes/)
    expect(why('H', 0.25)).toMatch(/^In: the pulley stops sooner, away from the frame/)
    expect(why('H', -0.25)).toMatch(/^Out: the pulley may go further to the frame/)
    expect(why('barrel', 0.25)).toMatch(/comes out, the housing’s way gets longer, the wire is drawn/)
    expect(why('barrel', -0.25)).toMatch(/goes in, the housing’s way gets shorter, the wire goes slack/)
    expect(whyTurns({ do: 'hanger' })).toBeNull()
  })

  test('each caution is the one of its move', () => {
    expect(cautionOf(bare)).toContain('maker’s instructions')
    expect(cautionOf({ do: 'replace', part: 'cable', cause: 'friction' })).toContain('goggles')
    expect(cautionOf({ do: 'reclamp', barrelTurnsOut: 2 })).toContain('goggles')
    expect(cautionOf({ do: 'hanger' })).toContain('titanium')
    expect(cautionOf({ do: 'turn', screw: 'H', turns: 0.25 })).toBeNull()
    expect(cautionOf({ do: 'turn', screw: 'barrel', turns: 0.25 })).toBeNull()
  })
})

describe('why a move is advised', () => {
  const setup = setupOfStandard('r17-9')
  const at = (s: RearSetup) => ({ setup: s, geometry: geometryOf(s) }) as unknown as Posterior
  const stop = (good: number, bestGood: number, mean: number) => ({ good, bestGood, offsetMm: { mean, sd: 0.2 } })
  const none = { tension: 0, friction: 0, hanger: 0, mismatch: 0, wear: 0, stops: 0 }
  const analysis = (change: Partial<Analysis> = {}) =>
    ({
      right: 0.3,
      causes: none,
      wear: { any: 0.7 },
      offsetMm: { mean: -0.62, sd: 0.21 },
      stops: { L: stop(0.2, 0.9, 1.24), H: stop(0.85, 0.86, -0.02) },
      readings: [
        { weight: 0.5, belief: { ratio: 1.6 } },
        { weight: 0.5, belief: { ratio: 1.8 } },
      ],
      ...change,
    }) as unknown as Analysis
  const why = (move: Move, change: Partial<Analysis> = {}, s = setup) =>
    explain(at(s), analysis(change), { move, best: { turns: 0.5, right: 0.91 }, check: null }).replaceAll('\u00a0', ' ')

  test('a barrel turn by how slack or tight the cable is', () => {
    const turn: Move = { do: 'turn', screw: 'barrel', turns: 0.5 }
    expect(why(turn)).toBe('The cable is 0.6 ± 0.2 mm too slack; right goes from 30 % to 91 %.')
    expect(why(turn, { offsetMm: { mean: 0.4, sd: 0.1 } })).toContain('0.4 ± 0.1 mm too tight')
  })
  test('a stop by where it stands, and of which sprocket; one that is safe, by the school', () => {
    expect(why({ do: 'turn', screw: 'L', turns: 0.5 })).toBe(
      'L stands 1.2 mm inboard of the plane of the largest sprocket: well set 20 % as it is, 90 % after the turn.',
    )
    expect(why({ do: 'turn', screw: 'H', turns: 0.5 })).toBe(
      "H stands in line with the plane: safe, and this shop's school wants it elsewhere.",
    )
    const off = { L: stop(0.1, 0.9, 0), H: stop(0.1, 0.9, -1.5) }
    expect(why({ do: 'turn', screw: 'H', turns: 0.5 }, { stops: off } as Partial<Analysis>)).toContain(
      '1.5 mm outboard of the plane of the smallest',
    )
  })
  test('a stop is seen before its sprocket', () => {
    expect(why({ do: 'sight', at: 'L' })).toMatch(/before the 34: .*inboard.*spokes/)
    expect(why({ do: 'sight', at: 'H' })).toMatch(/^See H by hand: .*outer stop/)
    // once more: not as if nobody had seen it
    const seen = { ...at(setup), trace: { seenL: true, seenH: true } } as ReturnType<typeof at>
    const again = (stop: 'H' | 'L') =>
      explain(seen, analysis(), { move: { do: 'sight', at: stop }, best: { turns: 0.5, right: 0.91 }, check: null })
    expect(again('H')).toMatch(/^H stands well 85.%: looked at once more/)
    expect(again('L')).toMatch(/^L stands well 20.%: looked at once more/)
  })
  // a barrel wound out draws to the larger neighbour; under a spring that pulls to the largest, to the smaller
  test.each([
    ['out', 'high', 'larger'],
    ['in', 'high', 'smaller'],
    ['out', 'low', 'smaller'],
    ['in', 'low', 'larger'],
  ] as const)('wound %s under a %s spring it rubs on the %s neighbour', (way, spring, which) => {
    expect(why({ do: 'edge', click: 3, way }, {}, { ...setup, spring })).toContain(`on the ${which} neighbour`)
  })
  test.each([
    [0.5, 'high', '0.40 mm of cable, 0.68 mm towards the spokes'],
    [-0.5, 'high', '0.40 mm of cable, 0.68 mm towards the frame'],
    [0.5, 'low', '0.40 mm of cable, 0.68 mm towards the frame'],
    [-0.25, 'low', '0.20 mm of cable, 0.34 mm towards the spokes'],
  ] as const)('%f turns of a thread of 0.8 mm under a %s spring', (turns, spring, words) => {
    const s = { ...setup, spring, barrelPitchMm: 0.8 }
    expect(effectOf(at(s), analysis(), { do: 'turn', screw: 'barrel', turns })).toBe(words)
    expect(effectOf(at(s), analysis(), { do: 'turn', screw: 'L', turns })).toBeNull()
    expect(effectOf(at(s), analysis(), { do: 'hanger' })).toBeNull()
  })

  test('a part is renewed for what it is, by its chance; worn sprockets by theirs', () => {
    const causes = { ...none, friction: 0.83, wear: 0.1 }
    expect(why({ do: 'replace', part: 'cable', cause: 'friction' }, { causes })).toBe(
      'This is friction in the run (83 %), and no setting cures it (best 91 %).',
    )
    expect(why({ do: 'replace', part: 'cassette', cause: 'wear' }, { causes })).toMatch(/sprockets are worn \(70 %\)/)
  })
  test('two causes that remain are named, the likelier first; one alone or sure ones are not', () => {
    const open = { ...none, hanger: 0.3, friction: 0.6 }
    expect(why({ do: 'shift', to: 2 }, { causes: open })).toBe(
      'This arrival tells most now. Still open: friction 60 % or hanger 30 %; this splits them best.',
    )
    expect(why({ do: 'done' }, { causes: open })).toBe(
      'No further move gains enough: 30 % right as it stands. Still open: friction 60 % or hanger 30 %.',
    )
    for (const causes of [
      { ...none, hanger: 0.6 },
      { ...none, hanger: 0.2, friction: 0.6 },
      { ...open, friction: 0.95 },
    ])
      expect(why({ do: 'hanger' }, { causes })).not.toContain('Still open')
    expect(why({ do: 'done' }, { right: 0.93 })).toBe('Every gear is expected clean from both sides: 93 % sure.')
    for (const move of [
      { do: 'pass', to: 8, back: true },
      { do: 'offset', click: 3 },
      { do: 'edge', click: 3, way: 'in' },
    ])
      expect(why(move as Move, { causes: open }), move.do).toContain('splits them best')
  })
})
