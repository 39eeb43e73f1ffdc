import { USUAL_FRONT } from '#core/front/parts'
import type { RunName } from '#core/cable/housing'
import { templateRun } from '#core/cable/templates'
import { usualHubs, type HubParts } from '#core/hub/kinds'
import type { Move } from '#core/advice/contract'
import type { LedgerEvent } from '#core/ledger/events'
import type { Trouble } from './bikes'

/** Invented customers, bikes and complaints. Times are days and hours from the moment the demo is loaded. */
export type DemoJob = {
  customer: string
  contact: string
  bike: string
  frameNumber: string
  tag: string
  complaint: string
  /** Null: no derailleur at the back. */
  standard: string | null
  trouble: Trouble
  seed: number
  by: string
  /** Days ago it came in, and days from now it is promised. */
  cameDaysAgo: number
  promisedInDays: number
  promisedHour: number
  /** How far it got: hanging on the rail; on a stand until this kind of move is next; or handed back. */
  state:
    | { at: 'rail' }
    | { at: 'stand'; stand: number; until: Move['do']; proven?: boolean }
    | { at: 'door' | 'gone'; closedDaysAgo: number }
  note?: string
  /** Barrel turns out as it came, where the story needs it. */
  barrelOut?: number
  /** What was noted beside the index before and after it. */
  before?: readonly LedgerEvent[]
  after?: readonly LedgerEvent[]
}

const FINE: LedgerEvent = { kind: 'sensed', exceptions: [], chainWearPercent: 0.3 }
/** A run laid out, its housing cut and its cable new, one entry a touch. */
const renewed = (template: string, run: RunName): LedgerEvent[] => [
  { kind: 'run', run: { ...templateRun(template, run), condition: 'new' } },
  ...(
    [
      'old-out',
      'adjusters',
      'cut',
      'liner',
      'ferrules',
      'fed',
      'seated',
      'dry',
      'tugged',
      'barrels',
      'groove',
      'clamped',
      'capped',
    ] as const
  ).map((step): LedgerEvent => ({ kind: 'cabled', run, step })),
]
const ROAD: LedgerEvent = { kind: 'proved', what: 'road', ring: null, exceptions: [] }

const HUB: HubParts = { ...usualHubs().find(h => h.id === 'rod-3')!.parts, ringTeeth: 44, sprocketTeeth: 20 }

