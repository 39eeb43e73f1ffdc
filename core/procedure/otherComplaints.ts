import { THROWN_CAUTION } from './otherSays'

/**
 * What the customer says of the rest of the bike: causes commonest first, the test that splits them, and the bench
 * where it goes on. All `practice`, no source.
 */
export type OtherBench = 'front' | 'brakes' | 'hub'
export const OTHER_BENCH_WORDS: Record<OtherBench, string> = { front: 'Front', brakes: 'Brakes', hub: 'Hub' }
type OtherComplaint = {
  id: string
  bench: OtherBench
  causes: readonly string[]
  test: { ask: string; answers: readonly { id: string; words: string; leaves: readonly number[] }[] }
  caution?: string
}
const answer = (id: string, words: string, ...leaves: number[]) => ({ id, words, leaves })
const BRAKES_FIRST = 'Not ridden, not even round the shop, until both brakes are proven.'

export const OTHER_COMPLAINTS: readonly OtherComplaint[] = [
  {
    id: 'front-no-climb',
    bench: 'front',
    causes: ['slack cable', 'H too far in', 'cage too high or turned'],
    test: {
      ask: 'Draw the bare wire by hand: does the cage reach the big ring?',
      answers: [answer('reaches', 'It reaches', 0), answer('short', 'It stops short', 1, 2)],
    },
  },
  {
    id: 'front-no-drop',
    bench: 'front',
    causes: ['cable too tight', 'L too far in', 'friction in the run, or a stiff pivot'],
    test: {
      ask: 'Lever at the small ring, wire slack: does it drop now?',
      answers: [answer('drops', 'It drops', 0, 2), answer('stays', 'It stays up', 1)],
    },
  },
  {
    id: 'front-off-inside',
    bench: 'front',
    causes: ['L too far out', 'cage too high or turned', 'a bent ring'],
    test: {
      ask: 'Wire slack, small ring, largest sprocket: inner plate more than 2 mm from the chain?',
      answers: [answer('wide', 'More than 2 mm', 0), answer('close', '2 mm or less', 1, 2)],
    },
    caution: THROWN_CAUTION.inboard,
  },
  {
    id: 'front-off-outside',
    bench: 'front',
    causes: ['H too far out', 'cage too high or turned', 'a bent ring or cage'],
    test: {
      ask: 'Draw the bare wire by hand: does the cage go well past the big ring?',
      answers: [answer('past', 'Well past it', 0), answer('over', 'Stands over it', 1, 2)],
    },
    caution: THROWN_CAUTION.outboard,
  },
  {
    id: 'front-rubs',
    bench: 'front',
    causes: ['tension, or a trim not used', 'cage turned', 'chain line, or a crossed pair'],
    test: {
      ask: 'Does it rub in most pairs of that ring, or in the last ones only?',
      answers: [answer('most', 'In most', 0, 1), answer('last', 'In the last ones only', 2, 0)],
    },
  },
  {
    id: 'brake-weak',
    bench: 'brakes',
    causes: ['wire to take up, or pads worn', 'wire slips at its bolt', 'release left open, or the noodle out'],
    test: {
      ask: 'Squeeze hard and hold: does the wire move at its bolt?',
      answers: [answer('slips', 'It moves', 1), answer('holds', 'It holds', 0, 2)],
    },
    caution: BRAKES_FIRST,
  },
  {
    id: 'brake-rubs',
    bench: 'brakes',
    causes: ['wheel not home', 'brake not centred', 'wheel or rotor out of true'],
    test: {
      ask: 'Spin the wheel: does it rub all round, or once a turn?',
      answers: [answer('all', 'All round', 0, 1), answer('once', 'Once a turn', 2, 0)],
    },
  },
  {
    id: 'brake-noise',
    bench: 'brakes',
    causes: ['glazed or oily pads', 'pads off the track or without toe', 'brake loose on its mount'],
    test: {
      ask: 'Rock the bike with the brake on: does the brake itself move?',
      answers: [answer('moves', 'It moves', 2), answer('fast', 'It is fast', 0, 1)],
    },
  },
  {
    id: 'brake-stiff',
    bench: 'brakes',
    causes: ['drag in the housing', 'the lever sticks', 'an arm tight on its post'],
    test: {
      ask: 'Wire off at the brake: do lever and wire run freely by hand?',
      answers: [answer('free', 'Both do', 2), answer('not', 'One does not', 0, 1)],
    },
  },
  {
    id: 'hub-slips',
    bench: 'hub',
    causes: ['cable out of its setting', 'lock nut loose, or the axle moved', 'inside the hub'],
    test: {
      ask: 'Setting gear, look at the window or the marks: do they stand right?',
      answers: [answer('off', 'They do not', 0, 1), answer('right', 'They do', 2)],
    },
    caution: 'A hub that slips throws the rider: not ridden until it holds.',
  },
  {
    id: 'hub-one-off',
    bench: 'hub',
    causes: ['grip and hub one number apart', 'cable out of its setting'],
    test: {
      ask: 'From end to end: is every gear there, all one number off?',
      answers: [answer('all', 'All there, one off', 0), answer('missing', 'One is missing', 1)],
    },
  },
]

/** Causes that remain, in order, after the test if it was answered. */
export function otherCausesLeft(c: OtherComplaint, answerId: string | null): readonly string[] {
  const told = c.test.answers.find(a => a.id === answerId)
  return told ? told.leaves.map(i => c.causes[i]!) : c.causes
}
