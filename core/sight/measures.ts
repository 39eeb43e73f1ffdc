import type { SeenFrom } from './fromSide'
import { RULERS, type RulerId } from './planar'

/*
 * What is touched in a photograph, one place after the other, for each thing that is measured in one.
 */

/** How an edge is found at a touch: a bar's end, its middle, a step across a length, or nothing is looked for. */
export type Finding = 'end' | 'middle' | 'step' | 'none'
export type Place = {
  id: string
  /** What is to be touched, with its article. */
  words: string
  finding: Finding
  /** Measured along the sprocket's bar: which end it is. */
  bar?: { of: 'sprocket' | 'pulley'; end: 'upper' | 'lower' }
  /** Measured from that place: the length between them tells which way the step is looked for. */
  from?: string
}

export const BEHIND_PLACES: readonly Place[] = [
  { id: 'upper', words: 'the largest sprocket, upper end', finding: 'end', bar: { of: 'sprocket', end: 'upper' } },
  { id: 'lower', words: 'the largest sprocket, lower end', finding: 'end', bar: { of: 'sprocket', end: 'lower' } },
  { id: 'pulleyLower', words: 'the guide pulley, lower end', finding: 'end', bar: { of: 'pulley', end: 'lower' } },
  // these two are found by themselves where they are plain (`propose.ts`)
  { id: 'pulleyUpper', words: 'the guide pulley, upper end', finding: 'end', bar: { of: 'pulley', end: 'upper' } },
  { id: 'near', words: 'the largest sprocket, the edge nearest to you, half way up', finding: 'middle' },
]
export const SIDE_PLACES: readonly Place[] = [
  { id: 'tip1', words: 'the largest sprocket’s tip nearest to the pulley', finding: 'none' },
  { id: 'tip2', words: 'a tip that stands free, far round from it', finding: 'none' },
  { id: 'tip3', words: 'one more free tip, far from both', finding: 'none' },
  { id: 'pulley1', words: 'the guide pulley’s tip nearest to the sprocket', finding: 'none' },
  { id: 'pulley2', words: 'a tip of it that stands free, far round from it', finding: 'none' },
  { id: 'pulley3', words: 'one more free tip of it, far from both', finding: 'none' },
]
const CHAIN_TO = (plate: string) => ['the chain’s side', `the ${plate} plate beside it`] as const
/**
 * What lies flat beside a ruler and is measured by it; `deeperMm`: how far it may lie before or behind; `steps`: its
 * ends where one surface stops before another, plainly enough for an edge to be found. An axle's end is chamfered,
 * teeth are round, marks are painted: those are looked at by the hand.
 */
export const LENGTHS = {
  rod: { ends: ['the axle’s end', 'the rod’s end'], ruler: 'axle', deeperMm: 4, steps: ['to'] },
  marks: { ends: ['the first mark', 'the other mark'], ruler: 'axle', deeperMm: 6, steps: [] },
  plate: {
    ends: ['the plate’s lower edge', 'the tip of the tooth below it'],
    ruler: 'chain',
    deeperMm: 6,
    steps: ['from'],
  },
  innerGap: { ends: CHAIN_TO('inner'), ruler: 'chain', deeperMm: 4, steps: ['from', 'to'] },
  outerGap: { ends: CHAIN_TO('outer'), ruler: 'chain', deeperMm: 4, steps: ['from', 'to'] },
  innerStop: { ends: CHAIN_TO('inner'), ruler: 'chain', deeperMm: 4, steps: ['from', 'to'] },
  outerStop: { ends: CHAIN_TO('outer'), ruler: 'chain', deeperMm: 4, steps: ['from', 'to'] },
  yoke: {
    ends: ['the yoke, where the straddle cable hangs', 'the place its height counts from'],
    ruler: 'pad',
    deeperMm: 15,
    steps: [],
  },
  tail: { ends: ['the clamp’s edge', 'the cable’s end'], ruler: 'chain', deeperMm: 15, steps: ['to'] },
} as const satisfies Record<
  string,
  { ends: readonly [string, string]; ruler: RulerId; deeperMm: number; steps: readonly ('from' | 'to')[] }
>
export type LengthId = keyof typeof LENGTHS

/** A place that a length is measured to: an edge is looked for where there is one. */
const to = (from: string, edged = true): Pick<Place, 'finding' | 'from'> => ({ finding: edged ? 'step' : 'none', from })
/** The places of a length beside its ruler. */
export function besidePlaces(what: LengthId): readonly Place[] {
  const { ends, ruler, steps } = LENGTHS[what]
  const edges: readonly string[] = steps
  // a chain's pins have no edge across it
  const edged = ruler !== 'chain'
  return [
    { id: 'rulerFrom', words: RULERS[ruler].ends[0], ...to('rulerTo', edged) },
    { id: 'rulerTo', words: RULERS[ruler].ends[1], ...to('rulerFrom', edged) },
    { id: 'from', words: ends[0], ...to('to', edges.includes('from')) },
    { id: 'to', words: ends[1], ...to('from', edges.includes('to')) },
  ]
}

