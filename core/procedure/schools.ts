import { z } from 'zod'
import { FRONT_ORDER_WORDS, FRONT_ORDERS, type FrontOrder } from './frontOrders'
import { CLAMPS } from './clampSchools'
import type { PadGap } from './padGaps'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'
import type { Stage } from './stages'

/**
 * Schools: the ways of working that good mechanics disagree on, as data. Each says in a line why it exists
 * (`schoolWhys.ts`, apart, since no bench shows it). Gates hold in all of them: L by hand before the largest sprocket,
 * both brakes before hand-back. All `practice`, no source.
 */
export const SCHOOL_KINDS = [
  'order',
  'step',
  'test',
  'clamp',
  'barrel',
  'gap',
  'placing',
  'front',
  'height',
  'endGap',
  'pads',
  'padGap',
  'film',
] as const
export type SchoolKind = (typeof SCHOOL_KINDS)[number]
export const SCHOOL_KIND_WORDS: Record<SchoolKind, string> = {
  order: 'Order of the work',
  step: 'Size of a turn',
  test: 'How it is listened to',
  clamp: 'How the inner is drawn',
  barrel: 'Where the barrel starts',
  gap: 'B gap',
  placing: 'Where H stands',
  front: 'Order at the front',
  height: 'Front cage over the teeth',
  endGap: 'Front gaps at the stops',
  pads: 'Brake pads',
  padGap: 'How the pad gap is set',
  film: 'Inner, dry or greased',
}

type Named<Id extends string> = { id: Id; name: string }

/** The stages of an order, each once; `again` names those looked at a second time before proving. */
export const ORDERS: readonly (Named<string> & { stages: readonly Stage[]; again: readonly Stage[] })[] = [
  {
    id: 'stops-first',
    name: 'Stops first',
    stages: ['sense', 'hanger', 'stops', 'cable', 'index', 'gap'],
    again: ['gap'],
  },
  {
    id: 'bare-derailleur',
    name: 'Bare derailleur',
    stages: ['hanger', 'stops', 'gap', 'cable', 'sense', 'index'],
    again: ['gap'],
  },
  {
    id: 'climb-then-l',
    name: 'Climb, then L',
    stages: ['sense', 'cable', 'hanger', 'stops', 'index', 'gap'],
    again: ['stops', 'index'],
  },
  {
    id: 'tension-first',
    name: 'Tension first',
    stages: ['sense', 'cable', 'stops', 'index', 'hanger', 'gap'],
    again: [],
  },
  {
    id: 'foundation-first',
    name: 'Foundation first',
    stages: ['hanger', 'sense', 'stops', 'cable', 'index', 'gap'],
    again: [],
  },
  {
    id: 'five-minutes',
    name: 'Five minutes',
    stages: ['sense', 'stops', 'index', 'hanger', 'cable', 'gap'],
    again: [],
  },
]

export const STEPS: readonly (Named<string> & { turns: number })[] = [
  { id: 'eighth', name: '1/8 turn', turns: 1 / 8 },
  {
    id: 'quarter',
    name: '1/4 turn',
    turns: 1 / 4,
  },
  { id: 'half', name: '1/2 turn', turns: 1 / 2 },
  { id: 'full', name: '1 turn', turns: 1 },
]

/**
 * How checks are asked; what is inferred from them is the same in all. `clicks` at a stroke; `edge` winds to the rub.
 */
const TESTS: readonly (Named<string> & { clicks: 1 | 2; edge: boolean })[] = [
  { id: 'one-click', name: 'One click', clicks: 1, edge: false },
  {
    id: 'two-clicks',
    name: 'Two clicks at once',
    clicks: 2,
    edge: false,
  },
  {
    id: 'find-the-edge',
    name: 'Find the edge',
    clicks: 1,
    edge: true,
  },
  {
    id: 'middle-of-the-rub',
    name: 'Middle of the rub',
    clicks: 1,
    edge: true,
  },
  {
    id: 'while-pedalling',
    name: 'While pedalling',
    clicks: 1,
    edge: true,
  },
  {
    id: 'first-four',
    name: 'The first four',
    clicks: 1,
    edge: false,
  },
]

