import { z } from 'zod'
import { CLAMPS } from './clampSchools'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'
import type { Stage } from './stages'

/**
 * Schools: the ways of working that good mechanics disagree on, as data. Each says in a line why it exists. Gates hold
 * in all of them: L by hand before the largest sprocket, both brakes before hand-back. All `practice`, no source.
 */
export const SCHOOL_KINDS = ['order', 'step', 'test', 'clamp', 'barrel', 'gap', 'placing', 'height', 'pads'] as const
export type SchoolKind = (typeof SCHOOL_KINDS)[number]
export const SCHOOL_KIND_WORDS: Record<SchoolKind, string> = {
  order: 'Order of the work',
  step: 'Size of a turn',
  test: 'How it is listened to',
  clamp: 'How the inner is drawn',
  barrel: 'Where the barrel starts',
  gap: 'B gap',
  placing: 'Where H stands',
  height: 'Front cage over the teeth',
  pads: 'Brake pads',
}

type Named<Id extends string> = { id: Id; name: string; why: string }

/** The stages of an order, each once; `again` names those looked at a second time before proving. */
export const ORDERS: readonly (Named<string> & { stages: readonly Stage[]; again: readonly Stage[] })[] = [
  {
    id: 'stops-first',
    name: 'Stops first',
    why: 'With the cable slack nothing pulls on the stops, so what is seen is the screw and nothing else.',
    stages: ['sense', 'hanger', 'stops', 'cable', 'index', 'gap'],
    again: ['gap'],
  },
  {
    id: 'bare-derailleur',
    name: 'Bare derailleur',
    why: 'With no chain and no cable a thumb feels both stops; chain and cable come on to something already safe.',
    stages: ['hanger', 'stops', 'gap', 'cable', 'sense', 'index'],
    again: ['gap'],
  },
  {
    id: 'climb-then-l',
    name: 'Climb, then L',
    why: 'The first four gears settle the tension early; L is then seen with the cable as it will be.',
    stages: ['sense', 'cable', 'hanger', 'stops', 'index', 'gap'],
    again: ['stops', 'index'],
  },
  {
    id: 'tension-first',
    name: 'Tension first',
    why: 'A light preload shows at once whether the clamp was good, before a stop is touched.',
    stages: ['sense', 'cable', 'stops', 'index', 'hanger', 'gap'],
    again: [],
  },
  {
    id: 'foundation-first',
    name: 'Foundation first',
    why: 'No barrel follows a bent hanger: true what everything hangs on, then the rest in one go.',
    stages: ['hanger', 'sense', 'stops', 'cable', 'index', 'gap'],
    again: [],
  },
  {
    id: 'five-minutes',
    name: 'Five minutes',
    why: 'For a bike that worked lately: ferrules, stops, a listen while pedalling, a glance at the hanger.',
    stages: ['sense', 'stops', 'index', 'hanger', 'cable', 'gap'],
    again: [],
  },
]

export const STEPS: readonly (Named<string> & { turns: number })[] = [
  { id: 'eighth', name: '1/8 turn', why: 'Never oversteps a narrow window; slow from far away.', turns: 1 / 8 },
  {
    id: 'quarter',
    name: '1/4 turn',
    why: 'Felt at the fingers and heard at the chain: the usual middle way.',
    turns: 1 / 4,
  },
  { id: 'half', name: '1/2 turn', why: 'Quick while it is far off; halve it once it answers.', turns: 1 / 2 },
  { id: 'full', name: '1 turn', why: 'After a new cable the first answers are whole turns away.', turns: 1 },
]

/** How checks are asked; what is inferred from them is the same in all. `clicks` at a stroke; `edge` winds to the rub. */
const TESTS: readonly (Named<string> & { clicks: 1 | 2; edge: boolean })[] = [
  { id: 'one-click', name: 'One click', why: 'One step shows one gear: nothing hides.', clicks: 1, edge: false },
  {
    id: 'two-clicks',
    name: 'Two clicks at once',
    why: 'Hangs in the gear between: out. Climbs on past: in. Prove two back.',
    clicks: 2,
    edge: false,
  },
  {
    id: 'find-the-edge',
    name: 'Find the edge',
    why: 'Wind while pedalling until it rubs on the next larger, then back: the rub is sharper than a shift.',
    clicks: 1,
    edge: true,
  },
  {
    id: 'middle-of-the-rub',
    name: 'Middle of the rub',
    why: 'Both rubs in one gear and halfway between; the distance shrinks with friction.',
    clicks: 1,
    edge: true,
  },
  {
    id: 'while-pedalling',
    name: 'While pedalling',
    why: 'The ear follows the screw: stop where it is quiet.',
    clicks: 1,
    edge: true,
  },
  {
    id: 'first-four',
    name: 'The first four',
    why: 'The four smallest usually settle all; then one pass proves it.',
    clicks: 1,
    edge: false,
  },
]

