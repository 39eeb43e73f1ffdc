import type { Cause } from '../response/causes'
import { rearSays } from './rearSays'
import type { Stage } from './stages'

/**
 * What the customer says, the causes commonest first, and the test that splits them. All `practice`, no source.
 * `blames` ties a cause to the advice's own; the rest are found by eye in the stage they lead to.
 */
type CauseOf = { words: string; leads: Stage; blames: readonly Cause[] }
type Told = {
  id: string
  causes: readonly CauseOf[]
  test: {
    ask: string
    answers: readonly { id: string; words: string; leaves: readonly number[] }[]
    /** Sixteenths of barrel that the test itself turns, + out, and that stay turned. */
    turnsBarrel?: number
  }
  /** What is told before anything is tried. */
  caution?: string
}
type Complaint = Told & { says: string }

const cause = (words: string, leads: Stage, ...blames: Cause[]): CauseOf => ({ words, leads, blames })
const slack = cause('slack cable', 'index', 'tension')
const tight = cause('cable too tight', 'index', 'tension')
const friction = cause('friction in the run', 'cable', 'friction')
const hanger = cause('bent hanger', 'hanger', 'hanger')
const mismatch = cause('parts that do not match', 'sense', 'mismatch')
const worn = cause('worn chain or sprockets', 'sense', 'wear')
const gap = cause('B gap', 'gap')
const stiffLink = cause('stiff or joining link', 'sense')
const answer = (id: string, words: string, ...leaves: number[]) => ({ id, words, leaves })