/** Where the barrel in use stands before the inner is clamped, turns out. */
export const BARREL_STARTS: readonly (Named<string> & { turnsOut: { from: number; to: number } })[] = [
  {
    id: 'usual',
    name: '1½ to 2 out',
    turnsOut: { from: 1.5, to: 2 },
  },
  { id: 'two', name: '2 out', turnsOut: { from: 2, to: 2 } },
  {
    id: 'in',
    name: 'Fully in',
    turnsOut: { from: 0, to: 0 },
  },
]

/** What the table says; a shop that measured its own is answered by `schoolsOf`. */
const target = (id: string) => targetIn(TABLE_ONLY, id)

/** `targetMm`: between which gap, tips to tips. */
export const GAPS: readonly (Named<string> & { targetMm: { from: number; to: number }; sagged: boolean })[] = [
  {
    id: 'close',
    name: '3 to 6 mm',
    targetMm: target('gap-close'),
    sagged: false,
  },
  {
    id: 'start-wide',
    name: '6 to 10 mm, then refine',
    targetMm: target('gap-start-wide'),
    sagged: false,
  },
  {
    id: 'smallest-clear',
    name: 'The smallest that clears',
    targetMm: target('gap-smallest-clear'),
    sagged: false,
  },
  {
    id: 'maker',
    name: 'The maker’s figure',
    targetMm: { from: 5, to: 6 },
    sagged: false,
  },
  {
    id: 'with-sag',
    name: 'With the rider’s sag',
    targetMm: target('gap-with-sag'),
    sagged: true,
  },
]

/** `targetMm`: where H is to stand from the smallest sprocket's plane, + inboard. */
export const PLACINGS: readonly (Named<string> & { targetMm: { from: number; to: number } })[] = [
  {
    id: 'centred',
    name: 'Centred',
    targetMm: target('h-centred'),
  },
  {
    id: 'outboard',
    name: '1 to 2 mm outboard',
    targetMm: target('h-outboard'),
  },
]

/**
 * `targetMm`: outer plate of a front cage over the big ring's teeth. Both lie within what the response model takes as
 * good.
 */
export const HEIGHTS: readonly (Named<string> & { targetMm: { from: number; to: number } })[] = [
  {
    id: 'close',
    name: '1 to 2 mm',
    targetMm: { from: 1, to: 2 },
  },
  {
    id: 'coin',
    name: 'About 3 mm',
    targetMm: { from: 2.5, to: 3 },
  },
]

/** In which order the front is set; what each sees to first is in `core/front/orders.ts`. */
export const FRONTS: readonly Named<FrontOrder>[] = FRONT_ORDERS.map(id => ({ id, name: FRONT_ORDER_WORDS[id] }))

/** `targetMm`: plate to chain at both ends of the cage's travel. */
export const END_GAPS: readonly (Named<string> & { targetMm: { from: number; to: number } })[] = [
  { id: 'one', name: 'About 1 mm', targetMm: { from: 0.75, to: 1.25 } },
  { id: 'close', name: '0 to 0.5 mm', targetMm: { from: 0, to: 0.5 } },
]

export const PADS: readonly (Named<string> & { toeMm: number })[] = [
  {
    id: 'flat',
    name: 'Flat',
    toeMm: 0,
  },
  {
    id: 'toe',
    name: '0.5 mm toe',
    toeMm: 0.5,
  },
]

/** Two ways to a gap at the pads, and which each kind of brake is usually done by (`core/brake/fitting.ts`). */
export const PAD_GAPS: readonly Named<PadGap>[] = [
  { id: 'usual', name: 'As the kind is usually done' },
  { id: 'let-out', name: 'Pads on the rim, let out' },
  { id: 'wind-in', name: 'Clamped barrel out, wound in' },
]

/** What goes on an inner in its housing; a step of fitting each (`core/cable/steps.ts`). */
export const FILMS = [
  { id: 'dry', name: 'Run dry' },
  { id: 'greased', name: 'Thin film of silicone' },
] as const

