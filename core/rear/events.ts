import { HANGER_KINDS } from './hangerLimit'
import { HANGER_LOOKS } from './hangerEye'
import { HOUSING_PLACES } from '../cable/places'
import { z } from 'zod'
import { EventId } from '../chapter/ids'
import { SCREWS } from '../chapter/screws'
import { rearSays } from '../procedure/rearSays'
import { otherSays } from '../procedure/otherSays'
import { HAPPENED } from '../procedure/happened'
import { RIDINGS } from '../standards/riding'
import { SENSE_IDS } from '../procedure/senseCheck'
import { TORQUE_IDS } from '../procedure/torques'
import { CAUSES } from '../response/causes'
import { HEARD } from '../response/heard'
import { MAX_SPROCKETS } from '../standards/drivetrains'
import { PARTS } from './benchEvents'
import { GAP_LOOKS } from './gapLook'
import { HOUSING_ENDS, HOUSING_KINDS } from './clamp'
import { CLAMP_IDS } from '../procedure/clampSchools'
import { RearParts } from './parts'
import { L_FELT } from './stopFelt'

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

/** How far a figure measured in a photograph may be off, mm; left out where it was told by eye or gauge. */
const photoSdMm = z.number().min(0.05).max(3).optional()

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
const PassException = z.strictObject({
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

/** The rear bench's kinds of ledger entries. No names and no free text in any of them. */
export const REAR_EVENTS = [
  z.strictObject({ kind: z.literal('arrived'), parts: RearParts.nullable() }),
  z.strictObject({ kind: z.literal('parts'), parts: RearParts }),
  z.strictObject({ kind: z.literal('shift'), to: Click, from: Click, heard: z.enum(HEARD), advised }),
  z.strictObject({ kind: z.literal('pass'), exceptions: z.array(PassException).max(2 * MAX_SPROCKETS), advised }),
  /** Click by click to `to`, and back again: clean up to where it stopped, or to the end. */
  z.strictObject({
    kind: z.literal('went'),
    from: Click,
    to: Click,
    back: z.boolean(),
    stop: z
      .strictObject({ sprocket: Click, way: z.enum(['spokes', 'frame']), heard: z.enum(HEARD).exclude(['clean']) })
      .nullable(),
    advised,
  }),
  z.strictObject({
    kind: z.literal('turn'),
    screw: z.enum(SCREWS),
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
  z.strictObject({ kind: z.literal('sight'), at: z.enum(['H', 'L']), offsetMm: OffsetMm, photoSdMm, advised }),
  /**
   * What the microphone made of the chain running in this gear: beside what a person says, never instead.
   */
  z.strictObject({
    kind: z.literal('sounded'),
    click: Click,
    rubOdds: z.number().min(0.01).max(100),
  }),
  /** L judged by thumb and ear, the cranks turned by hand. */
  z.strictObject({ kind: z.literal('felt'), what: z.enum(L_FELT) }),
  z.strictObject({ kind: z.literal('offset'), click: Click, offsetMm: OffsetMm, photoSdMm, advised }),
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
  /** `how`: by which school the inner was drawn, where that was said. */
  z.strictObject({
    kind: z.literal('reclamp'),
    barrelSixteenthsOut: BarrelOut,
    how: z.enum(CLAMP_IDS).optional(),
    advised,
  }),
  z.strictObject({ kind: z.literal('recount'), barrelSixteenthsOut: BarrelOut }),
  z.strictObject({ kind: z.literal('replace'), part: z.enum(PARTS), advised }),
  z.strictObject({
    kind: z.literal('said'),
    complaint: z
      .string()
      .refine(id => rearSays(id) !== undefined || otherSays(id) !== undefined, 'that complaint is not in the list'),
    answer: z.string().max(20).nullable(),
    /** Said by mistake, or taken back. */
    withdrawn: z.literal(true).optional(),
  }),
  /** How much it is ridden, as its rider says. */
  z.strictObject({ kind: z.literal('ridden'), how: z.enum(RIDINGS) }),
  z.strictObject({ kind: z.literal('happened'), what: z.array(z.enum(HAPPENED)).max(HAPPENED.length) }),
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
    ends: z.enum(HOUSING_ENDS),
  }),
  z.strictObject({
    kind: z.literal('inner'),
    lengthMm: z
      .int('a length in whole mm')
      .min(300, 'an inner is at least 300 mm')
      .max(4000, 'an inner is at most 4000 mm'),
  }),
  z.strictObject({
    kind: z.literal('gap'),
    gapMm: z.number().min(-20, 'a gap below −20 mm is not one').max(60, 'a gap over 60 mm is not one'),
    how: z.enum(['measured', 'centres', 'photo']),
    at: z.enum(['stand', 'sagged']),
    photoSdMm,
  }),
  /**
   * The gap told without a figure: by eye, against a template, or by whether it touches on the way into the largest.
   */
  z.strictObject({ kind: z.literal('gapSeen'), look: z.enum(GAP_LOOKS) }),
  /** The maker's own figure, kept with the bike's parts. */
  z.strictObject({
    kind: z.literal('gapWanted'),
    gapMm: z.number().min(1, 'a gap is at least 1 mm').max(30, 'a gap is at most 30 mm'),
  }),
  z.strictObject({
    kind: z.literal('proved'),
    what: z.enum(['several', 'ring', 'road']),
    ring: z.enum(['small', 'middle', 'big']).nullable(),
    exceptions: z.array(Click).max(MAX_SPROCKETS),
  }),
  z.strictObject({
    kind: z.literal('torqued'),
    exceptions: z.array(z.enum(TORQUE_IDS)).max(TORQUE_IDS.length),
    /** What a torque wrench read, N·m, of the bolts that it was used on. */
    peaksNm: z
      .partialRecord(
        z.enum(TORQUE_IDS),
        z.number().gt(0, 'a wrench reads more than 0 N·m').max(80, 'over 80 N·m is no bolt of a derailleur'),
      )
      .optional(),
  }),
  z.strictObject({ kind: z.literal('cut'), tailMm: z.int('a length in whole mm').min(0).max(500) }),
  z.strictObject({ kind: z.literal('bedded'), shifts: z.int().min(1).max(500) }),
  /** The hanger seen by eye, from behind. */
  z.strictObject({ kind: z.literal('eyed'), hanger: z.enum(HANGER_LOOKS), advised }),
  /** What heads every bench, worked on as it is by who signs. */
  z.strictObject({ kind: z.literal('waived'), what: z.enum(['hanger', 'parts']) }),
  /** What was advised and left, by the advice's own key. */
  z.strictObject({ kind: z.literal('declined'), what: z.string().min(1).max(40), advised }),
  z.strictObject({ kind: z.literal('wrong'), about: EventId }),
] as const
export type RearEvent = z.infer<(typeof REAR_EVENTS)[number]>
export type RearOf<K extends RearEvent['kind']> = Extract<RearEvent, { kind: K }>

/** More sprockets than any cassette has: an entry that asks for so many can be on none. */
const NONE_HAS = MAX_SPROCKETS + 1

/** How many sprockets the parts must have for this entry to be possible. */
export function sprocketsNeeded(event: RearEvent): number {
  switch (event.kind) {
    case 'shift':
      return Math.max(event.from, event.to) + 1
    case 'went':
      return Math.max(event.from, event.to, event.stop?.sprocket ?? 0) + 1
    // an edge has a neighbour on both sides
    case 'edge':
      return event.click === 0 ? NONE_HAS : event.click + 2
    case 'sounded':
    case 'offset':
      return event.click + 1
    case 'proved':
      return Math.max(0, ...event.exceptions.map(k => k + 1))
    case 'pass':
      return Math.max(0, ...event.exceptions.map(e => e.sprocket + 1))
    default:
      return 0
  }
}
