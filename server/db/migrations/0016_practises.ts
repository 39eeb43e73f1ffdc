import { sql, type Kysely, type Migration } from 'kysely'
import { wallOf } from './walls'

/**
 * Practice runs, a row each: of no bike and no customer, read for who ran them, or for a mechanic where they show them.
 */
export const practises: Migration = {
  async up(db: Kysely<unknown>) {
    await sql
      .raw(
        `
create table practice (
  shop uuid not null references shop, id uuid not null, person uuid not null, at timestamptz not null, body jsonb not null,
  primary key (shop, id), foreign key (shop, person) references person (shop, id));
create index practice_of_person on practice (shop, person, at desc);
alter table person add column shows_practice boolean not null default false;
grant update (shows_practice) on person to ocho_app;
`,
      )
      .execute(db)
    await sql.raw(wallOf('practice')).execute(db)
    await sql.raw('grant delete on practice to ocho_app').execute(db)
  },
}
