import type { ClampId } from './clampSchools'
import type { SchoolKind } from './schools'

/** Why each school exists, in a line, by its kind and id. All `practice`, no source. */
const WHYS: Readonly<Record<SchoolKind, Readonly<Record<string, string>>>> = {
  order: {
    'stops-first': 'With the cable slack nothing pulls on the stops, so what is seen is the screw and nothing else.',
    'bare-derailleur':
      'With no chain and no cable a thumb feels both stops; chain and cable come on to something already safe.',
    'climb-then-l': 'The first four gears settle the tension early; L is then seen with the cable as it will be.',
    'tension-first': 'A light preload shows at once whether the clamp was good, before a stop is touched.',
    'foundation-first': 'No barrel follows a bent hanger: true what everything hangs on, then the rest in one go.',
    'five-minutes': 'For a bike that worked lately: ferrules, stops, a listen while pedalling, a glance at the hanger.',
  },
  step: {
    eighth: 'Never oversteps a narrow window; slow from far away.',
    quarter: 'Felt at the fingers and heard at the chain: the usual middle way.',
    half: 'Quick while it is far off; halve it once it answers.',
    full: 'After a new cable the first answers are whole turns away.',
  },
  test: {
    'one-click': 'One step shows one gear: nothing hides.',
    'two-clicks': 'Hangs in the gear between: out. Climbs on past: in. Prove two back.',
    'find-the-edge':
      'Wind while pedalling until it rubs on the next larger, then back: the rub is sharper than a shift.',
    'middle-of-the-rub': 'Both rubs in one gear and halfway between; the distance shrinks with friction.',
    'while-pedalling': 'The ear follows the screw: stop where it is quiet.',
    'first-four': 'The four smallest usually settle all; then one pass proves it.',
  },
  clamp: {
    pliers: 'Slack out, no strain in: the pulley must not move while you clamp.',
    preload: 'Takes the bedding in advance.',
    'firm-hand': 'No tool, the same on every bike by one hand.',
    'one-click-take-up':
      'Shift one in, ride it there, release the lever with the cranks still, take up what came free. Pulled hard it leaves up to a whole click too much.',
  },
  barrel: {
    usual: 'It can go either way, and most of the thread still holds.',
    two: 'Always the same figure: the count is never asked.',
    in: 'A new run only ever goes slack: all the travel is kept for taking it up. Draw it without strain.',
  },
  gap: {
    close: 'Close is quick and clear on small cassettes.',
    'start-wide': 'Safe to start from: nothing touches while the rest is set.',
    'smallest-clear': 'Look while in the second largest: it must not touch on the way into the largest.',
    maker: 'Where there is a figure it wins: type it.',
    'with-sag':
      'A suspension frame changes the gap under the rider: about 15 mm sagged shows as 4 to 5 mm in the stand on one common layout. Ask the maker’s chart.',
  },
  placing: {
    centred: 'In line under the smallest: quiet, and no travel to spare towards the frame.',
    outboard: 'Still drops in when the frame flexes under load.',
  },
  front: {
    tells: 'Height and line first; then the look or the turn that brings most, each stop seen before it is left.',
    conventional: 'Each stop by itself before the cable has a say: L slack, then tension, then H.',
    rotating: 'The cage is set and clamped on the big ring, by its marks; L only lets the chain drop.',
    bare: 'No chain and no cable yet: both stops by eye and hand, then chain and cable on something safe.',
    second: 'It worked lately: what shows now decides what is touched.',
  },
  height: {
    close: 'The closer the plate, the better it leads the chain up.',
    coin: 'Clears tall shifting teeth and a ring that is not quite round; two coins show it at once.',
  },
  endGap: {
    one: 'Room for a frame that flexes when the rider stands.',
    close: 'The closer the plates, the quicker it shifts and the less a chain can be thrown; on a stiff frame.',
  },
  pads: {
    flat: 'The whole pad bites at once and wears evenly; toe wears away in a month.',
    toe: 'Front touches first, so it does not squeal: a thin shim under the rear of the pad while nipping, not over a groove.',
  },
  padGap: {
    usual: 'Arms by letting out, a calliper by its barrel.',
    'let-out': 'The barrel stays in: all its thread is left for wear.',
    'wind-in': 'No wire slips while you clamp, and the gap is wound to a hair.',
  },
  film: {
    dry: 'Lined housing needs nothing, and grease holds grit.',
    greased: 'Slides from the first day, and keeps water out. Never one that dries sticky.',
  },
}

/** Why a school exists; empty for one that is not there. */
export const whyOf = (kind: SchoolKind, id: string): string => WHYS[kind][id] ?? ''

/** How an inner is drawn by each school, in order, and what its first click then does. `practice` */
export const CLAMP_STEPS: Readonly<Record<ClampId, { steps: readonly string[]; firstClick: string }>> = {
  pliers: {
    steps: [
      'Draw with pliers until the slack is out and the pulley has not moved.',
      'Clamp to torque while it is held.',
    ],
    firstClick: 'the first click pulls its full length',
  },
  preload: {
    steps: ['Draw until the slack is out, then a trace more.', 'The pulley may only just begin to stir; clamp there.'],
    firstClick: 'the first click comes a little early',
  },
  'firm-hand': {
    steps: ['Pull the inner straight by hand, firmly, as on every bike.', 'Clamp while you hold it.'],
    firstClick: 'the first click may come late or early: listen to it first',
  },
  'one-click-take-up': {
    steps: [
      'Clamp roughly; shift one in and turn the cranks until the chain sits there.',
      'Cranks still: release the lever by that click.',
      'Undo the bolt, take up only what came free, and clamp.',
    ],
    firstClick: 'expect to wind the barrel in; if it overshoots by a gear, clamp again',
  },
}
