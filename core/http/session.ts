import { PersonId, Role } from '../chapter/ids'
import { z } from 'zod'
import { Senses } from '../advice/learnt'
import { SchoolChoice } from '../procedure/schools'
import { line } from './words'

const Password = z
  .string({ error: 'Password: type it in' })
  .min(1, 'Password is empty: type it in')
  .max(200, 'Password is longer than 200 characters')
const NewPassword = z
  .string({ error: 'Password: type it in' })
  .min(10, 'Password needs at least 10 characters')
  .max(200, 'Password is longer than 200 characters')
const Pin = z.string({ error: 'PIN: type 4 to 8 digits' }).regex(/^\d{4,8}$/, 'PIN: type 4 to 8 digits')
const ShopCode = z
  .string({ error: 'Shop code: type it in' })
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9-]{3,30}$/, 'Shop code: 3 to 30 letters, digits or dashes')

export const SignIn = z.strictObject({ shop: ShopCode, name: line('Name', 60), password: Password })
export const FirstRun = z.strictObject({
  code: z.string().trim().min(1, 'Code: type the one shown in the terminal'),
  shopName: line('Shop name', 80),
  shop: ShopCode,
  zone: z.string().refine(isZone, 'Time zone: use a name such as Europe/Dublin'),
  name: line('Your name', 60),
  password: NewPassword,
  pin: Pin,
})
/** How long a joining code counts, and how many may be open at once. */
export const JOIN_MINUTES = 10
export const MOST_JOIN_CODES = 20
/** A device joins by the code on the owner's screen, and may say what it is called. */
export const Join = z.strictObject({
  code: z
    .string({ error: 'Code: type the one under the square' })
    .transform(c => c.toUpperCase().replace(/[^A-Z0-9]/g, ''))
    .pipe(z.string().length(8, 'Code: eight letters and digits, as under the square')),
  device: z.string().trim().max(40, 'Name: at most 40 characters').optional(),
})
/** A code just made: where it leads, as squares and to read. */
export const JoinCode = z.object({
  id: z.uuid(),
  code: z.string(),
  expiresAt: z.iso.datetime(),
  /** Where a device reads how to trust this machine; null where it need not. */
  trust: z.object({ url: z.string(), svg: z.string() }).nullable(),
  join: z.object({ url: z.string(), svg: z.string() }),
})
export type JoinCode = z.infer<typeof JoinCode>
/** What became of it. */
export const JoinCodeState = z.object({ is: z.enum(['open', 'used', 'over']), device: z.string().nullable() })

/** The password once more, before an owner's act; whoever has none types their PIN. */
export const ConfirmOwner = z.strictObject({ secret: Password })
export const SwitchPerson = z.strictObject({ person: PersonId, pin: z.string().max(12).optional() })
export const NewPerson = z.strictObject({
  name: line('Name', 60),
  role: Role,
  pin: Pin,
  password: NewPassword.optional(),
})

/** What an owner changes of a person: their name, their role, or that they have left. */
export const ChangePerson = z
  .strictObject({ name: line('Name', 60).optional(), role: Role.optional(), leaves: z.literal(true).optional() })
  .refine(
    c => c.name !== undefined || c.role !== undefined || c.leaves,
    'Say what changes: name, role, or that they leave',
  )
export type ChangePerson = z.infer<typeof ChangePerson>

/** A person's own day: the jobs they tapped on, in the order of the last tap. */
export const DayView = z.object({
  date: z.string(),
  jobs: z.array(
    z.object({
      number: z.int(),
      tag: z.string(),
      bike: z.string(),
      taps: z.int(),
      last: z.string(),
      closedAt: z.string().nullable(),
    }),
  ),
})
export type DayView = z.infer<typeof DayView>

/** What an owner resets: at least one of the two; an empty field is left as it is. */
export const NewSecrets = z
  .strictObject({ pin: z.literal('').or(Pin).optional(), password: z.literal('').or(NewPassword).optional() })
  .refine(s => Boolean(s.pin) || Boolean(s.password), {
    path: ['pin'],
    message: 'Type a new PIN, a new password, or both',
  })

export const PersonView = z.object({ id: PersonId, name: z.string(), role: Role })
export type PersonView = z.infer<typeof PersonView>

/** Whose schools are chosen: an owner chooses the shop's, each their own. */
export const ChooseSchools = z.strictObject({ of: z.enum(['shop', 'me']), choice: SchoolChoice })

/** Who is signed in and who works. */
export const SessionView = z.object({
  session: z.uuid(),
  shop: z.object({ name: z.string(), code: z.string(), zone: z.string(), demo: z.boolean() }),
  /** The schools this shop and this person work by; what is left out is as usual. */
  schools: z.object({ shop: SchoolChoice, person: SchoolChoice }),
  /** How whoever is at the tablet hears and sees, told to nobody else; null while too little is known. */
  senses: Senses.nullable().default(null),
  person: PersonView.nullable(),
  people: z.array(PersonView.extend({ fresh: z.boolean() })),
})
export type SessionView = z.infer<typeof SessionView>

/** What the sign-in page may show before anyone is signed in. */
export const DoorView = z.object({
  firstRun: z.boolean(),
  demo: z
    .object({
      shop: z.string(),
      people: z.array(z.object({ name: z.string(), role: Role, password: z.string().nullable(), pin: z.string() })),
    })
    .nullable(),
})
export type DoorView = z.infer<typeof DoorView>

export const DeviceView = z.object({
  id: z.uuid(),
  device: z.string(),
  signedInAt: z.string(),
  lastSeenAt: z.string(),
  person: z.string().nullable(),
  current: z.boolean(),
})
export type DeviceView = z.infer<typeof DeviceView>

function isZone(zone: string): boolean {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: zone }))
  } catch {
    return false
  }
}