/** Both pads let go beside their rim: the rim's edges are ruler and ends at once. */
export const PAD_PLACES: readonly Place[] = [
  { id: 'leftPad', words: 'the left pad’s face, as you name the sides at the bench', ...to('leftRim') },
  { id: 'leftRim', words: 'the rim’s edge beside it', ...to('leftPad') },
  { id: 'rightRim', words: 'the rim’s other edge', ...to('rightPad') },
  { id: 'rightPad', words: 'the right pad’s face', ...to('rightRim') },
]

/** Which places are joined by a line, by how a thing is looked at. */
export const PLACE_LINES = {
  behind: [
    ['upper', 'lower'],
    ['pulleyUpper', 'pulleyLower'],
  ],
  side: [
    ['tip1', 'tip2'],
    ['tip2', 'tip3'],
    ['tip3', 'tip1'],
    ['pulley1', 'pulley2'],
    ['pulley2', 'pulley3'],
    ['pulley3', 'pulley1'],
  ],
  beside: [
    ['rulerFrom', 'rulerTo'],
    ['from', 'to'],
  ],
  pads: [
    ['leftPad', 'leftRim'],
    ['leftRim', 'rightRim'],
    ['rightRim', 'rightPad'],
  ],
} as const satisfies Record<string, readonly (readonly [string, string])[]>

/** A picture that cannot be measured in: too few pixels, or more bytes than a tablet should open. */
export const LEAST_PX = 640
export const MOST_BYTES = 40 * 1024 * 1024

export type NoPicture = 'large' | 'small' | 'unreadable'
export const NO_PICTURE_WORDS: Record<NoPicture, string> = {
  large: `That file is over ${MOST_BYTES / 1024 / 1024} MB: take the picture with this tablet`,
  small: `That picture has fewer than ${LEAST_PX} pixels across: take it with the camera itself, not from a message`,
  unreadable: 'That is no picture that this tablet can read: take it again with the camera',
}
export type Unmeasurable = 'small' | 'apart' | 'oblique' | 'together' | 'blurred' | 'unlike'
export const UNMEASURABLE_WORDS: Record<Unmeasurable, string> = {
  small: 'What the scale is taken from is too small in the picture: come nearer, to about half a metre',
  apart:
    'These places are not of one bike of this size: look at each under the magnifier and put right what is off; before a wall as light as the metal hold something dark behind',
  oblique: 'Taken too far from the side to tell by itself',
  together: 'The tips lie too close together: touch three well apart round the sprocket',
  unlike: 'The pads’ gaps cannot be told apart so closely here: take it nearer, square to the rim',
  blurred: 'The edges are blurred: hold still, wipe the lens, take it again in better light',
}

/** Where to stand for a second picture, from where the first was taken; or what else would help where there are two. */
export function sayOblique(viewDeg: number, sdMm: number, pictures: number): string {
  if (pictures > 1)
    return `Together they tell ± ${(1.96 * sdMm).toFixed(1)} mm only. Put the places with ticks right under the magnifier, or take one straight from behind`
  const side = viewDeg > 0 ? 'the frame’s' : 'the spokes’'
  const other = viewDeg > 0 ? 'the spokes’' : 'the frame’s'
  // straight from behind tells twice as closely as two from both sides (docs/senses.md)
  return `Taken ${Math.abs(viewDeg).toFixed(0)}° from ${side} side: by itself it tells ± ${(1.96 * sdMm).toFixed(1)} mm only. Take one straight from behind; where you cannot stand there, one from as far to ${other} side, from the same height, the cranks not turned meanwhile`
}

/** The pulley is nowhere near the sprocket that was asked after. */
export const sayElsewhere = (offMm: number): string =>
  `The pulley stands ${Math.abs(offMm).toFixed(0)} mm from that sprocket: put the chain on it, or push the derailleur to its stop and hold it there`

/** Further out of square, that is what makes a gap wide: the pulley need not stand in the sprocket's plane. `model` */
const OUT_OF_SQUARE_DEG = 10

/** A gap that is told too widely, and what would make it closer. */
export function sayWideGap(sdMm: number, counted: boolean, { aboveDeg, beforeDeg }: SeenFrom): string {
  const [above, before] = [Math.abs(aboveDeg), Math.abs(beforeDeg)]
  const most = Math.max(above, before)
  const from = above >= before ? (aboveDeg > 0 ? 'above' : 'below') : beforeDeg > 0 ? 'in front' : 'behind'
  const help = !counted
    ? 'Count the guide pulley’s teeth and say them'
    : most > OUT_OF_SQUARE_DEG
      ? `It was taken ${most.toFixed(0)}° from ${from}: hold the camera at the gap’s height, square to the wheel`
      : 'Take it nearer, and touch the very tips under the magnifier'
  return `So it tells ± ${(1.96 * sdMm).toFixed(1)} mm only. ${help}`
}
