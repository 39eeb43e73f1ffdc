/** What was seen of a front shift. */
export const FRONT_SEEN = [
  'clean',
  'no-climb',
  'no-drop',
  'falls-inboard',
  'falls-outboard',
  'rubs-inner',
  'rubs-outer',
] as const
export type FrontSeen = (typeof FRONT_SEEN)[number]
export const FRONT_SEEN_WORDS: Record<FrontSeen, string> = {
  clean: 'Clean',
  'no-climb': 'Will not climb',
  'no-drop': 'Will not drop',
  'falls-inboard': 'Falls off inboard',
  'falls-outboard': 'Falls off outboard',
  'rubs-inner': 'Rubs the inner plate',
  'rubs-outer': 'Rubs the outer plate',
}

export const FRONT_SCREWS = ['barrel', 'H', 'L'] as const
export type FrontScrew = (typeof FRONT_SCREWS)[number]
export type FrontMove = { screw: FrontScrew; way: 'in' | 'out'; eighths: number; why: string }

/**
 * What a turn does at the front: the cable pulls the cage outboard, so barrel out is tighter and outboard; L in pushes
 * the inner limit outboard, H in brings the outer limit inboard. `practice`
 */
export const FRONT_TURN_DOES: Record<FrontScrew, Record<'in' | 'out', string>> = {
  barrel: { out: 'tighter: the cage stands further outboard', in: 'slacker: the cage stands further inboard' },
  H: { in: 'outer limit inboard', out: 'outer limit outboard' },
  L: { in: 'inner limit outboard', out: 'inner limit inboard' },
}

const move = (screw: FrontScrew, way: 'in' | 'out', eighths: number, why: string): FrontMove => ({
  screw,
  way,
  eighths,
  why,
})

/** Which ring the chain lies on: it decides the screw that answers a rub. */
export type OnRing = 'small' | 'middle' | 'big'
export const onRing = (ring: number, rings: number): OnRing =>
  ring === 0 ? 'small' : ring === rings - 1 ? 'big' : 'middle'

/**
 * What answers a rub: the cage goes away from the plate that rubs. On an end ring the cable goes first where it holds the
 * cage, then the stop that does; which ring it rubs on decides the screw. `practice`, no source
 */
export const RUB_MOVES: Record<'rubs-inner' | 'rubs-outer', Record<OnRing, readonly FrontMove[]>> = {
  'rubs-inner': {
    small: [
      move('L', 'out', 1, 'the cage stands too far outboard: its inner limit gives way'),
      move('barrel', 'in', 4, 'or the cable holds it there'),
    ],
    middle: [move('barrel', 'in', 2, 'the cage stands too far outboard')],
    big: [move('barrel', 'in', 4, 'the cage is drawn too far outboard'), move('H', 'in', 1, 'then the outer limit')],
  },
  'rubs-outer': {
    small: [
      move('L', 'in', 1, 'the cage stands too far inboard: its inner limit is moved outboard'),
      move('barrel', 'out', 4, 'or the cable is to hold it farther out'),
    ],
    middle: [move('barrel', 'out', 2, 'the cage stands too far inboard')],
    big: [
      move('barrel', 'out', 8, 'in the top pair a turn or two more tension: the cage goes outboard'),
      move('barrel', 'out', 8, 'the second turn'),
      move('H', 'out', 1, 'then the outer limit, where that holds it'),
    ],
  },
}

/** The written order's moves for each other fault, the first ones first. `practice`, no source; amounts in eighths are `model`. */
export const FRONT_MOVES: Record<Exclude<FrontSeen, 'clean' | 'rubs-inner' | 'rubs-outer'>, readonly FrontMove[]> = {
  'no-climb': [
    move('barrel', 'out', 4, 'more tension first: a slack cable spends the lever’s stroke'),
    move('barrel', 'out', 4, 'once more, before a stop is touched'),
    move('H', 'out', 2, 'the outer stop holds it back'),
  ],
  'no-drop': [
    move('barrel', 'in', 8, 'a turn or two of slack first'),
    move('barrel', 'in', 8, 'the second turn'),
    move('L', 'out', 2, 'the inner stop holds it out'),
  ],
  'falls-inboard': [move('L', 'in', 2, 'the inner limit lies too far inboard')],
  'falls-outboard': [move('H', 'in', 2, 'the outer limit lies too far outboard')],
}

/** The written moves for what was seen on a ring, the first ones first. */
export const frontMoves = (seen: FrontSeen, on: OnRing): readonly FrontMove[] =>
  seen === 'clean' ? [] : seen === 'rubs-inner' || seen === 'rubs-outer' ? RUB_MOVES[seen][on] : FRONT_MOVES[seen]

/**
 * The next move by the written order: what was seen, on which ring, and how often that was answered already without cure.
 * Null when the list is used up: look elsewhere.
 */
export const frontMove = (seen: FrontSeen, answered: number, on: OnRing): FrontMove | null =>
  frontMoves(seen, on)[answered] ?? null

/** What can be seen of a shift from one ring to another: what is too much or too little that way. */
export const possibleSeen = (from: number, to: number): FrontSeen[] =>
  FRONT_SEEN.filter(s =>
    to > from ? s !== 'no-drop' && s !== 'falls-inboard' : s !== 'no-climb' && s !== 'falls-outboard',
  )

/** Where to look when the written moves did not cure it. `practice` */
export const FRONT_ELSEWHERE: Record<Exclude<FrontSeen, 'clean'>, string> = {
  'no-climb':
    'Height or angle of the cage, a seized pivot, or a lever of another pull: pull the wire by hand. Does it reach?',
  'no-drop': 'Undo the cable: drops it now? Then friction in the run, else a stiff pivot or spring.',
  'falls-inboard': 'Height of the cage, a bent ring, or the chain line: look at the rub map.',
  'falls-outboard': 'Height of the cage, or a bent cage or ring.',
  'rubs-inner': 'Trim, angle of the cage, or the chain line: look at the rub map.',
  'rubs-outer': 'Trim, angle of the cage, or the chain line: look at the rub map.',
}
