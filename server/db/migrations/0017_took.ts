import { sql, type Kysely, type Migration } from 'kysely'

/** What the Floor asks at every opening: how long the latest jobs took, without reading through the sheets of years. */
export const took: Migration = {
  async up(db: Kysely<unknown>) {
    await sql.raw('create index sheet_took on sheet (shop, closed_at desc) where minutes > 0').execute(db)
  },
}
