import { PersonId, Role } from '../chapter/ids'
import { z } from 'zod'
import { Senses } from '../advice/learnt'
import { SchoolChoice } from '../procedure/schools'

export const SwitchPerson = z.strictObject({ person: PersonId, pin: z.string().max(12).optional() })
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