export const SCHOOLS = {
  order: ORDERS,
  step: STEPS,
  test: TESTS,
  clamp: CLAMPS,
  barrel: BARREL_STARTS,
  gap: GAPS,
  placing: PLACINGS,
  front: FRONTS,
  height: HEIGHTS,
  endGap: END_GAPS,
  pads: PADS,
  padGap: PAD_GAPS,
  film: FILMS,
} as const

const ids = <T extends { id: string }>(list: readonly T[]) =>
  z.string().refine(id => list.some(s => s.id === id), { error: `choose one of ${list.map(s => s.id).join(', ')}` })
/** A choice of schools; what is left out is as the wider choice says: job over person over shop. */
export const SchoolChoice = z
  .strictObject({
    order: ids(ORDERS),
    step: ids(STEPS),
    test: ids(TESTS),
    clamp: ids(CLAMPS),
    barrel: ids(BARREL_STARTS),
    gap: ids(GAPS),
    placing: ids(PLACINGS),
    front: ids(FRONTS),
    height: ids(HEIGHTS),
    endGap: ids(END_GAPS),
    pads: ids(PADS),
    padGap: ids(PAD_GAPS),
    film: ids(FILMS),
  })
  .partial()
export type SchoolChoice = z.infer<typeof SchoolChoice>

export const USUAL_SCHOOLS: Required<SchoolChoice> = {
  order: 'stops-first',
  step: 'eighth',
  test: 'one-click',
  clamp: 'pliers',
  barrel: 'usual',
  gap: 'close',
  placing: 'centred',
  front: 'tells',
  height: 'close',
  endGap: 'one',
  pads: 'flat',
  padGap: 'usual',
  film: 'dry',
}

const found = <T extends { id: string }>(list: readonly T[], id: string): T => list.find(s => s.id === id) ?? list[0]

/** The usual start as the shop's own standards have it; the others are what they say. */
const barrelBy = (b: (typeof BARREL_STARTS)[number], s: Standards) =>
  b.id === 'usual' ? { ...b, turnsOut: targetIn(s, 'barrel-start') } : b

/**
 * The schools in force: the job's choice over the person's over the shop's over the usual; targets as they count in
 * this shop.
 */
export function schoolsOf(s: Standards, ...narrowest: (SchoolChoice | null | undefined)[]) {
  const ids = {
    ...USUAL_SCHOOLS,
    ...Object.assign({}, ...[...narrowest].reverse().map(c => c ?? {})),
  } as Required<SchoolChoice>
  const gap = found(GAPS, ids.gap)
  const placing = found(PLACINGS, ids.placing)
  return {
    ids,
    order: found(ORDERS, ids.order),
    step: found(STEPS, ids.step),
    test: found(TESTS, ids.test),
    clamp: found(CLAMPS, ids.clamp),
    barrel: barrelBy(found(BARREL_STARTS, ids.barrel), s),
    // the maker's figure is typed on the bike, and is in no table
    gap: gap.id === 'maker' ? gap : { ...gap, targetMm: targetIn(s, `gap-${gap.id}`) },
    placing: { ...placing, targetMm: targetIn(s, `h-${placing.id}`) },
    front: found(FRONTS, ids.front),
    height: found(HEIGHTS, ids.height),
    endGap: found(END_GAPS, ids.endGap),
    pads: found(PADS, ids.pads),
    padGap: found(PAD_GAPS, ids.padGap),
    film: found(FILMS, ids.film),
  }
}
export type Schools = ReturnType<typeof schoolsOf>

/** All stages of a job in the order of its school. */
export const stagesOf = (schools: Schools): Stage[] => ['said', ...schools.order.stages, 'prove', 'handBack']

/** The stage that comes after this one in the order of the job's school; the last where there is none. */
export function stageAfter(stage: Stage, schools: Schools): Stage {
  const order = stagesOf(schools)
  return order[order.indexOf(stage) + 1] ?? 'handBack'
}