export const DEMO_JOBS: readonly DemoJob[] = [
  {
    customer: 'Orla Finnegan-Rask',
    contact: '085 555 0131',
    bike: 'Petrel island commuter',
    frameNumber: 'PT-20417',
    tag: '31',
    complaint: 'Gears need a service before winter',
    standard: 'r14-10',
    trouble: { slackMm: 0.5 },
    seed: 11,
    by: 'Moss',
    cameDaysAgo: 15,
    promisedInDays: -14,
    promisedHour: 16,
    state: { at: 'gone', closedDaysAgo: 14 },
  },
  {
    customer: 'Harbour Parcel Round',
    contact: 'desk@parcelround.example',
    bike: 'Gannet cargo, long',
    frameNumber: 'GC-0093',
    tag: '33',
    complaint: 'Slow into the easier gears with a full box',
    standard: 'r11-9',
    trouble: { slackMm: 0.9 },
    before: renewed('long', 'rear'),
    after: [...renewed('long', 'rear-brake'), ROAD],
    seed: 12,
    by: 'Ishbel',
    cameDaysAgo: 14,
    promisedInDays: -13,
    promisedHour: 12,
    state: { at: 'gone', closedDaysAgo: 13 },
  },
  {
    customer: 'Silas Thornquay',
    contact: '085 555 0162',
    bike: 'Petrel launch coach',
    frameNumber: 'PT-31170',
    tag: '44',
    complaint: 'Chatters in the middle on the tow path',
    standard: 'r14-11',
    trouble: { slackMm: 0.6 },
    before: [FINE],
    after: [
      { kind: 'frontParts', parts: USUAL_FRONT.double },
      { kind: 'frontPosition', heightMm: 2, angleDeg: 0.5 },
      { kind: 'frontShift', from: 1, to: 0, seen: 'clean' },
      { kind: 'frontShift', from: 0, to: 1, seen: 'no-climb' },
      { kind: 'frontHand', reach: 'there' },
      { kind: 'frontTurn', screw: 'barrel', sixteenths: 16 },
      { kind: 'frontShift', from: 0, to: 1, seen: 'clean' },
      { kind: 'frontGap', plate: 'inner', gapMm: 1.1 },
      { kind: 'gap', gapMm: 5.5, how: 'measured', at: 'stand' },
      ROAD,
      { kind: 'torqued', exceptions: [] },
    ],
    seed: 14,
    by: 'Ishbel',
    cameDaysAgo: 1,
    promisedInDays: 0,
    promisedHour: 17,
    state: { at: 'door', closedDaysAgo: 0 },
  },
  {
    customer: 'Harbour Parcel Round',
    contact: 'desk@parcelround.example',
    bike: 'Marram parcel 2',
    frameNumber: 'MR-7781',
    tag: '45',
    complaint: 'Will not reach the easiest gear',
    standard: 'r17-9',
    trouble: { slackMm: 1.4 },
    after: [...renewed('internal', 'rear-brake'), ROAD],
    seed: 15,
    by: 'Moss',
    cameDaysAgo: 2,
    promisedInDays: 0,
    promisedHour: 12,
    state: { at: 'door', closedDaysAgo: 1 },
  },
  {
    customer: 'Silas Thornquay',
    contact: '085 555 0162',
    bike: 'Gannet quay roadster',
    frameNumber: 'GQ-4410',
    tag: '38',
    complaint: 'New chain, now second slips',
    standard: null,
    trouble: {},
    after: [
      { kind: 'hubParts', parts: HUB },
      { kind: 'hubSeen', check: 'moved', outcome: 'yes' },
      { kind: 'hubRead', mm: 2.6 },
      { kind: 'hubCured', fault: 'axle' },
      { kind: 'hubTurn', sixteenths: -32 },
      { kind: 'hubRead', mm: 1 },
      { kind: 'hubStep', step: 'locked' },
      { kind: 'hubCount', gear: 1, crankTurns: 5, wheelTurns: 8.2 },
      { kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: 11 },
      { kind: 'hubCount', gear: 3, crankTurns: 5, wheelTurns: 14.7 },
      { kind: 'hubProof', holds: true },
      { kind: 'brakeParts', parts: { brake: 'front', kind: 'dual-pivot', lever: 'short', leverSide: 'right' } },
      { kind: 'brakeClose', brake: 'front', barrelSixteenthsOut: 52, letOutMm: null },
    ],
    seed: 36,
    by: 'Ishbel',
    cameDaysAgo: 1,
    promisedInDays: 0,
    promisedHour: 15,
    state: { at: 'door', closedDaysAgo: 0 },
  },
  {
    customer: 'Brigid Oyelaran',
    contact: 'brigid@quayside.example',
    bike: 'Gannet tourer',
    frameNumber: 'GT-1120',
    tag: '39',
    complaint: 'Two gears for one click since the new cable',
    standard: 'r12-10',
    trouble: { slackMm: -1.1 },
    before: [{ kind: 'said', complaint: 'since-cable', answer: 'firm' }, FINE],
    after: [
      { kind: 'housing', place: 'last loop', lengthMm: 295, of: '4 mm', ends: 'metal' },
      { kind: 'bedded', shifts: 30 },
      { kind: 'cut', tailMm: 40 },
      ROAD,
    ],
    seed: 16,
    by: 'Tarn',
    cameDaysAgo: 7,
    promisedInDays: -6,
    promisedHour: 17,
    state: { at: 'door', closedDaysAgo: 6 },
  },

  {
    customer: 'Marit Skerry',
    contact: '085 555 0117',
    bike: 'Petrel harbour tourer',
    frameNumber: 'PT-20881',
    tag: '41',
    complaint: 'Clatters in the middle, won’t take the big one',
    standard: 'r11-11w',
    trouble: { slackMm: 0.75 },
    seed: 21,
    by: 'Ishbel',
    cameDaysAgo: 1,
    promisedInDays: 0,
    promisedHour: 16,
    state: { at: 'stand', stand: 1, until: 'turn' },
  },
  {
    customer: 'Harbour Parcel Round',
    contact: 'desk@parcelround.example',
    bike: 'Gannet parcel 1',
    frameNumber: 'GC-0071',
    tag: '46',
    complaint: 'Slow both ways, worse when it is wet',
    standard: 'r15-10',
    trouble: { backlashMm: 1.35, slackMm: 0.2 },
    before: [
      { kind: 'said', complaint: 'slow-in', answer: 'not' },
      { kind: 'sensed', exceptions: ['returns'], chainWearPercent: 0.5 },
      { kind: 'run', run: { ...templateRun('external', 'rear'), condition: 'gritty' } },
      { kind: 'run', run: templateRun('external', 'rear-brake') },
    ],
    seed: 22,
    by: 'Moss',
    cameDaysAgo: 1,
    promisedInDays: 1,
    promisedHour: 12,
    state: { at: 'stand', stand: 2, until: 'replace' },
  },
  {
    customer: 'Eamon Blackwater-Lind',
    contact: '085 555 0149',
    bike: 'Tideway walker',
    frameNumber: 'TW-5530',
    tag: '49',
    complaint: 'Fell off the pier steps. Fine in the small ones only',
    standard: 'r17-10',
    trouble: { camberDeg: 2.6 },
    before: [
      { kind: 'said', complaint: 'one-end', answer: null },
      { kind: 'sensed', exceptions: ['spoke-guard'], chainWearPercent: 0.4 },
    ],
    seed: 229,
    by: 'Ishbel',
    cameDaysAgo: 0,
    promisedInDays: 2,
    promisedHour: 17,
    state: { at: 'stand', stand: 3, until: 'hanger' },
    note: 'Lighthouse walker: needs it for Saturday’s ferry',
  },

  {
    customer: 'Fenella Brough',
    contact: '085 555 0188',
    bike: 'Marram lighthouse',
    frameNumber: 'MR-8120',
    tag: '52',
    complaint: 'Nobody can turn the adjuster any further',
    standard: 'r14-11',
    barrelOut: 6,
    trouble: { slackMm: 2.1 },
    before: [{ kind: 'said', complaint: 'not-largest', answer: 'goes' }, FINE],
    seed: 26,
    by: 'Tarn',
    cameDaysAgo: 0,
    promisedInDays: 1,
    promisedHour: 12,
    state: { at: 'stand', stand: 4, until: 'reclamp' },
  },

  {
    customer: 'Harbour Parcel Round',
    contact: 'desk@parcelround.example',
    bike: 'Gannet cargo, short',
    frameNumber: 'GC-0102',
    tag: '47',
    complaint: 'Slow going easier, worse when wet',
    standard: 'r11-9',
    trouble: { backlashMm: 0.9 },
    seed: 31,
    by: 'Ishbel',
    cameDaysAgo: 0,
    promisedInDays: 0,
    promisedHour: 18,
    state: { at: 'rail' },
  },
  {
    customer: 'Nuala Dray',
    contact: '085 555 0175',
    bike: 'Marram city',
    frameNumber: 'MC-3344',
    tag: '48',
    complaint: 'Skips when I stand on it by the school',
    standard: 'r17-7',
    trouble: {},
    seed: 32,
    by: 'Moss',
    cameDaysAgo: 0,
    promisedInDays: 1,
    promisedHour: 16,
    state: { at: 'rail' },
  },
  {
    customer: 'Tideway Rowing Club',
    contact: 'boats@tidewayrowing.example',
    bike: 'Tideway 2 × 10',
    frameNumber: 'TW-6120',
    tag: '50',
    complaint: 'Went into the spokes on the slipway',
    standard: 'r13-10',
    trouble: { slackMm: -0.5, stopLMm: 2.6 },
    before: [
      { kind: 'frontParts', parts: USUAL_FRONT.double },
      { kind: 'frontPosition', heightMm: 2.5, angleDeg: 0 },
      { kind: 'frontShift', from: 1, to: 0, seen: 'falls-inboard' },
    ],
    seed: 33,
    by: 'Tarn',
    cameDaysAgo: 0,
    promisedInDays: 2,
    promisedHour: 12,
    state: { at: 'rail' },
  },
  {
    customer: 'Pia Vantongeren',
    contact: 'pia@quayside.example',
    bike: 'Petrel school run',
    frameNumber: 'PT-40012',
    tag: '51',
    complaint: 'Changes by itself on the hill',
    standard: 'r17-8',
    trouble: { slackMm: 0.4 },
    seed: 34,
    by: 'Ishbel',
    cameDaysAgo: 0,
    promisedInDays: 2,
    promisedHour: 17,
    state: { at: 'rail' },
  },
  {
    customer: 'Lantern Ferry',
    contact: 'pier@lanternferry.example',
    bike: 'Marram pier roadster',
    frameNumber: 'MR-1903',
    tag: '53',
    complaint: 'Freewheels in second on the bridge',
    standard: null,
    trouble: {},
    before: [
      { kind: 'hubParts', parts: HUB },
      { kind: 'hubSeen', check: 'moved', outcome: 'no' },
      { kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: null },
      { kind: 'hubCount', gear: 1, crankTurns: 5, wheelTurns: 11 },
      { kind: 'hubRead', mm: -0.8 },
    ],
    seed: 35,
    by: 'Moss',
    cameDaysAgo: 0,
    promisedInDays: 1,
    promisedHour: 12,
    state: { at: 'rail' },
  },
]
