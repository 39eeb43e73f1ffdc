import { sql, type Kysely, type Migration } from 'kysely'

/** How much a bike was ridden while its new run settled; unknown of those that came back before it was asked. */
export const riding: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(`alter table settling add column riding text check (riding in ('daily', 'weekly', 'seldom'))`)
      .execute(db)
  },
}
