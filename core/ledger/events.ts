import { z } from 'zod'
import { CAUSES, PARTS } from '../advice/contract'
import { HEARD } from '../response/heard'
import { REAR_COMPLAINTS } from '../procedure/complaints'
import { RunName } from '../cable/housing'
import { Run } from '../cable/run'
import { CABLE_STEPS } from '../cable/steps'
import { PROOF_TESTS } from '../brake/proof'
import { BRAKE_EVENTS } from '../brake/state'
import { HUB_EVENTS } from '../hub/state'
import { FRONT_EVENTS } from '../front/events'
import { FRONT_ORDERS, FRONT_STEPS } from '../front/orders'
import { FrontParts } from '../front/parts'
import { SchoolChoice } from '../procedure/schools'
import { SENSE_IDS } from '../procedure/senseCheck'
import { TORQUE_IDS } from '../procedure/torques'
import { HOUSING_KINDS, HOUSING_PLACES } from '../rear/clamp'
import { HANGER_KINDS } from '../rear/hanger'
import { MAX_SPROCKETS, RearParts } from './parts'

/** Version of the shapes below; older stored entries are raised to it when read. */
export const EVENT_VERSION = 1

const uuid = (name: string) => z.uuid(`${name} must be a UUID`)
export const EventId = uuid('id').brand<'EventId'>()
export type EventId = z.infer<typeof EventId>
export const PersonId = uuid('person').brand<'PersonId'>()
export type PersonId = z.infer<typeof PersonId>

const Click = z
  .int('click must be a whole number')
  .min(0, 'click counts from 0, the smallest sprocket')
  .max(MAX_SPROCKETS - 1, `click must be below ${MAX_SPROCKETS}`)
const OffsetMm = z.number().min(-15, 'offsetMm must be within 15 mm').max(15, 'offsetMm must be within 15 mm')
/** Turns are whole sixteenths: barrel + out, other screws + in. */
const Sixteenths = z
  .int('turns are whole sixteenths')
  .min(-16 * 12, 'more than 12 turns at once is not a turn')
  .max(16 * 12, 'more than 12 turns at once is not a turn')

/** What Ocho advised when this was done, and its odds, so that advice can be judged later. */
export const Advised = z.strictObject({
  move: z.string().max(80),
  right: z.number().min(0).max(1),
  after: z.number().min(0).max(1).nullable(),
  cause: z.enum(CAUSES).nullable(),
  taken: z.boolean(),
})
export type Advised = z.infer<typeof Advised>
const advised = Advised.optional()

/** One gear of a pass that was not clean; `way` or `heard` are null when not said. */
export const PassException = z.strictObject({
  sprocket: Click,
  way: z.enum(['spokes', 'frame']).nullable(),
  heard: z.enum(HEARD).exclude(['clean', 'off']).nullable(),
})

/** A gauge reading: which place of the clock, and the gap from gauge tip to rim. */
const HangerReadingIn = z.strictObject({
  hour: z.int('hour must be a whole number').min(1, 'hour must be from 1 to 12').max(12, 'hour must be from 1 to 12'),
  gapMm: z.number().min(0, 'a gap cannot be negative').max(150, 'a gap over 150 mm is not one: check the figure'),
})
const BarrelOut = z
  .int()
  .min(0, 'a barrel cannot be further in than fully in')
  .max(16 * 12, 'more than 12 turns out is not a barrel')

