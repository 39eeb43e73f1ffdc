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

/** The written order's moves for each fault, the first ones first. `practice`, no source; amounts in eighths are `model`. */
export const FRONT_MOVES: Record<Exclude<FrontSeen, 'clean'>, readonly FrontMove[]> = {
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
  'rubs-inner': [move('L', 'out', 1, 'in small and largest the inner plate wants about 1 mm')],
  'rubs-outer': [
    move('barrel', 'in', 8, 'in the top pair a turn or two of slack'),
    move('H', 'out', 1, 'then the outer limit'),
  ],
}

/** The next move by the written order: what was seen, and how often that was answered already without cure. Null when the list is used up: look elsewhere. */
export function frontMove(seen: FrontSeen, answered: number): FrontMove | null {
  return seen === 'clean' ? null : (FRONT_MOVES[seen][answered] ?? null)
}

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
