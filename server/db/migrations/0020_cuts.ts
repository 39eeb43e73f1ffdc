import { sql, type Kysely, type Migration } from 'kysely'

/** Which cut used up a roll or offcut: one whose answer was lost is not cut twice. None where it was thrown out. */
export const cuts: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(`alter table housing_stock add column cut uuid; grant update (cut) on housing_stock to ocho_app;`)
      .execute(db)
  },
}