/** The shop's truth: what a tap can mean. No names and no free text in any of them. */
export const LedgerEvent = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('arrived'), parts: RearParts.nullable() }),
  z.strictObject({ kind: z.literal('parts'), parts: RearParts }),
  z.strictObject({
    kind: z.literal('placed'),
    where: z.enum(['rack', 'stand', 'door', 'gone']),
    stand: z.int().min(1).max(20).nullable(),
  }),
  z.strictObject({ kind: z.literal('shift'), to: Click, from: Click, heard: z.enum(HEARD), advised }),
  z.strictObject({ kind: z.literal('pass'), exceptions: z.array(PassException).max(2 * MAX_SPROCKETS), advised }),
  z.strictObject({
    kind: z.literal('turn'),
    screw: z.enum(['barrel', 'H', 'L', 'B']),
    sixteenths: Sixteenths.refine(t => t !== 0, 'a turn of 0 is none'),
    advised,
  }),
  z
    .strictObject({
      kind: z.literal('edge'),
      click: Click,
      way: z.enum(['out', 'in']),
      sixteenths: z
        .int()
        .min(-32, 'an edge is looked for over 2 turns at most')
        .max(32, 'an edge is looked for over 2 turns at most'),
      found: z.boolean(),
      advised,
    })
    .refine(e => (e.way === 'out' ? e.sixteenths >= 0 : e.sixteenths <= 0), {
      path: ['sixteenths'],
      message: 'winding out is counted +, winding in −',
    }),
  z.strictObject({ kind: z.literal('sight'), at: z.enum(['H', 'L']), offsetMm: OffsetMm, advised }),
  z.strictObject({ kind: z.literal('offset'), click: Click, offsetMm: OffsetMm, advised }),
  z.strictObject({
    kind: z.literal('gauge'),
    camberDeg: z.number().min(-20).max(20),
    toeDeg: z.number().min(-20).max(20),
    acrossMm: z.number().min(0).max(200),
    readings: z.array(HangerReadingIn).min(3).max(12).optional(),
    radiusMm: z.number().min(50).max(500).optional(),
    hanger: z.enum(HANGER_KINDS).optional(),
    advised,
  }),
  z.strictObject({
    kind: z.literal('bend'),
    hour: z.int().min(1).max(12),
    tipMm: z.number().min(0.1, 'a bend of nothing is none').max(30, 'more than 30 mm at the tip is not a small step'),
  }),
  z.strictObject({ kind: z.literal('reclamp'), barrelSixteenthsOut: BarrelOut, advised }),
  z.strictObject({ kind: z.literal('recount'), barrelSixteenthsOut: BarrelOut }),
  z.strictObject({ kind: z.literal('replace'), part: z.enum(PARTS), advised }),
  z.strictObject({
    kind: z.literal('said'),
    complaint: z.string().refine(id => REAR_COMPLAINTS.some(c => c.id === id), 'that complaint is not in the list'),
    answer: z.string().max(20).nullable(),
  }),
  z.strictObject({
    kind: z.literal('sensed'),
    exceptions: z.array(z.enum(SENSE_IDS)).max(SENSE_IDS.length),
    chainWearPercent: z
      .number()
      .min(0, 'chain wear cannot be negative')
      .max(3, 'chain wear over 3 % is not a chain any more: check the figure')
      .nullable(),
  }),
  z.strictObject({
    kind: z.literal('housing'),
    place: z.enum(HOUSING_PLACES),
    lengthMm: z
      .int('a length in whole mm')
      .min(20, 'a piece is at least 20 mm')
      .max(3500, 'a piece is at most 3500 mm'),
    of: z.enum(HOUSING_KINDS),
    ends: z.enum(['metal', 'plastic', 'sealed', 'bare']),
  }),
  z.strictObject({
    kind: z.literal('inner'),
    lengthMm: z
      .int('a length in whole mm')
      .min(300, 'an inner is at least 300 mm')
      .max(4000, 'an inner is at most 4000 mm'),
  }),
  z.strictObject({ kind: z.literal('run'), run: Run }),
  z.strictObject({ kind: z.literal('cabled'), run: RunName, step: z.enum(CABLE_STEPS) }),
  z.strictObject({ kind: z.literal('frontParts'), parts: FrontParts }),
  ...FRONT_EVENTS,
  ...BRAKE_EVENTS,
  ...HUB_EVENTS,
  z
    .strictObject({ kind: z.literal('frontStep'), order: z.enum(FRONT_ORDERS), step: z.string().max(20) })
    .refine(e => FRONT_STEPS[e.order].some(s => s.id === e.step), {
      path: ['step'],
      message: 'that step is not in the order',
    }),
  z.strictObject({
    kind: z.literal('gap'),
    gapMm: z.number().min(-20, 'a gap below −20 mm is not one').max(60, 'a gap over 60 mm is not one'),
    how: z.enum(['measured', 'centres']),
    at: z.enum(['stand', 'sagged']),
  }),
  z.strictObject({
    kind: z.literal('proved'),
    what: z.enum(['several', 'ring', 'road']),
    ring: z.enum(['small', 'middle', 'big']).nullable(),
    exceptions: z.array(Click).max(MAX_SPROCKETS),
  }),
  z.strictObject({ kind: z.literal('torqued'), exceptions: z.array(z.enum(TORQUE_IDS)).max(TORQUE_IDS.length) }),
  z.strictObject({ kind: z.literal('cut'), tailMm: z.int('a length in whole mm').min(0).max(500) }),
  z.strictObject({ kind: z.literal('bedded'), shifts: z.int().min(1).max(500) }),
  z.strictObject({ kind: z.literal('schools'), choice: SchoolChoice }),
  z.strictObject({
    kind: z.literal('proof'),
    brake: z.enum(['front', 'rear']),
    holds: z.boolean(),
    test: z.enum(PROOF_TESTS).optional(),
  }),
  z.strictObject({ kind: z.literal('wrong'), about: EventId }),
  z.strictObject({ kind: z.literal('undo'), undoes: EventId }),
  z.strictObject({ kind: z.literal('handedBack'), how: z.enum(['proven', 'unridable']) }),
  z.strictObject({ kind: z.literal('reopened') }),
])
export type LedgerEvent = z.infer<typeof LedgerEvent>
export type LedgerKind = LedgerEvent['kind']

