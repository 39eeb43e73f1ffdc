import { Role } from '../chapter/ids'
import { z } from 'zod'
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
/** The password once more, before an owner's act; whoever has none types their PIN. */
export const ConfirmOwner = z.strictObject({ secret: Password })
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

/** What an owner resets: at least one of the two; an empty field is left as it is. */
export const NewSecrets = z
  .strictObject({ pin: z.literal('').or(Pin).optional(), password: z.literal('').or(NewPassword).optional() })
  .refine(s => Boolean(s.pin) || Boolean(s.password), {
    path: ['pin'],
    message: 'Type a new PIN, a new password, or both',
  })

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