/** Where the barrel in use stands before the inner is clamped, turns out. */
export const BARREL_STARTS: readonly (Named<string> & { turnsOut: { from: number; to: number } })[] = [
  {
    id: 'usual',
    name: '1½ to 2 out',
    why: 'It can go either way, and most of the thread still holds.',
    turnsOut: { from: 1.5, to: 2 },
  },
  { id: 'two', name: '2 out', why: 'Always the same figure: the count is never asked.', turnsOut: { from: 2, to: 2 } },
  {
    id: 'in',
    name: 'Fully in',
    why: 'A new run only ever goes slack: all the travel is kept for taking it up. Draw it without strain.',
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
    why: 'Close is quick and clear on small cassettes.',
    targetMm: target('gap-close'),
    sagged: false,
  },
  {
    id: 'start-wide',
    name: '6 to 10 mm, then refine',
    why: 'Safe to start from: nothing touches while the rest is set.',
    targetMm: target('gap-start-wide'),
    sagged: false,
  },
  {
    id: 'smallest-clear',
    name: 'The smallest that clears',
    why: 'Look while in the second largest: it must not touch on the way into the largest.',
    targetMm: target('gap-smallest-clear'),
    sagged: false,
  },
  {
    id: 'maker',
    name: 'The maker’s figure',
    why: 'Where there is a figure it wins: type it.',
    targetMm: { from: 5, to: 6 },
    sagged: false,
  },
  {
    id: 'with-sag',
    name: 'With the rider’s sag',
    why: 'A suspension frame changes the gap under the rider: about 15 mm sagged shows as 4 to 5 mm in the stand on one common layout. Ask the maker’s chart.',
    targetMm: target('gap-with-sag'),
    sagged: true,
  },
]

/** `targetMm`: where H is to stand from the smallest sprocket's plane, + inboard. */
export const PLACINGS: readonly (Named<string> & { targetMm: { from: number; to: number } })[] = [
  {
    id: 'centred',
    name: 'Centred',
    why: 'In line under the smallest: quiet, and no travel to spare towards the frame.',
    targetMm: target('h-centred'),
  },
  {
    id: 'outboard',
    name: '1 to 2 mm outboard',
    why: 'Still drops in when the frame flexes under load.',
    targetMm: target('h-outboard'),
  },
]

/** `targetMm`: outer plate of a front cage over the big ring's teeth. Both lie within what the response model takes as good. */
export const HEIGHTS: readonly (Named<string> & { targetMm: { from: number; to: number } })[] = [
  {
    id: 'close',
    name: '1 to 2 mm',
    why: 'The closer the plate, the better it leads the chain up.',
    targetMm: { from: 1, to: 2 },
  },
  {
    id: 'coin',
    name: 'About 3 mm',
    why: 'Clears tall shifting teeth and a ring that is not quite round; two coins show it at once.',
    targetMm: { from: 2.5, to: 3 },
  },
]

export const PADS: readonly (Named<string> & { toeMm: number })[] = [
  {
    id: 'flat',
    name: 'Flat',
    why: 'The whole pad bites at once and wears evenly; toe wears away in a month.',
    toeMm: 0,
  },
  {
    id: 'toe',
    name: '0.5 mm toe',
    why: 'Front touches first, so it does not squeal: a thin shim under the rear of the pad while nipping, not over a groove.',
    toeMm: 0.5,
  },
]

export const SCHOOLS = {
  order: ORDERS,
  step: STEPS,
  test: TESTS,
  clamp: CLAMPS,
  barrel: BARREL_STARTS,
  gap: GAPS,
  placing: PLACINGS,
  height: HEIGHTS,
  pads: PADS,
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
    height: ids(HEIGHTS),
    pads: ids(PADS),
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
  height: 'close',
  pads: 'flat',
}

const found = <T extends { id: string }>(list: readonly T[], id: string): T => list.find(s => s.id === id) ?? list[0]

/** The usual start as the shop's own standards have it; the others are what they say. */
const barrelBy = (b: (typeof BARREL_STARTS)[number], s: Standards) =>
  b.id === 'usual' ? { ...b, turnsOut: targetIn(s, 'barrel-start') } : b

/** The schools in force: the job's choice over the person's over the shop's over the usual; targets as they count in this shop. */
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
    height: found(HEIGHTS, ids.height),
    pads: found(PADS, ids.pads),
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
