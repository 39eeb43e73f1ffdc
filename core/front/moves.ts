/** What a front shift does. */
export const FRONT_OUTCOMES = [
  'clean',
  'no-climb',
  'no-drop',
  'falls-inboard',
  'falls-outboard',
  'rubs-inner',
  'rubs-outer',
] as const
export type FrontOutcome = (typeof FRONT_OUTCOMES)[number]
/** What was seen of it; "late" and "noisy" are what an ear makes of one that lies near a threshold. */
export const FRONT_SEEN = [...FRONT_OUTCOMES, 'late-climb', 'late-drop', 'noisy'] as const
export type FrontSeen = (typeof FRONT_SEEN)[number]
export const FRONT_SEEN_WORDS: Record<FrontSeen, string> = {
  clean: 'Clean',
  'no-climb': 'Will not climb',
  'no-drop': 'Will not drop',
  'late-climb': 'Climbs late',
  'late-drop': 'Drops late',
  'falls-inboard': 'Falls off inboard',
  'falls-outboard': 'Falls off outboard',
  'rubs-inner': 'Rubs the inner plate',
  'rubs-outer': 'Rubs the outer plate',
  noisy: 'Goes there, but noisy',
}

export const FRONT_SCREWS = ['barrel', 'H', 'L'] as const
export type FrontScrew = (typeof FRONT_SCREWS)[number]
export type FrontMove = { screw: FrontScrew; way: 'in' | 'out'; eighths: number }

/**
 * What a turn does at the front: the cable pulls the cage outboard, so barrel out is tighter and outboard; L in pushes
 * the inner limit outboard, H in brings the outer limit inboard. `practice`
 */
export const FRONT_TURN_DOES: Record<FrontScrew, Record<'in' | 'out', string>> = {
  barrel: { out: 'tighter: the cage stands further outboard', in: 'slacker: the cage stands further inboard' },
  H: { in: 'outer limit inboard', out: 'outer limit outboard' },
  L: { in: 'inner limit outboard', out: 'inner limit inboard' },
}

const move = (screw: FrontScrew, way: 'in' | 'out', eighths: number): FrontMove => ({ screw, way, eighths })

/** Which ring the chain lies on: it decides the screw that answers a rub. */
export type OnRing = 'small' | 'middle' | 'big'
export const onRing = (ring: number, rings: number): OnRing =>
  ring === 0 ? 'small' : ring === rings - 1 ? 'big' : 'middle'

/**
 * What answers a rub: the cage goes away from the plate that rubs. On an end ring the cable goes first where it holds
 * the cage, then the stop that does; which ring it rubs on decides the screw. `practice`, no source
 */
export const RUB_MOVES: Record<'rubs-inner' | 'rubs-outer', Record<OnRing, readonly FrontMove[]>> = {
  'rubs-inner': {
    small: [
      move('L', 'out', 1 /* the cage stands too far outboard: its inner limit gives way */),
      move('barrel', 'in', 4 /* or the cable holds it there */),
    ],
    middle: [move('barrel', 'in', 2 /* the cage stands too far outboard */)],
    big: [
      move('barrel', 'in', 4 /* the cage is drawn too far outboard */),
      move('H', 'in', 1 /* then the outer limit */),
    ],
  },
  'rubs-outer': {
    small: [
      move('L', 'in', 1 /* the cage stands too far inboard: its inner limit is moved outboard */),
      move('barrel', 'out', 4 /* or the cable is to hold it farther out */),
    ],
    middle: [move('barrel', 'out', 2 /* the cage stands too far inboard */)],
    big: [
      move('barrel', 'out', 8 /* in the top pair a turn or two more tension: the cage goes outboard */),
      move('barrel', 'out', 8 /* the second turn */),
      move('H', 'out', 1 /* then the outer limit, where that holds it */),
    ],
  },
}

/** What the written order answers without asking which ring it was. */
type Answered = Exclude<FrontSeen, 'clean' | 'noisy' | 'rubs-inner' | 'rubs-outer'>
/**
 * The written order's moves for each other fault, the first ones first. `practice`, no source; amounts in eighths are
 * `model`.
 */
export const FRONT_MOVES: Record<Answered, readonly FrontMove[]> = {
  'no-climb': [
    move('barrel', 'out', 4 /* more tension first: a slack cable spends the lever’s stroke */),
    move('barrel', 'out', 4 /* once more, before a stop is touched */),
    move('H', 'out', 2 /* the outer stop holds it back */),
  ],
  'no-drop': [
    move('barrel', 'in', 8 /* a turn or two of slack first */),
    move('barrel', 'in', 8 /* the second turn */),
    move('L', 'out', 2 /* the inner stop holds it out */),
  ],
  'late-climb': [
    move('barrel', 'out', 2 /* a little more tension: it only just reaches */),
    move('H', 'out', 1 /* then the outer limit, where that holds it */),
  ],
  'late-drop': [
    move('barrel', 'in', 2 /* a little slack: the cable only just lets it go */),
    move('L', 'out', 1 /* then the inner limit, where that holds it */),
  ],
  'falls-inboard': [move('L', 'in', 2 /* the inner limit lies too far inboard */)],
  'falls-outboard': [move('H', 'in', 2 /* the outer limit lies too far outboard */)],
}

/** Past the middle ring to the next one: no stop stands there, only the cable. `practice` */
const PAST_MIDDLE: Partial<Record<FrontSeen, readonly FrontMove[]>> = {
  'falls-outboard': [move('barrel', 'in', 2 /* the cage goes too far outboard: less tension */)],
  'falls-inboard': [move('barrel', 'out', 2 /* the cage goes too far inboard: more tension */)],
}

/** The written moves for what was seen on a ring, the first ones first; none for a noise nobody has placed. */
export const frontMoves = (seen: FrontSeen, on: OnRing): readonly FrontMove[] => {
  if (seen === 'clean' || seen === 'noisy') return []
  if (seen === 'rubs-inner' || seen === 'rubs-outer') return RUB_MOVES[seen][on]
  return (on === 'middle' && PAST_MIDDLE[seen]) || FRONT_MOVES[seen]
}

/** What was seen, in words; past a middle ring the chain lands on the next one. */
export const seenWords = (seen: FrontSeen, on: OnRing): string =>
  on === 'middle' && seen === 'falls-outboard'
    ? 'Past the middle, to the big'
    : on === 'middle' && seen === 'falls-inboard'
      ? 'Past the middle, to the small'
      : FRONT_SEEN_WORDS[seen]

/**
 * The next move by the written order: what was seen, on which ring, and how often that was answered already without
 * cure. Null when the list is used up: look elsewhere.
 */
export const frontMove = (seen: FrontSeen, answered: number, on: OnRing): FrontMove | null =>
  frontMoves(seen, on)[answered] ?? null

/** What can be seen of a shift from one ring to another: what is too much or too little that way. */
export const possibleSeen = (from: number, to: number): FrontSeen[] =>
  FRONT_SEEN.filter(s => (to > from ? !INWARD.has(s) : !OUTWARD.has(s)))
const OUTWARD: ReadonlySet<FrontSeen> = new Set(['no-climb', 'late-climb', 'falls-outboard'])
const INWARD: ReadonlySet<FrontSeen> = new Set(['no-drop', 'late-drop', 'falls-inboard'])
