import { z } from 'zod'

const uuid = (name: string) => z.uuid(`${name} must be a UUID`)
export const EventId = uuid('id').brand<'EventId'>()
export type EventId = z.infer<typeof EventId>
export const PersonId = uuid('person').brand<'PersonId'>()
export type PersonId = z.infer<typeof PersonId>

/** The last place of a log that was seen when something was done; no log is longer than a column counts. */
export const BasedOn = z.int().min(0).max(2e9)

/**
 * What a person may do: an owner everything, a mechanic all of the work, a trainee the work with a mechanic's hand at
 * the gates.
 */
export const Role = z.enum(['owner', 'mechanic', 'trainee'])
export type Role = z.infer<typeof Role>