/** What a tablet writes; `id` makes posting twice harmless, `by` is who it shows, which the server checks. */
export const Entry = z.strictObject({
  id: EventId,
  v: z.literal(EVENT_VERSION),
  at: z.iso.datetime('at must be a UTC time'),
  /** The last `seq` the tablet had seen when this was tapped. */
  basedOn: z.int().min(0),
  by: PersonId,
  event: LedgerEvent,
})
export type Entry = z.infer<typeof Entry>

/** What the ledger holds; only the server gives `seq`, the place in the job. */
export const Stored = Entry.extend({
  seq: z.int().positive(),
  receivedAt: z.iso.datetime(),
  verified: z.boolean(),
  signedBy: PersonId.nullable(),
})
export type Stored = z.infer<typeof Stored>

/** A batch: entries are taken or refused one by one. `sign` is a mechanic's hand for a trainee's gate. */
export const AppendRequest = z.strictObject({
  entries: z.array(z.unknown()).min(1, 'entries is empty').max(200, 'send at most 200 entries at once'),
  sign: z.strictObject({ person: PersonId, pin: z.string().min(1).max(12) }).optional(),
})

/** The server's answer for each entry, in the order sent. */
export const EntryAnswer = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('stored'), stored: Stored }),
  z.strictObject({ is: z.literal('held'), id: EventId, seq: z.int().positive() }),
  z.strictObject({ is: z.literal('refused'), id: z.string().nullable(), field: z.string(), message: z.string() }),
])
export type EntryAnswer = z.infer<typeof EntryAnswer>
export const AppendAnswer = z.strictObject({ answers: z.array(EntryAnswer) })

/** Kinds that are safety gates: a trainee's needs a mechanic's hand. */
export const isGate = (event: LedgerEvent): boolean =>
  event.kind === 'proof' || event.kind === 'hubProof' || (event.kind === 'sight' && event.at === 'L')

/** How many sprockets the parts must have for this event to be possible. */
export function sprocketsNeeded(event: LedgerEvent): number {
  switch (event.kind) {
    case 'shift':
      return Math.max(event.from, event.to) + 1
    case 'edge':
      return event.click === 0 ? MAX_SPROCKETS + 1 : event.click + 2
    case 'offset':
      return event.click + 1
    case 'frontShift':
      return event.sprocket === undefined ? 0 : event.sprocket + 1
    case 'proved':
      return Math.max(0, ...event.exceptions.map(k => k + 1))
    case 'pass':
      return Math.max(0, ...event.exceptions.map(e => e.sprocket + 1))
    default:
      return 0
  }
}

/** A stored entry as this version reads it, or null when a later version wrote it: "reload to update". */
export function readStored(raw: unknown): Stored | null {
  const read = Stored.safeParse(raw)
  return read.success ? read.data : null
}
