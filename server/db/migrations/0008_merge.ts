import { sql, type Kysely, type Migration } from 'kysely'

/**
 * A bike that was entered twice becomes one: its visits, sheets and records go over, and the empty row says where to.
 */
export const merge: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
alter table bike add column merged_into uuid, add foreign key (shop, merged_into) references bike (shop, id);
grant update (merged_into) on bike to ocho_app;
grant update (bike) on job to ocho_app;
grant update (bike) on sheet to ocho_app;
grant update (bike) on record to ocho_app;
`,
      )
      .execute(db)
  },
}