const TOLD: readonly Told[] = [
  {
    id: 'nothing',
    causes: [
      slack,
      cause('head off its seat', 'cable', 'tension'),
      cause('gummed lever', 'sense'),
      cause('broken wire', 'cable'),
    ],
    test: {
      ask: 'Pull the bare wire: does the derailleur move?',
      answers: [answer('moves', 'It moves', 0, 1, 2), answer('still', 'It does not', 3)],
    },
  },
  {
    id: 'slow-in',
    causes: [slack, friction, worn],
    test: {
      ask: 'Barrel out 1/4: cured?',
      answers: [answer('cured', 'Cured', 0), answer('not', 'Not cured', 1, 2)],
      turnsBarrel: 4,
    },
  },
  {
    id: 'slow-out',
    causes: [tight, friction, cause('weak spring, or the clutch', 'sense', 'friction')],
    test: {
      ask: 'Barrel in 1/4, then the cable off: does it snap back?',
      answers: [
        answer('cured', 'The barrel cured it', 0),
        answer('snaps', 'Snaps back with the cable off', 1),
        answer('lazy', 'Lazy even with the cable off', 2),
      ],
      turnsBarrel: -4,
    },
  },
  {
    id: 'two-gears',
    causes: [
      cause('tight or slack cable', 'index', 'tension'),
      mismatch,
      cause('lever that moves several at a stroke', 'sense'),
    ],
    test: {
      ask: 'Measure one click’s cable: as the numbers say?',
      answers: [
        answer('as-said', 'As the numbers say', 0),
        answer('other', 'Another length', 1),
        answer('several', 'Several clicks at a stroke', 2),
      ],
    },
  },
  {
    id: 'one-gear-chatters',
    causes: [slack, cause('bent tooth', 'sense'), worn],
    test: {
      ask: 'Once per wheel turn?',
      answers: [answer('wheel', 'Once per wheel turn', 1), answer('all', 'All the time', 0, 2)],
    },
  },
  {
    id: 'all-chatter',
    causes: [slack, cause('skewed hanger', 'hanger', 'hanger'), gap],
    test: {
      ask: '1/4 in, then 1/4 out: does every gear change alike?',
      answers: [answer('alike', 'All alike', 0), answer('unlike', 'Not alike', 1, 2)],
    },
  },
  {
    id: 'one-end',
    causes: [hanger, mismatch, gap],
    test: {
      ask: 'Gauge the hanger, or measure the offset at both ends',
      answers: [answer('bent', 'Gauge says bent', 0), answer('true', 'Gauge says true', 1, 2)],
    },
  },
  {
    id: 'not-largest',
    causes: [slack, cause('L too far in', 'stops', 'stops'), mismatch, cause('chain too short', 'sense')],
    test: {
      ask: 'At the last click push it by hand: does it go there?',
      answers: [answer('goes', 'Goes there', 0, 2), answer('cannot', 'Cannot', 1, 3)],
    },
  },
  {
    id: 'not-smallest',
    causes: [tight, cause('H too far in', 'stops', 'stops'), friction],
    test: {
      ask: 'Cable off: does it drop?',
      answers: [answer('drops', 'Drops', 0, 2), answer('stays', 'Stays up', 1)],
    },
  },
  {
    id: 'into-spokes',
    causes: [cause('L too far out', 'stops', 'stops'), hanger, cause('bent cage', 'sense', 'hanger')],
    test: {
      ask: 'Cable off, sight L, no pedalling: is it past the largest?',
      answers: [answer('past', 'Past the largest', 0), answer('in-line', 'In line', 1, 2)],
    },
    caution:
      'No pedalling: lift the chain back by hand with the wheel still. Check spokes and cage before anything is set.',
  },
  {
    id: 'off-outside',
    causes: [cause('H too far out', 'stops', 'stops'), hanger, worn],
    test: {
      ask: 'Sight H: outboard of the smallest by more than 2 mm?',
      answers: [answer('past', 'Yes', 0), answer('in-line', 'No', 1, 2)],
    },
  },
  {
    id: 'jumps-under-load',
    causes: [worn, slack, stiffLink],
    test: {
      ask: 'Chain gauge, and on which sprocket?',
      answers: [answer('worn', 'Worn, or always the same sprockets', 0), answer('everywhere', 'Anywhere', 1, 2)],
    },
  },
  {
    id: 'even-skip',
    causes: [stiffLink, cause('joining link', 'sense')],
    test: { ask: 'Back-pedal: once per chain length?', answers: [answer('yes', 'Yes', 0, 1), answer('no', 'No', 0)] },
  },
  {
    id: 'by-itself',
    causes: [
      cause('friction in the last loop', 'cable', 'friction'),
      cause('suspension pulls the housing', 'cable'),
      cause('friction lever creeps', 'sense'),
    ],
    test: {
      ask: 'Bounce the bike and watch the housing',
      answers: [answer('pulls', 'The housing moves', 1), answer('still', 'All still', 0, 2)],
    },
  },
  {
    id: 'when-steering',
    causes: [cause('housing short or caught', 'cable', 'friction')],
    test: { ask: 'Turn the bars lock to lock', answers: [answer('pulls', 'It pulls', 0)] },
  },
  {
    id: 'since-cable',
    causes: [
      cause('bedding in', 'index', 'tension'),
      cause('ferrule not home', 'cable', 'tension'),
      cause('wrong side of the pinch bolt', 'cable', 'mismatch'),
    ],
    test: {
      ask: 'Tug the inner along its run: does anything give?',
      answers: [answer('gives', 'Something gave', 1), answer('firm', 'Firm', 0, 2)],
    },
  },
  {
    id: 'noisy-largest',
    causes: [gap, cause('L too far in', 'stops', 'stops'), cause('chain too short', 'sense')],
    test: {
      ask: 'Look at the pulley tips: do they touch?',
      answers: [answer('touch', 'They touch', 0), answer('clear', 'Clear', 1, 2)],
    },
  },
]
/** Every complaint in its words, with its causes and its test. */
export const REAR_COMPLAINTS: readonly Complaint[] = TOLD.map(c => ({ ...c, says: rearSays(c.id)! }))

/** How much likelier a cause becomes by its rank in the row, and by the test's answer; `model`. */
const BY_RANK = [3, 2, 1.5, 1.2]
const ANSWERED = 2
const EXCLUDED = 0.5

/** Causes that remain, in order, after the test if it was answered. */
export const causesLeft = (c: Complaint, answerId: string | null): readonly CauseOf[] => {
  const told = c.test.answers.find(a => a.id === answerId)
  return told ? told.leaves.map(i => c.causes[i]) : c.causes
}

/** Where to go first: the stage of the likeliest cause that remains. */
export const leadsTo = (c: Complaint, answerId: string | null): Stage => causesLeft(c, answerId)[0].leads

/** Odds of the advice's causes, times what they are without a complaint. */
export function oddsOf(complaintId: string, answerId: string | null): Partial<Record<Cause, number>> {
  const c = REAR_COMPLAINTS.find(x => x.id === complaintId)
  if (!c) return {}
  const told = c.test.answers.find(a => a.id === answerId)
  const out: Partial<Record<Cause, number>> = {}
  c.causes.forEach((of, i) => {
    const times = (BY_RANK[i] ?? 1) * (!told ? 1 : told.leaves.includes(i) ? ANSWERED : EXCLUDED)
    for (const blamed of of.blames) out[blamed] = Math.max(out[blamed] ?? 0, times)
  })
  return out
}
