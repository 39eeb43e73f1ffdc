import { sql, type Kysely, type Migration } from 'kysely'

/** A person's own day is read by who tapped when. */
export const days: Migration = {
  async up(db: Kysely<unknown>) {
    await sql.raw('create index events_of_person on event (shop, person, received_at);').execute(db)
  },
}
