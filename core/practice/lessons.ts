import type { FrontIll } from '../bench/front'
import type { BrakeKind } from '../brake/kinds'
import type { Cause } from '../response/causes'
import type { Level, PracticeBench } from './levels'

/** A numbered bike with three sentences: a mistake everybody makes once, better here. */
export type Lesson = {
  id: string
  title: string
  says: readonly [string, string, string]
  bench: PracticeBench
  level: Level
  bike: number
  rear?: readonly Cause[]
  front?: FrontIll
  brake?: { kind: BrakeKind; fault: string }
  hub?: string
}

/** One for each cardinal mistake, and one for each order of the rear. `practice` */
export const LESSONS: readonly Lesson[] = [
  {
    id: 'l-first',
    title: 'L before the largest sprocket',
    says: [
      'L lets the chain into the spokes on this one.',
      'Push the cage inboard by hand and see where it stops before the lever ever goes to the largest.',
      'Turn L in until it stands just outboard of the sprocket’s plane, then shift.',
    ],
    bench: 'rear',
    level: 'one',
    bike: 105,
    rear: ['stops'],
  },
  {
    id: 'friction-for-tension',
    title: 'Friction taken for tension',
    says: [
      'It is slow one way, and after half a turn it is slow the other way.',
      'A window that is not there cannot be found with the barrel: two shifts into the same gear from both sides tell it.',
      'Wire and housing are renewed, then it is indexed once.',
    ],
    bench: 'rear',
    level: 'alike',
    bike: 102,
    rear: ['friction'],
  },
  {
    id: 'stop-for-tension',
    title: 'A stop taken for tension',
    says: [
      'It will not reach an end gear, and more barrel changes nothing there.',
      'What a stop holds, the cable cannot move: see both stops by hand first.',
      'A stop that does not move with the barrel is the one that is wrong.',
    ],
    bench: 'rear',
    level: 'alike',
    bike: 103,
    rear: ['stops'],
  },
  {
    id: 'hanger-for-mismatch',
    title: 'A bent hanger taken for parts that do not match',
    says: [
      'One end is clean, the other rubs, and no place of the barrel does for both.',
      'A bent hanger and a wrong ratio sound alike: the gauge tells them apart in a minute.',
      'Never buy a shifter before the hanger was measured.',
    ],
    bench: 'rear',
    level: 'alike',
    bike: 104,
    rear: ['hanger'],
  },
  {
    id: 'wrong-side',
    title: 'The wrong side of the bolt',
    says: [
      'The wire lies on the wrong side of its bolt: every click moves the cage a little too far or not far enough.',
      'Clean at the start of the cassette, worse gear by gear: that is a ratio, not tension.',
      'Here the derailleur stands for it; on a real bike look at the bolt before anything is bought.',
    ],
    bench: 'rear',
    level: 'alike',
    bike: 201,
    rear: ['mismatch'],
  },
  {
    id: 'stops-then-index',
    title: 'Order: stops first, then index',
    says: [
      'See H and L by hand, set what is wrong, and only then listen.',
      'Tension is set on the second sprocket, an eighth at a time.',
      'Then every gear both ways: most bikes need nothing more.',
    ],
    bench: 'rear',
    level: 'one',
    bike: 106,
    rear: ['tension'],
  },
  {
    id: 'climb-then-l',
    title: 'Order: climb, then L',
    says: [
      'Some index first, up to the last sprocket but one, and see L only then.',
      'The largest stays out of reach until L was seen, whichever order you like.',
      'Two things are wrong here: the second shows when the first is right.',
    ],
    bench: 'rear',
    level: 'two',
    bike: 107,
    rear: ['tension', 'stops'],
  },
  {
    id: 'worn-teeth',
    title: 'A skip that no screw cures',
    says: [
      'It knocks under load in one or two gears, however the barrel stands.',
      'Listen twice in the same gear before anything is turned.',
      'Worn sprockets are renewed with the chain; the rest was right.',
    ],
    bench: 'rear',
    level: 'one',
    bike: 108,
    rear: ['wear'],
  },
  {
    id: 'front-l-tight',
    title: 'Front L set with the cable tight',
    says: [
      'The inner gap is right while the cable holds the cage, and wrong when it is slack.',
      'See L by itself: lever on the small ring, cable slack, then read the gap.',
      'Only then is the cable clamped and the barrel turned.',
    ],
    bench: 'front',
    level: 'alike',
    bike: 109,
    front: 'L out',
  },
  {
    id: 'nut-before-proof',
    title: 'The proof before the lock nut',
    says: [
      'The gears hold now, and the rod’s lock nut is loose: tomorrow they will not.',
      'Fingers on the lock nut belong to every look at a rod hub.',
      'Set the rod, lock the nut, and count the gears after that.',
    ],
    bench: 'hub',
    level: 'alike',
    bike: 110,
    hub: 'lock-nut',
  },
  {
    id: 'shift-housing',
    title: 'Shift housing on a brake',
    says: [
      'Lever and pads come back slowly: something between them drags.',
      'Look at the housing first: shift housing has no place on a brake, it bursts under a hard squeeze.',
      'Wire and housing are renewed whole, with brake housing and no other, then it is proven.',
    ],
    bench: 'brake',
    level: 'alike',
    bike: 111,
    brake: { kind: 'linear-pull', fault: 'drag' },
  },
]

export const lessonOf = (id: string | undefined): Lesson | undefined => LESSONS.find(l => l.id === id)
