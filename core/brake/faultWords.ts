import type { BrakeKind, EndKind } from './kinds'

/** A brake's faults by name; apart from their cures, since every screen says the ledger and only the bench cures. */
const WORDS: Readonly<Record<string, string>> = {
  'noodle-out': 'Noodle out of its bracket',
  'beside-slot': 'Wire beside the barrel’s slot',
  'spring-off': 'Return spring off its post',
  unequal: 'Unequal spring tension',
  'take-up': 'Wire to take up',
  slipped: 'Cable slack or slipped',
  'pads-worn': 'Pads worn out',
  'wire-broken': 'Wire broken, frayed or its head pulled out',
  'not-home': 'Wheel not home',
  wheel: 'Wheel out of true',
  glazed: 'Glazed or oily pads',
  toe: 'Pads off the track or without toe',
  drag: 'Drag in the housing',
  'lever-sticks': 'The lever itself sticks',
  'lever-class': 'Lever of another pull',
  'pivot-tight': 'Arm tight on its post',
  turned: 'Calliper turned or loose',
  'release-open': 'Quick release left open',
  'yoke-high': 'Yoke too high',
  'yoke-low': 'Yoke too low',
  far: 'Too much free travel',
  preloaded: 'Arm preloaded',
  'not-central': 'Calliper not central',
  'rotor-bent': 'Rotor out of true',
  strap: 'Reaction arm loose',
  dry: 'Grease spent',
  'free-play': 'Too much free play inside',
  'worn-inside': 'Linings worn inside',
}

/** The same fault, where a kind of brake calls it otherwise. */
const WORDS_OF: Partial<Record<BrakeKind, Readonly<Record<string, string>>>> = {
  'dual-pivot': { 'pivot-tight': 'Pivot gummed' },
  cantilever: { 'release-open': 'Straddle left unhooked' },
  'cable-disc': { far: 'Pads far from the rotor' },
  drum: { glazed: 'Linings glazed or oily' },
  coaster: { strap: 'Strap loose' },
}

/** What can be put right besides the faults that are diagnosed here. */
export const OTHER_CURES: readonly { id: string; words: string }[] = [
  { id: 'hydraulic-service', words: 'Hydraulic brake bled or repaired by who is trained for it' },
  { id: 'other', words: 'Something else, see the notes' },
]

/** A fault in words by its id, of a kind where it is known; undefined where no brake has such a fault. */
export const faultWords = (kind: EndKind | undefined, id: string): string | undefined =>
  own(kind && WORDS_OF[kind as BrakeKind], id) ?? own(WORDS, id) ?? OTHER_CURES.find(c => c.id === id)?.words
const own = (words: Readonly<Record<string, string>> | undefined, id: string): string | undefined =>
  words && Object.hasOwn(words, id) ? words[id] : undefined
